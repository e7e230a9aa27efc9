#include "desktop/ladder/ladder_view.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QScrollBar>
#include <QTextLayout>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/formula_text.h"
#include "desktop/session/session.h"
#include "desktop/theme/line_editor.h"
#include "desktop/theme/theme.h"

namespace lacquer {

LadderView::LadderView(Session& session, QWidget* parent)
    : QAbstractScrollArea(parent),
      session_(session),
      formula_editor_(new FormulaEditor(viewport())),
      line_editor_(new LineEditor(viewport())) {
    setObjectName(QStringLiteral("ladder"));
    setAccessibleName(tr("Steps"));
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
    line_editor_->setObjectName(QStringLiteral("line_editor"));
    formula_editor_->hide();
    line_editor_->hide();
    connect(&session_, &Session::finish_changed, this, &LadderView::finish_changed);
    connect(&session_, &Session::selection_changed, this, [this] {
        if (editing_ == Editing::formula && session_.selected() != selected_shown_) end_formula(true);
        rebuild();
        reveal(session_.selected());
    });
    connect(&session_, &Session::thumbnails_changed, this, [this] { viewport()->update(); });
    connect(formula_editor_, &QPlainTextEdit::textChanged, this, &LadderView::formula_typed);
    connect(formula_editor_, &FormulaEditor::accepted, this, [this] { end_formula(true); });
    connect(formula_editor_, &FormulaEditor::dismissed, this, [this] { end_formula(false); });
    connect(line_editor_, &QLineEdit::editingFinished, this, [this] { end_line(true); });
    connect(line_editor_, &LineEditor::dismissed, this, [this] { end_line(false); });
    rebuild();
}

QPoint LadderView::scrolled() const { return {0, verticalScrollBar()->value()}; }

int LadderView::wrapped_height(const std::string& formula) const {
    QTextLayout layout(lines_of(formula), theme::figures());
    layout.beginLayout();
    int height = 0;
    for (QTextLine line = layout.createLine(); line.isValid(); line = layout.createLine()) {
        line.setLineWidth(open_formula_width(viewport()->width()));
        height += 17;
    }
    layout.endLayout();
    return std::max(17, height);
}

void LadderView::rebuild() {
    selected_shown_ = session_.selected();
    const Step* step = find_step(session_.finish(), selected_shown_);
    LadderMetrics metrics;
    metrics.width = viewport()->width();
    metrics.formula_height = step == nullptr                ? 0
                             : editing_ == Editing::formula ? formula_editor_->wanted_height()
                                                            : std::min(wrapped_height(step->formula), 17 * 12);
    const CheckedStep* checked = find_step(session_.checked(), selected_shown_);
    metrics.has_fault = checked != nullptr && checked->fault.has_value();
    rows_ = ladder_rows(session_.finish(), selected_shown_, metrics);
    const int height = rows_.empty() ? 0 : rows_.back().area.bottom() + 1;
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(step_row_height);
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    place_editors();
    viewport()->update();
}

void LadderView::finish_changed() {
    if (editing_ == Editing::formula) {
        const Step* step = find_step(session_.finish(), selected_shown_);
        if (step == nullptr || session_.selected() != selected_shown_) {
            editing_ = Editing::nothing;
            formula_editor_->hide();
        } else if (formula_editor_->toPlainText() != qs(step->formula)) {
            const QSignalBlocker quiet(formula_editor_);
            formula_editor_->setPlainText(qs(step->formula));
        }
    }
    rebuild();
}

void LadderView::place_editors() {
    const LadderRow* row = selected_row();
    if (editing_ == Editing::formula && row != nullptr) {
        formula_editor_->setGeometry(row->formula_area.translated(-scrolled()));
        const CheckedStep* checked = find_step(session_.checked(), selected_shown_);
        const Step* step = find_step(session_.finish(), selected_shown_);
        if (checked != nullptr && checked->fault) {
            const Span span = checked->fault->place.span;
            formula_editor_->mark_fault(text_index(step->formula, span.begin), text_index(step->formula, span.end));
        } else {
            formula_editor_->clear_fault();
        }
    }
}

void LadderView::reveal(const std::string& step) {
    const LadderRow* row = find_row(rows_, step);
    if (row == nullptr) return;
    const int top = verticalScrollBar()->value();
    const int page = viewport()->height();
    if (row->area.top() - 28 < top) {
        verticalScrollBar()->setValue(row->area.top() - 28);
    } else if (row->area.bottom() > top + page) {
        verticalScrollBar()->setValue(row->area.bottom() - page + 1);
    }
}

QRect LadderView::visible_area(const std::string& step) const {
    const LadderRow* row = find_row(rows_, step);
    return row == nullptr ? QRect() : row->area.translated(-scrolled());
}

const LadderRow* LadderView::row_at(QPoint point) const {
    const QPoint at = point + scrolled();
    const auto found =
        std::find_if(rows_.begin(), rows_.end(), [&](const LadderRow& row) { return row.area.contains(at); });
    return found == rows_.end() ? nullptr : &*found;
}

std::size_t LadderView::current_coat() const {
    const Finish& finish = session_.finish();
    if (finish.coats.empty()) return 0;
    if (find_step(finish, session_.selected()) == nullptr) return std::min(coat_at_hand_, finish.coats.size() - 1);
    return place_of(finish, session_.selected()).coat;
}

// ---- events ----

void LadderView::resizeEvent(QResizeEvent*) { rebuild(); }

void LadderView::scrollContentsBy(int, int) {
    place_editors();
    viewport()->update();
}

void LadderView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    for (const Chip& chip : chips_) {
        if (chip.area.contains(event->pos())) return session_.select(chip.step);
    }
    const LadderRow* row = row_at(event->pos());
    if (row == nullptr) return;
    if (row->kind == LadderRowKind::coat) {
        coat_at_hand_ = row->coat;
        if (event->button() != Qt::LeftButton) return;
        Finish changed = session_.finish();
        Coat& coat = changed.coats[row->coat];
        if (event->pos().x() > row->area.right() - 48) {
            coat.on = !coat.on;
            session_.edit(std::move(changed), tr("Switched a coat"));
        } else if (event->pos().x() < 28) {
            coat.folded = !coat.folded;
            session_.edit(std::move(changed), tr("Folded a coat"));
        }
        return;
    }
    const QPoint at = event->pos() + scrolled();
    const bool was_selected = row->name == session_.selected();
    const LadderRow pressed = *row;
    session_.select(pressed.name);
    if (event->button() != Qt::LeftButton) return;
    if (pressed.thumbnail.contains(at)) {
        session_.show_step(session_.shown() == pressed.name ? std::string() : pressed.name);
    } else if (was_selected && pressed.formula_area.contains(at)) {
        edit_formula();
    } else if (was_selected && pressed.name_area.contains(at)) {
        edit_name();
    }
}

void LadderView::mouseDoubleClickEvent(QMouseEvent* event) {
    const LadderRow* row = row_at(event->pos());
    if (row != nullptr && row->kind == LadderRowKind::coat && event->pos().x() >= 28 &&
        event->pos().x() <= row->area.right() - 48) {
        coat_at_hand_ = row->coat;
        begin_line(Editing::coat_name, QRect(28, row->area.top() + 2, 220, 24),
                   qs(session_.finish().coats[row->coat].name));
    } else if (row != nullptr && row->kind == LadderRowKind::step) {
        edit_formula();
    }
}

void LadderView::mouseMoveEvent(QMouseEvent* event) {
    const LadderRow* row = row_at(event->pos());
    const std::string hovered = row != nullptr && row->kind == LadderRowKind::step ? row->name : std::string();
    if (hovered != hovered_) {
        hovered_ = hovered;
        viewport()->update();
    }
}

void LadderView::leaveEvent(QEvent*) {
    hovered_.clear();
    viewport()->update();
}

void LadderView::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Up:
            return select_next(-1);
        case Qt::Key_Down:
            return select_next(1);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return edit_formula();
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void LadderView::contextMenuEvent(QContextMenuEvent* event) {
    if (step_menu_ != nullptr) step_menu_->popup(event->globalPos());
}

// ---- what the actions do ----

void LadderView::add_step() {
    const Finish& finish = session_.finish();
    const std::string after = session_.selected();
    Step step;
    step.name = free_name(finish, "step");
    // The new step starts as what stands above it, so that the picture stays as it is.
    const CheckedStep* above = find_step(session_.checked(), after);
    const Ground* ground = first_picture(finish);
    step.formula = above != nullptr && above->typed ? after : ground != nullptr ? ground->name : "uv.x";
    const std::string name = step.name;
    if (!session_.edit(lacquer::add_step(finish, after, std::move(step)), tr("Added a step"))) return;
    session_.select(name);
    edit_name();
    name_then_formula_ = true;
}

void LadderView::edit_formula() {
    if (find_step(session_.finish(), session_.selected()) == nullptr) return;
    begin_formula();
}

void LadderView::begin_formula() {
    const Step* step = find_step(session_.finish(), session_.selected());
    if (step == nullptr || editing_ == Editing::formula) return;
    formula_before_ = step->formula;
    editing_ = Editing::formula;
    {
        const QSignalBlocker quiet(formula_editor_);
        formula_editor_->resize(open_formula_width(viewport()->width()), 40);
        formula_editor_->setPlainText(qs(step->formula));
    }
    formula_editor_->show();
    rebuild();
    reveal(session_.selected());
    formula_editor_->selectAll();
    formula_editor_->setFocus();
}

void LadderView::formula_typed() {
    if (editing_ != Editing::formula) return;
    Finish changed = session_.finish();
    const StepPlace place = place_of(changed, session_.selected());
    Step& step = changed.coats[place.coat].steps[place.step];
    step.formula = formula_editor_->toPlainText().toStdString();
    session_.edit(std::move(changed), tr("Changed %1").arg(qs(shown_name(session_.selected()))),
                  "formula " + session_.selected());
    rebuild();
}

void LadderView::end_formula(bool keep) {
    if (editing_ != Editing::formula) return;
    editing_ = Editing::nothing;
    const bool had_focus = formula_editor_->hasFocus();
    formula_editor_->hide();
    if (!keep) {
        Finish changed = session_.finish();
        const StepPlace place = place_of(changed, selected_shown_);
        changed.coats[place.coat].steps[place.step].formula = formula_before_;
        session_.edit(std::move(changed), tr("Left %1 as it was").arg(qs(shown_name(selected_shown_))),
                      "formula " + selected_shown_);
    }
    session_.seal_edit();
    rebuild();
    if (had_focus) setFocus();
}

void LadderView::begin_line(Editing what, const QRect& area, const QString& text) {
    end_formula(true);
    editing_ = what;
    name_then_formula_ = false;
    line_editor_->setFont(what == Editing::note ? theme::words() : theme::words(12, true));
    line_editor_->setText(text);
    line_editor_->setGeometry(area.translated(-scrolled()));
    line_editor_->show();
    line_editor_->selectAll();
    line_editor_->setFocus();
}

void LadderView::edit_name() {
    rebuild();
    reveal(session_.selected());
    const LadderRow* row = selected_row();
    if (row == nullptr) return;
    const QRect area(row->name_area.left() - 3, row->name_area.top() - 2, 190, 22);
    begin_line(Editing::step_name, area, qs(shown_name(row->name)));
}

void LadderView::edit_note() {
    const LadderRow* row = selected_row();
    if (row == nullptr) return;
    const QRect area(row->name_area.left() - 3, row->area.bottom() - 24, open_formula_width(viewport()->width()) + 3,
                     22);
    begin_line(Editing::note, area, qs(find_step(session_.finish(), row->name)->note));
}

void LadderView::end_line(bool keep) {
    if (editing_ != Editing::step_name && editing_ != Editing::coat_name && editing_ != Editing::note) return;
    const Editing what = editing_;
    editing_ = Editing::nothing;
    const bool then_formula = name_then_formula_;
    name_then_formula_ = false;
    const QString text = line_editor_->text().trimmed();
    line_editor_->hide();
    setFocus();
    if (keep) {
        Finish changed = session_.finish();
        if (what == Editing::step_name) {
            const std::string from = session_.selected();
            const std::string to = identifier_from(text.toStdString());
            Result<Finish> renamed = rename(session_.finish(), from, text.toStdString());
            const bool done = renamed && to != from;
            const bool was_shown = session_.shown() == from;
            if (done) {
                session_.edit(std::move(*renamed),
                              tr("Renamed %1 to %2").arg(qs(shown_name(from)), qs(shown_name(to))));
                session_.select(to);
                if (was_shown) session_.show_step(to);
            } else if (!renamed) {
                session_.edit(std::move(renamed), {});
            }
        } else if (what == Editing::coat_name && !text.isEmpty()) {
            changed.coats[current_coat()].name = text.toStdString();
            session_.edit(std::move(changed), tr("Renamed a coat"));
        } else if (what == Editing::note) {
            const StepPlace place = place_of(changed, session_.selected());
            changed.coats[place.coat].steps[place.step].note = text.toStdString();
            session_.edit(std::move(changed), tr("Noted"));
        }
    }
    rebuild();
    if (then_formula) begin_formula();
}

void LadderView::delete_selected() {
    const std::string name = session_.selected();
    if (find_step(session_.finish(), name) == nullptr) return;
    const std::vector<std::string> users = users_of(session_.finish(), name);
    const LadderRow* row = selected_row();
    std::string next;
    if (row != nullptr) {
        const auto at = row - rows_.data();
        for (const auto other : {at + 1, at - 1}) {
            if (other < 0 || other >= static_cast<std::ptrdiff_t>(rows_.size())) continue;
            const LadderRow& neighbour = rows_[static_cast<std::size_t>(other)];
            if (neighbour.kind == LadderRowKind::step && next.empty()) next = neighbour.name;
        }
    }
    QString what = tr("Deleted %1").arg(qs(shown_name(name)));
    if (!users.empty()) what += tr(", which %1 used").arg(qs(shown_name(users.front())));
    if (session_.edit(delete_step(session_.finish(), name), what)) session_.select(next);
}

void LadderView::move_selected(int direction) {
    session_.edit(move_step(session_.finish(), session_.selected(), direction),
                  tr("Moved %1 %2").arg(qs(shown_name(session_.selected())), direction < 0 ? tr("up") : tr("down")));
    reveal(session_.selected());
}

void LadderView::select_next(int direction) {
    const LadderRow* row = selected_row();
    auto at = row == nullptr ? std::ptrdiff_t{-1} : row - rows_.data();
    for (at += direction; at >= 0 && at < static_cast<std::ptrdiff_t>(rows_.size()); at += direction) {
        const LadderRow& next = rows_[static_cast<std::size_t>(at)];
        if (next.kind == LadderRowKind::step) return session_.select(next.name);
    }
}

void LadderView::toggle_step() {
    if (find_step(session_.finish(), session_.selected()) == nullptr) return;
    Finish changed = session_.finish();
    const StepPlace place = place_of(changed, session_.selected());
    Step& step = changed.coats[place.coat].steps[place.step];
    step.on = !step.on;
    const QString what = step.on ? tr("Switched %1 on") : tr("Switched %1 off");
    session_.edit(std::move(changed), what.arg(qs(shown_name(session_.selected()))));
}

void LadderView::toggle_coat() {
    if (session_.finish().coats.empty()) return;
    Finish changed = session_.finish();
    Coat& coat = changed.coats[current_coat()];
    coat.on = !coat.on;
    const QString what = (coat.on ? tr("Switched the coat %1 on") : tr("Switched the coat %1 off")).arg(qs(coat.name));
    session_.edit(std::move(changed), what);
}

void LadderView::fold_coat() {
    if (session_.finish().coats.empty()) return;
    Finish changed = session_.finish();
    Coat& coat = changed.coats[current_coat()];
    coat.folded = !coat.folded;
    const QString what = (coat.folded ? tr("Folded %1") : tr("Unfolded %1")).arg(qs(coat.name));
    session_.edit(std::move(changed), what);
}

void LadderView::add_coat() {
    const std::size_t after = current_coat();
    session_.edit(
        lacquer::add_coat(session_.finish(), after, "Coat " + std::to_string(session_.finish().coats.size() + 1)),
        tr("Added a coat; move steps into it with Alt and the arrow keys"));
}

void LadderView::rename_coat() {
    const std::size_t coat = current_coat();
    for (const LadderRow& row : rows_) {
        if (row.kind == LadderRowKind::coat && row.coat == coat) {
            coat_at_hand_ = coat;
            begin_line(Editing::coat_name, QRect(28, row.area.top() + 2, 220, 24),
                       qs(session_.finish().coats[coat].name));
            return;
        }
    }
}

void LadderView::delete_coat() {
    if (session_.finish().coats.empty()) return;
    const Coat& coat = session_.finish().coats[current_coat()];
    session_.edit(lacquer::delete_coat(session_.finish(), current_coat()),
                  tr("Deleted the coat %1 with %2").arg(qs(coat.name), qs(counted(coat.steps.size(), "step"))));
}

void LadderView::show_selected() {
    const std::string name = session_.selected();
    session_.show_step(session_.shown() == name ? std::string() : name);
}

}  // namespace lacquer
