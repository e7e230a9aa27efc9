// The dials for assistive programs.
#include "core/base/text.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/kit/dial_text.h"

namespace lacquer {

int DialsView::cell_count() const { return static_cast<int>(cells_.size()); }

AccessibleCell DialsView::cell(int index) const {
    const Cell& cell = cells_[static_cast<std::size_t>(index)];
    const Dial& dial = document_.finish().dials[cell.dial];
    AccessibleCell told{qs(shown_name(dial.name)), dial_value_text(dial, present_value(dial))};
    const QRect area = cell.area.translated(-scrolled());
    if (area.intersects(viewport()->rect())) told.area = area;
    told.chosen = dial.name == chosen_.one();
    told.role = dial.kind == DialKind::toggle ? QAccessible::CheckBox : QAccessible::Slider;
    told.actions = {tr("choose"), tr("more"), tr("less"), tr("type"), tr("change")};
    return told;
}

void DialsView::act_on_cell(int index, const QString& action) {
    const Dial dial = document_.finish().dials[cells_[static_cast<std::size_t>(index)].dial];
    choose(dial.name);
    if (action == tr("more")) step_chosen(1);
    if (action == tr("less")) step_chosen(-1);
    if (action == tr("type")) edit_value();
    if (action == tr("change")) emit wants_form(qs(dial.name));
}

}  // namespace lacquer
