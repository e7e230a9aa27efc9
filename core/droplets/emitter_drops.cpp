// What each drop is like at a moment: where it is, and how it looks.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/droplets/emitter_parts.h"

namespace lacquer {

namespace {

using Id = DropNumberId;

// What is drawn for a drop besides its numbers, which have the channels of their ids.
constexpr std::uint32_t seed_channel = 100;
constexpr std::uint32_t cell_channel = 101;
constexpr std::uint32_t across_channel = 102;
constexpr std::uint32_t down_channel = 103;
constexpr std::uint32_t gust_channel = 104;

double looked_up(const std::vector<float>& values, double share, double usual) {
    if (values.empty()) return usual;
    const double place = std::clamp(share, 0.0, 1.0) * static_cast<double>(values.size() - 1);
    const auto i = std::min(static_cast<std::size_t>(place), values.size() - 1);
    const auto next = std::min(i + 1, values.size() - 1);
    const double part = place - static_cast<double>(i);
    return static_cast<double>(values[i]) * (1 - part) + static_cast<double>(values[next]) * part;
}

}  // namespace

// Pixels.
Vector2 Emitter::birth_place(const Birth& birth, const Frame& frame) const {
    if (birth.stream == field_stream) return {birth.place.x * frame.width, birth.place.y * frame.height};
    const auto seed = static_cast<std::uint32_t>(droplets_.seed);
    const double one = birth.random(seed, across_channel);
    const double two = birth.random(seed, down_channel);
    if (droplets_.place == DropPlace::frame) return {one * frame.width, two * frame.height};
    const bool at_cue = birth.cue != nullptr && droplets_.at_cue;
    const double x = (at_cue ? birth.cue->x : number(Id::x, birth)) * frame.width;
    const double y = (at_cue ? birth.cue->y : number(Id::y, birth)) * frame.height;
    const double radius = number(Id::radius, birth) * frame.side;
    switch (droplets_.place) {
        case DropPlace::point:
            return {x, y};
        case DropPlace::disc: {
            // Even over the area.
            const double far = radius * std::sqrt(one);
            const double angle = two * 2 * std::numbers::pi;
            return {x + far * std::cos(angle), y + far * std::sin(angle)};
        }
        case DropPlace::line: {
            const double angle = number(Id::angle, birth) * std::numbers::pi / 180;
            const double far = radius * (one * 2 - 1);
            return {x + far * std::cos(angle), y + far * std::sin(angle)};
        }
        case DropPlace::border: {
            const double along = one * 2 * (frame.width + frame.height);
            if (along < frame.width) return {along, 0};
            if (along < frame.width + frame.height) return {frame.width, along - frame.width};
            if (along < 2 * frame.width + frame.height) return {along - frame.width - frame.height, frame.height};
            return {0, along - 2 * frame.width - frame.height};
        }
        case DropPlace::frame:
            break;
    }
    return {x, y};
}

// Its place, in pixels, and its velocity.
void Emitter::move(const Birth& birth, double age, const Frame& frame, Drop& drop) const {
    const Vector2 start = birth_place(birth, frame);
    drop.x = start.x;
    drop.y = start.y;
    if (!moves_) return;
    const bool by_cue = birth.cue != nullptr && droplets_.at_cue;
    const double degrees = number(Id::direction, birth) + (by_cue ? birth.cue->direction : 0);
    const double angle = degrees * std::numbers::pi / 180;
    const double speed = number(Id::speed, birth);
    const Vector2 thrown{speed * std::cos(angle), speed * std::sin(angle)};
    const double fall = number(Id::fall, birth);
    const double drag = steady_number(Id::drag);
    const double gust = number(Id::gust, birth);
    const auto after = [&](double seconds, const Drag& over) {
        Vector2 way{thrown.x * over.gains + wind_x_.way(birth.at, birth.at + seconds),
                    thrown.y * over.gains + fall * over.falls + wind_y_.way(birth.at, birth.at + seconds)};
        if (gust > 0) {
            const auto key = pcg(pcg(static_cast<std::uint32_t>(birth.index & 0xFFFFFFFF) ^ gust_channel) ^
                                 birth.stream ^ static_cast<std::uint32_t>(droplets_.seed));
            const double begin = static_cast<double>(unit_from_hash(pcg(key)));
            const double end = begin + seconds * number(Id::gust_rate, birth);
            way.x += gust * (gust_noise(key, end) - gust_noise(key, begin));
            way.y += gust * (gust_noise(key + 1, end) - gust_noise(key + 1, begin));
        }
        return way;
    };
    const Drag over = drag_over(drag, age);
    Vector2 way = after(age, over);
    drop.velocity = {thrown.x * over.keeps + wind_x_.velocity(birth.at, birth.at + age),
                     thrown.y * over.keeps + fall * over.gains + wind_y_.velocity(birth.at, birth.at + age)};
    const double height = (steady_number(Id::floor) * frame.height - start.y) / frame.side;
    const bool has_floor = steady_number(Id::floor) <= 1 && height > 0;
    if (has_floor && drag == 0 && gust == 0 && steady_number(Id::bounce) > 0 && fall > 0) {
        const Bounced done = bounced(thrown, fall, height, steady_number(Id::bounce), age);
        way = done.way;
        drop.velocity = done.velocity;
    } else if (has_floor && way.y > height) {
        double before = 0;
        double landed = age;
        for (int i = 0; i < 48; ++i) {
            const double middle = (before + landed) / 2;
            (after(middle, drag_over(drag, middle)).y > height ? landed : before) = middle;
        }
        way = {after(landed, drag_over(drag, landed)).x, height};
        drop.velocity = {};
    }
    drop.x += way.x * frame.side;
    drop.y += way.y * frame.side;
}

// Holds a drop where it came to the frame's border first. The looks are at fixed ages, or it would depend on the moment
// that is asked for.
void Emitter::stick(const Birth& birth, const Frame& frame, Drop& drop) const {
    const auto is_outside = [&](const Drop& at) {
        return at.x < 0 || at.y < 0 || at.x > frame.width || at.y > frame.height;
    };
    const auto at_age = [&](double age) {
        Drop at;
        move(birth, age, frame, at);
        return at;
    };
    const double step = look_step(birth);
    const double last = moves_ ? std::ceil(std::min(drop.age, longest_looked_at) / step) : 0;
    for (double nth = 0; nth <= last; ++nth) {
        if (!is_outside(at_age(nth * step))) continue;
        double inside = std::max(0.0, nth - 1) * step;
        double outside = nth * step;
        for (int i = 0; i < 40; ++i) {
            const double middle = (inside + outside) / 2;
            (is_outside(at_age(middle)) ? outside : inside) = middle;
        }
        if (outside > drop.age) break;
        const Drop stuck = at_age(outside);
        drop.x = stuck.x;
        drop.y = stuck.y;
        drop.velocity = {};
        break;
    }
    drop.x = std::clamp(drop.x, 0.0, frame.width);
    drop.y = std::clamp(drop.y, 0.0, frame.height);
}

Drop Emitter::drop_of(const Birth& birth, double time, const Frame& frame) const {
    const auto seed = static_cast<std::uint32_t>(droplets_.seed);
    Drop drop;
    drop.birth = birth.at;
    drop.index = birth.index;
    drop.stream = birth.stream;
    drop.burst = birth.cue != nullptr ? birth.cue - &*bursts_.begin() : -1;
    drop.age = std::max(0.0, time - birth.at);
    const bool is_ending = birth.ends <= time;
    const double end_share = is_ending && birth.ending > 0 ? (time - birth.ends) / birth.ending : 0;
    const double life_share = std::isfinite(birth.life) && birth.life > 0 ? drop.age / birth.life : end_share;
    drop.share = std::clamp(is_ending ? std::max(end_share, life_share) : life_share, 0.0, 1.0);
    move(birth, drop.age, frame, drop);
    if (droplets_.leaves == DropLeaves::sticks) stick(birth, frame, drop);
    const double largest = steady_number(Id::largest);
    const double size =
        std::min(number(Id::size, birth) * std::max(0.0, looked_up(curves_.size, life_share, 1)), largest) * frame.side;
    drop.across = drop.along = size / 2;
    drop.opacity = number(Id::opacity, birth) * std::clamp(looked_up(curves_.opacity, life_share, 1), 0.0, 1.0);
    if (is_ending) drop.opacity *= std::clamp(looked_up(curves_.ending, end_share, 1 - end_share), 0.0, 1.0);
    if (!curves_.tint.empty()) {
        const auto last = static_cast<double>(curves_.tint.size() - 1);
        const auto& colour = curves_.tint[static_cast<std::size_t>(std::lround(drop.share * last))];
        drop.tint = {colour[0], colour[1], colour[2]};
        drop.opacity *= static_cast<double>(colour[3]);
    }
    drop.turn = number(Id::turn, birth) * std::numbers::pi / 180;
    if (droplets_.facing == DropFacing::turned)
        drop.turn += number(Id::spin, birth) * drop.age * std::numbers::pi / 180;
    if (droplets_.facing == DropFacing::along) {
        const double speed = std::hypot(drop.velocity.x, drop.velocity.y);
        if (speed > 0) drop.turn += std::atan2(drop.velocity.y, drop.velocity.x);
        drop.along *= 1 + number(Id::stretch, birth) * speed;
        drop.along = std::min(drop.along, std::max(drop.across, largest * frame.side / 2));
    }
    if (droplets_.leaves == DropLeaves::wraps) {
        const double margin = drop.along;
        const auto wrapped = [margin](double value, double length) {
            const double whole = length + 2 * margin;
            return value - std::floor((value + margin) / whole) * whole;
        };
        drop.x = wrapped(drop.x, frame.width);
        drop.y = wrapped(drop.y, frame.height);
    }
    drop.seed = static_cast<float>(birth.random(seed, seed_channel));
    const int cells = std::max(1, droplets_.columns * droplets_.rows);
    const double running = std::floor(drop.age * droplets_.cell_rate);
    drop.cell = droplets_.cell_rate > 0 ? static_cast<int>(std::fmod(running, cells))
                                        : static_cast<int>(birth.random(seed, cell_channel) * cells);
    return drop;
}

}  // namespace lacquer
