// Operations called on the samples, for tests.
#pragma once

#include <string>
#include <vector>

#include "core/catalogue/catalogue.h"
#include "core/render/renderer.h"

namespace lacquer::test {

/// The formula by which an operation is shown, taken apart at its own call: all arguments are there, those left out by
/// their fallbacks.
struct ShownCall {
    std::string before;
    std::vector<std::string> arguments;
    std::string after;

    /// The formula again, with argument `index` written otherwise.
    std::string with(std::size_t index, const std::string& text) const;
    std::string text() const;
};
ShownCall shown_call(const Operation& operation);

/// Draws formulas over the samples, keeping what can be kept between them.
class SampleDrawer {
public:
    explicit SampleDrawer(Backend backend);
    /// The formula's value at each pixel of a small frame. A fault fails the test.
    Picture draw(const std::string& formula);

private:
    WorkerPool pool_{2};
    Renderer renderer_;
};

/// By how much a build with sanitizers may take longer.
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
inline constexpr int slowness = 10;
#else
inline constexpr int slowness = 1;
#endif

/// The value of a formula that is the same everywhere, as many numbers as it has.
std::vector<float> constant_value(const std::string& formula);

/// The picture of the last of these steps: name, formula.
Picture picture_of(const std::vector<std::pair<std::string, std::string>>& steps, int width, int height,
                   double time = 0);

}  // namespace lacquer::test
