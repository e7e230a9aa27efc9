// What mouse and keys do on the ladder.
#include <QContextMenuEvent>
#include <QCursor>
#include <QHelpEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QScrollBar>
#include <QToolTip>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/try_on.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer {

namespace {

constexpr int drag_distance = 4;
constexpr int fold_width = 28;
constexpr int switch_room = 48;

}  // namespace

void LadderView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    for (const Chip& chip : chips_) {
        if (chip.area.contains(event->pos())) return document_.select(chip.step);
    }
    const LadderRow* row = row_at(event->pos());
    if (row == nullptr) return;
    if (row->kind == LadderRowKind::coat) {
        choose_coat(row->coat);
        if (event->button() != Qt::LeftButton) return;
        if (event->pos().x() > row->area.right() - switch_room) return toggle_coat();
        if (event->pos().x() < fold_width) fold_coat();
        return;
    }
    const LadderRow pressed = *row;
    press_selected_ = pressed.name == document_.selected();
    if (press_selected_) {
        QRect line(pressed.formula_area.left(), pressed.formula_area.bottom() + 3,
                   pressed.area.width() - pressed.formula_area.left() - 12, row_line_height);
        line.translate(-scrolled());
        for (const RowLine& words : lines_) {
            const std::vector<QRect> areas = mend_areas(words, line);
            for (std::size_t i = 0; i < areas.size(); ++i) {
                if (!areas[i].contains(event->pos())) continue;
                const Mend mend = words.mends[i];
                document_.edit(mend.apply(document_.finish()), tr("Mended: %1").arg(core_words(mend.words)));
                return;
            }
            line.translate(0, row_line_height);
        }
    }
    chosen_coat_.reset();
    const std::vector<std::string>& selection = document_.selection();
    const bool among = std::find(selection.begin(), selection.end(), pressed.name) != selection.end();
    if (event->button() != Qt::LeftButton) return among ? void() : document_.select(pressed.name);
    if (event->modifiers().testFlag(Qt::ShiftModifier)) return document_.select_to(pressed.name);
    if (event->modifiers().testFlag(Qt::ControlModifier)) return document_.toggle_selected(pressed.name);
    dragging_ = Dragging::pressed;
    press_ = event->pos();
    dragged_step_ = pressed.name;
    dragged_word_ = word_at(event->pos());
}

void LadderView::begin_drag(QPoint at) {
    const LadderRow* row = find_row(rows_, dragged_step_);
    if (row == nullptr) return;
    const bool number =
        dragged_word_ && (dragged_word_->word.kind == LiveKind::number || dragged_word_->word.kind == LiveKind::choice);
    if (number) {
        dragging_ = Dragging::number;
        dragged_value_ = dragged_word_->word.value;
        document_.set_interacting(true);
    } else if (row->thumbnail.contains(press_ + scrolled())) {
        dragging_ = Dragging::picture;
    } else {
        dragging_ = Dragging::row;
    }
    drag_at_ = at;
}

void LadderView::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_ == Dragging::pressed && (event->buttons() & Qt::LeftButton) != 0 &&
        (event->pos() - press_).manhattanLength() >= drag_distance) {
        begin_drag(press_);
    }
    if (dragging_ == Dragging::number && dragged_word_) {
        const double fine = pace_of(event->modifiers());
        LiveWord& word = dragged_word_->word;
        // A choice or a count takes a longer way.
        const double per_pixel = word.whole || word.kind == LiveKind::choice ? 1.0 / 16 : word.increment;
        dragged_value_ += (event->pos().x() - drag_at_.x()) * per_pixel * fine;
        drag_at_ = event->pos();
        if (word.kind == LiveKind::choice) {
            dragged_value_ = std::clamp(dragged_value_, 0.0, static_cast<double>(word.choices.size()) - 1);
        }
        LiveWord set = word;
        if (fine < 1 && !word.whole && word.kind == LiveKind::number) set.increment *= fine;
        const std::string text = set_number(dragged_word_->step, set, dragged_value_, true);
        word.span.end = word.span.begin + static_cast<std::uint32_t>(text.size());
        return;
    }
    if (dragging_ == Dragging::picture) return drag_picture(event->pos());
    if (dragging_ == Dragging::row) return drag_row(event->pos());
    const LadderRow* row = row_at(event->pos());
    const std::string hovered = row != nullptr && row->kind == LadderRowKind::step ? row->name : std::string();
    const auto word = word_at(event->pos());
    const bool same_word =
        word.has_value() == hovered_word_.has_value() &&
        (!word || (word->step == hovered_word_->step && word->word.span == hovered_word_->word.span));
    if (hovered == hovered_ && same_word) return;
    hovered_ = hovered;
    hovered_word_ = word;
    const bool number = word && word->word.kind == LiveKind::number;
    viewport()->setCursor(number ? Qt::SizeHorCursor : word ? Qt::PointingHandCursor : Qt::ArrowCursor);
    viewport()->update();
}

void LadderView::mouseReleaseEvent(QMouseEvent* event) {
    const Dragging was = std::exchange(dragging_, Dragging::nothing);
    if (was == Dragging::number) {
        document_.set_interacting(false);
        document_.say(
            tr("Set a number of %1 to %2")
                .arg(qs(shown_name(dragged_step_)), qs(number_text(dragged_value_, dragged_word_->word.increment))));
        return;
    }
    if (was == Dragging::picture) return drop_picture();
    if (was == Dragging::row) return drop_row();
    if (was != Dragging::pressed || event->button() != Qt::LeftButton) return;
    const LadderRow* row = find_row(rows_, dragged_step_);
    if (row == nullptr) return;
    const LadderRow pressed = *row;
    const QPoint at = event->pos() + scrolled();
    document_.select(pressed.name);
    if (pressed.thumbnail.contains(at)) {
        drawing_.show_step(drawing_.shown() == pressed.name ? std::string() : pressed.name);
    } else if (press_selected_ && dragged_word_) {
        hovered_word_ = dragged_word_;
        word_cursor_ = -1;
        edit_word();
    } else if (press_selected_ && pressed.formula_area.contains(at)) {
        edit_formula();
    } else if (press_selected_ && pressed.name_area.contains(at)) {
        edit_name();
    }
}

// ---- dragging a picture onto a word ----

void LadderView::drag_picture(QPoint at) {
    drag_at_ = at;
    drop_fits_ = false;
    drop_words_ = tr("drop %1 on a word of a step below").arg(qs(shown_name(dragged_step_)));
    hovered_word_ = word_at(at);
    if (hovered_word_ && hovered_word_->step != dragged_step_) {
        const StepPlace from = place_of(document_.finish(), dragged_step_);
        const StepPlace to = place_of(document_.finish(), hovered_word_->step);
        if (std::pair(from.coat, from.step) > std::pair(to.coat, to.step)) {
            drop_words_ =
                tr("%1 stands further down, and a step reads only what is above it").arg(qs(shown_name(dragged_step_)));
            return viewport()->update();
        }
        const Step* step = find_step(document_.finish(), hovered_word_->step);
        std::string formula = step->formula;
        const Span span = hovered_word_->word.span;
        formula.replace(span.begin, span.end - span.begin, dragged_step_);
        const CheckedFinish tried =
            candidates_on(document_.checked(), hovered_word_->step, TryOnUse::replace, {formula});
        const CheckedStep* made = find_step(tried, candidate_name(0));
        drop_fits_ = made != nullptr && made->typed != nullptr;
        drop_words_ =
            drop_fits_
                ? tr("%1 in place of %2").arg(qs(shown_name(dragged_step_)), qs(shown_name(hovered_word_->word.text)))
            : made != nullptr && made->fault ? core_words(made->fault->message)
                                             : drop_words_;
    }
    viewport()->update();
}

void LadderView::drop_picture() {
    const auto at = hovered_word_;
    viewport()->update();
    if (!at || at->step == dragged_step_) return document_.say(tr("Dropped on no word, so nothing was connected"));
    if (!drop_fits_) return document_.say(drop_words_);
    replace_word(at->step, at->word.span, dragged_step_,
                 tr("%1 uses %2 now").arg(qs(shown_name(at->step)), qs(shown_name(dragged_step_))));
    document_.select(at->step);
}

// ---- dragging a row to another place ----

std::vector<std::string> LadderView::dragged_steps() const {
    const std::vector<std::string>& selection = document_.selection();
    const bool among = std::find(selection.begin(), selection.end(), dragged_step_) != selection.end();
    return among ? selection : std::vector<std::string>{dragged_step_};
}

// Below a step, or onto a heading: into its coat.
Result<Finish> LadderView::dropped() const {
    if (drop_coat_) return move_steps_to_coat(document_.finish(), dragged_steps(), *drop_coat_);
    Result<Finish> moved = document_.finish();
    std::string below = drop_below_;
    for (const std::string& name : dragged_steps()) {
        moved = move_step_below(std::move(*moved), name, below);
        if (!moved) break;
        below = name;
    }
    return moved;
}

void LadderView::drag_row(QPoint at) {
    drag_at_ = at;
    const LadderRow* row = row_at(at);
    drop_below_.clear();
    drop_coat_.reset();
    drop_fits_ = row != nullptr;
    const std::vector<std::string> names = dragged_steps();
    const QString words =
        names.size() == 1 ? qs(shown_name(names.front())) : tr("%n step(s)", nullptr, static_cast<int>(names.size()));
    drop_words_ = tr("move %1 here").arg(words);
    if (row != nullptr && row->kind == LadderRowKind::coat) {
        drop_coat_ = row->coat;
        drop_words_ = tr("move %1 into %2").arg(words, qs(document_.finish().coats[row->coat].name));
    } else if (row != nullptr) {
        // The lower half of a row is below it, the upper half above.
        const bool lower = at.y() + scrolled().y() > row->area.center().y();
        auto target = row - rows_.data();
        if (!lower) --target;
        if (target >= 0 && rows_[static_cast<std::size_t>(target)].kind == LadderRowKind::step)
            drop_below_ = rows_[static_cast<std::size_t>(target)].name;
        drop_fits_ = std::find(names.begin(), names.end(), drop_below_) == names.end();
    }
    if (drop_fits_) {
        if (const Result<Finish> moved = dropped()) drop_words_ += broken_words(*moved, names);
    }
    viewport()->update();
}

void LadderView::drop_row() {
    viewport()->update();
    if (!drop_fits_) return;
    const std::vector<std::string> names = dragged_steps();
    const QString words =
        names.size() == 1 ? qs(shown_name(names.front())) : tr("%n step(s)", nullptr, static_cast<int>(names.size()));
    document_.edit(dropped(), tr("Moved %1").arg(words));
}

// A row or picture that is dragged goes back to where it came from.
bool LadderView::call_off_drag() {
    if (dragging_ != Dragging::picture && dragging_ != Dragging::row) return false;
    dragging_ = Dragging::nothing;
    hovered_word_.reset();
    document_.say(tr("Called off"));
    viewport()->update();
    return true;
}

// ---- the rest ----

void LadderView::mouseDoubleClickEvent(QMouseEvent* event) {
    const LadderRow* row = row_at(event->pos());
    if (row != nullptr && row->kind == LadderRowKind::coat && event->pos().x() >= fold_width &&
        event->pos().x() <= row->area.right() - switch_room) {
        begin_coat_line(Editing::coat_name, row->coat);
    } else if (row != nullptr && row->kind == LadderRowKind::step && !word_at(event->pos())) {
        edit_formula();
    }
}

void LadderView::wheelEvent(QWheelEvent* event) {
    const auto word = word_at(event->position().toPoint());
    const bool number = word && word->word.kind == LiveKind::number && word->step == document_.selected();
    if (!number) return QAbstractScrollArea::wheelEvent(event);
    hovered_word_ = word;
    word_cursor_ = -1;
    const int notches = wheel_.notches(*event);
    if (notches != 0) change_number(notches * pace_of(event->modifiers()));
    event->accept();
}

void LadderView::leaveEvent(QEvent*) {
    hovered_.clear();
    hovered_word_.reset();
    viewport()->update();
}

bool LadderView::event(QEvent* event) {
    // While a word is taken hold of, these keys are about that.
    const int key = event->type() == QEvent::ShortcutOverride ? static_cast<QKeyEvent*>(event)->key() : 0;
    const bool own = key == Qt::Key_Escape || key == Qt::Key_Plus || key == Qt::Key_Minus || key == Qt::Key_Equal;
    const bool drags = dragging_ == Dragging::picture || dragging_ == Dragging::row;
    if ((own && word_cursor_ >= 0 && !document_.interacting()) || (key == Qt::Key_Escape && drags)) {
        event->accept();
        return true;
    }
    return QAbstractScrollArea::event(event);
}

bool LadderView::viewportEvent(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto word = word_at(viewport()->mapFromGlobal(help->globalPos()));
        QString text;
        if (word && word->word.kind == LiveKind::function) {
            const auto found = document_.checked().catalogue->operations.find(word->word.text);
            if (found != document_.checked().catalogue->operations.end()) text = qs(found->second.about);
        } else if (word && !word->word.argument.empty()) {
            text = qs(shown_name(word->word.argument) + (word->word.unit.empty() ? "" : ", " + word->word.unit));
            if (word->word.range) {
                text += tr(", %1 to %2")
                            .arg(qs(plain_number(word->word.range->first, 4)),
                                 qs(plain_number(word->word.range->second, 4)));
            }
            if (!word->word.choices.empty()) {
                const auto at = static_cast<std::size_t>(
                    std::clamp(word->word.value, 0.0, static_cast<double>(word->word.choices.size() - 1)));
                text += QStringLiteral(": ") + qs(word->word.choices[at]);
            }
        } else if (word) {
            const Step* step = find_step(document_.finish(), word->word.text);
            const Dial* dial = find_dial(document_.finish(), word->word.text);
            if (step != nullptr) text = qs(step->note);
            if (dial != nullptr) text = qs(dial->note);
        }
        if (text.isEmpty()) {
            QToolTip::hideText();
        } else {
            QToolTip::showText(help->globalPos(), QStringLiteral("<p>%1</p>").arg(text.toHtmlEscaped()), this);
        }
        return true;
    }
    return QAbstractScrollArea::viewportEvent(event);
}

void LadderView::keyPressEvent(QKeyEvent* event) {
    const double by = pace_of(event->modifiers());
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            return select_next(event->key() == Qt::Key_Up ? -1 : 1, event->modifiers().testFlag(Qt::ShiftModifier));
        case Qt::Key_Left:
            return walk_word(-1);
        case Qt::Key_Right:
            return walk_word(1);
        case Qt::Key_Plus:
        case Qt::Key_Equal:
            return change_number(by);
        case Qt::Key_Minus:
            return change_number(-by);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (choosing_value_) return make_dial(false);
            return word_cursor_ >= 0 ? edit_word() : edit_formula();
        case Qt::Key_Escape:
            if (call_off_drag()) return;
            if (word_cursor_ >= 0) {
                choosing_value_ = false;
                word_cursor_ = -1;
                viewport()->update();
                return;
            }
            [[fallthrough]];
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void LadderView::contextMenuEvent(QContextMenuEvent* event) {
    const LadderRow* row = row_at(event->pos());
    QMenu* menu = row != nullptr && row->kind == LadderRowKind::coat ? coat_menu_ : step_menu_;
    if (row != nullptr && row->kind == LadderRowKind::coat) choose_coat(row->coat);
    if (menu != nullptr) menu->popup(event->globalPos());
}

}  // namespace lacquer
