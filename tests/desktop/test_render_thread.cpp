// The render thread: the latest request wins, late frames are drawn smaller, leaving does not wait.
#include <QTest>
#include <atomic>
#include <catch2/catch.hpp>

#include "desktop/drawing/render_thread.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

RenderRequest request_for(const std::string& formula, int size) {
    Finish finish = test::finish_of({{"a", formula}});
    finish.frame_width = finish.frame_height = size;
    RenderRequest request;
    request.checked = test::checked(finish);
    request.steps = {""};
    return request;
}

// Slow enough that frames come too late on any machine of today.
std::string slow_formula() {
    std::string formula = "uv.x";
    for (int i = 0; i < 60; ++i) formula += " + gradient_noise(vec3(uv * " + std::to_string(i) + ", 1))";
    return formula;
}

struct Results {
    std::mutex mutex;
    std::vector<StagePicture> pictures;
    std::size_t count() {
        const std::lock_guard lock(mutex);
        return pictures.size();
    }
};

}  // namespace

TEST_CASE("of many requests the last is drawn, and not all") {
    Results results;
    RenderThread thread({.stage = [&](StagePicture picture) {
        const std::lock_guard lock(results.mutex);
        results.pictures.push_back(std::move(picture));
    }});
    for (int i = 0; i < 200; ++i) thread.ask_stage({request_for(std::to_string(i) + " / 255", 256), {}, {}, false});
    REQUIRE(QTest::qWaitFor([&] { return thread.idle(); }, 60000));
    REQUIRE(results.count() >= 1);
    CHECK(results.count() < 200);
    CHECK(qRed(results.pictures.back().image.pixel(0, 0)) == 199);
}

TEST_CASE("after a late frame a drag is drawn smaller, and a rest at full size") {
    Results results;
    RenderThread thread({.stage = [&](StagePicture picture) {
        const std::lock_guard lock(results.mutex);
        results.pictures.push_back(std::move(picture));
    }});
    const auto draw = [&](bool may_reduce) {
        thread.ask_stage({request_for(slow_formula(), 1024), {}, {}, may_reduce});
        REQUIRE(QTest::qWaitFor([&] { return thread.idle(); }, 60000));
        return results.pictures.back();
    };
    const StagePicture first = draw(false);
    CHECK(first.image.width() == 1024);
    REQUIRE(first.milliseconds > 33);
    const StagePicture dragged = draw(true);
    CHECK(dragged.reduced);
    CHECK(dragged.image.width() <= 512);
    // A sixteenth at the coarsest.
    CHECK(dragged.image.width() >= 64);
    CHECK(dragged.milliseconds < first.milliseconds);
    CHECK_FALSE(draw(false).reduced);
}

TEST_CASE("of a large frame that takes long, what the view shows of it comes first, and then the whole") {
    Results results;
    RenderThread thread({.stage = [&](StagePicture picture) {
        const std::lock_guard lock(results.mutex);
        results.pictures.push_back(std::move(picture));
    }});
    const auto draw = [&](QSize view, bool values) {
        const std::size_t before = results.count();
        StageRequest asked{request_for(slow_formula(), 2000), {}, view, false};
        asked.values = values;
        thread.ask_stage(asked);
        REQUIRE(QTest::qWaitFor([&] { return thread.idle(); }, 60000));
        const std::lock_guard lock(results.mutex);
        return std::vector<StagePicture>(results.pictures.begin() + static_cast<std::ptrdiff_t>(before),
                                         results.pictures.end());
    };
    // How long it takes is not known yet.
    const std::vector<StagePicture> first = draw({300, 300}, false);
    REQUIRE(first.size() == 1);
    REQUIRE(first[0].milliseconds > 100);
    const std::vector<StagePicture> both = draw({300, 300}, false);
    REQUIRE(both.size() == 2);
    CHECK((both[0].reduced && both[0].more_comes));
    CHECK(both[0].image.size() == QSize(300, 300));
    CHECK(both[0].milliseconds < both[1].milliseconds / 4);
    CHECK_FALSE((both[1].reduced || both[1].more_comes));
    CHECK(both[1].image.width() == 2000);
    CHECK(both[1].fitted.width() == 300);
    // Both look the same, but for how they were made smaller.
    const QColor early = both[0].image.pixelColor(150, 150);
    const QColor late = both[1].fitted.pixelColor(150, 150);
    CHECK(std::abs(early.red() - late.red()) < 40);
    // Not where its numbers are wanted, nor where it would hardly be smaller.
    CHECK(draw({300, 300}, true).size() == 1);
    CHECK(draw({1200, 1200}, false).size() == 1);
    CHECK(draw({}, false).size() == 1);
}

TEST_CASE("ticks that take long are drawn at the size of the view first") {
    Results results;
    RenderThread thread({.stage = [&](StagePicture picture) {
        const std::lock_guard lock(results.mutex);
        results.pictures.push_back(std::move(picture));
    }});
    Finish finish = test::finish_of({{"a", "previous(a) * 0.5 + gradient_noise(vec3(uv * 9 + level, 1))"}});
    finish.frame_width = finish.frame_height = 1200;
    finish.coats[0].steps.own()[0].ticking.width = 1;
    Dial dial;
    dial.name = dial.code_name = "level";
    finish.dials.push_back(dial);
    const auto draw = [&](double level, QSize view = {300, 300}) {
        finish.dials[0].value[0] = level;
        RenderRequest request;
        request.checked = test::checked(finish);
        request.steps = {""};
        request.time = 1;
        const std::size_t before = results.count();
        thread.ask_stage({request, {}, view, false});
        REQUIRE(QTest::qWaitFor([&] { return thread.idle(); }, 60000));
        const std::lock_guard lock(results.mutex);
        return std::vector<StagePicture>(results.pictures.begin() + static_cast<std::ptrdiff_t>(before),
                                         results.pictures.end());
    };
    const std::vector<StagePicture> first = draw(0);
    REQUIRE(first.back().ticks > 10);
    REQUIRE(first.back().tick_milliseconds > 100);
    const std::vector<StagePicture> both = draw(0.5);
    REQUIRE(both.size() == 2);
    CHECK((both[0].rough && both[0].more_comes));
    CHECK(both[0].ticks == first.back().ticks);
    CHECK(both[0].image.width() == 300);
    CHECK(both[0].tick_milliseconds < both[1].tick_milliseconds);
    CHECK_FALSE((both[1].rough || both[1].more_comes));
    CHECK(both[1].image.width() == 1200);
    // Where they are at hand, the view shows them as they are.
    const std::vector<StagePicture> again = draw(0.5);
    REQUIRE(again.size() == 2);
    CHECK_FALSE(again[0].rough);
    CHECK(again[0].ticks + again[1].ticks == 0);
    // A view of nearly all of the frame is shown them more coarsely than it could be, but not where they are at hand.
    CHECK(draw(0.5, {1100, 1100}).size() == 1);
    const std::vector<StagePicture> wide = draw(0.75, {1100, 1100});
    REQUIRE(wide.size() == 2);
    CHECK((wide[0].rough && wide[0].more_comes));
    CHECK(wide[0].image.width() <= 600);
    CHECK_FALSE(wide[1].rough);
    CHECK(wide[1].image.width() == 1200);
}

TEST_CASE("leaving in the middle of a long frame does not wait for it") {
    std::atomic<int> done{0};
    {
        RenderThread thread({.stage = [&](StagePicture) { ++done; }});
        thread.ask_stage({request_for(slow_formula(), 8000), {}, {}, false});
        REQUIRE(QTest::qWaitFor([&] { return !thread.idle(); }, 60000));
    }
    CHECK(done == 0);
}

TEST_CASE("thumbnails come for every step that is asked for") {
    std::mutex mutex;
    Thumbnails made;
    RenderThread thread({.thumbnails = [&](Thumbnails thumbnails) {
        const std::lock_guard lock(mutex);
        made = std::move(thumbnails);
    }});
    RenderRequest request;
    request.checked = test::checked(test::finish_of({{"a", "uv"}, {"b", "texture(a, uv * 0.5)"}, {"c", "2"}}));
    request.steps = {"a", "b", "c"};
    request.width = 20;
    request.height = 10;
    thread.ask_thumbnails(request);
    REQUIRE(QTest::qWaitFor([&] { return thread.idle(); }, 60000));
    REQUIRE(made.size() == 3);
    CHECK(made.at("a").image.size() == QSize(10, 5));
    CHECK(made.at("c").range.most == 2);
    CHECK(made.at("b").type == Type::vec2);
}

TEST_CASE("values at points, candidates and warnings come too; inspections wait until there is time") {
    std::mutex mutex;
    Probe probe;
    Thumbnails tried;
    Warnings warnings;
    int calls = 0;
    RenderThread thread({.probe =
                             [&](Probe got) {
                                 const std::lock_guard lock(mutex);
                                 probe = std::move(got);
                             },
                         .candidates =
                             [&](Thumbnails got) {
                                 const std::lock_guard lock(mutex);
                                 ++calls;
                                 tried.merge(got);
                             },
                         .warnings =
                             [&](Warnings got) {
                                 const std::lock_guard lock(mutex);
                                 warnings = std::move(got);
                             }});
    RenderRequest request;
    request.checked = test::checked(test::finish_of({{"a", "uv.x"}, {"step", "a * 2"}, {"c", "a / (a - a)"}}));
    request.steps = {"a", "step"};
    thread.ask_warnings(request);
    request.points = {{0, 0}, {1279, 719}};
    thread.ask_probe(request);
    request.points.clear();
    request.width = 20;
    request.height = 10;
    request.steps.clear();
    for (int i = 0; i < 5; ++i) request.steps.insert(request.steps.end(), {"a", "step", "c"});
    thread.ask_candidates(request);
    REQUIRE(QTest::qWaitFor([&] { return thread.idle() && thread.inspected(); }, 60000));
    REQUIRE(probe.find("step") != nullptr);
    CHECK(probe.find("step")->picture.at(1, 0)[0] == 2 * probe.find("a")->picture.at(1, 0)[0]);
    CHECK(calls == 3);
    CHECK(tried.size() == 3);
    CHECK(warnings.size() == 2);  // no number, no name
}
