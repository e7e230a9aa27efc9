// The furthest values of a disc's rows: core/cpu/disc_line.h.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_discs.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
#include <hwy/highway.h>

#include "core/cpu/disc_line.h"
#include "core/cpu/line-inl.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = LineNumbers;
using V = LineVector;

HWY_INLINE V read(const DiscTap& tap, std::size_t at) {
    const V upper = read(tap.upper, at);
    return tap.share == 0.0F ? upper : mixed(upper, read(tap.lower, at), tap.share);
}

// Which of two that cannot be compared comes out is the same everywhere: the first.
template <Further further>
HWY_INLINE V further_of(V a, V b) {
    return further == Further::greatest ? hn::IfThenElse(hn::Lt(a, b), b, a) : hn::IfThenElse(hn::Lt(b, a), b, a);
}

// Some vectors at once, so that each row is looked up once for all of them.
template <Further further, std::size_t vectors>
HWY_INLINE void some(std::span<const DiscRow> rows, std::size_t at, float* to) {
    const F d;
    const std::size_t lanes = hn::Lanes(d);
    V a = read(rows.front().left, at);
    V b = vectors > 1 ? read(rows.front().left, at + lanes) : a;
    for (const DiscRow& row : rows) {
        a = further_of<further>(a, further_of<further>(read(row.left, at), read(row.right, at)));
        if (vectors > 1)
            b = further_of<further>(b, further_of<further>(read(row.left, at + lanes), read(row.right, at + lanes)));
    }
    hn::StoreU(a, d, to + at);
    if (vectors > 1) hn::StoreU(b, d, to + at + lanes);
}

// From one place on as far as whole vectors go; gives where it has ended.
template <Further further>
HWY_INLINE std::size_t line_of(std::span<const DiscRow> rows, std::size_t at, std::size_t end, float* to) {
    const std::size_t lanes = hn::Lanes(F());
    for (; at + 2 * lanes <= end; at += 2 * lanes) some<further, 2>(rows, at, to);
    for (; at + lanes <= end; at += lanes) some<further, 1>(rows, at, to);
    return at;
}

std::size_t whole_vectors(std::span<const DiscRow> rows, Further further, std::size_t at, std::size_t end, float* to) {
    return further == Further::greatest ? line_of<Further::greatest>(rows, at, end, to)
                                        : line_of<Further::least>(rows, at, end, to);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(whole_vectors);

namespace {

float read_one(const DiscTap& tap, std::size_t at) {
    const float upper = read_one(tap.upper, at);
    return tap.share == 0.0F ? upper : upper * (1.0F - tap.share) + read_one(tap.lower, at) * tap.share;
}

float further_one(Further further, float a, float b) { return (further == Further::greatest ? a < b : b < a) ? b : a; }

}  // namespace

void furthest_line(std::span<const DiscRow> rows, Further further, std::size_t from, std::size_t end, float* to) {
    for (std::size_t at = HWY_DYNAMIC_DISPATCH(whole_vectors)(rows, further, from, end, to); at < end; ++at) {
        float found = read_one(rows.front().left, at);
        for (const DiscRow& row : rows)
            found = further_one(further, found, further_one(further, read_one(row.left, at), read_one(row.right, at)));
        to[at] = found;
    }
}

}  // namespace lacquer
#endif
