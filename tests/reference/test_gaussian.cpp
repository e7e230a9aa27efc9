// The Gaussian blur against OpenCV's.
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/picture/files.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr int width = 640;
constexpr int height = 480;

Picture blurred(const std::string& sigma, bool by_operation) {
    std::vector<std::pair<std::string, std::string>> steps = {
        {"view", "vec4(value_noise(uv * 40), step(0.5, fract(uv.x * 9)), hash(pixel), 1)"}};
    if (by_operation) steps.emplace_back("soft", "gaussian_blur(view, " + sigma + ")");
    RenderRequest request;
    request.checked = test::checked(test::finish_of(steps));
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {""};
    WorkerPool pool;
    Renderer renderer(pool);
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    return std::move(frame->steps[0].picture);
}

}  // namespace

TEST_CASE("the Gaussian is OpenCV's in the interior") {
    // Source: OpenCV 4, GaussianBlur, with a kernel of four standard deviations each way.
    Picture view = blurred("0", false);
    const cv::Mat plain(height, width, CV_32FC4, view.data.data());
    for (const auto& [sigma, tolerance] : std::vector<std::pair<double, double>>{
             {0.7, 1e-4}, {3, 1e-4}, {8, 1e-4}, {12.5, 1.0 / 510}, {20, 1.0 / 510}, {49, 1.0 / 510}, {60, 1.0 / 510}}) {
        const Picture soft = blurred(std::to_string(sigma), true);
        cv::Mat expected;
        cv::GaussianBlur(plain, expected, cv::Size(), sigma, sigma, cv::BORDER_REPLICATE);
        double worst = 0;
        const int margin = static_cast<int>(std::min(4 * sigma, 220.0));
        for (int y = margin; y < height - margin; ++y) {
            for (int x = margin; x < width - margin; ++x) {
                for (int c = 0; c < 3; ++c) {
                    worst = std::max(worst, std::fabs(static_cast<double>(soft.at(x, y)[c]) -
                                                      static_cast<double>(expected.at<cv::Vec4f>(y, x)[c])));
                }
            }
        }
        INFO("sigma " << sigma << ", worst " << worst);
        CHECK(worst <= tolerance);
    }
}
