// The Gaussian blur against OpenCV's.
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/picture/files.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// Noise, hard edges, single pixels, and a checkerboard: whatever is hard to soften.
constexpr const char* hard_picture =
    "vec4(value_noise(uv * 40), step(0.5, fract(uv.x * 9)), hash(pixel), mod(pixel.x + pixel.y, 2))";

Picture blurred(int width, int height, double sigma) {
    std::vector<std::pair<std::string, std::string>> steps = {
        {"view", std::string("vec4(") + hard_picture + ".rgb, 1)"},
        {"other", std::string("vec4(") + hard_picture + ".aaa, 1)"}};
    if (sigma > 0) {
        steps.emplace_back("soft", "gaussian_blur(view, " + std::to_string(sigma) + ")");
        steps.emplace_back("soft_other", "gaussian_blur(other, " + std::to_string(sigma) + ")");
        steps.emplace_back("both", "vec4(soft.rgb, soft_other.r)");
    } else {
        steps.emplace_back("both", "vec4(view.rgb, other.r)");
    }
    RenderRequest request;
    request.checked = test::checked(test::finish_of(steps));
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {"both"};
    WorkerPool pool;
    Renderer renderer(pool);
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    return std::move(frame->steps[0].picture);
}

double largest_difference(const Picture& a, const Picture& b) {
    double worst = 0;
    for (std::size_t i = 0; i < a.data.size(); ++i)
        worst = std::max(worst, std::fabs(static_cast<double>(a.data[i]) - static_cast<double>(b.data[i])));
    return worst;
}

}  // namespace

TEST_CASE("the Gaussian is OpenCV's at any size, borders included") {
    // Source: OpenCV 4, GaussianBlur, with a kernel of four standard deviations each way, borders repeated.
    for (const auto& [width, height] : std::vector<std::pair<int, int>>{{640, 480}, {333, 257}, {130, 201}, {61, 47}}) {
        Picture view = blurred(width, height, 0);
        const cv::Mat plain(height, width, CV_32FC4, view.data.data());
        for (const double sigma : {0.7, 3.0, 8.0, 11.9, 12.1, 14.0, 20.0, 33.0, 49.0, 64.0}) {
            const Picture soft = blurred(width, height, sigma);
            cv::Mat expected;
            cv::GaussianBlur(plain, expected, cv::Size(), sigma, sigma, cv::BORDER_REPLICATE);
            double worst = 0;
            for (int y = 0; y < height; ++y) {
                for (int x = 0; x < width; ++x) {
                    for (int c = 0; c < 4; ++c) {
                        worst = std::max(worst, std::fabs(static_cast<double>(soft.at(x, y)[c]) -
                                                          static_cast<double>(expected.at<cv::Vec4f>(y, x)[c])));
                    }
                }
            }
            INFO(width << " x " << height << ", sigma " << sigma << ", worst " << worst);
            CHECK(worst <= 1.0 / 510);
        }
    }
}

TEST_CASE("a hundredth more of a Gaussian moves no pixel by more than a thousandth") {
    for (const auto& [width, height] : std::vector<std::pair<int, int>>{{640, 360}, {129, 131}}) {
        for (const double sigma : {2.0, 5.99, 11.98, 11.99, 12.0, 12.01, 24.0, 47.99, 48.0, 100.0}) {
            const double step = sigma < 3 ? 0.001 : 0.01;  // a narrow one changes faster by itself
            INFO(width << " x " << height << ", sigma " << sigma);
            CHECK(largest_difference(blurred(width, height, sigma), blurred(width, height, sigma + step)) <= 0.001);
        }
    }
}

TEST_CASE("the widest Gaussian leaves the mean, and light is neither lost nor won") {
    const Picture view = blurred(160, 144, 0);
    const Picture soft = blurred(160, 144, 512);
    for (const float part : soft.data) REQUIRE((part > 0.2F && part < 0.8F));
    CHECK(largest_difference(soft, blurred(160, 144, 511)) < 0.01);
}
