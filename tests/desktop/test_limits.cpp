// Large finishes, small and large windows, long sessions: the bench stays quick and keeps within its bounds.
#include <sys/resource.h>
#include <time.h>

#include <QAbstractButton>
#include <QAction>
#include <QApplication>
#include <QLabel>
#include <QLineEdit>
#include <QScrollBar>
#include <QTimer>
#include <catch2/catch.hpp>
#include <fstream>
#include <limits>

#include "desktop/dials/dials_view.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

double thread_cpu_ms() {
    timespec now{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
    return static_cast<double>(now.tv_sec) * 1000 + static_cast<double>(now.tv_nsec) / 1e6;
}

std::size_t resident_kib() {
    std::ifstream status("/proc/self/status");
    std::string word;
    while (status >> word) {
        if (word != "VmRSS:") continue;
        std::size_t kib = 0;
        status >> kib;
        return kib;
    }
    return 0;
}

Finish steps(int count) {
    Finish finish = test::finish_of({{"s0", "uv.x * pace"}});
    Dial pace;
    pace.name = pace.code_name = "pace";
    pace.value = pace.default_value = {0.5, 0, 0};
    finish.dials.push_back(pace);
    for (int i = 1; i < count; ++i) {
        Step step;
        step.name = "s" + std::to_string(i);
        step.formula = "s" + std::to_string(i - 1) + " * 0.99 + 0.001";
        finish.coats[0].steps.push_back(std::move(step));
    }
    return finish;
}

// WCAG 2.1, contrast ratio of two colours.
double contrast(const QColor& a, const QColor& b) {
    const auto luminance = [](const QColor& c) {
        const auto part = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
    };
    const double x = luminance(a);
    const double y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

}  // namespace

TEST_CASE("two hundred steps: only rows in view are drawn, and scrolling, filter and undo work") {
    BenchWindow bench;
    bench.document().edit(steps(200), QStringLiteral("many"));
    bench.document().select("s0");
    bench.settle();
    LadderView& ladder = bench.window().ladder();
    ladder.verticalScrollBar()->setValue(0);
    bench.settle();
    CHECK(bench.drawing().thumbnails().size() < 60);
    CHECK_FALSE(bench.drawing().thumbnails().contains("s120"));
    ladder.verticalScrollBar()->setValue(ladder.visible_area("s120").top());
    bench.wait_for([&] { return bench.drawing().thumbnails().contains("s120"); });
    bench.key(Qt::Key_Slash);
    bench.type("s199");
    CHECK_FALSE(ladder.visible_area("s199").isNull());
    CHECK(ladder.visible_area("s7").isNull());
    bench.key(Qt::Key_Escape);
    const Finish before = bench.document().finish();
    bench.document().select("s150");
    bench.key(Qt::Key_Delete, Qt::ShiftModifier);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish() == before);
}

TEST_CASE("the interface thread is never held for a frame's time while a heavy finish is drawn") {
    BenchWindow bench(test::demo_path());
    bench.playing().set_time(0.75);
    bench.settle();
    double longest = 0;
    QObject watch;
    // A drag of a dial, as events that the window finds in its queue.
    QWidget* dials = bench.dials_view();
    const QRect track = bench.window().dials().track_area("softness");
    const auto post = [&](QEvent::Type type, QPoint at, Qt::MouseButtons buttons) {
        QCoreApplication::postEvent(
            dials, new QMouseEvent(type, at, dials->mapToGlobal(at), Qt::LeftButton, buttons, Qt::NoModifier));
    };
    post(QEvent::MouseButtonPress, track.center(), Qt::LeftButton);
    int moves = 0;
    QTimer drag;
    QObject::connect(&drag, &QTimer::timeout, &watch, [&] {
        ++moves;
        post(QEvent::MouseMove, track.center() + QPoint(moves % 40, 0), Qt::LeftButton);
    });
    drag.start(8);
    // A machine that is busy with other things counts some of them as ours; what we do ourselves shows in every round.
    constexpr int rounds = 5;
    double least = std::numeric_limits<double>::max();
    for (int round = 0; round < rounds && least >= 16; ++round) {
        longest = 0;
        for (moves = 0; moves < 60;) {
            // Whatever is due, until the thread would wait again: so long nothing else gets its turn.
            const double begun = thread_cpu_ms();
            QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
            longest = std::max(longest, thread_cpu_ms() - begun);
        }
        least = std::min(least, longest);
    }
    drag.stop();
    post(QEvent::MouseButtonRelease, track.center(), Qt::NoButton);
    bench.settle();
    INFO(least << " ms of its own time at the longest, in the best round");
    CHECK(least > 0);
    // 16 ms are promised, and 9 to 12 were taken where this was written; a slower machine may take half as long again.
    CHECK(least < 24);
}

TEST_CASE("opening and closing a finish a hundred times keeps no memory") {
    BenchWindow bench;
    const auto round = [&] {
        bench.document().open(qs(test::demo_path()));
        bench.settle();
        bench.document().start_new();
        bench.settle();
    };
    for (int i = 0; i < 15; ++i) round();
    // A picture may lie anywhere in memory when it is measured; what is kept would come again with every hundred.
    bool grows = true;
    for (int hundred = 0; hundred < 3 && grows; ++hundred) {
        const std::size_t before = resident_kib();
        for (int i = 0; i < 100; ++i) round();
        const std::size_t after = resident_kib();
        UNSCOPED_INFO(before << " KiB, then " << after << " KiB");
        grows = after >= before + 24 * 1024;
    }
    CHECK_FALSE(grows);
}

TEST_CASE("the window works when it is small and when it is large", "[smoke]") {
    for (const QSize size : {QSize(1024, 700), QSize(2560, 1440)}) {
        BenchWindow bench(test::demo_path());
        bench.window().resize(size);
        bench.settle();
        INFO(size.width());
        CHECK(bench.window().size() == size);
        const LadderView& ladder = bench.window().ladder();
        CHECK(ladder.height() > 300);
        CHECK(bench.find<QWidget>("stage")->height() > 180);
        CHECK(bench.window().dials().viewport()->rect().intersects(bench.window().dials().track_area("softness")));
        bench.key(Qt::Key_K);
        bench.key(Qt::Key_L);
        bench.settle();
        CHECK_FALSE(bench.window().grab().isNull());
    }
}

TEST_CASE("words can be read on their grounds: WCAG 2.1 asks for 4.5 to 1") {
    const std::pair<QColor, QColor> pairs[] = {{theme::text, theme::black},
                                               {theme::text, theme::panel},
                                               {theme::text, theme::raised},
                                               {theme::quiet, theme::black},
                                               {theme::quiet, theme::panel},
                                               {theme::quiet, theme::raised},
                                               {theme::gold, theme::raised},
                                               {theme::celadon, theme::raised},
                                               {theme::vermilion_text, theme::panel},
                                               {theme::vermilion_text, QColor(0x2A, 0x23, 0x1D)},
                                               {theme::quiet, QColor(0x2A, 0x23, 0x1D)},
                                               {theme::text, theme::stage_grey},
                                               {QColor(0xBB, 0xB3, 0xA9), theme::stage_grey}};
    for (const auto& [words, ground] : pairs) {
        INFO(words.name().toStdString() << " on " << ground.name().toStdString());
        CHECK(contrast(words, ground) >= 4.5);
    }
}

TEST_CASE("everything that takes the keys has a name for screen readers") {
    BenchWindow bench(test::demo_path());
    for (QWidget* widget : bench.window().findChildren<QWidget*>()) {
        if ((widget->focusPolicy() & Qt::TabFocus) == 0 || !widget->isVisible()) continue;
        INFO(widget->objectName().toStdString() << " " << widget->metaObject()->className());
        const auto* button = qobject_cast<QAbstractButton*>(widget);
        CHECK_FALSE((widget->accessibleName().isEmpty() && (button == nullptr || button->text().isEmpty())));
    }
    // Tab goes round and comes back.
    bench.window().ladder().setFocus();
    int stops = 0;
    do {
        bench.key(Qt::Key_Tab);
        ++stops;
    } while (QApplication::focusWidget() != &bench.window().ladder() && stops < 60);
    CHECK(stops < 60);
    CHECK(stops > 4);
}
