// Stages that this processor does in one go: the same numbers as their texts give, and as plain searches and sums do.
#include <fmt/core.h>

#include <hwy/targets.h>
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/catalogue/catalogue.h"
#include "core/cpu/native.h"
#include "core/finish/shown.h"
#include "core/plan/plan.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"
#include "tests/support/operations.h"

using namespace lacquer;

namespace {

std::vector<const Operation*> operations_with_native_stages() {
    std::vector<const Operation*> found;
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        if (std::any_of(operation.stages.begin(), operation.stages.end(),
                        [](const OperationStage& stage) { return stage.native.has_value(); }))
            found.push_back(&operation);
    }
    return found;
}

// To the bit at the frame's own size, but for the ends of a disc's rows: where they lie halfway between two of the 256
// places within a pixel, single precision puts them on either. Copies at a quarter of the size are summed up in another
// order.
double rounding_of(const Operation& operation) {
    const auto has = [&](std::string_view part) {
        return std::any_of(operation.stages.begin(), operation.stages.end(), [&](const OperationStage& stage) {
            return stage.native && stage.native->way.find(part) != std::string::npos;
        });
    };
    return has("_over_disc") ? 1.0 / 256 : has("_quarter") ? 2e-6 : 0;
}

// The operations that come along, with all that is native taken out of their files.
std::shared_ptr<const Catalogue> catalogue_of_texts() {
    std::vector<OperationFile> files = built_in_operation_files();
    for (OperationFile& file : files) {
        for (std::size_t at = file.text.find(" native "); at != std::string::npos;
             at = file.text.find(" native ", at)) {
            if (file.text.rfind("//! stage", at) < file.text.rfind('\n', at) &&
                file.text.rfind('\n', at) != std::string::npos) {
                ++at;
                continue;
            }
            file.text.erase(at, file.text.find('\n', at) - at);
        }
    }
    return make_catalogue(files);
}

struct Drawn {
    Picture picture;
    std::size_t native = 0;  // passes that could be
};

Drawn drawn(const Finish& finish, const std::shared_ptr<const Catalogue>& catalogue, int width, int height) {
    static WorkerPool pool(2);
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish), catalogue));
    const CheckedStep& step = request.checked->steps.back();
    if (step.fault) FAIL(to_text(*step.fault));
    request.width = width;
    request.height = height;
    request.time = 0.4;
    request.steps = {step.name};
    Renderer renderer(pool);
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    Drawn made{std::move(frame->steps[0].picture), 0};
    for (const Pass& pass : plan_for(*request.checked, request.steps).passes)
        made.native += pass.native != nullptr ? 1 : 0;
    return made;
}

double largest_difference(const Picture& a, const Picture& b) {
    REQUIRE(a.data.size() == b.data.size());
    double largest = 0;
    for (std::size_t i = 0; i < a.data.size(); ++i)
        largest = std::max(largest, std::abs(static_cast<double>(a.data[i]) - static_cast<double>(b.data[i])));
    return largest;
}

NativeInputs inputs_of(const Picture& from, float argument) {
    NativeInputs inputs;
    inputs.from = view_of(from);
    inputs.argument = argument;
    inputs.frame_width = static_cast<float>(from.width);
    inputs.frame_height = static_cast<float>(from.height);
    inputs.stage_width = inputs.frame_width;
    inputs.stage_height = inputs.frame_height;
    return inputs;
}

bool run(const char* way, const NativeInputs& inputs, Picture& to, const Cancel& cancel = Cancel()) {
    static WorkerPool pool(3);
    return native_way(way)->run(inputs, best_kernels(), to, pool, cancel);
}

bool run(const char* way, const Picture& from, float argument, Picture& to, const Cancel& cancel = Cancel()) {
    return run(way, inputs_of(from, argument), to, cancel);
}

Picture random_seeds(int width, int height, int every, std::uint32_t seed) {
    std::mt19937 random(seed);
    Picture seeds(width, height, 2);
    for (float& value : seeds.data) value = random() % static_cast<std::uint32_t>(every) == 0 ? 0.0F : 1e6F;
    return seeds;
}

// All pixels looked at, in the order in which the first of several counts.
std::array<float, 2> nearest_by_search(const Picture& seeds, int kind, int x, int y, float reach) {
    float best = (reach + 1) * (reach + 1);
    std::array<float, 2> arm = {0, 1e6F};
    const auto look = [&](int across) {
        for (int away = 0; away < seeds.height; ++away) {
            for (const int down : {away, -away}) {
                if (y + down < 0 || y + down >= seeds.height) continue;
                if (seeds.at(x + across, y + down)[kind] != 0.0F) continue;
                const auto far = static_cast<float>(across * across + down * down);
                const bool counts = across == 0 && arm[1] > 9e5F ? far <= best : far < best;
                if (counts) {
                    best = far;
                    arm = {static_cast<float>(across), static_cast<float>(down)};
                }
                return;
            }
        }
    };
    look(0);
    for (int i = 1; x + i < seeds.width; ++i) look(i);
    for (int i = 1; x - i >= 0; ++i) look(-i);
    return arm;
}

}  // namespace

TEST_CASE("every native stage is known, and its operation reads what it is made of") {
    const auto found = operations_with_native_stages();
    CHECK(found.size() >= 7);
    for (const Operation* operation : found) {
        INFO(operation->name);
        for (const OperationStage& stage : operation->stages)
            if (stage.native) CHECK(native_way(stage.native->way) != nullptr);
        const auto stages = std::count_if(operation->stages.begin(), operation->stages.end(),
                                          [](const OperationStage& stage) { return stage.native.has_value(); });
        const Finish finish = finish_on_samples(operation->shown);
        CHECK(drawn(finish, built_in_catalogue(), 48, 27).native == static_cast<std::size_t>(stages));
    }
    CHECK(native_way("no such way") == nullptr);
}

TEST_CASE("what is done natively is what the text draws") {
    const std::shared_ptr<const Catalogue> texts = catalogue_of_texts();
    REQUIRE(texts->faults.empty());
    for (const Operation* operation : operations_with_native_stages()) {
        const test::ShownCall call = test::shown_call(*operation);
        std::vector<std::string> formulas = {call.text()};
        for (std::size_t i = 0; i < operation->arguments.size(); ++i) {
            const OperationArgument& argument = operation->arguments[i];
            if (argument.picture || !argument.range) continue;
            for (const double value : {argument.range->first, argument.range->second, 3.7, 13.0})
                formulas.push_back(call.with(i, fmt::format("{}", value)));
        }
        if (test::slowness > 1) formulas.resize(2);
        for (const std::string& formula : formulas) {
            Finish finish = finish_on_samples(formula);
            finish.frame_width = 251;
            finish.frame_height = 141;
            const Picture text = drawn(finish, texts, 0, 0).picture;
            INFO(formula);
            CHECK(drawn(finish, texts, 0, 0).native == 0);
            const Picture native = drawn(finish, built_in_catalogue(), 0, 0).picture;
            CHECK(largest_difference(native, text) <= rounding_of(*operation));
            for (const auto& [width, height] : {std::pair{1, 1}, {2, 3}, {37, 19}, {300, 200}}) {
                INFO(width << " x " << height);
                CHECK(largest_difference(drawn(finish, built_in_catalogue(), width, height).picture,
                                         drawn(finish, texts, width, height).picture) < 2e-3);
            }
        }
    }
}

TEST_CASE("a reach that is not the same everywhere is left to the text") {
    const auto native_in = [](const std::string& formula) {
        const Finish finish = test::finish_of({{"view", "vec4(uv, 0, step(0.5, uv.x))"}, {"made", formula}});
        return drawn(finish, built_in_catalogue(), 32, 18).native;
    };
    CHECK(native_in("gaussian_blur(view, 5)") == 6);
    CHECK(native_in("gaussian_blur(view, 5 * frame_size.x / 1280)") == 6);
    CHECK(native_in("gaussian_blur(view, 5 * uv.x)") == 0);
    CHECK(native_in("gaussian_blur(view, 5 * view.a)") == 0);
    CHECK(native_in("outline(view, 3 + value_noise(uv))") == 0);
    CHECK(native_in("outline(view, 3 + time)") == 1);
}

TEST_CASE("where a way cannot read another size than it stores, and where nothing is read, the text's pixels come") {
    const std::string text =
        "//! title T\n//! group G\n//! about A.\n//! says s\n//! picture picture 4 colour : w\n"
        "//! value sigma 1 number : w\n//! stage small size 1/2\n"
        "//! stage across native gaussian_across of small by near\n"
        "//! stage down native gaussian_down of across by wide\n//! stage sized native gaussian_down of down by near\n"
        "//! stage own\n"
        "vec4 small(sampler2D picture) { return texture(picture, uv); }\n"
        "float near(float sigma) { return sigma > 3.0 ? 0.0 : sigma; }\n"
        "float wide(float sigma) { return sigma + 0.5; }\n"
        "vec4 across(float sigma) { return near(sigma) <= 0.0 ? vec4(0) : texture(small, uv.yx); }\n"
        "vec4 down(float sigma) { return texture(across, uv); }\n"
        "vec4 sized(float sigma) { return near(sigma) <= 0.0 ? vec4(0) : texture(down, uv); }\n"
        "vec4 own(float sigma) { return vec4(vec2(textureSize(sized)), texture(sized, uv).rg); }\n";
    std::string plain = text;
    for (std::size_t at = plain.find(" native "); at != std::string::npos; at = plain.find(" native "))
        plain.erase(at, plain.find('\n', at) - at);
    const auto catalogue_with = [](const std::string& own) {
        std::vector<OperationFile> files = built_in_operation_files();
        files.push_back({"own", own, "own.glsl"});
        return make_catalogue(files);
    };
    const auto natively = catalogue_with(text);
    REQUIRE(natively->faults.empty());
    // A way does what its text says only for built-in ones: here it is looked at what rests, sizes, and what is not
    // taken.
    for (const char* call : {"own(view, 5)", "own(view, 0)"}) {
        const Finish finish = test::finish_of({{"view", "vec4(uv, 0, 1)"}, {"made", call}});
        INFO(call);
        CHECK(largest_difference(drawn(finish, natively, 33, 17).picture,
                                 drawn(finish, catalogue_with(plain), 33, 17).picture) == 0);
    }
    const Finish read = test::finish_of({{"view", "vec4(uv, 0, 1)"}, {"made", "own(view, 2)"}});
    const Picture made = drawn(read, natively, 33, 17).picture;
    CHECK(made.at(3, 9)[0] == 33);
    CHECK(made.at(3, 9)[1] == 17);
    // What is read across comes from the text, turned.
    CHECK(made.at(3, 9)[3] == Approx(3.5 / 33).margin(0.1));
}

TEST_CASE("the nearest place is the one that looking at all pixels finds, by every instruction set") {
    for (const auto& [width, height] :
         {std::pair{1, 1}, {1, 40}, {40, 1}, {15, 9}, {16, 16}, {17, 33}, {129, 20}, {61, 40}}) {
        for (const int every : {2, 40, 700, 1 << 30}) {
            for (const float reach : {0.0F, 2.5F, 31.0F, 4000.0F}) {
                const Picture seeds = random_seeds(width, height, every, 5);
                std::vector<std::array<float, 2>> right;
                for (int y = 0; y < height; ++y) {
                    for (int x = 0; x < width; ++x) {
                        for (const int kind : {0, 1}) right.push_back(nearest_by_search(seeds, kind, x, y, reach));
                    }
                }
                for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
                    hwy::SetSupportedTargetsForTest(target);
                    Picture found(width, height, 4);
                    REQUIRE(run("nearest_places", seeds, reach, found));
                    bool same = true;
                    for (std::size_t i = 0; i < right.size(); ++i) {
                        const float* arm = found.data.data() + 2 * i;
                        const bool none = right[i][1] > 9e5F;
                        same = same && (none ? arm[1] > 9e5F : arm[0] == right[i][0] && arm[1] == right[i][1]);
                    }
                    INFO(hwy::TargetName(target)
                         << ", " << width << " x " << height << ", one in " << every << ", reach " << reach);
                    CHECK(same);
                }
                hwy::SetSupportedTargetsForTest(0);
            }
        }
    }
}

// OpenCV's distance transform, after P. Felzenszwalb and D. Huttenlocher, "Distance Transforms of Sampled Functions",
// Theory of Computing 8, 2012.
TEST_CASE("distances are those of a library's exact distance transform") {
    const Picture seeds = random_seeds(233, 150, 900, 11);
    Picture found(233, 150, 4);
    REQUIRE(run("nearest_places", seeds, 1000, found));
    cv::Mat mask(150, 233, CV_8U);
    for (int y = 0; y < 150; ++y)
        for (int x = 0; x < 233; ++x) mask.at<std::uint8_t>(y, x) = seeds.at(x, y)[0] == 0.0F ? 0 : 1;
    cv::Mat away;
    cv::distanceTransform(mask, away, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    double largest = 0;
    for (int y = 0; y < 150; ++y)
        for (int x = 0; x < 233; ++x)
            largest = std::max(largest, std::abs(std::hypot(static_cast<double>(found.at(x, y)[0]),
                                                            static_cast<double>(found.at(x, y)[1])) -
                                                 static_cast<double>(away.at<float>(y, x))));
    CHECK(largest < 1e-3);
}

TEST_CASE("a Gaussian along both axes is a library's, with the border's pixels going on") {
    std::mt19937 random(3);
    for (const float deviation : {0.3F, 1.0F, 2.7F, 7.0F, 30.0F}) {
        for (const int channels : {1, 2, 4}) {
            Picture from(53, 41, channels);
            for (float& value : from.data) value = static_cast<float>(random() % 1000) / 500.0F;
            Picture across(53, 41, channels);
            Picture both(53, 41, channels);
            REQUIRE(run("gaussian_across", from, deviation, across));
            REQUIRE(run("gaussian_down", across, deviation, both));
            const cv::Mat source(41, 53, CV_32FC(channels), from.data.data());
            cv::Mat made;
            const int size = 2 * static_cast<int>(std::ceil(deviation * 4)) + 1;
            cv::GaussianBlur(source, made, {size, size}, static_cast<double>(deviation), static_cast<double>(deviation),
                             cv::BORDER_REPLICATE);
            double largest = 0;
            for (std::size_t i = 0; i < both.data.size(); ++i)
                largest = std::max(
                    largest, std::abs(static_cast<double>(both.data[i]) - static_cast<double>(made.ptr<float>()[i])));
            INFO(deviation << ", " << channels);
            CHECK(largest < 2e-5);
        }
    }
}

TEST_CASE("a Gaussian is the same by every instruction set, and ends for any number") {
    Picture from(71, 5, 4);
    std::mt19937 random(8);
    for (float& value : from.data) value = static_cast<float>(random()) / 1e9F;
    std::vector<Picture> made;
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
        hwy::SetSupportedTargetsForTest(target);
        Picture& to = made.emplace_back(71, 5, 4);
        REQUIRE(run("gaussian_across", from, 6.3F, to));
        CHECK(to.data == made.front().data);
    }
    hwy::SetSupportedTargetsForTest(0);
    for (const float odd : {-1.0F, 0.0F, std::nanf(""), 1e30F, std::numeric_limits<float>::infinity()}) {
        Picture to(71, 5, 4);
        REQUIRE(run("gaussian_down", from, odd, to));
        CHECK(std::all_of(to.data.begin(), to.data.end(), [](float value) { return std::isfinite(value); }));
    }
}

TEST_CASE("a copy at a quarter of the size is the same by every instruction set, and is spread for any number") {
    std::mt19937 random(9);
    for (const auto& [width, height, channels] :
         {std::array{131, 140, 4}, {200, 133, 2}, {130, 129, 1}, {20, 300, 4}}) {
        Picture from(width, height, channels);
        for (float& value : from.data) value = static_cast<float>(random() % 1000) / 500.0F;
        const bool has_copy = width > 32;
        for (const float odd : {0.75F, 3.0F, 0.0F, -1.0F, std::nanf(""), 1e30F}) {
            std::vector<Picture> made;
            for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
                hwy::SetSupportedTargetsForTest(target);
                Picture copy(scaled_side(width, 0.25), scaled_side(height, 0.25), channels);
                REQUIRE(run("gaussian_quarter", from, odd, copy));
                NativeInputs inputs = inputs_of(from, odd);
                inputs.from = view_of(copy);
                Picture& spread = made.emplace_back(width, height, channels);
                REQUIRE(run("spline_from_quarter", inputs, spread));
                CHECK(spread.data == made.front().data);
            }
            hwy::SetSupportedTargetsForTest(0);
            const auto [least, most] = std::minmax_element(made.front().data.begin(), made.front().data.end());
            INFO(width << " x " << height << ", " << odd);
            CHECK(*least >= 0.0F);
            CHECK(*most <= 2.00001F);
            CHECK((*most > 0.5F) == (has_copy && odd > 0));
        }
    }
}

TEST_CASE("what is furthest over a disc is the same by every instruction set, and ends for any number") {
    std::mt19937 random(12);
    for (const auto& [width, height, channels] : {std::array{71, 9, 4}, {1, 1, 1}, {2, 30, 2}, {40, 40, 1}}) {
        Picture from(width, height, channels);
        for (float& value : from.data) value = static_cast<float>(random() % 1000) / 500.0F - 1.0F;
        for (const float radius : {6.3F, -6.3F, 0.4F, 40.0F, 1e30F, -std::numeric_limits<float>::infinity()}) {
            std::vector<Picture> made;
            for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
                hwy::SetSupportedTargetsForTest(target);
                Picture& to = made.emplace_back(width, height, channels);
                REQUIRE(run("greatest_over_disc", from, radius, to));
                CHECK(to.data == made.front().data);
            }
            hwy::SetSupportedTargetsForTest(0);
            // What is least is what is greatest of all with the other sign.
            Picture turned = from;
            for (float& value : turned.data) value = -value;
            Picture least(width, height, channels);
            REQUIRE(run("least_over_disc", turned, radius, least));
            for (float& value : least.data) value = -value;
            CHECK(least.data == made.front().data);
        }
        for (const float odd : {0.0F, std::nanf("")}) {
            Picture to(width, height, channels);
            REQUIRE(run("greatest_over_disc", from, odd, to));
            CHECK(std::all_of(to.data.begin(), to.data.end(), [](float value) { return value == 0.0F; }));
        }
    }
}

TEST_CASE("squares of whole radii are what a plain search finds, up to the border") {
    std::mt19937 random(4);
    Picture from(150, 90, 2);
    for (float& value : from.data) value = static_cast<float>(random() % 1000) / 500.0F;
    for (const int radius : {1, 3, 7, 15, 20, 63}) {
        Picture found(from.width, from.height, 2);
        REQUIRE(run("greatest_over_disc", from, static_cast<float>(-radius), found));
        bool same = true;
        for (int y = 0; y < from.height; ++y) {
            for (int x = 0; x < from.width; ++x) {
                float most = 0;
                for (int v = std::max(y - radius, 0); v <= std::min(y + radius, from.height - 1); ++v)
                    for (int u = std::max(x - radius, 0); u <= std::min(x + radius, from.width - 1); ++u)
                        most = std::max(most, from.at(u, v)[1]);
                same = same && found.at(x, y)[1] == most;
            }
        }
        INFO(radius);
        CHECK(same);
    }
}

TEST_CASE("what is called off stops") {
    const Cancel cancel;
    cancel.request();
    const Picture seeds = random_seeds(300, 200, 100, 1);
    Picture found(300, 200, 4);
    CHECK_FALSE(run("nearest_places", seeds, 50, found, cancel));
    Picture soft(300, 200, 2);
    CHECK_FALSE(run("gaussian_across", seeds, 5, soft, cancel));
    CHECK_FALSE(run("gaussian_down", seeds, 5, soft, cancel));
    Picture quarter(75, 50, 2);
    CHECK_FALSE(run("gaussian_quarter", seeds, 0.75F, quarter, cancel));
    CHECK_FALSE(run("greatest_over_disc", seeds, 5, soft, cancel));
    CHECK_FALSE(run("least_over_disc", seeds, 5, soft, cancel));
}
