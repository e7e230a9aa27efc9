// Any bytes as the file of settings, and the keys that it names.
#include <QKeySequence>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "desktop/shell/setting_rows.h"
#include "desktop/shell/settings_text.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const Result<QVariantMap> values = settings_of(text);
    if (!values) {
        if (values.fault().message.empty() || values.fault().mend.empty()) std::abort();
        return 0;
    }
    for (const SettingRow& row : setting_rows()) {
        const QVariant value = values->value(QString::fromLatin1(row.key), row.otherwise);
        if (row.most <= 0 || row.otherwise.typeId() == QMetaType::QVariantList) continue;
        if (!(value.toDouble() >= row.least && value.toDouble() <= row.most)) std::abort();
    }
    for (const QVariant& key : values->value(QStringLiteral("keys")).toMap()) {
        const QKeySequence read(key.toString(), QKeySequence::PortableText);
        // The toolkit's own limit: what is read is a sequence of keys, whatever the text was.
        if (read.count() < 0 || read.count() > 4) std::abort();
    }
    const Result<QVariantMap> again = settings_of(text_with(text, *values));
    if (!again || again->size() != values->size()) std::abort();
    return 0;
}
