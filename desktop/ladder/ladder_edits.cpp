// What the actions of the ladder do.
#include <QClipboard>
#include <QGuiApplication>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/steps_text.h"
#include "core/finish/ticked_edits.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/formulas/text_completion.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

void LadderView::add_step() {
    const Finish& finish = document_.finish();
    const std::string after = document_.selected();
    Step step;
    step.name = free_name(finish, "step");
    // The new step starts as what stands above it, so that the picture stays as it is.
    const CheckedStep* above = find_step(document_.checked(), after);
    const Ground* ground = first_picture(finish);
    step.formula = above != nullptr && above->typed ? after : ground != nullptr ? ground->name : "uv.x";
    const std::string name = step.name;
    if (!document_.edit(lacquer::add_step(finish, after, std::move(step)), tr("Added a step"))) return;
    document_.select(name);
    edit_name();
    name_then_formula_ = true;
}

void LadderView::add_step_above() {
    const std::string below = document_.selected();
    if (find_step(document_.finish(), below) == nullptr) return add_step();
    Step step;
    step.name = free_name(document_.finish(), "step");
    step.formula = "uv.x";
    const std::string name = step.name;
    if (!document_.edit(add_step_before(document_.finish(), below, std::move(step)), tr("Added a step above"))) return;
    document_.select(name);
    edit_name();
    name_then_formula_ = true;
}

void LadderView::edit_formula() {
    if (find_step(document_.finish(), document_.selected()) == nullptr) return;
    begin_formula();
}

void LadderView::begin_formula() {
    const Step* step = find_step(document_.finish(), document_.selected());
    if (step == nullptr || editing_ == Editing::formula) return;
    formula_before_ = step->formula;
    rules_before_ = step->rules;
    editing_ = Editing::formula;
    {
        const QSignalBlocker quiet(formula_editor_);
        formula_editor_->resize(open_formula_width(viewport()->width()), 40);
        formula_editor_->setPlainText(qs(step->formula));
    }
    formula_editor_->show();
    rebuild();
    reveal(document_.selected());
    formula_editor_->selectAll();
    formula_editor_->setFocus();
}

void LadderView::formula_typed() {
    if (editing_ != Editing::formula) return;
    Finish changed = document_.finish();
    const StepPlace place = place_of(changed, document_.selected());
    Step& step = changed.coats[place.coat].steps[place.step];
    set_formula(step, formula_editor_->toPlainText().toStdString());
    document_.edit(std::move(changed), tr("Changed %1").arg(qs(shown_name(document_.selected()))),
                   "formula " + document_.selected());
    rebuild();
    completion_->offer();
}

void LadderView::end_formula(bool keep) {
    if (editing_ != Editing::formula) return;
    editing_ = Editing::nothing;
    const bool had_focus = formula_editor_->hasFocus();
    formula_editor_->hide();
    completion_->hide();
    if (!keep) {
        Finish changed = document_.finish();
        const StepPlace place = place_of(changed, selected_shown_);
        Step& step = changed.coats[place.coat].steps[place.step];
        step.formula = formula_before_;
        step.rules = rules_before_;
        document_.edit(std::move(changed), tr("Left %1 as it was").arg(qs(shown_name(selected_shown_))),
                       "formula " + selected_shown_);
    }
    // What a formula asks of the last tick has a width that nobody need say.
    if (Finish declared = declare_past(document_.checked(), selected_shown_); keep && declared != document_.finish())
        document_.edit(std::move(declared), tr("Set how many numbers it has"), "formula " + selected_shown_);
    document_.seal_edit();
    rebuild();
    if (had_focus) setFocus();
}

void LadderView::begin_line(Editing what, const QRect& area, const QString& text) {
    end_formula(true);
    editing_ = what;
    line_step_ = document_.selected();
    name_then_formula_ = false;
    line_editor_->setFont(what == Editing::note ? theme::words() : theme::words(theme::plain, true));
    line_editor_->setText(text);
    line_editor_->setGeometry(area.translated(-scrolled()));
    line_editor_->show();
    line_editor_->selectAll();
    line_editor_->setFocus();
}

void LadderView::edit_name() {
    rebuild();
    reveal(document_.selected());
    const LadderRow* row = selected_row();
    if (row == nullptr) return;
    const QRect area(row->name_area.left() - 3, row->name_area.top() - 2, 190, 22);
    begin_line(Editing::step_name, area, qs(header_text(*find_step(document_.finish(), row->name))));
}

void LadderView::edit_note() {
    const LadderRow* row = selected_row();
    if (row == nullptr) return;
    const QRect area(row->name_area.left() - 3, row->area.bottom() - 24, open_formula_width(viewport()->width()) + 3,
                     22);
    begin_line(Editing::note, area, qs(find_step(document_.finish(), row->name)->note));
}

void LadderView::end_line(bool keep) {
    if (editing_ == Editing::word) return end_word(keep);
    if (editing_ == Editing::nothing || editing_ == Editing::formula) return;
    const Editing what = editing_;
    editing_ = Editing::nothing;
    // Whoever went elsewhere meanwhile is not fetched back.
    const bool had_focus = line_editor_->hasFocus();
    const bool then_formula = name_then_formula_ && had_focus;
    name_then_formula_ = false;
    const QString text = line_editor_->text().trimmed();
    line_editor_->hide();
    if (had_focus) setFocus();
    const bool of_coat = what == Editing::coat_name || what == Editing::coat_note;
    // What is named or noted may have gone meanwhile.
    const bool is_there =
        of_coat ? line_coat_ < document_.finish().coats.size() : find_step(document_.finish(), line_step_) != nullptr;
    if (keep && is_there) {
        Finish changed = document_.finish();
        if (what == Editing::step_name) {
            const std::string from = line_step_;
            const std::string to = identifier_from(name_in_header(text.toStdString()));
            Result<Finish> renamed = set_header(document_.finish(), from, text.toStdString());
            const bool done = renamed && *renamed != document_.finish();
            const bool was_shown = drawing_.shown() == from;
            if (done) {
                document_.edit(std::move(*renamed),
                               to != from ? tr("Renamed %1 to %2").arg(qs(shown_name(from)), qs(shown_name(to)))
                                          : tr("Its header is %1 now").arg(text));
                document_.select(to);
                if (was_shown) drawing_.show_step(to);
            } else if (!renamed) {
                document_.edit(std::move(renamed), {});
            }
        } else if (what == Editing::coat_name && !text.isEmpty()) {
            const QString from = qs(changed.coats[line_coat_].name);
            changed.coats[line_coat_].name = text.toStdString();
            document_.edit(std::move(changed), tr("Renamed the coat %1 to %2").arg(from, text));
        } else if (what == Editing::coat_note) {
            changed.coats[line_coat_].note = text.toStdString();
            document_.edit(std::move(changed), tr("Noted"));
        } else if (what == Editing::note) {
            const StepPlace place = place_of(changed, line_step_);
            changed.coats[place.coat].steps[place.step].note = text.toStdString();
            document_.edit(std::move(changed), tr("Noted"));
        }
    }
    rebuild();
    if (then_formula) begin_formula();
}

void LadderView::delete_selected() {
    const std::vector<std::string> names = document_.selection();
    if (names.empty()) return;
    // What comes below is selected next, else what stands above.
    std::string next;
    bool passed = false;
    for (const LadderRow& row : rows_) {
        if (row.kind != LadderRowKind::step) continue;
        if (std::find(names.begin(), names.end(), row.name) != names.end()) {
            passed = true;
            continue;
        }
        next = row.name;
        if (passed) break;
    }
    const std::vector<std::string> users = users_of(document_.finish(), names.front());
    QString what = names.size() == 1 ? tr("Deleted %1").arg(qs(shown_name(names.front())))
                                     : tr("Deleted %1").arg(tr("%n step(s)", nullptr, static_cast<int>(names.size())));
    if (names.size() == 1 && !users.empty()) what += tr(", which %1 used").arg(qs(shown_name(users.front())));
    if (names.size() == 1 && users.size() > 1) what += tr(" and %1 more").arg(users.size() - 1);
    if (document_.edit(for_each_selected(
                           [](Finish finish, const std::string& name) { return delete_step(std::move(finish), name); }),
                       what))
        document_.select(next);
}

void LadderView::move_selected(int direction) {
    const std::vector<std::string> names = document_.selection();
    Result<Finish> moved = for_each_selected(
        [direction](Finish finish, const std::string& name) { return move_step(std::move(finish), name, direction); },
        direction > 0);
    const QString moved_words = names.size() == 1 ? qs(shown_name(document_.selected()))
                                                  : tr("%n step(s)", nullptr, static_cast<int>(names.size()));
    QString what = tr("Moved %1 %2").arg(moved_words, direction < 0 ? tr("up") : tr("down"));
    if (moved) what += broken_words(*moved, names);
    document_.edit(std::move(moved), what);
    reveal(document_.selected());
}

// What a finish names from below, of these steps: ": rim names torn, which is below it now".
QString LadderView::broken_words(const Finish& finish, const std::vector<std::string>& names) const {
    const auto is_one = [&](const std::string& name) {
        return std::find(names.begin(), names.end(), name) != names.end();
    };
    for (const OutOfOrder& broken : out_of_order(finish)) {
        if (!is_one(broken.step) && !is_one(broken.names)) continue;
        return tr(": %1 names %2, which is below it now")
            .arg(qs(shown_name(broken.step)), qs(shown_name(broken.names)));
    }
    return {};
}

// One change after another on all selected steps, from the top or from the bottom.
Result<Finish> LadderView::for_each_selected(const std::function<Result<Finish>(Finish, const std::string&)>& change,
                                             bool from_below) const {
    std::vector<std::string> names = document_.selection();
    if (from_below) std::reverse(names.begin(), names.end());
    Result<Finish> changed = document_.finish();
    for (const std::string& name : names) {
        changed = change(std::move(*changed), name);
        if (!changed) break;
    }
    return changed;
}

void LadderView::group_selected() {
    const std::vector<std::string> names = document_.selection();
    const std::string heading = "Coat " + std::to_string(document_.finish().coats.size() + 1);
    const std::string selected = document_.selected();
    if (!document_.edit(
            group_steps(document_.finish(), names, heading),
            tr("Grouped %1 under %2").arg(tr("%n step(s)", nullptr, static_cast<int>(names.size())), qs(heading))))
        return;
    document_.select(selected);
    begin_coat_line(Editing::coat_name, place_of(document_.finish(), selected).coat);
}

void LadderView::select_all() {
    document_.select_all();
    document_.say(tr("Selected %1").arg(tr("%n step(s)", nullptr, static_cast<int>(document_.selection().size()))));
}

void LadderView::select_next(int direction, bool stretch) {
    // Walking along the steps is about steps again, also where there is no further one.
    chosen_coat_.reset();
    viewport()->update();
    const LadderRow* row = selected_row();
    auto at = row == nullptr ? std::ptrdiff_t{-1} : row - rows_.data();
    for (at += direction; at >= 0 && at < static_cast<std::ptrdiff_t>(rows_.size()); at += direction) {
        const LadderRow& next = rows_[static_cast<std::size_t>(at)];
        if (next.kind == LadderRowKind::step)
            return stretch ? document_.select_to(next.name) : document_.select(next.name);
    }
}

// All selected steps become what the present one is not.
void LadderView::toggle_of_step(bool Step::*flag, const QString& set, const QString& unset) {
    const Step* present = find_step(document_.finish(), document_.selected());
    if (present == nullptr) return;
    const bool to = !(present->*flag);
    const std::vector<std::string>& names = document_.selection();
    Finish changed = document_.finish();
    for (const std::string& name : names) {
        const StepPlace place = place_of(changed, name);
        changed.coats[place.coat].steps[place.step].*flag = to;
    }
    const QString words =
        names.size() == 1 ? qs(shown_name(present->name)) : tr("%n step(s)", nullptr, static_cast<int>(names.size()));
    document_.edit(std::move(changed), (to ? set : unset).arg(words));
}

void LadderView::toggle_step() { toggle_of_step(&Step::on, tr("Switched %1 on"), tr("Switched %1 off")); }

void LadderView::toggle_stand_in() {
    toggle_of_step(&Step::stand_in, tr("%1 is a stand-in now"), tr("%1 is final now"));
}

void LadderView::duplicate_selected() {
    Result<StepEdit> made = duplicate_step(document_.finish(), document_.selected());
    if (!made) return document_.say(fault_words(made.fault()));
    document_.edit(std::move(made->finish), tr("Duplicated %1").arg(qs(shown_name(document_.selected()))));
    document_.select(made->step);
}

void LadderView::extract_part() {
    const std::string step = document_.selected();
    Span span;
    if (editing_ == Editing::formula) {
        const QTextCursor cursor = formula_editor_->textCursor();
        const QString text = formula_editor_->toPlainText();
        span = {static_cast<std::uint32_t>(text.left(cursor.selectionStart()).toUtf8().size()),
                static_cast<std::uint32_t>(text.left(cursor.selectionEnd()).toUtf8().size())};
        end_formula(true);
    } else if (const auto at = word_at_hand()) {
        span = at->word.span;
    } else {
        return document_.say(tr("Choose a part first: mark it in the formula, or go to a word with the arrow keys"));
    }
    Result<StepEdit> made = extract_step(document_.finish(), step, span);
    if (!made) {
        return document_.say(fault_words(made.fault()));
    }
    document_.edit(std::move(made->finish), tr("Made %1 a step of its own").arg(qs(shown_name(made->step))));
    document_.select(made->step);
    edit_name();
}

void LadderView::inline_selected() {
    const std::string step = document_.selected();
    const std::vector<std::string> users = users_of(document_.finish(), step);
    if (document_.edit(inline_step(document_.checked(), step),
                       tr("Inlined %1 into %2").arg(qs(shown_name(step)), joined_names(users))) &&
        !users.empty()) {
        document_.select(users.front());
    }
}

void LadderView::invert_selected() {
    document_.edit(invert_step(document_.checked(), document_.selected()),
                   tr("Inverted %1").arg(qs(shown_name(document_.selected()))));
}

void LadderView::swap_selected() {
    const auto at = word_at_hand();
    const Step* step = find_step(document_.finish(), document_.selected());
    if (step == nullptr) return;
    const auto length = static_cast<std::uint32_t>(step->formula.size());
    const Span span = at && at->step == step->name ? at->word.span : Span{0, length};
    document_.edit(swap_arguments(document_.finish(), document_.selected(), span),
                   tr("Swapped two parts of %1").arg(qs(shown_name(document_.selected()))));
}

void LadderView::take_mend() {
    for (const RowLine& line : lines_) {
        if (line.mends.empty()) continue;
        const Mend mend = line.mends.front();
        document_.edit(mend.apply(document_.finish()), tr("Mended: %1").arg(core_words(mend.words)));
        return;
    }
    document_.say(tr("There is nothing to mend in %1").arg(qs(shown_name(document_.selected()))));
}

void LadderView::walk_thread(int direction) {
    const std::string from = document_.selected();
    const std::vector<std::string> ends = direction > 0 ? users(from) : sources(from);
    if (ends.empty()) {
        return document_.say(direction > 0 ? tr("Nothing uses %1 yet").arg(qs(shown_name(from)))
                                           : tr("%1 comes from no other step").arg(qs(shown_name(from))));
    }
    if (ends.size() == 1) return document_.select(ends.front());
    Chooser::Offer offer;
    offer.title = (direction > 0 ? tr("%1 goes to") : tr("%1 comes from")).arg(qs(shown_name(from)));
    for (const std::string& end : ends) {
        const Step* step = find_step(document_.finish(), end);
        offer.choices.push_back({.name = qs(shown_name(end)), .words = qs(step->formula), .has_picture = true});
    }
    offer.taken = [this, ends](int index) { document_.select(ends.at(static_cast<std::size_t>(index))); };
    offer.picture = [this, ends](int index) { return thumbnail_of(ends.at(static_cast<std::size_t>(index))); };
    const LadderRow* row = selected_row();
    const int y = row != nullptr ? row->area.top() - scrolled().y() + step_row_height : 40;
    chooser_.open(viewport()->mapTo(window(), QPoint(28, y)), std::move(offer));
}

void LadderView::copy_steps() {
    const std::vector<std::string>& names = document_.selection();
    if (names.empty()) return;
    QGuiApplication::clipboard()->setText(qs(steps_as_text(document_.finish(), document_.path(), names)));
    const QString words =
        names.size() == 1 ? qs(shown_name(names.front())) : tr("%n step(s)", nullptr, static_cast<int>(names.size()));
    document_.say(tr("Copied %1 as text, with the dials it names").arg(words));
}

void LadderView::cut_steps() {
    copy_steps();
    delete_selected();
}

void LadderView::paste(const QString& text) {
    Result<StepEdit> pasted =
        paste_text(document_.finish(), document_.path(), document_.selected(), text.toStdString());
    if (!pasted) return document_.say(fault_words(pasted.fault()));
    const std::size_t count = step_count(pasted->finish) - step_count(document_.finish());
    document_.edit(std::move(pasted->finish),
                   count > 0 ? tr("Pasted %1").arg(tr("%n step(s)", nullptr, static_cast<int>(count)))
                             : tr("Pasted what was copied"));
    if (count == 0) return;
    document_.select(pasted->step);
}

void LadderView::paste_steps() { paste(QGuiApplication::clipboard()->text()); }

void LadderView::show_selected() {
    const std::string name = document_.selected();
    drawing_.show_step(drawing_.shown() == name ? std::string() : name);
}

}  // namespace lacquer
