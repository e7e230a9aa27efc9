#include "tests/parity/builtin_calls.h"

#include <algorithm>
#include <map>
#include <vector>

namespace lacquer::test {

std::string formula_of(const BuiltinRow& row) {
    static const std::map<char, std::vector<std::string>> arguments = {
        {'g', {"(uv * 2.7 - 1.1)"}},
        {'f', {"(uv.x * 3.3 - 1.4)"}},
        {'2', {"(uv * 5)"}},
        {'3', {"(tint + vec3(uv, a) * 4)"}},
        {'B', {"bvec2(uv.x < 0.5, uv.y < 0.3)", "bvec2(wet, uv.x < 0.7)"}},
        {'i', {"int(pixel.x - 5.0)"}},
        {'I', {"ivec2(pixel - 2.0)"}},
        {'w', {"ivec2(pixel - 5.0)", "ivec2(3, -2)", "ivec2(pixel.yx)"}},
        {'n', {"uvec2(pixel)", "uvec2(3, 7)", "uvec2(pixel.yx)"}},
        {'a', {"floor(uv * 4.0)", "floor(uv.yx * 4.0)"}},
        {'m', {"mat2(uv, a, b)", "mat2(1.5, uv, -2.0)"}},
        {'M', {"mat3(tint, vec3(uv, a), vec3(b, 2.0, uv.y))", "mat3(2.0)"}},
        {'p', {"scene"}},
        {'t', {"ramp"}}};
    std::string formula = std::string(row.name) + "(";
    for (std::size_t i = 0; i < row.params.size(); ++i) {
        const std::vector<std::string>& choices = arguments.at(row.params[i]);
        formula += (i == 0 ? "" : ", ") + choices[std::min(i, choices.size() - 1)];
    }
    formula += ")";
    switch (row.result) {
        case 'B':
            return "dot(vec2(" + formula + "), vec2(1, 2))";
        case 'w':
        case 'n':
        case 'I':
            return "vec2(" + formula + ")";
        case 'm':
            return formula + " * vec2(1, 0.5)";
        case 'M':
            return formula + " * vec3(1, 0.5, -2)";
        default:
            return formula;
    }
}

}  // namespace lacquer::test
