#include "core/lang/completed.h"

#include <fmt/core.h>

#include <algorithm>
#include <cstdint>

#include "core/lang/structural_hash.h"

namespace lacquer {

namespace {

bool assigns(const std::vector<TypedStatement>& statements, int variable) {
    return std::any_of(statements.begin(), statements.end(), [&](const TypedStatement& s) {
        return (s.kind == StatementKind::assign && s.variable == variable) || assigns(s.body, variable) ||
               assigns(s.otherwise, variable) || assigns(s.last, variable);
    });
}

bool is_literal(const Typed& value) { return value.is<Literal>(); }

bool is_variable(const Typed& value, int number) {
    const auto* variable = value.as<VariableHere>();
    return variable != nullptr && variable->number == number;
}

// The turns of all loops in these statements and in the functions that they call.
std::optional<std::int64_t> turns_of(const std::vector<TypedStatement>& statements);

void add_called(const Typed& typed, std::int64_t& total, bool& known) {
    if (const TypedFunction* function = typed.function()) {
        known = known && function->turns.has_value();
        total += function->turns.value_or(0);
    }
    for (const Typed& arg : typed.args) add_called(arg, total, known);
}

std::optional<std::int64_t> turns_of(const std::vector<TypedStatement>& statements) {
    std::int64_t total = 0;
    bool known = true;
    const auto look_for_calls = [&](const std::vector<Typed>& values) {
        for (const Typed& value : values) add_called(value, total, known);
    };
    for (const TypedStatement& s : statements) {
        look_for_calls(s.values);
        const auto body = turns_of(s.body);
        const auto otherwise = turns_of(s.otherwise);
        const auto last = turns_of(s.last);
        const auto first = turns_of(s.first);
        if (!body || !otherwise || !last || !first) return std::nullopt;
        std::int64_t inner = *body + *last;
        if (s.kind == StatementKind::loop) {
            if (!s.turns) return std::nullopt;
            std::int64_t condition = 0;
            for (const Typed& value : s.values) add_called(value, condition, known);
            inner = (1 + inner + condition) * *s.turns;
        }
        total = std::min<std::int64_t>(total + inner + *otherwise + *first, std::int64_t{1} << 40U);
    }
    if (!known) return std::nullopt;
    return total;
}

}  // namespace

bool gives_back(const std::vector<TypedStatement>& statements) {
    if (statements.empty()) return false;
    const TypedStatement& last = statements.back();
    if (last.kind == StatementKind::give_back) return true;
    if (last.kind == StatementKind::block) return gives_back(last.body);
    return last.kind == StatementKind::branch && gives_back(last.body) && gives_back(last.otherwise);
}

std::optional<int> counted_turns(const TypedStatement& loop) {
    if (loop.first.empty() || loop.last.empty() || !loop.values[0].is<BinaryOperation>()) return std::nullopt;
    const TypedStatement& first = loop.first[0];
    const TypedStatement& last = loop.last[0];
    const Typed& condition = loop.values[0];
    const Operator relation = condition.get<BinaryOperation>().op;
    const bool compares = relation == Operator::less || relation == Operator::less_equal ||
                          relation == Operator::greater || relation == Operator::greater_equal ||
                          relation == Operator::equal || relation == Operator::not_equal;
    const bool counts = compares && first.kind == StatementKind::declare && first.values.size() == 1 &&
                        is_literal(first.values[0]) && is_variable(condition.args[0], first.variable) &&
                        is_literal(condition.args[1]) && last.kind == StatementKind::assign &&
                        last.variable == first.variable && last.values[0].is<BinaryOperation>() &&
                        is_variable(last.values[0].args[0], first.variable) && is_literal(last.values[0].args[1]);
    const Operator by = counts ? last.values[0].get<BinaryOperation>().op : Operator::both;
    if ((by != Operator::add && by != Operator::subtract) || assigns(loop.body, first.variable)) return std::nullopt;
    const bool whole = first.values[0].type == Type::integer;
    if (!whole && first.values[0].type != Type::number) return std::nullopt;
    const auto rounded = [&](double x) { return whole ? x : static_cast<double>(static_cast<float>(x)); };
    const double limit = rounded(condition.args[1].get<Literal>().number);
    const double step = rounded(last.values[0].args[1].get<Literal>().number);
    double at = rounded(first.values[0].get<Literal>().number);
    const auto holds = [&] {
        switch (relation) {
            case Operator::less:
                return at < limit;
            case Operator::less_equal:
                return at <= limit;
            case Operator::greater:
                return at > limit;
            case Operator::greater_equal:
                return at >= limit;
            case Operator::not_equal:
                return at != limit;
            default:
                return at == limit;
        }
    };
    int turns = 0;
    while (turns <= max_turns && holds()) {
        ++turns;
        at = rounded(by == Operator::add ? at + step : at - step);
        // Where the counter would wrap around, it is left to be counted as it runs.
        if (whole && (at > 2147483647.0 || at < -2147483648.0)) return std::nullopt;
    }
    return turns;
}

Result<Done> complete(TypedFunction& function, Span where) {
    const auto fault = [&](const char* id, std::string message, std::string mend) {
        return Fault{id, std::move(message), std::move(mend), {{}, where, 0, 0}, Severity::fault};
    };
    function.turns = turns_of(function.body);
    const StructuralHash hash = hash_of(function);
    function.hash = {hash.low, hash.high};
    if (function.size > max_nodes) {
        return fault("lang.too-big", "with the functions it calls, this is too long to compute",
                     "split it into several steps");
    }
    if (function.turns && *function.turns > max_turns) {
        return fault("lang.turns",
                     fmt::format("the loops turn {} times at each pixel; {} is the most", *function.turns, max_turns),
                     "take fewer turns, or work on a smaller picture");
    }
    return Done{};
}

}  // namespace lacquer
