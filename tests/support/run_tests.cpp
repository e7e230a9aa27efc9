#define CATCH_CONFIG_RUNNER
#include "tests/support/run_tests.h"

#include <catch2/catch.hpp>

namespace lacquer::test {

int run_tests(int argc, char** argv) { return Catch::Session().run(argc, argv); }

}  // namespace lacquer::test
