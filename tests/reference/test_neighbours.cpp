// Neighbour operations against OpenCV 4: dilate, erode, distanceTransform, Sobel.
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "tests/support/operations.h"

using namespace lacquer;
using test::picture_of;

namespace {

constexpr int picture_width = 200;
constexpr int picture_height = 140;
const std::string noise = "value_noise(uv * vec2(21, 15))";
const std::string shapes = "step(0.62, value_noise(uv * vec2(9, 7)))";

cv::Mat as_mat(Picture& picture) { return {picture.height, picture.width, CV_32F, picture.data.data()}; }

}  // namespace

TEST_CASE("growing and shrinking by squares are OpenCV's dilate and erode") {
    Picture plain = picture_of({{"grey", noise}}, picture_width, picture_height);
    for (const int radius : {1, 4, 11}) {
        const cv::Mat square = cv::Mat::ones(2 * radius + 1, 2 * radius + 1, CV_8U);
        for (const bool grows : {true, false}) {
            cv::Mat expected;
            if (grows) {
                cv::dilate(as_mat(plain), expected, square, cv::Point(-1, -1), 1, cv::BORDER_REPLICATE);
            } else {
                cv::erode(as_mat(plain), expected, square, cv::Point(-1, -1), 1, cv::BORDER_REPLICATE);
            }
            const std::string call = (grows ? "grow(grey, " : "shrink(grey, ") + std::to_string(radius) + ", 1)";
            const Picture made = picture_of({{"grey", noise}, {"made", call}}, picture_width, picture_height);
            double worst = 0;
            for (int y = 0; y < picture_height; ++y) {
                for (int x = 0; x < picture_width; ++x) {
                    worst =
                        std::max(worst, static_cast<double>(std::fabs(made.at(x, y)[0] - expected.at<float>(y, x))));
                }
            }
            INFO(call << ", worst " << worst);
            CHECK(worst <= 1e-6);
        }
    }
}

TEST_CASE("growing and shrinking roundly are OpenCV's with a disc, within the part of a pixel that its rim covers") {
    // Source: OpenCV 4, dilate and erode with an elliptic kernel; the rim is half a pixel to either side.
    Picture plain = picture_of({{"mask", shapes}}, picture_width, picture_height);
    for (const double radius : {1.0, 2.5, 6.0, 12.0, 31.0}) {
        const auto disc = [&](double r) {
            const int n = static_cast<int>(std::ceil(std::max(r, 0.0)));
            cv::Mat kernel = cv::Mat::zeros(2 * n + 1, 2 * n + 1, CV_8U);
            for (int y = -n; y <= n; ++y) {
                for (int x = -n; x <= n; ++x) kernel.at<std::uint8_t>(y + n, x + n) = std::hypot(x, y) <= r ? 1 : 0;
            }
            return kernel;
        };
        for (const bool grows : {true, false}) {
            const auto by = [&](double r) {
                cv::Mat made;
                if (grows) {
                    cv::dilate(as_mat(plain), made, disc(r), cv::Point(-1, -1), 1, cv::BORDER_REPLICATE);
                } else {
                    cv::erode(as_mat(plain), made, disc(r), cv::Point(-1, -1), 1, cv::BORDER_REPLICATE);
                }
                return made;
            };
            const cv::Mat less = by(radius - 1);
            const cv::Mat more = by(radius + 1);
            const std::string call = (grows ? "grow(mask, " : "shrink(mask, ") + std::to_string(radius) + ")";
            const Picture made = picture_of({{"mask", shapes}, {"made", call}}, picture_width, picture_height);
            INFO(call);
            for (int y = 0; y < picture_height; ++y) {
                for (int x = 0; x < picture_width; ++x) {
                    const float low = std::min(less.at<float>(y, x), more.at<float>(y, x));
                    const float high = std::max(less.at<float>(y, x), more.at<float>(y, x));
                    REQUIRE((made.at(x, y)[0] >= low - 1e-6F && made.at(x, y)[0] <= high + 1e-6F));
                }
            }
        }
    }
}

TEST_CASE("the distance field is OpenCV's distance transform on both sides") {
    const Picture mask = picture_of({{"mask", shapes}}, picture_width, picture_height);
    cv::Mat inside(picture_height, picture_width, CV_8U);
    for (int y = 0; y < picture_height; ++y) {
        for (int x = 0; x < picture_width; ++x) inside.at<std::uint8_t>(y, x) = mask.at(x, y)[0] >= 0.5F ? 255 : 0;
    }
    cv::Mat to_outside;
    cv::Mat to_inside;
    cv::distanceTransform(inside, to_outside, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    cv::distanceTransform(255 - inside, to_inside, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    const Picture field =
        picture_of({{"mask", shapes}, {"made", "distance_field(mask, 0.5, 64)"}}, picture_width, picture_height);
    std::size_t off = 0;
    for (int y = 0; y < picture_height; ++y) {
        for (int x = 0; x < picture_width; ++x) {
            // The edge runs half-way between the last pixel inside and the first outside.
            const double expected = inside.at<std::uint8_t>(y, x) != 0
                                        ? -(static_cast<double>(to_outside.at<float>(y, x)) - 0.5)
                                        : static_cast<double>(to_inside.at<float>(y, x)) - 0.5;
            const double made = static_cast<double>(field.at(x, y)[0]);
            REQUIRE(std::fabs(made - std::clamp(expected, -64.0, 64.0)) < 1);
            off += std::fabs(made - std::clamp(expected, -64.0, 64.0)) > 0.01 ? 1 : 0;
        }
    }
    // Jump flooding misses the nearest pixel now and then, by little.
    INFO(off << " are off");
    CHECK(off * 200 < static_cast<std::size_t>(picture_width * picture_height));
}

TEST_CASE("an edge is a quarter of the size of OpenCV's Sobel") {
    Picture plain = picture_of({{"grey", noise}}, picture_width, picture_height);
    cv::Mat dx;
    cv::Mat dy;
    cv::Sobel(as_mat(plain), dx, CV_32F, 1, 0, 3, 1, 0, cv::BORDER_REPLICATE);
    cv::Sobel(as_mat(plain), dy, CV_32F, 0, 1, 3, 1, 0, cv::BORDER_REPLICATE);
    const Picture made = picture_of({{"grey", noise}, {"made", "edge(grey)"}}, picture_width, picture_height);
    for (int y = 0; y < picture_height; ++y) {
        for (int x = 0; x < picture_width; ++x) {
            const double expected =
                std::hypot(static_cast<double>(dx.at<float>(y, x)), static_cast<double>(dy.at<float>(y, x))) / 4;
            REQUIRE(static_cast<double>(made.at(x, y)[0]) == Approx(expected).margin(1e-5));
        }
    }
}

TEST_CASE("a level picture_height faces straight up, a slope leans down it") {
    // Common practice, no source: the normal of z = f(x, y) is (-df/dx, -df/dy, 1), normalised.
    const Picture level =
        picture_of({{"picture_height", "0.7 + 0 * uv.x"}, {"made", "relief(picture_height, 30)"}}, 20, 20);
    CHECK(level.at(9, 9)[0] == 0.0F);
    CHECK(level.at(9, 9)[1] == 0.0F);
    CHECK(level.at(9, 9)[2] == 1.0F);
    // Rising by 1/20 a pixel to the right, 20 pixels high: 45 degrees.
    const Picture slope = picture_of({{"picture_height", "uv.x"}, {"made", "relief(picture_height, 20)"}}, 20, 20);
    CHECK(slope.at(9, 9)[0] == Approx(-std::sqrt(0.5)).margin(1e-4));
    CHECK(slope.at(9, 9)[1] == Approx(0).margin(1e-6));
    CHECK(slope.at(9, 9)[2] == Approx(std::sqrt(0.5)).margin(1e-4));
}
