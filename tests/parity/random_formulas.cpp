#include "tests/parity/random_formulas.h"

#include <array>
#include <utility>

#include "core/base/hash.h"

namespace lacquer::test {

std::uint32_t RandomFormulas::below(std::uint32_t count) {
    state_ = pcg(state_ + 0x9E3779B9U);
    return state_ % count;
}

std::string RandomFormulas::leaf(Type type) {
    static const std::array<const char*, 12> numbers = {"0.5",  "2",    "-1.25",         "a",    "b",       "time",
                                                        "uv.x", "uv.y", "pixel.x * 0.1", "mask", "scene.r", "0"};
    if (const auto known = names.find(type); known != names.end() && below(2) == 0) {
        return known->second[below(static_cast<std::uint32_t>(known->second.size()))];
    }
    switch (type) {
        case Type::number:
            return numbers[below(numbers.size())];
        case Type::vec2:
            return below(2) == 0 ? "uv" : "vec2(a, uv.y)";
        case Type::vec3:
            return below(2) == 0 ? "tint" : "vec3(uv, b)";
        case Type::vec4:
            return below(2) == 0 ? "scene" : "vec4(tint, uv.x)";
        case Type::boolean:
            return below(2) == 0 ? "wet" : "(uv.x < 0.4)";
        case Type::integer:
            return below(2) == 0 ? "int(pixel.x)" : "int(a * 7)";
        case Type::natural:
            return below(2) == 0 ? "uint(pixel.y)" : "19u";
        case Type::ivec2:
            return below(2) == 0 ? "ivec2(pixel)" : "ivec2(3, -4)";
        case Type::bvec2:
            return below(2) == 0 ? "lessThan(uv, vec2(a, 0.6))" : "bvec2(wet, uv.x < 0.5)";
        case Type::mat2:
            return below(2) == 0 ? "mat2(uv, a, b)" : "mat2(0.5)";
        default:
            break;
    }
    return "0";
}

// Where not all pixels need come: no derivatives.
std::string RandomFormulas::sometimes(Type type, int depth) {
    const bool outside = std::exchange(derivatives, false);
    std::string text = make(type, depth);
    derivatives = outside;
    return text;
}

std::string RandomFormulas::truth(int depth) {
    const auto n = [&] { return make(Type::number, depth); };
    const auto t = [&] { return make(Type::boolean, depth); };
    static const std::array<const char*, 6> comparisons = {" < ", " > ", " <= ", " >= ", " == ", " != "};
    switch (below(8)) {
        case 0:
            return "(" + t() + " && " + sometimes(Type::boolean, depth) + ")";
        case 1:
            return "(" + t() + " || " + sometimes(Type::boolean, depth) + ")";
        case 2:
            return "(" + t() + " ^^ " + t() + ")";
        case 3:
            return "!" + t();
        case 6:
            return std::string(below(2) == 0 ? "any(" : "all(") + make(Type::bvec2, depth) + ")";
        case 7:
            return "(" + make(Type::natural, depth) + comparisons[below(6)] + make(Type::natural, depth) + ")";
        case 4:
            return "(" + make(Type::integer, depth) + comparisons[below(6)] + make(Type::integer, depth) + ")";
        default:
            return "(" + n() + comparisons[below(4)] + n() + ")";
    }
}

std::string RandomFormulas::whole(Type type, int depth) {
    static const std::array<const char*, 10> marks = {" + ", " - ", " * ", " / ",  " % ",
                                                      " & ", " | ", " ^ ", " << ", " >> "};
    const auto i = [&] { return make(type, depth); };
    const bool natural = type == Type::natural;
    switch (below(6)) {
        case 0:
            return "min(" + i() + ", " + i() + ")";
        case 1:
            return natural ? "uint(" + make(Type::number, depth) + ")" : "abs(" + i() + ")";
        case 2:
            return "clamp(" + i() + (natural ? ", 3u, " : ", int(-3), ") + i() + ")";
        case 3:
            return natural ? "uint(" + make(Type::integer, depth) + ")" : "sign(" + i() + ")";
        default:
            return "(" + i() + marks[below(marks.size())] + i() + ")";
    }
}

std::string RandomFormulas::number(int depth) {
    const auto n = [&] { return make(Type::number, depth); };
    static const std::array<const char*, 4> marks = {" + ", " - ", " * ", " / "};
    static const std::array<const char*, 26> one = {
        "sin",  "cos",         "abs",   "floor",     "ceil",    "fract",   "sqrt", "exp2", "atan",
        "sign", "trunc",       "round", "tanh",      "radians", "degrees", "asin", "acos", "log2",
        "exp",  "inversesqrt", "asinh", "roundEven", "tan",     "cosh",    "log",  "atanh"};
    static const std::array<const char*, 6> two = {"min", "max", "mod", "step", "atan", "pow"};
    switch (below(16)) {
        case 15:
            return "(" + sometimes(below(2) == 0 ? Type::vec3 : Type::vec4, depth) + ")[" +
                   (below(2) == 0 ? make(Type::integer, depth) : "uv.x * 5 - " + make(Type::number, depth)) + "]";
        case 0:
            return std::string(one[below(one.size())]) + "(" + n() + ")";
        case 1:
            return std::string(two[below(two.size())]) + "(" + n() + ", " + n() + ")";
        case 2:
            return "smoothstep(" + n() + ", " + n() + ", " + n() + ")";
        case 3:
            return "mix(" + n() + ", " + n() + ", " + n() + ")";
        case 4:
            return "clamp(" + n() + ", -0.5, 0.75)";
        case 5:
            return "(" + make(Type::boolean, depth) + " ? " + sometimes(Type::number, depth) + " : " +
                   sometimes(Type::number, depth) + ")";
        case 6:
            return "length(" + make(below(2) == 0 ? Type::vec2 : Type::vec3, depth) + ")";
        case 7:
            return "dot(" + make(Type::vec3, depth) + ", " + make(Type::vec3, depth) + ")";
        case 8:
            return "gradient_noise(" + make(below(2) == 0 ? Type::vec2 : Type::vec3, depth) + " * 3)";
        case 9:
            return "value_noise(" + make(below(2) == 0 ? Type::vec2 : Type::vec3, depth) + " * 3)";
        case 10:
            return "hash(" + make(below(2) == 0 ? Type::vec2 : Type::vec3, depth) + " * 5)";
        case 11:
            return "float(" + make(Type::integer, depth) + ")";
        case 12:
            return "texture(mask, " + make(Type::vec2, depth) + ")";
        default:
            return "(" + n() + marks[below(4)] + n() + ")";
    }
}

std::string RandomFormulas::vector(Type type, int depth) {
    const auto v = [&] { return make(type, depth); };
    const auto n = [&] { return make(Type::number, depth); };
    static const std::array<const char*, 4> marks = {" + ", " - ", " * ", " / "};
    static const std::array<const char*, 3> small = {"(uv * 3).yx", "tint.zxy", "scene.wzyx"};
    switch (below(derivatives ? 11 : 9)) {
        case 9:
            return type == Type::vec2 ? "(" + make(Type::mat2, depth) + " * " + v() + ")" : "fwidth(" + v() + ")";
        case 10:
            return type == Type::vec2   ? "vec2(" + make(Type::ivec2, depth) + ")"
                   : type == Type::vec4 ? "textureLod(scene, uv, " + n() + ")"
                                        : "dFdx(" + v() + ") + dFdy(" + v() + ")";
        case 0:
            return "mix(" + v() + ", " + v() + ", " + n() + ")";
        case 1:
            return "normalize(" + v() + ")";
        case 2:
            return "reflect(" + v() + ", " + v() + ")";
        case 3:
            return "(" + v() + marks[below(4)] + n() + ")";
        case 4:
            return "(" + make(Type::boolean, depth) + " ? " + sometimes(type, depth) + " : " + sometimes(type, depth) +
                   ")";
        case 5:
            return type == Type::vec4   ? "texture(scene, " + make(Type::vec2, depth) + ")"
                   : type == Type::vec3 ? "hash3(" + v() + " * 4)"
                                        : "faceforward(" + v() + ", " + v() + ", uv)";
        case 6:
            return type == Type::vec4   ? "(" + v() + " * " + make(Type::vec3, depth) + ")"
                   : type == Type::vec3 ? "cross(" + v() + ", " + v() + ")"
                                        : "refract(" + v() + ", " + v() + ", 0.8)";
        case 7:
            return small[static_cast<std::size_t>(width_of(type)) - 2];
        default:
            return "(" + v() + marks[below(4)] + v() + ")";
    }
}

std::string RandomFormulas::make(Type type, int depth) {
    if (depth <= 0 || below(5) == 0) return leaf(type);
    switch (type) {
        case Type::boolean:
            return truth(depth - 1);
        case Type::integer:
        case Type::natural:
        case Type::ivec2:
            return whole(type, depth - 1);
        case Type::bvec2:
            return "not(" + make(Type::bvec2, depth - 1) + ")";
        case Type::mat2:
            return "(" + make(Type::mat2, depth - 1) + " * " + make(Type::mat2, depth - 1) + ")";
        case Type::number:
            return number(depth - 1);
        default:
            break;
    }
    return vector(type, depth - 1);
}

}  // namespace lacquer::test
