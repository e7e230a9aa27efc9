#include "core/ship/play/drive_curves.h"

#include <algorithm>
#include <cmath>

#include "core/drive/path_keys.h"
#include "core/finish/play.h"
#include "core/ship/play/play_names.h"

namespace lacquer {

namespace {

constexpr double samples_a_second = 240;
constexpr double share_of_range = 1e-3;  // that a curve may be off
constexpr std::size_t most_samples = 60 * 240;

double slope_at(std::span<const double> samples, std::size_t i, bool after, double step) {
    const std::size_t from = after ? i : i - 1;
    return (samples[from + 1] - samples[from]) / step;
}

double piece(const CurveKey& from, const CurveKey& to, double time) {
    const std::array<played::lq_key, 2> keys = {
        {{from.at, from.value, from.before, from.after, 0}, {to.at, to.value, to.before, to.after, 0}}};
    return lq_keys_value(keys.data(), 2, time);
}

CurveKey key_at(std::span<const double> samples, std::size_t i, double step) {
    CurveKey key{static_cast<double>(i) * step, samples[i], 0, 0};
    if (i > 0) key.before = slope_at(samples, i, false, step);
    if (i + 1 < samples.size()) key.after = slope_at(samples, i, true, step);
    return key;
}

bool fits(std::span<const double> samples, std::size_t begin, std::size_t end, double step, double error) {
    const CurveKey from = key_at(samples, begin, step);
    const CurveKey to = key_at(samples, end, step);
    for (std::size_t i = begin + 1; i < end; ++i) {
        if (std::fabs(piece(from, to, static_cast<double>(i) * step) - samples[i]) > error) return false;
    }
    return true;
}

Json curve_json(std::span<const double> samples, double step, double error) {
    Json keys = Json::array();
    for (const CurveKey& key : curve_keys(samples, step, error))
        keys.push_back({key.at, key.value, key.before, key.after});
    return Json::object({{"error", error}, {"keys", std::move(keys)}});
}

}  // namespace

std::vector<CurveKey> curve_keys(std::span<const double> samples, double step, double error) {
    std::vector<CurveKey> keys;
    if (samples.empty()) return keys;
    std::size_t at = 0;
    keys.push_back(key_at(samples, 0, step));
    while (at + 1 < samples.size()) {
        // Twice as far each time while it fits, then back by halves.
        std::size_t good = at + 1;
        std::size_t reach = 2;
        while (at + reach < samples.size() && fits(samples, at, at + reach, step, error)) {
            good = at + reach;
            reach *= 2;
        }
        std::size_t bad = std::min(at + reach, samples.size());
        while (bad - good > 1) {
            const std::size_t middle = (good + bad) / 2;
            (fits(samples, at, middle, step, error) ? good : bad) = middle;
        }
        keys.push_back(key_at(samples, good, step));
        at = good;
    }
    return keys;
}

double curve_value(std::span<const CurveKey> keys, double time) {
    std::vector<played::lq_key> all;
    all.reserve(keys.size());
    for (const CurveKey& key : keys) all.push_back({key.at, key.value, key.before, key.after, 0});
    return lq_keys_value(all.data(), static_cast<int>(all.size()), time);
}

Json drive_curves(const ShipMaterial& material) {
    const Finish& finish = material.finish();
    const PlayNames names = play_names(finish);
    const double step = 1 / samples_a_second;
    const std::size_t count =
        std::min(most_samples, static_cast<std::size_t>(std::max(1.0, finish.length * samples_a_second)) + 1);
    std::vector<CueKind> cues = {CueKind{}};
    cues.insert(cues.end(), finish.cues.begin(), finish.cues.end());
    Json all = Json::array();
    for (const CueKind& cue : cues) {
        Tape tape;
        if (!cue.name.empty()) add_to_tape(tape, Cue{cue.name, 0, cue.strength, cue.direction});
        const Play play(material.request.checked, tape);
        std::vector<DriveValues> moments;
        moments.reserve(count);
        for (std::size_t i = 0; i < count; ++i) moments.push_back(play.values(static_cast<double>(i) * step));
        Json dials = Json::object();
        for (const Dial& dial : finish.dials) {
            if (dial.formula.empty() || dial.kind == DialKind::toggle) continue;
            const double range = dial.kind == DialKind::colour ? 1 : dial.most - dial.least;
            Json parts = Json::array();
            for (int part = 0; part < (dial.kind == DialKind::colour ? 3 : 1); ++part) {
                std::vector<double> samples;
                samples.reserve(count);
                for (const DriveValues& values : moments)
                    samples.push_back(static_cast<double>(values.at(dial.name).parts[static_cast<std::size_t>(part)]));
                parts.push_back(curve_json(samples, step, share_of_range * std::max(range, 1e-9)));
            }
            dials[names.fields.at(dial.name).name] = std::move(parts);
        }
        all.push_back(Json::object({{"cue", cue.name},
                                    {"strength", cue.name.empty() ? 0 : cue.strength},
                                    {"direction", cue.direction},
                                    {"dials", std::move(dials)}}));
    }
    return Json::object({{"lacquer_play", 1},
                         {"key", Json{"seconds", "value", "slope before", "slope after"}},
                         {"cues", std::move(all)}});
}

}  // namespace lacquer
