#include "core/drive/easing.h"

namespace lacquer {

namespace {

void put(const BezierEasing& curve, played::lq_easing& easing) {
    easing.kind = LQ_BEZIER;
    easing.x1 = curve.x1;
    easing.y1 = curve.y1;
    easing.x2 = curve.x2;
    easing.y2 = curve.y2;
}

void put(const StepsEasing& stair, played::lq_easing& easing) {
    using Jump = StepsEasing::Jump;
    easing.kind = LQ_STEPS;
    easing.steps = stair.count;
    easing.first = stair.jump == Jump::start || stair.jump == Jump::both ? 1 : 0;
    easing.jumps = stair.count + (stair.jump == Jump::both ? 1 : stair.jump == Jump::none ? -1 : 0);
}

void put(const LinearEasing& line, played::lq_easing& easing) {
    static_assert(sizeof(line.points[0]) == 2 * sizeof(double), "points lie as pairs of doubles");
    easing.kind = LQ_LINEAR;
    easing.count = static_cast<int>(line.points.size());
    easing.points = line.points.empty() ? nullptr : line.points.front().data();
}

// The texts number curves and ends as the enumerations do.
static_assert(static_cast<int>(NamedEasing::Curve::bounce) == LQ_BOUNCE);
static_assert(static_cast<int>(NamedEasing::Curve::expo) == LQ_EXPO);
static_assert(static_cast<int>(NamedEasing::End::in_out) == LQ_IN_OUT);

void put(const NamedEasing& named, played::lq_easing& easing) {
    easing.kind = LQ_CURVE;
    easing.curve = static_cast<int>(named.curve);
    easing.end = static_cast<int>(named.end);
}

}  // namespace

played::lq_easing played_easing(const Easing& easing) {
    played::lq_easing made{};
    std::visit([&](const auto& of) { put(of, made); }, easing.curve);
    return made;
}

double Easing::operator()(double t) const {
    const played::lq_easing easing = played_easing(*this);
    return lq_ease(&easing, t);
}

}  // namespace lacquer
