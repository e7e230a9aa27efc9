#include "desktop/pages/stops_editor.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/stops_table.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int margin = 12;
constexpr int handle_size = 6;

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

StopsEditor::StopsEditor(Models& models, std::string ground, StopValues values, QWidget* parent)
    : QWidget(parent), document_(models.document), name_(std::move(ground)), values_(values) {
    setObjectName(QStringLiteral("stops_editor"));
    setAccessibleName(tr("Stops"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(
        tr("Drag a stop; click between to add one; Delete deletes it; double click for its colour; E, or the right "
           "button, for the way to the next"));
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, [this] { dragging_ = false; });
    setFixedHeight(values_ == StopValues::heights ? 110 : 56);
}

QSize StopsEditor::sizeHint() const { return {400, height()}; }

// Null while the ground is gone or has become something else.
const Stops* StopsEditor::stops() const {
    const Ground* ground = find_ground(document_.finish(), name_);
    return ground != nullptr && stop_values(*ground) == values_ ? stops_of(*ground) : nullptr;
}

QRect StopsEditor::plot() const { return rect().adjusted(margin, 6, -margin, -16); }

std::pair<double, double> StopsEditor::heights() const {
    double least = 0;
    double most = 1;
    if (const Stops* own = stops()) {
        for (const Stop& stop : own->list) {
            least = std::min(least, stop.value[0]);
            most = std::max(most, stop.value[0]);
        }
    }
    return {least, most};
}

QPoint StopsEditor::handle(std::size_t stop) const {
    const Stops* own = stops();
    if (own == nullptr || stop >= own->list.size()) return {};
    const QRect area = plot();
    const int x = area.left() + static_cast<int>(std::lround(own->list[stop].at * area.width()));
    if (values_ == StopValues::colours) return {x, area.bottom() + handle_size};
    const auto [least, most] = heights();
    return {x, area.bottom() -
                   static_cast<int>(std::lround((own->list[stop].value[0] - least) / (most - least) * area.height()))};
}

int StopsEditor::stop_at(QPoint point) const {
    const Stops* own = stops();
    if (own == nullptr) return -1;
    for (std::size_t i = own->list.size(); i-- > 0;) {
        if ((handle(i) - point).manhattanLength() <= 2 * handle_size) return static_cast<int>(i);
    }
    return -1;
}

void StopsEditor::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Stops* own = stops();
    if (own == nullptr) return;
    const QRect area = plot();
    const Picture table = stops_table(*own);
    if (values_ == StopValues::colours) {
        theme::paint_checker(painter, area);
        for (int x = 0; x < area.width(); ++x) {
            const auto at = table_value(table, static_cast<double>(x) / std::max(1, area.width() - 1));
            QColor colour = theme::swatch({at[0], at[1], at[2]});
            colour.setAlphaF(std::clamp(static_cast<float>(at[3]), 0.0F, 1.0F));
            painter.fillRect(QRect(area.left() + x, area.top(), 1, area.height()), colour);
        }
    } else {
        painter.fillRect(area, theme::black);
        const auto [least, most] = heights();
        QPolygonF line;
        for (int x = 0; x < area.width(); ++x) {
            const double value = table_value(table, static_cast<double>(x) / std::max(1, area.width() - 1))[0];
            line.append(QPointF(area.left() + x, area.bottom() - (value - least) / (most - least) * area.height()));
        }
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(QPen(theme::gold, 1.5));
        painter.drawPolyline(line);
        painter.setRenderHint(QPainter::Antialiasing, false);
    }
    for (std::size_t i = 0; i < own->list.size(); ++i) {
        const QPoint at = handle(i);
        const QRect box(at.x() - handle_size + 1, at.y() - handle_size + 1, 2 * handle_size - 1, 2 * handle_size - 1);
        painter.fillRect(box, static_cast<int>(i) == chosen_ ? theme::gold : theme::text);
        const std::array<double, 3> colour = {own->list[i].value[0], own->list[i].value[1], own->list[i].value[2]};
        painter.fillRect(box.adjusted(2, 2, -2, -2),
                         values_ == StopValues::colours ? theme::swatch(colour) : theme::black);
    }
}

void StopsEditor::change(const std::vector<Stop>& stops, const QString& what, bool dragging) {
    Finish changed = document_.finish();
    for (Ground& own : changed.grounds) {
        if (Stops* kept = own.name == name_ ? stops_of(own) : nullptr) kept->list = stops;
    }
    document_.edit(std::move(changed), what, dragging ? "stops " + name_ : std::string());
}

void StopsEditor::mousePressEvent(QMouseEvent* event) {
    const Stops* own = stops();
    if (own == nullptr || event->button() != Qt::LeftButton) return;
    const int at = stop_at(event->pos());
    if (at >= 0) {
        chosen_ = at;
        dragging_ = true;
        document_.set_interacting(true);
        return update();
    }
    const QRect area = plot();
    if (!area.adjusted(-2, -2, 2, 2).contains(event->pos())) return;
    // A new stop has what is there already; a curve's new key stands where it was pressed.
    Stop stop;
    stop.at = tidy(std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), 0.0, 1.0));
    stop.value = table_value(stops_table(*own), stop.at);
    if (values_ == StopValues::heights) {
        const auto [least, most] = heights();
        stop.value[0] =
            tidy(least + static_cast<double>(area.bottom() - event->pos().y()) / area.height() * (most - least));
    }
    std::vector<Stop> list = own->list;
    const auto place =
        std::upper_bound(list.begin(), list.end(), stop, [](const Stop& a, const Stop& b) { return a.at < b.at; });
    chosen_ = static_cast<int>(place - list.begin());
    list.insert(place, stop);
    change(list, tr("Added a stop to %1").arg(qs(shown_name(name_))), false);
    dragging_ = true;
    document_.set_interacting(true);
}

void StopsEditor::mouseMoveEvent(QMouseEvent* event) {
    const Stops* own = stops();
    if (!dragging_ || own == nullptr || chosen_ >= static_cast<int>(own->list.size())) return;
    const QRect area = plot();
    std::vector<Stop> list = own->list;
    const auto i = static_cast<std::size_t>(chosen_);
    // It stays between its neighbours.
    const double low = i > 0 ? list[i - 1].at : 0;
    const double high = i + 1 < list.size() ? list[i + 1].at : 1;
    list[i].at = tidy(std::clamp(static_cast<double>(event->pos().x() - area.left()) / area.width(), low, high));
    if (values_ == StopValues::heights) {
        const auto [least, most] = heights();
        list[i].value[0] =
            tidy(least + static_cast<double>(area.bottom() - event->pos().y()) / area.height() * (most - least));
    }
    change(list, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
}

void StopsEditor::mouseReleaseEvent(QMouseEvent*) {
    if (!dragging_) return;
    dragging_ = false;
    document_.set_interacting(false);
}

void StopsEditor::mouseDoubleClickEvent(QMouseEvent* event) {
    const Stops* own = stops();
    const int at = stop_at(event->pos());
    if (own == nullptr || at < 0 || values_ != StopValues::colours) return;
    emit wants_colour(qs(name_), static_cast<std::size_t>(at),
                      QRect(mapTo(window(), handle(static_cast<std::size_t>(at))), QSize(1, 1)));
}

void StopsEditor::set_easing(const std::string& easing) {
    const Stops* own = stops();
    if (own == nullptr || chosen_ < 0 || chosen_ >= static_cast<int>(own->list.size())) return;
    std::vector<Stop> list = own->list;
    list[static_cast<std::size_t>(chosen_)].easing = easing;
    const QString way = easing.empty() ? tr("as the others") : qs(shown_name(easing));
    change(list, tr("From stop %1 of %2 on: %3").arg(chosen_ + 1).arg(qs(shown_name(name_)), way), false);
}

// The ways from this stop to the next.
void StopsEditor::contextMenuEvent(QContextMenuEvent* event) {
    const int at = stop_at(event->pos());
    const Stops* own = stops();
    if (own == nullptr || at < 0) return;
    chosen_ = at;
    update();
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("stop_easings"));
    const std::string now = own->list[static_cast<std::size_t>(at)].easing;
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
    const Stops* own = stops();
    if (own == nullptr || own->list.empty()) return QWidget::keyPressEvent(event);
    const int count = static_cast<int>(own->list.size());
    chosen_ = std::clamp(chosen_, 0, count - 1);
    const auto i = static_cast<std::size_t>(chosen_);
    const double by = (event->modifiers() & Qt::ShiftModifier) != 0 ? 0.001 : 0.01;
    std::vector<Stop> list = own->list;
    switch (event->key()) {
        case Qt::Key_Delete:
            if (count <= 1) return;
            list.erase(list.begin() + chosen_);
            chosen_ = std::min(chosen_, count - 2);
            return change(list, tr("Deleted a stop of %1").arg(qs(shown_name(name_))), false);
        case Qt::Key_E: {
            // Round through all ways, from "as the others" on.
            const auto& ways = stop_easings();
            const auto found = std::find(ways.begin(), ways.end(), list[i].easing);
            const auto next = found == ways.end() ? ways.begin() : found + 1;
            return set_easing(next == ways.end() ? std::string() : *next);
        }
        case Qt::Key_PageUp:
        case Qt::Key_PageDown:
            chosen_ = (chosen_ + (event->key() == Qt::Key_PageDown ? 1 : count - 1)) % count;
            return update();
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const double low = i > 0 ? list[i - 1].at : 0;
            const double high = i + 1 < list.size() ? list[i + 1].at : 1;
            list[i].at = tidy(std::clamp(list[i].at + (event->key() == Qt::Key_Right ? by : -by), low, high));
            return change(list, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
        }
        case Qt::Key_Up:
        case Qt::Key_Down:
            if (values_ == StopValues::colours) {
                emit wants_colour(qs(name_), i, QRect(mapTo(window(), handle(i)), QSize(1, 1)));
                return;
            }
            list[i].value[0] = tidy(list[i].value[0] + (event->key() == Qt::Key_Up ? by : -by));
            return change(list, tr("Moved a stop of %1").arg(qs(shown_name(name_))), true);
        default:
            QWidget::keyPressEvent(event);
    }
}

}  // namespace lacquer
