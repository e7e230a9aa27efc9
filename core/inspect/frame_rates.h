// The same tape at several frame rates: what differs, and why.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/render/renderer.h"

namespace lacquer {

/// A way in which frames follow one another.
struct FramePace {
    std::string words;                                      ///< "24 frames/s"
    std::vector<double> (*times)(double length) = nullptr;  ///< of all frames, seconds, rising
};

/// 24, 30, 60 and 144 frames a second, and uneven frames with a stutter now and then.
const std::vector<FramePace>& frame_paces();

/// What became of one value.
struct RateRow {
    std::string name;
    double largest = 0;  ///< by which frames at some pace differ from what it should be then
    double missed = 0;   ///< share of its whole way that no frame of some pace shows: its peak falls between two
    std::string pace;    ///< at which the largest difference, or the most that is missed, came about
    std::string why;     ///< in plain words; empty where there is nothing to say
};

struct RateReport {
    std::vector<RateRow> rows;   ///< driven dials, and responses that steps read
    double picture_largest = 0;  ///< of any channel of any pixel of the pictures that were compared
    double picture_mean = 0;
    std::size_t pictures = 0;  ///< how many were compared
    double seconds = 0;        ///< how much of the tape was played
    std::string words;         ///< what it comes to, in plain words

    bool same() const;
};

/// Values by name at a moment.
using NamedValues = std::map<std::string, double, std::less<>>;
/// Something that is asked frame by frame, in order, and may keep what it likes in between.
using FramePlayer = std::function<NamedValues(double time)>;

/// Plays each pace with a player of its own and compares with `should_be`, which is asked at any time.
std::vector<RateRow> compare_paces(double length, const FramePlayer& should_be,
                                   const std::function<FramePlayer()>& new_player);

/// Plays a finish's tape as a game would: frame by frame, hearing of each cue only when it has come. Pictures are drawn
/// small, at moments after the cues. Called off, it gives what it has so far.
RateReport check_frame_rates(const RenderRequest& request, Renderer& renderer, const Cancel& cancel);

}  // namespace lacquer
