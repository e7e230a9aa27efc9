// Numbers as people type them into a page.
#pragma once

#include <QString>
#include <optional>
#include <vector>

#include "core/base/vec3.h"

namespace lacquer {

/// All numbers in a text, whatever stands between them.
std::vector<double> numbers_in(const QString& text);

/// Three numbers, parted by commas, semicolons or spaces, or nothing.
std::optional<Vec3> point_from(const QString& text);

}  // namespace lacquer
