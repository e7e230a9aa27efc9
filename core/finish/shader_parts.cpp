#include "core/finish/shader_parts.h"

#include <algorithm>
#include <optional>
#include <utility>
#include <vector>

#include "core/base/guarded.h"
#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/seen_variable.h"
#include "core/shader/parser.h"
#include "core/shader/preprocess.h"
#include "core/shader/refusal.h"
#include "core/shader/shape.h"

namespace lacquer {

namespace {

Fault cannot(std::string_view step, std::string message, std::string mend) {
    return {"edit.extract", std::move(message), std::move(mend), {std::string(step), {}, 0, 0}, Severity::fault};
}

// A declaration of one variable with a value.
struct Declared {
    const ShaderStatement* statement = nullptr;
    const Declarator* name = nullptr;
};

struct Body {
    std::vector<const ShaderStatement*> statements;
    bool is_main = false;
};

Body body_of(const ShaderSyntax& syntax) {
    Body body;
    for (const auto& item : syntax.items) {
        const auto* function = std::get_if<ShaderFunctionSyntax>(&item);
        if (function == nullptr || function->name != "main" || !function->body) continue;
        body.is_main = true;
        for (const ShaderStatement& s : *function->body) body.statements.push_back(&s);
        return body;
    }
    for (const auto& item : syntax.items) {
        if (const auto* s = std::get_if<ShaderStatement>(&item)) body.statements.push_back(s);
    }
    return body;
}

std::vector<Declared> declarations_in(const Body& body) {
    std::vector<Declared> found;
    for (const ShaderStatement* s : body.statements) {
        if (s->kind != ShaderStatementKind::declare || s->storage != Storage::none) continue;
        for (const Declarator& name : s->names) {
            if (!name.value.empty()) found.push_back({s, &name});
        }
    }
    return found;
}

// Where a declared value stands as it is written. Nodes know only of what macros gave, so it is looked for among the
// tokens.
Span value_of(std::string_view text, const Declared& declared) {
    Span value{declared.name->span.end, declared.name->span.end};
    int depth = 0;
    bool begun = false;
    for (const SourceToken& token : source_tokens(text)) {
        if (token.span.begin < declared.name->span.end || token.kind == SourceTokenKind::line) continue;
        if (!begun) {
            begun = token.is("=");
            continue;
        }
        if (token.is("(") || token.is("[")) ++depth;
        if (token.is(")") || token.is("]")) --depth;
        if ((depth <= 0 && (token.is(",") || token.is(";"))) || token.kind == SourceTokenKind::end) break;
        if (value.end == declared.name->span.end) value.begin = token.span.begin;
        value.end = token.span.end;
    }
    return value;
}

std::uint32_t end_of_statement(std::string_view text, const Declared& declared) {
    const std::size_t end = text.find(';', value_of(text, declared).end);
    return static_cast<std::uint32_t>(end == std::string_view::npos ? text.size() : end + 1);
}

// What is declared where a place lies, or what the word there names.
std::optional<Declared> declared_at(std::string_view text, const std::vector<Declared>& all, Span place) {
    for (const Declared& one : all) {
        if (place.begin >= one.statement->span.begin && place.end <= end_of_statement(text, one) &&
            (one.statement->names.size() == 1 ||
             (place.begin >= one.name->span.begin && place.end <= value_of(text, one).end)))
            return one;
    }
    for (const SourceToken& token : source_tokens(text)) {
        if (token.kind != SourceTokenKind::name || place.begin < token.span.begin || place.end > token.span.end)
            continue;
        for (const Declared& one : all) {
            if (one.name->name == token.text) return one;
        }
    }
    return std::nullopt;
}

// The words `out vec4 name` of a whole shader, or none where it has gl_FragColor.
struct Output {
    Span type;
    std::string name;
};
std::optional<Output> output_of(const ShaderSyntax& syntax) {
    for (const auto& item : syntax.items) {
        const auto* s = std::get_if<ShaderStatement>(&item);
        if (s != nullptr && s->storage == Storage::output && s->names.size() == 1)
            return Output{s->type.span, s->names[0].name};
    }
    return std::nullopt;
}

std::string code_up_to(const std::string& text, const ShaderSyntax& syntax, bool is_main, std::uint32_t end,
                       const std::string& type, const std::string& variable) {
    if (!is_main) return text.substr(0, end) + "\nreturn " + variable + ";\n";
    std::string code = text.substr(0, end);
    const std::optional<Output> output = output_of(syntax);
    if (output) {
        code.replace(output->type.begin, output->type.end - output->type.begin, type);
        return code + "\n    " + output->name + " = " + variable + ";\n}\n";
    }
    // It had its output by an older name.
    std::size_t head = 0;
    if (const std::size_t version = code.find("#version"); version != std::string::npos)
        head = std::min(code.find('\n', version), code.size() - 1) + 1;
    code.insert(head, "out " + type + " part_shown;\n");
    return code + "\n    part_shown = " + variable + ";\n}\n";
}

// A name for a step of a variable, unlike all words of the code: a variable of the same name would hide the step.
std::string step_name(const Finish& finish, const std::string& text, const std::string& variable) {
    std::string wanted = identifier_from(variable);
    if (wanted.empty()) wanted = "part";
    const std::vector<SourceToken> tokens = source_tokens(text);
    const auto is_word = [&](const std::string& name) {
        return std::any_of(tokens.begin(), tokens.end(), [&](const SourceToken& t) { return t.is_word(name); });
    };
    std::string name = free_name(finish, wanted);
    for (int k = 2; is_word(name); ++k)
        name = free_name(finish, wanted.substr(0, max_name_length - 3) + "_" + std::to_string(k));
    return name;
}

// Of what is found in a loop, a branch or a function, and of a statement: beside the code, which stays as it is.
Result<StepEdit> step_of_seen(const Finish& finish, std::string_view step, const Step& of, Span place) {
    Result<SeenVariable> seen = seen_variable(of.formula, place.begin);
    if (!seen) {
        Fault fault = seen.fault();
        fault.place.where = step;
        return fault;
    }
    Step made;
    made.rules = of.rules;
    made.formula = std::move(seen->code);
    made.name = step_name(finish, of.formula, seen->name);
    const std::string name = made.name;
    Result<Finish> added = add_step_before(finish, step, std::move(made));
    if (!added) return added.fault();
    return StepEdit{std::move(*added), name};
}

}  // namespace

Result<StepEdit> extract_variable(Finish finish, std::string_view step, Span place) {
    const Step* found = find_step(finish, step);
    if (found == nullptr)
        return Fault{"edit.unknown", "nothing is called '" + std::string(step) + "'", "", {}, Severity::fault};
    const std::string text = found->formula;
    return guarded([&]() -> Result<StepEdit> {
        try {
            const PreprocessedShader prepared = preprocess(text);
            const ShaderSyntax syntax = ShaderParser(prepared.tokens).shader();
            const Body body = body_of(syntax);
            const std::optional<Declared> declared = declared_at(text, declarations_in(body), place);
            if (!declared) return step_of_seen(finish, step, *found, place);
            const std::string& type = declared->statement->type.name;
            const GlslShape shape = shape_named(type);
            const bool fits = shape.is(GlslShape::Kind::leaf) && fits_a_step(shape.leaf) && !declared->name->is_array &&
                              !declared->statement->type.is_array;
            if (!fits)
                return cannot(step,
                              "'" + declared->name->name + "' is a " + type + ", and a step has up to four numbers",
                              "choose a number or a vector");
            if (body.is_main && scalar_of(shape.leaf) != Scalar::real)
                return cannot(step, "'" + declared->name->name + "' is a " + type, "choose a float or a vector");
            Step made;
            made.rules = CodeRules::glsl;
            made.formula =
                code_up_to(text, syntax, body.is_main, end_of_statement(text, *declared), type, declared->name->name);
            const std::string name = step_name(finish, text, declared->name->name);
            made.name = name;
            const Span value = value_of(text, *declared);
            std::string rest = text;
            rest.replace(value.begin, value.end - value.begin, name);
            Finish changed = finish;
            for (Coat& coat : changed.coats) {
                for (Step& own : coat.steps) {
                    if (own.name == step) own.formula = rest;
                }
            }
            Result<Finish> added = add_step_before(std::move(changed), step, std::move(made));
            if (!added) return added.fault();
            return StepEdit{std::move(*added), name};
        } catch (const Refusal& refusal) {
            return cannot(step, "the code has a mistake: " + refusal.fault.message, "mend it first");
        }
    });
}

}  // namespace lacquer
