// The ladder's rows for assistive programs.
#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/core_words.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

int LadderView::cell_count() const { return static_cast<int>(rows_.size()); }

AccessibleCell LadderView::cell(int index) const {
    const LadderRow& row = rows_[static_cast<std::size_t>(index)];
    const Coat& coat = document_.finish().coats[row.coat];
    AccessibleCell cell;
    const QRect area = row.area.translated(-scrolled());
    if (area.intersects(viewport()->rect())) cell.area = area;
    if (row.kind == LadderRowKind::coat) {
        cell.name = tr("Coat %1").arg(qs(coat.name));
        cell.value = tr("%1, %2").arg(coat.on ? tr("on") : tr("off"), coat.folded ? tr("folded") : tr("open"));
        cell.role = QAccessible::Heading;
        cell.chosen = chosen_coat_ == row.coat;
        cell.actions = {tr("select"), tr("fold"), tr("switch")};
        return cell;
    }
    const Step& step = coat.steps[row.step];
    cell.name = qs(shown_name(step.name));
    const CheckedStep* checked = find_step(document_.checked(), step.name);
    cell.value = checked != nullptr && checked->fault ? fault_words(*checked->fault) : qs(step.formula);
    if (!step.on) cell.value += tr(", off");
    cell.chosen = is_selected(step.name);
    cell.actions = {tr("select"), tr("show"), tr("edit"), tr("switch")};
    return cell;
}

void LadderView::act_on_cell(int index, const QString& action) {
    const LadderRow row = rows_[static_cast<std::size_t>(index)];
    if (row.kind == LadderRowKind::coat) {
        choose_coat(row.coat);
        if (action == tr("fold")) fold_coat();
        if (action == tr("switch")) toggle_coat();
        return;
    }
    document_.select(row.name);
    if (action == tr("show")) show_selected();
    if (action == tr("edit")) edit_formula();
    if (action == tr("switch")) toggle_step();
}

}  // namespace lacquer
