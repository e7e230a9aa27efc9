// manifest.json: what a set holds and how it is drawn, for programs.
#pragma once

#include <span>
#include <string>

#include "core/finish/json.h"
#include "core/ship/output.h"

namespace lacquer {

/// The version of the manifest's form; it grows when something that was there changes its meaning.
inline constexpr int manifest_version = 1;

/// The manifest of a set that is written as these outputs, and of what files they wrote; see docs/shipping.md and
/// docs/manifest.schema.json.
Json manifest_of(const ShipMaterial& material, std::span<const ShipOutput* const> outputs,
                 std::span<const ShippedFile> files = {});

/// A dial as the manifest tells of it, with its name.
Json manifest_dial(const Dial& dial);

/// JSON with one thing a line where it would be long.
std::string readable_json(const Json& value);

}  // namespace lacquer
