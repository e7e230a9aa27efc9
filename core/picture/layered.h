// The layers of OpenEXR files, of one part or several. Part of the module that reads picture files.
#pragma once

#include <string>
#include <vector>

#include "core/picture/files_module.h"
#include "core/picture/reading.h"

namespace lacquer {

/// What layers there are, in the file's order: channels whose names begin alike up to the last point, or a part's.
PictureRead layers_in(const std::string& path, std::vector<PictureLayer>& named, std::string& error);

/// The numbers of one of them; see `read_layer`. The picture stays empty if there is no layer of that name.
PictureRead read_one_layer(const std::string& path, const std::string& name, PictureMeaning meaning,
                           const ReadWatch& watch, Picture& picture, std::string& error);

}  // namespace lacquer
