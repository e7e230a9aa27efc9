#include "desktop/rehearse/cue_pads.h"

#include <QClipboard>
#include <QContextMenuEvent>
#include <QGuiApplication>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/play_edits.h"
#include "core/finish/steps_text.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"
#include "desktop/playing/playing.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int row_pad_width = 116;
constexpr int row_pad_height = 38;
constexpr int most_in_a_row = 3;
constexpr int grid_pad_width = 118;
constexpr int grid_pad_height = 60;
constexpr int gap = 6;

int columns_in(int width) { return std::max(1, (width + gap) / (grid_pad_width + gap)); }

}  // namespace

CuePads::CuePads(Models& models, Shape shape, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing), shape_(shape) {
    setObjectName(shape == Shape::row ? QStringLiteral("cue_pads") : QStringLiteral("cue_grid"));
    setAccessibleName(tr("Cues"));
    setFocusPolicy(Qt::TabFocus);
    setToolTip(
        tr("Press to play the cue now; drag its bar for the strength, with Shift for how weak a random one may be; "
           "Ctrl and a click choose several, the right button has more"));
    connect(&document_, &Document::finish_changed, this, [this] {
        updateGeometry();
        update();
    });
    connect(&playing_, &Playing::played_changed, this, qOverload<>(&QWidget::update));
}

int CuePads::count() const {
    const int all = static_cast<int>(document_.finish().cues.size());
    return shape_ == Shape::row ? std::min(most_in_a_row, all) : all;
}

QSize CuePads::sizeHint() const {
    if (shape_ == Shape::grid) return {3 * (grid_pad_width + gap), heightForWidth(3 * (grid_pad_width + gap))};
    return {std::max(1, count()) * (row_pad_width + gap) + gap, 50};
}

// In rows, the pad behind the last adds a cue.
int CuePads::heightForWidth(int width) const {
    const int rows = count() / columns_in(width) + 1;
    return rows * (grid_pad_height + gap) - gap;
}

QRect CuePads::pad_area(int cue) const {
    if (shape_ == Shape::row) return {gap + cue * (row_pad_width + gap), 6, row_pad_width, row_pad_height};
    const int columns = columns_in(width());
    const int pad_width = (width() + gap) / columns - gap;
    return {cue % columns * (pad_width + gap), cue / columns * (grid_pad_height + gap), pad_width, grid_pad_height};
}

QRect CuePads::strength_area(int cue) const {
    if (shape_ == Shape::row) return pad_area(cue).adjusted(10, 26, -10, -4);
    return pad_area(cue).adjusted(10, grid_pad_height - 16, -10, -6);
}

void CuePads::copy_chosen() {
    const ChosenNames& chosen = playing_.chosen_cues();
    if (chosen.all().empty()) return document_.say(tr("No cue is chosen: click one with Ctrl"));
    QGuiApplication::clipboard()->setText(qs(parts_as_text(document_.finish(), document_.path(), chosen.all())));
    document_.say(tr("Copied %1 as text").arg(tr("%n cue(s)", nullptr, static_cast<int>(chosen.all().size()))));
}

void CuePads::choose_all() {
    ChosenNames all;
    all.choose_all(names_of_cues(document_.finish()));
    playing_.choose_cues(std::move(all));
    document_.say(tr("Chose %1").arg(tr("%n cue(s)", nullptr, static_cast<int>(document_.finish().cues.size()))));
}

void CuePads::move_chosen(int direction) {
    const std::vector<std::string>& names = playing_.chosen_cues().all();
    if (names.empty()) return document_.say(tr("No cue is chosen: click one with Ctrl"));
    const QString what =
        names.size() > 1 ? tr("%n cue(s)", nullptr, static_cast<int>(names.size())) : qs(shown_name(names.front()));
    document_.edit(move_cues(document_.finish(), names, direction), tr("Moved %1").arg(what));
}

void CuePads::choose_one(const std::string& cue) {
    ChosenNames one;
    one.choose(cue);
    playing_.choose_cues(std::move(one));
}

void CuePads::press(int cue) {
    if (cue < 0 || cue >= static_cast<int>(document_.finish().cues.size())) return;
    const CueKind pressed = document_.finish().cues[static_cast<std::size_t>(cue)];
    choose_one(pressed.name);
    playing_.press_pad(pressed);
    update();
}

void CuePads::paint_pad(QPainter& painter, int i) const {
    const CueKind& cue = document_.finish().cues[static_cast<std::size_t>(i)];
    const QRect pad = pad_area(i);
    const bool chosen =
        playing_.chosen_cues().holds(cue.name) && (shape_ == Shape::grid || playing_.chosen_cues().several());
    painter.setRenderHint(QPainter::Antialiasing);
    const bool keys = hasFocus() && i == present_;
    painter.setPen(lit_ == i ? theme::vermilion : chosen || keys ? theme::gold : theme::hairline);
    painter.setBrush(lit_ == i ? theme::pressed : theme::raised);
    painter.drawRoundedRect(pad.adjusted(0, 0, -1, -1), 4, 4);
    painter.setRenderHint(QPainter::Antialiasing, false);
    const QString key = i < 9 ? QString::number(i + 1) : QString();
    QString strength = QString::number(cue.strength, 'f', 2);
    if (cue.weakest) strength = tr("%1 to %2").arg(*cue.weakest, 0, 'f', 2).arg(cue.strength, 0, 'f', 2);
    if (shape_ == Shape::row) {
        const QRect line = pad.adjusted(10, 4, -10, -14);
        theme::paint_text(painter, line.adjusted(0, 0, -44, 0), qs(shown_name(cue.name)),
                          theme::words(theme::plain, true), theme::text);
        theme::paint_text(painter, line.adjusted(0, 0, -14, 0), QString::number(cue.strength, 'f', 2),
                          theme::figures(theme::small), theme::text, Qt::AlignRight);
        theme::paint_text(painter, line, key, theme::figures(theme::tiny), theme::quiet, Qt::AlignRight);
    } else {
        const QRect line(pad.left() + 10, pad.top() + 5, pad.width() - 20, 18);
        theme::paint_text(painter, line.adjusted(0, 0, -14, 0), qs(shown_name(cue.name)),
                          theme::words(theme::plain, true), theme::text);
        theme::paint_text(painter, line, key, theme::figures(theme::tiny), theme::quiet, Qt::AlignRight);
        theme::paint_text(painter, line.translated(0, 17),
                          cue.strength == 0 ? tr("strength 0: no cue")
                          : cue.weakest     ? tr("random %1").arg(strength)
                                            : tr("strength %1").arg(strength),
                          theme::words(theme::small), theme::quiet);
    }
    const QRect bar = strength_area(i);
    const QRect groove = groove_of(bar);
    painter.fillRect(groove, theme::black);
    const int from = static_cast<int>(cue.weakest.value_or(0) * groove.width());
    const int to = static_cast<int>(cue.strength * groove.width());
    painter.fillRect(QRect(groove.left() + from, groove.top(), std::max(2, to - from), 4), theme::vermilion);
}

void CuePads::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), shape_ == Shape::row ? theme::black : theme::panel);
    if (count() == 0 || shape_ == Shape::grid) {
        painter.setPen(QPen(theme::hairline, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(pad_area(count()).adjusted(0, 0, -1, -1), 4, 4);
        theme::paint_text(painter, pad_area(count()), tr("+ cue"), theme::words(), theme::quiet, Qt::AlignHCenter);
    }
    for (int i = 0; i < count(); ++i) paint_pad(painter, i);
    if (count() == 0 && hasFocus()) theme::paint_focus(painter, pad_area(0));
}

void CuePads::mousePressEvent(QMouseEvent* event) {
    if ((count() == 0 || shape_ == Shape::grid) && pad_area(count()).contains(event->pos())) {
        emit wants_cue();
        return;
    }
    for (int i = 0; i < count(); ++i) {
        if (!pad_area(i).contains(event->pos())) continue;
        present_ = i;
        const std::string& name = document_.finish().cues[static_cast<std::size_t>(i)].name;
        if (event->button() == Qt::RightButton) {
            if (!playing_.chosen_cues().holds(name)) choose_one(name);
        } else if (event->modifiers().testFlag(Qt::ControlModifier)) {
            setFocus();
            ChosenNames chosen = playing_.chosen_cues();
            chosen.toggle(name, names_of_cues(document_.finish()));
            playing_.choose_cues(std::move(chosen));
        } else if (strength_area(i).adjusted(0, -2, 0, 4).contains(event->pos())) {
            dragged_ = i;
            drags_weakest_ = event->modifiers().testFlag(Qt::ShiftModifier);
            drag_strength(event->pos().x(), drags_weakest_);
        } else {
            lit_ = i;
            press(i);
        }
    }
    update();
}

void CuePads::drag_strength(int x, bool weakest) {
    const QRect bar = strength_area(dragged_);
    const double share = std::clamp(static_cast<double>(x - bar.left()) / (bar.width() - 1), 0.0, 1.0);
    const double tidy = std::round(share * 100) / 100;
    Finish changed = document_.finish();
    CueKind& cue = changed.cues[static_cast<std::size_t>(dragged_)];
    if (weakest) {
        // Dragged up to the strength itself, it is no longer random.
        cue.weakest = tidy < cue.strength ? std::optional<double>(tidy) : std::nullopt;
    } else {
        cue.strength = tidy;
        if (cue.weakest && *cue.weakest >= tidy) cue.weakest.reset();
    }
    document_.edit(std::move(changed), tr("Set a cue's strength"), "strength " + cue.name);
}

void CuePads::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ >= 0) drag_strength(event->pos().x(), drags_weakest_);
}

void CuePads::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_ >= 0) document_.seal_edit();
    dragged_ = -1;
    lit_ = -1;
    update();
}

void CuePads::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

// Delete is a step's elsewhere.
bool CuePads::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Delete)
        event->accept();
    return QWidget::event(event);
}

void CuePads::keyPressEvent(QKeyEvent* event) {
    const int columns = shape_ == Shape::row ? std::max(1, count()) : columns_in(width());
    const auto go = [this](int to) {
        present_ = std::clamp(to, 0, std::max(0, count() - 1));
        update();
    };
    switch (event->key()) {
        case Qt::Key_Left:
            return go(present_ - 1);
        case Qt::Key_Right:
            return go(present_ + 1);
        case Qt::Key_Up:
            return go(present_ - columns);
        case Qt::Key_Down:
            return go(present_ + columns);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (count() == 0) {
                emit wants_cue();
            } else if (!event->isAutoRepeat()) {
                press(present_);
            }
            return;
        case Qt::Key_Delete:
            emit wants_delete();
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void CuePads::focusInEvent(QFocusEvent*) { update(); }
void CuePads::focusOutEvent(QFocusEvent*) { update(); }

void CuePads::mouseDoubleClickEvent(QMouseEvent* event) { mousePressEvent(event); }

int CuePads::cell_count() const { return count(); }

AccessibleCell CuePads::cell(int index) const {
    const CueKind& cue = document_.finish().cues[static_cast<std::size_t>(index)];
    AccessibleCell told{qs(shown_name(cue.name)), tr("strength %1").arg(cue.strength, 0, 'f', 2), pad_area(index)};
    told.chosen = index == present_ || playing_.chosen_cues().holds(cue.name);
    told.role = QAccessible::Button;
    told.actions = {tr("press")};
    return told;
}

void CuePads::act_on_cell(int index, const QString&) { press(index); }

}  // namespace lacquer
