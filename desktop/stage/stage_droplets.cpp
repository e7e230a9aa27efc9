// The stage while a ground of droplets has its page open: where they are born, the wind, and the drop that is held.
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/stage/stage_view.h"

namespace lacquer {

namespace {

using Id = DropNumberId;

constexpr double hand_reach = 10;   // view pixels about a hand
constexpr double wind_seconds = 1;  // the arrow is as long as the wind goes in that time
constexpr int course_points = 48;

bool is_one_number(const Droplets& drops, Id id) {
    const DropNumber& number = drops.number(id);
    return number.formula.empty() && number.from == number.to;
}

// Words that can be read on any picture.
void paint_words(QPainter& painter, QPointF middle, const QString& words, const QFont& font, const QColor& colour) {
    const int width = QFontMetrics(font).horizontalAdvance(words) + 12;
    const QRect plate(QPointF(middle.x() - width / 2.0, middle.y() - 9).toPoint(), QSize(width, 18));
    painter.fillRect(plate, theme::black);
    theme::paint_text(painter, plate, words, font, colour, Qt::AlignHCenter);
}

double tidy(double value) { return std::round(value * 1000) / 1000; }

}  // namespace

const Droplets* StageView::shown_droplets() const {
    const std::string& name = drawing_.look().droplets;
    const Ground* ground = name.empty() ? nullptr : find_ground(document_.finish(), name);
    const auto* drops = ground != nullptr ? ground->as<DropletsGround>() : nullptr;
    return drops != nullptr ? &drops->drops : nullptr;
}

// Where a hand stands, in the view's pixels; nothing where it has none: formulas can't be dragged.
std::optional<QPointF> StageView::droplets_point(DropletsHand hand) const {
    const Droplets* drops = shown_droplets();
    if (drops == nullptr) return std::nullopt;
    const QRectF area = frame().area();
    const double side = std::min(area.width(), area.height());
    const auto value = [&](Id id) { return drops->number(id).from; };
    if (hand == DropletsHand::wind) {
        if (!is_one_number(*drops, Id::wind_x) || !is_one_number(*drops, Id::wind_y)) return std::nullopt;
        return wind_root() + QPointF(value(Id::wind_x), value(Id::wind_y)) * side * wind_seconds;
    }
    // Bursts about their cues are born there.
    const bool at_cues_only = drops->at_cue && !drops->cue.empty() && drops->number(Id::rate).from == 0 &&
                              drops->number(Id::rate).formula.empty();
    if (at_cues_only) return std::nullopt;
    const bool has_place =
        drops->place == DropPlace::point || drops->place == DropPlace::disc || drops->place == DropPlace::line;
    if (!has_place || !is_one_number(*drops, Id::x) || !is_one_number(*drops, Id::y)) return std::nullopt;
    const QPointF middle(area.left() + value(Id::x) * area.width(), area.top() + value(Id::y) * area.height());
    if (hand == DropletsHand::middle) return middle;
    if (drops->place == DropPlace::point || !is_one_number(*drops, Id::radius)) return std::nullopt;
    const double angle = drops->place == DropPlace::line && is_one_number(*drops, Id::angle)
                             ? value(Id::angle) * std::numbers::pi / 180
                             : 0;
    return middle + QPointF(std::cos(angle), std::sin(angle)) * value(Id::radius) * side;
}

QPointF StageView::wind_root() const {
    const QRectF area = frame().area();
    return {area.center().x(), area.top() + area.height() * 0.12};
}

std::optional<StageView::DropletsHand> StageView::droplets_hand_near(QPointF screen) const {
    for (const DropletsHand hand : {DropletsHand::edge, DropletsHand::middle, DropletsHand::wind}) {
        const auto point = droplets_point(hand);
        if (point && std::hypot(point->x() - screen.x(), point->y() - screen.y()) <= hand_reach) return hand;
    }
    return std::nullopt;
}

// A hand is taken hold of, else the drop that was pressed on is held. False if there is neither.
bool StageView::press_droplets() {
    if (shown_droplets() == nullptr) return false;
    if (const auto hand = droplets_hand_near(mouse_)) {
        droplets_hand_ = *hand;
        dragging_ = Dragging::droplets;
        document_.set_interacting(true);
        return true;
    }
    const Emitter* emitter = playing_.play().emitter(drawing_.look().droplets);
    if (emitter == nullptr) return false;
    const QSize size = frame().frame;
    const QPointF at = frame().to_picture(mouse_);
    held_drop_.reset();
    LiveDrops live = emitter->alive(playing_.time(), size.width(), size.height());
    if (!shown_droplets()->oldest_on_top) std::reverse(live.drops.begin(), live.drops.end());
    for (auto drop = live.drops.begin(); drop != live.drops.end() && !held_drop_; ++drop) {
        // The smallest can be taken hold of, too.
        const double reach = std::max(drop->along, 4 / frame().scale());
        if (std::hypot(drop->x - at.x(), drop->y - at.y()) <= reach) held_drop_ = *drop;
    }
    if (!held_drop_) return false;
    held_of_ = drawing_.look().droplets;
    document_.say(tr("Holds the drop that was born at %1 s").arg(qs(plain_number(held_drop_->birth, 2))));
    update();
    return true;
}

void StageView::drag_droplets() {
    const std::string name = drawing_.look().droplets;
    Finish changed = document_.finish();
    Droplets* drops = nullptr;
    for (Ground& ground : changed.grounds) {
        if (auto* own = ground.as<DropletsGround>(); own != nullptr && ground.name == name) drops = &own->drops;
    }
    const auto middle = droplets_point(DropletsHand::middle);
    if (drops == nullptr) return;
    const QRectF area = frame().area();
    const double side = std::min(area.width(), area.height());
    const auto set = [&](Id id, double value) {
        const DropNumberSpec& spec = spec_of(id);
        const double held = std::clamp(tidy(value), spec.least, spec.most);
        drops->number(id) = {held, held, {}};
    };
    if (droplets_hand_ == DropletsHand::middle) {
        set(Id::x, (mouse_.x() - area.left()) / area.width());
        set(Id::y, (mouse_.y() - area.top()) / area.height());
    } else if (droplets_hand_ == DropletsHand::wind) {
        set(Id::wind_x, (mouse_.x() - wind_root().x()) / side / wind_seconds);
        set(Id::wind_y, (mouse_.y() - wind_root().y()) / side / wind_seconds);
    } else if (middle) {
        const QPointF away = mouse_ - *middle;
        set(Id::radius, std::hypot(away.x(), away.y()) / side);
        if (drops->place == DropPlace::line) set(Id::angle, std::atan2(away.y(), away.x()) * 180 / std::numbers::pi);
    }
    document_.edit(std::move(changed), tr("Changed %1").arg(qs(shown_name(name))), "droplets " + name);
}

void StageView::paint_droplets(QPainter& painter) const {
    const Droplets* drops = shown_droplets();
    if (drops == nullptr) return;
    const QRectF area = frame().area();
    painter.save();
    painter.setClipRect(area, Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto knob = [&](QPointF at) {
        painter.setPen(QPen(theme::black, 3));
        painter.setBrush(theme::gold);
        painter.drawEllipse(at, 5, 5);
    };
    const auto middle = droplets_point(DropletsHand::middle);
    const auto edge = droplets_point(DropletsHand::edge);
    if (middle && edge) {
        painter.setPen(QPen(theme::gold, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        const QPointF away = *edge - *middle;
        if (drops->place == DropPlace::disc) {
            const double radius = std::hypot(away.x(), away.y());
            painter.drawEllipse(*middle, radius, radius);
        } else {
            painter.drawLine(*middle - away, *edge);
        }
        knob(*edge);
    }
    if (middle) {
        knob(*middle);
        paint_words(painter, *middle - QPointF(0, 18), tr("born here"), theme::words(theme::small), theme::text);
    }
    if (const auto wind = droplets_point(DropletsHand::wind)) {
        painter.setPen(QPen(theme::celadon, 2));
        painter.drawLine(wind_root(), *wind);
        painter.setBrush(theme::celadon);
        painter.drawEllipse(*wind, 5, 5);
        const bool takes_hold = drops->number(Id::drag).from > 0 || !drops->number(Id::drag).formula.empty();
        paint_words(painter, wind_root() - QPointF(0, 18),
                    takes_hold ? tr("wind") : tr("wind, which takes hold by the drag"), theme::words(theme::small),
                    theme::celadon);
    }
    paint_held_drop(painter);
    painter.restore();
}

const Emitter* StageView::emitter_of_held() const {
    // Of another ground it would be another drop.
    const bool is_of_this = held_drop_ && held_of_ == drawing_.look().droplets;
    return is_of_this ? playing_.play().emitter(held_of_) : nullptr;
}

std::optional<Drop> StageView::held_drop_now() const {
    const Emitter* emitter = emitter_of_held();
    const QSize size = frame().frame;
    return emitter != nullptr ? emitter->at(*held_drop_, playing_.time(), size.width(), size.height()) : std::nullopt;
}

QString StageView::held_drop_words() const {
    const auto drop = held_drop_now();
    if (!drop) return {};
    return tr("age %1 s, %2 px, speed %3 /s, opacity %4")
        .arg(qs(plain_number(drop->age, 2)), qs(plain_number(drop->along * 2, 1)),
             qs(plain_number(std::hypot(drop->velocity.x, drop->velocity.y), 3)), qs(plain_number(drop->opacity, 2)));
}

void StageView::paint_held_drop(QPainter& painter) const {
    const Emitter* emitter = emitter_of_held();
    if (emitter == nullptr) return;
    const StageFrame now = frame();
    const QSize size = now.frame;
    const auto drop = held_drop_now();
    const double begin = std::max(0.0, held_drop_->birth);
    const double end = begin + std::min(10.0, document_.finish().length);
    QPointF before;
    bool is_first = true;
    painter.setBrush(Qt::NoBrush);
    for (int i = 0; i <= course_points; ++i) {
        const auto then =
            emitter->at(*held_drop_, begin + (end - begin) * i / course_points, size.width(), size.height());
        if (!then) continue;
        const QPointF at = now.to_screen({then->x, then->y});
        // What comes in again on the other side has not gone across.
        const bool jumps = std::hypot(at.x() - before.x(), at.y() - before.y()) > now.area().width() / 2;
        painter.setPen(QPen(theme::gold, 1.5));
        if (!is_first && !jumps) painter.drawLine(before, at);
        before = at;
        is_first = false;
    }
    if (!drop) return;
    const QPointF at = now.to_screen({drop->x, drop->y});
    painter.setPen(QPen(theme::gold, 2));
    const double radius = std::max(6.0, drop->along * now.scale());
    painter.drawEllipse(at, radius, radius);
    const QString words = held_drop_words();
    const double half = QFontMetrics(theme::figures(theme::small)).horizontalAdvance(words) / 2.0 + 8;
    const double beside = at.x() + radius + half + 6;
    const bool fits = beside + half < now.area().right();
    paint_words(painter, {fits ? beside : at.x() - radius - half - 6, at.y()}, words, theme::figures(theme::small),
                theme::text);
}

}  // namespace lacquer
