// What a block of rays meets, and what colour it has. Plain products and sums only, in a fixed order, so that all
// instruction sets give the same bits.
#include "core/scene/cast_kernels.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/scene/cast_kernels.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
#include <hwy/highway.h>

#include "core/scene/cast.h"
#include "core/scene/waves.h"

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = hn::CappedTag<float, cast_block>;
using I = hn::RebindToSigned<F>;
using V = hn::Vec<F>;
using M = hn::Mask<F>;

HWY_INLINE V num(float x) { return hn::Set(F(), x); }
HWY_INLINE V add(V a, V b) { return hn::Add(a, b); }
HWY_INLINE V sub(V a, V b) { return hn::Sub(a, b); }
HWY_INLINE V mul(V a, V b) { return hn::Mul(a, b); }
HWY_INLINE V div(V a, V b) { return hn::Div(a, b); }
HWY_INLINE V smaller(V a, V b) { return hn::IfThenElse(hn::Lt(b, a), b, a); }
HWY_INLINE V larger(V a, V b) { return hn::IfThenElse(hn::Lt(a, b), b, a); }
HWY_INLINE V pick(M mask, V yes, V no) { return hn::IfThenElse(mask, yes, no); }
HWY_INLINE V root(V a) { return hn::Sqrt(larger(a, num(0))); }
HWY_INLINE V mixed(V a, V b, V share) { return add(a, mul(sub(b, a), share)); }
HWY_INLINE V held(V a) { return smaller(larger(a, num(0)), num(1)); }
HWY_INLINE V smooth(V low, V high, V x) {
    const V t = held(div(sub(x, low), sub(high, low)));
    return mul(mul(t, t), sub(num(3), mul(num(2), t)));
}

struct V3 {
    V x, y, z;
};
HWY_INLINE V3 vec(const std::array<float, 3>& a) { return {num(a[0]), num(a[1]), num(a[2])}; }
HWY_INLINE V3 add3(V3 a, V3 b) { return {add(a.x, b.x), add(a.y, b.y), add(a.z, b.z)}; }
HWY_INLINE V3 sub3(V3 a, V3 b) { return {sub(a.x, b.x), sub(a.y, b.y), sub(a.z, b.z)}; }
HWY_INLINE V3 scaled(V3 a, V s) { return {mul(a.x, s), mul(a.y, s), mul(a.z, s)}; }
HWY_INLINE V3 times(V3 a, V3 b) { return {mul(a.x, b.x), mul(a.y, b.y), mul(a.z, b.z)}; }
HWY_INLINE V dot3(V3 a, V3 b) { return add(add(mul(a.x, b.x), mul(a.y, b.y)), mul(a.z, b.z)); }
HWY_INLINE V3 pick3(M mask, V3 yes, V3 no) {
    return {pick(mask, yes.x, no.x), pick(mask, yes.y, no.y), pick(mask, yes.z, no.z)};
}
HWY_INLINE V3 mixed3(V3 a, V3 b, V share) {
    return {mixed(a.x, b.x, share), mixed(a.y, b.y, share), mixed(a.z, b.z, share)};
}
HWY_INLINE V3 unit(V3 a) { return scaled(a, div(num(1), larger(root(dot3(a, a)), num(1e-20F)))); }

// The sine, to about a millionth: whole half turns are taken off, and the rest goes through its Taylor series.
HWY_INLINE V sine(V x) {
    const V turns = hn::Floor(add(mul(x, num(0.318309886F)), num(0.5F)));
    const V r = sub(sub(x, mul(turns, num(3.140625F))), mul(turns, num(9.67653589793e-4F)));
    const V half = mul(turns, num(0.5F));
    const M odd = hn::Gt(sub(half, hn::Floor(half)), num(0.25F));
    const V r2 = mul(r, r);
    V sum = num(-2.50521084e-8F);
    for (const float k : {2.75573192e-6F, -1.98412698e-4F, 8.33333333e-3F, -0.166666667F, 1.0F})
        sum = add(mul(sum, r2), num(k));
    const V value = mul(sum, r);
    return pick(odd, sub(num(0), value), value);
}
HWY_INLINE V cosine(V x) { return sine(add(x, num(1.57079633F))); }

// What a block of rays has met so far.
struct Met {
    V t;
    V3 normal;
    V3 colour;
    V gloss;
    V glow;
    V id;
    V rough;
};

constexpr float least_t = 0.01F;

struct Hit {
    V t;  // beyond any depth where there is none
    V3 normal;
};

HWY_INLINE V before(V a, V b) { return pick(hn::Gt(a, num(least_t)), a, b); }

HWY_INLINE Hit hit_ball(const V3& o, const V3& d) {
    const V none = num(1e30F);
    const V a = dot3(d, d);
    const V b = dot3(o, d);
    const V c = sub(dot3(o, o), num(1));
    const V inner = sub(mul(b, b), mul(a, c));
    const V s = root(inner);
    const V near = div(sub(sub(num(0), b), s), a);
    const V far = div(sub(s, b), a);
    const V t = before(near, far);
    const M meets = hn::And(hn::Ge(inner, num(0)), hn::Gt(t, num(least_t)));
    return {pick(meets, t, none), add3(o, scaled(d, t))};
}

HWY_INLINE Hit hit_block(const V3& o, const V3& d) {
    const V none = num(1e30F);
    const auto slab = [](V from, V way, V& near, V& far) {
        const V inverse = div(num(1), way);
        const V a = mul(sub(num(-1), from), inverse);
        const V b = mul(sub(num(1), from), inverse);
        near = smaller(a, b);
        far = larger(a, b);
    };
    V nx, fx, ny, fy, nz, fz;
    slab(o.x, d.x, nx, fx);
    slab(o.y, d.y, ny, fy);
    slab(o.z, d.z, nz, fz);
    const V near = larger(larger(nx, ny), nz);
    const V far = smaller(smaller(fx, fy), fz);
    const V t = before(near, far);
    const M meets = hn::And(hn::Le(near, far), hn::Gt(t, num(least_t)));
    const V3 p = add3(o, scaled(d, t));
    // The side whose plane it lies on: that with the largest part.
    const V ax = hn::Abs(p.x);
    const V ay = hn::Abs(p.y);
    const V az = hn::Abs(p.z);
    const V zero = num(0);
    const M on_x = hn::And(hn::Ge(ax, ay), hn::Ge(ax, az));
    const M on_y = hn::AndNot(on_x, hn::Ge(ay, az));
    const M on_z = hn::AndNot(on_y, hn::AndNot(on_x, hn::Eq(zero, zero)));
    return {pick(meets, t, none), {pick(on_x, p.x, zero), pick(on_y, p.y, zero), pick(on_z, p.z, zero)}};
}

HWY_INLINE Hit hit_cone(const V3& o, const V3& d, V k) {
    const V none = num(1e30F);
    const V zero = num(0);
    const V one = num(1);
    const V ro = add(one, mul(k, o.y));
    const V rd = mul(k, d.y);
    const V a = sub(add(mul(d.x, d.x), mul(d.z, d.z)), mul(rd, rd));
    const V b = sub(add(mul(o.x, d.x), mul(o.z, d.z)), mul(ro, rd));
    const V c = sub(add(mul(o.x, o.x), mul(o.z, o.z)), mul(ro, ro));
    const V inner = sub(mul(b, b), mul(a, c));
    const V s = root(inner);
    V best = none;
    V3 normal{zero, one, zero};
    const auto side = [&](V t) {
        const V y = add(o.y, mul(t, d.y));
        const V r = add(one, mul(k, y));
        M good = hn::And(hn::Ge(inner, zero), hn::Gt(t, num(least_t)));
        good = hn::And(good, hn::And(hn::Ge(y, zero), hn::Le(y, one)));
        good = hn::And(good, hn::And(hn::Ge(r, zero), hn::Lt(t, best)));
        best = pick(good, t, best);
        normal = pick3(good, {add(o.x, mul(t, d.x)), sub(zero, mul(k, r)), add(o.z, mul(t, d.z))}, normal);
    };
    side(div(sub(sub(zero, b), s), a));
    side(div(sub(s, b), a));
    const auto cap = [&](float y) {
        const V t = div(sub(num(y), o.y), d.y);
        const V x = add(o.x, mul(t, d.x));
        const V z = add(o.z, mul(t, d.z));
        const V r = add(one, mul(k, num(y)));
        M good = hn::And(hn::Gt(t, num(least_t)), hn::Lt(t, best));
        good = hn::And(good, hn::Le(add(mul(x, x), mul(z, z)), mul(r, r)));
        best = pick(good, t, best);
        normal = pick3(good, {zero, num(y * 2 - 1), zero}, normal);
    };
    cap(0);
    cap(1);
    return {best, normal};
}

// An uneven value between 0 and 1 at a point of the world.
HWY_INLINE V uneven(const V3& p, V count) {
    const V3 q = scaled(p, count);
    const V a = sine(add(mul(q.x, num(2.1F)), sine(mul(q.z, num(1.7F)))));
    const V b = sine(add(mul(q.y, num(3.3F)), sine(add(mul(q.x, num(0.9F)), num(1.3F)))));
    const V c = sine(add(mul(q.z, num(2.6F)), mul(q.y, num(1.1F))));
    return add(num(0.5F), mul(num(0.25F), add(mul(a, b), c)));
}

HWY_INLINE void meet_solid(const CastSolid& solid, const CastWorld& world, const V3& d, Met& met) {
    const V3 own_d{dot3(vec(solid.linear[0]), d), dot3(vec(solid.linear[1]), d), dot3(vec(solid.linear[2]), d)};
    const V3 own_o = vec(solid.eye);
    const Hit hit = solid.shape == Shape::ball    ? hit_ball(own_o, own_d)
                    : solid.shape == Shape::block ? hit_block(own_o, own_d)
                                                  : hit_cone(own_o, own_d, num(solid.slope));
    const M closer = hn::Lt(hit.t, met.t);
    if (hn::AllFalse(F(), closer)) return;
    const V3 n = hit.normal;
    V3 normal{num(0), num(0), num(0)};
    normal = add3(normal, scaled(vec(solid.linear[0]), n.x));
    normal = add3(normal, scaled(vec(solid.linear[1]), n.y));
    normal = unit(add3(normal, scaled(vec(solid.linear[2]), n.z)));
    // Seen from inside, it faces inwards.
    const M away = hn::Gt(dot3(normal, d), num(0));
    normal = pick3(away, scaled(normal, num(-1)), normal);
    V3 colour = vec(solid.colour);
    if (solid.pattern == Pattern::bands) {
        const V y = mul(add(own_o.y, mul(hit.t, own_d.y)), num(solid.count * 0.5F));
        colour = pick3(hn::Gt(sub(y, hn::Floor(y)), num(0.5F)), vec(solid.other), colour);
    } else if (solid.pattern == Pattern::rough) {
        const V3 at = add3(vec(world.eye), scaled(d, hit.t));
        colour = mixed3(colour, vec(solid.other), uneven(at, num(solid.count)));
    }
    met.t = pick(closer, hit.t, met.t);
    met.normal = pick3(closer, normal, met.normal);
    met.colour = pick3(closer, colour, met.colour);
    met.gloss = pick(closer, num(solid.gloss), met.gloss);
    met.glow = pick(closer, num(solid.glow), met.glow);
    met.id = pick(closer, num(solid.id), met.id);
    met.rough = pick(closer, num(solid.pattern == Pattern::rough ? solid.count : 0.0F), met.rough);
}

HWY_INLINE V swell_phase(const CastWorld& world, std::size_t i, V x, V z) {
    return add(add(mul(x, num(swells[i].x)), mul(z, num(swells[i].z))), num(world.swell_phases[i]));
}

HWY_INLINE void meet_sea(const CastWorld& world, const V3& d, Met& met) {
    const V3 o = vec(world.eye);
    const V high = num(world.sea.height);
    // From above, a ray cannot meet the water before the height of the highest wave.
    const M down = hn::Lt(d.y, num(-1e-4F));
    const V crest = div(sub(num(world.sea.level + world.sea.height * 1.01F), o.y), d.y);
    if (hn::AllFalse(F(), hn::And(down, hn::Lt(crest, met.t)))) return;
    V t = div(sub(num(world.sea.level), o.y), d.y);
    // A few steps to where the ray meets the waves rather than the level.
    for (int step = 0; step < 3; ++step) {
        const V x = add(o.x, mul(t, d.x));
        const V z = add(o.z, mul(t, d.z));
        V h = num(0);
        for (std::size_t i = 0; i < swells.size(); ++i)
            h = add(h, mul(num(swells[i].share), sine(swell_phase(world, i, x, z))));
        t = div(sub(add(num(world.sea.level), mul(h, high)), o.y), d.y);
    }
    const M closer = hn::And(hn::And(down, hn::Gt(t, num(least_t))), hn::Lt(t, met.t));
    if (hn::AllFalse(F(), closer)) return;
    const V x = add(o.x, mul(t, d.x));
    const V z = add(o.z, mul(t, d.z));
    V h = num(0);
    V sx = num(0);
    V sz = num(0);
    for (std::size_t i = 0; i < swells.size(); ++i) {
        const V phase = swell_phase(world, i, x, z);
        const V slope = mul(num(swells[i].share), cosine(phase));
        h = add(h, mul(num(swells[i].share), sine(phase)));
        sx = add(sx, mul(slope, num(swells[i].x)));
        sz = add(sz, mul(slope, num(swells[i].z)));
    }
    // Ripples, which carry no height; far away both average out.
    const V ripple = sine(add(mul(x, num(4.1F)), add(mul(z, num(2.3F)), num(world.swell_phases[2]))));
    const V across = sine(add(mul(z, num(5.3F)), sub(num(world.swell_phases[3]), mul(x, num(1.9F)))));
    const V near = div(num(1), add(num(1), mul(t, num(0.035F))));
    const V steep = mul(high, near);
    sx = mul(add(sx, mul(ripple, num(0.22F))), steep);
    sz = mul(add(sz, mul(across, num(0.22F))), steep);
    const V3 normal = unit({sub(num(0), sx), num(1), sub(num(0), sz)});
    const V foam = mul(smooth(num(0.62F), num(0.95F), add(h, mul(ripple, mul(across, num(0.2F))))), near);
    const V3 colour = mixed3(vec(world.sea.deep), {num(0.5F), num(0.55F), num(0.57F)}, mul(foam, num(0.7F)));
    met.t = pick(closer, t, met.t);
    met.normal = pick3(closer, normal, met.normal);
    met.colour = pick3(closer, colour, met.colour);
    met.gloss = pick(closer, num(1), met.gloss);
    met.glow = pick(closer, num(0), met.glow);
    met.id = pick(closer, num(static_cast<float>(world.sea.id)), met.id);
    met.rough = pick(closer, num(0), met.rough);
}

HWY_INLINE V power_32(V x) {
    V p = x;
    for (int i = 0; i < 5; ++i) p = mul(p, p);
    return p;
}

// `way` has length 1.
HWY_INLINE V3 sky_colour(const CastWorld& world, const V3& way) {
    const V up = larger(way.y, num(0));
    const V rise = root(up);
    V3 colour = mixed3(vec(world.sky.low), vec(world.sky.high), smaller(mul(rise, num(1.25F)), num(1)));
    // Clouds lie on a plane above, so that they draw together towards the horizon.
    const V far = div(num(1), add(up, num(0.09F)));
    const V x = add(mul(way.x, far), num(world.cloud_phase));
    const V z = mul(way.z, far);
    const V a = sine(add(mul(x, num(1.3F)), mul(num(1.1F), sine(add(mul(z, num(1.7F)), x)))));
    const V b = sine(add(mul(z, num(2.2F)), mul(num(1.3F), sine(sub(mul(x, num(2.9F)), z)))));
    const V c = sine(add(mul(x, num(5.3F)), mul(num(1.5F), sine(mul(z, num(4.7F))))));
    const V cloud = smooth(num(-0.5F), num(1.6F), add(add(a, b), mul(c, num(0.35F))));
    const V dark = sub(num(1), mul(num(world.sky.cloud), cloud));
    colour = scaled(colour, dark);
    const V near = power_32(larger(dot3(way, vec(world.towards_light)), num(0)));
    const V disc = power_32(near);
    return add3(colour, scaled(vec(world.sky.light), add(mul(near, num(0.12F)), mul(disc, num(2.5F)))));
}

HWY_INLINE V lamp_share(const CastWorld& world, V squared) {
    return div(num(1), add(num(1), mul(squared, num(1 / (world.lamp.reach * world.lamp.reach)))));
}

HWY_INLINE V3 lit(const CastWorld& world, const V3& at, const V3& way, const Met& met) {
    V3 normal = met.normal;
    // Rock: its surface is leant by how its unevenness changes nearby.
    if (!hn::AllFalse(F(), hn::Gt(met.rough, num(0)))) {
        const V3 q = scaled(at, met.rough);
        const V3 lean{mul(sine(add(mul(q.y, num(2.9F)), mul(q.z, num(1.4F)))), num(0.55F)),
                      mul(sine(add(mul(q.x, num(2.3F)), mul(q.z, num(2.9F)))), num(0.4F)),
                      mul(sine(add(mul(q.x, num(3.1F)), mul(q.y, num(1.9F)))), num(0.55F))};
        normal = pick3(hn::Gt(met.rough, num(0)), unit(add3(normal, lean)), normal);
    }
    const V3 light = vec(world.towards_light);
    const V facing = larger(dot3(normal, light), num(0));
    const V above = add(num(0.55F), mul(num(0.45F), normal.y));
    const V3 round = mixed3(vec(world.sky.low), vec(world.sky.high), num(0.5F));
    V3 falls = add3(scaled(round, above), scaled(vec(world.sky.light), facing));
    const V3 half = unit(sub3(light, way));
    V3 shines = scaled(vec(world.sky.light), mul(power_32(larger(dot3(normal, half), num(0))), num(1.6F)));
    if (world.lamp.there) {
        const V3 to = sub3(vec(world.lamp_place), at);
        const V squared = dot3(to, to);
        const V3 to_lamp = unit(to);
        const V share = lamp_share(world, squared);
        falls = add3(falls, scaled(vec(world.lamp.colour), mul(larger(dot3(normal, to_lamp), num(0)), share)));
        const V3 between = unit(sub3(to_lamp, way));
        const V spark = mul(power_32(larger(dot3(normal, between), num(0))), root(share));
        shines = add3(shines, scaled(vec(world.lamp.colour), spark));
    }
    V3 colour = add3(times(met.colour, falls), scaled(met.colour, met.glow));
    if (hn::AllFalse(F(), hn::Gt(met.gloss, num(0)))) return colour;
    // What is wet mirrors the sky, the more the flatter it is looked at (Schlick 1994).
    const V towards = sub(num(1), larger(sub(num(0), dot3(normal, way)), num(0)));
    const V towards2 = mul(towards, towards);
    const V mirrored = mul(met.gloss, add(num(0.02F), mul(num(0.98F), mul(mul(towards2, towards2), towards))));
    const V along = mul(num(2), dot3(normal, way));
    V3 back = sub3(way, scaled(normal, along));
    back.y = hn::Abs(back.y);
    colour = mixed3(colour, sky_colour(world, back), smaller(mirrored, num(0.9F)));
    return add3(colour, scaled(shines, met.gloss));
}

// What is seen of the lamp in the air between the eye and depth t: its halo, and the beam where the two lines pass.
HWY_INLINE V3 in_the_air(const CastWorld& world, const V3& way, V metres) {
    const V3 lamp = vec(world.lamp_place);
    const V3 to = sub3(lamp, vec(world.eye));
    const V along = larger(dot3(to, way), num(0));
    const V3 past = sub3(to, scaled(way, smaller(along, metres)));
    const V halo = div(num(world.lamp.halo), add(num(1), mul(dot3(past, past), num(1.3F))));
    // Nearest points of the ray and the beam.
    const V3 beam = vec(world.beam_way);
    const V b = dot3(way, beam);
    const V d = dot3(way, to);
    const V e = dot3(beam, to);
    const V below = larger(sub(num(1), mul(b, b)), num(0.02F));
    const V on_ray = smaller(larger(div(sub(d, mul(b, e)), below), num(0)), metres);
    const V on_beam = larger(sub(mul(on_ray, b), e), num(0));
    const V3 apart = sub3(scaled(way, on_ray), add3(to, scaled(beam, on_beam)));
    const V wide = add(num(0.25F), mul(on_beam, num(0.045F)));
    const V off = div(dot3(apart, apart), mul(wide, wide));
    const V round = div(num(1), add(num(1), mul(off, off)));
    const V fades = div(num(1), add(num(1), mul(on_beam, num(0.06F))));
    const V seen = add(halo, mul(num(world.lamp.beam), mul(round, fades)));
    return scaled(vec(world.lamp.colour), seen);
}

void cast_block_of(const CastWorld& world, const std::vector<int>& solids, const float* xs, const float* ys,
                   std::size_t i, bool colours, const CastResults& out) {
    const F f;
    const V3 d = add3(add3(vec(world.corner), scaled(vec(world.across), hn::LoadU(f, xs + i))),
                      scaled(vec(world.down), hn::LoadU(f, ys + i)));
    const V zero = num(0);
    const V3 zero3{zero, zero, zero};
    Met met{num(sky_depth), zero3, zero3, zero, zero, zero, zero};
    for (const int index : solids) {
        const CastSolid& solid = world.solids[static_cast<std::size_t>(index)];
        if (hn::AllFalse(f, hn::Gt(met.t, num(solid.nearest)))) break;
        meet_solid(solid, world, d, met);
    }
    if (world.sea.there) meet_sea(world, d, met);
    const V3 at = add3(vec(world.eye), scaled(d, met.t));
    const auto store = [&](const std::array<float*, 3>& to, const V3& v) {
        hn::StoreU(v.x, f, to[0] + i);
        hn::StoreU(v.y, f, to[1] + i);
        hn::StoreU(v.z, f, to[2] + i);
    };
    hn::StoreU(met.t, f, out.depth + i);
    hn::StoreU(met.id, f, out.id + i);
    store(out.normal, met.normal);
    store(out.position, at);
    if (!colours) return;
    const V longer = root(dot3(d, d));
    const V3 way = scaled(d, div(num(1), longer));
    const M sky = hn::Ge(met.t, num(sky_depth));
    const V metres = mul(met.t, longer);
    V3 colour = zero3;
    if (!hn::AllTrue(f, sky)) {
        const V misty = mul(metres, num(world.sky.fog));
        const V clear = div(num(1), add(num(1), mul(misty, misty)));
        colour = mixed3(vec(world.sky.low), lit(world, at, way, met), clear);
    }
    if (!hn::AllFalse(f, sky)) colour = pick3(sky, sky_colour(world, way), colour);
    if (world.lamp.there) colour = add3(colour, in_the_air(world, way, metres));
    store(out.colour, colour);
}

void cast_all(const CastWorld& world, const std::vector<int>& solids, const float* xs, const float* ys, int count,
              bool colours, const CastResults& out) {
    const F f;
    for (std::size_t i = 0; i < static_cast<std::size_t>(count); i += hn::Lanes(f))
        cast_block_of(world, solids, xs, ys, i, colours, out);
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

HWY_EXPORT(cast_all);

void cast_rays(const CastWorld& world, const std::vector<int>& solids, const float* xs, const float* ys, int count,
               bool colours, const CastResults& out) {
    HWY_DYNAMIC_DISPATCH(cast_all)(world, solids, xs, ys, count, colours, out);
}

std::vector<long> cast_targets() {
    std::vector<long> targets;
    for (const auto target : hwy::SupportedAndGeneratedTargets()) targets.push_back(static_cast<long>(target));
    return targets;
}

void limit_cast_targets(long targets) { hwy::SetSupportedTargetsForTest(targets); }

}  // namespace lacquer
#endif
