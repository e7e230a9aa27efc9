// Runs the tests of a program. What does it takes long to compile, so it stands in one source for all programs.
#pragma once

namespace lacquer::test {

/// Runs them as the command line says; gives the program's exit code.
int run_tests(int argc, char** argv);

}  // namespace lacquer::test
