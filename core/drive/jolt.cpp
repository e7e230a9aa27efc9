#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>

#include "core/base/hash.h"
#include "core/drive/runs.h"

namespace lacquer {

namespace {

using Four = std::array<double, 4>;  // right, down, turn, zoom

// Steepness of the noise at a whole number: either way, and never so little that a jolt would not be felt.
double slope_at(std::uint32_t seed, std::uint32_t whole) {
    const std::uint32_t hash = pcg(seed + pcg(whole));
    const double size = 0.5 + 0.5 * static_cast<double>(unit_from_hash(pcg(hash)));
    return (hash & 1U) != 0 ? size : -size;
}

// Gradient noise along a line, within -1..1, 0 at whole numbers: the construction of Perlin 2002 in one dimension.
double noise(std::uint32_t seed, double x) {
    const double below = std::floor(x);
    const double part = x - below;
    const auto whole = static_cast<std::uint32_t>(static_cast<std::int64_t>(std::clamp(below, -1e15, 1e15)));
    const double fade = part * part * part * (part * (part * 6 - 15) + 10);
    const double a = slope_at(seed, whole) * part;
    const double b = slope_at(seed, whole + 1) * (part - 1);
    return 2 * (a + (b - a) * fade);
}

// One blow, with the arguments as they were when it came.
struct Blow {
    Run run = {};
    Four reach{};
    double seconds = 0;
    double decay = 0;
    bool linear = true;
    bool along = false;
    std::uint32_t seed = 0;
    double travelled = 0;  // of the rate's integral, when it began
    Four left{};           // of the jolt that it took over from

    // How much of it is left: never below 0, and exactly 0 from `seconds` on.
    double remains(double elapsed, double reached) const {
        if (elapsed < 0 || elapsed >= seconds || !(reached > 0)) return 0;
        const double share = linear ? std::max(0.0, reached - decay * elapsed) : reached * std::exp(-decay * elapsed);
        // The last quarter brings down to nothing what is left then.
        const double late = std::clamp((elapsed / seconds - 0.75) * 4, 0.0, 1.0);
        return share * (1 - late * late * (3 - 2 * late));
    }

    Four after(double elapsed, double travel) const {
        Four at{};
        const double x = travel - travelled;
        // A linear decay counts in units of the reach, so turn and zoom die away by its shares.
        const double whole = std::max(reach[0], 0.0);
        const double share = whole > 0 ? remains(elapsed, whole) / whole : remains(elapsed, 1);
        if (along) {
            // The first swing goes the way of the blow.
            const double first = slope_at(seed, 0) < 0 ? -1 : 1;
            const double swing = reach[0] * share * first * noise(seed, x);
            const double angle = run.cue.direction * std::numbers::pi / 180;
            at[0] = swing * std::cos(angle);
            at[1] = swing * std::sin(angle);
        } else {
            at[0] = reach[0] * share * noise(seed, x);
            at[1] = reach[1] * share * noise(pcg(seed + 1), x);
        }
        at[2] = reach[2] * share * noise(pcg(seed + 2), x);
        at[3] = reach[3] * share * noise(pcg(seed + 3), x);
        // What was left of the one before goes out over a short while, so that nothing snaps.
        constexpr double handing_over = 0.1;
        const double gone = std::min(elapsed / handing_over, 1.0);
        for (std::size_t i = 0; i < 4; ++i) at[i] += left[i] * (1 - gone * gone * (3 - 2 * gone));
        return at;
    }
};

// What each blow reads; looked up once for all of them.
struct Reading {
    explicit Reading(const Arguments& args)
        : linear(args.word("decay_form") == "linear"),
          along(args.word("way") == "along_the_blow"),
          each_new(args.word("each_time") == "new"),
          seed(static_cast<std::uint32_t>(static_cast<std::int64_t>(std::clamp(args.number("seed"), -1e15, 1e15)))),
          reach(args.at_any_time("reach")),
          turn(args.at_any_time("turn")),
          zoom(args.at_any_time("zoom")),
          seconds(args.at_any_time("seconds")),
          decay(args.at_any_time("decay")) {}

    double lasts(double at) const { return std::max(seconds(at), 0.0); }

    Blow blow(const Run& run) const {
        const double at = run.cue.at;
        const double strength = std::min(run.cue.strength, 1.0);
        Blow blow;
        blow.run = run;
        const double whole = std::max(reach(at), 0.0) * strength;
        blow.reach = {whole, whole, turn(at) * strength, zoom(at) * strength};
        blow.seconds = lasts(at);
        blow.decay = std::max(decay(at), 0.0);
        blow.linear = linear;
        blow.along = along;
        blow.seed = pcg(seed + (each_new ? pcg(static_cast<std::uint32_t>(run.index) + 1) : 0));
        return blow;
    }

    bool linear;
    bool along;
    bool each_new;
    std::uint32_t seed;
    std::function<double(double)> reach, turn, zoom, seconds, decay;
};

Answerer answerer(const Arguments& args) {
    const Track rate = args.track("rate");
    const Reading reading(args);
    std::vector<Run> runs = runs_of(args, [&](const Cue& cue) { return reading.lasts(cue.at); });
    std::vector<Blow> blows;
    const bool from_here = takes_over(args);
    for (const Run& run : runs) {
        Blow blow = reading.blow(run);
        blow.travelled = rate.integral(run.start);
        if (from_here && !blows.empty())
            blow.left = blows.back().after(run.start - blows.back().run.start, blow.travelled);
        blows.push_back(std::move(blow));
    }
    return [runs = std::move(runs), blows = std::move(blows), rate](double time) {
        const Run* run = run_at(runs, time);
        Answer answer = answer_of(run, time);
        if (run == nullptr) return answer;
        const Blow& blow = blows[static_cast<std::size_t>(run - runs.data())];
        const Four at = blow.after(answer.since, rate.integral(time));
        answer.value = {at[0], at[1]};
        answer.turn = at[2];
        answer.zoom = at[3];
        answer.presence = blow.reach[0] > 0 ? blow.remains(answer.since, blow.reach[0]) / blow.reach[0]
                                            : blow.remains(answer.since, 1);
        return answer;
    };
}

}  // namespace

ResponseKind jolt_kind() {
    ResponseKind kind;
    kind.name = "jolt";
    kind.words = "shakes at each cue and dies away; to be added to a place or a view";
    kind.listens_to_cue = true;
    kind.width = 2;
    kind.outputs = {"presence", "turn", "zoom", "strength", "direction", "place", "object", "since"};
    kind.arguments = {
        number_argument("reach", 12, 0, 100, "px", "how far at full strength; the unit is yours"),
        number_argument("rate", 14, 0, 60, "/s", "how quick it is", Reads::rate),
        number_argument("seconds", 0.8, 0, 5, "s", "after which it is at rest for certain"),
        number_argument("decay", 20, 0, 100, "/s", "what the reach loses a second; or the rate, if exponential"),
        word_argument("decay_form", {"linear", "exponential"}, "the same each second, or the same share"),
        word_argument("way", {"all_round", "along_the_blow"}, "where it goes"),
        number_argument("turn", 0, -45, 45, "deg", "how far it turns at full strength"),
        number_argument("zoom", 0, -0.5, 0.5, "", "by which share it comes nearer at full strength"),
        number_argument("seed", 1, 0, 999, "", "another shake for each number", Reads::steady),
        word_argument("each_time", {"new", "same"}, "whether each blow shakes in its own way"),
        when_again_argument()};
    kind.answerer = answerer;
    return kind;
}

}  // namespace lacquer
