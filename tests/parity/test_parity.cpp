// The same value by every way: oracle, plain strips, optimised strips, every instruction set.
#include <bit>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/lang/oracle.h"
#include "core/picture/sample.h"
#include "core/render/renderer.h"
#include "tests/parity/builtin_calls.h"
#include "tests/parity/random_formulas.h"
#include "tests/parity/random_programs.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr int width = 19;
constexpr int height = 11;
constexpr float time_now = 0.37F;

std::vector<PictureView> views_of(const std::vector<Picture>& pictures) {
    std::vector<PictureView> views;
    for (const Picture& picture : pictures) views.push_back(view_of(picture));
    return views;
}

// Everything that the formulas name.
struct World {
    Picture scene = test::test_picture(8, 6);
    Picture mask = test::test_picture(width, height);
    Picture ramp = test::test_picture(16, 1);
    std::vector<Picture> scene_copies = smaller_copies(scene);
    std::vector<PictureView> scene_levels = views_of(scene_copies);
    std::map<std::string, Value> uniforms = {{"a", make_number(0.3F)},
                                             {"b", make_number(-1.7F)},
                                             {"tint", make_vec3(1.3F, 0.2F, 0.05F)},
                                             {"wet", make_boolean(true)},
                                             {"time", make_number(time_now)}};

    Scope scope() const {
        Scope known = step_scope();
        for (const auto& [name, value] : uniforms) known.symbols[name] = {SymbolKind::dial, value.type};
        known.symbols["scene"] = {SymbolKind::ground, Type::vec4};
        known.symbols["mask"] = {SymbolKind::step, Type::number};
        known.symbols["ramp"] = {SymbolKind::gradient, Type::vec4};
        return known;
    }

    Value by_oracle(const Typed& typed, int x, int y) const {
        const auto coordinate = [](int at, int size) {
            return (static_cast<float>(at) + 0.5F) / static_cast<float>(size);
        };
        const auto view = [&](const std::string& name) { return name == "scene" ? scene_view() : view_of(mask); };
        const auto value_of = [&](Type type, const std::array<float, 4>& c) {
            Value value{type, {}, {}};
            for (std::size_t i = 0; i < static_cast<std::size_t>(width_of(type)); ++i) value.parts[i] = c[i];
            return value;
        };
        OracleInputs inputs;
        inputs.right = x % 2 == 1;
        inputs.lower = y % 2 == 1;
        inputs.name = [&](const std::string& name, Type type, int dx, int dy) {
            const float u = coordinate(x + dx, width);
            const float v = coordinate(y + dy, height);
            if (name == "uv") return make_vec2(u, v);
            if (name == "pixel") return make_vec2(static_cast<float>(x + dx), static_cast<float>(y + dy));
            if (name == "scene" || name == "mask") return value_of(type, sample(view(name), u, v));
            return uniforms.at(name);
        };
        inputs.picture = [&](const PictureReading& read, Type type, const std::vector<Value>& args) {
            const PictureView from = read.name == "ramp" ? view_of(ramp) : view(read.name);
            switch (read.builtin) {
                case Builtin::texture_size:
                    return Value{type, {}, {from.width, from.height}};
                case Builtin::texel_fetch:
                    return value_of(type, fetch(from, args[0].wholes[0], args[0].wholes[1]));
                case Builtin::texture_lod:
                    return value_of(type, sample_level(from, args[0].parts[0], args[0].parts[1], args[1].parts[0]));
                case Builtin::at:
                    return value_of(type, sample(from, table_place(args[0].parts[0]), 0.5F));
                default:
                    return value_of(type, sample(from, args[0].parts[0], args[0].parts[1]));
            }
        };
        return evaluate(typed, inputs);
    }

    PictureView scene_view() const {
        PictureView view = view_of(scene);
        view.smaller = scene_levels;
        return view;
    }

    Picture by_strips(const Ir& ir, const KernelSet& set, WorkerPool& pool, int tile_rows = 16) const {
        const Program program = lay_out(ir, set);
        std::vector<float> bits;
        for (const UniformSlot& slot : program.uniform_slots) {
            const Value& value = uniforms.at(slot.name);
            bits.push_back(value.type == Type::boolean ? std::bit_cast<float>(value.wholes[0] != 0 ? 0xFFFFFFFFU : 0U)
                                                       : value.parts[static_cast<std::size_t>(slot.part)]);
        }
        std::vector<PictureView> views;
        for (const auto& [name, weighed] : program.pictures) {
            views.push_back(name == "scene" ? scene_view() : view_of(name == "ramp" ? ramp : mask));
        }
        RunInputs inputs;
        inputs.width = width;
        inputs.height = height;
        inputs.frame_width = width;
        inputs.frame_height = height;
        inputs.uniforms = bits;
        inputs.pictures = views;
        inputs.tile_rows = tile_rows;
        std::vector<Picture> outputs = {Picture(width, height, static_cast<int>(program.outputs[0].size()))};
        REQUIRE(run(program, inputs, outputs, pool, Cancel()));
        return outputs[0];
    }
};

bool same_bits(const Picture& a, const Picture& b) {
    for (std::size_t i = 0; i < a.data.size(); ++i) {
        if (std::isnan(a.data[i]) && std::isnan(b.data[i])) continue;
        if (std::bit_cast<std::uint32_t>(a.data[i]) != std::bit_cast<std::uint32_t>(b.data[i])) return false;
    }
    return true;
}

bool near(float a, float b) {
    if (std::isnan(a) || std::isnan(b)) return std::isnan(a) && std::isnan(b);
    if (std::isinf(a) || std::isinf(b)) return a == b;
    return std::fabs(a - b) <= 2e-5F * std::max({1.0F, std::fabs(a), std::fabs(b)});
}

}  // namespace

namespace {

// Counts how many values of one text come out otherwise by the oracle than by strips; the strips must agree among
// themselves to the bit.
struct Comparison {
    std::size_t values = 0;
    std::size_t off = 0;

    void add(const World& world, const std::string& text, WorkerPool& pool, WorkerPool& single) {
        static const std::vector<KernelSet> sets = kernel_sets();
        INFO(text);
        const Result<Typed> typed = compile_step(text, world.scope());
        if (!typed) FAIL(to_text(typed.fault()));
        const Pass pass = test::pass_of(text, world.scope());
        const Ir plain = lower(pass, Unrolling::no);
        const Ir tuned = optimised(lower(pass));
        const Picture first = world.by_strips(plain, sets.front(), pool);
        for (const KernelSet& set : sets) REQUIRE(same_bits(first, world.by_strips(tuned, set, pool)));
        REQUIRE(same_bits(first, world.by_strips(tuned, sets.front(), single, 3)));
        for (int y = 0; y < height; y += 2) {
            for (int x = 0; x < width; x += 3) {
                const Value expected = world.by_oracle(*typed, x, y);
                for (int c = 0; c < first.channels; ++c) {
                    ++values;
                    if (!near(first.at(x, y)[c], as_float(expected, c))) ++off;
                }
            }
        }
    }
    double share_off() const { return static_cast<double>(off) / static_cast<double>(values); }
};

}  // namespace

TEST_CASE("seeded random formulas: oracle, plain and optimised strips, all instruction sets") {
    const World world;
    WorkerPool pool(2);
    WorkerPool single(1);
    test::RandomFormulas formulas(2026);
    formulas.derivatives = false;
    constexpr std::array types = {Type::number,  Type::vec2,    Type::vec3,   Type::vec4,
                                  Type::boolean, Type::integer, Type::natural};
    Comparison comparison;
    for (int n = 0; n < 3000; ++n) {
        comparison.add(world, formulas.make(types[static_cast<std::size_t>(n) % types.size()], 1 + n % 4), pool,
                       single);
    }
    // A threshold at the edge of a rounding error, or a chain of steep functions, may tip a value over; rarely.
    INFO(comparison.off << " of " << comparison.values << " values are off");
    CHECK(comparison.values > 200000);
    CHECK(comparison.share_off() < 0.004);
}

TEST_CASE("seeded random formulas with derivatives") {
    const World world;
    WorkerPool pool(2);
    WorkerPool single(1);
    test::RandomFormulas formulas(7);
    constexpr std::array types = {Type::vec2, Type::vec3, Type::vec4};
    Comparison comparison;
    for (int n = 0; n < 600; ++n) {
        comparison.add(world, formulas.make(types[static_cast<std::size_t>(n) % types.size()], 1 + n % 3), pool,
                       single);
    }
    // A difference of two nearly equal numbers shows their rounding errors large.
    INFO(comparison.off << " of " << comparison.values << " values are off");
    CHECK(comparison.share_off() < 0.04);
}

TEST_CASE("seeded random code with functions, branches and loops") {
    const World world;
    WorkerPool pool(2);
    WorkerPool single(1);
    test::RandomPrograms programs(1887);
    constexpr std::array types = {Type::number, Type::vec2, Type::vec3, Type::vec4};
    Comparison comparison;
    for (int n = 0; n < 2000; ++n) {
        comparison.add(world, programs.make(types[static_cast<std::size_t>(n) % types.size()]), pool, single);
    }
    INFO(comparison.off << " of " << comparison.values << " values are off");
    CHECK(comparison.values > 100000);
    // Turn by turn a rounding error may grow, and may tip a branch over.
    CHECK(comparison.share_off() < 0.01);
}

TEST_CASE("every built-in agrees with the oracle at each pixel") {
    const World world;
    WorkerPool pool(1);
    std::set<Builtin> seen;
    for (const BuiltinRow& row : builtin_rows()) {
        // What ticks leave is tested where they are drawn, in tests/flow.
        if (row.id == Builtin::previous) continue;
        const std::string formula = test::formula_of(row);
        INFO(formula);
        const Result<Typed> typed = compile_step(formula, world.scope());
        if (!typed) FAIL(to_text(typed.fault()));
        const auto look = [&](const Typed& node) {
            if (const auto* call = node.as<BuiltinCall>()) seen.insert(call->builtin);
            if (const auto* reading = node.as<PictureReading>()) seen.insert(reading->builtin);
        };
        visit_nodes(*typed, look);
        CHECK(seen.contains(row.id));
        const Picture strips =
            world.by_strips(optimised(lower(test::pass_of(formula, world.scope()))), best_kernels(), pool);
        std::size_t off = 0;
        for (int y = 0; y < height; ++y) {
            for (int x = 0; x < width; ++x) {
                const Value expected = world.by_oracle(*typed, x, y);
                for (int c = 0; c < strips.channels; ++c)
                    off += near(strips.at(x, y)[c], as_float(expected, c)) ? 0 : 1;
            }
        }
        CHECK(off == 0);
    }
}
