// The pictures that finishes read, kept between frames.
#pragma once

#include <filesystem>
#include <map>
#include <string>
#include <utility>

#include "core/base/result.h"
#include "core/picture/files.h"

namespace lacquer {

/// Reads each picture once, and again when its file changes. Not to be shared between threads.
class GroundStore {
public:
    /// The picture at `path`. Faults as those of `read_picture`.
    Result<PicturePtr> picture(const std::string& path, PictureMeaning meaning);

    /// The same, averaged down to at most `width` x `height`, for small views.
    Result<PicturePtr> small_picture(const std::string& path, PictureMeaning meaning, int width, int height);

private:
    struct Entry {
        std::filesystem::file_time_type changed;
        Result<PicturePtr> picture = PicturePtr();
        PicturePtr small;
        std::pair<int, int> small_size;
    };
    Entry& entry(const std::string& path, PictureMeaning meaning);
    std::map<std::pair<std::string, PictureMeaning>, Entry> entries_;
};

}  // namespace lacquer
