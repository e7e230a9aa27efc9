#include "core/base/fault.h"

#include <fmt/core.h>

namespace lacquer {

std::string to_text(const Fault& fault) {
    std::string text = fault.place.where;
    if (fault.place.line > 0) text += fmt::format(" line {} column {}", fault.place.line, fault.place.column);
    if (!text.empty()) text += ": ";
    text += fault.message;
    if (!fault.mend.empty()) text += " - " + fault.mend;
    return text;
}

}  // namespace lacquer
