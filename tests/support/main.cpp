#include "tests/support/run_tests.h"

int main(int argc, char** argv) { return lacquer::test::run_tests(argc, argv); }
