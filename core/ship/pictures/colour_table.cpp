#include "core/ship/pictures/colour_table.h"

#include <fmt/core.h>

#include <array>
#include <bit>
#include <cmath>

#include "core/base/hash.h"
#include "core/base/text.h"
#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/play.h"
#include "core/lang/known_names.h"

namespace lacquer {

namespace {

constexpr int checked_side = 64;  // of a square of colours at random

// The finish's only pass on colours that are handed over, as dials are at 0 s.
class TableDrawer {
public:
    explicit TableDrawer(const ShipMaterial& material)
        : pass_(material.passes.front().pass),
          program_(lay_out(optimised(lower(pass_)), best_kernels())),
          values_(Play(material.request.checked, material.finish().tape).values(0)) {}

    Picture drawn(const Picture& colours) {
        std::vector<float> uniforms;
        for (const UniformSlot& slot : program_.uniform_slots) {
            const auto found = values_.find(slot.name);
            const Value value = found != values_.end() ? found->second : Value{};
            const auto part = static_cast<std::size_t>(slot.part);
            uniforms.push_back(value.type == Type::boolean
                                   ? std::bit_cast<float>(value.wholes[0] != 0 ? 0xFFFFFFFFU : 0U)
                               : scalar_of(value.type) == Scalar::real ? value.parts[part]
                                                                       : std::bit_cast<float>(value.wholes[part]));
        }
        std::vector<PictureView> views(program_.pictures.size(), view_of(colours));
        RunInputs inputs;
        inputs.width = colours.width;
        inputs.height = colours.height;
        inputs.frame_width = static_cast<float>(colours.width);
        inputs.frame_height = static_cast<float>(colours.height);
        inputs.uniforms = uniforms;
        inputs.pictures = views;
        std::vector<Picture> outputs;
        outputs.emplace_back(colours.width, colours.height, 4);
        run(program_, inputs, outputs, pool_, Cancel());
        return std::move(outputs.front());
    }

private:
    const Pass& pass_;
    Program program_;
    DriveValues values_;
    WorkerPool pool_{1};
};

// Linear between the eight entries around a colour.
std::array<double, 3> looked_up(const Picture& table, const std::array<double, 3>& colour) {
    constexpr int side = colour_table_side;
    std::array<double, 3> sum{};
    std::array<int, 3> low{};
    std::array<double, 3> share{};
    for (std::size_t c = 0; c < 3; ++c) {
        const double at = std::min(std::max(colour[c], 0.0), 1.0) * (side - 1);
        low[c] = std::min(static_cast<int>(at), side - 2);
        share[c] = at - low[c];
    }
    for (int corner = 0; corner < 8; ++corner) {
        std::array<int, 3> entry{};
        double weight = 1;
        for (std::size_t c = 0; c < 3; ++c) {
            const bool upper = ((corner >> c) & 1) != 0;
            entry[c] = low[c] + (upper ? 1 : 0);
            weight *= upper ? share[c] : 1 - share[c];
        }
        const float* found = table.at(entry[0] + side * entry[1], entry[2]);
        for (std::size_t c = 0; c < 3; ++c) sum[c] += weight * static_cast<double>(found[c]);
    }
    return sum;
}

}  // namespace

std::string why_no_table(const ShipMaterial& material) {
    if (material.passes.size() != 1) return "it takes several passes";
    const Pass& pass = material.passes.front().pass;
    if (pass.grounds.size() != 1) return "it reads several pictures, or none";
    const auto named = find_ground_picture(material.finish(), pass.grounds.front());
    if (!named || named->picture.type != Type::vec4) return "what it reads are no colours";
    std::string why;
    const auto look = [&](const Typed& node) {
        if (!why.empty()) return;
        if (node.as<PictureReading>() != nullptr) why = "it reads pictures at other places";
        const auto* here = node.as<NameHere>();
        if (!why.empty() || here == nullptr || here->symbol != SymbolKind::known) return;
        why = "'" + here->name + "' changes over the picture or in time";
    };
    for (const PassStep& step : pass.steps) visit_nodes(*step.typed, look);
    if (!why.empty()) return why;
    const Type type = resource_of(pass, pass.outputs.front()).type;
    return type == Type::vec4 || type == Type::vec3 ? "" : "it does not end with a colour";
}

Result<ColourTable> colour_table(const ShipMaterial& material) {
    if (const std::string why = why_no_table(material); !why.empty())
        return Fault{"ship.table", "it is no table of colours: " + why, "leave this target out", {}, Severity::fault};
    constexpr int side = colour_table_side;
    TableDrawer drawer(material);
    Picture lattice(side * side, side, 4);
    const auto entry = [](int k) { return static_cast<float>(k) / static_cast<float>(side - 1); };
    for (int blue = 0; blue < side; ++blue) {
        for (int green = 0; green < side; ++green) {
            for (int red = 0; red < side; ++red) {
                float* colour = lattice.at(red + side * green, blue);
                colour[0] = entry(red);
                colour[1] = entry(green);
                colour[2] = entry(blue);
                colour[3] = 1;
            }
        }
    }
    const Picture table = drawer.drawn(lattice);
    ColourTable made;
    made.text = fmt::format("# {}: for colours from 0 to 1 in linear light\nLUT_3D_SIZE {}\n",
                            comment_text(material.finish().name), side);
    for (int blue = 0; blue < side; ++blue) {
        for (int at = 0; at < side * side; ++at) {
            const float* colour = table.at(at, blue);
            made.text += fmt::format("{:.7g} {:.7g} {:.7g}\n", colour[0], colour[1], colour[2]);
        }
    }
    Picture colours(checked_side, checked_side, 4);
    for (std::size_t i = 0; i < colours.data.size(); ++i)
        colours.data[i] = i % 4 == 3 ? 1.0F : unit_from_hash(pcg(static_cast<std::uint32_t>(i)));
    const Picture wanted = drawer.drawn(colours);
    for (int y = 0; y < checked_side; ++y) {
        for (int x = 0; x < checked_side; ++x) {
            const float* from = colours.at(x, y);
            const std::array<double, 3> seen = looked_up(table, {from[0], from[1], from[2]});
            for (std::size_t c = 0; c < 3; ++c)
                made.largest = std::max(made.largest, std::fabs(seen[c] - static_cast<double>(wanted.at(x, y)[c])));
        }
    }
    return made;
}

}  // namespace lacquer
