#include "desktop/dials/stops_editor.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/stops_table.h"
#include "desktop/session/session.h"
#include "desktop/theme/theme.h"

namespace lacquer {

namespace {

constexpr int margin = 12;
constexpr int handle_size = 6;

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

StopsEditor::StopsEditor(Session& session, std::string ground, QWidget* parent)
    : QWidget(parent), session_(session), name_(std::move(ground)) {
    setObjectName(QStringLiteral("stops_editor"));
    setAccessibleName(tr("Stops"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(
        tr("Drag a stop; click between to add one; Delete takes it out; double click for its colour; E, or the right "
           "button, for the way to the next"));
    connect(&session_, &Session::finish_changed, this, qOverload<>(&QWidget::update));
    const Ground* own = this->ground();
    setFixedHeight(own != nullptr && own->kind == GroundKind::curve ? 110 : 56);
}

QSize StopsEditor::sizeHint() const { return {400, height()}; }

const Ground* StopsEditor::ground() const {
    const auto& grounds = session_.finish().grounds;
    const auto found = std::find_if(grounds.begin(), grounds.end(), [&](const Ground& g) { return g.name == name_; });
    return found == grounds.end() ? nullptr : &*found;
}

QRect StopsEditor::plot() const { return rect().adjusted(margin, 6, -margin, -16); }

std::pair<double, double> StopsEditor::heights() const {
    double least = 0;
    double most = 1;
    if (const Ground* own = ground()) {
        for (const Stop& stop : own->stops) {
            least = std::min(least, stop.value[0]);
            most = std::max(most, stop.value[0]);
        }
    }
    return {least, most};
}

QPoint StopsEditor::handle(std::size_t stop) const {
    const Ground* own = ground();
    if (own == nullptr || stop >= own->stops.size()) return {};
    const QRect area = plot();
    const int x = area.left() + static_cast<int>(std::lround(own->stops[stop].at * area.width()));
    if (own->kind == GroundKind::gradient) return {x, area.bottom() + handle_size};
    const auto [least, most] = heights();
    return {x, area.bottom() -
                   static_cast<int>(std::lround((own->stops[stop].value[0] - least) / (most - least) * area.height()))};
}

int StopsEditor::stop_at(QPoint point) const {
    const Ground* own = ground();
    if (own == nullptr) return -1;
    for (std::size_t i = own->stops.size(); i-- > 0;) {
        if ((handle(i) - point).manhattanLength() <= 2 * handle_size) return static_cast<int>(i);
    }
    return -1;
}

void StopsEditor::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Ground* own = ground();
    if (own == nullptr) return;
    const QRect area = plot();
    const Picture table = stops_table(*own);
    if (own->kind == GroundKind::gradient) {
        theme::paint_checker(painter, area);
        for (int x = 0; x < area.width(); ++x) {
            const float* at = table.at(x * (table_width - 1) / std::max(1, area.width() - 1), 0);
            QColor colour = theme::swatch({at[0], at[1], at[2]});
            colour.setAlphaF(std::clamp(at[3], 0.0F, 1.0F));
            painter.fillRect(QRect(area.left() + x, area.top(), 1, area.height()), colour);
        }
    } else {
        painter.fillRect(area, theme::black);
        const auto [least, most] = heights();
        QPolygonF line;
        for (int x = 0; x < area.width(); ++x) {
            const double value =
                static_cast<double>(table.at(x * (table_width - 1) / std::max(1, area.width() - 1), 0)[0]);
            line.append(QPointF(area.left() + x, area.bottom() - (value - least) / (most - least) * area.height()));
        }
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(QPen(theme::gold, 1.5));
        painter.drawPolyline(line);
        painter.setRenderHint(QPainter::Antialiasing, false);
    }
    for (std::size_t i = 0; i < own->stops.size(); ++i) {
        const QPoint at = handle(i);
        const QRect box(at.x() - handle_size + 1, at.y() - handle_size + 1, 2 * handle_size - 1, 2 * handle_size - 1);
        painter.fillRect(box, static_cast<int>(i) == chosen_ ? theme::gold : theme::text);
        const std::array<double, 3> colour = {own->stops[i].value[0], own->stops[i].value[1], own->stops[i].value[2]};
        painter.fillRect(box.adjusted(2, 2, -2, -2),
                         own->kind == GroundKind::gradient ? theme::swatch(colour) : theme::black);
    }
}

void StopsEditor::change(const std::vector<Stop>& stops, const QString& what, bool dragging) {
    Finish changed = session_.finish();
    for (Ground& own : changed.grounds) {
        if (own.name == name_) own.stops = stops;
    }
    session_.edit(std::move(changed), what, dragging ? "stops " + name_ : std::string());
}

void StopsEditor::mousePressEvent(QMouseEvent* event) {
    const Ground* own = ground();
    if (own == nullptr || event->button() != Qt::LeftButton) return;
    const int at = stop_at(event->pos());
    if (at >= 0) {
        chosen_ = at;
        dragging_ = true;
        session_.set_interacting(true);
        return update();
    }
    const QRect area = plot();
    if (!area.adjusted(-2, -2, 2, 2).contains(event->pos())) return;
    // A new stop has what is there already; a curve's new key stands where it was pressed.
    Stop stop;
    stop.at = tidy(std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), 0.0, 1.0));
    const Picture table = stops_table(*own);
    const float* there = table.at(static_cast<int>(stop.at * (table_width - 1)), 0);
    for (std::size_t c = 0; c < 4; ++c) stop.value[c] = static_cast<double>(there[c]);
    if (own->kind == GroundKind::curve) {
        const auto [least, most] = heights();
        stop.value[0] =
            tidy(least + static_cast<double>(area.bottom() - event->pos().y()) / area.height() * (most - least));
    }
    std::vector<Stop> stops = own->stops;
    const auto place =
        std::upper_bound(stops.begin(), stops.end(), stop, [](const Stop& a, const Stop& b) { return a.at < b.at; });
    chosen_ = static_cast<int>(place - stops.begin());
    stops.insert(place, stop);
    change(stops, tr("Added a stop to %1").arg(qs(shown_name(name_))), false);
    dragging_ = true;
    session_.set_interacting(true);
}

void StopsEditor::mouseMoveEvent(QMouseEvent* event) {
    const Ground* own = ground();
    if (!dragging_ || own == nullptr || chosen_ >= static_cast<int>(own->stops.size())) return;
    const QRect area = plot();
    std::vector<Stop> stops = own->stops;
    const auto i = static_cast<std::size_t>(chosen_);
    // It stays between its neighbours.
    const double low = i > 0 ? stops[i - 1].at : 0;
    const double high = i + 1 < stops.size() ? stops[i + 1].at : 1;
    stops[i].at = tidy(std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), low, high));
    if (own->kind == GroundKind::curve) {
        const auto [least, most] = heights();
        stops[i].value[0] =
            tidy(least + static_cast<double>(area.bottom() - event->pos().y()) / area.height() * (most - least));
    }
    change(stops, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
}

void StopsEditor::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    session_.set_interacting(false);
}

void StopsEditor::mouseDoubleClickEvent(QMouseEvent* event) {
    const Ground* own = ground();
    const int at = stop_at(event->pos());
    if (own == nullptr || at < 0 || own->kind != GroundKind::gradient) return;
    emit wants_colour(qs(name_), static_cast<std::size_t>(at),
                      QRect(mapTo(window(), handle(static_cast<std::size_t>(at))), QSize(1, 1)));
}

void StopsEditor::set_easing(const std::string& easing) {
    const Ground* own = ground();
    if (own == nullptr || chosen_ < 0 || chosen_ >= static_cast<int>(own->stops.size())) return;
    std::vector<Stop> stops = own->stops;
    stops[static_cast<std::size_t>(chosen_)].easing = easing;
    const QString way = easing.empty() ? tr("as the others") : qs(shown_name(easing));
    change(stops, tr("From stop %1 of %2 on: %3").arg(chosen_ + 1).arg(qs(shown_name(name_)), way), false);
}

// The ways from this stop to the next.
void StopsEditor::contextMenuEvent(QContextMenuEvent* event) {
    const int at = stop_at(event->pos());
    const Ground* own = ground();
    if (own == nullptr || at < 0) return;
    chosen_ = at;
    update();
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("stop_easings"));
    const std::string now = own->stops[static_cast<std::size_t>(at)].easing;
    const auto add = [&](const QString& words, const std::string& easing) {
        QAction* action = menu.addAction(words, this, [this, easing] { set_easing(easing); });
        action->setCheckable(true);
        action->setChecked(easing == now);
    };
    add(tr("To the next as the others"), {});
    for (const std::string& easing : stop_easings()) add(qs(shown_name(easing)), easing);
    menu.exec(event->globalPos());
}

// E is a way here, and not the formula's.
bool StopsEditor::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_E &&
        static_cast<QKeyEvent*>(event)->modifiers() == Qt::NoModifier)
        event->accept();
    return QWidget::event(event);
}

void StopsEditor::keyPressEvent(QKeyEvent* event) {
    const Ground* own = ground();
    if (own == nullptr || own->stops.empty()) return QWidget::keyPressEvent(event);
    const int count = static_cast<int>(own->stops.size());
    chosen_ = std::clamp(chosen_, 0, count - 1);
    const auto i = static_cast<std::size_t>(chosen_);
    const double by = (event->modifiers() & Qt::ShiftModifier) != 0 ? 0.001 : 0.01;
    std::vector<Stop> stops = own->stops;
    switch (event->key()) {
        case Qt::Key_Delete:
            if (count <= 1) return;
            stops.erase(stops.begin() + chosen_);
            chosen_ = std::min(chosen_, count - 2);
            return change(stops, tr("Took a stop out of %1").arg(qs(shown_name(name_))), false);
        case Qt::Key_E: {
            // Round through all ways, from "as the others" on.
            const auto& ways = stop_easings();
            const auto found = std::find(ways.begin(), ways.end(), stops[i].easing);
            const auto next = found == ways.end() ? ways.begin() : found + 1;
            return set_easing(next == ways.end() ? std::string() : *next);
        }
        case Qt::Key_PageUp:
        case Qt::Key_PageDown:
            chosen_ = (chosen_ + (event->key() == Qt::Key_PageDown ? 1 : count - 1)) % count;
            return update();
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const double low = i > 0 ? stops[i - 1].at : 0;
            const double high = i + 1 < stops.size() ? stops[i + 1].at : 1;
            stops[i].at = tidy(std::clamp(stops[i].at + (event->key() == Qt::Key_Right ? by : -by), low, high));
            return change(stops, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
        }
        case Qt::Key_Up:
        case Qt::Key_Down:
            if (own->kind == GroundKind::gradient) {
                emit wants_colour(qs(name_), i, QRect(mapTo(window(), handle(i)), QSize(1, 1)));
                return;
            }
            stops[i].value[0] = tidy(stops[i].value[0] + (event->key() == Qt::Key_Up ? by : -by));
            return change(stops, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace lacquer
