// Tapes that are played by shipped code and by the application, to be compared.
#pragma once

#include <string>
#include <vector>

#include "core/ship/play/play_code.h"
#include "tests/support/temporary.h"

namespace lacquer::test {

/// Values by the names of fields, for each moment that was asked for.
using PlayedValues = std::vector<std::vector<std::pair<std::string, double>>>;

/// A finish's material; it must be without a fault.
ShipMaterial material_of(const Finish& finish, const std::string& path = {});

/// What the application says of all fields at these moments.
PlayedValues by_application(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments);
/// The same by the header, compiled by `compiler` ("gcc -std=c99"), and by the module in Node.
PlayedValues by_header(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments,
                       const std::string& compiler, const std::string& ending);
PlayedValues by_module(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments);

/// Checks that both are the same within 1e-6, relative beyond 1.
void check_alike(const PlayedValues& shipped, const PlayedValues& wanted);

/// Every warning that shipped headers must live with.
inline constexpr const char* strict = " -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror";

}  // namespace lacquer::test
