// A finish that tests play.
#pragma once

#include <algorithm>
#include <bit>
#include <catch2/catch.hpp>
#include <cstdint>
#include <optional>
#include <string>
#include <utility>

#include "core/render/renderer.h"
#include "tests/support/finishes.h"

namespace lacquer::test {

/// A finish that is drawn again and again.
class Player {
public:
    explicit Player(const Finish& finish, int threads = 2, std::optional<KernelSet> kernels = std::nullopt)
        : pool_(threads), renderer_(pool_, std::move(kernels)) {
        set(finish);
    }
    void set(const Finish& finish) { request.checked = checked(finish); }
    Frame frame(double time, const std::string& step = "") {
        request.time = time;
        request.steps = {step};
        Result<Frame> drawn = renderer_.render(request, Cancel());
        if (!drawn) FAIL(to_text(drawn.fault()));
        return std::move(*drawn);
    }
    Picture picture(double time, const std::string& step = "") { return std::move(frame(time, step).steps[0].picture); }
    float value(double time, const std::string& step = "") { return picture(time, step).data[0]; }
    Renderer& renderer() { return renderer_; }

    RenderRequest request;

private:
    WorkerPool pool_;
    Renderer renderer_;
};

/// The time of a tick at the usual rate, seconds.
inline double tick_time(std::int64_t tick) { return static_cast<double>(tick) / 60; }

/// Whether two pictures are the same to the last bit.
inline bool same_bits(const Picture& a, const Picture& b) {
    return a.width == b.width && a.height == b.height && a.channels == b.channels &&
           std::equal(a.data.begin(), a.data.end(), b.data.begin(), [](float x, float y) {
               return std::bit_cast<std::uint32_t>(x) == std::bit_cast<std::uint32_t>(y);
           });
}

}  // namespace lacquer::test
