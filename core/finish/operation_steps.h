// Operations that fill a whole step: their stages as steps.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/catalogue/catalogue.h"
#include "core/finish/finish.h"

namespace lacquer {

/// How this processor may do a stage in one go; see core/cpu/native.h.
struct NativeUse {
    std::string way;
    std::string from;  ///< the stored step that it reads
    Typed argument;    ///< a number that is the same for all pixels
};

/// A stage that is stored before the step itself.
struct OperationStep {
    std::string name;  ///< the step's, a point, and the stage's
    Typed typed;
    double scale = 1;
    std::shared_ptr<const NativeUse> native = {};
};

/// The operation of which the formula is one call, if that fills a whole step; else null.
const Operation* whole_step_operation(std::string_view formula, const Catalogue& catalogue);

/// The step's own value, with the stages before it added to `stages`, and the pictures that were handed over to
/// `handed`. The scope must know where expressions that are
/// read as pictures go, and the step's name as their stem. Faults: `lang.count`, `lang.picture`, `finish.operation` and
/// those of the language.
Result<Typed> expand_operation(const Operation& operation, std::string_view formula, const Scope& scope,
                               const Finish& finish, std::vector<OperationStep>& stages, std::vector<Symbol>& handed);

}  // namespace lacquer
