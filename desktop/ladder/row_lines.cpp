#include "desktop/ladder/row_lines.h"

#include <QFontMetrics>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/lang/checker.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"

namespace lacquer {

QString joined_names(const std::vector<std::string>& names) {
    QStringList list;
    for (const std::string& name : names) list.append(qs(shown_name(name)));
    return list.join(QStringLiteral(", "));
}

std::vector<RowLine> row_lines(const Document& document, const Drawing& drawing, const std::string& step,
                               const std::vector<std::string>& users, const std::vector<Mend>& fault_mends) {
    std::vector<RowLine> lines;
    const Step* written = find_step(document.finish(), step);
    const CheckedStep* checked = find_step(document.checked(), step);
    if (written == nullptr || checked == nullptr) return lines;
    if (checked->fault) {
        lines.push_back({core_words(checked->fault->message), theme::vermilion_text, {}, true});
        if (!checked->fault->mend.empty()) lines.push_back({qs(checked->fault->mend), theme::quiet, {}, false});
        if (!fault_mends.empty()) lines.push_back({{}, {}, fault_mends, false});
    }
    const std::vector<std::string> named = checked->typed ? names_used(*checked->typed) : std::vector<std::string>();
    for (const Warning& warning : drawing.warnings()) {
        // What troubles a ground is told at the steps that read it, too.
        const bool of_source = find_ground(document.finish(), warning.where) != nullptr &&
                               std::find(named.begin(), named.end(), warning.where) != named.end();
        if (warning.where != step && !of_source) continue;
        lines.push_back({core_words(warning.message), theme::vermilion_text, {}, true});
        if (!warning.mends.empty()) lines.push_back({{}, {}, warning.mends, false});
    }
    for (const Fault& note : checked->notes) lines.push_back({core_words(note.message), theme::quiet, {}, false});
    const bool last = finished_step(document.checked()) == step;
    lines.push_back({!users.empty() ? QObject::tr("used by %1").arg(joined_names(users))
                     : last         ? QObject::tr("the finished picture")
                                    : QObject::tr("nothing uses it yet"),
                     theme::quiet,
                     {},
                     false});
    if (!written->note.empty()) lines.push_back({qs(written->note), theme::text, {}, false});
    return lines;
}

std::vector<QRect> mend_areas(const RowLine& line, const QRect& area) {
    std::vector<QRect> areas;
    int x = area.left();
    for (const Mend& mend : line.mends) {
        const int width = QFontMetrics(theme::words(theme::small)).horizontalAdvance(core_words(mend.words)) + 14;
        areas.emplace_back(x, area.top(), std::min(width, area.right() - x), area.height() - 1);
        x += width + 6;
    }
    return areas;
}

}  // namespace lacquer
