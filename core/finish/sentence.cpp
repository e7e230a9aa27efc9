#include "core/finish/sentence.h"

#include <algorithm>

#include "core/lang/code.h"
#include "core/lang/expression.h"

namespace lacquer {

Span telling_line(std::string_view formula) {
    const Span whole{0, static_cast<std::uint32_t>(formula.size())};
    if (formula.find("void main") == std::string_view::npos) return whole;
    const std::size_t last = formula.find_last_of(';');
    if (last == std::string_view::npos) return whole;
    const std::size_t before = formula.find_last_of('\n', last);
    const std::size_t first = formula.find_first_not_of(" \t", before == std::string_view::npos ? 0 : before + 1);
    return {static_cast<std::uint32_t>(first), static_cast<std::uint32_t>(last + 1)};
}

std::optional<std::vector<SentencePiece>> sentence_of(const Catalogue& catalogue, std::string_view formula) {
    if (is_code(formula)) return std::nullopt;
    const Result<Expression> parsed = parse(formula);
    if (!parsed || parsed->kind != ExpressionKind::call) return std::nullopt;
    const auto found = catalogue.operations.find(parsed->text);
    if (found == catalogue.operations.end() || found->second.says.empty()) return std::nullopt;
    const Operation& operation = found->second;
    if (parsed->args.size() > operation.arguments.size()) return std::nullopt;
    std::vector<SentencePiece> pieces;
    std::vector<bool> said(operation.arguments.size(), false);
    std::string_view rest = operation.says;
    while (!rest.empty()) {
        const std::size_t open = std::min(rest.find('{'), rest.size());
        if (open > 0) pieces.push_back({std::string(rest.substr(0, open)), std::nullopt});
        rest.remove_prefix(open);
        const std::size_t close = rest.find('}');
        if (rest.empty() || close == std::string_view::npos) break;
        const std::string_view name = rest.substr(1, close - 1);
        rest.remove_prefix(close + 1);
        for (std::size_t i = 0; i < operation.arguments.size(); ++i) {
            const OperationArgument& argument = operation.arguments[i];
            if (argument.name != name) continue;
            said[i] = true;
            if (i < parsed->args.size()) {
                const Span span = parsed->args[i].span;
                pieces.push_back({std::string(formula.substr(span.begin, span.end - span.begin)), span});
            } else {
                pieces.push_back({argument.fallback, std::nullopt});
            }
        }
    }
    // What was handed over must not be hidden.
    for (std::size_t i = 0; i < parsed->args.size(); ++i) {
        if (!said[i]) return std::nullopt;
    }
    return pieces;
}

}  // namespace lacquer
