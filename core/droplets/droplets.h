// What droplets are like: many small sprites that are born, move and go. Values only; see `Emitter`.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace lacquer {

/// The numbers that droplets have.
enum class DropNumberId : std::uint8_t {
    rate,
    delay,
    burst,
    burst_time,
    count,
    apart,
    life,
    ending,
    reach,
    most,
    x,
    y,
    radius,
    angle,
    speed,
    direction,
    fall,
    drag,
    wind_x,
    wind_y,
    gust,
    gust_rate,
    spin,
    turn,
    floor,
    bounce,
    size,
    largest,
    stretch,
    opacity,
};
inline constexpr std::size_t drop_number_count = 30;

/// A number of droplets: the same for all where `from` is `to`, else drawn for each drop by a hash of its own; or a
/// formula over dials and signals in their place.
struct DropNumber {
    double from = 0;
    double to = 0;
    std::string formula = {};
    friend bool operator==(const DropNumber&, const DropNumber&) = default;
};

/// When a number's formula is read. `steady`: once, as things are at 0 s. `at_birth`: when the drop is born. `rate`: it
/// is integrated over the time that has passed.
enum class DropReads { steady, at_birth, rate };

/// What stands in the table of numbers: its key in files and on the page, its place there, and what it is.
struct DropNumberSpec {
    DropNumberId id;
    std::string_view key;
    std::string_view group;  ///< birth, place, motion, end or look
    std::string_view words;
    std::string_view unit;
    double usual = 0;
    double least = 0;  ///< of what it may be
    double most = 1;
    double handle_most = 1;  ///< how far its handle on the page goes; anything up to `most` can be typed
    DropReads reads = DropReads::at_birth;
    bool spreads = true;  ///< each drop may have its own
};

/// All numbers, in the order of their ids.
std::span<const DropNumberSpec> drop_numbers();
const DropNumberSpec& spec_of(DropNumberId id);

/// What a drop looks like: one of the ready shapes, or a picture.
enum class DropShape { disc, ring, streak, splash, picture };
/// A fixed field of drops that is there from the start.
enum class DropField { none, grid, jittered, random };
/// Where drops are born: at a point, in a disc about it, on a line through it, on the frame's border, anywhere in it.
enum class DropPlace { point, disc, line, border, frame };
/// What a drop does that leaves the frame.
enum class DropLeaves { goes, wraps, sticks };
/// Which way a drop stands: as it is, turned by its spin, or along its motion.
enum class DropFacing { upright, turned, along };
/// How drops that lie over one another make one picture: by their sum, one over another, or the more opaque.
enum class DropBlend { add, over, larger };

/// The words of files and pages for these, in the order of their values.
inline constexpr std::array<std::string_view, 5> drop_shape_words{"disc", "ring", "streak", "splash", "picture"};
inline constexpr std::array<std::string_view, 4> drop_field_words{"none", "grid", "jittered", "random"};
inline constexpr std::array<std::string_view, 5> drop_place_words{"point", "disc", "line", "border", "frame"};
inline constexpr std::array<std::string_view, 3> drop_leaves_words{"goes", "wraps", "sticks"};
inline constexpr std::array<std::string_view, 3> drop_facing_words{"upright", "turned", "along"};
inline constexpr std::array<std::string_view, 3> drop_blend_words{"add", "over", "larger"};

/// The value of such a word; nothing for another.
template <class Kind, std::size_t count>
std::optional<Kind> drop_word(const std::array<std::string_view, count>& words, std::string_view word) {
    for (std::size_t i = 0; i < count; ++i) {
        if (words[i] == word) return static_cast<Kind>(i);
    }
    return std::nullopt;
}

/// No more than so many live at a time, whatever is asked for; the youngest do.
inline constexpr int most_drops = 65'536;

struct Droplets {
    DropShape shape = DropShape::disc;
    int columns = 1;  ///< cells of a sheet
    int rows = 1;
    double cell_rate = 0;  ///< cells a second; 0: each drop has one of its own

    std::string born_while = {};  ///< a formula that says yes or no; empty is always
    std::string cue = {};         ///< that brings a burst; empty for none
    bool by_strength = true;      ///< a weaker cue brings fewer
    bool at_cue = false;          ///< a burst is about the cue's place, and directions count from the cue's
    bool settled = false;         ///< as if it had gone on for ever before 0 s
    DropField field = DropField::none;
    DropPlace place = DropPlace::frame;
    std::string ends_at = {};    ///< the cue that ends all that live
    std::string ends_near = {};  ///< the place in play that ends those within its reach

    DropLeaves leaves = DropLeaves::goes;
    DropFacing facing = DropFacing::upright;
    DropBlend blend = DropBlend::over;
    std::string size_curve = {};     ///< the curve ground that says how large it is over its life; empty: as it is born
    std::string opacity_curve = {};  ///< the same for its opacity
    std::string ending_curve = {};   ///< the same for its opacity over its end; empty: evenly down
    std::string tint = {};           ///< the gradient ground of its colour over its life; empty: white
    int seed = 1;
    bool new_each_cue = true;    ///< bursts differ from one another
    bool oldest_on_top = false;  ///< where they lie over one another; else the youngest

    std::array<DropNumber, drop_number_count> numbers = usual_numbers();

    DropNumber& number(DropNumberId id) { return numbers[static_cast<std::size_t>(id)]; }
    const DropNumber& number(DropNumberId id) const { return numbers[static_cast<std::size_t>(id)]; }
    static std::array<DropNumber, drop_number_count> usual_numbers();

    friend bool operator==(const Droplets&, const Droplets&) = default;
};

}  // namespace lacquer
