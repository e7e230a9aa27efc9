// The real window on a finish, with answers for its questions and a clock of its own.
#pragma once

#include <QTest>
#include <atomic>
#include <catch2/catch.hpp>
#include <functional>
#include <memory>

#include "desktop/drawing/models.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "tests/support/temporary.h"

namespace lacquer::test {

/// Processor time of this thread, seconds: others work on this machine, too.
double thread_seconds();

class BenchWindow {
public:
    /// Opens the file, or an empty finish without one.
    explicit BenchWindow(const std::string& path = {});
    ~BenchWindow();

    Document& document() { return models_->document; }
    Playing& playing() { return models_->playing; }
    GameLink& link() { return models_->link; }
    Drawing& drawing() { return models_->drawing; }
    Models& models() { return *models_; }
    MainWindow& window() { return *window_; }
    const TemporaryFolder& folder() const { return folder_; }

    /// Sends keys to whatever has the focus.
    void key(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier);
    void type(const std::string& text);
    /// Triggers the action by its shortcut's QAction.
    void action(const char* id);
    void click(QWidget* widget, QPoint at);
    void drag(QWidget* widget, QPoint from, QPoint to);
    template <class Widget>
    Widget* find(const char* name) {
        auto* widget = window_->findChild<Widget*>(QString::fromLatin1(name));
        REQUIRE(widget != nullptr);
        return widget;
    }
    QWidget* ladder_view();
    QWidget* dials_view();

    /// Handles events until the condition holds; fails after five seconds.
    void wait_for(const std::function<bool()>& condition);
    /// Until all that was asked of the disk is done, and taken up.
    void settle_disk();
    /// Until all that was asked for is read, drawn and shown.
    void settle();
    /// The colour of a stage picture's pixel.
    QRgb stage_pixel(int x, int y);
    std::string formula_of(const std::string& step);

    // What the window's questions are answered with.
    QString to_open;
    QString to_save;
    QString to_add;
    QString to_collect;
    QString to_ship;
    Unsaved unsaved = Unsaved::discard;
    ChangedOnDisk changed_on_disk = ChangedOnDisk::stay;
    bool may_write_shared = false;
    bool may_replace = false;
    int questions = 0;
    std::atomic<double> clock = 0;  ///< seconds; others than this thread look at it, too
    QString last_said;

private:
    TemporaryFolder folder_;
    std::unique_ptr<Settings> settings_;
    std::unique_ptr<Models> models_;
    std::unique_ptr<MainWindow> window_;
};

}  // namespace lacquer::test
