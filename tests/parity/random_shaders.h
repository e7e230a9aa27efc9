// Whole fragment shaders by chance, with all that GLSL adds to the language of formulas: structures, arrays with
// computed places, matrices, parameters that give back, macros, switches, loops of all kinds.
#pragma once

#include <cstdint>
#include <string>

namespace lacquer::test {

class RandomShaders {
public:
    explicit RandomShaders(std::uint32_t seed) : state_(seed) {}
    /// A shader of GLSL ES 3.00 with one vec4 output and no uniforms. Numbers stay small, and steps in them rare.
    std::string make();

private:
    std::uint32_t below(std::uint32_t count);
    std::string number(int depth);
    std::string vector(int depth);
    std::string whole(int depth);
    std::string truth(int depth);
    std::string statements(int depth, int count, bool in_loop);
    std::string statement(int depth, bool in_loop);
    std::string change();
    std::string loop(int depth);

    std::uint32_t state_;
    int counters_ = 0;
};

}  // namespace lacquer::test
