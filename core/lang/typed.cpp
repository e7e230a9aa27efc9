#include "core/lang/typed.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/lang/tree_printer.h"

namespace lacquer {

namespace {

// Functions that this one calls, innermost first, each once.
void collect_functions(const Typed& typed, std::vector<const TypedFunction*>& functions) {
    const auto look = [&](const Typed& node) {
        const TypedFunction* function = node.function();
        if (function == nullptr || function->name.empty()) return;
        if (std::find(functions.begin(), functions.end(), function) == functions.end()) functions.push_back(function);
    };
    visit_nodes(typed, look);
    std::reverse(functions.begin(), functions.end());
}

// The language itself, with brackets round every operator.
class FormulaText final : public TreePrinter {
private:
    std::string literal(const Typed& t, int /*strength*/) override {
        const double number = t.get<Literal>().number;
        if (t.type == Type::boolean) return number != 0 ? "true" : "false";
        std::string text = shortest_number(number);
        if (t.type == Type::natural) return text + "u";
        if (t.type == Type::number && text.find_first_of(".en") == std::string::npos) text += ".0";
        return text;
    }
    std::string symbol(const Typed& t) override { return t.get<NameHere>().name; }
    std::string variable(int /*number*/, const std::string& name) override { return name; }
    std::string convert(const Typed& t) override { return std::string(glsl_name(t.type)) + "(" + list(t.args) + ")"; }
    // 3 with 4 numbers need no more words: the language keeps the opacity by itself.
    std::string binary(const Typed& t, int /*strength*/) override {
        return "(" + expression(t.args[0], 1) + " " + std::string(operator_mark(t.get<BinaryOperation>().op)) + " " +
               expression(t.args[1], 1) + ")";
    }
    std::string call(const Typed& t) override {
        return std::string(builtin_row(t.get<BuiltinCall>().builtin).name) + "(" + list(t.args) + ")";
    }
    std::string read(const Typed& t) override {
        const auto& [builtin, name, symbol, weighed] = t.get<PictureReading>();
        return std::string(builtin_row(builtin).name) + "(" + name + (t.args.empty() ? "" : ", " + list(t.args)) + ")";
    }
    std::string run(const Typed& t) override {
        const std::string& name = t.get<FunctionRun>().name;
        return name.empty() ? code(t) : name + "(" + list(t.args) + ")";
    }
    const char* part_letters(Type /*type*/) const override { return "xyzw"; }

    std::string code(const Typed& t) {
        std::vector<const TypedFunction*> functions;
        collect_functions(t, functions);
        std::string text = "{\n";
        for (const TypedFunction* function : functions) text += function_text(*function, function->name, 1);
        set_function(t.function());
        text += statements(t.function()->body, 1) + "}";
        set_function(nullptr);
        return text;
    }
};

}  // namespace

std::string to_text(const Typed& typed) { return FormulaText().expression(typed, 0); }

namespace {

// Those whose spans lie in the text at hand.
template <class Visit>
void visit_own_nodes(const Typed& typed, Visit& visit) {
    visit(typed);
    for (const Typed& arg : typed.args) visit_own_nodes(arg, visit);
    if (typed.function() == nullptr || typed.function()->foreign) return;
    const auto inner = [&](const Typed& node) {
        const bool own = node.function() == nullptr || !node.function()->foreign;
        if (own) visit(node);
    };
    visit_nodes(typed.function()->body, inner);
}

}  // namespace

bool counts_turns(const Typed& typed) {
    return (typed.function() != nullptr && !typed.function()->turns) ||
           std::any_of(typed.args.begin(), typed.args.end(), counts_turns);
}

std::vector<AdaptationMark> adaptations(const Typed& typed) {
    std::vector<AdaptationMark> marks;
    const auto collect = [&](const Typed& node) {
        if (node.adaptation != Adaptation::none) marks.push_back({node.adaptation, node.span});
    };
    visit_own_nodes(typed, collect);
    return marks;
}

const std::string* name_of(const Typed& typed) {
    if (const auto* here = typed.as<NameHere>()) return &here->name;
    const auto* there = typed.as<PictureReading>();
    return there != nullptr ? &there->name : nullptr;
}

SymbolKind symbol_of(const Typed& typed) {
    if (const auto* here = typed.as<NameHere>()) return here->symbol;
    const auto* there = typed.as<PictureReading>();
    return there != nullptr ? there->symbol : SymbolKind::known;
}

std::string_view operator_mark(Operator op) {
    switch (op) {
        case Operator::add:
            return "+";
        case Operator::subtract:
            return "-";
        case Operator::multiply:
            return "*";
        case Operator::divide:
            return "/";
        case Operator::remainder:
            return "%";
        case Operator::shift_left:
            return "<<";
        case Operator::shift_right:
            return ">>";
        case Operator::less:
            return "<";
        case Operator::greater:
            return ">";
        case Operator::less_equal:
            return "<=";
        case Operator::greater_equal:
            return ">=";
        case Operator::equal:
            return "==";
        case Operator::not_equal:
            return "!=";
        case Operator::bit_and:
            return "&";
        case Operator::bit_xor:
            return "^";
        case Operator::bit_or:
            return "|";
        case Operator::both:
            return "&&";
        case Operator::either_one:
            return "^^";
        case Operator::either:
            return "||";
        case Operator::negate:
            return "-";
        case Operator::invert:
            return "!";
        case Operator::bit_invert:
            return "~";
    }
    return "";
}

}  // namespace lacquer
