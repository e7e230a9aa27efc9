#include "core/gpu/glsl_names.h"

#include <algorithm>
#include <array>

#include "core/lang/builtins.h"

namespace lacquer {

namespace {

// Keywords and reserved words of GLSL 3.30 (section 3.6) and GLSL ES 3.00 (section 3.7), from memory, and functions of
// theirs that the formula language does without.
constexpr auto reserved = std::to_array<std::string_view>(
    {"active",      "asm",       "atomic_uint", "attribute", "bool",    "break",     "buffer",        "case",
     "cast",        "centroid",  "class",       "coherent",  "common",  "const",     "continue",      "default",
     "discard",     "do",        "double",      "else",      "enum",    "extern",    "external",      "false",
     "filter",      "fixed",     "flat",        "float",     "for",     "goto",      "half",          "highp",
     "if",          "iimage2D",  "image2D",     "in",        "inline",  "inout",     "input",         "int",
     "interface",   "invariant", "isampler2D",  "layout",    "long",    "lowp",      "main",          "mediump",
     "namespace",   "noinline",  "noise1",      "noise2",    "noise3",  "noise4",    "noperspective", "out",
     "output",      "packed",    "partition",   "patch",     "precise", "precision", "public",        "readonly",
     "resource",    "restrict",  "return",      "row_major", "sample",  "sampler1D", "sampler2D",     "sampler3D",
     "samplerCube", "shared",    "short",       "sizeof",    "smooth",  "static",    "struct",        "subroutine",
     "superp",      "switch",    "template",    "texture",   "this",    "true",      "typedef",       "uint",
     "uniform",     "union",     "unsigned",    "using",     "varying", "void",      "volatile",      "while",
     "writeonly",   "modf",      "frexp",       "ldexp",     "fma",     "abs",       "ceil",          "clamp",
     "cos",         "dot",       "exp",         "floor",     "fract",   "length",    "log",           "max",
     "min",         "mix",       "mod",         "pow",       "round",   "sign",      "sin",           "sqrt",
     "step",        "tan",       "transpose",   "inverse",   "mat4",    "mat2x2",    "mat2x3",        "mat2x4",
     "mat3x2",      "mat3x3",    "mat3x4",      "mat4x2",    "mat4x3",  "mat4x4",    "dvec2",         "dvec3",
     "dvec4",       "dmat2",     "dmat3",       "dmat4",     "dmat2x2", "dmat2x3",   "dmat2x4",       "dmat3x2",
     "dmat3x3",     "dmat3x4",   "dmat4x2",     "dmat4x3",   "dmat4x4", "hvec2",     "hvec3",         "hvec4",
     "fvec2",       "fvec3",     "fvec4",       "vec2",      "vec3",    "vec4",      "ftransform"});

// Keywords of C++ (ISO/IEC 14882:2020, table 5), in which Metal's language is written, and reserved words of HLSL
// (Microsoft's reference, "Reserved words"), both from memory, that GLSL lets through.
constexpr auto reserved_elsewhere =
    std::to_array<std::string_view>({"alignas",     "alignof",       "and",         "and_eq",       "auto",
                                     "bitand",      "bitor",         "catch",       "char",         "co_await",
                                     "co_yield",    "co_return",     "compl",       "concept",      "const_cast",
                                     "consteval",   "constexpr",     "constinit",   "constant",     "decltype",
                                     "delete",      "device",        "dword",       "dynamic_cast", "explicit",
                                     "export",      "fragment",      "friend",      "groupshared",  "kernel",
                                     "lineadj",     "line",          "linear",      "matrix",       "metal",
                                     "mutable",     "new",           "noexcept",    "not",          "not_eq",
                                     "nullptr",     "operator",      "or",          "or_eq",        "pass",
                                     "point",       "private",       "protected",   "register",     "reinterpret_cast",
                                     "requires",    "sampler",       "shared",      "signed",       "snorm",
                                     "stage_in",    "static_assert", "static_cast", "string",       "technique",
                                     "thread",      "thread_local",  "threadgroup", "throw",        "triangle",
                                     "triangleadj", "try",           "typeid",      "typename",     "unorm",
                                     "vector",      "vertex",        "virtual",     "wchar_t",      "xor",
                                     "xor_eq"});

// Vectors and matrices of HLSL and Metal's language: float4, half3x3.
bool is_vector_elsewhere(std::string_view word) {
    const std::size_t stem = word.find_last_not_of("0123456789x") + 1;
    constexpr auto scalars = std::to_array<std::string_view>(
        {"bool", "char", "double", "float", "half", "int", "long", "short", "uchar", "uint", "ulong", "ushort"});
    return stem < word.size() && std::find(scalars.begin(), scalars.end(), word.substr(0, stem)) != scalars.end();
}

}  // namespace

bool is_glsl_reserved(std::string_view word) {
    const auto is_among = [&](const auto& words) { return std::find(words.begin(), words.end(), word) != words.end(); };
    return is_among(reserved) || is_among(reserved_elsewhere) || is_vector_elsewhere(word) || is_builtin_name(word) ||
           word.starts_with("gl_") || word.starts_with("lq_") || word.find("__") != std::string_view::npos;
}

const std::string& GlslNames::name(const std::string& key, std::string_view wish) {
    if (const auto known = names_.find(key); known != names_.end()) return known->second;
    std::string stem;
    for (const char c : wish) {
        const bool doubled = c == '_' && !stem.empty() && stem.back() == '_';
        if (!doubled) stem += c == '.' ? '_' : c;
    }
    if (is_glsl_reserved(stem)) stem = "the_" + stem;
    std::string name = stem;
    for (int n = 2; taken_.contains(name) || is_glsl_reserved(name); ++n) name = stem + "_" + std::to_string(n);
    taken_.insert(name);
    return names_.emplace(key, name).first->second;
}

}  // namespace lacquer
