// How long it takes from a drag's event to the picture on the stage: printed, not judged, for machines differ.
#include <QElapsedTimer>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdio>

#include "core/finish/file.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/demos.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

double median(std::vector<double> times) {
    std::sort(times.begin(), times.end());
    return times.empty() ? 0 : times[times.size() / 2];
}

}  // namespace

TEST_CASE("latency of a drag, from event to painted picture", "[.latency]") {
    // Of the demo's own size, and of 4k.
    const QSize looked = GENERATE(QSize(), QSize(3840, 2160));
    std::printf("%-36s %10s %10s %9s %7s %8s %8s\n", "demo", "median ms", "worst ms", "drawn ms", "across", "frame ms",
                "rest ms");
    for (const Demo& demo : demos_in(demo_folder())) {
        BenchWindow bench(demo.path.toStdString());
        const std::vector<Dial> dials = bench.document().finish().dials;
        const auto number =
            std::find_if(dials.begin(), dials.end(), [](const Dial& d) { return d.kind == DialKind::number; });
        if (number == dials.end()) continue;
        Look look = bench.drawing().look();
        look.frame = looked;
        bench.drawing().set_look(look);
        bench.playing().set_time(bench.document().finish().length * 0.3);
        bench.settle();
        const double frame = bench.drawing().stage().milliseconds;
        bool painted = false;
        QObject::connect(&bench.drawing(), &Drawing::stage_changed, [&] {
            bench.window().stage().repaint();
            painted = true;
        });
        std::vector<double> times;
        std::vector<double> drawn;
        bench.document().set_interacting(true);
        for (int i = 0; i < 24; ++i) {
            painted = false;
            QElapsedTimer timer;
            timer.start();
            const double share = (i + 1) / 26.0;
            bench.playing().set_dial(number->name, {number->least + share * (number->most - number->least), 0, 0});
            // It sleeps until something comes, as the application does.
            while (!painted && timer.elapsed() < 4000)
                QCoreApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents);
            times.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
            drawn.push_back(bench.drawing().stage().milliseconds);
        }
        const int across = bench.drawing().stage().image.width();
        QElapsedTimer rest;
        rest.start();
        bench.document().set_interacting(false);
        // As sharp as the view is; the whole of a large frame may still come.
        const auto is_sharp = [&] {
            const StagePicture& stage = bench.drawing().stage();
            return (!stage.reduced || stage.more_comes) && !stage.in_a_drag;
        };
        while (!is_sharp() && rest.elapsed() < 10'000)
            QCoreApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents);
        std::printf("%-36s %10.1f %10.1f %9.1f %7d %8.1f %8.1f\n", qPrintable(demo.name), median(times),
                    *std::max_element(times.begin(), times.end()), median(drawn), across, frame,
                    static_cast<double>(rest.nsecsElapsed()) / 1e6);
    }
}

TEST_CASE("latency of opening a finish of 200 steps, from the keys to its painted picture", "[.latency]") {
    std::vector<std::pair<std::string, std::string>> steps = {{"s0", "uv.x"}};
    for (int i = 1; i < 200; ++i) {
        const std::string above = "s" + std::to_string(i - 1);
        steps.emplace_back("s" + std::to_string(i),
                           i % 3 == 0 ? above + " * 0.9 + 0.1 * value_noise(uv * " + std::to_string(i) + ")"
                                      : above + " * 0.99 + 0.001");
    }
    BenchWindow bench;
    const QString many = QString::fromStdString(bench.folder().file("many.lacquer"));
    REQUIRE(save_finish(many.toStdString(), test::finish_of(steps)));
    const QString other = demos_in(demo_folder()).front().path;
    bool painted = false;
    QObject::connect(&bench.drawing(), &Drawing::stage_changed, [&] {
        const StagePicture& stage = bench.drawing().stage();
        if (stage.empty || stage.request.checked != bench.document().shared_checked()) return;
        bench.window().stage().repaint();
        painted = bench.document().path() == many.toStdString();
    });
    std::vector<double> times;
    for (int i = 0; i < 9; ++i) {
        bench.to_open = other;
        bench.key(Qt::Key_O, Qt::ControlModifier);
        bench.wait_for([&] { return bench.document().path() == other.toStdString(); });
        bench.settle();
        bench.to_open = many;
        painted = false;
        QElapsedTimer timer;
        timer.start();
        bench.key(Qt::Key_O, Qt::ControlModifier);
        while (!painted && timer.elapsed() < 4000)
            QCoreApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents);
        REQUIRE(painted);
        times.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    std::printf("200 steps, opened: median %.1f ms, worst %.1f ms\n", median(times),
                *std::max_element(times.begin(), times.end()));
}
