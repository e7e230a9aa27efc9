// Which functions there are, which of them is meant, and what a whole shader gives.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/shader/parser.h"
#include "core/shader/prelude.h"
#include "core/shader/preprocess.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

// Words that a body names, and functions that it calls.
struct Mentioned {
    std::set<std::string, std::less<>> names;
    std::set<std::string, std::less<>> calls;
    bool discards = false;
};

void look_at(const ShaderNode& node, Mentioned& found) {
    if (node.kind == ShaderNodeKind::name) found.names.insert(node.text);
    if (node.kind == ShaderNodeKind::call) found.calls.insert(node.text);
    for (const ShaderNode& arg : node.args) look_at(arg, found);
}

void look_at(const std::vector<ShaderStatement>& list, Mentioned& found) {
    for (const ShaderStatement& s : list) {
        found.discards = found.discards || s.kind == ShaderStatementKind::discard;
        for (const Declarator& name : s.names) {
            for (const ShaderNode& node : name.value) look_at(node, found);
        }
        for (const auto* nodes : {&s.nodes, &s.condition, &s.last}) {
            for (const ShaderNode& node : *nodes) look_at(node, found);
        }
        look_at(s.first, found);
        look_at(s.body, found);
        look_at(s.otherwise, found);
    }
}

// Names of variables outside of functions that may change.
std::set<std::string, std::less<>> changing_names(const ShaderSyntax& syntax) {
    std::set<std::string, std::less<>> names = {"gl_FragColor", "gl_FragData"};
    for (const auto& item : syntax.items) {
        const auto* s = std::get_if<ShaderStatement>(&item);
        if (s == nullptr || s->kind != ShaderStatementKind::declare) continue;
        if (s->storage == Storage::none || s->storage == Storage::output) {
            for (const Declarator& name : s->names) names.insert(name.name);
        }
    }
    return names;
}

const ShaderSyntax& prelude_syntax() {
    static const ShaderSyntax syntax = [] {
        const PreprocessedShader prepared = preprocess(shader_prelude());
        return ShaderParser(prepared.tokens).shader();
    }();
    return syntax;
}

}  // namespace

ShaderTranslator::ShaderTranslator(const Scope& scope, std::string_view text, Faults& notes)
    : scope_(scope), text_(text), notes_(notes) {}

void ShaderTranslator::add_function(const ShaderFunctionSyntax& syntax, std::size_t item, bool built_in) {
    auto made = std::make_unique<ShaderFunction>();
    made->name = syntax.name;
    made->type = shape_of(syntax.type);
    made->built_in = built_in;
    made->known_from = item;
    for (const ParameterSyntax& parameter : syntax.parameters) {
        const GlslShape shape =
            sized(shape_of(parameter.type), parameter.is_array, parameter.size, parameter.span, nullptr);
        if (shape.is(GlslShape::Kind::nothing))
            refuse("lang.kind", at(parameter.span), "nothing cannot be handed over", "write a type");
        if (holds_picture(shape) && (!shape.is(GlslShape::Kind::picture) || parameter.direction != Direction::in))
            refuse("lang.kind", at(parameter.span), "a sampler is only handed in, one by one", "write sampler2D");
        made->shapes.push_back(shape);
        made->directions.push_back(parameter.direction);
        made->constants.push_back(parameter.constant);
    }
    if (holds_picture(made->type)) refuse("lang.kind", at(syntax.word), "a sampler cannot be given back", "");
    made->changes_things =
        changing_.contains(made->name) || std::any_of(made->directions.begin(), made->directions.end(),
                                                      [](Direction direction) { return direction != Direction::in; });
    made->in_place = made->changes_things || !made->type.is(GlslShape::Kind::leaf) ||
                     std::any_of(made->shapes.begin(), made->shapes.end(), holds_picture);
    if (syntax.body) {
        made->definition = &syntax;
        made->defined_at = item;
    }
    if (built_in) {
        overloads_[made->name].push_back(made.get());
        functions_.push_back(std::move(made));
        return;
    }
    if (is_glsl_function(made->name))
        refuse("lang.duplicate", at(syntax.word), "GLSL has a function '" + made->name + "' already",
               "give yours another name");
    if (globals_.contains(made->name))
        refuse("lang.duplicate", at(syntax.word), "something is called '" + made->name + "' already",
               "give the function another name");
    for (ShaderFunction* known : overloads_[made->name]) {
        // Of older versions' functions one may have one's own.
        if (known->shapes != made->shapes || known->built_in) continue;
        if (!(known->type == made->type) || known->directions != made->directions)
            refuse("lang.duplicate", at(syntax.word), "there is another function '" + made->name + "' of these types",
                   "give one of them another name");
        if (made->definition == nullptr) return;
        if (known->definition != nullptr)
            refuse("lang.duplicate", at(syntax.word), "the function '" + made->name + "' is there already",
                   "take one of them out");
        known->definition = made->definition;
        known->defined_at = item;
        return;
    }
    overloads_[made->name].push_back(made.get());
    functions_.push_back(std::move(made));
}

// Which functions set something outside, themselves or by others that they call; all of one name alike.
void ShaderTranslator::find_changing(const ShaderSyntax& syntax) {
    const std::set<std::string, std::less<>> names = changing_names(syntax);
    std::map<std::string, Mentioned, std::less<>> mentioned;
    for (const auto& item : syntax.items) {
        const auto* function = std::get_if<ShaderFunctionSyntax>(&item);
        if (function != nullptr && function->body) look_at(*function->body, mentioned[function->name]);
    }
    const auto any_in = [](const auto& some, const auto& all) {
        return std::any_of(some.begin(), some.end(), [&](const auto& name) { return all.contains(name); });
    };
    for (const auto& [name, found] : mentioned) {
        if (found.discards || any_in(found.names, names)) changing_.insert(name);
    }
    for (bool more = true; more;) {
        more = false;
        for (const auto& [name, found] : mentioned) {
            if (!changing_.contains(name) && any_in(found.calls, changing_)) more = changing_.insert(name).second;
        }
    }
}

ShaderFunction* ShaderTranslator::chosen(const std::string& name, const std::vector<ShaderValue>& args,
                                         bool built_in) const {
    const auto found = overloads_.find(name);
    if (found == overloads_.end()) return nullptr;
    for (ShaderFunction* function : found->second) {
        if (function->built_in != built_in || function->shapes.size() != args.size()) continue;
        const bool in_sight = built_in || function->known_from <= item_;
        const bool fits = std::equal(
            args.begin(), args.end(), function->shapes.begin(), [](const ShaderValue& arg, const GlslShape& shape) {
                return shape.is(GlslShape::Kind::picture) ? arg.picture.has_value() : arg.shape == shape;
            });
        if (in_sight && fits) return function;
    }
    return nullptr;
}

ShaderValue ShaderTranslator::called(ShaderFunction& function, const ShaderNode& node, GivenArguments given) {
    if (function.definition == nullptr)
        refuse("lang.unknown-function", at(node.word), "'" + function.name + "' is told of and never defined",
               "write what it does");
    if (function.is_under_way)
        refuse("lang.recursion", at(node.span), "'" + function.name + "' calls itself, which GLSL has not",
               "write a loop");
    if (!function.in_place) {
        const std::shared_ptr<const TypedFunction> made = plain(function);
        Typed run{FunctionRun{made->name, made}, made->type, at(node.span)};
        for (ShaderValue& arg : given.values) {
            for (Typed& leaf : arg.leaves) run.args.push_back(std::move(leaf));
        }
        count_work(node.span, made->size);
        return {function.type, {std::move(run)}, at(node.span)};
    }
    for (std::size_t k = 0; k < given.places.size(); ++k) {
        if (function.directions[k] == Direction::in) {
            given.places[k].reset();
        } else if (!given.places[k]) {
            given.places[k] = place(node.args[k]);
        }
    }
    return run_in_place(function, node, given.values, given.places);
}

void ShaderTranslator::items_of(const ShaderSyntax& syntax, bool built_in) {
    for (item_ = 0; item_ < syntax.items.size(); ++item_) {
        if (const auto* function = std::get_if<ShaderFunctionSyntax>(&syntax.items[item_])) {
            add_function(*function, item_, built_in);
            continue;
        }
        const ShaderStatement& s = std::get<ShaderStatement>(syntax.items[item_]);
        if (upward_ && s.kind != ShaderStatementKind::declare && s.kind != ShaderStatementKind::nothing)
            refuse("lang.statement", at(s.span), "a shader with main has its statements there", "move it into main");
        statement(s);
    }
}

// A function that nobody calls must make sense, too: it is run into a function that is thrown away.
void ShaderTranslator::check_all_functions() {
    for (std::size_t k = 0; k < functions_.size(); ++k) {
        ShaderFunction& function = *functions_[k];
        if (function.built_in || function.definition == nullptr || function.plain != nullptr || function.was_run ||
            function.name == "main")
            continue;
        if (!function.in_place) {
            plain(function);
            continue;
        }
        Making thrown_away = main_;
        Making* const outside = std::exchange(making_, &thrown_away);
        std::vector<TypedStatement> statements;
        std::vector<TypedStatement>* const out = std::exchange(out_, &statements);
        std::vector<ShaderValue> args;
        const PictureSource nothing{"", SymbolKind::ground, Type::vec4};
        for (const GlslShape& shape : function.shapes) {
            ShaderValue arg{shape, {}, function.definition->word};
            for (const Type leaf : leaves_of(shape))
                arg.leaves.push_back(spread(literal_leaf(make_type(scalar_of(leaf), 1), 0, arg.span), leaf));
            if (shape.is(GlslShape::Kind::picture)) arg.picture = nothing;
            args.push_back(std::move(arg));
        }
        ShaderNode node{ShaderNodeKind::call, function.definition->word, function.definition->word, function.name};
        run_in_place(function, node, args, std::vector<std::optional<ShaderPlace>>(function.shapes.size()));
        out_ = out;
        making_ = outside;
    }
}

void ShaderTranslator::declare_outputs(const ShaderSyntax& syntax) {
    Mentioned found;
    for (const auto& item : syntax.items) {
        if (const auto* function = std::get_if<ShaderFunctionSyntax>(&item); function != nullptr && function->body)
            look_at(*function->body, found);
    }
    for (const char* name : {"gl_FragColor", "gl_FragData"}) {
        if (!found.names.contains(name)) continue;
        const bool row = std::string_view(name) == "gl_FragData";
        const GlslShape shape = row ? array_shape(leaf_shape(Type::vec4), 1) : leaf_shape(Type::vec4);
        globals_[name] = new_variable(name, shape, {}, nullptr);
        outputs_.emplace_back(name);
        note({}, std::string(name) + " is read as the one output of the shader");
    }
}

Typed ShaderTranslator::step(const ShaderSyntax& syntax) {
    const Span whole{0, static_cast<std::uint32_t>(text_.size())};
    for (const auto& item : syntax.items) {
        const auto* function = std::get_if<ShaderFunctionSyntax>(&item);
        upward_ = upward_ || (function != nullptr && function->name == "main" && function->body.has_value());
    }
    const bool is_whole_shader = std::exchange(upward_, false);
    out_ = &main_.function.body;
    elsewhere_ = whole;
    items_of(prelude_syntax(), true);
    elsewhere_.reset();
    upward_ = is_whole_shader;
    find_changing(syntax);
    discarded_ = new_flag("discarded");
    if (upward_) declare_outputs(syntax);
    items_of(syntax, false);
    check_all_functions();
    ShaderFunction* main = chosen("main", {}, false);
    if (upward_ && (main == nullptr || !main->type.is(GlslShape::Kind::nothing)))
        refuse("lang.expected", whole, "main takes nothing and gives nothing back", "write void main()");
    if (!upward_) return unified(main_, whole);
    const ShaderNode call{ShaderNodeKind::call, main->definition->word, main->definition->word, "main"};
    run_in_place(*main, call, {}, {});
    return finished(whole);
}

// What main has left in its output.
Typed ShaderTranslator::finished(Span span) {
    if (outputs_.size() != 1)
        refuse("shader.output", span,
               outputs_.empty() ? "the shader gives nothing" : "the shader has several outputs, and a step has one",
               outputs_.empty() ? "write out vec4 colour; and set it in main" : "make a step of each");
    const ShaderValue output = value_of(globals_.at(outputs_[0]), span);
    const Type type = output.leaves[0].type;
    TypedStatement s;
    s.kind = StatementKind::give_back;
    s.span = span;
    s.values.push_back(chosen_leaf(variable_leaf(discarded_, "discarded", Type::boolean, span),
                                   spread(literal_leaf(Type::number, 0, span), type), output.leaves[0]));
    emit(std::move(s));
    return unified(main_, span);
}

}  // namespace lacquer
