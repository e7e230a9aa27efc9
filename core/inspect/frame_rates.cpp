#include "core/inspect/frame_rates.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/hash.h"
#include "core/base/text.h"
#include "core/finish/edits.h"

namespace lacquer {

namespace {

/// Beyond the rounding of single precision.
constexpr double same_within = 1e-5;
constexpr double worth_saying = 0.25;
constexpr std::size_t most_events = 400;
constexpr int drawn_longer_side = 160;
constexpr std::size_t most_moments = 6;

template <int rate>
std::vector<double> even_frames(double length) {
    std::vector<double> times;
    for (int i = 0; i <= static_cast<int>(length * rate); ++i) times.push_back(static_cast<double>(i) / rate);
    return times;
}

// Between 4 and 30 ms a frame, and one of 70 ms now and then.
std::vector<double> uneven_frames(double length) {
    std::vector<double> times;
    double time = 0;
    for (std::uint32_t i = 0; time <= length; ++i) {
        times.push_back(time);
        const double share = static_cast<double>(unit_from_hash(pcg(i + 77)));
        time += pcg(i) % 40 == 0 ? 0.07 : 0.004 + 0.026 * share;
    }
    return times;
}

struct Extent {
    double least = std::numeric_limits<double>::infinity();
    double most = -std::numeric_limits<double>::infinity();
    void add(double value) {
        if (!std::isfinite(value)) return;
        least = std::min(least, value);
        most = std::max(most, value);
    }
    double span() const { return most > least ? most - least : 0; }
};
using Extents = std::map<std::string, Extent, std::less<>>;

// How far each value goes, seen finely.
Extents whole_way(double length, const FramePlayer& should_be) {
    Extents extents;
    const int steps = std::clamp(static_cast<int>(length * 1000), 200, 12'000);
    for (int i = 0; i <= steps; ++i) {
        for (const auto& [name, value] : should_be(length * i / steps)) extents[name].add(value);
    }
    return extents;
}

std::string why_of(const RateRow& row) {
    if (row.largest > same_within)
        return "at " + row.pace + " it differs by " + plain_number(row.largest, 4) +
               ": something in it goes by frames, not by seconds";
    if (row.missed > worth_saying)
        return "at " + row.pace + " no frame falls on its peak, and " + plain_number(row.missed * 100, 0) +
               " % of its way is not seen: let it stay there for a frame or two";
    return {};
}

// The values of driven dials and of responses that steps read, as numbers.
NamedValues numbers_of(const Finish& finish, const std::vector<std::string>& names, const DriveValues& values) {
    NamedValues numbers;
    for (const std::string& name : names) {
        const auto found = values.find(name);
        if (found == values.end()) continue;
        const DialValue parts = setting_from(found->second);
        numbers[name] = parts[0];
        const Dial* dial = find_dial(finish, name);
        const bool two = found->second.type == Type::vec2;
        if (two) numbers[name + ".y"] = parts[1];
        if (dial != nullptr && dial->kind == DialKind::colour) {
            numbers[name + ".g"] = parts[1];
            numbers[name + ".b"] = parts[2];
        }
    }
    return numbers;
}

std::vector<std::string> names_that_move(const Finish& finish) {
    std::vector<std::string> names;
    for (const Dial& dial : finish.dials) {
        if (!dial.formula.empty()) names.push_back(dial.name);
    }
    for (const Response& response : finish.responses) {
        for (const std::string& user : users_of(finish, response.name)) {
            if (find_step(finish, user) == nullptr) continue;
            names.push_back(response.name);
            break;
        }
    }
    return names;
}

Tape until(const Tape& tape, double time) {
    Tape sofar;
    for (const Cue& cue : tape.cues) {
        if (cue.at <= time) sofar.cues.push_back(cue);
    }
    for (const Change& change : tape.changes) {
        if (change.at <= time) sofar.changes.push_back(change);
    }
    return sofar;
}

// Hears of what is on the tape only when it has come.
FramePlayer hearing_player(std::shared_ptr<const CheckedFinish> checked, const Tape& tape,
                           const std::vector<std::string>& names) {
    struct State {
        std::size_t heard = static_cast<std::size_t>(-1);
        std::shared_ptr<const Play> play;
    };
    return [checked = std::move(checked), &tape, &names, state = std::make_shared<State>()](double time) {
        const Tape sofar = until(tape, time);
        const std::size_t heard = sofar.cues.size() + sofar.changes.size();
        if (heard != state->heard) {
            state->heard = heard;
            state->play = std::make_shared<const Play>(checked, sofar);
        }
        return numbers_of(*checked->finish, names, state->play->values(time));
    };
}

void add_difference(const Picture& a, const Picture& b, RateReport& report, double& sum, std::size_t& count) {
    for (int y = 0; y < a.height; ++y) {
        for (int x = 0; x < a.width; ++x) {
            for (int c = 0; c < a.channels; ++c) {
                const float one = a.at(x, y)[c];
                const float other = b.at(x, y)[c];
                const double by = one == other || (std::isnan(one) && std::isnan(other))
                                      ? 0
                                      : std::fabs(static_cast<double>(one) - static_cast<double>(other));
                report.picture_largest = std::max(report.picture_largest, by);
                sum += by;
                ++count;
            }
        }
    }
}

// The finished picture at some moments after cues: drawn in passing, frame by frame, and asked for by itself.
void compare_pictures(const RenderRequest& request, const Tape& tape, Renderer& renderer, const Cancel& cancel,
                      RateReport& report) {
    const Finish& finish = *request.checked->finish;
    const double wide = finish.frame_width;
    const double high = finish.frame_height;
    const double share = std::min(1.0, drawn_longer_side / std::max(wide, high));
    RenderRequest small = request;
    small.width = std::max(2, static_cast<int>(wide * share) / 2 * 2);
    small.height = std::max(2, static_cast<int>(high * share) / 2 * 2);
    small.small_grounds = true;
    small.points.clear();
    small.steps = {""};
    std::vector<double> moments{finish.length / 2};
    for (const Cue& cue : tape.cues) moments.push_back(std::min(cue.at + 0.15, finish.length));
    std::sort(moments.begin(), moments.end());
    if (moments.size() > most_moments) moments.resize(most_moments);
    double sum = 0;
    std::size_t count = 0;
    const auto drawn = [&](double time, const Tape& played) -> std::optional<Picture> {
        small.time = time;
        small.tape = std::make_shared<const Tape>(played);
        Result<Frame> frame = renderer.render(small, cancel);
        if (!frame || frame->steps.empty()) return std::nullopt;
        return std::move(frame->steps.front().picture);
    };
    for (const double moment : moments) {
        for (const FramePace& pace : frame_paces()) {
            if (cancel.requested()) return;
            const std::vector<double> times = pace.times(report.seconds);
            const auto next = std::upper_bound(times.begin(), times.end(), moment);
            if (next == times.begin()) continue;
            const double time = *(next - 1);
            if (next - 1 != times.begin()) (void)drawn(*(next - 2), until(tape, *(next - 2)));
            const auto passing = drawn(time, until(tape, time));
            const auto alone = drawn(time, tape);
            if (!passing || !alone) return;
            add_difference(*passing, *alone, report, sum, count);
            ++report.pictures;
        }
    }
    report.picture_mean = count > 0 ? sum / static_cast<double>(count) : 0;
}

}  // namespace

const std::vector<FramePace>& frame_paces() {
    static const std::vector<FramePace> paces = {{"24 frames/s", even_frames<24>},
                                                 {"30 frames/s", even_frames<30>},
                                                 {"60 frames/s", even_frames<60>},
                                                 {"144 frames/s", even_frames<144>},
                                                 {"uneven frames", uneven_frames}};
    return paces;
}

bool RateReport::same() const {
    return picture_largest <= same_within &&
           std::all_of(rows.begin(), rows.end(), [](const RateRow& row) { return row.largest <= same_within; });
}

std::vector<RateRow> compare_paces(double length, const FramePlayer& should_be,
                                   const std::function<FramePlayer()>& new_player) {
    const Extents whole = whole_way(length, should_be);
    std::map<std::string, RateRow, std::less<>> rows;
    for (const auto& [name, extent] : whole) rows[name].name = name;
    for (const FramePace& pace : frame_paces()) {
        const FramePlayer player = new_player();
        Extents seen;
        for (const double time : pace.times(length)) {
            const NamedValues now = player(time);
            const NamedValues wanted = should_be(time);
            for (const auto& [name, value] : wanted) {
                const auto found = now.find(name);
                const double got = found == now.end() ? std::numeric_limits<double>::quiet_NaN() : found->second;
                seen[name].add(got);
                const bool both_odd = std::isnan(got) && std::isnan(value);
                const double by = got == value || both_odd ? 0 : std::fabs(got - value);
                RateRow& row = rows[name];
                if (!(by <= row.largest)) {
                    row.largest = by;
                    row.pace = pace.words;
                }
            }
        }
        for (const auto& [name, extent] : whole) {
            RateRow& row = rows[name];
            if (!(extent.span() > 1e-9)) continue;
            const double missed =
                std::max(extent.most - seen[name].most, seen[name].least - extent.least) / extent.span();
            if (missed <= row.missed) continue;
            row.missed = missed;
            if (row.largest <= same_within) row.pace = pace.words;
        }
    }
    std::vector<RateRow> list;
    for (auto& [name, row] : rows) {
        row.why = why_of(row);
        list.push_back(std::move(row));
    }
    return list;
}

RateReport check_frame_rates(const RenderRequest& request, Renderer& renderer, const Cancel& cancel) {
    RateReport report;
    const Finish& finish = *request.checked->finish;
    Tape tape = request.tape != nullptr ? *request.tape : finish.tape;
    report.seconds = finish.length;
    // Of a very long tape the beginning is enough to tell.
    if (tape.cues.size() + tape.changes.size() > most_events) {
        std::vector<double> times;
        for (const Cue& cue : tape.cues) times.push_back(cue.at);
        for (const Change& change : tape.changes) times.push_back(change.at);
        std::nth_element(times.begin(), times.begin() + most_events, times.end());
        report.seconds = std::min(report.seconds, times[most_events]);
        tape = until(tape, report.seconds);
    }
    report.seconds = std::min(report.seconds, 60.0);
    const std::vector<std::string> names = names_that_move(finish);
    const Play whole(request.checked, tape);
    report.rows = compare_paces(
        report.seconds, [&](double time) { return numbers_of(finish, names, whole.values(time)); },
        [&] { return hearing_player(request.checked, tape, names); });
    compare_pictures(request, tape, renderer, cancel, report);
    const auto notes =
        std::count_if(report.rows.begin(), report.rows.end(), [](const RateRow& r) { return !r.why.empty(); });
    report.words = !report.same() ? "Not the same at every frame rate"
                   : notes == 0   ? "The same at every frame rate: all of it is worked out from time and cues"
                                  : "The same at every frame rate, but " +
                                      counted(static_cast<std::size_t>(notes), "peak") + " may fall between two frames";
    return report;
}

}  // namespace lacquer
