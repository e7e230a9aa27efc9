// Reading along a line, whole vectors at a time; compiled once for each instruction set.
#if defined(LACQUER_LINE_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef LACQUER_LINE_INL_H
#undef LACQUER_LINE_INL_H
#else
#define LACQUER_LINE_INL_H
#endif

#include <hwy/highway.h>

#include "core/cpu/line_tap.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {

using LineNumbers = hwy::HWY_NAMESPACE::ScalableTag<float>;
using LineVector = hwy::HWY_NAMESPACE::Vec<LineNumbers>;

HWY_INLINE LineVector mixed(LineVector near, LineVector next, float share) {
    namespace hn = hwy::HWY_NAMESPACE;
    const LineNumbers d;
    return hn::Add(hn::Mul(near, hn::Set(d, 1.0F - share)), hn::Mul(next, hn::Set(d, share)));
}

HWY_INLINE LineVector read(const LineTap& tap, std::size_t at) {
    namespace hn = hwy::HWY_NAMESPACE;
    const LineNumbers d;
    const LineVector near = hn::LoadU(d, tap.near + at);
    if (tap.share == 0.0F) return near;
    return mixed(near, hn::LoadU(d, tap.next + at), tap.share);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
