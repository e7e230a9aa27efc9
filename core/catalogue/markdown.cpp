#include "core/catalogue/markdown.h"

#include <set>

#include "core/base/text.h"

namespace lacquer {

namespace {

std::string signature_of(const Operation& operation) {
    std::string call = operation.name + "(";
    for (const OperationArgument& argument : operation.arguments) {
        call += (call.back() == '(' ? "" : ", ") + argument.name;
    }
    return call + ")";
}

std::string line_of(const OperationArgument& argument) {
    std::string text = "- `" + argument.name + "`: " + argument.words + " (";
    if (argument.choices.empty()) {
        text += argument.width == 0 ? std::string("any width")
                                    : counted(static_cast<std::size_t>(argument.width), "number");
        text += (argument.picture ? ", read as a picture" : "") + (", " + argument.role);
        if (argument.range) {
            text += "; " + shortest_number(argument.range->first) + " to " + shortest_number(argument.range->second);
            if (!argument.unit.empty()) text += " " + argument.unit;
        }
    }
    for (std::size_t i = 0; i < argument.choices.size(); ++i) {
        text += (i == 0 ? "" : ", ") + std::to_string(i) + " " + argument.choices[i];
    }
    if (!argument.fallback.empty()) text += "; `" + argument.fallback + "` if left out";
    return text + ")\n";
}

}  // namespace

std::string catalogue_as_markdown(const Catalogue& catalogue,
                                  const std::function<std::string(const Operation&)>& note) {
    std::set<std::string> groups;
    for (const auto& [name, operation] : catalogue.operations) groups.insert(operation.group);
    std::string text;
    for (const std::string& group : groups) {
        text += "\n## " + group + "\n";
        for (const auto& [name, operation] : catalogue.operations) {
            if (operation.group != group) continue;
            text += "\n### " + operation.title + "\n\n`" + signature_of(operation) + "` - " + operation.about + "\n";
            if (!operation.is_plain()) text += "It fills a whole step.\n";
            if (const std::string more = note(operation); !more.empty()) text += "\n" + more + "\n";
            if (!operation.arguments.empty()) text += "\n";
            for (const OperationArgument& argument : operation.arguments) text += line_of(argument);
        }
    }
    return text;
}

}  // namespace lacquer
