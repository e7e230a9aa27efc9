// Whole shaders drawn by the GL driver as they stand, to be compared with.
#pragma once

#include <string>

#include "core/picture/picture.h"

namespace lacquer::test {

/// What a fragment shader with one vec4 output and no uniforms but `scene`, a picture, draws; rows from the top of a
/// frame whose places count from the bottom. A fault fails the test.
Picture driven(const std::string& shader, int width, int height, const Picture* scene = nullptr);

/// The same by Lacquer's strips, as a step that goes by GLSL's rules.
Picture by_strips(const std::string& shader, int width, int height, const Picture* scene = nullptr);

/// Share of numbers that differ by more than `within`, relative beyond 1; what is not finite on either side is passed.
double share_off(const Picture& a, const Picture& b, double within);

/// Whether glslang takes it as a fragment shader of GLSL ES 3.00; its words.
struct Verdict {
    bool accepted = false;
    std::string words;
};
Verdict by_glslang(const std::string& shader);

}  // namespace lacquer::test
