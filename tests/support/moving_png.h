// An animated PNG, written out chunk by chunk as the W3C's PNG specification (third edition) has it.
#pragma once

#include <string>

#include "tests/support/temporary.h"

namespace lacquer::test {

/// Writes a file of three pictures of 4 x 2 pixels under `name`; gives its path. The first has red 10 of 255 everywhere
/// and stays for 25/100 s; the second lays red 200 over the right half, for 50/100 s; the third red 90 over the left
/// half of that, for 10/100 s. All are opaque.
std::string moving_png(const TemporaryFolder& folder, const std::string& name);

}  // namespace lacquer::test
