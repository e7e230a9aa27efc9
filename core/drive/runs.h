// What becomes of cues that come while a response still answers another.
#pragma once

#include <functional>
#include <limits>
#include <vector>

#include "core/drive/arguments.h"

namespace lacquer {

/// A cue that is answered: from when on, and which one it is among those that the response hears.
struct Run {
    double start = 0;
    Cue cue = {};
    std::size_t index = 0;
};

inline constexpr double for_ever = std::numeric_limits<double>::infinity();

/// How long a run that this cue starts will last, seconds; `for_ever` if it never ends.
using Lasts = std::function<double(const Cue&)>;

/// The runs of a response: without a cue, one at 0 s. By `when_again`: a new cue takes over or starts again at once, is
/// ignored while one runs, or waits until that is over (what waits behind one that never ends is left out).
std::vector<Run> runs_of(const Arguments& arguments, const Lasts& lasts);

/// The argument that chooses among them. `first` is the usual one.
ArgumentSpec when_again_argument(std::vector<std::string> choices = {"take_over", "start_again", "ignore", "queue"});

/// True if a new cue takes over from where the value is.
bool takes_over(const Arguments& arguments);

/// The last run that has begun at a time, or null.
const Run* run_at(const std::vector<Run>& runs, double time);

/// An answer that tells of this run; null before the first.
Answer answer_of(const Run* run, double time);

/// `a` at 0 and `b` at 1, exactly, so that rest is rest to the last bit.
double blend(double a, double b, double share);

}  // namespace lacquer
