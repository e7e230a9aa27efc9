// Formulas of dials and arguments as code: statements of C99 that javascript_of reads, too.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/lang/typed.h"

namespace lacquer {

/// A formula as statements, and an expression for each of its parts. Numbers are in single precision; a truth is 1 or
/// 0.
struct FormulaCode {
    std::string statements;
    std::vector<std::string> parts;
};

/// What a part of a name is in code: an expression, a truth being -1 for yes and 0 for no.
struct CodeValue {
    std::string text;
    bool is_truth = false;
};

/// How code calls a part of a name that the formula uses.
using CodeName = std::function<CodeValue(const std::string& name, int part)>;

/// The code of a formula that reads no pictures. `margin` stands before each statement. Fault `ship.formula` for what
/// looks at pixels.
Result<FormulaCode> formula_code(const Typed& formula, const CodeName& name_of, const std::string& margin);

/// A number as C and scripts spell it, in the fewest digits that read back the same.
std::string code_number(double value);

}  // namespace lacquer
