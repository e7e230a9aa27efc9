// The weighted sums of a Gaussian along a line: core/cpu/gaussian_line.h.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_gaussian.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
#include <hwy/highway.h>

#include "core/cpu/gaussian_line.h"
#include "core/cpu/line-inl.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = LineNumbers;
using V = LineVector;

// Some vectors at once, so that each pair is looked up once for all of them.
template <std::size_t vectors>
HWY_INLINE void weigh_some(const GaussianLine& line, std::size_t at, float* to) {
    const F d;
    const std::size_t lanes = hn::Lanes(d);
    V a = hn::LoadU(d, line.middle + at);
    V b = vectors > 1 ? hn::LoadU(d, line.middle + at + lanes) : a;
    V c = vectors > 2 ? hn::LoadU(d, line.middle + at + 2 * lanes) : a;
    V e = vectors > 3 ? hn::LoadU(d, line.middle + at + 3 * lanes) : a;
    for (const LinePair& pair : line.pairs) {
        const V weight = hn::Set(d, pair.weight);
        const auto both = [&](std::size_t place) {
            return hn::Mul(hn::Add(read(pair.after, place), read(pair.before, place)), weight);
        };
        a = hn::Add(a, both(at));
        if (vectors > 1) b = hn::Add(b, both(at + lanes));
        if (vectors > 2) c = hn::Add(c, both(at + 2 * lanes));
        if (vectors > 3) e = hn::Add(e, both(at + 3 * lanes));
    }
    const V total = hn::Set(d, line.total);
    hn::StoreU(hn::Div(a, total), d, to + at);
    if (vectors > 1) hn::StoreU(hn::Div(b, total), d, to + at + lanes);
    if (vectors > 2) hn::StoreU(hn::Div(c, total), d, to + at + 2 * lanes);
    if (vectors > 3) hn::StoreU(hn::Div(e, total), d, to + at + 3 * lanes);
}

// From one place on as far as whole vectors go; gives where it has ended.
std::size_t weigh(const GaussianLine& line, std::size_t at, std::size_t end, float* to) {
    const std::size_t lanes = hn::Lanes(F());
    for (; at + 4 * lanes <= end; at += 4 * lanes) weigh_some<4>(line, at, to);
    for (; at + lanes <= end; at += lanes) weigh_some<1>(line, at, to);
    return at;
}

template <std::size_t vectors>
HWY_INLINE void mix_some(const float* first, std::span<const float> weights, std::size_t count, std::size_t at,
                         float* to) {
    const F d;
    const std::size_t lanes = hn::Lanes(d);
    V a = hn::Zero(d);
    V b = a;
    V c = a;
    V e = a;
    const float* from = first + at;
    for (const float share : weights) {
        const V weight = hn::Set(d, share);
        a = hn::Add(a, hn::Mul(hn::LoadU(d, from), weight));
        if (vectors > 1) b = hn::Add(b, hn::Mul(hn::LoadU(d, from + lanes), weight));
        if (vectors > 1) c = hn::Add(c, hn::Mul(hn::LoadU(d, from + 2 * lanes), weight));
        if (vectors > 1) e = hn::Add(e, hn::Mul(hn::LoadU(d, from + 3 * lanes), weight));
        from += count;
    }
    hn::StoreU(a, d, to + at);
    if (vectors > 1) hn::StoreU(b, d, to + at + lanes);
    if (vectors > 1) hn::StoreU(c, d, to + at + 2 * lanes);
    if (vectors > 1) hn::StoreU(e, d, to + at + 3 * lanes);
}

std::size_t mix_whole(const float* first, std::span<const float> weights, std::size_t count, float* to) {
    const std::size_t lanes = hn::Lanes(F());
    std::size_t at = 0;
    for (; at + 4 * lanes <= count; at += 4 * lanes) mix_some<4>(first, weights, count, at, to);
    for (; at + lanes <= count; at += lanes) mix_some<1>(first, weights, count, at, to);
    return at;
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(weigh);
HWY_EXPORT(mix_whole);

void weigh_line(const GaussianLine& line, std::size_t from, std::size_t end, float* to) {
    for (std::size_t at = HWY_DYNAMIC_DISPATCH(weigh)(line, from, end, to); at < end; ++at) {
        float sum = line.middle[at];
        for (const LinePair& pair : line.pairs)
            sum += (read_one(pair.after, at) + read_one(pair.before, at)) * pair.weight;
        to[at] = sum / line.total;
    }
}

void mix_lines(const float* first, std::span<const float> weights, std::size_t count, float* to) {
    for (std::size_t at = HWY_DYNAMIC_DISPATCH(mix_whole)(first, weights, count, to); at < count; ++at) {
        float sum = 0;
        for (std::size_t i = 0; i < weights.size(); ++i) sum += first[i * count + at] * weights[i];
        to[at] = sum;
    }
}

}  // namespace lacquer
#endif
