// What a shader says, before anybody asks whether it makes sense. By the grammar of GLSL ES 3.00, chapter 9.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/span.h"
#include "core/lang/type.h"

namespace lacquer {

enum class ShaderNodeKind {
    number,   ///< `value`, of the kind `scalar`
    truth,    ///< `value` is 0 or 1
    name,     ///< `text`
    field,    ///< args[0] . `text`
    length,   ///< args[0].length()
    index,    ///< args[0] [ args[1] ]
    call,     ///< `text`(args...): a function or a constructor
    array,    ///< `text`[size](args...): a constructor of an array; `sized` where args[0] is its size
    unary,    ///< `text` args[0]
    before,   ///< `text` args[0], which is ++ or --
    after,    ///< args[0] `text`
    binary,   ///< args[0] `text` args[1]
    select,   ///< args[0] ? args[1] : args[2]
    assign,   ///< args[0] `text` args[1]
    sequence  ///< args[0], args[1]
};

/// `span` covers all of it, `word` its own name, mark or number.
struct ShaderNode {
    ShaderNodeKind kind = ShaderNodeKind::number;
    Span span;
    Span word;
    std::string text = {};
    double value = 0;
    Scalar scalar = Scalar::real;
    bool sized = false;
    int depth = 1;  ///< of the tree from here down
    std::vector<ShaderNode> args = {};
};

struct StructSyntax;

/// A type as it is written: its name, and perhaps a size in brackets.
struct TypeSyntax {
    std::string name;
    Span span;
    std::shared_ptr<const StructSyntax> structure = {};  ///< where it is defined in the same breath
    bool is_array = false;
    std::vector<ShaderNode> size = {};  ///< of the array: one, or none where it goes by its value
};

/// One of the things that a declaration names.
struct Declarator {
    std::string name;
    Span span;
    bool is_array = false;
    std::vector<ShaderNode> size = {};
    std::vector<ShaderNode> value = {};  ///< one or none
};

struct FieldsSyntax {
    TypeSyntax type;
    std::vector<Declarator> names;
};
struct StructSyntax {
    std::string name;  ///< empty for one without
    Span span;
    std::vector<FieldsSyntax> fields;
};

enum class Storage { none, constant, uniform, input, output };

enum class ShaderStatementKind {
    nothing,     ///< a ';' by itself, or a precision
    declare,     ///< `type` names; a struct by itself has none
    compute,     ///< nodes[0]
    branch,      ///< if (nodes[0]) body else otherwise
    loop,        ///< for (first; condition; last) body, or while (condition) body
    loop_after,  ///< do body while (condition);
    choose,      ///< switch (nodes[0]) body
    label,       ///< case nodes[0]: or default: in a switch
    leave,
    skip,
    give_back,  ///< return, perhaps nodes[0]
    discard,
    block
};

/// `span` is what is quoted of it.
struct ShaderStatement {
    ShaderStatementKind kind = ShaderStatementKind::nothing;
    Span span;
    Span whole = {};  ///< from its first word to its last; empty in a loop's head
    TypeSyntax type = {};
    Storage storage = Storage::none;
    std::vector<Declarator> names = {};
    std::vector<ShaderNode> nodes = {};
    std::vector<ShaderStatement> first = {};
    std::vector<ShaderNode> condition = {};  ///< of a loop: one or none
    std::vector<ShaderNode> last = {};
    std::vector<ShaderStatement> body = {};
    std::vector<ShaderStatement> otherwise = {};
};

enum class Direction { in, out, inout };

struct ParameterSyntax {
    TypeSyntax type;
    std::string name;  ///< may be empty
    Span span;
    Direction direction = Direction::in;
    bool constant = false;
    bool is_array = false;
    std::vector<ShaderNode> size = {};
};

/// A function's head, and its body if it is defined here.
struct ShaderFunctionSyntax {
    TypeSyntax type;
    std::string name;
    Span word;
    std::vector<ParameterSyntax> parameters;
    std::optional<std::vector<ShaderStatement>> body;
    Span whole = {};
};

/// A shader from top to bottom.
struct ShaderSyntax {
    std::vector<std::variant<ShaderFunctionSyntax, ShaderStatement>> items;
};

}  // namespace lacquer
