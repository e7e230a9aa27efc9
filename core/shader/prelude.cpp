#include "core/shader/prelude.h"

#include <algorithm>
#include <array>

namespace lacquer {

namespace {

// Sections of GLSL ES 3.00: 8.3 modf, 8.4 packing, 8.6 matrices, 8.8 and 8.9 pictures. What is read between pixels is
// read as everywhere here: a level that is not asked for is the picture itself.
constexpr std::string_view prelude_text = R"glsl(
float modf(float x, out float whole) { whole = trunc(x); return x - whole; }
vec2 modf(vec2 x, out vec2 whole) { whole = trunc(x); return x - whole; }
vec3 modf(vec3 x, out vec3 whole) { whole = trunc(x); return x - whole; }
vec4 modf(vec4 x, out vec4 whole) { whole = trunc(x); return x - whole; }

uint packUnorm2x16(vec2 v) {
    uvec2 bits = uvec2(round(clamp(v, 0.0, 1.0) * 65535.0));
    return bits.x | bits.y << 16u;
}
vec2 unpackUnorm2x16(uint bits) { return vec2(float(bits & 0xFFFFu), float(bits >> 16u)) / 65535.0; }
uint packSnorm2x16(vec2 v) {
    ivec2 bits = ivec2(round(clamp(v, -1.0, 1.0) * 32767.0));
    return uint(bits.x) & 0xFFFFu | uint(bits.y) << 16u;
}
vec2 unpackSnorm2x16(uint bits) {
    ivec2 parts = ivec2(int(bits << 16u) >> 16, int(bits) >> 16);
    return clamp(vec2(parts) / 32767.0, -1.0, 1.0);
}
// Halves: IEEE 754, 3.6; to the nearest, ties to even.
uint lq_half_bits(float x) {
    uint bits = floatBitsToUint(x);
    uint sign = bits >> 16u & 0x8000u;
    uint size = bits & 0x7FFFFFFFu;
    if (size > 0x7F800000u) return sign | 0x7E00u;
    if (size >= 0x477FF000u) return sign | 0x7C00u;
    if (size < 0x38800000u) return sign | uint(roundEven(abs(x) * 16777216.0));
    uint rounded = size + 0xFFFu + (size >> 13u & 1u);
    return sign | (rounded - 0x38000000u) >> 13u;
}
float lq_half_number(uint bits) {
    uint power = bits >> 10u & 31u;
    uint rest = bits & 1023u;
    float size = power == 0u ? float(rest) / 16777216.0
               : power == 31u ? uintBitsToFloat(0x7F800000u | rest << 13u)
                              : uintBitsToFloat(power + 112u << 23u | rest << 13u);
    return (bits & 0x8000u) != 0u ? -size : size;
}
uint packHalf2x16(vec2 v) { return lq_half_bits(v.x) | lq_half_bits(v.y) << 16u; }
vec2 unpackHalf2x16(uint bits) { return vec2(lq_half_number(bits & 0xFFFFu), lq_half_number(bits >> 16u)); }

float determinant(mat2 m) { return m[0].x * m[1].y - m[1].x * m[0].y; }
float determinant(mat3 m) { return dot(m[0], cross(m[1], m[2])); }
float determinant(mat4 m) {
    vec4 a = m[0].xxxy * m[1].yzwz - m[0].yzwz * m[1].xxxy;
    vec2 b = m[0].yz * m[1].ww - m[0].ww * m[1].yz;
    vec4 c = m[2].xxxy * m[3].yzwz - m[2].yzwz * m[3].xxxy;
    vec2 d = m[2].yz * m[3].ww - m[2].ww * m[3].yz;
    return a.x * d.y - a.y * d.x + a.z * c.w + a.w * c.z - b.x * c.y + b.y * c.x;
}
mat2 inverse(mat2 m) { return mat2(m[1].y, -m[0].y, -m[1].x, m[0].x) / determinant(m); }
mat3 inverse(mat3 m) {
    vec3 a = cross(m[1], m[2]);
    return transpose(mat3(a, cross(m[2], m[0]), cross(m[0], m[1]))) / dot(m[0], a);
}
mat4 inverse(mat4 m) {
    float a0 = m[0][0] * m[1][1] - m[0][1] * m[1][0];
    float a1 = m[0][0] * m[1][2] - m[0][2] * m[1][0];
    float a2 = m[0][0] * m[1][3] - m[0][3] * m[1][0];
    float a3 = m[0][1] * m[1][2] - m[0][2] * m[1][1];
    float a4 = m[0][1] * m[1][3] - m[0][3] * m[1][1];
    float a5 = m[0][2] * m[1][3] - m[0][3] * m[1][2];
    float b0 = m[2][0] * m[3][1] - m[2][1] * m[3][0];
    float b1 = m[2][0] * m[3][2] - m[2][2] * m[3][0];
    float b2 = m[2][0] * m[3][3] - m[2][3] * m[3][0];
    float b3 = m[2][1] * m[3][2] - m[2][2] * m[3][1];
    float b4 = m[2][1] * m[3][3] - m[2][3] * m[3][1];
    float b5 = m[2][2] * m[3][3] - m[2][3] * m[3][2];
    float det = a0 * b5 - a1 * b4 + a2 * b3 + a3 * b2 - a4 * b1 + a5 * b0;
    return mat4(m[1][1] * b5 - m[1][2] * b4 + m[1][3] * b3, m[0][2] * b4 - m[0][1] * b5 - m[0][3] * b3,
                m[3][1] * a5 - m[3][2] * a4 + m[3][3] * a3, m[2][2] * a4 - m[2][1] * a5 - m[2][3] * a3,
                m[1][2] * b2 - m[1][0] * b5 - m[1][3] * b1, m[0][0] * b5 - m[0][2] * b2 + m[0][3] * b1,
                m[3][2] * a2 - m[3][0] * a5 - m[3][3] * a1, m[2][0] * a5 - m[2][2] * a2 + m[2][3] * a1,
                m[1][0] * b4 - m[1][1] * b2 + m[1][3] * b0, m[0][1] * b2 - m[0][0] * b4 - m[0][3] * b0,
                m[3][0] * a4 - m[3][1] * a2 + m[3][3] * a0, m[2][1] * a2 - m[2][0] * a4 - m[2][3] * a0,
                m[1][1] * b1 - m[1][0] * b3 - m[1][2] * b0, m[0][0] * b3 - m[0][1] * b1 + m[0][2] * b0,
                m[3][1] * a1 - m[3][0] * a3 - m[3][2] * a0, m[2][0] * a3 - m[2][1] * a1 + m[2][2] * a0) / det;
}

vec4 texture(sampler2D s, vec2 p, float bias) { return textureLod(s, p, max(bias, 0.0)); }
vec4 textureProj(sampler2D s, vec3 p) { return texture(s, p.xy / p.z); }
vec4 textureProj(sampler2D s, vec4 p) { return texture(s, p.xy / p.w); }
vec4 textureProj(sampler2D s, vec3 p, float bias) { return texture(s, p.xy / p.z, bias); }
vec4 textureProj(sampler2D s, vec4 p, float bias) { return texture(s, p.xy / p.w, bias); }
vec4 textureProjLod(sampler2D s, vec3 p, float lod) { return textureLod(s, p.xy / p.z, lod); }
vec4 textureProjLod(sampler2D s, vec4 p, float lod) { return textureLod(s, p.xy / p.w, lod); }
ivec2 textureSize(sampler2D s, int lod) { return max(textureSize(s) >> clamp(lod, 0, 31), ivec2(1)); }
vec4 textureOffset(sampler2D s, vec2 p, ivec2 by) { return texture(s, p + vec2(by) / vec2(textureSize(s))); }
vec4 textureOffset(sampler2D s, vec2 p, ivec2 by, float bias) {
    return texture(s, p + vec2(by) / vec2(textureSize(s)), bias);
}
vec4 textureLodOffset(sampler2D s, vec2 p, float lod, ivec2 by) {
    return textureLod(s, p + vec2(by) / vec2(textureSize(s, int(max(lod, 0.0)))), lod);
}
vec4 textureProjOffset(sampler2D s, vec3 p, ivec2 by) { return textureOffset(s, p.xy / p.z, by); }
vec4 textureProjOffset(sampler2D s, vec4 p, ivec2 by) { return textureOffset(s, p.xy / p.w, by); }
vec4 textureProjLodOffset(sampler2D s, vec3 p, float lod, ivec2 by) {
    return textureLodOffset(s, p.xy / p.z, lod, by);
}
vec4 textureProjLodOffset(sampler2D s, vec4 p, float lod, ivec2 by) {
    return textureLodOffset(s, p.xy / p.w, lod, by);
}
vec4 texelFetch(sampler2D s, ivec2 p, int lod) {
    if (lod <= 0) return texelFetch(s, p);
    return textureLod(s, (vec2(p) + 0.5) / vec2(textureSize(s, lod)), float(lod));
}
vec4 texelFetchOffset(sampler2D s, ivec2 p, int lod, ivec2 by) { return texelFetch(s, p + by, lod); }
// The level at which a step to the next pixel is one of the picture's: OpenGL ES 3.0, 3.8.10.1.
vec4 textureGrad(sampler2D s, vec2 p, vec2 across, vec2 down) {
    vec2 size = vec2(textureSize(s));
    float most = max(length(across * size), length(down * size));
    return most <= 1.0 ? texture(s, p) : textureLod(s, p, log2(most));
}
vec4 textureGradOffset(sampler2D s, vec2 p, vec2 across, vec2 down, ivec2 by) {
    return textureGrad(s, p + vec2(by) / vec2(textureSize(s)), across, down);
}
vec4 textureProjGrad(sampler2D s, vec3 p, vec2 across, vec2 down) { return textureGrad(s, p.xy / p.z, across, down); }
vec4 textureProjGrad(sampler2D s, vec4 p, vec2 across, vec2 down) { return textureGrad(s, p.xy / p.w, across, down); }
vec4 textureProjGradOffset(sampler2D s, vec3 p, vec2 across, vec2 down, ivec2 by) {
    return textureGradOffset(s, p.xy / p.z, across, down, by);
}
vec4 textureProjGradOffset(sampler2D s, vec4 p, vec2 across, vec2 down, ivec2 by) {
    return textureGradOffset(s, p.xy / p.w, across, down, by);
}

vec4 texture2D(sampler2D s, vec2 p) { return texture(s, p); }
vec4 texture2D(sampler2D s, vec2 p, float bias) { return texture(s, p, bias); }
vec4 texture2DProj(sampler2D s, vec3 p) { return textureProj(s, p); }
vec4 texture2DProj(sampler2D s, vec4 p) { return textureProj(s, p); }
vec4 texture2DLod(sampler2D s, vec2 p, float lod) { return textureLod(s, p, lod); }
vec4 texture2DLodEXT(sampler2D s, vec2 p, float lod) { return textureLod(s, p, lod); }
vec4 texture2DGradEXT(sampler2D s, vec2 p, vec2 across, vec2 down) { return textureGrad(s, p, across, down); }
)glsl";

constexpr std::array<std::string_view, 100> glsl_functions = {"radians",
                                                              "degrees",
                                                              "sin",
                                                              "cos",
                                                              "tan",
                                                              "asin",
                                                              "acos",
                                                              "atan",
                                                              "sinh",
                                                              "cosh",
                                                              "tanh",
                                                              "asinh",
                                                              "acosh",
                                                              "atanh",
                                                              "pow",
                                                              "exp",
                                                              "log",
                                                              "exp2",
                                                              "log2",
                                                              "sqrt",
                                                              "inversesqrt",
                                                              "abs",
                                                              "sign",
                                                              "floor",
                                                              "trunc",
                                                              "round",
                                                              "roundEven",
                                                              "ceil",
                                                              "fract",
                                                              "mod",
                                                              "modf",
                                                              "min",
                                                              "max",
                                                              "clamp",
                                                              "mix",
                                                              "step",
                                                              "smoothstep",
                                                              "isnan",
                                                              "isinf",
                                                              "floatBitsToInt",
                                                              "floatBitsToUint",
                                                              "intBitsToFloat",
                                                              "uintBitsToFloat",
                                                              "packSnorm2x16",
                                                              "unpackSnorm2x16",
                                                              "packUnorm2x16",
                                                              "unpackUnorm2x16",
                                                              "packHalf2x16",
                                                              "unpackHalf2x16",
                                                              "length",
                                                              "distance",
                                                              "dot",
                                                              "cross",
                                                              "normalize",
                                                              "faceforward",
                                                              "reflect",
                                                              "refract",
                                                              "matrixCompMult",
                                                              "outerProduct",
                                                              "transpose",
                                                              "determinant",
                                                              "inverse",
                                                              "lessThan",
                                                              "lessThanEqual",
                                                              "greaterThan",
                                                              "greaterThanEqual",
                                                              "equal",
                                                              "notEqual",
                                                              "any",
                                                              "all",
                                                              "not",
                                                              "textureSize",
                                                              "texture",
                                                              "textureProj",
                                                              "textureLod",
                                                              "textureOffset",
                                                              "texelFetch",
                                                              "texelFetchOffset",
                                                              "textureProjOffset",
                                                              "textureLodOffset",
                                                              "textureProjLod",
                                                              "textureProjLodOffset",
                                                              "textureGrad",
                                                              "textureGradOffset",
                                                              "textureProjGrad",
                                                              "textureProjGradOffset",
                                                              "dFdx",
                                                              "dFdy",
                                                              "fwidth"};

}  // namespace

std::string_view shader_prelude() { return prelude_text; }

bool is_glsl_function(std::string_view name) {
    return !name.empty() && std::find(glsl_functions.begin(), glsl_functions.end(), name) != glsl_functions.end();
}

}  // namespace lacquer
