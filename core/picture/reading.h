// Reading a large picture, with word of how far it has come.
#pragma once

#include <functional>
#include <string>

#include "core/picture/files.h"

namespace lacquer {

/// Is told what share of the picture has been read, 0..1, again and again; false stops the reading.
using ReadWatch = std::function<bool(double share)>;

using ReadWatchedFunction = PictureRead (*)(const std::string& path, PictureMeaning meaning, int frame,
                                            const ReadWatch& watch, Picture& picture, std::string& error) noexcept;
using ReadLayerFunction = PictureRead (*)(const std::string& path, const std::string& layer, const ReadWatch& watch,
                                          Picture& picture, std::string& error) noexcept;

/// As `read_picture`. Fault `picture.stopped` besides.
Result<Picture> read_picture_watched(const std::string& path, PictureMeaning meaning, int frame,
                                     const ReadWatch& watch);

/// As `read_layer`. Fault `picture.stopped` besides.
Result<Picture> read_layer_watched(const std::string& path, const std::string& layer, const ReadWatch& watch);

}  // namespace lacquer
