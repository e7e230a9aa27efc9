#include "desktop/rehearse/signal_faders.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/kit/switch.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int row_height = 28;
constexpr int name_width = 92;
constexpr int value_width = 84;

bool has_range(const Signal& signal) { return signal.kind == SignalKind::number || signal.kind == SignalKind::integer; }

QString value_words(const Signal& signal, const std::array<double, 3>& value) {
    switch (signal.kind) {
        case SignalKind::toggle:
            return value[0] != 0 ? SignalFaders::tr("on") : SignalFaders::tr("off");
        case SignalKind::place:
            return QStringLiteral("%1, %2").arg(qs(plain_number(value[0], 2)), qs(plain_number(value[1], 2)));
        case SignalKind::integer:
            return QStringLiteral("%1 / %2").arg(qs(plain_number(value[0], 0)), qs(plain_number(signal.most, 0)));
        case SignalKind::number:
            break;
    }
    const QString unit = signal.unit.empty() ? QString() : QLatin1Char(' ') + qs(signal.unit);
    return qs(plain_number(value[0], 2)) + unit;
}

}  // namespace

SignalFaders::SignalFaders(Models& models, QWidget* parent)
    : QWidget(parent), document_(models.document), playing_(models.playing) {
    setObjectName(QStringLiteral("signal_faders"));
    setAccessibleName(tr("Signals"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(tr(
        "Drag a signal (Shift: finer); click a switch; double click to change what it is, the right button for more"));
    connect(&document_, &Document::finish_changed, this, [this] {
        updateGeometry();
        update();
    });
    connect(&playing_, &Playing::time_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, [this] { dragging_ = false; });
}

QSize SignalFaders::sizeHint() const {
    return {360, std::max<int>(1, static_cast<int>(document_.finish().signals.size())) * row_height};
}

const Signal* SignalFaders::at(int row) const {
    const auto& all = document_.finish().signals;
    return row >= 0 && row < static_cast<int>(all.size()) ? &all[static_cast<std::size_t>(row)] : nullptr;
}

int SignalFaders::row_at(QPoint point) const { return point.y() / row_height; }

QRect SignalFaders::groove(int signal) const {
    return {name_width, signal * row_height + row_height / 2 - 5, width() - name_width - value_width, 10};
}

void SignalFaders::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    const auto& all = document_.finish().signals;
    if (all.empty()) {
        theme::paint_text(painter, rect(), tr("None yet: health, speed, a zone ..."), theme::words(), theme::quiet);
        return;
    }
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Signal& signal = all[static_cast<std::size_t>(i)];
        const auto value = playing_.signal_now(signal);
        const bool chosen = i == chosen_ && hasFocus();
        const QRect row(0, i * row_height, width(), row_height);
        theme::paint_text(painter, QRect(row.left(), row.top(), name_width - 8, row_height),
                          qs(shown_name(signal.name)), theme::words(theme::plain, true),
                          chosen ? theme::gold : theme::text);
        theme::paint_text(painter, QRect(row.right() - value_width + 6, row.top(), value_width - 6, row_height),
                          value_words(signal, value), theme::figures(theme::plain), theme::text, Qt::AlignRight);
        const QRect bar = groove(i);
        if (signal.kind == SignalKind::place) {
            theme::paint_text(painter, QRect(bar.left(), row.top(), bar.width(), row_height),
                              tr("drag it in the picture"), theme::words(theme::small), theme::quiet);
            continue;
        }
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme::black);
        if (signal.kind == SignalKind::toggle) {
            painter.setRenderHint(QPainter::Antialiasing, false);
            paint_switch(painter, bar.topLeft() - QPoint(0, 1), value[0] != 0);
            if (!signal.zone.of.empty())
                theme::paint_text(painter, QRect(bar.left() + 34, row.top(), bar.width() - 34, row_height),
                                  tr("zone of %1").arg(qs(shown_name(signal.zone.of))), theme::words(theme::small),
                                  theme::quiet);
            continue;
        }
        painter.drawRoundedRect(bar, 5, 5);
        const double share = (value[0] - signal.least) / (signal.most - signal.least);
        painter.setClipRect(QRectF(bar.left(), bar.top(), share * bar.width(), bar.height()));
        painter.setBrush(theme::celadon);
        painter.drawRoundedRect(bar, 5, 5);
        painter.setClipping(false);
        painter.setRenderHint(QPainter::Antialiasing, false);
    }
}

void SignalFaders::mousePressEvent(QMouseEvent* event) {
    const int row = row_at(event->pos());
    const Signal* signal = at(row);
    if (signal == nullptr) return;
    chosen_ = row;
    setFocus();
    emit chosen_changed(qs(signal->name));
    if (event->button() == Qt::RightButton) return update();
    if (event->type() == QEvent::MouseButtonDblClick) {
        emit wants_form(qs(signal->name));
        return;
    }
    if (signal->kind == SignalKind::toggle) {
        playing_.set_signal(signal->name, {playing_.signal_now(*signal)[0] != 0 ? 0.0 : 1.0, 0, 0});
        document_.seal_edit();
        return;
    }
    if (!has_range(*signal) || event->pos().x() < name_width) return update();
    dragging_ = true;
    document_.set_interacting(true);
    const QRect bar = groove(row);
    drag_share_ = std::clamp(static_cast<double>(event->pos().x() - bar.left()) / bar.width(), 0.0, 1.0);
    drag_x_ = event->pos().x();
    drag_to(event);
}

void SignalFaders::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void SignalFaders::drag_to(QMouseEvent* event) {
    const Signal* signal = at(chosen_);
    if (signal == nullptr) return;
    const double fine = event->modifiers().testFlag(Qt::ShiftModifier) ? 0.1 : 1;
    drag_share_ += (event->pos().x() - drag_x_) * fine / groove(chosen_).width();
    drag_x_ = event->pos().x();
    const double share = std::clamp(drag_share_, 0.0, 1.0);
    playing_.set_signal(signal->name, {signal->least + share * (signal->most - signal->least), 0, 0});
}

void SignalFaders::mouseMoveEvent(QMouseEvent* event) {
    if (dragging_) drag_to(event);
}

void SignalFaders::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    document_.set_interacting(false);
}

void SignalFaders::step(int direction, bool far) {
    const Signal* signal = at(chosen_);
    if (signal == nullptr || signal->kind == SignalKind::place) return;
    const double now = playing_.signal_now(*signal)[0];
    if (signal->kind == SignalKind::toggle) return playing_.set_signal(signal->name, {direction > 0 ? 1.0 : 0.0, 0, 0});
    const double span = signal->most - signal->least;
    const double one = signal->kind == SignalKind::integer ? 1 : span / 100;
    playing_.set_signal(signal->name, {now + direction * one * (far ? 10 : 1), 0, 0});
}

bool SignalFaders::event(QEvent* event) {
    if (event->type() == QEvent::MouseButtonDblClick) {
        mousePressEvent(static_cast<QMouseEvent*>(event));
        return true;
    }
    return QWidget::event(event);
}

void SignalFaders::keyPressEvent(QKeyEvent* event) {
    const bool far = event->modifiers().testFlag(Qt::ShiftModifier);
    const int last = static_cast<int>(document_.finish().signals.size()) - 1;
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            chosen_ = std::clamp(chosen_ + (event->key() == Qt::Key_Up ? -1 : 1), 0, std::max(0, last));
            if (const Signal* signal = at(chosen_)) emit chosen_changed(qs(signal->name));
            return update();
        case Qt::Key_Left:
            return step(-1, far);
        case Qt::Key_Right:
            return step(1, far);
        case Qt::Key_Return:
            if (const Signal* signal = at(chosen_)) emit wants_form(qs(signal->name));
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

int SignalFaders::cell_count() const { return static_cast<int>(document_.finish().signals.size()); }

AccessibleCell SignalFaders::cell(int index) const {
    const Signal& signal = document_.finish().signals[static_cast<std::size_t>(index)];
    AccessibleCell told{qs(shown_name(signal.name)), value_words(signal, playing_.signal_now(signal)),
                        QRect(0, index * row_height, width(), row_height)};
    told.chosen = index == chosen_;
    told.role = signal.kind == SignalKind::toggle ? QAccessible::CheckBox : QAccessible::Slider;
    told.actions = {tr("choose"), tr("more"), tr("less"), tr("change")};
    return told;
}

void SignalFaders::act_on_cell(int index, const QString& action) {
    chosen_ = index;
    update();
    if (action == tr("more")) step(1, false);
    if (action == tr("less")) step(-1, false);
    if (const Signal* signal = at(index); signal != nullptr && action == tr("change"))
        emit wants_form(qs(signal->name));
}

}  // namespace lacquer
