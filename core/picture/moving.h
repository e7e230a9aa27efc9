// Pictures that move, GIF and APNG, read by FFmpeg's libraries. Part of the module that reads picture files.
#pragma once

#include <memory>
#include <string>

#include "core/picture/files_module.h"
#include "core/picture/reading.h"

namespace lacquer {

/// Whether the file begins as a GIF does, or as a PNG that goes on to say that it has several frames.
bool is_moving(const std::string& path);

/// How many pictures there are, and how long each is shown. A picture for which the file gives less than two hundredths
/// of a second is shown for a tenth (common practice, no source).
PictureRead read_moving_frames(const std::string& path, PictureFrames& frames, std::string& error);

/// Opens the file to read its pictures as the file's player would show them: each laid over those before as the file
/// says. 4 channels, straight opacity.
PictureRead open_moving(const std::string& path, std::shared_ptr<PictureSequence>& opened, std::string& error);

}  // namespace lacquer
