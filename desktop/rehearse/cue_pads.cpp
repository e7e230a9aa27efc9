#include "desktop/rehearse/cue_pads.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/session/session.h"
#include "desktop/theme/theme.h"

namespace lacquer {

namespace {

constexpr int pad_width = 116;
constexpr int pad_height = 38;
constexpr int most_pads = 3;

}  // namespace

CuePads::CuePads(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("cue_pads"));
    setAccessibleName(tr("Cues"));
    setToolTip(tr("Press to play the cue now; drag its bar for the strength; right-click to change it"));
    connect(&session_, &Session::finish_changed, this, [this] {
        updateGeometry();
        update();
    });
}

int CuePads::count() const { return std::min(most_pads, static_cast<int>(session_.finish().cues.size())); }

QSize CuePads::sizeHint() const { return {std::max(1, count()) * (pad_width + 6) + 6, 50}; }

QRect CuePads::pad_area(int cue) const { return {6 + cue * (pad_width + 6), 6, pad_width, pad_height}; }

QRect CuePads::strength_area(int cue) const { return pad_area(cue).adjusted(10, 26, -10, -4); }

void CuePads::press(int cue) {
    if (cue < 0 || cue >= static_cast<int>(session_.finish().cues.size())) return;
    const CueKind kind = session_.finish().cues[static_cast<std::size_t>(cue)];
    session_.press_cue(kind.name, kind.strength);
}

void CuePads::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::black);
    if (count() == 0) {
        painter.setPen(QPen(theme::hairline, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(pad_area(0).adjusted(0, 0, -1, -1), 4, 4);
        theme::paint_text(painter, pad_area(0), tr("+ cue"), theme::words(), theme::quiet, Qt::AlignHCenter);
        return;
    }
    for (int i = 0; i < count(); ++i) {
        const CueKind& cue = session_.finish().cues[static_cast<std::size_t>(i)];
        const QRect pad = pad_area(i);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(lit_ == i ? theme::vermilion : theme::hairline);
        painter.setBrush(lit_ == i ? QColor(0x4A, 0x20, 0x18) : theme::raised);
        painter.drawRoundedRect(pad.adjusted(0, 0, -1, -1), 4, 4);
        painter.setRenderHint(QPainter::Antialiasing, false);
        const QRect line = pad.adjusted(10, 4, -10, -14);
        theme::paint_text(painter, line.adjusted(0, 0, -44, 0), qs(shown_name(cue.name)), theme::words(12, true),
                          theme::text);
        theme::paint_text(painter, line.adjusted(0, 0, -14, 0), QString::number(cue.strength, 'f', 2),
                          theme::figures(11), theme::text, Qt::AlignRight);
        theme::paint_text(painter, line, QString::number(i + 1), theme::figures(10), theme::quiet, Qt::AlignRight);
        const QRect bar = strength_area(i);
        const QRect groove(bar.left(), bar.center().y() - 1, bar.width(), 4);
        painter.fillRect(groove, theme::black);
        painter.fillRect(QRect(groove.left(), groove.top(), static_cast<int>(cue.strength * groove.width()), 4),
                         theme::vermilion);
    }
}

void CuePads::mousePressEvent(QMouseEvent* event) {
    if (count() == 0) {
        emit wants_cue();
        return;
    }
    for (int i = 0; i < count(); ++i) {
        if (!pad_area(i).contains(event->pos())) continue;
        if (event->button() == Qt::RightButton) {
            emit wants_form(i);
        } else if (strength_area(i).adjusted(0, -2, 0, 4).contains(event->pos())) {
            dragged_ = i;
            drag_strength(event->pos().x());
        } else {
            lit_ = i;
            press(i);
        }
    }
    update();
}

void CuePads::drag_strength(int x) {
    const QRect bar = strength_area(dragged_);
    const double share = std::clamp(static_cast<double>(x - bar.left()) / (bar.width() - 1), 0.0, 1.0);
    Finish changed = session_.finish();
    CueKind& cue = changed.cues[static_cast<std::size_t>(dragged_)];
    cue.strength = std::round(share * 100) / 100;
    session_.edit(std::move(changed), tr("Set a cue's strength"), "strength " + cue.name);
}

void CuePads::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ >= 0) drag_strength(event->pos().x());
}

void CuePads::mouseReleaseEvent(QMouseEvent*) {
    if (dragged_ >= 0) session_.seal_edit();
    dragged_ = -1;
    lit_ = -1;
    update();
}

void CuePads::mouseDoubleClickEvent(QMouseEvent* event) { mousePressEvent(event); }

}  // namespace lacquer
