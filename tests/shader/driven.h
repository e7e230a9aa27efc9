// Whole shaders drawn by the GL driver as they stand, to be compared with.
#pragma once

#include <string>

#include "core/lang/value.h"
#include "core/picture/picture.h"
#include "core/render/renderer.h"

namespace lacquer::test {

/// What a fragment shader with one vec4 output and no uniforms but `scene`, a picture, draws; rows from the top of a
/// frame whose places count from the bottom. A fault fails the test.
Picture driven(const std::string& shader, int width, int height, const Picture* scene = nullptr);

/// The same by Lacquer, as a step that goes by GLSL's rules.
Picture by_lacquer(const std::string& shader, int width, int height, Backend backend = Backend::cpu,
                   const Picture* scene = nullptr);

/// The same by the oracle, at one pixel; without pictures.
Value by_oracle(const std::string& shader, int x, int y, int width, int height);

/// Share of numbers that differ by more than `within`, relative beyond 1; what is not finite on either side is passed.
double share_off(const Picture& a, const Picture& b, double within);

/// Whether glslang takes it as a fragment shader of GLSL ES 3.00; its words.
struct Verdict {
    bool accepted = false;
    std::string words;
};
Verdict by_glslang(const std::string& shader);

}  // namespace lacquer::test
