#include "desktop/rehearse/time_rule.h"

#include <QContextMenuEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/time_view.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int side = 20;
constexpr int axis = 20;

}  // namespace

TimeRule::TimeRule(Models& models, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing) {
    setObjectName(QStringLiteral("time_rule"));
    setAccessibleName(tr("Time"));
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(50);
    connect(&playing_, &Playing::time_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::finish_changed, this, [this] {
        chosen_cue_ = -1;
        update();
    });
    connect(&playing_, &Playing::playing_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, [this] { scrubbing_ = false; });
}

int TimeRule::x_of(double seconds) const {
    return side + static_cast<int>(std::lround(seconds / document_.finish().length * (width() - 2 * side)));
}

double TimeRule::time_at(int x) const {
    return std::clamp(static_cast<double>(x - side) / std::max(1, width() - 2 * side), 0.0, 1.0) *
           document_.finish().length;
}

int TimeRule::cue_at(QPoint point) const {
    const Cues& tape = document_.finish().tape.cues;
    for (std::size_t i = 0; i < tape.size(); ++i) {
        if (std::abs(point.x() - x_of(tape[i].at)) <= 6 && point.y() <= axis + 2) return static_cast<int>(i);
    }
    return -1;
}

void TimeRule::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::black);
    painter.setPen(theme::hairline);
    painter.drawLine(side, axis, width() - side, axis);
    const double length = document_.finish().length;
    const double step = tick_step(length, width() - 2 * side);
    const int now = x_of(playing_.time());
    const QString words = QString::number(playing_.time(), 'f', 2) + tr(" s");
    const int words_width = QFontMetrics(theme::figures(theme::small)).horizontalAdvance(words) + 8;
    const int left = now + 6 + words_width > width() ? now - 4 - words_width : now + 6;
    for (int i = 0; i * step <= length + 1e-9; ++i) {
        const int x = x_of(i * step);
        painter.setPen(theme::hairline);
        painter.drawLine(x, axis - 5, x, axis + 5);
        // Half a number beside the present time would be read as part of it.
        constexpr int half_label = 12;
        if (x + half_label > left - 2 && x - half_label < left + words_width) continue;
        theme::paint_text(painter, QRect(x - 30, 30, 60, 16),
                          qs(plain_number(i * step, 1)) + (i == 0 ? tr(" s") : QString()), theme::figures(theme::tiny),
                          theme::quiet, Qt::AlignHCenter);
    }
    const Cues& tape = document_.finish().tape.cues;
    painter.setRenderHint(QPainter::Antialiasing);
    for (std::size_t i = 0; i < tape.size(); ++i) {
        const double half = 3 + 3 * tape[i].strength;
        const QPointF foot(x_of(tape[i].at), axis);
        painter.setPen(static_cast<int>(i) == chosen_cue_ ? QPen(theme::gold, 2) : Qt::NoPen);
        painter.setBrush(theme::vermilion);
        painter.drawPolygon(
            QPolygonF({foot + QPointF(-half, 0), foot + QPointF(0, -2 * half), foot + QPointF(half, 0)}));
        if (static_cast<int>(i) == chosen_cue_) {
            theme::paint_text(painter, QRect(x_of(tape[i].at) + 9, 2, 180, 16),
                              tr("%1 %2 at %3 s · Del")
                                  .arg(qs(shown_name(tape[i].name)))
                                  .arg(tape[i].strength, 0, 'f', 2)
                                  .arg(tape[i].at, 0, 'f', 2),
                              theme::words(theme::small), theme::text);
        }
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(QRect(now, 4, 2, 42), theme::text);
    painter.fillRect(QRect(left - 2, 30, words_width, 16), theme::black);
    theme::paint_text(painter, QRect(left, 30, words_width, 16), words, theme::figures(theme::small), theme::text);
    if (hasFocus()) theme::paint_focus(painter, rect());
}

void TimeRule::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void TimeRule::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::RightButton) return;
    chosen_cue_ = cue_at(event->pos());
    if (chosen_cue_ < 0) {
        scrubbing_ = true;
        document_.set_interacting(true);
        playing_.set_time(time_at(event->pos().x()));
    }
    update();
}

void TimeRule::mouseMoveEvent(QMouseEvent* event) {
    if (scrubbing_) playing_.set_time(time_at(event->pos().x()));
}

void TimeRule::mouseReleaseEvent(QMouseEvent*) {
    if (scrubbing_) document_.set_interacting(false);
    scrubbing_ = false;
}

void TimeRule::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) return delete_chosen();
    if (event->key() == Qt::Key_Left) return playing_.step_frames(-1);
    if (event->key() == Qt::Key_Right) return playing_.step_frames(1);
    QWidget::keyPressEvent(event);
}

void TimeRule::delete_chosen() {
    Finish changed = document_.finish();
    if (chosen_cue_ < 0 || chosen_cue_ >= static_cast<int>(changed.tape.cues.size())) return;
    changed.tape.cues.erase(changed.tape.cues.begin() + chosen_cue_);
    document_.edit(std::move(changed), tr("Deleted a cue"));
}

}  // namespace lacquer
