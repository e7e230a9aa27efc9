#include "desktop/shell/settings_text.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStringList>
#include <algorithm>
#include <optional>

#include "desktop/shell/setting_rows.h"

namespace lacquer {

namespace {

using Read = std::optional<QVariant>;

std::optional<QJsonObject> object_of(std::string_view text) {
    const QJsonDocument read = QJsonDocument::fromJson(QByteArray(text.data(), static_cast<qsizetype>(text.size())));
    return read.isObject() ? std::optional(read.object()) : std::nullopt;
}

Read number_of(const SettingRow& row, const QJsonValue& value) {
    const double number = value.toDouble();
    const bool fits = value.isDouble() && number >= row.least && number <= row.most;
    return fits ? Read(number) : Read();
}

Read words_of(const SettingRow& row, const QJsonValue& value) {
    const QString words = value.toString();
    const bool is_choice = std::any_of(row.choices.begin(), row.choices.end(),
                                       [&](const char* choice) { return words == QLatin1String(choice); });
    return value.isString() && (row.choices.empty() || is_choice) ? Read(words) : Read();
}

// All of the list or nothing: half a layout is none.
template <class List, class Each>
Read list_of(const QJsonValue& value, const Each& each) {
    if (!value.isArray()) return std::nullopt;
    List list;
    for (const QJsonValue& member : value.toArray()) {
        const Read read = each(member);
        if (!read) return std::nullopt;
        list.append(read->value<typename List::value_type>());
    }
    return QVariant(list);
}

Read value_of(const SettingRow& row, const QJsonValue& value) {
    switch (row.otherwise.typeId()) {
        case QMetaType::Bool:
            return value.isBool() ? Read(value.toBool()) : Read();
        case QMetaType::Int:
            return number_of(row, value);
        case QMetaType::QByteArray:
            return value.isString() ? Read(QByteArray::fromBase64(value.toString().toLatin1())) : Read();
        case QMetaType::QStringList:
            return list_of<QStringList>(value, [&](const QJsonValue& member) { return words_of(row, member); });
        case QMetaType::QVariantList:
            return list_of<QVariantList>(value, [&](const QJsonValue& member) { return number_of(row, member); });
        case QMetaType::QVariantMap:
            return value.isObject() ? Read(value.toObject().toVariantMap()) : Read();
        default:
            return words_of(row, value);
    }
}

QJsonValue json_of(const QVariant& value) {
    if (value.typeId() == QMetaType::QByteArray) return QString::fromLatin1(value.toByteArray().toBase64());
    return QJsonValue::fromVariant(value);
}

}  // namespace

Result<QVariantMap> settings_of(std::string_view text) {
    const std::optional<QJsonObject> object = object_of(text);
    if (!object)
        return Fault{"settings.unreadable",
                     "the settings cannot be read, and the usual ones hold",
                     "set them again; what was in their file stays beside it",
                     {},
                     Severity::warning};
    QVariantMap values;
    for (const SettingRow& row : setting_rows()) {
        const QString key = QString::fromLatin1(row.key);
        if (const Read read = value_of(row, object->value(key))) values[key] = *read;
    }
    return values;
}

std::string text_with(std::string_view text, const QVariantMap& values) {
    QJsonObject object = object_of(text).value_or(QJsonObject());
    for (auto value = values.begin(); value != values.end(); ++value) object[value.key()] = json_of(value.value());
    return QJsonDocument(object).toJson().toStdString();
}

}  // namespace lacquer
