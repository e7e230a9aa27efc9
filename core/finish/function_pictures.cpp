#include "core/finish/function_pictures.h"

namespace lacquer {

namespace {

constexpr FunctionPicture function_picture_list[] = {
    {"texture", "texture(harbour, uv + vec2(0.03 * sin(uv.y * 20), 0))"},
    {"textureLod", "textureLod(harbour, uv, 4 * uv.x)"},
    {"mix", "mix(harbour, chart, uv.x)"},
    {"at", "at(dusk, uv.x)"},
    {"previous", "max(crab, previous(shown, uv + vec2(0.01, 0)) * 0.9)"},
    {"texelFetch",
     "ivec2 p = ivec2(uv * vec2(textureSize(harbour, 0)) / 12.0) * 12; return texelFetch(harbour, p, 0);"},
    {"textureSize",
     "vec2 size = vec2(textureSize(harbour, 0)); return vec4(vec3(mod(floor(uv.x * size.x / 16.0) + floor(uv.y * "
     "size.y / 16.0), 2.0) * 0.3 + uv.x * 0.4), 1.0);"},
    {"cross", "vec3 a = vec3(uv - 0.5, 0.5); return vec4(cross(a, vec3(0.0, 1.0, 0.0)) * 0.5 + 0.5, 1.0);"},
    {"normalize", "vec4(normalize((uv - 0.5) * vec2(aspect, 1)) * 0.5 + 0.5, 0.5, 1)"},
    {"isnan", "return vec4(vec3(isnan(0.0 / floor(uv.x * 4.0)) ? 0.75 : 0.12 + 0.2 * uv.y), 1.0);"},
    {"isinf", "return vec4(vec3(isinf(1.0 / floor(uv.x * 4.0)) ? 0.75 : 0.12 + 0.2 * uv.y), 1.0);"},
    {"floatBitsToInt",
     "int bits = floatBitsToInt(uv.x * 4.0); return vec4(vec3(float(bits >> int(30.0 - uv.y * 14.0) & 1)) * 0.6 + "
     "0.12, 1.0);"},
    {"floatBitsToUint",
     "uint bits = floatBitsToUint(uv.x * 4.0); return vec4(vec3(float(bits >> uint(30.0 - uv.y * 14.0) & 1u)) * 0.6 + "
     "0.12, 1.0);"},
    {"intBitsToFloat", "return vec4(vec3(intBitsToFloat(1056964608 + int(uv.x * 8388608.0)) - 0.5 * uv.y), 1.0);"},
    {"uintBitsToFloat", "return vec4(vec3(uintBitsToFloat(1056964608u + uint(uv.x * 8388608.0)) - 0.5 * uv.y), 1.0);"},
    {"lessThan", "bvec2 b = lessThan(uv, vec2(0.3, 0.6)); return vec4(vec2(b), uv.x * 0.5, 1.0);"},
    {"lessThanEqual", "bvec2 b = lessThanEqual(uv, vec2(0.3, 0.6)); return vec4(vec2(b), uv.x * 0.5, 1.0);"},
    {"greaterThan", "bvec2 b = greaterThan(uv, vec2(0.3, 0.6)); return vec4(vec2(b), uv.x * 0.5, 1.0);"},
    {"greaterThanEqual", "bvec2 b = greaterThanEqual(uv, vec2(0.3, 0.6)); return vec4(vec2(b), uv.x * 0.5, 1.0);"},
    {"equal", "bvec2 b = equal(floor(uv * 6.0), vec2(2.0)); return vec4(vec2(b) * 0.7, uv.x * 0.5, 1.0);"},
    {"notEqual", "bvec2 b = notEqual(floor(uv * 6.0), vec2(2.0)); return vec4(vec2(b) * 0.7, uv.x * 0.5, 1.0);"},
    {"any", "return vec4(vec3(any(lessThan(uv, vec2(0.3, 0.6))) ? 0.75 : 0.12 + 0.2 * uv.x), 1.0);"},
    {"all", "return vec4(vec3(all(lessThan(uv, vec2(0.3, 0.6))) ? 0.75 : 0.12 + 0.2 * uv.x), 1.0);"},
    {"not", "bvec2 b = not(lessThan(uv, vec2(0.3, 0.6))); return vec4(vec2(b), uv.x * 0.5, 1.0);"},
    {"modf",
     "float whole; float rest = modf(uv.x * 4.0, whole); return vec4(vec3(uv.y < 0.5 ? rest : whole / 4.0), 1.0);",
     "what follows the point; what stands before it is given back beside it"},
    {"packUnorm2x16",
     "uint bits = packUnorm2x16(uv); return vec4(vec3(float(bits >> 13u & 1u)) * 0.5 + 0.12 + 0.2 * uv.y, 1.0);",
     "two numbers in 0..1 as 16 bits each of one whole number"},
    {"unpackUnorm2x16", "return vec4(unpackUnorm2x16(packUnorm2x16(floor(uv * 8.0) / 8.0)), 0.5, 1.0);",
     "the two numbers in 0..1 of such a whole number"},
    {"packSnorm2x16",
     "uint bits = packSnorm2x16(uv * 2.0 - 1.0); return vec4(vec3(float(bits >> 12u & 1u)) * 0.5 + 0.12 + 0.2 * uv.y, "
     "1.0);",
     "two numbers in -1..1 as 16 bits each of one whole number"},
    {"unpackSnorm2x16",
     "return vec4(unpackSnorm2x16(packSnorm2x16(floor(uv * 8.0) / 4.0 - 1.0)) * 0.5 + 0.5, 0.5, 1.0);",
     "the two numbers in -1..1 of such a whole number"},
    {"packHalf2x16",
     "uint bits = packHalf2x16(uv); return vec4(vec3(float(bits >> 8u & 1u)) * 0.5 + 0.12 + 0.2 * uv.y, 1.0);",
     "two numbers as halves, 16 bits each of one whole number"},
    {"unpackHalf2x16", "return vec4(unpackHalf2x16(packHalf2x16(uv) & 0xFF00FF00u), 0.5, 1.0);",
     "the two halves of such a whole number"},
    {"determinant", "mat2 m = mat2(uv.x * 2.0, 0.3, uv.y, 1.0); return vec4(vec3(determinant(m)) * 0.5 + 0.2, 1.0);"},
    {"inverse", "mat2 m = mat2(0.8, 0.6, -0.6, 0.8) * 0.7; return texture(harbour, inverse(m) * (uv - 0.5) + 0.5);"},
    {"transpose", "mat2 m = mat2(1.0, 0.0, 0.5, 1.0); return texture(harbour, transpose(m) * (uv - 0.5) + 0.5);"},
    {"outerProduct",
     "mat2 m = outerProduct(vec2(uv.x, 1.0 - uv.x), vec2(uv.y, 1.0 - uv.y)); return vec4(m[0], m[1].x, 1.0);"},
    {"matrixCompMult", "mat2 m = matrixCompMult(mat2(uv, 1.0 - uv), mat2(uv.yx, uv)); return vec4(m[0], m[1].x, 1.0);"},
    {"textureProj", "return textureProj(harbour, vec3(uv, 0.6 + 0.8 * uv.y));",
     "a step or ground read at a place that the last number divides"},
    {"textureProjLod", "return textureProjLod(harbour, vec3(uv, 0.6 + 0.8 * uv.y), 4.0 * uv.x);",
     "the same at a level of growing smallness"},
    {"textureOffset", "return uv.x < 0.5 ? texture(harbour, uv) : textureOffset(harbour, uv, ivec2(0, 7));",
     "a step or ground read so many pixels beside a place"},
    {"textureLodOffset", "return textureLodOffset(harbour, uv, 3.0 * uv.x, ivec2(0, 7));",
     "the same at a level of growing smallness"},
    {"textureProjOffset", "return textureProjOffset(harbour, vec3(uv, 0.6 + 0.8 * uv.y), ivec2(0, 7));",
     "the same at a place that the last number divides"},
    {"textureProjLodOffset", "return textureProjLodOffset(harbour, vec3(uv, 0.6 + 0.8 * uv.y), 2.0, ivec2(0, 7));",
     "the same at a place that the last number divides, at a level of growing smallness"},
    {"texelFetchOffset",
     "ivec2 p = ivec2(uv * vec2(textureSize(harbour, 0))); return uv.x < 0.5 ? texelFetch(harbour, p, 0) : "
     "texelFetchOffset(harbour, p, 0, ivec2(0, 7));",
     "one pixel, so many pixels beside another"},
    {"textureGrad", "return textureGrad(harbour, uv, vec2(0.06 * uv.x, 0.0), vec2(0.0, 0.06 * uv.x));",
     "a step or ground read as large as the steps to the next pixels are"},
    {"textureGradOffset",
     "return textureGradOffset(harbour, uv, vec2(0.06 * uv.x, 0.0), vec2(0.0, 0.06 * uv.x), ivec2(0, 7));",
     "the same so many pixels beside a place"},
    {"textureProjGrad",
     "return textureProjGrad(harbour, vec3(uv, 0.6 + 0.8 * uv.y), vec2(0.06 * uv.x, 0.0), vec2(0.0, 0.06 * uv.x));",
     "the same at a place that the last number divides"},
    {"textureProjGradOffset",
     "return textureProjGradOffset(harbour, vec3(uv, 0.6 + 0.8 * uv.y), vec2(0.06 * uv.x, 0.0), vec2(0.0, 0.06 * "
     "uv.x), ivec2(0, 7));",
     "the same at a place that the last number divides, so many pixels beside it"},
    {"dFdx", "return vec4(vec3(dFdx(harbour.g) * 8.0 + 0.4), 1.0);"},
    {"dFdy", "return vec4(vec3(dFdy(harbour.g) * 8.0 + 0.4), 1.0);"},
    {"fwidth", "return vec4(vec3(fwidth(harbour.g) * 8.0), 1.0);"},
    {"premultiply", "premultiply(crab)"},
    {"unpremultiply", "unpremultiply(crab)"},
    {"with_opacity_of", "with_opacity_of(harbour, crab)"},
    {"hash3", "vec4(hash3(vec3(floor(uv * vec2(aspect, 1) * 12), 1)), 1)"},
    {"length", "vec4(vec3(length((uv - 0.5) * vec2(aspect, 1))), 1)"},
    {"distance", "vec4(vec3(distance((uv - 0.5) * vec2(aspect, 1), vec2(0.3, 0.2)) * 2), 1)"},
    {"dot", "vec4(vec3(dot((uv - 0.5) * vec2(aspect, 1), vec2(0.3, 0.2)) * 2 + 0.3), 1)"},
    {"faceforward",
     "vec3 n = faceforward(vec3(0.0, 0.0, 1.0), vec3(0.0, 0.0, uv.x - 0.5), vec3(0.0, 0.0, 1.0)); return vec4(vec3(n.z "
     "* 0.3 + 0.45) * (0.6 + 0.4 * uv.y), 1.0);"},
    {"reflect",
     "vec2 p = (uv - 0.5) * vec2(aspect, 1.0) * 2.2; float h = sqrt(max(1.0 - dot(p, p), 0.0)); vec3 r = "
     "reflect(vec3(0.0, 0.0, -1.0), vec3(p, h)); return h > 0.0 ? texture(harbour, r.xy * 0.5 + 0.5) : harbour;"},
    {"refract",
     "vec2 p = (uv - 0.5) * vec2(aspect, 1.0) * 2.2; float h = sqrt(max(1.0 - dot(p, p), 0.0)); vec3 r = "
     "refract(vec3(0.0, 0.0, -1.0), vec3(p, h), 0.75); return h > 0.0 ? texture(harbour, uv + r.xy * 0.5) : harbour;"},
};

}  // namespace

std::span<const FunctionPicture> function_pictures() { return function_picture_list; }

}  // namespace lacquer
