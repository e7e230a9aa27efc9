// Noise along strips in every form that the strip machine has for it, against the one definition in core/lang/noise.h.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/cpu/kernels.h"
#include "core/cpu/lower.h"
#include "core/lang/noise.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr std::size_t strip_count = 64;
using Numbers = std::array<float, strip_count>;

const auto corner_2d = [](std::uint32_t i, std::uint32_t j) { return lattice_hash(i, j); };
const auto corner_3d = [](std::uint32_t i, std::uint32_t j, std::uint32_t k) { return lattice_hash(i, j, k); };

float gradient_2(float x, float y) { return unit_noise(gradient_noise_2d(x, y, corner_2d), gradient_scale_2d); }
float gradient_3(float x, float y, float z) {
    return unit_noise(gradient_noise_3d(x, y, z, corner_3d), gradient_scale_3d);
}

struct Form {
    Op plain;
    Op placed;
    bool space;
    float (*expected)(float, float, float);
};
const std::array<Form, 4> forms = {
    {{Op::value_noise_2, Op::value_placed_2, false,
      [](float x, float y, float) { return value_noise_2d(x, y, corner_2d); }},
     {Op::value_noise_3, Op::value_placed_3, true,
      [](float x, float y, float z) { return value_noise_3d(x, y, z, corner_3d); }},
     {Op::gradient_noise_2, Op::gradient_placed_2, false, [](float x, float y, float) { return gradient_2(x, y); }},
     {Op::gradient_noise_3, Op::gradient_placed_3, true, gradient_3}}};

struct Places {
    alignas(64) Numbers x{};
    alignas(64) Numbers y{};
    alignas(64) Numbers z{};
};

Kernel kernel(const KernelSet& set, Op op) { return set.kernels[static_cast<std::size_t>(op)]; }

void agrees(Places places, bool rest_is_one) {
    const std::size_t rest = rest_is_one ? 0 : 1;
    if (rest_is_one) {
        places.y.fill(places.y[0]);
        places.z.fill(places.z[0]);
    }
    for (const KernelSet& set : kernel_sets()) {
        for (const Form& form : forms) {
            INFO(set.name << " " << op_info(form.plain).name);
            alignas(64) Numbers plain{};
            KernelArgs args;
            args.in = {places.x.data(), places.y.data(), places.z.data()};
            args.stride = {1, rest, rest};
            args.out[0] = plain.data();
            args.count = strip_count;
            kernel(set, form.plain)(args);

            alignas(64) std::array<Numbers, 3> place{};
            KernelArgs making;
            making.in[0] = places.x.data();
            making.stride[0] = 1;
            for (std::size_t k = 0; k < 3; ++k) making.out[k] = place[k].data();
            making.count = strip_count;
            kernel(set, Op::noise_place)(making);
            alignas(64) Numbers placed{};
            args.in = {place[0].data(), place[1].data(), place[2].data(), places.y.data(), places.z.data()};
            args.stride = {1, 1, 1, rest, rest};
            args.out[0] = placed.data();
            kernel(set, form.placed)(args);

            for (std::size_t i = 0; i < strip_count; ++i) {
                INFO("at " << places.x[i] << ", " << places.y[i] << ", " << places.z[i]);
                REQUIRE(plain[i] == form.expected(places.x[i], places.y[i], places.z[i]));
                REQUIRE(placed[i] == plain[i]);
            }
        }
    }
}

Places walk(float from, float step) {
    Places places;
    for (std::size_t i = 0; i < strip_count; ++i) {
        places.x[i] = from + static_cast<float>(i) * step;
        places.y[i] = 3.3F - static_cast<float>(i) * step * 0.7F;
        places.z[i] = 0.1F + static_cast<float>(i % 7) * 0.31F;
    }
    return places;
}

std::size_t uses(const std::string& formula, Op op) {
    const auto checked = test::checked(test::finish_of({{"a", formula}}));
    REQUIRE(checked->steps[0].typed);
    const Ir ir = optimised(lower(plan_for(*checked, {"a"}).passes.at(0)));
    return static_cast<std::size_t>(
        std::count_if(ir.code.begin(), ir.code.end(), [&](const Instruction& i) { return i.op == op; }));
}

}  // namespace

TEST_CASE("noise is its definition whether cells are wide, narrow, on the strip's own grid, or far away") {
    for (const float step : {0.001F, 0.03F, 0.0625F, 0.9F, 1.0F, 16.0F, 1234.5F}) {
        for (const float from : {0.0F, -2.0F, -0.015F, 1e6F}) {
            INFO("from " << from << " by " << step);
            agrees(walk(from, step), true);
            agrees(walk(from, step), false);
        }
    }
}

TEST_CASE("what noise makes of a coordinate is worked out once for all noises that share it") {
    CHECK(uses("gradient_noise(uv * 6)", Op::noise_place) == 1);
    CHECK(uses("gradient_noise(uv * 6)", Op::gradient_placed_2) == 1);
    CHECK(uses("gradient_noise(uv * 6)", Op::gradient_noise_2) == 0);
    CHECK(uses("gradient_noise(uv * 6) + value_noise(vec3(uv * 6, time))", Op::noise_place) == 1);
    CHECK(uses("gradient_noise(uv * 6) + value_noise(uv * 7)", Op::noise_place) == 2);
    // Where the first coordinate is each pixel's own, or none of a column's, there is nothing to take out.
    CHECK(uses("gradient_noise(uv * uv.y)", Op::noise_place) == 0);
    CHECK(uses("gradient_noise(uv.yx)", Op::noise_place) == 0);
    CHECK(uses("cellular_noise(uv * 6)", Op::noise_place) == 0);
}
