// What becomes of cues that come while a response still answers another: they are replayed into runs once, and any
// moment is answered by the last run that has begun then.
#pragma once

#include <algorithm>
#include <array>
#include <functional>
#include <initializer_list>
#include <limits>
#include <memory>
#include <string_view>
#include <vector>

#include "core/drive/arguments.h"
#include "core/drive/played.h"

namespace lacquer {

/// All runs of a response in the order of their starts, and the cue of each. `Run` is one of those of play/.
template <class Run>
struct Runs {
    std::vector<Run> runs;
    std::vector<Cue> cues;

    /// The number of the last that has begun at a time; -1 before the first.
    std::ptrdiff_t at(double time) const {
        const auto next =
            std::upper_bound(runs.begin(), runs.end(), time, [](double t, const Run& run) { return t < run.start; });
        return next - runs.begin() - 1;
    }
    const Cue& cue(std::ptrdiff_t number) const { return cues[static_cast<std::size_t>(number)]; }
    const Run& operator[](std::ptrdiff_t number) const { return runs[static_cast<std::size_t>(number)]; }
};

/// A cue as the texts of play/ know it.
played::lq_cue played_cue(const Cue& cue);

/// What they answer, with the cue as it was on the tape.
Answer answer_from(const played::lq_answer& answer, const Cue& cue);

/// An answer before the first run, of this value.
Answer answer_before(double value);

/// The rule by which a response takes a cue that comes while a run lasts, as play/basics.h numbers them.
int when_again_of(const Arguments& arguments);

/// The argument that chooses among the rules. `choices` are those that are offered, the first being the usual one.
ArgumentSpec when_again_argument(std::vector<std::string> choices = {"take_over", "start_again", "ignore", "queue"});

/// For responses that do not offer it.
inline constexpr auto never_takes_over = [](const auto&, const auto&) {};

/// Numbers that a response reads when a cue comes, looked up once for all of them.
class CueReadings {
public:
    static constexpr std::size_t most = 5;
    /// At most `most` names of arguments.
    CueReadings(const Arguments& arguments, std::initializer_list<std::string_view> names);
    /// As they are at a time, in the order of their names.
    std::array<double, most> at(double time) const;

private:
    std::vector<std::function<double(double)>> readings_;
};

/// An easing as the texts of play/ know it, with the points that belong to it.
class KeptEasing {
public:
    explicit KeptEasing(Easing easing);
    const played::lq_easing& played() const { return played_; }

private:
    std::shared_ptr<const Easing> easing_;
    played::lq_easing played_{};
};

/// The runs of a response: without a cue, one at 0 s. `begin(run, start, cue, number)` makes one of a cue, `number`
/// counting those that are heard; `lasts(run)` says how long it lasts, in seconds; `take_over(run, before)` lets it go
/// on from where another is. What waits behind a run that never ends is left out.
template <class Run, class Begin, class Lasts, class TakeOver>
Runs<Run> replayed(const Arguments& arguments, const Begin& begin, const Lasts& lasts, const TakeOver& take_over) {
    Runs<Run> replayed;
    const auto add = [&](double start, const Cue& cue, std::size_t number) {
        Run run{};
        begin(run, start, cue, number);
        replayed.runs.push_back(run);
        replayed.cues.push_back(cue);
    };
    if (arguments.cue().empty()) {
        add(0, Cue{}, 0);
        return replayed;
    }
    const int rule = when_again_of(arguments);
    double over = -std::numeric_limits<double>::infinity();
    const Cues heard = arguments.heard(arguments.cue());
    for (std::size_t i = 0; i < heard.size(); ++i) {
        const double start = played::lq_run_start(rule, heard[i].at, over);
        if (start == std::numeric_limits<double>::infinity()) continue;
        add(start, heard[i], i);
        const std::size_t count = replayed.runs.size();
        if (rule == LQ_TAKE_OVER && count > 1) take_over(replayed.runs[count - 1], replayed.runs[count - 2]);
        over = start + lasts(replayed.runs.back());
    }
    return replayed;
}

}  // namespace lacquer
