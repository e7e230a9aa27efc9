// Operations that flow, against facts of mechanics and chemistry.
#include <catch2/catch.hpp>
#include <cmath>
#include <queue>

#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

struct Loop {
    std::vector<std::pair<std::string, std::string>> steps;
    std::string ticked;
    Ticking ticking;
    int width = 64;
    int height = 64;
    double rate = 60;
};

Picture drawn(const Loop& loop, std::int64_t tick, const std::string& step) {
    Finish finish = finish_of(loop.steps);
    finish.frame_width = loop.width;
    finish.frame_height = loop.height;
    finish.ticks.rate = loop.rate;
    for (Step& each : finish.coats[0].steps.own()) {
        if (each.name == loop.ticked) each.ticking = loop.ticking;
    }
    WorkerPool pool(2);
    Renderer renderer(pool, std::nullopt, std::make_shared<RenderStores>());
    RenderRequest request;
    request.checked = checked(finish);
    request.steps = {step};
    request.time = static_cast<double>(tick) / loop.rate;
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    if (frame->steps.empty()) FAIL("nothing was drawn");
    return std::move(frame->steps[0].picture);
}

struct Mass {
    double sum = 0;
    double x = 0;
    double y = 0;
};

Mass mass_of(const Picture& picture) {
    Mass mass;
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            const double value = static_cast<double>(picture.at(x, y)[0]);
            mass.sum += value;
            mass.x += value * x;
            mass.y += value * y;
        }
    }
    mass.x /= mass.sum;
    mass.y /= mass.sum;
    return mass;
}

// How many separate places are brighter than `level`, and how long the longest is, in pixels of its larger side.
struct Places {
    int count = 0;
    int longest = 0;
};

Places places_in(const Picture& picture, int channel, float level) {
    Places found;
    std::vector<bool> seen(static_cast<std::size_t>(picture.width * picture.height), false);
    const auto index = [&](int x, int y) { return static_cast<std::size_t>(y * picture.width + x); };
    for (int start_y = 0; start_y < picture.height; ++start_y) {
        for (int start_x = 0; start_x < picture.width; ++start_x) {
            if (seen[index(start_x, start_y)] || picture.at(start_x, start_y)[channel] < level) continue;
            ++found.count;
            int left = start_x;
            int right = start_x;
            int top = start_y;
            int bottom = start_y;
            std::queue<std::pair<int, int>> todo;
            todo.emplace(start_x, start_y);
            seen[index(start_x, start_y)] = true;
            while (!todo.empty()) {
                const auto [x, y] = todo.front();
                todo.pop();
                left = std::min(left, x);
                right = std::max(right, x);
                top = std::min(top, y);
                bottom = std::max(bottom, y);
                for (const auto& [dx, dy] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
                    const int nx = x + dx;
                    const int ny = y + dy;
                    if (nx < 0 || ny < 0 || nx >= picture.width || ny >= picture.height || seen[index(nx, ny)] ||
                        picture.at(nx, ny)[channel] < level)
                        continue;
                    seen[index(nx, ny)] = true;
                    todo.emplace(nx, ny);
                }
            }
            found.longest = std::max({found.longest, right - left + 1, bottom - top + 1});
        }
    }
    return found;
}

const std::string blob = "smoothstep(0.2, 0.05, length(uv - vec2(0.5, 0.35)))";

}  // namespace

TEST_CASE("a flow whose vectors have no mean moves a blob's centre of mass by less than half a pixel in 600 ticks") {
    const Loop loop{{{"height", "sin((uv.x - 0.5) * 25) * sin((uv.y - 0.5) * 25)"},
                     {"wind", "curl_of(height, 0.002)"},
                     {"flow", "flow_push(previous(flow), wind)"}},
                    "flow",
                    {1, "smoothstep(0.2, 0.05, length(uv - 0.5))"},
                    128,
                    128};
    const Mass before = mass_of(drawn(loop, 0, "flow"));
    const Mass after = mass_of(drawn(loop, 600, "flow"));
    CHECK(std::hypot(after.x - before.x, after.y - before.y) < 0.5);
    // It has flowed.
    const Picture begun = drawn(loop, 0, "flow");
    const Picture flowed = drawn(loop, 600, "flow");
    double moved = 0;
    for (std::size_t i = 0; i < begun.data.size(); ++i)
        moved += std::fabs(static_cast<double>(begun.data[i] - flowed.data[i]));
    CHECK(moved > before.sum * 0.1);
}

TEST_CASE("a disc that is carried round comes back after a full turn, at any tick rate") {
    for (const double rate : {60.0, 240.0}) {
        // One turn in two seconds.
        Loop loop{{{"wind", "vec2(0.5 - uv.y, uv.x - 0.5) * 3.14159265"}, {"flow", "flow_push(previous(flow), wind)"}},
                  "flow",
                  {1, blob}};
        loop.rate = rate;
        const auto ticks = static_cast<std::int64_t>(2 * rate);
        const Picture begun = drawn(loop, 0, "flow");
        const Picture turned = drawn(loop, ticks, "flow");
        const Mass before = mass_of(begun);
        const Mass after = mass_of(turned);
        INFO(rate);
        // Reading between pixels softens it; it must neither drift nor lose itself: our own bound, half a pixel and a
        // tenth.
        CHECK(std::hypot(after.x - before.x, after.y - before.y) < 0.5);
        CHECK(after.sum == Approx(before.sum).epsilon(0.1));
        const Mass half_way = mass_of(drawn(loop, ticks / 2, "flow"));
        CHECK(half_way.y - 31.5 == Approx(31.5 - before.y).margin(0.6));
    }
}

TEST_CASE("a fade leaves the same share after a second at any tick rate") {
    for (const double rate : {24.0, 60.0, 144.0, 240.0}) {
        Loop loop{{{"flow", "fade_by(previous(flow), 0.3)"}}, "flow", {1, "1"}, 4, 4};
        loop.rate = rate;
        // Tick 0 fades once already.
        CHECK(drawn(loop, static_cast<std::int64_t>(rate) - 1, "flow").data[0] == Approx(0.3).epsilon(1e-4));
    }
}

TEST_CASE("pouring goes on all the time, at intervals, or once") {
    const auto poured = [](const std::string& every, std::int64_t ticks) {
        const Loop loop{{{"flow", "previous(flow) + pour(0, 1, 5, " + every + ")"}}, "flow", {1, ""}, 4, 4};
        return drawn(loop, ticks - 1, "flow").data[0];
    };
    CHECK(poured("0", 60) == 60);
    CHECK(poured("0.25", 60) == 4);
    CHECK(poured("0.25", 61) == 5);
    CHECK(poured("1000", 200) == 1);
}

// A delta's variance grows by 2 D t: Einstein 1905, any handbook of diffusion.
TEST_CASE("diffusion spreads a point by twice its pace a second, and loses nothing") {
    const Loop loop{{{"flow", "diffuse(previous(flow), 6)"}}, "flow", {1, "pixel == vec2(32, 32) ? 1.0 : 0.0"}, 65, 65};
    const Picture spread = drawn(loop, 119, "flow");
    double sum = 0;
    double variance = 0;
    for (int y = 0; y < 65; ++y) {
        for (int x = 0; x < 65; ++x) {
            const double value = static_cast<double>(spread.at(x, y)[0]);
            sum += value;
            variance += value * (x - 32) * (x - 32);
        }
    }
    CHECK(sum == Approx(1).epsilon(1e-4));
    CHECK(variance == Approx(2 * 6 * 2.0).epsilon(0.01));
}

TEST_CASE("an after-image stays and fades, and what is brighter now shows at once") {
    const Loop loop{
        {{"now", "tick < 0.5 ? 1.0 : 0.1"}, {"flow", "after_image(now, previous(flow), 0.25)"}}, "flow", {1, ""}, 4, 4};
    CHECK(drawn(loop, 0, "flow").data[0] == 1);
    CHECK(drawn(loop, 60, "flow").data[0] == Approx(0.25).epsilon(1e-4));
    CHECK(drawn(loop, 240, "flow").data[0] == Approx(0.1));
}

// Sums of differences of neighbours: what flows into a pixel flows out of it (vector calculus, any handbook).
TEST_CASE("the curl of a height has no divergence") {
    const Loop loop{{{"height", "gradient_noise(uv * 5)"}, {"wind", "curl_of(height, 1)"}}, "", {}};
    const Picture wind = drawn(loop, 0, "wind");
    double worst = 0;
    double strongest = 0;
    for (int y = 2; y < 62; ++y) {
        for (int x = 2; x < 62; ++x) {
            const double divergence = static_cast<double>(wind.at(x + 1, y)[0] - wind.at(x - 1, y)[0] +
                                                          wind.at(x, y + 1)[1] - wind.at(x, y - 1)[1]);
            worst = std::max(worst, std::fabs(divergence));
            strongest = std::max(strongest, std::fabs(static_cast<double>(wind.at(x, y)[0])));
        }
    }
    CHECK(strongest > 0.5);
    CHECK(worst < strongest * 1e-3);
}

// Pearson, "Complex Patterns in a Simple System", Science 261 (1993), figure 3: at feed 0.035 and kill 0.065 spots that
// divide (its kind lambda), at feed 0.055 and kill 0.062 long stripes (kappa); the rates from memory.
TEST_CASE("two substances make the spots and the stripes that were published") {
    const auto pattern = [](const std::string& rates) {
        const Loop loop{{{"reef", "reaction(previous(reef), " + rates + ")"}},
                        "reef",
                        {2, "vec2(1, 0) + vec2(-0.5, 0.25) * (hash(floor(pixel / 6)) > 0.9 ? 1.0 : 0.0)"},
                        96,
                        96};
        return places_in(drawn(loop, 1100, "reef"), 1, 0.2F);
    };
    const Places spots = pattern("0.035, 0.065");
    INFO(spots.count << " spots, the longest " << spots.longest);
    CHECK(spots.count > 25);
    CHECK(spots.longest < 20);
    const Places stripes = pattern("0.055, 0.062");
    INFO(stripes.count << " stripes, the longest " << stripes.longest);
    CHECK(stripes.count < 25);
    CHECK(stripes.longest > 45);
}

TEST_CASE("vorticity pushes nothing where nothing whirls, and strengthens a whirl") {
    const Loop still{{{"wind", "vec2(uv.x * 0 + 0.3, 0.1)"}, {"push", "vorticity(wind, 0.1)"}}, "", {}};
    const Picture none = drawn(still, 0, "push");
    CHECK(std::all_of(none.data.begin(), none.data.end(), [](float v) { return v == 0; }));
    const Loop whirl{{{"from", "uv - 0.5"},
                      {"wind", "vec2(-from.y, from.x) * exp(-dot(from, from) * 30)"},
                      {"push", "vorticity(wind, 0.1)"}},
                     "",
                     {}};
    const Picture push = drawn(whirl, 0, "push");
    // To the right of the middle the whirl goes down the picture, and so does the push.
    CHECK(push.at(40, 32)[1] > 0.01F);
    CHECK(push.at(24, 32)[1] < -0.01F);
}
