// Any bytes as a cube table.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/picture/cube.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const Result<CubeTable> table = cube_from_text({reinterpret_cast<const char*>(data), size}, "fuzz");
    if (!table) {
        if (table.fault().message.empty()) std::abort();
        return 0;
    }
    const int n = table->size;
    // A table with a domain of its own has a row that tells of it.
    const CubeTable usual;
    const int more = table->least != usual.least || table->most != usual.most ? 1 : 0;
    if (table->picture.width != (table->three ? n * n : n) || table->picture.height != (table->three ? n : 1) + more)
        std::abort();
    return 0;
}
