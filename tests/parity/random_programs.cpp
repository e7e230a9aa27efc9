#include "tests/parity/random_programs.h"

#include <array>

namespace lacquer::test {

std::string RandomPrograms::make(Type type) {
    counters_ = 0;
    formulas_.names.clear();
    std::string text = function();
    text += "float p = " + value(Type::number) + ";\n";
    text += "vec2 q = " + value(Type::vec2) + ";\n";
    text += "vec3 r = vec3(" + value(Type::number) + ", q);\n";
    text += "int n;\n";
    text += "bool t = " + value(Type::boolean) + ";\n";
    formulas_.names = {{Type::number, {"p", "q.y", "r[2]", "lobe(q, n)"}},
                       {Type::vec2, {"q", "r.xy"}},
                       {Type::vec3, {"r", "r.zxy"}},
                       {Type::integer, {"n"}},
                       {Type::boolean, {"t"}}};
    text += statements(3, 4, false, type);
    return text + "return " + value(type) + ";\n";
}

std::string RandomPrograms::function() {
    std::string text = "float lobe(vec2 from, int k) {\n    if (from.x > 2.0) return 0.5;\n    float sum = from.y;\n";
    if (formulas_.below(2) == 0) {
        text +=
            "    for (int i = 0; i < 3; i++) {\n        if (i == k) return sum;\n        sum = sum * 0.5 + from.x;\n   "
            " }\n";
    }
    return text + "    return sum * 0.25;\n}\n";
}

std::string RandomPrograms::statements(int depth, int count, bool in_loop, Type result) {
    std::string text;
    for (int i = 0; i < count; ++i) text += statement(depth, in_loop, result);
    return text;
}

std::string RandomPrograms::assignment() {
    static const std::array<const char*, 4> marks = {" = ", " += ", " *= ", " -= "};
    switch (formulas_.below(6)) {
        case 0:
            return "p" + std::string(marks[formulas_.below(4)]) + value(Type::number) + ";\n";
        case 1:
            return "q.yx = " + value(Type::vec2) + ";\n";
        case 2:
            return "r[2]" + std::string(marks[formulas_.below(4)]) + value(Type::number) + ";\n";
        case 3:
            return "n = " + value(Type::integer) + ";\n";
        case 4:
            return "t = " + value(Type::boolean) + ";\n";
        default:
            return "r = " + value(Type::vec3) + ";\n";
    }
}

std::string RandomPrograms::loop(int depth, Type result) {
    const std::string i = "i" + std::to_string(counters_++);
    static const std::array<const char*, 5> heads = {"; $ < 4; $++", "; $ < int(uv.x * 5.0); $++",
                                                     "; $ < n && $ < 6; ++$", "; $ < 70; $ += 9",
                                                     "; float($) < clamp(p, 0.0, 5.0); $ = $ + 1"};
    std::string head = "for (int " + i + " = 0" + heads[formulas_.below(heads.size())] + ") {\n";
    for (std::size_t at = head.find('$'); at != std::string::npos; at = head.find('$')) head.replace(at, 1, i);
    return head + statements(depth, 2, true, result) + "}\n";
}

std::string RandomPrograms::statement(int depth, bool in_loop, Type result) {
    if (depth <= 0) return assignment();
    switch (formulas_.below(8)) {
        case 0:
            return "if (" + value(Type::boolean) + ") {\n" + statements(depth - 1, 2, in_loop, result) + "}\n";
        case 1:
            return "if (" + value(Type::boolean) + ") {\n" + statements(depth - 1, 2, in_loop, result) + "} else {\n" +
                   statements(depth - 1, 1, in_loop, result) + "}\n";
        case 2:
            return loop(depth - 1, result);
        case 3:
            if (in_loop)
                return "if (" + value(Type::boolean) + ") " + (formulas_.below(2) == 0 ? "break;\n" : "continue;\n");
            return assignment();
        case 4:
            if (formulas_.below(3) == 0) return "if (" + value(Type::boolean) + ") return " + value(result) + ";\n";
            return assignment();
        default:
            return assignment();
    }
}

}  // namespace lacquer::test
