// Picture files. The library that reads them is a module of its own, loaded when the first picture is needed: it brings
// hundreds of libraries along, and a window should not wait for them.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/picture/files_module.h"
#include "core/picture/picture.h"

namespace lacquer {

/// The picture at `path` as 4 channels with straight opacity; grey is spread over the colours, missing opacity is 1.
/// Faults: `picture.missing`, `picture.unreadable`, `picture.too-large`, `picture.module`.
/// Of a file with several pictures one after another, GIF or APNG, `frame` counts from 0. SVG is drawn at its own size.
Result<Picture> read_picture(const std::string& path, PictureMeaning meaning, int frame = 0);

/// How many pictures the file holds one after another, and until when each is shown. Faults as above.
Result<PictureFrames> picture_frames(const std::string& path);

/// Which of them is shown at a time, in seconds, round and round.
int frame_at(const PictureFrames& frames, double seconds);

/// What layers there are in the file, in its order; a plain picture has one without a name. Faults as above.
Result<std::vector<PictureLayer>> picture_layers(const std::string& path);

/// One of these layers, the numbers as they are: up to 3 channels, then opacity, which is 1 where there is none.
/// Colours are made straight where the file holds them multiplied by opacity. A layer that fills its display window in
/// part only is 0, and clear, elsewhere. Faults as above, and `picture.layer`.
Result<Picture> read_layer(const std::string& path, const std::string& layer);

/// Writes channels, all of one size, as an OpenEXR file without loss, or with the loss of 16 bits where asked for;
/// marked where opacity is not multiplied into the colours. Faults: `file.unwritable`, `picture.unwritable`,
/// `picture.module`.
Result<Done> write_exr(const std::string& path, const std::vector<WrittenChannel>& channels, bool straight = false);

/// Writes a picture by the library. Faults: as above.
Result<Done> write_encoded(const std::string& path, const EncodedPicture& picture);

/// Loads the module now rather than when the first picture is needed. Safe from any thread.
void prepare_picture_files();

/// Writes `image` as a PNG marked as sRGB, with opacity only where some pixel is not opaque; an older file is replaced
/// only once the new one is whole. Faults: `file.unwritable`, `picture.unwritable`.
Result<Done> write_png(const std::string& path, const Image8& image);

}  // namespace lacquer
