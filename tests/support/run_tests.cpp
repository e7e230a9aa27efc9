#define CATCH_CONFIG_RUNNER
#include "tests/support/run_tests.h"

#include <dlfcn.h>

#include <catch2/catch.hpp>

namespace lacquer::test {

int run_tests(int argc, char** argv) {
    // Vulkan's loader takes its driver out of memory at the end, after which a leak of the driver's has no name that
    // leaks.txt could list. Where there is no such driver, there is nothing to keep.
    dlopen("libvulkan_lvp.so", RTLD_LAZY | RTLD_NODELETE);
    return Catch::Session().run(argc, argv);
}

}  // namespace lacquer::test
