// Any bytes as a cube table.
#include <unistd.h>

#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>

#include "core/base/file.h"
#include "core/picture/cube.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string path = "/dev/shm/lacquer-fuzz-" + std::to_string(::getpid()) + ".cube";
    if (!write_whole_file(path, {reinterpret_cast<const char*>(data), size})) return 0;
    const Result<CubeTable> read = read_cube(path);
    std::remove(path.c_str());
    if (const Result<CubeTable> gone = read_cube(path); gone || gone.fault().id != "picture.missing") std::abort();
    const Result<CubeTable> table = cube_from_text({reinterpret_cast<const char*>(data), size}, "fuzz");
    if (static_cast<bool>(read) != static_cast<bool>(table)) std::abort();
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
