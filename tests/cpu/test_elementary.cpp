// Our elementary functions against the C library in double precision, on every instruction set, which must agree bit
// for bit.
#include <bit>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <limits>
#include <numbers>

#include "core/base/hash.h"
#include "core/cpu/kernels.h"

using namespace lacquer;

namespace {

float apply(const KernelSet& set, Op op, float a, float b = 0) {
    std::vector<float> numbers = {a, b, 0};
    Instruction instruction;
    instruction.op = op;
    instruction.in = {0, 1, -1};
    instruction.first_out = 2;
    run_on_constants(set, instruction, numbers);
    return numbers[2];
}

struct Function {
    Op op;
    double (*reference)(double);
    double from;
    double to;
    double relative;  ///< largest error, in units of the result or 1e-6 of the range near 0
};

// An even spread of arguments with all kinds of low bits.
float argument(const Function& f, int n, int count) {
    const double jitter = static_cast<double>(unit_from_hash(pcg(static_cast<std::uint32_t>(n))));
    return static_cast<float>(f.from + (f.to - f.from) * (n + jitter) / count);
}

bool same(float a, float b) {
    return (std::isnan(a) && std::isnan(b)) || std::bit_cast<std::uint32_t>(a) == std::bit_cast<std::uint32_t>(b);
}

constexpr float inf = std::numeric_limits<float>::infinity();
constexpr float quiet_nan = std::numeric_limits<float>::quiet_NaN();

}  // namespace

TEST_CASE("elementary functions are near the C library's") {
    const std::vector<Function> functions = {
        {Op::sin, std::sin, -50, 50, 3e-7},         {Op::cos, std::cos, -50, 50, 3e-7},
        {Op::sin, std::sin, -8000, 8000, 4e-7},     {Op::cos, std::cos, 9000, 1e6, 3e-7},
        {Op::sin, std::sin, -1e9, 1e9, 3e-7},       {Op::tan, std::tan, -1.4, 1.4, 5e-7},
        {Op::asin, std::asin, -1, 1, 4e-7},         {Op::acos, std::acos, -1, 1, 4e-7},
        {Op::atan, std::atan, -20, 20, 4e-7},       {Op::sinh, std::sinh, -20, 20, 5e-7},
        {Op::cosh, std::cosh, -20, 20, 5e-7},       {Op::tanh, std::tanh, -5, 5, 4e-7},
        {Op::asinh, std::asinh, -50, 50, 4e-7},     {Op::acosh, std::acosh, 1, 50, 4e-7},
        {Op::atanh, std::atanh, -0.99, 0.99, 6e-7}, {Op::exp, std::exp, -80, 80, 4e-7},
        {Op::exp2, std::exp2, -120, 120, 4e-7},     {Op::log, std::log, 0.001, 1000, 4e-7},
        {Op::log2, std::log2, 0.001, 1000, 4e-7},
    };
    const KernelSet set = best_kernels();
    constexpr int count = 4000;
    for (const Function& f : functions) {
        double worst = 0;
        for (int n = 0; n < count; ++n) {
            const float x = argument(f, n, count);
            const double exact = f.reference(static_cast<double>(x));
            const double error = std::fabs(static_cast<double>(apply(set, f.op, x)) - exact);
            worst = std::max(worst, error / std::max(std::fabs(exact), 0.3));
        }
        INFO(op_info(f.op).name << " from " << f.from << " to " << f.to);
        CHECK(worst < f.relative);
    }
}

TEST_CASE("functions of two numbers are near the C library's") {
    const KernelSet set = best_kernels();
    for (int n = 0; n < 4000; ++n) {
        const float y = unit_from_hash(pcg(static_cast<std::uint32_t>(2 * n))) * 8 - 4;
        const float x = unit_from_hash(pcg(static_cast<std::uint32_t>(2 * n + 1))) * 8 - 4;
        REQUIRE(static_cast<double>(apply(set, Op::atan2, y, x)) ==
                Approx(std::atan2(static_cast<double>(y), static_cast<double>(x))).margin(6e-7));
        const float base = std::fabs(x) + 0.01F;
        const double exact = std::pow(static_cast<double>(base), static_cast<double>(y));
        REQUIRE(static_cast<double>(apply(set, Op::pow, base, y)) == Approx(exact).epsilon(2e-6));
    }
}

TEST_CASE("ends and odd values have the table's answers") {
    const KernelSet set = best_kernels();
    CHECK(apply(set, Op::exp, 100) == inf);
    CHECK(apply(set, Op::exp, -200) == 0);
    CHECK(apply(set, Op::exp, inf) == inf);
    CHECK(apply(set, Op::exp, -inf) == 0);
    CHECK(apply(set, Op::exp, 0) == 1);
    CHECK(apply(set, Op::exp2, 10) == 1024);
    CHECK(apply(set, Op::exp2, 128) == inf);
    CHECK(apply(set, Op::exp2, -149) > 0);
    CHECK(apply(set, Op::log, 0) == -inf);
    CHECK(apply(set, Op::log, inf) == inf);
    CHECK(apply(set, Op::log, 1) == 0);
    CHECK(std::isnan(apply(set, Op::log, -1)));
    CHECK(static_cast<double>(apply(set, Op::log, 1e-40F)) == Approx(std::log(1e-40)).epsilon(1e-4));
    CHECK(apply(set, Op::log2, 8) == 3);
    CHECK(apply(set, Op::pow, -2, 2) == 0);
    CHECK(apply(set, Op::pow, -2, 0) == 1);
    CHECK(apply(set, Op::pow, 0, -1) == inf);
    CHECK(apply(set, Op::asin, 5) == apply(set, Op::asin, 1));
    CHECK(apply(set, Op::acos, 5) == 0);
    CHECK(apply(set, Op::atan2, 0, 0) == 0);
    CHECK(static_cast<double>(apply(set, Op::atan2, inf, inf)) == Approx(std::numbers::pi / 4));
    CHECK(static_cast<double>(apply(set, Op::atan2, 0, -1)) == Approx(std::numbers::pi));
    CHECK(std::isnan(apply(set, Op::sin, inf)));
    CHECK(apply(set, Op::sin, 1e30F) == 0);
    CHECK(apply(set, Op::tanh, 100) == 1);
    CHECK(apply(set, Op::atanh, 1) == inf);
    for (const Op op : {Op::sin, Op::cos, Op::tan, Op::asin, Op::acos, Op::atan, Op::sinh, Op::cosh, Op::tanh,
                        Op::asinh, Op::acosh, Op::atanh, Op::exp, Op::exp2, Op::log, Op::log2, Op::sqrt, Op::floor}) {
        INFO(op_info(op).name);
        CHECK(std::isnan(apply(set, op, quiet_nan)));
    }
}

TEST_CASE("all instruction sets give the same bits for every float instruction") {
    const std::vector<KernelSet> sets = kernel_sets();
    REQUIRE(sets.back().name == "scalar");
    const std::vector<float> odd = {0.0F,      -0.0F,  1.0F,  -1.0F,  0.5F,    inf,           -inf,
                                    quiet_nan, 1e-40F, 3e38F, -3e38F, 8192.0F, 2147483648.0F, 1e12F};
    std::size_t compared = 0;
    for (std::size_t index = 0; index < op_count; ++index) {
        const Op op = static_cast<Op>(index);
        const OpInfo& info = op_info(op);
        if (info.inputs == 0 || reads_picture(op) || sets.front().kernels[index] == nullptr) continue;
        if (op == Op::derivative_x || op == Op::derivative_y) continue;  // of several pixels
        for (std::uint32_t n = 0; n < 600; ++n) {
            std::vector<float> numbers(8);
            for (std::uint32_t k = 0; k < 3; ++k) {
                const std::uint32_t random = pcg(n * 3 + k + static_cast<std::uint32_t>(index) * 7919);
                numbers[k] = random % 5 == 0 ? odd[(random >> 8U) % odd.size()] : (unit_from_hash(random) - 0.5F) * 20;
            }
            Instruction instruction;
            instruction.op = op;
            instruction.in = {0, 1, 2};
            instruction.first_out = 3;
            std::vector<float> first = numbers;
            run_on_constants(sets.front(), instruction, first);
            for (const KernelSet& set : sets) {
                std::vector<float> other = numbers;
                run_on_constants(set, instruction, other);
                for (std::size_t out = 3; out < 3 + static_cast<std::size_t>(info.outputs); ++out) {
                    INFO(info.name << " on " << set.name << " of " << numbers[0] << ", " << numbers[1] << ", "
                                   << numbers[2]);
                    REQUIRE(same(first[out], other[out]));
                    ++compared;
                }
            }
        }
    }
    CHECK(compared > 50000);
}
