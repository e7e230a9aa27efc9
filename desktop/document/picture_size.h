// How large a picture is, without reading all of it.
#pragma once

#include <QSize>
#include <string>

namespace lacquer {

/// Pixels, from the head of a file of any format that can be read; empty if it cannot be told.
QSize picture_size(const std::string& path);

}  // namespace lacquer
