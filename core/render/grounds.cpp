#include "core/render/grounds.h"

#include <system_error>

#include "core/picture/sample.h"

namespace lacquer {

GroundStore::Entry& GroundStore::entry(const std::string& path, PictureMeaning meaning) {
    std::error_code code;
    const auto changed = std::filesystem::last_write_time(path, code);
    const auto [place, fresh] = entries_.try_emplace({path, meaning});
    Entry& entry = place->second;
    if (fresh || entry.changed != changed) {
        entry = Entry{};
        entry.changed = changed;
        Result<Picture> read = read_picture(path, meaning);
        if (read) {
            entry.picture = PicturePtr(std::make_shared<const Picture>(std::move(*read)));
        } else {
            entry.picture = read.fault();
        }
    }
    return entry;
}

Result<PicturePtr> GroundStore::picture(const std::string& path, PictureMeaning meaning) {
    return entry(path, meaning).picture;
}

Result<PicturePtr> GroundStore::small_picture(const std::string& path, PictureMeaning meaning, int width, int height) {
    Entry& found = entry(path, meaning);
    if (!found.picture) return found.picture.fault();
    if (found.small == nullptr || found.small_size != std::pair(width, height)) {
        found.small = std::make_shared<const Picture>(shrink_to(**found.picture, width, height));
        found.small_size = {width, height};
    }
    return found.small;
}

}  // namespace lacquer
