// Small helpers on names and numbers as the user reads and types them.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer {

/// Longest identifier that a finish may use.
inline constexpr std::size_t max_name_length = 24;

/// True for a lower-case letter followed by lower-case letters, digits and underscores, at most `max_name_length` long.
bool is_identifier(std::string_view name);

/// The identifier for what somebody typed as a name: "Spray size" becomes `spray_size`. Empty if nothing usable is
/// left.
std::string identifier_from(std::string_view typed);

/// The identifier as it is shown: underscores become spaces.
std::string shown_name(std::string_view identifier);

/// The candidate with the fewest single-letter edits from `name` (Levenshtein distance), if it is near enough to be
/// meant.
std::optional<std::string> nearest_name(std::string_view name, const std::vector<std::string>& candidates);

/// The shortest decimal text that reads back as exactly `value`; "nan", "inf" and "-inf" for those.
std::string shortest_number(double value);

/// `value` with at most `decimals` digits after the point and no trailing zeros; never "-0".
std::string plain_number(double value, int decimals);

/// "1 step", "2 steps": a count with its word, which takes an s in the plural unless `many` says otherwise.
std::string counted(std::size_t count, std::string_view one, std::string_view many = {});

/// The number that the whole text spells (decimal point, optional exponent, white space round it ignored), if finite.
std::optional<double> parse_number(std::string_view text);

}  // namespace lacquer
