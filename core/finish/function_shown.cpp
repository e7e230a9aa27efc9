#include "core/finish/function_shown.h"

#include <algorithm>
#include <string>
#include <utility>

#include "core/finish/function_pictures.h"
#include "core/shader/prelude.h"

namespace lacquer {

namespace {

// What numbers are handed over: in 0..1, above 0, or on both sides of it.
enum class Reach { unit, positive, wide };

// The first grows across, the second down, the third stays.
std::string number_for(std::size_t nth, Reach reach) {
    if (nth > 1) return "0.5";
    if (reach == Reach::unit) return nth == 0 ? "uv.x" : "uv.y";
    if (nth == 1) return "(uv.y * 4.5 - 2.25)";
    return reach == Reach::positive ? "(uv.x * 8)" : "(uv.x * 8 - 4)";
}

std::string argument_for(char letter, std::size_t nth, Reach reach) {
    switch (letter) {
        case '2':
            return nth == 0 ? "(uv * vec2(aspect, 1) * 5)" : "vec2(0.3, 0.6)";
        case '3':
            return nth == 0 ? "vec3(uv * vec2(aspect, 1) * 5, 0.5)" : "vec3(0.2, 0.9, 0.4)";
        case 'f':
            return nth == 0 ? number_for(0, reach) : "3.0";
        case 'p':
            return "harbour";
        case 'g':
            return number_for(nth, reach);
        default:
            return {};
    }
}

bool is_one_of(Builtin id, std::initializer_list<Builtin> ids) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

// Of what takes numbers and gives one.
std::string shown_row(const BuiltinRow& row) {
    using B = Builtin;
    const bool noise = row.id >= B::hash_1 && row.id <= B::fractal_cellular_3;
    const bool scalar = row.result == 'f' || row.result == 'g';
    if (!scalar) return {};
    const bool unit = is_one_of(row.id, {B::asin, B::acos, B::atanh, B::clamp, B::step, B::smoothstep});
    const bool positive = is_one_of(row.id, {B::pow, B::sqrt, B::inversesqrt, B::log, B::log2});
    const Reach reach = unit ? Reach::unit : positive ? Reach::positive : Reach::wide;
    std::string args;
    for (std::size_t k = 0; k < row.params.size(); ++k) {
        const std::string arg = argument_for(row.params[k], k, reach);
        if (arg.empty()) return {};
        args += (k == 0 ? "" : ", ") + arg;
    }
    if (is_one_of(row.id, {B::clamp})) args = "uv.x, 0.3, 0.7";
    if (row.id == B::smoothstep) args = "0.2, 0.8, uv.x";
    if (row.id == B::step) args = "0.4, uv.x";
    const std::string value = std::string(row.name) + "(" + args + ")";
    if (noise) return "vec4(vec3(" + value + "), 1)";
    // As a curve over a line through its middle: light below it.
    if (row.params.size() == 1 || is_one_of(row.id, {B::clamp, B::step, B::smoothstep}))
        return "vec4(vec3(" + std::string(unit ? "uv.y > 1 - " : "2.25 - uv.y * 4.5 < ") + value +
               " ? 0.75 : 0.12), 1)";
    return "vec4(vec3(0.5 + 0.15 * " + value + "), 1)";
}

// The heads of all functions of a name in GLSL text, without what they do.
std::vector<std::string> heads_in(std::string_view text, std::string_view name) {
    std::vector<std::string> heads;
    const std::string call = " " + std::string(name) + "(";
    for (std::size_t begin = 0; begin < text.size();) {
        const std::size_t end = std::min(text.find('\n', begin), text.size());
        const std::string_view line = text.substr(begin, end - begin);
        const std::size_t word = line.find(' ');
        const bool is_head = !line.empty() && word != std::string_view::npos && word > 0 && word == line.find(call);
        if (is_head) heads.emplace_back(line.substr(0, line.find(')') + 1));
        begin = end + 1;
    }
    return heads;
}

}  // namespace

std::optional<ShownFunction> shown_function(std::string_view name) {
    ShownFunction shown;
    for (const BuiltinRow& row : builtin_rows()) {
        if (row.name != name) continue;
        shown.rows.push_back({signature_text(row), std::string(row.words)});
        if (shown.formula.empty()) shown.formula = shown_row(row);
    }
    for (const FunctionPicture& picture : function_pictures()) {
        if (picture.name != name) continue;
        shown.formula = picture.code;
        for (std::string& head : heads_in(shader_prelude(), name))
            shown.rows.push_back({std::move(head), std::string(picture.words)});
    }
    if (shown.rows.empty()) return std::nullopt;
    return shown;
}

}  // namespace lacquer
