#include "core/base/version.h"

namespace lacquer {

std::string_view program_version() { return LACQUER_VERSION; }

}  // namespace lacquer
