#include "core/gpu/glsl_prelude.h"

#include <array>
#include <cctype>

namespace lacquer {

namespace {

struct Helper {
    std::string_view name;
    std::string_view text;
};

// GLSL hands no functions over, so each noise has a sum of its own for each width: octaves, each twice as fine.
#define LACQUER_FRACTAL(noise, vec)                                 \
    "float lq_fractal_" noise "_noise(" vec                         \
    " where, float octaves) {\n"                                    \
    "    float wanted = octaves > 1.0 ? min(octaves, 8.0) : 1.0;\n" \
    "    float sum = 0.0;\n"                                        \
    "    float weights = 0.0;\n"                                    \
    "    for (float k = 0.0; k < wanted; k++) {\n"                  \
    "        float weight = lq_octave_weight(wanted, k);\n"         \
    "        sum += weight * lq_" noise                             \
    "_noise(where * exp2(k) + k * 17.31);\n"                        \
    "        weights += weight;\n"                                  \
    "    }\n"                                                       \
    "    return min(sum / weights, 0.99999994);\n"                  \
    "}\n"

// Each uses only those above it.
constexpr std::array helpers = {
    Helper{"lq_smoothstep", R"(// Equal edges make a step.
float lq_smoothstep(float edge0, float edge1, float x) {
    if (edge0 == edge1) return x < edge0 ? 0.0 : 1.0;
    float t = clamp((x - edge0) / (edge1 - edge0), 0.0, 1.0);
    return t * t * (3.0 - 2.0 * t);
}
vec2 lq_smoothstep(vec2 a, vec2 b, vec2 x) { return vec2(lq_smoothstep(a.x, b.x, x.x), lq_smoothstep(a.y, b.y, x.y)); }
vec3 lq_smoothstep(vec3 a, vec3 b, vec3 x) { return vec3(lq_smoothstep(a.xy, b.xy, x.xy), lq_smoothstep(a.z, b.z, x.z)); }
vec4 lq_smoothstep(vec4 a, vec4 b, vec4 x) { return vec4(lq_smoothstep(a.xyz, b.xyz, x.xyz), lq_smoothstep(a.w, b.w, x.w)); }
)"},
    Helper{"lq_pow", R"(// x below 0 counts as 0; the power 0 gives 1.
float lq_pow(float x, float power) {
    if (power == 0.0) return 1.0;
    if (x <= 0.0) return power > 0.0 ? 0.0 : 1.0 / 0.0;
    return pow(x, power);
}
vec2 lq_pow(vec2 x, vec2 p) { return vec2(lq_pow(x.x, p.x), lq_pow(x.y, p.y)); }
vec3 lq_pow(vec3 x, vec3 p) { return vec3(lq_pow(x.xy, p.xy), lq_pow(x.z, p.z)); }
vec4 lq_pow(vec4 x, vec4 p) { return vec4(lq_pow(x.xyz, p.xyz), lq_pow(x.w, p.w)); }
)"},
    Helper{"lq_normalize", R"(// Zero stays zero.
float lq_normalize(float v) { return v == 0.0 ? 0.0 : v / abs(v); }
vec2 lq_normalize(vec2 v) { return length(v) == 0.0 ? vec2(0.0) : v / length(v); }
vec3 lq_normalize(vec3 v) { return length(v) == 0.0 ? vec3(0.0) : v / length(v); }
vec4 lq_normalize(vec4 v) { return length(v) == 0.0 ? vec4(0.0) : v / length(v); }
)"},
    Helper{"lq_atan", R"(// The angle of the point (x, y); 0 at the origin.
float lq_atan(float y, float x) { return y == 0.0 && x == 0.0 ? 0.0 : atan(y, x); }
vec2 lq_atan(vec2 y, vec2 x) { return vec2(lq_atan(y.x, x.x), lq_atan(y.y, x.y)); }
vec3 lq_atan(vec3 y, vec3 x) { return vec3(lq_atan(y.xy, x.xy), lq_atan(y.z, x.z)); }
vec4 lq_atan(vec4 y, vec4 x) { return vec4(lq_atan(y.xyz, x.xyz), lq_atan(y.w, x.w)); }
)"},
    Helper{"lq_int", R"(// Towards 0, held to the range; what is no number gives 0.
int lq_int(float x) {
    if (isnan(x)) return 0;
    if (x >= 2147483648.0) return 2147483647;
    return x < -2147483648.0 ? -2147483647 - 1 : int(x);
}
ivec2 lq_int(vec2 x) { return ivec2(lq_int(x.x), lq_int(x.y)); }
ivec3 lq_int(vec3 x) { return ivec3(lq_int(x.xy), lq_int(x.z)); }
ivec4 lq_int(vec4 x) { return ivec4(lq_int(x.xyz), lq_int(x.w)); }
)"},
    Helper{"lq_uint", R"(// Towards 0, held to the range; what is below 0 or no number gives 0.
uint lq_uint(float x) {
    if (!(x > 0.0)) return 0u;
    return x >= 4294967296.0 ? 4294967295u : uint(x);
}
uvec2 lq_uint(vec2 x) { return uvec2(lq_uint(x.x), lq_uint(x.y)); }
uvec3 lq_uint(vec3 x) { return uvec3(lq_uint(x.xy), lq_uint(x.z)); }
uvec4 lq_uint(vec4 x) { return uvec4(lq_uint(x.xyz), lq_uint(x.w)); }
)"},
    Helper{"lq_divide", R"(// Division by 0 gives 0; overflow wraps.
int lq_divide(int a, int b) { return b == 0 ? 0 : b == -1 ? -a : a / b; }
ivec2 lq_divide(ivec2 a, ivec2 b) { return ivec2(lq_divide(a.x, b.x), lq_divide(a.y, b.y)); }
ivec3 lq_divide(ivec3 a, ivec3 b) { return ivec3(lq_divide(a.xy, b.xy), lq_divide(a.z, b.z)); }
ivec4 lq_divide(ivec4 a, ivec4 b) { return ivec4(lq_divide(a.xyz, b.xyz), lq_divide(a.w, b.w)); }
uint lq_divide(uint a, uint b) { return b == 0u ? 0u : a / b; }
uvec2 lq_divide(uvec2 a, uvec2 b) { return uvec2(lq_divide(a.x, b.x), lq_divide(a.y, b.y)); }
uvec3 lq_divide(uvec3 a, uvec3 b) { return uvec3(lq_divide(a.xy, b.xy), lq_divide(a.z, b.z)); }
uvec4 lq_divide(uvec4 a, uvec4 b) { return uvec4(lq_divide(a.xyz, b.xyz), lq_divide(a.w, b.w)); }
)"},
    Helper{"lq_remainder", R"(// What division leaves over; by 0 it gives 0.
int lq_remainder(int a, int b) { return b == 0 ? 0 : a - lq_divide(a, b) * b; }
ivec2 lq_remainder(ivec2 a, ivec2 b) { return ivec2(lq_remainder(a.x, b.x), lq_remainder(a.y, b.y)); }
ivec3 lq_remainder(ivec3 a, ivec3 b) { return ivec3(lq_remainder(a.xy, b.xy), lq_remainder(a.z, b.z)); }
ivec4 lq_remainder(ivec4 a, ivec4 b) { return ivec4(lq_remainder(a.xyz, b.xyz), lq_remainder(a.w, b.w)); }
uint lq_remainder(uint a, uint b) { return b == 0u ? 0u : a - a / b * b; }
uvec2 lq_remainder(uvec2 a, uvec2 b) { return uvec2(lq_remainder(a.x, b.x), lq_remainder(a.y, b.y)); }
uvec3 lq_remainder(uvec3 a, uvec3 b) { return uvec3(lq_remainder(a.xy, b.xy), lq_remainder(a.z, b.z)); }
uvec4 lq_remainder(uvec4 a, uvec4 b) { return uvec4(lq_remainder(a.xyz, b.xyz), lq_remainder(a.w, b.w)); }
)"},
    Helper{"lq_premultiply", R"(vec4 lq_premultiply(vec4 c) { return vec4(c.rgb * c.a, c.a); }
)"},
    Helper{"lq_unpremultiply",
           R"(vec4 lq_unpremultiply(vec4 c) { return c.a == 0.0 ? vec4(0.0) : vec4(c.rgb / c.a, c.a); }
)"},
    Helper{"lq_with_opacity_of", R"(vec4 lq_with_opacity_of(vec4 c, vec4 other) { return vec4(c.rgb, other.a); }
)"},
    Helper{"lq_minus", R"(// Works on the colours and keeps the opacity.
vec4 lq_minus(vec3 a, vec4 b) { return vec4(a - b.rgb, b.a); }
)"},
    Helper{"lq_over", R"(// Works on the colours and keeps the opacity.
vec4 lq_over(vec3 a, vec4 b) { return vec4(a / b.rgb, b.a); }
)"},
    Helper{"lq_blend", R"(// A weight of 0 leaves the other value out, whatever it is.
vec4 lq_blend(vec4 a, vec4 b, float share) { return share == 0.0 ? a : a * (1.0 - share) + b * share; }
)"},
    Helper{"lq_blend_weighed", R"(// By opacity: what is clear lends no colour.
vec4 lq_blend_weighed(vec4 a, vec4 b, float share) {
    if (share == 0.0) return a;
    float of_a = a.a * (1.0 - share);
    float of_b = b.a * share;
    vec3 colour = of_b == 0.0 ? a.rgb : of_a == 0.0 ? b.rgb : (a.rgb * of_a + b.rgb * of_b) / (of_a + of_b);
    return vec4(colour, of_a + of_b);
}
)"},
    Helper{"lq_no_number", R"(vec4 lq_no_number() { return vec4(uintBitsToFloat(0x7FC00000u)); }
)"},
    Helper{"lq_nowhere", R"(// Where a coordinate is no number, or infinite, nothing can be read.
bool lq_nowhere(vec2 where) { return any(isnan(where)) || any(isinf(where)); }
)"},
    Helper{"lq_read_level", R"(// Linear between pixels, held at the borders, positions rounded to 1/256 pixel.
vec4 lq_read_level(sampler2D picture, vec2 where, int level) {
    if (lq_nowhere(where)) return lq_no_number();
    ivec2 size = textureSize(picture, level);
    vec2 at = floor((where * vec2(size) - 0.5) * 256.0 + 0.5) * (1.0 / 256.0);
    at = clamp(at, vec2(0.0), vec2(size) - 1.0);
    ivec2 low = ivec2(at);
    ivec2 high = min(low + 1, size - 1);
    vec2 share = at - vec2(low);
    vec4 top = lq_blend(texelFetch(picture, low, level), texelFetch(picture, ivec2(high.x, low.y), level), share.x);
    vec4 bottom = lq_blend(texelFetch(picture, ivec2(low.x, high.y), level), texelFetch(picture, high, level), share.x);
    return lq_blend(top, bottom, share.y);
}
)"},
    Helper{"lq_read", R"(vec4 lq_read(sampler2D picture, vec2 where) { return lq_read_level(picture, where, 0); }
)"},
    Helper{"lq_read_level_as", R"(const int lq_hold = 0;
const int lq_repeat = 1;
const int lq_mirror = 2;
const bool lq_linear = false;
const bool lq_nearest = true;
// The pixel that stands at a whole place when the picture goes on beyond its borders.
int lq_beyond(float place, int size, int wrap) {
    float extent = float(size);
    if (wrap == lq_hold) return int(clamp(place, 0.0, extent - 1.0));
    if (wrap == lq_repeat) return min(int(place - extent * floor(place / extent)), size - 1);
    int within = min(int(place - 2.0 * extent * floor(place / (2.0 * extent))), 2 * size - 1);
    return within < size ? within : 2 * size - 1 - within;
}
vec4 lq_mixed(vec4 a, vec4 b, float share, bool weighed) {
    return weighed ? lq_blend_weighed(a, b, share) : lq_blend(a, b, share);
}
// Positions rounded to 1/256 pixel.
vec4 lq_read_level_as(sampler2D picture, vec2 where, int level, int wrap, bool nearest, bool weighed) {
    if (lq_nowhere(where)) return lq_no_number();
    ivec2 size = textureSize(picture, level);
    vec2 at = floor((where * vec2(size) - (nearest ? 0.0 : 0.5)) * 256.0 + 0.5) * (1.0 / 256.0);
    if (nearest) at = floor(at);
    if (wrap == lq_hold) at = clamp(at, vec2(0.0), vec2(size) - 1.0);
    vec2 whole = floor(at);
    vec2 share = at - whole;
    ivec2 low = ivec2(lq_beyond(whole.x, size.x, wrap), lq_beyond(whole.y, size.y, wrap));
    ivec2 high = ivec2(lq_beyond(whole.x + 1.0, size.x, wrap), lq_beyond(whole.y + 1.0, size.y, wrap));
    vec4 corner = texelFetch(picture, ivec2(high.x, low.y), level);
    vec4 top = lq_mixed(texelFetch(picture, low, level), corner, share.x, weighed);
    vec4 below = texelFetch(picture, ivec2(low.x, high.y), level);
    vec4 bottom = lq_mixed(below, texelFetch(picture, high, level), share.x, weighed);
    return lq_mixed(top, bottom, share.y, weighed);
}
)"},
    Helper{"lq_read_as", R"(vec4 lq_read_as(sampler2D picture, vec2 where, int wrap, bool nearest, bool weighed) {
    return lq_read_level_as(picture, where, 0, wrap, nearest, weighed);
}
)"},
    Helper{"lq_read_weighed", R"(vec4 lq_read_weighed(sampler2D picture, vec2 where) {
    return lq_read_level_as(picture, where, 0, lq_hold, lq_linear, true);
}
)"},
    Helper{"lq_held_level", R"(// The level of detail to read, within what there is and rounded to 1/256.
float lq_held_level(sampler2D picture, float lod) {
    ivec2 size = textureSize(picture, 0);
    int last = 0;
    for (int side = max(size.x, size.y); side > 1; side /= 2) last++;
    return floor((lod > 0.0 ? min(lod, float(last)) : 0.0) * 256.0 + 0.5) * (1.0 / 256.0);
}
)"},
    Helper{"lq_read_lod", R"(// The same from a smaller copy, linear between two of them.
vec4 lq_read_lod(sampler2D picture, vec2 where, float lod) {
    float held = lq_held_level(picture, lod);
    int level = int(held);
    float share = held - float(level);
    vec4 fine = lq_read_level(picture, where, level);
    return share == 0.0 ? fine : lq_blend(fine, lq_read_level(picture, where, level + 1), share);
}
)"},
    Helper{"lq_read_lod_as",
           R"(vec4 lq_read_lod_as(sampler2D picture, vec2 where, float lod, int wrap, bool nearest, bool weighed) {
    float held = lq_held_level(picture, lod);
    int level = int(held);
    float share = held - float(level);
    vec4 fine = lq_read_level_as(picture, where, level, wrap, nearest, weighed);
    if (share == 0.0) return fine;
    return lq_mixed(fine, lq_read_level_as(picture, where, level + 1, wrap, nearest, weighed), share, weighed);
}
)"},
    Helper{"lq_read_lod_weighed", R"(vec4 lq_read_lod_weighed(sampler2D picture, vec2 where, float lod) {
    return lq_read_lod_as(picture, where, lod, lq_hold, lq_linear, true);
}
)"},
    Helper{
        "lq_at",
        R"(// A gradient or curve: a table of 1000 cells from 0 to 1, each with an entry for its beginning and one for its end.
vec4 lq_at(sampler2D table, float t) {
    float along = t * 1000.0;
    float cell = min(max(floor(along + 1.0 / 1024.0), 0.0), 1000.0);
    return lq_read_level(table, vec2((cell + along + 0.5) * (1.0 / 2002.0), 0.5), 0);
}
)"},
    Helper{
        "lq_at_native",
        R"(// A gradient or curve: a table of 1000 cells from 0 to 1, each with an entry for each end; read by the sampler's own filtering.
vec4 lq_at_native(sampler2D table, float t) {
    float along = t * 1000.0;
    float cell = min(max(floor(along + 1.0 / 1024.0), 0.0), 1000.0);
    return textureLod(table, vec2((cell + along + 0.5) * (1.0 / 2002.0), 0.5), 0.0);
}
)"},
    Helper{"lq_fetch", R"(// One pixel; beyond the borders the outermost.
vec4 lq_fetch(sampler2D picture, ivec2 pixel) {
    return texelFetch(picture, clamp(pixel, ivec2(0), textureSize(picture, 0) - 1), 0);
}
)"},
    Helper{"lq_pcg", R"(// Integer hash: Jarzynski and Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020.
uint lq_pcg(uint v) {
    uint state = v * 747796405u + 2891336453u;
    uint word = ((state >> ((state >> 28u) + 4u)) ^ state) * 277803737u;
    return (word >> 22u) ^ word;
}
)"},
    Helper{"lq_lattice", R"(uint lq_lattice(float x) { return uint(lq_int(floor(x))); }
)"},
    Helper{"lq_unit", R"(float lq_unit(uint word) { return float(word >> 8u) * (1.0 / 16777216.0); }
)"},
    Helper{"lq_corner", R"(uint lq_corner(uint x, uint y) { return lq_pcg(x + lq_pcg(y)); }
uint lq_corner(uint x, uint y, uint z) { return lq_pcg(x + lq_pcg(y + lq_pcg(z))); }
)"},
    Helper{"lq_hash", R"(float lq_hash(float cell) { return lq_unit(lq_pcg(lq_lattice(cell))); }
float lq_hash(vec2 cell) { return lq_unit(lq_corner(lq_lattice(cell.x), lq_lattice(cell.y))); }
float lq_hash(vec3 cell) { return lq_unit(lq_corner(lq_lattice(cell.x), lq_lattice(cell.y), lq_lattice(cell.z))); }
)"},
    Helper{"lq_hash3", R"(vec3 lq_hash3(vec3 cell) {
    uvec3 v = uvec3(lq_lattice(cell.x), lq_lattice(cell.y), lq_lattice(cell.z)) * 1664525u + 1013904223u;
    v.x += v.y * v.z;
    v.y += v.z * v.x;
    v.z += v.x * v.y;
    v ^= v >> 16u;
    v.x += v.y * v.z;
    v.y += v.z * v.x;
    v.z += v.x * v.y;
    return vec3(lq_unit(v.x), lq_unit(v.y), lq_unit(v.z));
}
)"},
    Helper{"lq_fade", R"(// Perlin 2002, "Improving Noise".
float lq_fade(float t) { return t * t * t * (t * (t * 6.0 - 15.0) + 10.0); }
)"},
    Helper{"lq_held_unit", R"(float lq_held_unit(float n) { return clamp(n + 0.5, 0.0, 0.99999994); }
)"},
    Helper{"lq_value_noise", R"(float lq_value_noise(vec2 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    float sx = lq_fade(where.x - floor(where.x));
    float top = lq_unit(lq_corner(x, y));
    top += sx * (lq_unit(lq_corner(x + 1u, y)) - top);
    float bottom = lq_unit(lq_corner(x, y + 1u));
    bottom += sx * (lq_unit(lq_corner(x + 1u, y + 1u)) - bottom);
    return lq_held_unit(top + lq_fade(where.y - floor(where.y)) * (bottom - top) - 0.5);
}
float lq_value_slab(uint x, uint y, uint z, float sx, float sy) {
    float top = lq_unit(lq_corner(x, y, z));
    top += sx * (lq_unit(lq_corner(x + 1u, y, z)) - top);
    float bottom = lq_unit(lq_corner(x, y + 1u, z));
    bottom += sx * (lq_unit(lq_corner(x + 1u, y + 1u, z)) - bottom);
    return top + sy * (bottom - top);
}
float lq_value_noise(vec3 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    uint z = lq_lattice(where.z);
    float sx = lq_fade(where.x - floor(where.x));
    float sy = lq_fade(where.y - floor(where.y));
    float near = lq_value_slab(x, y, z, sx, sy);
    float far = lq_value_slab(x, y, z + 1u, sx, sy);
    return lq_held_unit(near + lq_fade(where.z - floor(where.z)) * (far - near) - 0.5);
}
)"},
    Helper{"lq_gradient_noise", R"(float lq_slope(uint hash, float x, float y) {
    bool steep = (hash & 4u) != 0u;
    float u = steep ? y : x;
    float v = (steep ? x : y) * 0.41421356;
    return ((hash & 1u) != 0u ? -u : u) + ((hash & 2u) != 0u ? -v : v);
}
float lq_gradient_noise(vec2 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    vec2 f = where - floor(where);
    float sx = lq_fade(f.x);
    float top = lq_slope(lq_corner(x, y), f.x, f.y);
    top += sx * (lq_slope(lq_corner(x + 1u, y), f.x - 1.0, f.y) - top);
    float bottom = lq_slope(lq_corner(x, y + 1u), f.x, f.y - 1.0);
    bottom += sx * (lq_slope(lq_corner(x + 1u, y + 1u), f.x - 1.0, f.y - 1.0) - bottom);
    return lq_held_unit((top + lq_fade(f.y) * (bottom - top)) * 0.65328148);
}
float lq_slope(uint hash, float x, float y, float z) {
    uint h = hash & 15u;
    float u = h < 8u ? x : y;
    float v = h < 4u ? y : (h == 12u || h == 14u ? x : z);
    return ((h & 1u) != 0u ? -u : u) + ((h & 2u) != 0u ? -v : v);
}
float lq_gradient_slab(uint x, uint y, uint z, vec3 f, float sx, float sy) {
    float top = lq_slope(lq_corner(x, y, z), f.x, f.y, f.z);
    top += sx * (lq_slope(lq_corner(x + 1u, y, z), f.x - 1.0, f.y, f.z) - top);
    float bottom = lq_slope(lq_corner(x, y + 1u, z), f.x, f.y - 1.0, f.z);
    bottom += sx * (lq_slope(lq_corner(x + 1u, y + 1u, z), f.x - 1.0, f.y - 1.0, f.z) - bottom);
    return top + sy * (bottom - top);
}
float lq_gradient_noise(vec3 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    uint z = lq_lattice(where.z);
    vec3 f = where - floor(where);
    float sx = lq_fade(f.x);
    float sy = lq_fade(f.y);
    float near = lq_gradient_slab(x, y, z, f, sx, sy);
    float far = lq_gradient_slab(x, y, z + 1u, f - vec3(0.0, 0.0, 1.0), sx, sy);
    return lq_held_unit((near + lq_fade(f.z) * (far - near)) * 0.5);
}
)"},
    Helper{"lq_cellular_noise", R"(// Distance to the nearest of random points, one a cell: Worley 1996.
float lq_cellular_noise(vec2 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    vec2 f = where - floor(where);
    float nearest = 1.0;
    for (int j = -1; j <= 1; j++) {
        for (int i = -1; i <= 1; i++) {
            uint hash = lq_corner(x + uint(i), y + uint(j));
            vec2 point = vec2(hash >> 16u, hash & 0xFFFFu) * (1.0 / 65536.0);
            vec2 d = vec2(i, j) + point - f;
            nearest = min(nearest, d.x * d.x + d.y * d.y);
        }
    }
    return min(sqrt(nearest), 0.99999994);
}
float lq_cellular_noise(vec3 where) {
    uint x = lq_lattice(where.x);
    uint y = lq_lattice(where.y);
    uint z = lq_lattice(where.z);
    vec3 f = where - floor(where);
    float nearest = 1.0;
    for (int k = -1; k <= 1; k++) {
        for (int j = -1; j <= 1; j++) {
            for (int i = -1; i <= 1; i++) {
                uint hash = lq_corner(x + uint(i), y + uint(j), z + uint(k));
                vec3 point = vec3(hash >> 21u, (hash >> 10u) & 0x7FFu, hash & 0x3FFu) / vec3(2048.0, 2048.0, 1024.0);
                vec3 d = vec3(i, j, k) + point - f;
                nearest = min(nearest, d.x * d.x + d.y * d.y + d.z * d.z);
            }
        }
    }
    return min(sqrt(nearest), 0.99999994);
}
)"},
    Helper{"lq_octave_weight", R"(// Each octave counts half as much as the one before; the last may count in part.
float lq_octave_weight(float octaves, float k) { return exp2(-k) * min(octaves - k, 1.0); }
)"},
    Helper{"lq_fractal_value_noise", LACQUER_FRACTAL("value", "vec2") LACQUER_FRACTAL("value", "vec3")},
    Helper{"lq_fractal_gradient_noise", LACQUER_FRACTAL("gradient", "vec2") LACQUER_FRACTAL("gradient", "vec3")},
    Helper{"lq_fractal_cellular_noise", LACQUER_FRACTAL("cellular", "vec2") LACQUER_FRACTAL("cellular", "vec3")},
};

// The helpers that a text calls.
std::set<std::string, std::less<>> called_in(std::string_view text) {
    std::set<std::string, std::less<>> found;
    for (std::size_t at = text.find("lq_"); at != std::string_view::npos; at = text.find("lq_", at + 1)) {
        std::size_t end = at;
        while (end < text.size() && (std::isalnum(static_cast<unsigned char>(text[end])) != 0 || text[end] == '_'))
            ++end;
        found.emplace(text.substr(at, end - at));
    }
    return found;
}

}  // namespace

std::string helper_definitions(const std::set<std::string, std::less<>>& names) {
    std::set<std::string, std::less<>> wanted = names;
    // From the last to the first, since each may want those above it.
    for (std::size_t i = helpers.size(); i-- > 0;) {
        if (wanted.contains(helpers[i].name)) wanted.merge(called_in(helpers[i].text));
    }
    std::string text;
    for (const Helper& helper : helpers) {
        if (wanted.contains(helper.name)) text += std::string(helper.text);
    }
    return text;
}

}  // namespace lacquer
