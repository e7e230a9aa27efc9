#include "core/batch/content_key.h"

#include <fmt/core.h>
#include <xxhash.h>

#include <cstring>
#include <fstream>
#include <memory>
#include <vector>

#include "core/base/version.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"

namespace lacquer {

namespace {

std::string hex(XXH128_hash_t hash) { return fmt::format("{:016x}{:016x}", hash.high64, hash.low64); }

}  // namespace

// Pieces are hashed one by one, and what comes of that together, so that no two rows of pieces are alike.
ContentKey& ContentKey::add(std::string_view bytes) {
    so_far_ += hex(XXH3_128bits(bytes.data(), bytes.size()));
    return *this;
}

ContentKey& ContentKey::add(double number) { return add(fmt::format("{}", number)); }

Result<Done> ContentKey::add_file(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    if (!file) {
        add("no file");
        return Done{};
    }
    const std::unique_ptr<XXH3_state_t, decltype(&XXH3_freeState)> state(XXH3_createState(), &XXH3_freeState);
    XXH3_128bits_reset(state.get());
    std::vector<char> piece(std::size_t{1} << 20U);
    while (file.read(piece.data(), static_cast<std::streamsize>(piece.size())) || file.gcount() > 0)
        XXH3_128bits_update(state.get(), piece.data(), static_cast<std::size_t>(file.gcount()));
    if (file.bad())
        return Fault{
            "file.unreadable", "the file cannot be read", "look at its rights", {path, {}, 0, 0}, Severity::fault};
    so_far_ += hex(XXH3_128bits_digest(state.get()));
    return Done{};
}

std::string ContentKey::text() const { return hex(XXH3_128bits(so_far_.data(), so_far_.size())); }

Result<ContentKey> key_of_finish(const Finish& finish, const std::string& path, const Catalogue& catalogue) {
    ContentKey key;
    key.add(program_version()).add(finish_to_text(finish));
    for (const std::string& named : all_paths(finish)) {
        if (const Result<Done> added = key.add_file(picture_path(path, named)); !added) return added.fault();
    }
    for (const auto& [name, operation] : catalogue.operations) key.add(name).add(operation.text);
    return key;
}

}  // namespace lacquer
