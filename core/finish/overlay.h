// What is laid over a finish: other dial values, formulas, grounds and responses, while all else stays the finish's
// own.
#pragma once

#include <array>
#include <map>
#include <string>
#include <vector>

#include "core/base/kept_keys.h"

namespace lacquer {

struct Finish;

/// Changes to things by their names, each a JSON Merge Patch (RFC 7396, see `merged`) of the thing's object in the
/// file, on one line.
using Patches = std::map<std::string, std::string, std::less<>>;

struct Overlay {
    Patches dials = {};      ///< value, range, formula
    Patches steps = {};      ///< formula, start, whether it is on
    Patches grounds = {};    ///< anything but the name
    Patches responses = {};  ///< anything but the name

    bool empty() const { return dials.empty() && steps.empty() && grounds.empty() && responses.empty(); }
    std::size_t size() const { return dials.size() + steps.size() + grounds.size() + responses.size(); }
    friend bool operator==(const Overlay&, const Overlay&) = default;
};

/// A named kind of the finish.
struct Variant {
    std::string name = {};
    std::string note = {};
    /// What it changes. While the variant is on, this holds what undoes it.
    Overlay overlay = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const Variant&, const Variant&) = default;
};

/// A look that was set aside: all values and formulas as they were.
struct SetAside {
    std::string words = {};
    double time = 0;           ///< the moment, seconds
    std::string picture = {};  ///< a small PNG as Base64 (RFC 4648); may be empty
    Overlay overlay = {};
    /// Dials that were held by hand against their formulas, with their settings.
    std::map<std::string, std::array<double, 3>, std::less<>> held = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const SetAside&, const SetAside&) = default;
};

/// Something that an overlay changes or cannot.
struct OverlayEntry {
    std::string kind;  ///< dial, step, ground, response
    std::string name;
    std::string changes;   ///< the patch, on one line
    bool missing = false;  ///< the finish has nothing of the name
    friend bool operator==(const OverlayEntry&, const OverlayEntry&) = default;
};

/// The finish with an overlay on it. What it names and the finish has not is left alone. If asked for, gives the
/// overlay that undoes it: on what was changed the way back, of what is missing the same again.
Finish with_overlay(Finish finish, const Overlay& overlay, Overlay* way_back = nullptr);

/// The finish with all that an overlay holds in place of what the things of those names had: for overlays that hold
/// them whole.
Finish with_whole(Finish finish, const Overlay& overlay);

/// What makes `base` into `other`, as far as an overlay can: of things of the same name.
Overlay overlay_between(const Finish& base, const Finish& other);

/// Everything of a finish that an overlay can hold.
Overlay whole_overlay(const Finish& finish);

/// All that an overlay holds, dials first.
std::vector<OverlayEntry> entries_of(const Overlay& overlay, const Finish& finish);

/// With another name for a dial, step, ground or response, also in formulas of steps, dials and responses.
Overlay renamed_in(Overlay overlay, const std::string& from, const std::string& to);

}  // namespace lacquer
