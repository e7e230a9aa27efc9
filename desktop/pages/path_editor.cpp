#include "desktop/pages/path_editor.h"

#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/drive/arguments.h"
#include "desktop/document/document.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"

namespace lacquer {

namespace {

constexpr int near = 8;
constexpr int handle_length = 34;

QString words_of(SlopeKind kind) { return qs(shown_name(std::string(slope_kind_name(kind)))); }

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

PathEditor::PathEditor(Models& models, std::string response, QWidget* parent)
    : PlotEditor(parent), document_(models.document), name_(std::move(response)) {
    setObjectName(QStringLiteral("path_editor"));
    setAccessibleName(tr("Stops of the path"));
    setFixedHeight(130);
    setToolTip(tr(
        "Drag a stop or the end of its slope (Alt: one side alone); click between to add one; Enter types its time and "
        "value; E changes its slope, right button for each side; Delete deletes it"));
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
    connect(&document_, &Document::called_off, this, &PlotEditor::let_go);
    connect(this, &PlotEditor::held, &document_, &Document::set_interacting);
}

PathKeys PathEditor::keys() const {
    const Response* response = find_response(document_.finish(), name_);
    const ResponseKind* kind = response == nullptr ? nullptr : find_response_kind(response->kind);
    if (kind == nullptr || find_argument(*kind, "keys") == nullptr) return {};
    return Arguments(*response, *kind, Tape(), FormulaSource()).keys("keys");
}

std::vector<QPointF> PathEditor::stops() const {
    std::vector<QPointF> all;
    for (const PathKey& key : keys()) all.emplace_back(key.at, key.value);
    return all;
}

PlotEditor::Extent PathEditor::extent() const {
    const PathKeys own = keys();
    Extent all;
    if (!own.empty() && own.back().at > 0) all.longest = own.back().at;
    constexpr int samples = 100;
    for (int i = 0; i <= samples; ++i) {
        const double value = path_value(own, all.longest * i / samples);
        all.least = std::min(all.least, value);
        all.most = std::max(all.most, value);
    }
    return all;
}

double PathEditor::farthest() const { return std::max(shown_extent().longest * 4, 1.0); }

QPoint PathEditor::slope_place(std::size_t key, bool after) const {
    const PathKeys own = keys();
    if (key >= own.size()) return {};
    const QPointF from = place_of({own[key].at, own[key].value});
    const double on = shown_extent().longest / 10;
    const QPointF ahead = place_of({own[key].at + on, own[key].value + path_slope(own, key, after) * on}) - from;
    const double length = std::max(std::hypot(ahead.x(), ahead.y()), 1e-6);
    return (from + ahead * ((after ? handle_length : -handle_length) / length)).toPoint();
}

void PathEditor::paint_plot(QPainter& painter, const QRect& area) {
    const PathKeys own = keys();
    const double longest = shown_extent().longest;
    painter.fillRect(area, theme::black);
    QPolygonF line;
    for (int x = 0; x <= area.width(); ++x) {
        const double time = longest * x / area.width();
        line.append(place_of({time, path_value(own, time)}));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::vermilion, 1.5));
    painter.drawPolyline(line);
    paint_slopes(painter, area, own);
    theme::paint_text(painter, QRect(area.left(), area.bottom() + 3, area.width(), 16),
                      tr("%1 s").arg(qs(plain_number(longest, 3))), theme::figures(theme::tiny), theme::quiet,
                      Qt::AlignRight);
}

// Of the stop that is chosen, with its numbers.
void PathEditor::paint_slopes(QPainter& painter, const QRect& area, const PathKeys& own) {
    const auto stop = static_cast<std::size_t>(chosen());
    for (const bool after : {false, true}) {
        if (after ? stop + 1 >= own.size() : stop == 0) continue;
        painter.setPen(QPen(theme::gold, 1));
        painter.drawLine(handle(stop), slope_place(stop, after));
        painter.setBrush(theme::panel);
        painter.drawEllipse(QPointF(slope_place(stop, after)), 3, 3);
    }
    const PathKey& key = own[stop];
    const QString slopes = key.before == key.after
                               ? words_of(key.after.kind)
                               : tr("%1 before, %2 after").arg(words_of(key.before.kind), words_of(key.after.kind));
    theme::paint_text(painter, QRect(area.left(), area.bottom() + 3, area.width(), 16),
                      tr("%1 s   %2   %3").arg(qs(plain_number(key.at, 3)), qs(plain_number(key.value, 3)), slopes),
                      theme::figures(theme::small), theme::text);
}

void PathEditor::change(PathKeys keys, const QString& what, const std::string& merge_key) {
    Finish changed = document_.finish();
    for (Response& response : changed.responses) {
        if (response.name == name_) response.settings["keys"] = std::move(keys);
    }
    document_.edit(std::move(changed), what, merge_key);
}

void PathEditor::add_stop(std::size_t before, QPointF at) {
    PathKeys own = keys();
    own.insert(own.begin() + static_cast<std::ptrdiff_t>(before), PathKey{at.x(), at.y(), {}, {}});
    change(std::move(own), tr("Added a stop"));
}

void PathEditor::move_stop(std::size_t stop, QPointF to) {
    PathKeys own = keys();
    own[stop].at = to.x();
    own[stop].value = to.y();
    change(std::move(own), tr("Moved a stop"), "stop " + std::to_string(stop) + " of " + name_);
}

void PathEditor::delete_stop(std::size_t stop) {
    PathKeys own = keys();
    if (own.size() <= 1) return document_.say(tr("A path has at least one stop"));
    own.erase(own.begin() + static_cast<std::ptrdiff_t>(stop));
    change(std::move(own), tr("Deleted a stop"));
}

bool PathEditor::take_hold(QPoint at) {
    const std::size_t count = keys().size();
    const auto stop = static_cast<std::size_t>(chosen());
    for (const bool after : {false, true}) {
        const bool has = after ? stop + 1 < count : stop > 0 && stop < count;
        if (!has || (slope_place(stop, after) - at).manhattanLength() > near) continue;
        holds_after_ = after;
        return true;
    }
    return false;
}

void PathEditor::drag_held(QMouseEvent* event) {
    PathKeys own = keys();
    PathKey& key = own[static_cast<std::size_t>(chosen())];
    const QPointF to = stop_at(event->pos());
    const double away = to.x() - key.at;
    if (holds_after_ ? away <= 0 : away >= 0) return;
    const Slope slope{SlopeKind::by_hand, tidy((to.y() - key.value) / away)};
    const bool one_side = event->modifiers().testFlag(Qt::AltModifier);
    if (holds_after_ || !one_side) key.after = slope;
    if (!holds_after_ || !one_side) key.before = slope;
    change(std::move(own), tr("Set a slope"), "slope of " + name_);
}

void PathEditor::change_way(std::size_t stop) {
    const SlopeKind now = keys()[stop].after.kind;
    const SlopeKind next = now == SlopeKind::smooth     ? SlopeKind::level
                           : now == SlopeKind::level    ? SlopeKind::straight
                           : now == SlopeKind::straight ? SlopeKind::stay
                                                        : SlopeKind::smooth;
    set_slope(stop, next, true, true);
}

void PathEditor::set_slope(std::size_t stop, SlopeKind kind, bool before, bool after) {
    PathKeys own = keys();
    if (stop >= own.size()) return;
    // By hand begins with what it is.
    if (before) own[stop].before = {kind, kind == SlopeKind::by_hand ? path_slope(own, stop, false) : 0};
    if (after) own[stop].after = {kind, kind == SlopeKind::by_hand ? path_slope(own, stop, true) : 0};
    change(std::move(own), tr("Slope: %1").arg(words_of(kind)));
}

void PathEditor::fill_menu(QMenu& menu, std::size_t stop) {
    menu.setObjectName(QStringLiteral("slope_menu"));
    connect(&document_, &Document::finish_changed, &menu, &QMenu::close);
    const auto add = [&](const QString& side, bool before, bool after) {
        for (const SlopeKind kind :
             {SlopeKind::smooth, SlopeKind::level, SlopeKind::straight, SlopeKind::by_hand, SlopeKind::stay}) {
            if (kind == SlopeKind::stay && !after) continue;
            menu.addAction(side.isEmpty() ? words_of(kind) : tr("%1, %2").arg(words_of(kind), side), this,
                           [this, stop, kind, before, after] { set_slope(stop, kind, before, after); });
        }
    };
    add({}, true, true);
    menu.addSeparator();
    add(tr("before it"), true, false);
    menu.addSeparator();
    add(tr("after it"), false, true);
}

QString PathEditor::text_of(std::size_t stop) const {
    const PathKey key = keys()[stop];
    return moment_text(key.at, key.value);
}

std::size_t PathEditor::take_text(std::size_t stop, const QString& text) {
    const auto moment = moment_from(text);
    if (!moment) {
        document_.say(tr("Type seconds and a value: 0.5 s, 0.8"));
        return stop;
    }
    PathKeys own = keys();
    const PathKey typed{moment->first, moment->second, own[stop].before, own[stop].after};
    own.erase(own.begin() + static_cast<std::ptrdiff_t>(stop));
    const auto place =
        std::upper_bound(own.begin(), own.end(), typed.at, [](double t, const PathKey& other) { return t < other.at; });
    const auto at = static_cast<std::size_t>(place - own.begin());
    own.insert(place, typed);
    change(std::move(own), tr("Set a stop"));
    return at;
}

}  // namespace lacquer
