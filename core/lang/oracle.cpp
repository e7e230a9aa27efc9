#include "core/lang/oracle.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "core/base/overloaded.h"
#include "core/lang/compositions.h"
#include "core/lang/oracle_builtins.h"

namespace lacquer {

namespace {

std::int32_t wrap(std::uint32_t x) { return static_cast<std::int32_t>(x); }
std::uint32_t bits(std::int32_t x) { return static_cast<std::uint32_t>(x); }

std::int32_t quotient(std::int32_t a, std::int32_t b) {
    if (b == 0) return 0;
    return b == -1 ? wrap(0U - bits(a)) : a / b;
}

std::int32_t whole_binary(Operator op, bool natural, std::int32_t a, std::int32_t b) {
    switch (op) {
        case Operator::add:
            return wrap(bits(a) + bits(b));
        case Operator::subtract:
            return wrap(bits(a) - bits(b));
        case Operator::multiply:
            return wrap(bits(a) * bits(b));
        case Operator::divide:
            if (natural) return b == 0 ? 0 : wrap(bits(a) / bits(b));
            return quotient(a, b);
        case Operator::remainder:
            if (natural) return b == 0 ? 0 : wrap(bits(a) % bits(b));
            return b == 0 ? 0 : wrap(bits(a) - bits(quotient(a, b)) * bits(b));
        case Operator::shift_left:
            return wrap(bits(a) << (bits(b) & 31U));
        case Operator::shift_right:
            return natural ? wrap(bits(a) >> (bits(b) & 31U)) : a >> (bits(b) & 31U);
        case Operator::bit_and:
            return wrap(bits(a) & bits(b));
        case Operator::bit_or:
            return wrap(bits(a) | bits(b));
        default:
            return wrap(bits(a) ^ bits(b));
    }
}

float float_binary(Operator op, float a, float b) {
    switch (op) {
        case Operator::add:
            return a + b;
        case Operator::subtract:
            return a - b;
        case Operator::multiply:
            return a * b;
        default:
            return a / b;
    }
}

template <class T>
bool compare(Operator op, T a, T b) {
    switch (op) {
        case Operator::less:
            return a < b;
        case Operator::greater:
            return a > b;
        case Operator::less_equal:
            return a <= b;
        case Operator::greater_equal:
            return a >= b;
        default:
            return a == b;
    }
}

bool is_comparison(Operator op) {
    return op == Operator::less || op == Operator::greater || op == Operator::less_equal ||
           op == Operator::greater_equal || op == Operator::equal || op == Operator::not_equal;
}

std::size_t width(Type type) { return static_cast<std::size_t>(width_of(type)); }

// What a run of statements came to.
enum class Way { onward, left, skipped, gave_back };

// A function that is being run.
struct Call {
    const TypedFunction* function = nullptr;
    std::vector<Value> variables;
    Value result;
};

class Oracle {
public:
    Oracle(const OracleInputs& inputs, const Typed& root)
        : inputs_(inputs), root_(root), counts_turns_(counts_turns(root)) {}

    Value value(const Typed& t) {
        return std::visit(
            Overloaded{
                [&](const Literal& node) { return literal(t.type, node.number); },
                [&](const NameHere& node) { return inputs_.name(node.name, t.type, dx_, dy_); },
                [&](const VariableHere& node) { return call_->variables[static_cast<std::size_t>(node.number)]; },
                [&](const PartsOf& node) { return take_parts(t, node); },
                [&](const Construction&) { return construct(t); }, [&](const Conversion&) { return convert(t); },
                [&](const UnaryOperation& node) { return unary(t, node.op); },
                [&](const BinaryOperation& node) { return binary(t, node); },
                [&](const ConditionalChoice&) {
                    return value(value(t.args[0]).wholes[0] != 0 ? t.args[1] : t.args[2]);
                },
                [&](const BuiltinCall& node) { return call(t, node.builtin); },
                [&](const PictureReading& node) { return read(t, node); },
                [&](const FunctionRun& node) { return run(*node.function, values(t.args)); }},
            t.node);
    }

private:
    static Value literal(Type type, double number) {
        if (type == Type::boolean) return make_boolean(number != 0);
        if (type == Type::integer) return make_integer(static_cast<std::int32_t>(number));
        if (type == Type::natural) {
            const double held = std::min(number, 4294967295.0);
            return {Type::natural, {}, {wrap(static_cast<std::uint32_t>(held))}};
        }
        return make_number(static_cast<float>(number));
    }

    std::vector<Value> values(std::span<const Typed> args) {
        std::vector<Value> made;
        for (const Typed& arg : args) made.push_back(value(arg));
        return made;
    }

    Value take_parts(const Typed& t, const PartsOf& which) {
        const Value whole = value(t.args[0]);
        Value taken{t.type, {}, {}};
        for (std::size_t i = 0; i < static_cast<std::size_t>(which.count); ++i) {
            taken.parts[i] = whole.parts[which.parts[i]];
            // Matrices have no whole numbers.
            if (scalar_of(t.type) != Scalar::real) taken.wholes[i] = whole.wholes[which.parts[i]];
        }
        return taken;
    }

    Value construct(const Typed& t) {
        Value made{t.type, {}, {}};
        const Value first = value(t.args[0]);
        if (is_matrix(t.type) && t.args.size() == 1 && (is_matrix(first.type) || width(first.type) == 1)) {
            return diagonal(t.type, first);
        }
        std::size_t at = 0;
        for (std::size_t n = 0; n < t.args.size(); ++n) {
            const Value part = n == 0 ? first : value(t.args[n]);
            for (std::size_t i = 0; i < width(part.type) && at < width(t.type); ++i, ++at) {
                made.parts[at] = part.parts[i];
                if (scalar_of(t.type) != Scalar::real) made.wholes[at] = part.wholes[i];
            }
        }
        if (at == 1) {
            std::fill_n(made.parts.begin(), width(t.type), made.parts[0]);
            std::fill_n(made.wholes.begin(), std::min<std::size_t>(width(t.type), 4), made.wholes[0]);
        }
        return made;
    }

    // A matrix from a number on its diagonal, or from the corner of another, else from the unit matrix.
    static Value diagonal(Type type, const Value& from) {
        Value made{type, {}, {}};
        const int side = side_of(type);
        for (int c = 0; c < side; ++c) {
            for (int r = 0; r < side; ++r) {
                float& cell = made.parts[static_cast<std::size_t>(c * side + r)];
                if (!is_matrix(from.type)) {
                    cell = c == r ? from.parts[0] : 0.0F;
                } else {
                    const int old = side_of(from.type);
                    const bool inside = c < old && r < old;
                    cell = inside ? from.parts[static_cast<std::size_t>(c * old + r)] : (c == r ? 1.0F : 0.0F);
                }
            }
        }
        return made;
    }

    Value convert(const Typed& t) {
        const Value from = value(t.args[0]);
        Value made{t.type, {}, {}};
        for (std::size_t i = 0; i < width(t.type); ++i) {
            const bool real = scalar_of(from.type) == Scalar::real;
            switch (scalar_of(t.type)) {
                case Scalar::real:
                    made.parts[i] = as_float(from, static_cast<int>(i));
                    break;
                case Scalar::truth:
                    made.wholes[i] = (real ? from.parts[i] != 0.0F : from.wholes[i] != 0) ? 1 : 0;
                    break;
                case Scalar::whole:
                    made.wholes[i] = real ? to_whole(from.parts[i]) : from.wholes[i];
                    break;
                case Scalar::natural:
                    made.wholes[i] = real ? wrap(to_natural(from.parts[i])) : from.wholes[i];
                    break;
            }
        }
        return made;
    }

    Value unary(const Typed& t, Operator op) {
        Value v = value(t.args[0]);
        if (op == Operator::invert) return make_boolean(v.wholes[0] == 0);
        for (std::int32_t& whole : v.wholes)
            whole = op == Operator::bit_invert ? wrap(~bits(whole)) : wrap(0U - bits(whole));
        for (float& part : v.parts) part = -part;
        return v;
    }

    Value binary(const Typed& t, const BinaryOperation& operation) {
        const Value a = value(t.args[0]);
        const Value b = value(t.args[1]);
        const Operator op = operation.op;
        switch (op) {
            case Operator::both:
                return make_boolean(a.wholes[0] != 0 && b.wholes[0] != 0);
            case Operator::either:
                return make_boolean(a.wholes[0] != 0 || b.wholes[0] != 0);
            case Operator::either_one:
                return make_boolean(a.wholes[0] != b.wholes[0]);
            default:
                break;
        }
        if (is_comparison(op)) return make_boolean(holds(op, t.args[0].type, a, b));
        if (is_matrix(a.type) || is_matrix(b.type)) return matrix(op, t.type, a, b);
        Value made{t.type, {}, {}};
        for (std::size_t i = 0; i < width(t.type); ++i) {
            if (is_whole(t.type)) {
                made.wholes[i] = whole_binary(op, scalar_of(t.type) == Scalar::natural, a.wholes[i], b.wholes[i]);
            } else {
                made.parts[i] = float_binary(op, a.parts[i], b.parts[i]);
            }
        }
        if (operation.opacity_of >= 0) made.parts[3] = (operation.opacity_of == 0 ? a : b).parts[3];
        return made;
    }

    static Value matrix(Operator op, Type type, const Value& a, const Value& b) {
        Value made{type, {}, {}};
        const bool product = op == Operator::multiply && width(a.type) > 1 && width(b.type) > 1;
        if (!product) {
            for (std::size_t i = 0; i < width(type); ++i) {
                made.parts[i] =
                    float_binary(op, a.parts[width(a.type) == 1 ? 0 : i], b.parts[width(b.type) == 1 ? 0 : i]);
            }
            return made;
        }
        // Rows of the left times columns of the right; a vector on the left is a row, on the right a column.
        const auto side = static_cast<std::size_t>(side_of(is_matrix(a.type) ? a.type : b.type));
        const std::size_t columns = is_matrix(b.type) ? side : 1;
        const std::size_t rows = is_matrix(a.type) ? side : 1;
        for (std::size_t c = 0; c < columns; ++c) {
            for (std::size_t r = 0; r < rows; ++r) {
                float sum = 0;
                for (std::size_t k = 0; k < side; ++k) {
                    const float product_k = a.parts[k * rows + r] * b.parts[c * side + k];
                    sum = k == 0 ? product_k : sum + product_k;
                }
                made.parts[c * rows + r] = sum;
            }
        }
        return made;
    }

    static bool holds(Operator op, Type type, const Value& a, const Value& b) {
        bool result = true;
        for (std::size_t i = 0; i < width(type); ++i) {
            if (scalar_of(type) == Scalar::real) {
                result = result && compare(op, a.parts[i], b.parts[i]);
            } else if (scalar_of(type) == Scalar::natural) {
                result = result && compare(op, bits(a.wholes[i]), bits(b.wholes[i]));
            } else {
                result = result && compare(op, a.wholes[i], b.wholes[i]);
            }
        }
        return op == Operator::not_equal ? !result : result;
    }

    Value call(const Typed& t, Builtin builtin) {
        if (builtin == Builtin::derivative_x || builtin == Builtin::derivative_y) return derivative(t, builtin);
        const Composition* composed = composition_of(builtin, t.args[0].type);
        std::array<Value, 3> args{};
        for (std::size_t i = 0; i < t.args.size(); ++i) args[i] = value(t.args[i]);
        if (composed == nullptr) return call_builtin(builtin, t.type, args);
        const std::span<const Value> given(args.data(), t.args.size());
        return composed->by_part ? run_by_part(*composed->function, t.type, given) : run(*composed->function, given);
    }

    Value run_by_part(const TypedFunction& function, Type type, std::span<const Value> args) {
        Value made{type, {}, {}};
        std::array<Value, 3> parts{};
        for (std::size_t i = 0; i < width(type); ++i) {
            for (std::size_t k = 0; k < args.size(); ++k)
                parts[k] = {function.variables[k].type, {args[k].parts[i]}, {args[k].wholes[i]}};
            const Value part = run(function, std::span<const Value>(parts.data(), args.size()));
            made.parts[i] = part.parts[0];
            made.wholes[i] = part.wholes[0];
        }
        return made;
    }

    // The difference between the two pixels of this one's row, or column, of the 2 x 2 block. The neighbour's value is
    // found by computing all anew over there, up to the same derivative: derivatives stand only where all pixels come
    // the same way, so counting them finds it.
    Value derivative(const Typed& t, Builtin builtin) {
        const int index = derivatives_++;
        const Value here = value(t.args[0]);
        if (index == wanted_) captured_ = here;
        if (wanted_ >= 0 && index >= wanted_) return Value{t.type, {}, {}};
        const auto along = [&](int dx, int dy) {
            Oracle there(inputs_, root_);
            there.dx_ = dx_ + dx;
            there.dy_ = dy_ + dy;
            there.wanted_ = index;
            there.value(root_);
            const bool back = dx + dy < 0;
            Value made{t.type, {}, {}};
            for (std::size_t i = 0; i < width(t.type); ++i) {
                const float other = there.captured_.parts[i];
                made.parts[i] = back ? here.parts[i] - other : other - here.parts[i];
            }
            return made;
        };
        const bool right = inputs_.right != (dx_ != 0);
        const bool lower = inputs_.lower != (dy_ != 0);
        return builtin == Builtin::derivative_x ? along(right ? -1 : 1, 0) : along(0, lower ? -1 : 1);
    }

    Value read(const Typed& t, const PictureReading& node) { return inputs_.picture(node, t.type, values(t.args)); }

    Value run(const TypedFunction& function, std::span<const Value> args) {
        Call call;
        call.function = &function;
        call.variables.assign(args.begin(), args.end());
        for (std::size_t i = args.size(); i < function.variables.size(); ++i)
            call.variables.push_back(Value{function.variables[i].type, {}, {}});
        Call* const outside = call_;
        call_ = &call;
        run_statements(call.function->body);
        call_ = outside;
        return call.result;
    }

    Way run_statements(const std::vector<TypedStatement>& statements) {
        for (const TypedStatement& s : statements) {
            const Way way = run_statement(s);
            if (way != Way::onward) return way;
        }
        return Way::onward;
    }

    Way run_statement(const TypedStatement& s) {
        switch (s.kind) {
            case StatementKind::declare:
            case StatementKind::assign:
                set(s);
                return Way::onward;
            case StatementKind::branch:
                return run_statements(value(s.values[0]).wholes[0] != 0 ? s.body : s.otherwise);
            case StatementKind::loop:
                return loop(s);
            case StatementKind::leave:
                return Way::left;
            case StatementKind::skip:
                return Way::skipped;
            case StatementKind::give_back:
                call_->result = value(s.values[0]);
                return Way::gave_back;
            case StatementKind::block:
                break;
        }
        return run_statements(s.body);
    }

    void set(const TypedStatement& s) {
        const auto index = static_cast<std::size_t>(s.variable);
        const Value made =
            s.values.empty() ? Value{call_->function->variables[index].type, {}, {}} : value(s.values[0]);
        Value& variable = call_->variables[index];
        if (s.part_count == 0) {
            variable = made;
            return;
        }
        for (std::size_t i = 0; i < static_cast<std::size_t>(s.part_count); ++i) {
            variable.parts[s.parts[i]] = made.parts[i];
            if (scalar_of(variable.type) != Scalar::real) variable.wholes[s.parts[i]] = made.wholes[i];
        }
    }

    Way loop(const TypedStatement& s) {
        run_statements(s.first);
        while (value(s.values[0]).wholes[0] != 0) {
            if (counts_turns_ && ++turns_ > max_turns) return Way::onward;
            const Way way = run_statements(s.body);
            if (way == Way::gave_back) return Way::gave_back;
            if (way == Way::left) break;
            run_statements(s.last);
        }
        return Way::onward;
    }

    const OracleInputs& inputs_;
    const Typed& root_;
    bool counts_turns_;
    Call* call_ = nullptr;
    int dx_ = 0;
    int dy_ = 0;
    int turns_ = 0;
    int derivatives_ = 0;  // met so far
    int wanted_ = -1;      // the one whose argument is to be captured
    Value captured_;
};

}  // namespace

Value evaluate(const Typed& typed, const OracleInputs& inputs) { return Oracle(inputs, typed).value(typed); }

std::int32_t to_whole(float x) {
    if (std::isnan(x)) return 0;
    if (x >= 2147483648.0F) return 2147483647;
    if (x < -2147483648.0F) return -2147483647 - 1;
    return static_cast<std::int32_t>(x);
}

std::uint32_t to_natural(float x) {
    if (!(x > 0.0F)) return 0;
    if (x >= 4294967296.0F) return 4294967295U;
    return static_cast<std::uint32_t>(x);
}

}  // namespace lacquer
