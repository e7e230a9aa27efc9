// A call of an operation as its file says it: "blur scene by mask rim up to haze".
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/span.h"
#include "core/catalogue/catalogue.h"

namespace lacquer {

/// A run of words; `span` is where they stand in the formula, if they do.
struct SentencePiece {
    std::string text;
    std::optional<Span> span;
};

/// The line of a whole shader that tells most of it in one: its last with a statement, where it gives its value. Of
/// everything else the whole text.
Span telling_line(std::string_view formula);

/// The formula as a sentence, if it is one call of an operation and every argument that was handed over has a place in
/// what the operation says. Nothing otherwise: then the formula speaks for itself.
std::optional<std::vector<SentencePiece>> sentence_of(const Catalogue& catalogue, std::string_view formula);

}  // namespace lacquer
