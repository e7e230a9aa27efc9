#include "desktop/pages/stops_editor.h"

#include <QMenu>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/stops_table.h"
#include "core/finish/stops_text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"

namespace lacquer {

StopsEditor::StopsEditor(Models& models, std::string ground, StopValues values, QWidget* parent)
    : PlotEditor(parent), document_(models.document), name_(std::move(ground)), values_(values) {
    setObjectName(QStringLiteral("stops_editor"));
    setAccessibleName(tr("Stops"));
    setToolTip(values_ == StopValues::heights
                   ? tr("Drag a stop; click between to add one; Enter types it; Delete deletes it; E, or the right "
                        "button, for the way to the next")
                   : tr("Drag a stop; click between to add one; Enter types it; Delete deletes it; double click for "
                        "its colour; E, or the right button, for the way to the next"));
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, &PlotEditor::let_go);
    connect(this, &PlotEditor::held, &document_, &Document::set_interacting);
    setFixedHeight(values_ == StopValues::heights ? 110 : 62);
}

// Null while the ground is gone or has become something else.
const Stops* StopsEditor::own() const {
    const Ground* ground = find_ground(document_.finish(), name_);
    return ground != nullptr && stop_values(*ground) == values_ ? stops_of(*ground) : nullptr;
}

std::vector<QPointF> StopsEditor::stops() const {
    std::vector<QPointF> all;
    if (const Stops* stops = own()) {
        for (const Stop& stop : stops->list) all.emplace_back(stop.at, stop.value[0]);
    }
    return all;
}

PlotEditor::Extent StopsEditor::extent() const {
    Extent all;
    if (const Stops* stops = has_heights() ? own() : nullptr) {
        for (const Stop& stop : stops->list) {
            all.least = std::min(all.least, stop.value[0]);
            all.most = std::max(all.most, stop.value[0]);
        }
    }
    return all;
}

QColor StopsEditor::colour_of(std::size_t stop) const {
    const Stops* stops = own();
    if (has_heights() || stops == nullptr) return theme::black;
    const auto& value = stops->list[stop].value;
    return theme::swatch({value[0], value[1], value[2]});
}

void StopsEditor::paint_plot(QPainter& painter, const QRect& area) {
    const Stops* stops = own();
    if (stops == nullptr) return;
    const Picture table = stops_table(*stops);
    const double last = std::max(1, area.width() - 1);
    if (!has_heights()) {
        theme::paint_checker(painter, area);
        for (int x = 0; x < area.width(); ++x) {
            const auto at = table_value(table, x / last);
            QColor colour = theme::swatch({at[0], at[1], at[2]});
            colour.setAlphaF(std::clamp(static_cast<float>(at[3]), 0.0F, 1.0F));
            painter.fillRect(QRect(area.left() + x, area.top(), 1, area.height()), colour);
        }
        return;
    }
    painter.fillRect(area, theme::black);
    QPolygonF line;
    for (int x = 0; x < area.width(); ++x) line.append(place_of({x / last, table_value(table, x / last)[0]}));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::gold, 1.5));
    painter.drawPolyline(line);
}

void StopsEditor::change(std::vector<Stop> list, const QString& what, const std::string& merge_key) {
    Finish changed = document_.finish();
    for (Ground& ground : changed.grounds) {
        if (Stops* kept = ground.name == name_ ? stops_of(ground) : nullptr) kept->list = std::move(list);
    }
    document_.edit(std::move(changed), what, merge_key);
}

void StopsEditor::add_stop(std::size_t before, QPointF at) {
    std::vector<Stop> list = own()->list;
    // It has what is there already; that of a curve stands where it was pressed.
    Stop stop;
    stop.at = at.x();
    stop.value = table_value(stops_table(*own()), stop.at);
    if (has_heights()) stop.value[0] = at.y();
    list.insert(list.begin() + static_cast<std::ptrdiff_t>(before), stop);
    change(std::move(list), tr("Added a stop to %1").arg(qs(shown_name(name_))));
}

void StopsEditor::move_stop(std::size_t stop, QPointF to) {
    std::vector<Stop> list = own()->list;
    list[stop].at = to.x();
    if (has_heights()) list[stop].value[0] = to.y();
    change(std::move(list), tr("Moved a stop of %1").arg(qs(shown_name(name_))),
           "stop " + std::to_string(stop) + " of " + name_);
}

void StopsEditor::delete_stop(std::size_t stop) {
    std::vector<Stop> list = own()->list;
    if (list.size() <= 1) return document_.say(tr("There is at least one stop"));
    list.erase(list.begin() + static_cast<std::ptrdiff_t>(stop));
    change(std::move(list), tr("Deleted a stop of %1").arg(qs(shown_name(name_))));
}

void StopsEditor::set_easing(std::size_t stop, const std::string& easing) {
    const Stops* stops = own();
    if (stops == nullptr || stop >= stops->list.size()) return;
    std::vector<Stop> list = stops->list;
    list[stop].easing = easing;
    const QString way = easing.empty() ? tr("as the others") : qs(shown_name(easing));
    change(std::move(list), tr("From stop %1 of %2 on: %3").arg(stop + 1).arg(qs(shown_name(name_)), way));
}

// Round through all ways, from "as the others" on.
void StopsEditor::change_way(std::size_t stop) {
    const auto& ways = stop_easings();
    const auto found = std::find(ways.begin(), ways.end(), own()->list[stop].easing);
    const auto next = found == ways.end() ? ways.begin() : found + 1;
    set_easing(stop, next == ways.end() ? std::string() : *next);
}

// The ways from this stop to the next.
void StopsEditor::fill_menu(QMenu& menu, std::size_t stop) {
    menu.setObjectName(QStringLiteral("stop_easings"));
    connect(&document_, &Document::finish_changed, &menu, &QMenu::close);
    const std::string now = own()->list[stop].easing;
    const auto add = [&](const QString& words, const std::string& easing) {
        QAction* action = menu.addAction(words, this, [this, stop, easing] { set_easing(stop, easing); });
        action->setCheckable(true);
        action->setChecked(easing == now);
    };
    add(tr("To the next as the others"), {});
    for (const std::string& easing : stop_easings()) add(qs(shown_name(easing)), easing);
}

QString StopsEditor::text_of(std::size_t stop) const { return qs(stops_text(values_, {own()->list[stop]})); }

std::size_t StopsEditor::take_text(std::size_t stop, const QString& text) {
    Result<std::vector<Stop>> typed = parse_stops(values_, text.toStdString());
    if (typed && typed->size() != 1) {
        document_.say(tr("Type one stop, such as %1").arg(text_of(stop)));
        return stop;
    }
    if (!typed) {
        document_.say(fault_words(typed.fault()));
        return stop;
    }
    std::vector<Stop> list = own()->list;
    list.erase(list.begin() + static_cast<std::ptrdiff_t>(stop));
    const auto place = std::upper_bound(list.begin(), list.end(), typed->front(),
                                        [](const Stop& a, const Stop& b) { return a.at < b.at; });
    const auto at = static_cast<std::size_t>(place - list.begin());
    list.insert(place, typed->front());
    change(std::move(list), tr("Set a stop of %1").arg(qs(shown_name(name_))));
    return at;
}

bool StopsEditor::open_value(std::size_t stop) {
    if (has_heights()) return false;
    emit wants_colour(qs(name_), stop, QRect(mapTo(window(), handle(stop)), QSize(1, 1)));
    return true;
}

}  // namespace lacquer
