#include "core/lang/compositions.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <map>
#include <string>
#include <utility>

#include "core/lang/checker.h"

namespace lacquer {

namespace {

using B = Builtin;
constexpr bool whole = false;
constexpr bool by_part = true;

// Formulas of GLSL ES 3.00 chapter 8; where it leaves a result undefined, as the table of built-ins says.
constexpr std::array texts = {
    CompositionText{B::radians, 0, by_part, "degrees * 0.017453292"},
    CompositionText{B::degrees, 0, by_part, "radians * 57.29578"},
    CompositionText{B::mix_choice, 0, by_part, "which ? b : a"},
    CompositionText{B::abs_int, 0, by_part, "max(x, -x)"},
    CompositionText{B::sign_int, 0, by_part, "int(x > 0) - int(x < 0)"},
    CompositionText{B::clamp_int, 0, by_part, "min(max(x, least), most)"},
    CompositionText{B::clamp_uint, 0, by_part, "min(max(x, least), most)"},
    CompositionText{B::length, 0, whole, "sqrt(dot(v, v))"},
    CompositionText{B::distance, 0, whole, "length(a - b)"},
    CompositionText{B::dot, 1, whole, "a * b"},
    CompositionText{B::dot, 2, whole, "a.x * b.x + a.y * b.y"},
    CompositionText{B::dot, 3, whole, "a.x * b.x + a.y * b.y + a.z * b.z"},
    CompositionText{B::dot, 4, whole, "a.x * b.x + a.y * b.y + a.z * b.z + a.w * b.w"},
    CompositionText{B::cross, 0, whole, "vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)"},
    CompositionText{B::normalize, 0, whole, "float size = length(v); return size == 0.0 ? same(0.0) : v / size;"},
    CompositionText{B::faceforward, 0, whole, "dot(reference, i) < 0.0 ? n : -n"},
    CompositionText{B::reflect, 0, whole, "i - 2.0 * dot(n, i) * n"},
    CompositionText{B::refract, 0, whole,
                    "float cosine = dot(n, i); float k = 1.0 - eta * eta * (1.0 - cosine * cosine);"
                    "return k < 0.0 ? same(0.0) : eta * i - (eta * cosine + sqrt(k)) * n;"},
    CompositionText{B::matrix_parts_2, 0, whole, "mat2(a[0] * b[0], a[1] * b[1])"},
    CompositionText{B::matrix_parts_3, 0, whole, "mat3(a[0] * b[0], a[1] * b[1], a[2] * b[2])"},
    CompositionText{B::outer_2, 0, whole, "mat2(column * row.x, column * row.y)"},
    CompositionText{B::outer_3, 0, whole, "mat3(column * row.x, column * row.y, column * row.z)"},
    CompositionText{B::transpose_2, 0, whole, "mat2(m[0].x, m[1].x, m[0].y, m[1].y)"},
    CompositionText{B::transpose_3, 0, whole,
                    "mat3(m[0].x, m[1].x, m[2].x, m[0].y, m[1].y, m[2].y, m[0].z, m[1].z, m[2].z)"},
    CompositionText{B::determinant_2, 0, whole, "m[0].x * m[1].y - m[1].x * m[0].y"},
    CompositionText{B::determinant_3, 0, whole, "dot(m[0], cross(m[1], m[2]))"},
    CompositionText{B::inverse_2, 0, whole, "mat2(m[1].y, -m[0].y, -m[1].x, m[0].x) / determinant(m)"},
    CompositionText{B::inverse_3, 0, whole,
                    "transpose(mat3(cross(m[1], m[2]), cross(m[2], m[0]), cross(m[0], m[1]))) / determinant(m)"},
    CompositionText{B::less_than, 0, by_part, "a < b"},
    CompositionText{B::less_than_equal, 0, by_part, "a <= b"},
    CompositionText{B::greater_than, 0, by_part, "a > b"},
    CompositionText{B::greater_than_equal, 0, by_part, "a >= b"},
    CompositionText{B::equal, 0, by_part, "a == b"},
    CompositionText{B::equal_truth, 0, by_part, "a == b"},
    CompositionText{B::not_equal, 0, by_part, "a != b"},
    CompositionText{B::not_equal_truth, 0, by_part, "a != b"},
    CompositionText{B::any, 1, whole, "v"},
    CompositionText{B::any, 2, whole, "v.x || v.y"},
    CompositionText{B::any, 3, whole, "v.x || v.y || v.z"},
    CompositionText{B::any, 4, whole, "v.x || v.y || v.z || v.w"},
    CompositionText{B::all, 1, whole, "v"},
    CompositionText{B::all, 2, whole, "v.x && v.y"},
    CompositionText{B::all, 3, whole, "v.x && v.y && v.z"},
    CompositionText{B::all, 4, whole, "v.x && v.y && v.z && v.w"},
    CompositionText{B::opposite, 0, by_part, "!v"},
    CompositionText{B::derivative_width, 0, whole, "abs(dFdx(x)) + abs(dFdy(x))"},
    CompositionText{B::premultiply, 4, whole, "vec4(colour.rgb * colour.a, colour.a)"},
    CompositionText{B::premultiply, 0, whole, "colour"},
    CompositionText{B::unpremultiply, 4, whole, "vec4(colour.a == 0.0 ? vec3(0.0) : colour.rgb / colour.a, colour.a)"},
    CompositionText{B::unpremultiply, 0, whole, "colour"},
    CompositionText{B::with_opacity_of, 4, whole, "vec4(colour.rgb, other.a)"},
    CompositionText{B::with_opacity_of, 0, whole, "colour"},
};

using Table = std::map<std::pair<Builtin, Type>, Composition>;

// The function with its parameters spelled out for one first argument.
std::shared_ptr<const TypedFunction> compiled(const CompositionText& composition, LetterTypes general) {
    const BuiltinRow& row = builtin_row(composition.id);
    std::string parameters;
    std::string_view names = row.param_names;
    for (const char letter : row.params) {
        const std::string_view name = names.substr(0, names.find(' '));
        names.remove_prefix(std::min(names.size(), name.size() + 1));
        parameters += (parameters.empty() ? "" : ", ") + std::string(glsl_name(letter_type(letter, general))) + " ";
        parameters += name;
    }
    const std::string type(glsl_name(letter_type(row.result, general)));
    const bool statements = composition.text.ends_with(';');
    const std::string body =
        std::string(statements ? "" : "return ") + std::string(composition.text) + (statements ? "" : ";");
    const std::string text = type + " composed(" + parameters + ") { " + body + " }";
    const Result<Code> code = parse_code(text);
    if (!code) return nullptr;
    Scope scope = step_scope();
    scope.same = letter_type(row.params[0], general);
    const auto functions = check_functions(*code, scope, text);
    return functions ? functions->at("composed") : nullptr;
}

void add(Table& table, const CompositionText& composition, int width, Scalar scalar) {
    const BuiltinRow& row = builtin_row(composition.id);
    const Type first = letter_type(row.params[0], {width, scalar});
    const LetterTypes general{composition.by_part ? 1 : width, scalar};
    Composition made{compiled(composition, general), composition.by_part};
    assert(made.function != nullptr);
    table.try_emplace({composition.id, first}, std::move(made));
}

Table all_compositions() {
    Table table;
    for (const CompositionText& composition : texts) {
        const bool any_kind = builtin_row(composition.id).params[0] == 'a';
        for (const Scalar scalar : {Scalar::real, Scalar::whole, Scalar::natural}) {
            if (scalar != Scalar::real && !any_kind) continue;
            for (int width = 1; width <= 4; ++width) {
                if (composition.width == 0 || composition.width == width) add(table, composition, width, scalar);
            }
        }
    }
    return table;
}

}  // namespace

std::span<const CompositionText> composition_texts() { return texts; }

const Composition* composition_of(Builtin id, Type first) {
    static const Table table = all_compositions();
    const auto found = table.find({id, first});
    return found != table.end() ? &found->second : nullptr;
}

}  // namespace lacquer
