// Declarations.
#include "core/shader/parser.h"

#include <algorithm>
#include <array>

#include "core/shader/refusal.h"

namespace lacquer {

namespace {

constexpr std::array<std::string_view, 28> types = {
    "void",   "float",  "int",    "uint",   "bool",   "vec2",   "vec3",   "vec4",  "ivec2", "ivec3",
    "ivec4",  "uvec2",  "uvec3",  "uvec4",  "bvec2",  "bvec3",  "bvec4",  "mat2",  "mat3",  "mat4",
    "mat2x2", "mat2x3", "mat2x4", "mat3x2", "mat3x3", "mat3x4", "mat4x2", "mat4x3"};

// Types of pictures that there are none of here.
constexpr std::array<std::string_view, 14> other_samplers = {
    "sampler3D",    "samplerCube",    "sampler2DShadow", "samplerCubeShadow", "sampler2DArray", "sampler2DArrayShadow",
    "isampler2D",   "isampler3D",     "isamplerCube",    "isampler2DArray",   "usampler2D",     "usampler3D",
    "usamplerCube", "usampler2DArray"};

constexpr std::array<std::string_view, 92> reserved = {
    "attribute",     "varying",     "coherent",      "volatile",  "restrict",  "readonly",   "writeonly",
    "resource",      "atomic_uint", "noperspective", "patch",     "sample",    "subroutine", "common",
    "partition",     "active",      "asm",           "class",     "union",     "enum",       "typedef",
    "template",      "this",        "goto",          "inline",    "noinline",  "public",     "static",
    "extern",        "external",    "interface",     "long",      "short",     "double",     "half",
    "fixed",         "unsigned",    "superp",        "input",     "output",    "hvec2",      "hvec3",
    "hvec4",         "dvec2",       "dvec3",         "dvec4",     "fvec2",     "fvec3",      "fvec4",
    "sampler3DRect", "filter",      "image1D",       "image2D",   "image3D",   "imageCube",  "sizeof",
    "cast",          "namespace",   "using",         "const",     "uniform",   "layout",     "centroid",
    "flat",          "smooth",      "break",         "continue",  "do",        "for",        "while",
    "switch",        "case",        "default",       "if",        "else",      "in",         "out",
    "inout",         "true",        "false",         "invariant", "discard",   "return",     "struct",
    "precision",     "highp",       "mediump",       "lowp",      "sampler2D", "buffer",     "shared",
    "sampler1D"};

template <std::size_t count>
bool is_among(const std::array<std::string_view, count>& words, std::string_view word) {
    return std::find(words.begin(), words.end(), word) != words.end();
}

}  // namespace

bool is_shader_type(std::string_view word) { return word == "mat4x4" || is_among(types, word); }

bool is_reserved_word(std::string_view word) {
    return is_among(reserved, word) || is_among(other_samplers, word) || is_shader_type(word);
}

// What stands before a type.
struct ShaderParser::Qualifiers {
    Storage storage = Storage::none;
    Direction direction = Direction::in;
    bool has_direction = false;
    bool constant = false;
    Span span;
};

Deeper::Deeper(ShaderParser& parser) : parser_(parser) {
    if (++parser_.depth_ <= max_shader_nesting) return;
    --parser_.depth_;
    refuse("lang.nesting", parser.peek().span, "the shader is nested too deep", "make functions of its parts");
}

const SourceToken& ShaderParser::peek(std::size_t ahead) const {
    return tokens_[std::min(at_ + ahead, tokens_.size() - 1)];
}

bool ShaderParser::take(std::string_view mark) {
    if (!sees(mark)) return false;
    ++at_;
    return true;
}

bool ShaderParser::take_word(std::string_view word) {
    if (!sees_word(word)) return false;
    ++at_;
    return true;
}

const SourceToken& ShaderParser::next() {
    const SourceToken& token = peek();
    if (token.kind != SourceTokenKind::end) ++at_;
    return token;
}

void ShaderParser::expect(std::string_view mark, const std::string& wanted) {
    if (!take(mark)) unexpected(wanted);
}

void ShaderParser::unexpected(const std::string& wanted) const {
    const SourceToken& token = peek();
    if (token.kind == SourceTokenKind::end)
        refuse("lang.expected", token.span, "the shader stops short", "add " + wanted);
    if (token.kind == SourceTokenKind::odd) {
        const bool is_number = token.text[0] >= '0' && token.text[0] <= '9';
        refuse(is_number ? "lang.number" : "lang.character", token.span,
               is_number ? "'" + token.text + "' is not a number" : "there is a character here that means nothing",
               is_number ? "write it like 0.5, 12 or 1e-3" : "take it out");
    }
    const std::string from = token.from != nullptr ? ", which the macro '" + token.from->name + "' gives," : "";
    refuse("lang.expected", token.span, "'" + token.text + "'" + from + " was not expected here",
           "put " + wanted + " here");
}

bool ShaderParser::sees_type(std::size_t ahead) const {
    const SourceToken& token = peek(ahead);
    if (token.kind != SourceTokenKind::name) return false;
    return is_shader_type(token.text) || token.text == "sampler2D" || token.text == "struct" ||
           is_among(other_samplers, token.text) ||
           std::any_of(structures_.begin(), structures_.end(),
                       [&](const auto& names) { return names.contains(token.text); });
}

// A type that is not called as a constructor, or a word that only declarations begin with.
bool ShaderParser::sees_declaration() const {
    static constexpr std::array<std::string_view, 18> words = {
        "const", "uniform", "in",        "out",   "inout",   "varying", "attribute", "layout", "centroid",
        "flat",  "smooth",  "invariant", "highp", "mediump", "lowp",    "precision", "struct", "buffer"};
    if (peek().kind != SourceTokenKind::name) return false;
    if (is_among(words, peek().text)) return true;
    if (!sees_type()) return false;
    // "float[2] a" declares, "float[2](...)" constructs.
    if (!sees("[", 1)) return !sees("(", 1);
    std::size_t ahead = 1;
    for (int open = 0; peek(ahead).kind != SourceTokenKind::end; ++ahead) {
        if (sees("[", ahead)) ++open;
        if (sees("]", ahead) && --open == 0 && !sees("[", ahead + 1)) break;
    }
    return !sees("(", ahead + 1);
}

ShaderParser::Qualifiers ShaderParser::qualifiers() {
    Qualifiers made;
    made.span = peek().span;
    while (true) {
        const SourceToken& word = peek();
        const bool stores = word.is_word("uniform") || word.is_word("in") || word.is_word("varying") ||
                            word.is_word("out") || word.is_word("inout");
        const bool again = (made.constant && word.is_word("const")) ||
                           (stores && (made.has_direction || made.storage == Storage::uniform));
        if (again)
            refuse("lang.expected", word.span, "'" + word.text + "' is one word of this kind too many", "take it out");
        if (take_word("const")) {
            made.constant = true;
            made.storage = Storage::constant;
        } else if (take_word("uniform")) {
            made.storage = Storage::uniform;
        } else if (take_word("in") || take_word("varying")) {
            made.storage = Storage::input;
            made.has_direction = true;
        } else if (take_word("out") || take_word("inout")) {
            made.storage = Storage::output;
            made.direction = word.text == "out" ? Direction::out : Direction::inout;
            made.has_direction = true;
        } else if (sees_word("attribute")) {
            refuse("lang.left-out", word.span, "an attribute belongs to vertices, and there are none here",
                   "make a dial or a ground of it");
        } else if (sees_word("buffer") || sees_word("shared")) {
            refuse("lang.left-out", word.span, "there is no '" + word.text + "' in a fragment shader",
                   "make dials of it");
        } else if (take_word("layout")) {
            expect("(", "a '(' and what is laid out");
            while (!sees(")")) {
                if (peek().kind == SourceTokenKind::end) unexpected("a ')'");
                ++at_;
            }
            ++at_;
        } else if (!take_word("centroid") && !take_word("flat") && !take_word("smooth") && !take_word("invariant") &&
                   !take_word("highp") && !take_word("mediump") && !take_word("lowp")) {
            return made;
        }
    }
}

TypeSyntax ShaderParser::type() {
    TypeSyntax made;
    made.span = peek().span;
    if (peek().kind == SourceTokenKind::name && is_among(other_samplers, peek().text))
        refuse("lang.left-out", peek().span, "pictures of the type " + peek().text + " are not here",
               "take a sampler2D");
    if (sees_word("struct")) {
        made.structure = structure();
        made.name = made.structure->name;
    } else {
        if (!sees_type()) unexpected("a type, such as float or vec2");
        made.name = next().text;
    }
    made.is_array = brackets(made.size);
    made.span = cover(made.span, tokens_[at_ - 1].span);
    return made;
}

std::shared_ptr<const StructSyntax> ShaderParser::structure() {
    const Deeper deeper(*this);
    auto made = std::make_shared<StructSyntax>();
    made->span = next().span;
    if (peek().kind == SourceTokenKind::name) {
        made->span = peek().span;
        made->name = new_name("the struct").text;
        structures_.back().insert(made->name);
    }
    expect("{", "a '{' and the struct's parts");
    while (!take("}")) {
        FieldsSyntax fields;
        qualifiers();
        fields.type = type();
        do {
            Declarator name;
            name.span = peek().span;
            name.name = new_name("a part").text;
            name.is_array = brackets(name.size);
            fields.names.push_back(std::move(name));
        } while (take(","));
        expect(";", "a ';'");
        made->fields.push_back(std::move(fields));
    }
    if (made->fields.empty()) refuse("lang.expected", made->span, "the struct has no parts", "give it one");
    return made;
}

// A size in brackets, if there is one; it may be left empty.
bool ShaderParser::brackets(std::vector<ShaderNode>& size) {
    if (!take("[")) return false;
    if (!sees("]")) size.push_back(choice());
    expect("]", "a ']' to close the bracket");
    if (sees("["))
        refuse("lang.left-out", peek().span, "arrays of arrays are not in GLSL ES 3.00",
               "put the array into a struct, or count its places in one row");
    return true;
}

const SourceToken& ShaderParser::new_name(const std::string& what) {
    if (peek().kind != SourceTokenKind::name) unexpected("the name of " + what);
    if (is_reserved_word(peek().text))
        refuse("lang.duplicate", peek().span, "'" + peek().text + "' is a word of the language", "take another name");
    if (peek().text.starts_with("gl_"))
        refuse("lang.duplicate", peek().span, "names with gl_ are the language's own", "take another name");
    return next();
}

ShaderSyntax ShaderParser::shader() {
    ShaderSyntax made;
    while (peek().kind != SourceTokenKind::end) {
        if (made.items.size() > max_shader_statements)
            refuse("lang.too-long", peek().span, "there are too many statements", "split it into several steps");
        if (sees_declaration()) {
            declare(made);
        } else {
            made.items.emplace_back(statement());
        }
    }
    return made;
}

// A function or a declaration.
void ShaderParser::declare(ShaderSyntax& made) {
    const Span first = peek().span;
    const auto add = [&](ShaderStatement s) {
        s.whole = since(first);
        made.items.emplace_back(std::move(s));
    };
    if (sees_word("precision")) return add(declaration());
    const Qualifiers before = qualifiers();
    if (before.storage == Storage::none && peek().kind == SourceTokenKind::name && sees(";", 1) && !sees_type()) {
        // "invariant gl_FragColor;" and the like have no effect here.
        at_ += 2;
        return;
    }
    TypeSyntax of = type();
    if (peek().kind != SourceTokenKind::name || !sees("(", 1)) return add(declaration_of(before, std::move(of)));
    ShaderFunctionSyntax function;
    function.type = std::move(of);
    function.word = peek().span;
    function.name = new_name("the function").text;
    structures_.emplace_back();
    function.parameters = parameters();
    if (!take(";")) {
        if (!sees("{")) unexpected("a '{' and what the function does");
        function.body = braced();
    }
    structures_.pop_back();
    function.whole = since(first);
    made.items.emplace_back(std::move(function));
}

std::vector<ParameterSyntax> ShaderParser::parameters() {
    std::vector<ParameterSyntax> made;
    expect("(", "a '('");
    if (take(")")) return made;
    if (sees_word("void") && sees(")", 1)) {
        at_ += 2;
        return made;
    }
    do {
        made.push_back(parameter());
        if (made.size() > 256) refuse("lang.too-long", peek().span, "a function takes 256 at most", "take fewer");
    } while (take(","));
    expect(")", "a ',' or a ')'");
    return made;
}

ParameterSyntax ShaderParser::parameter() {
    ParameterSyntax made;
    const Qualifiers before = qualifiers();
    made.constant = before.constant;
    made.direction = before.direction;
    if (before.storage == Storage::uniform)
        refuse("lang.expected", before.span, "a uniform stands outside of functions", "write in, out or inout");
    if (made.constant && made.direction != Direction::in)
        refuse("lang.expected", before.span, "what is const cannot be given back", "take const out");
    made.type = type();
    made.span = made.type.span;
    if (peek().kind == SourceTokenKind::name) {
        made.span = peek().span;
        made.name = new_name("what is handed over").text;
        std::vector<ShaderNode> size;
        if (brackets(size)) {
            made.is_array = true;
            made.size = std::move(size);
        }
    }
    return made;
}

ShaderStatement ShaderParser::declaration() {
    if (sees_word("precision")) {
        ShaderStatement made;
        made.span = next().span;
        if (!take_word("highp") && !take_word("mediump") && !take_word("lowp")) unexpected("highp, mediump or lowp");
        const bool fits = sees_word("float") || sees_word("int") || sees_word("sampler2D") ||
                          (peek().kind == SourceTokenKind::name && is_among(other_samplers, peek().text));
        if (!fits) unexpected("float, int or sampler2D");
        ++at_;
        expect(";", "a ';'");
        return made;
    }
    const Qualifiers before = qualifiers();
    return declaration_of(before, type());
}

// A condition; or a variable that is one, which is declared anew at each turn: with what the body begins with then.
std::vector<ShaderStatement> ShaderParser::loop_condition(ShaderStatement& loop) {
    if (!sees_declaration()) {
        loop.condition.push_back(expression());
        return {};
    }
    ShaderStatement declared;
    declared.kind = ShaderStatementKind::declare;
    declared.span = peek().span;
    declared.storage = qualifiers().storage;
    declared.type = type();
    Declarator name;
    name.span = peek().span;
    name.name = new_name("what is declared").text;
    expect("=", "a '=' and the condition");
    name.value.push_back(assignment());
    ShaderStatement ends;
    ends.kind = ShaderStatementKind::branch;
    ends.span = name.span;
    ends.nodes.push_back(node(ShaderNodeKind::name, name.span, name.span, name.name, {}));
    ends.otherwise.emplace_back();
    ends.otherwise.back().kind = ShaderStatementKind::leave;
    ends.otherwise.back().span = name.span;
    declared.names.push_back(std::move(name));
    std::vector<ShaderStatement> begin;
    begin.push_back(std::move(declared));
    begin.push_back(std::move(ends));
    return begin;
}

ShaderStatement ShaderParser::declaration_of(const Qualifiers& before, TypeSyntax of) {
    ShaderStatement made;
    made.kind = ShaderStatementKind::declare;
    made.span = cover(before.span, of.span);
    made.storage = before.storage;
    made.type = std::move(of);
    if (sees("{"))
        refuse("lang.left-out", peek().span, "blocks of uniforms are not here", "declare each uniform by itself");
    // A type by itself declares nothing, or the struct that it is.
    if (sees(";")) {
        ++at_;
        return made;
    }
    do {
        Declarator name;
        name.span = peek().span;
        name.name = new_name("what is declared").text;
        name.is_array = brackets(name.size);
        if (take("=")) name.value.push_back(assignment());
        made.names.push_back(std::move(name));
        if (made.names.size() > max_shader_statements)
            refuse("lang.too-long", peek().span, "there are too many names", "");
    } while (take(","));
    expect(";", "a ';'");
    return made;
}

}  // namespace lacquer
