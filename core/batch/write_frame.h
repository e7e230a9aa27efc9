// A drawn frame as a picture file.
#pragma once

#include <string>

#include "core/finish/finish.h"
#include "core/picture/write_picture.h"
#include "core/render/frame.h"

namespace lacquer {

/// How frames are written.
struct FrameWriting {
    WriteOptions options;
    bool data = false;  ///< numbers as they are, without the sRGB curve
};

/// Writes a frame: one step as the stage shows it, several as layers. Faults: those of `write_picture`; `batch.empty`
/// where there is nothing to draw.
Result<Done> write_frame(const std::string& path, const Frame& frame, const Finish& finish,
                         const FrameWriting& writing);

}  // namespace lacquer
