// Formulas by chance, of every type and with every function, always well typed.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include "core/lang/type.h"

namespace lacquer::test {

/// Makes formulas from a seed. Names that they use: uv, pixel, time, the numbers `a` and `b`, the colour `tint`, the
/// truth `wet`, the step `mask` (one number) and the ground `scene`.
class RandomFormulas {
public:
    explicit RandomFormulas(std::uint32_t seed) : state_(seed) {}
    std::string make(Type type, int depth);
    std::uint32_t below(std::uint32_t count);

    /// More names that formulas may use, by type.
    std::map<Type, std::vector<std::string>> names;
    bool derivatives = true;  ///< whether dFdx and its like may be used

private:
    std::string leaf(Type type);
    std::string truth(int depth);
    std::string sometimes(Type type, int depth);
    std::string whole(Type type, int depth);
    std::string number(int depth);
    std::string vector(Type type, int depth);
    std::uint32_t state_;
};

}  // namespace lacquer::test
