#include "core/finish/operation_steps.h"

#include <algorithm>
#include <cmath>

#include "core/lang/expression_checker.h"
#include "core/lang/known_names.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

// True for what has one value for all pixels of a frame.
bool is_same_everywhere(const Typed& typed) {
    bool same = true;
    const auto look = [&](const Typed& node) {
        const auto* reading = node.as<PictureReading>();
        if (reading != nullptr) {
            same = same && reading->builtin == Builtin::texture_size;
            return;
        }
        const std::string* name = name_of(node);
        if (name == nullptr) return;
        const SymbolKind symbol = symbol_of(node);
        const KnownName* known = symbol == SymbolKind::known ? find_known(*name) : nullptr;
        same = same && symbol != SymbolKind::step && symbol != SymbolKind::ground && symbol != SymbolKind::gradient &&
               (known == nullptr || known->domain != KnownDomain::pixel);
    };
    visit_nodes(typed, look);
    return same;
}

// An argument as it was handed over: a picture's name and type, or a value.
struct Handed {
    Symbol picture;
    Typed value;
};

class Expansion {
public:
    Expansion(const Operation& operation, std::string_view formula, const Scope& scope, const Finish& finish)
        : operation_(operation), formula_(formula), scope_(scope), finish_(finish) {}

    Result<Typed> run(std::vector<OperationStep>& stages, std::vector<Symbol>& handed) {
        const Result<Expression> call = parse(formula_);
        if (!call) return call.fault();
        span_ = call->span;
        if (auto taken = take_arguments(*call); !taken) return taken.fault();
        for (std::size_t i = 0; i < handed_.size(); ++i) {
            if (operation_.arguments[i].picture) handed.push_back(handed_[i].picture);
        }
        for (const OperationStage& stage : operation_.stages) {
            const int rounds = stage.levels ? levels() : stage.repeat;
            Result<std::shared_ptr<const NativeUse>> native = native_use(stage);
            if (!native) return native.fault();
            for (int round = 0; round < rounds; ++round) {
                Result<Typed> value = stage_value(stage.function, round);
                if (!value) return value;
                const bool last = &stage == &operation_.stages.back() && round + 1 == rounds;
                if (last && stage.scale == 1) return value;
                std::string name = scope_.unnamed_stem + "." + stage.function;
                if (rounds > 1) name += "." + std::to_string(round + 1);
                // The stage itself, and the next round of it, read it by its own name.
                known_[stage.function] = {SymbolKind::step, value->type, name};
                before_ = known_[stage.function];
                stages.push_back(
                    {std::move(name), std::move(*value), stage.scale, round + 1 == rounds ? *native : nullptr});
            }
        }
        // The last stage was smaller: it is read in between its pixels.
        return Typed{NameHere{before_.actual, SymbolKind::step}, before_.type, span_};
    }

private:
    Fault fault(const char* id, std::string message, std::string mend) const {
        return ExpressionChecker::fault(id, span_, std::move(message), std::move(mend));
    }

    // Halvings that make the frame's longer side one pixel.
    int levels() const {
        return std::max(1, static_cast<int>(std::ceil(std::log2(std::max(finish_.frame_width, finish_.frame_height)))));
    }

    Result<Done> take_arguments(const Expression& call) {
        const std::size_t given = call.args.size();
        if (given > operation_.arguments.size()) {
            return fault("lang.count", operation_.name + " takes up to " + std::to_string(operation_.arguments.size()),
                         usage());
        }
        for (std::size_t i = 0; i < operation_.arguments.size(); ++i) {
            const OperationArgument& argument = operation_.arguments[i];
            if (i >= given && argument.fallback.empty()) {
                return fault("lang.count", operation_.name + " needs '" + argument.name + "'", usage());
            }
            Result<Handed> handed = i < given ? take(call.args[i], formula_, argument) : take_fallback(argument);
            if (!handed) return handed.fault();
            handed_.push_back(std::move(*handed));
            const Type type = argument.picture ? handed_.back().picture.type : handed_.back().value.type;
            if (argument.width == 0) width_ = std::max(width_, width_of(type));
        }
        for (std::size_t i = 0; i < handed_.size(); ++i) {
            const OperationArgument& argument = operation_.arguments[i];
            if (argument.picture) {
                // Whatever is handed over: where it is clear it has no colour that could be seen.
                handed_[i].picture.weighed = argument.role == "colour";
                known_[argument.name] = handed_[i].picture;
                if (before_.actual.empty()) before_ = handed_[i].picture;
                continue;
            }
            const Type wanted = float_type(argument.width == 0 ? width_ : argument.width);
            Typed& value = handed_[i].value;
            if (!fits(value, wanted)) {
                return ExpressionChecker(scope_, formula_).does_not_fit(value, wanted, "'" + argument.name + "'");
            }
            value = fitted(std::move(value), wanted);
        }
        return Done{};
    }

    std::string usage() const {
        std::string text = "write " + operation_.name + "(";
        for (const OperationArgument& argument : operation_.arguments) {
            text += (text.back() == '(' ? "" : ", ") + argument.name;
        }
        return text + ")";
    }

    Result<Handed> take(const Expression& expression, std::string_view text, const OperationArgument& argument) {
        ExpressionChecker checker(scope_, text);
        Handed handed;
        if (!argument.picture) {
            Result<Typed> value = checker.value(expression);
            if (!value) return value.fault();
            handed.value = std::move(*value);
            return handed;
        }
        Result<Symbol> source = checker.picture_source(expression);
        if (!source) return source.fault();
        const Type wanted = float_type(argument.width);
        if (argument.width != 0 && source->type != wanted) {
            return fault("lang.picture",
                         "'" + argument.name + "' needs " + said(wanted) + ", and this has " + said(source->type),
                         "hand over such a step");
        }
        handed.picture = *source;
        return handed;
    }

    Result<Handed> take_fallback(const OperationArgument& argument) {
        const Result<Expression> parsed = parse(argument.fallback);
        if (!parsed) return broken(parsed.fault());
        Result<Handed> handed = take(*parsed, argument.fallback, argument);
        if (!handed) return broken(handed.fault());
        handed->value.span = span_;
        return handed;
    }

    Fault broken(const Fault& inner) const {
        Fault told = broken_operation(operation_.name, inner);
        told.place.span = span_;
        return told;
    }

    Result<std::shared_ptr<const NativeUse>> native_use(const OperationStage& stage) {
        if (!stage.native) return std::shared_ptr<const NativeUse>();
        Result<Typed> argument = stage_value(stage.native->argument, 0);
        if (!argument) return argument.fault();
        if (argument->type != Type::number || !is_same_everywhere(*argument)) return std::shared_ptr<const NativeUse>();
        return std::make_shared<const NativeUse>(
            NativeUse{stage.native->way, known_.at(stage.native->from).actual, std::move(*argument)});
    }

    // What a function of the file gives, which is a stage or stands by itself.
    Result<Typed> stage_value(const std::string& of, int round) {
        Scope inside = step_scope();
        inside.functions = operation_.functions != nullptr ? operation_.functions.get() : scope_.functions;
        inside.symbols.insert(known_.begin(), known_.end());
        // At first a stage reads, by its own name, what stands before it.
        if (!known_.contains(of) && !before_.actual.empty()) inside.symbols[of] = before_;
        inside.same = float_type(width_);
        // What its name stands for within is the picture, so the function itself goes by another.
        const std::string own = "lq stage";
        // A stage sees the functions above it, as in GLSL, but for other stages.
        Code code;
        for (const FunctionSyntax& function : operation_.code->functions) {
            const bool is_own = function.name == of;
            if (!is_own && is_stage(function.name)) continue;
            code.functions.push_back(function);
            if (!is_own) continue;
            code.functions.back().name = own;
            break;
        }
        auto functions = check_functions(code, inside, operation_.text);
        if (!functions) return broken(placed_in_file(functions.fault(), operation_));
        const std::shared_ptr<const TypedFunction> function = functions->at(own);
        auto named = std::make_shared<TypedFunction>(*function);
        named->name = operation_.name;
        if (of != operation_.name) named->name += "_" + of;
        named->foreign = true;
        Typed run{FunctionRun{named->name, named}, function->type, span_};
        for (int i = 0; i < function->parameters; ++i) {
            Result<Typed> value = argument_value(function->variables[static_cast<std::size_t>(i)], round);
            if (!value) return value;
            run.args.push_back(std::move(*value));
        }
        return run;
    }

    bool is_stage(const std::string& name) const {
        return std::any_of(operation_.stages.begin(), operation_.stages.end(),
                           [&](const OperationStage& s) { return s.function == name; });
    }

    Result<Typed> argument_value(const TypedVariable& parameter, int round) const {
        if (parameter.name == "turn") {
            Typed literal{Literal{static_cast<double>(round), true}, Type::number, span_};
            return fitted(std::move(literal), parameter.type);
        }
        for (std::size_t i = 0; i < handed_.size(); ++i) {
            if (operation_.arguments[i].name != parameter.name || operation_.arguments[i].picture) continue;
            if (handed_[i].value.type == parameter.type) return handed_[i].value;
        }
        return broken({"operation.head",
                       "no argument '" + parameter.name + "' of this type is told of",
                       "add it to the head",
                       {operation_.file, {}, 1, 0},
                       Severity::fault});
    }

    const Operation& operation_;
    std::string_view formula_;
    const Scope& scope_;
    const Finish& finish_;
    Span span_;
    int width_ = 1;
    std::vector<Handed> handed_;
    std::map<std::string, Symbol, std::less<>> known_;  // pictures and stages, by the names that the file gives them
    Symbol before_;                                     // what the last stage left, or the first picture
};

}  // namespace

const Operation* whole_step_operation(std::string_view formula, const Catalogue& catalogue) {
    const Result<std::vector<Token>> tokens = tokenize(formula);
    if (!tokens) return nullptr;
    const auto first = std::find_if(tokens->begin(), tokens->end(), [](const Token& t) { return t.text != "("; });
    const auto found = catalogue.operations.find(first->text);
    if (found == catalogue.operations.end() || found->second.is_plain()) return nullptr;
    const Result<Expression> parsed = parse(formula);
    return parsed && parsed->kind == ExpressionKind::call && parsed->text == first->text ? &found->second : nullptr;
}

Result<Typed> expand_operation(const Operation& operation, std::string_view formula, const Scope& scope,
                               const Finish& finish, std::vector<OperationStep>& stages, std::vector<Symbol>& handed) {
    return Expansion(operation, formula, scope, finish).run(stages, handed);
}

}  // namespace lacquer
