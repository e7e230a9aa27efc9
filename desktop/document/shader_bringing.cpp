#include "desktop/document/shader_bringing.h"

#include <QFileInfo>
#include <QObject>

#include "core/base/file.h"
#include "core/finish/bring_shader.h"
#include "core/finish/checked.h"
#include "desktop/document/document.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/text.h"

namespace lacquer {

namespace {

// In one line: what was connected, or the first thing that is to be mended.
QString words_on(const BroughtShader& brought, const CheckedStep* step) {
    if (step != nullptr && step->fault)
        return QObject::tr("Brought in, with a place to mend: %1").arg(fault_words(*step->fault));
    QStringList told;
    for (const std::string& words : brought.told) told.append(core_words(words));
    if (told.isEmpty()) return QObject::tr("Brought in");
    constexpr qsizetype most = 3;
    const QString more = told.size() > most ? QObject::tr(", and %1 more").arg(told.size() - most) : QString();
    return QObject::tr("Brought in: %1").arg(told.mid(0, most).join(QStringLiteral(", ")) + more);
}

}  // namespace

bool start_from_shader_text(Document& document, const QString& text, const QString& name) {
    Result<BroughtShader> brought = bring_shader(text.toStdString(), name.toStdString());
    if (!brought) {
        document.complain(brought.fault());
        return false;
    }
    if (!document.start_new()) return false;
    document.edit(std::move(brought->finish), QObject::tr("A new finish of the shader %1").arg(name));
    document.select(brought->step);
    const CheckedStep* step = find_step(document.checked(), brought->step);
    document.say(words_on(*brought, step), step != nullptr && step->fault ? Tone::failed : Tone::done);
    return true;
}

bool start_from_shader(Document& document, const QString& path) {
    const auto read = [path = path.toStdString()] { return read_whole_file(path, max_shader_file); };
    const auto text = document.disk().read(QObject::tr("reading the shader"), read);
    if (!text) return false;
    if (!*text) {
        document.complain(text->fault());
        return false;
    }
    return start_from_shader_text(document, qs(**text), QFileInfo(path).completeBaseName());
}

}  // namespace lacquer
