#include "tests/desktop/bench_window.h"

#include <QAbstractScrollArea>
#include <QAction>
#include <QApplication>
#include <QElapsedTimer>
#include <ctime>

#include "desktop/dials/dials_view.h"
#include "desktop/ladder/ladder_view.h"

namespace lacquer::test {

double thread_seconds() {
    timespec now{};
    clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
    return static_cast<double>(now.tv_sec) + static_cast<double>(now.tv_nsec) * 1e-9;
}

BenchWindow::BenchWindow(const std::string& path) {
    Prompts prompts;
    prompts.finish_to_open = [this](const QString&) { return to_open; };
    prompts.finish_to_save = [this](const QString&) { return to_save; };
    prompts.folder_to_collect = [this](const QString&) { return to_collect; };
    prompts.folder_to_ship = [this](const QString&) { return to_ship; };
    prompts.picture_to_add = [this](const QString&) { return to_add; };
    prompts.shader_to_open = [this](const QString&) { return to_open; };
    prompts.picture_to_save = [this](const QString&) { return to_save; };
    prompts.tape_to_open = [this](const QString&) { return to_open; };
    prompts.tape_to_save = [this](const QString&) { return to_save; };
    prompts.shared_dials_file = [this](const QString&) { return to_save; };
    prompts.unsaved_changes = [this](const QString&) {
        ++questions;
        return unsaved;
    };
    prompts.changed_on_disk = [this](const QString&) {
        ++questions;
        return changed_on_disk;
    };
    prompts.may_replace = [this](const QString&) {
        ++questions;
        return may_replace;
    };
    prompts.may_write_shared = [this](const QString&) {
        ++questions;
        return may_write_shared;
    };
    settings_ = std::make_unique<Settings>(qs(folder_.file("settings.json")));
    models_ = std::make_unique<Models>(prompts, [this] { return clock.load(); });
    QObject::connect(&models_->document, &Document::said, [this](const QString& words) { last_said = words; });
    window_ = std::make_unique<MainWindow>(*models_, *settings_);
    if (!path.empty()) REQUIRE(models_->document.open(qs(path)));
    window_->show();
    REQUIRE(QTest::qWaitForWindowExposed(window_.get()));
    // Without a window manager nobody hands out the focus.
    QApplication::setActiveWindow(window_.get());
    window_->ladder().setFocus();
    settle();
}

BenchWindow::~BenchWindow() = default;

void BenchWindow::key(int key, Qt::KeyboardModifiers modifiers) {
    QWidget* target = QApplication::focusWidget() != nullptr ? QApplication::focusWidget() : window_.get();
    QTest::keyClick(target, static_cast<Qt::Key>(key), modifiers);
}

void BenchWindow::type(const std::string& text) {
    REQUIRE(QApplication::focusWidget() != nullptr);
    QTest::keyClicks(QApplication::focusWidget(), qs(text));
}

void BenchWindow::action(const char* id) { find<QAction>(id)->trigger(); }

void BenchWindow::click(QWidget* widget, QPoint at) { QTest::mouseClick(widget, Qt::LeftButton, {}, at); }

void BenchWindow::drag(QWidget* widget, QPoint from, QPoint to) {
    QTest::mousePress(widget, Qt::LeftButton, {}, from);
    for (int i = 1; i <= 4; ++i) {
        const QPoint at = from + (to - from) * i / 4;
        QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(widget, &move);
    }
    QTest::mouseRelease(widget, Qt::LeftButton, {}, to);
}

QWidget* BenchWindow::ladder_view() { return window_->ladder().viewport(); }
QWidget* BenchWindow::dials_view() { return window_->dials().viewport(); }

void BenchWindow::wait_for(const std::function<bool()>& condition) {
    // What comes comes at once on most machines; a crowded one may take twenty times as long and is still right.
    REQUIRE(QTest::qWaitFor(condition, 60'000));
}

void BenchWindow::settle_disk() {
    Document& document = models_->document;
    (void)document.disk().wait({}, [] { return true; });
    QCoreApplication::sendPostedEvents();
    wait_for([&document] { return document.watching(); });
}

void BenchWindow::settle() {
    settle_disk();
    // The results come as queued calls; a picture that was drawn smaller asks for a sharper one when it arrives, unless
    // time runs.
    wait_for([this] {
        if (!models_->drawing.settled()) return false;
        QCoreApplication::sendPostedEvents();
        QCoreApplication::processEvents();
        return models_->drawing.settled() && (!models_->drawing.stage().reduced || models_->playing.playing());
    });
}

QRgb BenchWindow::stage_pixel(int x, int y) {
    settle();
    return models_->drawing.stage().image.pixel(x, y);
}

std::string BenchWindow::formula_of(const std::string& step) {
    const Step* found = find_step(models_->document.finish(), step);
    REQUIRE(found != nullptr);
    return found->formula;
}

}  // namespace lacquer::test
