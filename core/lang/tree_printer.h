// Typed trees as text. What all texts have in common stands here; a dialect says what its own is.
#pragma once

#include <span>
#include <string>
#include <vector>

#include "core/lang/typed.h"

namespace lacquer {

/// Binding strength of operators, GLSL ES 3.00 section 5.1; larger binds tighter.
int strength_of(Operator op);
/// That of signs, which only parts and calls go beyond.
inline constexpr int sign_strength = 12;

/// The text, in brackets if asked for.
std::string bracketed(std::string text, bool brackets);

class TreePrinter {
public:
    TreePrinter() = default;
    virtual ~TreePrinter() = default;
    TreePrinter(const TreePrinter&) = delete;
    TreePrinter& operator=(const TreePrinter&) = delete;

    /// The text, in brackets if it binds less than `strength`.
    std::string expression(const Typed& typed, int strength);

protected:
    virtual std::string literal(const Typed& typed, int strength) = 0;
    virtual std::string symbol(const Typed& typed) = 0;
    /// The name of a variable of the function that is being written, by its number.
    virtual std::string variable(int number, const std::string& name) = 0;
    virtual std::string convert(const Typed& typed) = 0;
    virtual std::string binary(const Typed& typed, int strength) = 0;
    virtual std::string call(const Typed& typed) = 0;
    virtual std::string read(const Typed& typed) = 0;
    virtual std::string run(const Typed& typed) = 0;
    /// By which letters the parts of a value go.
    virtual const char* part_letters(Type type) const = 0;
    /// The condition of a loop, which may have to count turns as well.
    virtual std::string condition(const Typed& typed) { return expression(typed, 0); }

    /// A function's head and body. `name` is what it is called.
    std::string function_text(const TypedFunction& function, const std::string& name, int depth);
    std::string statements(std::span<const TypedStatement> list, int depth);
    std::string list(std::span<const Typed> args);
    /// The function that is being written; null outside of one.
    const TypedFunction* function() const { return function_; }
    void set_function(const TypedFunction* function) { function_ = function; }

private:
    std::string parts(const Typed& typed, const PartsOf& taken);
    std::string unary(const Typed& typed, Operator op);
    std::string statement(const TypedStatement& s, int depth);
    std::string simple(const TypedStatement& s);
    std::string part_names(Type of, std::span<const std::uint8_t> parts) const;

    const TypedFunction* function_ = nullptr;
};

}  // namespace lacquer
