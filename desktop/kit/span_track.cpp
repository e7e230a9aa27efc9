#include "desktop/kit/span_track.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"

namespace lacquer {

namespace {

constexpr int near_a_handle = 7;  // pixels

}  // namespace

SpanTrack::SpanTrack(double least, double most, QWidget* parent) : QWidget(parent), least_(least), most_(most) {
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::SizeHorCursor);
    setMinimumWidth(60);
    setToolTip(
        tr("Drag an end; between the ends, both; Shift is finer. Keys: arrows, Page Up and Down choose the end"));
    tell();
}

void SpanTrack::set_values(double from, double to) {
    from_ = from;
    to_ = to;
    tell();
    update();
}

void SpanTrack::tell() {
    setAccessibleName(tr("From and to"));
    setAccessibleDescription(tr("%1 to %2").arg(from_).arg(to_));
}

double SpanTrack::share_of(double value) const {
    return most_ > least_ ? std::clamp((value - least_) / (most_ - least_), 0.0, 1.0) : 0;
}

QPoint SpanTrack::handle_of(bool upper) const {
    return {place_of_share(track(), share_of(upper ? std::max(from_, to_) : std::min(from_, to_))),
            rect().center().y()};
}

void SpanTrack::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const QRect groove = groove_of(track());
    painter.fillRect(groove, theme::black);
    const int left = handle_of(false).x();
    const int right = handle_of(true).x();
    painter.fillRect(QRect(left, groove.top(), std::max(2, right - left), groove.height()), theme::gold);
    painter.setRenderHint(QPainter::Antialiasing);
    for (const bool upper : {false, true}) {
        const bool keyed = hasFocus() && upper == key_upper_;
        painter.setPen(QPen(keyed ? theme::gold : theme::hairline, keyed ? 2 : 1));
        painter.setBrush(theme::text);
        painter.drawRoundedRect(QRect(handle_of(upper) - QPoint(3, 7), QSize(7, 14)), 2, 2);
    }
}

void SpanTrack::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    const int x = event->pos().x();
    const int lower = handle_of(false).x();
    const int upper = handle_of(true).x();
    last_x_ = x;
    if (x > lower + near_a_handle && x < upper - near_a_handle) {
        hand_ = Hand::both;
    } else {
        // Where both lie on one spot, the side of the hand decides.
        const bool nearer_upper = lower == upper ? x >= lower : std::abs(x - upper) <= std::abs(x - lower);
        hand_ = nearer_upper ? Hand::upper : Hand::lower;
        key_upper_ = nearer_upper;
    }
    emit dragging(true);
    update();
}

void SpanTrack::mouseMoveEvent(QMouseEvent* event) {
    if (hand_ == Hand::none) return;
    const double across = std::max(1, track().width() - 1);
    const double by = (event->pos().x() - last_x_) / across * (most_ - least_) * pace_of(event->modifiers());
    last_x_ = event->pos().x();
    move_by(hand_, by);
}

void SpanTrack::mouseReleaseEvent(QMouseEvent*) {
    if (hand_ == Hand::none) return;
    hand_ = Hand::none;
    emit dragging(false);
}

// One end goes no further than the other; both keep their distance.
void SpanTrack::move_by(Hand hand, double by) {
    double low = std::min(from_, to_);
    double high = std::max(from_, to_);
    const double most = std::max(most_, high);
    const double least = std::min(least_, low);
    if (hand == Hand::both) by = std::clamp(by, least - low, most - high);
    if (hand == Hand::lower || hand == Hand::both) low = std::clamp(low + by, least, hand == Hand::both ? most : high);
    if (hand == Hand::upper || hand == Hand::both) high = std::clamp(high + by, hand == Hand::both ? least : low, most);
    set_values(low, high);
    emit moved(low, high);
}

void SpanTrack::keyPressEvent(QKeyEvent* event) {
    const double step = (most_ - least_) / 100 * pace_of(event->modifiers());
    switch (event->key()) {
        case Qt::Key_Left:
            return move_by(key_upper_ ? Hand::upper : Hand::lower, -step);
        case Qt::Key_Right:
            return move_by(key_upper_ ? Hand::upper : Hand::lower, step);
        case Qt::Key_PageUp:
        case Qt::Key_PageDown:
            key_upper_ = event->key() == Qt::Key_PageUp;
            return update();
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace lacquer
