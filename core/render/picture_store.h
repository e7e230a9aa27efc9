// The pictures that finishes read, shared by all that draw.
#pragma once

#include <algorithm>
#include <condition_variable>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "core/base/recently_used.h"
#include "core/base/result.h"
#include "core/picture/files.h"
#include "core/picture/reading.h"
#include "core/picture/sprite.h"

namespace lacquer {

/// Pictures of one reading or making: one, or a sprite's layers, or copies of growing smallness.
using KeptPictures = std::vector<PicturePtr>;

inline constexpr std::size_t usual_picture_bytes = std::size_t{1024} * 1024 * 1024;

/// How much of pictures is taken.
struct PictureLimits {
    /// Bytes of all that is kept or in use. A finish whose pictures in use, and the steps that are drawn of them, take
    /// more is told so before the rest of its pictures are decoded, and those are not there. One of any size may be,
    /// beside what takes a quarter.
    std::size_t most = usual_picture_bytes;
    std::int64_t most_pixels = max_picture_pixels;  ///< of one picture
    /// Pixels from which on the pictures of 8-bit files stay bytes: a quarter of the memory, and slower to read between
    /// their pixels.
    std::int64_t bytes_from = std::int64_t{1} << 24U;
    std::uintmax_t most_file_bytes = std::uintmax_t{1} << 30U;  ///< of one file
};

class MemoryShare;

/// Reads each file once, and again when it changes. Everything stands under one budget in bytes, what is in use and
/// what is kept for later: the latter gives way, what was not used for longest first. Of those that want the same file
/// at the same time one reads and the others wait. Files with many pictures stay open, so that the next one needs no
/// decoding from the beginning. Safe from any thread.
class PictureStore {
public:
    explicit PictureStore(const PictureLimits& limits = {}) : limits_(limits), items_(limits.most) {}

    /// The picture at `path`, or picture `frame` of a file with several. Faults as those of `read_picture_watched`, and
    /// `picture.memory` where it does not fit beside those that are in use, `picture.too-large` beyond the limits; a
    /// reading that was stopped is not kept.
    Result<PicturePtr> file(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch);

    /// A layer of a layered file. Faults as those of `read_layer_watched`.
    Result<PicturePtr> layer(const std::string& path, const std::string& name, PictureMeaning meaning,
                             const ReadWatch& watch);

    /// A table of colours as a picture. Faults as those of `read_cube`.
    Result<PicturePtr> table(const std::string& path);

    /// Cell `number` of a sheet.
    PicturePtr cell(const PicturePtr& sheet, int columns, int rows, int number);

    /// A picture averaged down to at most `width` x `height`; of what cannot be averaged, one pixel in so many.
    PicturePtr smaller(const PicturePtr& whole, int width, int height, bool averaged);

    /// Copies at half the size, a quarter and so on; see `smaller_copies`.
    KeptPictures copies(const PicturePtr& whole, bool weighed);

    /// Pictures that are made of `from` only, of which some may be null, by a key that says how. They are let go of
    /// when one of those is.
    KeptPictures made_of(const std::string& key, std::span<const PicturePtr> from,
                         const std::function<std::vector<Picture>()>& make);

    /// A picture of `bytes` that is made of `from` only, by a key that says how. It counts as one that
    /// was read: `picture.memory` where it does not fit. The fault of `make` is not kept.
    Result<PicturePtr> made_within(const std::string& key, std::span<const PicturePtr> from, std::size_t bytes,
                                   const std::function<Result<Picture>()>& make);

    /// Whether all of a picture is opaque.
    bool opaque(const PicturePtr& picture);

    /// What layers a file has, and how many pictures it holds one after another. Faults as those of `picture_layers`.
    Result<std::vector<PictureLayer>> layers(const std::string& path);
    PictureFrames frames(const std::string& path);

    /// Another finish is drawn from here on: what did not fit beside the pictures of the one before may fit now.
    void try_again();

    /// Bytes of all that is kept or in use, with what is held beside the pictures.
    std::size_t bytes() const;
    const PictureLimits& limits() const { return limits_; }
    /// Bytes that may be kept beside the pictures: half of all, and less where pictures and what is drawn of them need
    /// it; a quarter at the least, unless what is in use takes more than the rest.
    std::size_t room_beside() const;

    /// A text that changes when the file at `path` does.
    static std::string state_of(const std::string& path);

private:
    friend class MemoryShare;
    struct Item {
        std::vector<std::weak_ptr<const Picture>> of;  // what it was made of, where not of a file
        Result<KeptPictures> pictures = KeptPictures();
    };
    struct OpenFile {
        std::mutex mutex;
        std::string state;
        std::shared_ptr<PictureSequence> sequence;
    };

    using Reading = std::function<Result<Picture>(const ReadWatch& watch)>;
    Result<PicturePtr> read(const std::string& key, const ReadWatch& watch, const Reading& reading);
    Result<Picture> next_of(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch);
    std::optional<Fault> fault_of_file(const std::string& path) const;
    const KeptPictures* find_made(const std::string& whole_key, std::span<const PicturePtr> from);
    bool stays_as_read(std::int64_t pixels) const { return pixels >= limits_.bytes_from; }
    void keep(const std::string& key, Item item);
    bool make_room(const std::string& key, std::size_t bytes);
    void give_way();
    void set_beside(const MemoryShare* share, std::size_t bytes, bool in_use);

    /// Bytes of pictures that were read.
    struct ReadBytes {
        std::size_t all = 0;     // kept here, or held by whoever draws, or both
        std::size_t in_use = 0;  // held by whoever draws
        std::size_t away = 0;    // of those, no longer kept here
    };
    ReadBytes read_bytes() const;
    std::size_t bytes_coming() const;

    const PictureLimits limits_;
    std::map<std::string, std::weak_ptr<const Picture>> read_pictures_;  // that may still be held by somebody
    mutable std::mutex mutex_;
    std::condition_variable read_;
    std::map<std::string, double> shares_read_;        // of what is being read
    std::map<std::string, std::size_t> bytes_coming_;  // of what is being read, once that is known
    struct Beside {
        std::size_t bytes = 0;
        bool in_use = false;
    };
    std::map<const MemoryShare*, Beside> beside_;
    std::size_t bytes_beside(bool in_use) const;
    RecentlyUsed<std::string, Item> items_;
    RecentlyUsed<std::string, Result<std::vector<PictureLayer>>> layers_{256};
    RecentlyUsed<std::string, PictureFrames> frames_{256};
    RecentlyUsed<std::string, std::shared_ptr<OpenFile>> open_files_{8};
    std::map<const Picture*, std::pair<std::weak_ptr<const Picture>, bool>> opaque_;
};

/// What somebody holds beside the pictures, out of the same budget, until this is gone.
class MemoryShare {
public:
    /// What is `in_use` counts among what may be held at the same time, what is not among what is kept.
    MemoryShare(PictureStore& store, bool in_use) : store_(&store), in_use_(in_use) {}
    ~MemoryShare() { set(0); }
    MemoryShare(const MemoryShare&) = delete;
    MemoryShare& operator=(const MemoryShare&) = delete;

    /// So many bytes from now on.
    void set(std::size_t bytes) { store_->set_beside(this, bytes, in_use_); }

private:
    PictureStore* store_;
    bool in_use_;
};

/// A list of one.
std::vector<Picture> alone(Picture picture);

}  // namespace lacquer
