#include "standin/script.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace lacquer::standin {

namespace {

constexpr double walk_every = 0.1;  // seconds between steps of the keeper
constexpr double whole_hull = 100;

}  // namespace

std::vector<Moment> storm(double seconds, std::uint32_t seed) {
    std::mt19937 random(seed);
    // Drawn by our own means, so that every standard library plays the same.
    const auto share = [&] { return static_cast<double>(random() >> 8U) / 16777216.0; };
    std::vector<Moment> moments;
    moments.push_back(
        {0, {{"/lacquer/signal/hull", {static_cast<std::int32_t>(whole_hull)}}, {"/lacquer/signal/wind", {0.35}}}});
    double hull = whole_hull;
    for (double at = 0.4 + share(); at < seconds; at += 0.5 + share()) {
        const double strength = 0.15 + 0.85 * share();
        hull = std::max(0.0, hull - std::round(18 * strength));
        if (hull == 0) hull = whole_hull;  // the boat is hauled ashore and mended
        moments.push_back({at,
                           {{"/lacquer/cue/hit", {strength, std::floor(360 * share()), share(), share()}},
                            {"/lacquer/signal/hull", {static_cast<std::int32_t>(hull)}}}});
        if (share() < 0.3) moments.push_back({at + 0.2, {{"/lacquer/cue/touch", {1.0, 0.0, share(), share()}}}});
    }
    bool in_spray = false;
    for (double at = 0; at < seconds; at += walk_every) {
        const double x = 0.5 + 0.4 * std::sin(at * 0.7);
        const double y = 0.7 + 0.15 * std::sin(at * 1.1);
        Moment moment{at, {{"/lacquer/signal/keeper", {x, y}}}};
        if ((x > 0.6) != in_spray) {
            in_spray = !in_spray;
            moment.messages.push_back({"/lacquer/signal/in_spray", {in_spray}});
        }
        moments.push_back(std::move(moment));
    }
    std::stable_sort(moments.begin(), moments.end(), [](const Moment& a, const Moment& b) { return a.at < b.at; });
    return moments;
}

std::vector<Moment> flood(double seconds, double messages_a_second) {
    std::vector<Moment> moments;
    const int count = static_cast<int>(seconds * messages_a_second);
    for (int i = 0; i < count; ++i) {
        const double wind = 0.5 + 0.5 * std::sin(i * 0.01);
        moments.push_back({i / messages_a_second, {{"/lacquer/signal/wind", {wind}}}});
    }
    return moments;
}

}  // namespace lacquer::standin
