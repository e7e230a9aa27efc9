// Reading a large picture, with word of how far it has come.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <type_traits>
#include <utility>

#include "core/picture/files.h"

namespace lacquer {

/// Who waits for a picture, and may stop its reading.
class ReadWatch {
public:
    using Share = std::function<bool(double share)>;
    using Size = std::function<bool(int width, int height, int bytes_a_pixel)>;

    /// `share` is told what has been read of it, 0..1, again and again; `size` how large it is, before anything is
    /// decoded, and what a pixel will take. What gives false stops the reading.
    template <class Told>
    requires std::is_invocable_r_v<bool, Told, double> ReadWatch(Told share, Size size = {})
        : share_(std::move(share)), size_(std::move(size)) {}

    bool operator()(double share) const { return share_(share); }
    bool admits(int width, int height, int bytes_a_pixel = 16) const {
        return !size_ || size_(width, height, bytes_a_pixel);
    }

private:
    Share share_;
    Size size_;
};

/// A file whose pictures follow one another, kept open: each is laid over those before it, so that only those after the
/// one read last need no decoding from the beginning.
class PictureSequence {
public:
    virtual ~PictureSequence() = default;
    /// Picture `frame`, from 0, as `ReadWatchedFunction` gives it. After anything but `done` it is of no more use.
    virtual PictureRead read(int frame, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                             std::string& error) = 0;
};
using OpenSequenceFunction = PictureRead (*)(const std::string& path, std::shared_ptr<PictureSequence>& opened,
                                             std::string& error) noexcept;

using ReadWatchedFunction = PictureRead (*)(const std::string& path, PictureMeaning meaning, int frame,
                                            const ReadWatch& watch, Picture& picture, std::string& error) noexcept;
using ReadLayerFunction = PictureRead (*)(const std::string& path, const std::string& layer, PictureMeaning meaning,
                                          const ReadWatch& watch, Picture& picture, std::string& error) noexcept;

/// As `read_picture`, as bytes where the file holds those. Fault `picture.stopped` besides.
Result<Picture> read_picture_watched(const std::string& path, PictureMeaning meaning, int frame,
                                     const ReadWatch& watch);

/// Opens a file with several pictures, GIF or APNG. Faults as those of `read_picture`.
Result<std::shared_ptr<PictureSequence>> open_sequence(const std::string& path);

/// A picture of such a file, which lies at `path`. Faults as those of `read_picture_watched`.
Result<Picture> read_of_sequence(PictureSequence& sequence, const std::string& path, int frame, PictureMeaning meaning,
                                 const ReadWatch& watch);

/// The fault `picture.stopped`: somebody stopped the reading.
Fault reading_stopped(const std::string& path = "");

/// As `read_layer`; `meaning` says only what its colours have to do with its opacity. Fault `picture.stopped` besides.
Result<Picture> read_layer_watched(const std::string& path, const std::string& layer, const ReadWatch& watch,
                                   PictureMeaning meaning = PictureMeaning::colour);

}  // namespace lacquer
