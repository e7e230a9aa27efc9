// What mouse and keys do in the lanes.
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QScrollBar>
#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/lanes_metrics.h"
#include "desktop/rehearse/lanes_view.h"

namespace lacquer {

using namespace lanes;

namespace {

constexpr double frame = 1.0 / 60;
constexpr int near = 7;

}  // namespace

int LanesView::event_at(QPoint point, TapeEvent& event) const {
    const Lane* lane = lane_at(point);
    if (lane == nullptr || point.x() < names_width - near) return -1;
    const Tape& tape = document_.finish().tape;
    int best = near + 12;
    const auto offer = [&](double at, bool is_cue, std::size_t index) {
        // A flag flies to the right of its foot.
        const int away = point.x() - x_of(at);
        const int distance = is_cue && away > 0 ? std::max(0, away - 8) : std::abs(away);
        if (distance > near || distance >= best) return;
        best = distance;
        event = {is_cue, index};
    };
    if (lane->kind == Kind::cues) {
        for (std::size_t i = 0; i < tape.cues.size(); ++i) offer(tape.cues[i].at, true, i);
    } else if (lane->kind == Kind::signal) {
        for (std::size_t i = 0; i < tape.changes.size(); ++i) {
            if (tape.changes[i].name == lane->name) offer(tape.changes[i].at, false, i);
        }
    }
    return best <= near ? best : -1;
}

void LanesView::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void LanesView::mousePressEvent(QMouseEvent* event) {
    drag_from_ = mouse_ = event->pos();
    if (event->button() == Qt::MiddleButton) {
        drag_ = Drag::pan;
        return;
    }
    if (event->pos().y() < rule_height) {
        if (event->modifiers().testFlag(Qt::ShiftModifier)) {
            drag_ = Drag::loop;
            loop_from_ = std::clamp(view_.time_at(event->pos().x()), 0.0, document_.finish().length);
            return;
        }
        drag_ = Drag::time;
        document_.set_interacting(true);
        playing_.set_time(view_.time_at(event->pos().x()));
        return;
    }
    const Lane* lane = lane_at(event->pos());
    if (lane != nullptr && event->pos().x() < names_width) return press_lane(event, *lane);
    press_plot(event);
}

// The name opens the lane, and what is behind it.
void LanesView::press_lane(QMouseEvent* event, const Lane& lane) {
    const std::string name = lane.name;
    const Finish& finish = document_.finish();
    if (lane.kind == Kind::signal) emit signal_chosen(qs(name));
    if (lane.kind == Kind::cues || event->button() != Qt::LeftButton) return;
    // The name of an open lane is first chosen; once more shuts it.
    const bool open = lane.height > closed_height;
    const bool toggles = !open || named_ == name;
    named_ = name;
    if (toggles) {
        (open ? opened_ : closed_).erase(name);
        (open ? closed_ : opened_).insert(name);
        rebuild();
    }
    if (lane.kind == Kind::signal) return;
    // What moves it is what one wants to change.
    const Dial* dial = find_dial(finish, name);
    const Response* response =
        find_response(finish, dial != nullptr ? dial->formula.substr(0, dial->formula.find_first_of(". *+-/(")) : name);
    if (response != nullptr) {
        emit wants_response(qs(response->name));
    } else if (dial != nullptr) {
        emit wants_dial(qs(dial->name));
    }
}

void LanesView::press_plot(QMouseEvent* event) {
    TapeEvent at;
    const bool add = event->modifiers().testFlag(Qt::ShiftModifier);
    if (event->button() == Qt::RightButton) {
        // The menu is about what it was opened on.
        if (event_at(event->pos(), at) >= 0 && std::find(chosen_.begin(), chosen_.end(), at) == chosen_.end())
            chosen_ = {at};
        return viewport()->update();
    }
    if (event_at(event->pos(), at) < 0) {
        if (!add) chosen_.clear();
        drag_ = Drag::box;
        viewport()->update();
        return;
    }
    const bool was = std::find(chosen_.begin(), chosen_.end(), at) != chosen_.end();
    if (add && was) {
        std::erase(chosen_, at);
        viewport()->update();
        return;
    }
    if (!was && !add) chosen_.clear();
    if (!was) chosen_.push_back(at);
    std::sort(chosen_.begin(), chosen_.end());
    drag_ = Drag::events;
    tape_before_ = document_.finish().tape;
    chosen_before_ = chosen_;
    viewport()->update();
}

// Along: earlier or later. Up and down: stronger or weaker, or a signal's value. With Ctrl it is a copy that moves.
void LanesView::drag_events(QMouseEvent* event) {
    const double by = view_.seconds(event->pos().x() - drag_from_.x());
    const int up = drag_from_.y() - event->pos().y();
    if (std::abs(event->pos().x() - drag_from_.x()) + std::abs(up) < 3 && document_.finish().tape == tape_before_)
        return;
    document_.set_interacting(true);
    const bool copies = event->modifiers().testFlag(Qt::ControlModifier);
    const bool fine = event->modifiers().testFlag(Qt::ShiftModifier);
    EditedTape edited = copies ? copied_events(tape_before_, chosen_before_, fine ? by / 10 : by)
                               : moved_events(tape_before_, chosen_before_, fine ? by / 10 : by);
    constexpr int dead = 6;  // pixels up or down that count for nothing, so that moving along is not also a change
    const double lift = std::abs(up) <= dead ? 0 : up > 0 ? up - dead : up + dead;
    if (chosen_before_.size() == 1 && !chosen_before_[0].is_cue && lift != 0) {
        Change change = edited.tape.changes[edited.events[0].index];
        if (const Signal* signal = find_signal(document_.finish(), change.name)) {
            const double span = signal->most - signal->least;
            change.value = signal_value(*signal, {change.value[0] + lift / open_height * span, change.value[1], 0});
            if (signal->kind == SignalKind::toggle) change.value[0] = lift > 0 ? 1 : 0;
            edited = with_change(edited.tape, edited.events[0].index, change);
        }
    } else if (lift != 0) {
        edited = with_strength(edited.tape, edited.events, lift / 60.0);
    }
    take_tape(std::move(edited), copies ? tr("Copied on the tape") : tr("Moved on the tape"), true);
}

void LanesView::mouseMoveEvent(QMouseEvent* event) {
    const QPoint before = std::exchange(mouse_, event->pos());
    const double length = document_.finish().length;
    switch (drag_) {
        case Drag::time:
            playing_.set_time(view_.time_at(event->pos().x()));
            break;
        case Drag::loop: {
            const double to = std::clamp(view_.time_at(event->pos().x()), 0.0, length);
            playing_.set_loop(std::min(loop_from_, to), std::max(loop_from_, to));
            break;
        }
        case Drag::pan:
            view_.pan(-view_.seconds(event->pos().x() - before.x()), length);
            retrace();
            break;
        case Drag::events:
            drag_events(event);
            break;
        case Drag::box:
            viewport()->update();
            break;
        case Drag::nothing: {
            TapeEvent at;
            viewport()->setCursor(event->pos().y() < rule_height    ? Qt::SizeHorCursor
                                  : event->pos().x() < names_width  ? Qt::PointingHandCursor
                                  : event_at(event->pos(), at) >= 0 ? Qt::SizeAllCursor
                                                                    : Qt::ArrowCursor);
            break;
        }
    }
}

void LanesView::mouseReleaseEvent(QMouseEvent* event) {
    if (drag_ == Drag::loop && std::abs(event->pos().x() - drag_from_.x()) < 3) {
        playing_.set_loop(0, 0);
        document_.say(tr("Loops over the whole length"));
    }
    if (drag_ == Drag::box) {
        const QRect box = QRect(drag_from_, event->pos()).normalized();
        const Tape& tape = document_.finish().tape;
        const auto take = [&](const Lane& lane, double at, TapeEvent one) {
            if (!area_of(lane).intersects(box) || x_of(at) < box.left() || x_of(at) > box.right()) return;
            if (std::find(chosen_.begin(), chosen_.end(), one) == chosen_.end()) chosen_.push_back(one);
        };
        for (const Lane& lane : lanes_) {
            if (box.width() < 3) break;
            for (std::size_t i = 0; lane.kind == Kind::cues && i < tape.cues.size(); ++i)
                take(lane, tape.cues[i].at, {true, i});
            for (std::size_t i = 0; lane.kind == Kind::signal && i < tape.changes.size(); ++i) {
                if (tape.changes[i].name == lane.name) take(lane, tape.changes[i].at, {false, i});
            }
        }
        std::sort(chosen_.begin(), chosen_.end());
    }
    if (drag_ == Drag::time || drag_ == Drag::events) document_.set_interacting(false);
    if (drag_ == Drag::events) document_.seal_edit();
    drag_ = Drag::nothing;
    viewport()->update();
}

// In an empty place, something new comes there: the first cue's pad, or the signal's value at that height.
void LanesView::mouseDoubleClickEvent(QMouseEvent* event) {
    const Finish& finish = document_.finish();
    if (event->pos().y() < rule_height) return show_all_time();
    const Lane* lane = lane_at(event->pos());
    TapeEvent at;
    if (lane == nullptr || event->pos().x() < names_width || event_at(event->pos(), at) >= 0)
        return mousePressEvent(event);
    const double time = std::clamp(view_.time_at(event->pos().x()), 0.0, finish.length);
    Tape tape = finish.tape;
    if (lane->kind == Kind::cues && !finish.cues.empty()) {
        const CueKind* cue = find_cue(finish, playing_.chosen_cues().one());
        if (cue == nullptr) cue = &finish.cues.front();
        add_to_tape(tape, Cue{cue->name, time, cue->strength, cue->direction});
        take_tape({std::move(tape), {}}, tr("Put %1 on the tape").arg(qs(shown_name(cue->name))), false);
    } else if (lane->kind == Kind::signal) {
        const Signal& signal = *find_signal(finish, lane->name);
        const QRect area = area_of(*lane);
        const double share = static_cast<double>(area.bottom() - event->pos().y()) / area.height();
        const double wanted = signal.kind == SignalKind::toggle ? (share > 0.5 ? 1 : 0)
                                                                : signal.least + share * (signal.most - signal.least);
        add_to_tape(tape, Change{signal.name, time, signal_value(signal, {wanted, wanted, 0})});
        take_tape({std::move(tape), {}}, tr("Set %1 on the tape").arg(qs(shown_name(signal.name))), false);
    }
}

// Over the names the lanes scroll; over the rest, time comes nearer, or with Shift passes along.
void LanesView::wheelEvent(QWheelEvent* event) {
    const double turned = event->angleDelta().y() != 0 ? event->angleDelta().y() : event->angleDelta().x();
    if (event->position().x() < names_width) {
        verticalScrollBar()->setValue(verticalScrollBar()->value() - static_cast<int>(turned / 2));
    } else if (event->modifiers().testFlag(Qt::ShiftModifier) || event->angleDelta().y() == 0) {
        view_.pan(-turned / 120 * (view_.to - view_.from) / 10, document_.finish().length);
        retrace();
    } else {
        view_.zoom(std::pow(2.0, -turned / 240), event->position().x(), document_.finish().length);
        retrace();
    }
    event->accept();
}

bool LanesView::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const auto* keys = static_cast<QKeyEvent*>(event);
        const bool own = keys->key() == Qt::Key_Delete || keys->key() == Qt::Key_Backspace ||
                         keys->key() == Qt::Key_Return ||
                         (keys->key() == Qt::Key_Escape && has_choice() && !document_.interacting()) ||
                         (keys->matches(QKeySequence::Copy) && has_choice());
        if (own) {
            event->accept();
            return true;
        }
    }
    return QAbstractScrollArea::event(event);
}

void LanesView::choose_all() {
    const Tape& tape = document_.finish().tape;
    chosen_.clear();
    for (std::size_t i = 0; i < tape.cues.size(); ++i) chosen_.push_back({true, i});
    for (std::size_t i = 0; i < tape.changes.size(); ++i) chosen_.push_back({false, i});
    std::sort(chosen_.begin(), chosen_.end());
    viewport()->update();
}

void LanesView::keyPressEvent(QKeyEvent* event) {
    const bool far = event->modifiers().testFlag(Qt::ShiftModifier);
    switch (event->key()) {
        case Qt::Key_Delete:
        case Qt::Key_Backspace:
            return delete_chosen();
        case Qt::Key_Escape:
            return clear_choice();
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return type_chosen();
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const double way = (event->key() == Qt::Key_Left ? -frame : frame) * (far ? 10 : 1);
            if (has_choice()) return nudge(way);
            return playing_.step_frames(event->key() == Qt::Key_Left ? -1 : 1);
        }
        case Qt::Key_Up:
        case Qt::Key_Down:
            if (!has_choice()) break;
            return take_tape(with_strength(document_.finish().tape, chosen_, event->key() == Qt::Key_Up ? 0.05 : -0.05),
                             tr("Changed the strength"), true);
        default:
            break;
    }
    if (event->matches(QKeySequence::Copy)) return copy_chosen();
    QAbstractScrollArea::keyPressEvent(event);
}

}  // namespace lacquer
