// Keys of a file that this version does not know. They are kept as text, so that whoever holds them needs no JSON.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer {

/// A key and its value, as JSON on one line.
struct KeptKey {
    std::string key;
    std::string json;
    friend bool operator==(const KeptKey&, const KeptKey&) = default;
};

/// In the order in which the file has them; each key once.
using KeptKeys = std::vector<KeptKey>;

/// Sets a key to JSON text, in the place of what it had.
void keep_key(KeptKeys& kept, std::string_view key, std::string json);
/// What a key holds, or nothing.
std::optional<std::string> kept_json(const KeptKeys& kept, std::string_view key);
/// Takes a key out.
void forget_key(KeptKeys& kept, std::string_view key);

}  // namespace lacquer
