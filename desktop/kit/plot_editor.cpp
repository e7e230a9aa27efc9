#include "desktop/kit/plot_editor.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int margin = 14;
constexpr int handle_size = 5;
constexpr int near = 9;
constexpr int typed_width = 170;

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

PlotEditor::PlotEditor(QWidget* parent) : QWidget(parent), typed_(new LineEditor(this)) {
    setFocusPolicy(Qt::StrongFocus);
    typed_->setObjectName(QStringLiteral("stop_typed"));
    typed_->setFont(theme::figures(theme::plain));
    typed_->hide();
    connect(typed_, &QLineEdit::editingFinished, this, &PlotEditor::end_typing);
    connect(typed_, &LineEditor::dismissed, this, [this] {
        typed_->hide();
        setFocus();
    });
}

QRect PlotEditor::plot() const { return rect().adjusted(margin, 8, -margin, -20); }

QPointF PlotEditor::place_of(QPointF stop) const {
    const QRect area = plot();
    const Extent all = shown_extent();
    return {area.left() + stop.x() / all.longest * area.width(),
            area.bottom() - (stop.y() - all.least) / (all.most - all.least) * area.height()};
}

QPointF PlotEditor::stop_at(QPoint point) const {
    const QRect area = plot();
    const Extent all = shown_extent();
    const double at = static_cast<double>(point.x() - area.left()) / area.width() * all.longest;
    const double up = static_cast<double>(area.bottom() - point.y()) / area.height();
    return {std::max(0.0, tidy(at)), tidy(all.least + up * (all.most - all.least))};
}

QPoint PlotEditor::handle(std::size_t stop) const {
    const std::vector<QPointF> all = stops();
    if (stop >= all.size()) return {};
    const QPoint place = place_of(all[stop]).toPoint();
    return has_heights() ? place : QPoint(place.x(), plot().bottom() + handle_size);
}

QColor PlotEditor::colour_of(std::size_t) const { return theme::black; }

int PlotEditor::stop_near(QPoint point) const {
    for (std::size_t i = stops().size(); i-- > 0;) {
        if ((handle(i) - point).manhattanLength() <= near) return static_cast<int>(i);
    }
    return -1;
}

void PlotEditor::paintEvent(QPaintEvent*) {
    const int count = static_cast<int>(stops().size());
    if (count == 0) return;
    chosen_ = std::clamp(chosen_, 0, count - 1);
    QPainter painter(this);
    paint_plot(painter, plot());
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (int i = 0; i < count; ++i) {
        const QPoint at = handle(static_cast<std::size_t>(i));
        const QRect box(at.x() - handle_size + 1, at.y() - handle_size + 1, 2 * handle_size - 1, 2 * handle_size - 1);
        painter.fillRect(box, i == chosen_ ? theme::gold : theme::text);
        painter.fillRect(box.adjusted(2, 2, -2, -2), colour_of(static_cast<std::size_t>(i)));
    }
}

void PlotEditor::hold(Held what) {
    held_extent_ = extent();
    held_ = what;
    emit held(true);
    update();
}

void PlotEditor::let_go() {
    held_ = Held::nothing;
    update();
}

void PlotEditor::move_within(std::size_t stop, QPointF to) {
    const std::vector<QPointF> all = stops();
    const double low = stop > 0 ? all[stop - 1].x() : 0;
    const double high = stop + 1 < all.size() ? all[stop + 1].x() : std::max(farthest(), low);
    move_stop(stop, {std::clamp(to.x(), low, high), to.y()});
}

void PlotEditor::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || stops().empty()) return;
    setFocus();
    if (take_hold(event->pos())) return hold(Held::other);
    const int at = stop_near(event->pos());
    if (at >= 0) {
        chosen_ = at;
        return hold(Held::stop);
    }
    if (!plot().adjusted(-2, -2, 2, 2).contains(event->pos())) return;
    const std::vector<QPointF> all = stops();
    QPointF fresh = stop_at(event->pos());
    fresh.setX(std::min(fresh.x(), std::max(farthest(), all.back().x())));
    const auto place = std::upper_bound(all.begin(), all.end(), fresh.x(),
                                        [](double at_x, const QPointF& other) { return at_x < other.x(); });
    chosen_ = static_cast<int>(place - all.begin());
    add_stop(static_cast<std::size_t>(chosen_), fresh);
    hold(Held::stop);
}

void PlotEditor::mouseMoveEvent(QMouseEvent* event) {
    if (held_ == Held::nothing || chosen_ >= static_cast<int>(stops().size())) return;
    if (held_ == Held::other) return drag_held(event);
    move_within(static_cast<std::size_t>(chosen_), stop_at(event->pos()));
}

void PlotEditor::mouseReleaseEvent(QMouseEvent*) {
    if (held_ == Held::nothing) return;
    let_go();
    emit held(false);
}

void PlotEditor::mouseDoubleClickEvent(QMouseEvent* event) {
    const int at = stop_near(event->pos());
    if (at >= 0) open_value(static_cast<std::size_t>(at));
}

void PlotEditor::contextMenuEvent(QContextMenuEvent* event) {
    const int at = stop_near(event->pos());
    if (at < 0) return;
    chosen_ = at;
    update();
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    fill_menu(*menu, static_cast<std::size_t>(at));
    menu->popup(event->globalPos());
}

// These are ways of the plot, and not of the ladder's commands.
bool PlotEditor::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool plain = key->modifiers() == Qt::NoModifier;
        const int code = key->key();
        if (plain && (code == Qt::Key_E || code == Qt::Key_Delete || code == Qt::Key_Backspace ||
                      code == Qt::Key_Return || code == Qt::Key_Enter)) {
            event->accept();
            return true;
        }
    }
    return QWidget::event(event);
}

void PlotEditor::keyPressEvent(QKeyEvent* event) {
    const std::vector<QPointF> all = stops();
    const int count = static_cast<int>(all.size());
    if (count == 0) return QWidget::keyPressEvent(event);
    chosen_ = std::clamp(chosen_, 0, count - 1);
    const auto stop = static_cast<std::size_t>(chosen_);
    const Extent extent_now = extent();
    const double share = event->modifiers().testFlag(Qt::ShiftModifier) ? 0.001 : 0.01;
    const auto step = [share](double range) { return std::max(0.001, tidy(share * range)); };
    const QPointF at = all[stop];
    const auto move = [&](double along, double up) {
        move_within(stop, {tidy(at.x() + along * step(extent_now.longest)),
                           tidy(at.y() + up * step(extent_now.most - extent_now.least))});
    };
    switch (event->key()) {
        case Qt::Key_PageUp:
        case Qt::Key_PageDown:
            chosen_ = (chosen_ + (event->key() == Qt::Key_PageDown ? 1 : count - 1)) % count;
            return update();
        case Qt::Key_Left:
        case Qt::Key_Right:
            return move(event->key() == Qt::Key_Right ? 1 : -1, 0);
        case Qt::Key_Up:
        case Qt::Key_Down:
            if (open_value(stop)) return;
            return move(0, event->key() == Qt::Key_Up ? 1 : -1);
        case Qt::Key_Delete:
        case Qt::Key_Backspace:
            delete_stop(stop);
            return update();
        case Qt::Key_E:
            return change_way(stop);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return begin_typing();
        default:
            QWidget::keyPressEvent(event);
    }
}

void PlotEditor::begin_typing() {
    const auto stop = static_cast<std::size_t>(chosen_);
    typed_->setText(text_of(stop));
    typed_->setGeometry(std::clamp(handle(stop).x() - 60, 0, std::max(0, width() - typed_width)), 4, typed_width, 24);
    typed_->show();
    typed_->setFocus();
    typed_->selectAll();
}

void PlotEditor::end_typing() {
    if (typed_->isHidden()) return;
    const QString text = typed_->text();
    const bool had_focus = typed_->hasFocus();
    typed_->hide();
    if (had_focus) setFocus();
    if (chosen_ >= static_cast<int>(stops().size())) return;
    chosen_ = static_cast<int>(take_text(static_cast<std::size_t>(chosen_), text));
    update();
}

}  // namespace lacquer
