// Which part of a variable within code is looked at: a picture has up to four numbers.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/shader/source_tokens.h"
#include "core/shader/syntax.h"

namespace lacquer {

/// The structs that a shader defines, by name; those of its functions among them.
using ShaderStructs = std::map<std::string, const StructSyntax*, std::less<>>;
ShaderStructs structs_of(const ShaderSyntax& syntax);

/// One ".name" or "[place]" behind a variable.
struct PartAccess {
    std::string text;
    bool is_marked = false;  ///< the mark stands on it
};

/// What stands behind the name `at` and belongs to it. Places that are computed by calling or changing something count
/// as the first.
std::vector<PartAccess> accesses_behind(const std::vector<SourceToken>& tokens, std::size_t at, std::size_t marked);

/// The name to which a name behind a '.' belongs; `at` itself where none stands before it.
std::size_t root_of(const std::vector<SourceToken>& tokens, std::size_t at);

struct SeenPart {
    std::string path;  ///< behind the variable's name: "", ".colour", "[1]"
    Type type = Type::number;
};

/// The part that `accesses` name, as far as it takes to come to a number or vector; where they end before that, the
/// first part of each. Nothing for what holds no numbers.
std::optional<SeenPart> seen_part(const ShaderStructs& structs, const TypeSyntax& type, bool is_array,
                                  const std::vector<PartAccess>& accesses);

}  // namespace lacquer
