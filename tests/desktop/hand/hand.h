// Does acts to the real window.
#pragma once

#include <QElapsedTimer>
#include <QTimer>
#include <filesystem>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "desktop/drawing/models.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "tests/desktop/hand/acts.h"
#include "tests/support/temporary.h"

namespace lacquer::test {

/// The window on a copy of a finish and its pictures, in a folder that vanishes. Acts are done from a timer, so that
/// they go on while a menu is open.
class Hand {
public:
    Hand(const std::string& finish, std::vector<Act> acts, const DrawingLimits& limits = {});
    ~Hand();
    Hand(const Hand&) = delete;
    Hand& operator=(const Hand&) = delete;

    /// Called before each act, with its index.
    std::function<void(std::size_t)> before = nullptr;
    /// Opens these anew, one after the other, each time that so many acts are done; 0 for never.
    std::vector<std::string> day_on = {};
    std::size_t next_of_day_after = 0;
    /// Called whenever the first of them is open and drawn.
    std::function<void()> round_begins = nullptr;
    /// Called after the last.
    std::function<void()> over = nullptr;
    /// What is wrong with what was saved; empty if nothing is.
    const std::string& trouble() const { return trouble_; }

private:
    void step();
    void copy_demos(const std::string& finish);
    void open_next_of_day(std::size_t number);
    void perform(const Act& act);
    void key(const Act& act);
    void text(const Act& act);
    void action(const Act& act);
    void drag(const Act& act);
    void wheel(const Act& act);
    void change_file(const Act& act);
    void drop(const Act& act);
    void answer(const Act& act);
    void rest();
    void check_saved();
    QPoint place(int x, int y) const;
    /// What is there, and the place in it: of an open menu, else of the window.
    std::pair<QWidget*, QPoint> at(int x, int y) const;
    std::string some_file(int which) const;

    TemporaryFolder folder_;
    std::vector<Act> acts_;
    std::size_t next_ = 0;
    double clock_ = 0;
    QString to_open_;
    QString to_save_;
    QString to_folder_;
    int answer_ = 0;
    std::string trouble_;
    std::unique_ptr<Settings> settings_;
    std::unique_ptr<Models> models_;
    std::unique_ptr<MainWindow> window_;
    QTimer timer_;
};

}  // namespace lacquer::test
