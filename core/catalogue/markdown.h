// What is known of the operations, to be read by people.
#pragma once

#include <functional>
#include <string>

#include "core/catalogue/catalogue.h"

namespace lacquer {

/// All operations by group, as Markdown. What `note` says of an operation, if it is not empty, is a paragraph of its
/// own under its sentence.
std::string catalogue_as_markdown(const Catalogue& catalogue, const std::function<std::string(const Operation&)>& note);

}  // namespace lacquer
