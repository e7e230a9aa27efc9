#include "core/base/kept_keys.h"

#include <algorithm>

namespace lacquer {

void keep_key(KeptKeys& kept, std::string_view key, std::string json) {
    const auto found = std::find_if(kept.begin(), kept.end(), [&](const KeptKey& k) { return k.key == key; });
    if (found == kept.end()) {
        kept.push_back({std::string(key), std::move(json)});
    } else {
        found->json = std::move(json);
    }
}

std::optional<std::string> kept_json(const KeptKeys& kept, std::string_view key) {
    for (const KeptKey& each : kept) {
        if (each.key == key) return each.json;
    }
    return std::nullopt;
}

void forget_key(KeptKeys& kept, std::string_view key) {
    std::erase_if(kept, [&](const KeptKey& k) { return k.key == key; });
}

}  // namespace lacquer
