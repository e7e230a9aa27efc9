// The file's words for kinds of dial, and for how pictures are read.
#pragma once

#include <optional>
#include <string_view>

#include "core/finish/finish.h"

namespace lacquer {

/// "number", "integer", "switch" or "colour".
constexpr std::string_view dial_kind_name(DialKind kind) {
    switch (kind) {
        case DialKind::number:
            return "number";
        case DialKind::integer:
            return "integer";
        case DialKind::toggle:
            return "switch";
        case DialKind::colour:
            return "colour";
    }
    return "";
}

/// The kind of that name.
constexpr std::optional<DialKind> dial_kind_named(std::string_view name) {
    for (const DialKind kind : {DialKind::number, DialKind::integer, DialKind::toggle, DialKind::colour}) {
        if (dial_kind_name(kind) == name) return kind;
    }
    return std::nullopt;
}

/// "clamp", "repeat" or "mirror".
constexpr std::string_view wrap_name(Wrap wrap) {
    return wrap == Wrap::clamp ? "clamp" : wrap == Wrap::repeat ? "repeat" : "mirror";
}

/// The wrap of that name.
constexpr std::optional<Wrap> wrap_named(std::string_view name) {
    for (const Wrap wrap : {Wrap::clamp, Wrap::repeat, Wrap::mirror}) {
        if (wrap_name(wrap) == name) return wrap;
    }
    return std::nullopt;
}

/// "linear" or "nearest".
constexpr std::string_view filter_name(Filter filter) { return filter == Filter::linear ? "linear" : "nearest"; }

/// The filter of that name.
constexpr std::optional<Filter> filter_named(std::string_view name) {
    if (name == "linear") return Filter::linear;
    return name == "nearest" ? std::optional<Filter>(Filter::nearest) : std::nullopt;
}

/// "linear", "srgb", "oklab", "smooth" or "stay".
constexpr std::string_view stop_mix_name(StopMix mix) {
    switch (mix) {
        case StopMix::straight:
            return "linear";
        case StopMix::display:
            return "srgb";
        case StopMix::oklab:
            return "oklab";
        case StopMix::smooth:
            return "smooth";
        case StopMix::hold:
            return "stay";
    }
    return "";
}

/// The way of that name; "hold" is what earlier files call "stay".
constexpr std::optional<StopMix> stop_mix_named(std::string_view name) {
    if (name == "hold") return StopMix::hold;
    for (const StopMix mix : {StopMix::straight, StopMix::display, StopMix::oklab, StopMix::smooth, StopMix::hold}) {
        if (stop_mix_name(mix) == name) return mix;
    }
    return std::nullopt;
}

}  // namespace lacquer
