// Bodies of functions, as functions of the language or written out in place.
#include <utility>

#include "core/lang/completed.h"
#include "core/lang/fitting.h"
#include "core/lang/structural_hash.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

// Nodes of statements, with the sizes of the functions that they call.
std::size_t size_of(const Typed& typed) {
    std::size_t size = 1;
    if (const TypedFunction* function = typed.function()) size += function->size;
    for (const Typed& arg : typed.args) size += size_of(arg);
    return size;
}

std::size_t size_of(const std::vector<TypedStatement>& list) {
    std::size_t size = 0;
    for (const TypedStatement& s : list) {
        for (const Typed& value : s.values) size += size_of(value);
        size += size_of(s.first) + size_of(s.last) + size_of(s.body) + size_of(s.otherwise);
    }
    return size;
}

bool ends_with_return(const std::vector<ShaderStatement>& body) {
    return !body.empty() && body.back().kind == ShaderStatementKind::give_back;
}

std::size_t returns_in(const std::vector<ShaderStatement>& list) {
    std::size_t count = 0;
    for (const ShaderStatement& s : list) {
        if (s.kind == ShaderStatementKind::give_back || s.kind == ShaderStatementKind::discard) ++count;
        count += returns_in(s.body) + returns_in(s.otherwise);
    }
    return count;
}

}  // namespace

void ShaderTranslator::begin_run(const ShaderFunction& function, bool direct) {
    run_ = {};
    run_.function = &function;
    run_.type = function.type;
    run_.direct = direct;
}

// Parameters as variables; with `args`, set to those.
void ShaderTranslator::add_parameters(const ShaderFunction& function, const std::vector<ShaderValue>* args) {
    const auto& parameters = function.definition->parameters;
    names_.emplace_back();
    for (std::size_t k = 0; k < parameters.size(); ++k) {
        const ParameterSyntax& parameter = parameters[k];
        const GlslShape& shape = function.shapes[k];
        ShaderName made;
        if (shape.is(GlslShape::Kind::picture)) {
            made.shape = shape;
            made.picture = (*args)[k].picture;
            made.writable = false;
        } else if (args != nullptr) {
            const bool is_in = function.directions[k] != Direction::out;
            made = new_variable(parameter.name.empty() ? "given" : parameter.name, shape, parameter.span,
                                is_in ? &(*args)[k] : nullptr);
            made.writable = !parameter.constant;
        } else {
            made.shape = shape;
            made.writable = !parameter.constant;
            for (const Type leaf : leaves_of(shape)) {
                made.variables.push_back(static_cast<int>(making_->function.variables.size()));
                making_->function.variables.push_back({parameter.name.empty() ? "given" : parameter.name, leaf});
            }
        }
        if (!parameter.name.empty()) add_name(parameter.name, parameter.span, std::move(made));
    }
}

// The statements, in such a way that they can be left.
void ShaderTranslator::body_of(const ShaderFunction& function) {
    const std::vector<ShaderStatement>& body = *function.definition->body;
    if (!function.type.is(GlslShape::Kind::nothing) && returns_in(body) == 0)
        refuse("lang.no-result", at(function.definition->word), "'" + function.name + "' does not give back a value",
               "end with return and the value");
    const bool straight = run_.direct || returns_in(body) == (ends_with_return(body) ? 1U : 0U);
    if (straight) return scoped(body);
    if (returns_within_loop(body)) run_.gone = new_flag("gone");
    once({Around::Kind::function, -1}, function.definition->word, [&] { scoped(body); });
}

void ShaderTranslator::complete_now(Making& making, Span span) {
    TypedFunction& function = making.function;
    function.size = size_of(function.body);
    bool derivatives = false;
    const auto look = [&](const Typed& node) {
        const auto* call = node.as<BuiltinCall>();
        derivatives = derivatives || (call != nullptr && call->builtin >= Builtin::derivative_x &&
                                      call->builtin <= Builtin::derivative_width);
        if (const TypedFunction* inner = node.function()) derivatives = derivatives || inner->derivatives;
    };
    if (function.size <= max_nodes) visit_nodes(std::span<const TypedStatement>(function.body), look);
    function.derivatives = derivatives;
    if (const Result<Done> done = complete(function, span); !done) throw Refusal{done.fault()};
}

// All results of a step as the widest of them; a single 0 stands for a pixel that was discarded.
Typed ShaderTranslator::unified(Making& making, Span span) {
    std::vector<TypedStatement*> results;
    const std::function<void(std::vector<TypedStatement>&)> look = [&](std::vector<TypedStatement>& list) {
        for (TypedStatement& s : list) {
            if (s.kind == StatementKind::give_back) results.push_back(&s);
            look(s.body);
            look(s.otherwise);
        }
    };
    look(making.function.body);
    if (results.empty())
        refuse("lang.no-result", span, "the code does not give back a value", "end with return and the value");
    Type type = results.front()->values[0].type;
    for (const TypedStatement* result : results) {
        if (width_of(result->values[0].type) > width_of(type)) type = result->values[0].type;
    }
    for (TypedStatement* result : results) {
        Typed& value = result->values[0];
        const bool discarded = value.is<Literal>() && value.get<Literal>().number == 0 && value.type == Type::number;
        if (value.type != type && !(discarded && is_float(type)))
            refuse("lang.kind", value.span,
                   "this gives back a " + std::string(glsl_name(value.type)) + ", and the other return a " +
                       std::string(glsl_name(type)),
                   "give back the same everywhere");
        value = spread(std::move(value), type);
    }
    if (!gives_back(making.function.body)) {
        // What GLSL leaves open is 0 here.
        TypedStatement end;
        end.kind = StatementKind::give_back;
        const Typed zero = literal_leaf(make_type(scalar_of(type), 1), 0, span);
        end.values.push_back(spread(zero, type));
        making.function.body.push_back(std::move(end));
    }
    making.function.type = type;
    complete_now(making, span);
    return Typed{FunctionRun{"", std::make_shared<const TypedFunction>(std::move(making.function))}, type, span};
}

// A function of the language: it gives back one leaf and changes nothing outside.
std::shared_ptr<const TypedFunction> ShaderTranslator::plain(ShaderFunction& function) {
    if (function.plain != nullptr) return function.plain;
    Making making;
    making.function.name = function.name;
    making.function.type = function.type.leaf;
    making.function.foreign = function.built_in;
    Making* const outside = std::exchange(making_, &making);
    std::vector<TypedStatement>* const out = std::exchange(out_, &making.function.body);
    Run run = std::exchange(run_, {});
    std::vector<Names> names = std::exchange(names_, {});
    const std::optional<Span> elsewhere = elsewhere_;
    // The prelude's words stand in no text of the user's.
    elsewhere_ = function.built_in ? std::optional<Span>(Span{}) : std::nullopt;
    const std::size_t item = std::exchange(item_, function.defined_at);
    function.is_under_way = true;
    begin_run(function, true);
    add_parameters(function, nullptr);
    making.function.parameters = static_cast<int>(making.function.variables.size());
    body_of(function);
    if (!gives_back(making.function.body)) {
        TypedStatement end;
        end.kind = StatementKind::give_back;
        const Span span = at(function.definition->word);
        end.values.push_back(
            spread(literal_leaf(make_type(scalar_of(function.type.leaf), 1), 0, span), function.type.leaf));
        making.function.body.push_back(std::move(end));
    }
    function.is_under_way = false;
    complete_now(making, at(function.definition->word));
    item_ = item;
    elsewhere_ = elsewhere;
    names_ = std::move(names);
    run_ = std::move(run);
    out_ = out;
    making_ = outside;
    function.plain = std::make_shared<const TypedFunction>(std::move(making.function));
    return function.plain;
}

// The function's statements here and now.
ShaderValue ShaderTranslator::run_in_place(ShaderFunction& function, const ShaderNode& node,
                                           const std::vector<ShaderValue>& args,
                                           const std::vector<std::optional<ShaderPlace>>& places) {
    constexpr int deepest = 64;
    if (++nesting_ > deepest)
        refuse("lang.nesting", at(node.span), "functions are called too deep within one another",
               "write fewer of them");
    const Span span = at(node.span);
    Run run = std::exchange(run_, {});
    std::vector<Names> names = std::exchange(names_, {});
    const std::optional<Span> elsewhere = elsewhere_;
    if (function.built_in && !elsewhere_) elsewhere_ = span;
    const std::size_t item = std::exchange(item_, function.defined_at);
    function.is_under_way = true;
    function.was_run = true;
    begin_run(function, false);
    for (const Type leaf : leaves_of(function.type)) {
        const Typed zero = literal_leaf(make_type(scalar_of(leaf), 1), 0, span);
        run_.result.push_back(new_leaf(function.name, leaf, spread(zero, leaf)));
    }
    add_parameters(function, &args);
    const Names given = names_.back();
    body_of(function);
    ShaderValue made{function.type, {}, span};
    for (const int number : run_.result)
        made.leaves.push_back(variable_leaf(number, function.name,
                                            making_->function.variables[static_cast<std::size_t>(number)].type, span));
    function.is_under_way = false;
    item_ = item;
    names_ = std::move(names);
    run_ = std::move(run);
    elsewhere_ = elsewhere;
    for (std::size_t k = 0; k < places.size(); ++k) {
        if (!places[k]) continue;
        const std::string& name = function.definition->parameters[k].name;
        if (name.empty()) continue;
        store(*places[k], value_of(given.at(name), span).leaves, nullptr);
    }
    --nesting_;
    return made;
}

}  // namespace lacquer
