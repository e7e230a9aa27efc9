// Code by chance: functions, variables, branches and loops, always well typed and never endless.
#pragma once

#include <cstdint>
#include <string>

#include "tests/parity/random_formulas.h"

namespace lacquer::test {

/// Makes code from a seed, over the names of RandomFormulas.
class RandomPrograms {
public:
    explicit RandomPrograms(std::uint32_t seed) : formulas_(seed) { formulas_.derivatives = false; }
    /// Code that gives back a value of this type.
    std::string make(Type type);

private:
    std::string function();
    std::string statements(int depth, int count, bool in_loop, Type result);
    std::string statement(int depth, bool in_loop, Type result);
    std::string assignment();
    std::string loop(int depth, Type result);
    std::string value(Type type) { return formulas_.make(type, 2); }

    RandomFormulas formulas_;
    int counters_ = 0;
};

}  // namespace lacquer::test
