// What lacquer-pictures and whoever asks it for a picture say to one another. Both are of one build, so plain structs
// do; what comes back is from a process that may have been taken over, and is believed only within bounds.
#pragma once

#include <cstdint>

#include "core/picture/files_module.h"

namespace lacquer {

/// File name of the program; see `part_of_program`.
inline constexpr const char* reader_program = "lacquer-pictures";

enum class ReaderTask : std::uint32_t {
    prepare,  ///< load what reads most kinds of files; nothing comes back
    picture,
    frames,
    layers,
    layer,
    sequence,  ///< then, again and again, a `SequenceAsk`
    walls      ///< tell which walls stand around a reader
};

/// One message to the program, followed by the path and the layer's name, and with the socket to answer on. Each is
/// done by a process of its own.
struct ReaderAsk {
    ReaderTask task = ReaderTask::prepare;
    PictureMeaning meaning = PictureMeaning::colour;
    std::int32_t frame = 0;
    std::uint32_t path = 0;  ///< bytes
    std::uint32_t layer = 0;
};

inline constexpr std::uint32_t longest_path = 4096;
inline constexpr std::uint32_t longest_layer_name = 1024;

struct SequenceAsk {
    std::int32_t frame = 0;
    PictureMeaning meaning = PictureMeaning::colour;
};

/// Comes back any number of times: how far the reading is, or how large the picture will be, and last what it gave,
/// followed by its bytes.
struct ReaderAnswer {
    enum Kind : std::uint32_t { progress = 0x6C717071, size, given };
    Kind kind = progress;
    PictureRead read = PictureRead::unreadable;
    double share = 0;
    std::int32_t width = 0;  ///< of a picture, whose numbers come last
    std::int32_t height = 0;
    std::int32_t channels = 0;
    Coding coding = Coding::numbers;  ///< as what they come, or will
    std::uint32_t bytes = 0;          ///< of a text or list, which comes first; see packed.h
};

/// Most bytes of such a list or text.
inline constexpr std::uint32_t longest_list = 16U * 1024 * 1024;

}  // namespace lacquer
