#include "desktop/kit/colour_editor.h"

#include <QApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/colour_text.h"
#include "core/picture/transfer.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"

namespace lacquer {

namespace {

constexpr int wide = 292;
constexpr int high = 156;
constexpr int track_left = 84;
constexpr int track_width = 150;
constexpr double most_stops = 4;  // brightness up to 16
constexpr double least_stops = -4;

double brightness_of(const ColourEditor::Colour& colour) { return std::max({colour[0], colour[1], colour[2]}); }

}  // namespace

ColourEditor::ColourEditor(QWidget* window) : QFrame(window), field_(new LineEditor(this)) {
    setObjectName(QStringLiteral("colour_editor"));
    setAccessibleName(tr("Colour"));
    setFocusPolicy(Qt::StrongFocus);
    field_->setObjectName(QStringLiteral("colour_field"));
    field_->setFont(theme::figures(theme::plain));
    field_->setGeometry(48, 10, wide - 58, 22);
    connect(field_, &QLineEdit::textEdited, this, [this](const QString& text) {
        if (const auto colour = parse_colour(text.toStdString())) set(*colour, false);
    });
    connect(field_, &LineEditor::dismissed, this, [this] { close_editor(false); });
    connect(field_, &QLineEdit::returnPressed, this, [this] { close_editor(true); });
    field_->installEventFilter(this);
    hide();
}

void ColourEditor::open(const QRect& at, const Colour& colour, std::function<void(const Colour&)> changed,
                        std::function<void(bool)> done) {
    if (open_) close_editor(true);
    before_ = colour_ = colour;
    changed_ = std::move(changed);
    done_ = std::move(done);
    focus_before_ = QApplication::focusWidget();
    const QWidget* window = parentWidget();
    int y = at.bottom() + 4;
    if (y + high > window->height() - 4) y = at.top() - high - 4;
    setGeometry(std::clamp(at.left(), 4, std::max(4, window->width() - wide - 4)), std::max(4, y), wide, high);
    field_->setText(QString::fromStdString(colour_text(colour)));
    show();
    raise();
    open_ = true;
    field_->setFocus();
    field_->selectAll();
}

QRect ColourEditor::track(int index) const { return {track_left, 46 + index * 26, track_width, 12}; }

// Red, green and blue as the screen shows them at full brightness; the brightness in stops.
double ColourEditor::share(int index) const {
    const double brightness = brightness_of(colour_);
    if (index == 3) {
        if (brightness <= 0) return 0;
        return std::clamp((std::log2(brightness) - least_stops) / (most_stops - least_stops), 0.0, 1.0);
    }
    return brightness <= 0 ? 0
                           : std::clamp(srgb_encode(colour_[static_cast<std::size_t>(index)] / brightness), 0.0, 1.0);
}

void ColourEditor::set_share(int index, double to) {
    to = std::clamp(to, 0.0, 1.0);
    Colour next = colour_;
    const double brightness = brightness_of(colour_);
    if (index == 3) {
        const double stops = std::round((least_stops + to * (most_stops - least_stops)) * 20) / 20;
        const double wanted = to <= 0 ? 0 : std::exp2(stops);
        for (double& part : next) part = brightness <= 0 ? wanted : part / brightness * wanted;
    } else {
        const double level = std::round(to * 255) / 255;
        next[static_cast<std::size_t>(index)] = srgb_decode(level) * std::max(brightness, 1.0 / 16);
    }
    set(next, true);
}

void ColourEditor::set(const Colour& colour, bool text) {
    colour_ = colour;
    if (text) field_->setText(QString::fromStdString(colour_text(colour)));
    if (changed_) changed_(colour);
    update();
}

void ColourEditor::close_editor(bool kept) {
    if (!open_) return;
    open_ = false;
    if (!kept && changed_) changed_(before_);
    const bool had_focus = field_->hasFocus() || hasFocus();
    hide();
    if (had_focus && focus_before_ != nullptr && focus_before_->isVisible()) focus_before_->setFocus();
    if (done_) done_(kept);
}

void ColourEditor::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setPen(theme::edge);
    painter.setBrush(theme::panel);
    painter.drawRoundedRect(rect().adjusted(0, 0, -1, -1), 3, 3);
    painter.fillRect(QRect(10, 10, 30, 22), theme::swatch(colour_));
    const QString names[] = {tr("red"), tr("green"), tr("blue"), tr("brightness")};
    for (int i = 0; i < 4; ++i) {
        const QRect area = track(i);
        theme::paint_text(painter, QRect(10, area.top() - 3, track_left - 14, 18), names[i], theme::words(),
                          theme::quiet);
        paint_track(painter, area, share(i), std::nullopt);
        const QString value =
            i == 3 ? QString::fromStdString(plain_number(brightness_of(colour_), 2)) + QStringLiteral(" ×")
                   : QString::number(std::lround(share(i) * 255));
        theme::paint_text(painter, QRect(area.right() + 6, area.top() - 3, 46, 18), value, theme::figures(),
                          theme::text, Qt::AlignRight);
    }
}

void ColourEditor::mousePressEvent(QMouseEvent* event) {
    dragged_ = -1;
    for (int i = 0; i < 4; ++i) {
        if (!track(i).adjusted(-4, -6, 4, 6).contains(event->pos())) continue;
        dragged_ = i;
        mouseMoveEvent(event);
    }
}

void ColourEditor::mouseMoveEvent(QMouseEvent* event) {
    if (dragged_ < 0 || (event->buttons() & Qt::LeftButton) == 0) return;
    set_share(dragged_, share_at(track(dragged_), event->pos().x()));
}

void ColourEditor::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) return close_editor(false);
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return close_editor(true);
    QFrame::keyPressEvent(event);
}

bool ColourEditor::eventFilter(QObject* watched, QEvent* event) {
    if (watched == field_ && event->type() == QEvent::FocusOut && open_) {
        const QWidget* now = QApplication::focusWidget();
        const auto reason = static_cast<QFocusEvent*>(event)->reason();
        const bool elsewhere = now != this && reason != Qt::ActiveWindowFocusReason && reason != Qt::PopupFocusReason;
        if (elsewhere && !underMouse()) close_editor(true);
    }
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        // Up and down change the brightness by a quarter of a stop.
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Up || key == Qt::Key_Down) {
            set_share(3, share(3) + (key == Qt::Key_Up ? 1 : -1) * 0.25 / (most_stops - least_stops));
            return true;
        }
    }
    return QFrame::eventFilter(watched, event);
}

}  // namespace lacquer
