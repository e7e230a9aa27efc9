#include "core/lang/known_names.h"

#include <array>

namespace lacquer {

namespace {

constexpr std::array<KnownName, 9> rows = {{
    {Known::uv, "uv", Type::vec2, KnownDomain::pixel, "place in the frame, 0..1 from the top left"},
    {Known::pixel, "pixel", Type::vec2, KnownDomain::pixel, "pixel of the frame, whole numbers from the top left"},
    {Known::frame_size, "frame_size", Type::vec2, KnownDomain::frame, "width and height of the frame, pixels"},
    {Known::pixel_size, "pixel_size", Type::vec2, KnownDomain::frame, "1 / frame_size"},
    {Known::aspect, "aspect", Type::number, KnownDomain::frame, "width of the frame over its height"},
    {Known::time, "time", Type::number, KnownDomain::moment, "seconds since the beginning"},
    {Known::tick, "tick", Type::number, KnownDomain::frame, "ticks since the beginning, or since all began anew"},
    {Known::tick_length, "tick_length", Type::number, KnownDomain::frame, "seconds from one tick to the next"},
    {Known::tick_part, "tick_part", Type::number, KnownDomain::frame, "how much of the present tick has passed, 0..1"},
}};

constexpr bool in_order() {
    for (std::size_t i = 0; i < rows.size(); ++i) {
        if (rows[i].id != static_cast<Known>(i)) return false;
    }
    return true;
}
static_assert(in_order(), "one row for each id, in the order of the ids");

}  // namespace

std::span<const KnownName> known_names() { return rows; }

const KnownName* find_known(std::string_view name) {
    for (const KnownName& row : rows) {
        if (row.name == name) return &row;
    }
    return nullptr;
}

}  // namespace lacquer
