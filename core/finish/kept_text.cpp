#include "core/finish/kept_text.h"

#include "core/finish/json_line.h"
#include "core/finish/json_tree.h"

namespace lacquer {

void keep_text(KeptKeys& kept, std::string_view key, std::string_view text) { keep_key(kept, key, one_line(text)); }

std::optional<std::string> kept_text(const KeptKeys& kept, std::string_view key) {
    const std::optional<std::string> json = kept_json(kept, key);
    if (!json) return std::nullopt;
    const Result<Json> value = json_from_text(*json, std::string(key));
    if (!value || !value->is_string()) return std::nullopt;
    return value->text();
}

}  // namespace lacquer
