#include "tests/desktop/hand/hand.h"

#include <QAction>
#include <QApplication>
#include <QDropEvent>
#include <QMenu>
#include <QMimeData>
#include <QTest>
#include <QUrl>
#include <QWheelEvent>
#include <array>
#include <fstream>
#include <sstream>

#include "core/finish/file.h"
#include "desktop/shell/actions.h"

namespace lacquer::test {

namespace {

constexpr std::array keys = {
    Qt::Key_Up,     Qt::Key_Down,  Qt::Key_Left,      Qt::Key_Right, Qt::Key_Return, Qt::Key_Escape, Qt::Key_Tab,
    Qt::Key_Delete, Qt::Key_Space, Qt::Key_Backspace, Qt::Key_Home,  Qt::Key_End,    Qt::Key_PageUp, Qt::Key_PageDown,
    Qt::Key_F1,     Qt::Key_F2,    Qt::Key_F3,        Qt::Key_F4,    Qt::Key_F5,     Qt::Key_F6,     Qt::Key_F7,
    Qt::Key_F8,     Qt::Key_F9,    Qt::Key_Plus,      Qt::Key_Minus, Qt::Key_Period, Qt::Key_Comma,  Qt::Key_Slash};

const std::array<Qt::KeyboardModifiers, 7> modifiers = {Qt::NoModifier,
                                                        Qt::NoModifier,
                                                        Qt::NoModifier,
                                                        Qt::ShiftModifier,
                                                        Qt::ControlModifier,
                                                        Qt::AltModifier,
                                                        Qt::ControlModifier | Qt::ShiftModifier};

constexpr std::array words = {"uv.x",
                              "sin(time)",
                              "texture(scene, uv)",
                              "0",
                              "-1",
                              "1e30",
                              "nan",
                              "mix(",
                              ")",
                              "vec4(1,0,0,1)",
                              "previous(",
                              "time * 0",
                              "1/0",
                              "rim",
                              "storm",
                              "{",
                              "}",
                              "for (int i = 0; i < 9; i++) {",
                              "float a = 1.0;",
                              "return a;",
                              "a very long name of something that nobody would ever want to type in full",
                              "ä€😀",
                              "//",
                              "\"",
                              "smoothstep(0,1,uv)",
                              "0.5",
                              "100",
                              "1920",
                              "strike",
                              "if (uv.x > 0.5)",
                              "value_noise(uv * 8)",
                              "gaussian(scene, 7)",
                              ".xy",
                              "[i]",
                              "="};

constexpr int actions_at_most = 100'000;

// Of two texts, the first line that differs: of each.
std::string first_difference(const std::string& before, const std::string& after) {
    std::istringstream one(before);
    std::istringstream other(after);
    std::string a;
    std::string b;
    do {
        if (!std::getline(one, a)) a.clear();
        if (!std::getline(other, b)) b.clear();
    } while (a == b && (one || other));
    return "\n  was:  " + a + "\n  read: " + b;
}

}  // namespace

Hand::Hand(const std::string& finish, std::vector<Act> acts, const DrawingLimits& limits) : acts_(std::move(acts)) {
    copy_demos(finish);
    to_save_ = qs((folder_.path() / "saved.lacquer").string());
    to_folder_ = qs((folder_.path() / "shipped").string());
    std::filesystem::create_directories(folder_.path() / "shipped");
    Prompts prompts;
    prompts.finish_to_open = [this](const QString&) { return to_open_; };
    prompts.finish_to_save = [this](const QString&) { return answer_ % 3 == 0 ? QString() : to_save_; };
    prompts.folder_to_collect = [this](const QString&) { return answer_ % 2 == 0 ? QString() : to_folder_; };
    // Shipping everything takes minutes; the tests of shipping do that.
    prompts.folder_to_ship = [](const QString&) { return QString(); };
    prompts.picture_to_add = [this](const QString&) { return qs(some_file(answer_)); };
    prompts.shader_to_open = [this](const QString&) { return qs(some_file(answer_)); };
    prompts.picture_to_save = [this](const QString&) { return qs(folder_.file("picture.png")); };
    prompts.tape_to_open = [this](const QString&) { return qs(some_file(answer_)); };
    prompts.tape_to_save = [this](const QString&) { return qs(folder_.file("play.tape")); };
    prompts.shared_dials_file = [this](const QString&) { return qs(folder_.file("shared.dials")); };
    prompts.unsaved_changes = [this](const QString&) { return static_cast<Unsaved>(answer_ % 3); };
    prompts.changed_on_disk = [this](const QString&) { return static_cast<ChangedOnDisk>(answer_ % 3); };
    prompts.may_replace = [this](const QString&) { return answer_ % 2 == 0; };
    prompts.may_write_shared = [this](const QString&) { return answer_ % 2 == 0; };
    settings_ = std::make_unique<Settings>(qs(folder_.file("settings.json")));
    models_ = std::make_unique<Models>(
        prompts, [this] { return clock_; }, limits);
    window_ = std::make_unique<MainWindow>(*models_, *settings_);
    models_->document.open(to_open_);
    window_->show();
    QApplication::setActiveWindow(window_.get());
    QObject::connect(&timer_, &QTimer::timeout, [this] { step(); });
    timer_.setSingleShot(true);
    timer_.start(0);
}

Hand::~Hand() = default;

// Whatever is written or broken is a copy.
void Hand::copy_demos(const std::string& finish) {
    namespace fs = std::filesystem;
    const fs::path demo = fs::path(finish).parent_path().parent_path();
    // What was being saved there may vanish meanwhile.
    std::error_code code;
    fs::remove_all(folder_.path() / "demo", code);
    fs::copy(demo, folder_.path() / "demo", fs::copy_options::recursive | fs::copy_options::overwrite_existing);
    const fs::path own = folder_.path() / "demo" / fs::relative(finish, demo);
    to_open_ = qs(own.string());
}

void Hand::open_next_of_day(std::size_t number) {
    const std::string& finish = day_on[number % day_on.size()];
    if (QWidget* popup = QApplication::activePopupWidget()) popup->close();
    copy_demos(finish);
    models_->document.open(to_open_);
    rest();
    if (number % day_on.size() == 0 && round_begins) round_begins();
}

void Hand::step() {
    if (next_ >= acts_.size() || !trouble_.empty()) {
        if (over) over();
        return;
    }
    const std::size_t now = next_++;
    if (before) before(now);
    // First: what is done now may open a menu, and come back only when that is closed.
    timer_.start(0);
    if (next_of_day_after > 0 && now % next_of_day_after == 0 && !day_on.empty())
        open_next_of_day(now / next_of_day_after);
    perform(acts_[now]);
    constexpr std::size_t saved_every = 200;
    if (now % saved_every == saved_every - 1) check_saved();
}

void Hand::perform(const Act& act) {
    const auto [widget, there] = at(act.a, act.b);
    switch (act.kind) {
        case Kind::key:
            return key(act);
        case Kind::text:
            return text(act);
        case Kind::action:
            return action(act);
        case Kind::click:
            return QTest::mouseClick(widget, Qt::LeftButton, modifiers[static_cast<std::size_t>(act.c) % 4], there);
        case Kind::twice:
            return QTest::mouseDClick(widget, Qt::LeftButton, {}, there);
        case Kind::menu:
            QTest::mouseClick(widget, Qt::RightButton, {}, there);
            QApplication::postEvent(widget,
                                    new QContextMenuEvent(QContextMenuEvent::Mouse, there, widget->mapToGlobal(there)));
            return;
        case Kind::drag:
            return drag(act);
        case Kind::wheel:
            return wheel(act);
        case Kind::size:
            return window_->resize(400 + act.a * 2, 300 + act.b);
        case Kind::time:
            clock_ += act.a < 900 ? act.b / 5000.0 : act.b * 10.0;
            return;
        case Kind::file:
            return change_file(act);
        case Kind::drop:
            return drop(act);
        case Kind::answer:
            return answer(act);
        case Kind::rest:
            return rest();
        case Kind::escape:
            if (QWidget* popup = QApplication::activePopupWidget()) popup->close();
            return;
    }
}

QPoint Hand::place(int x, int y) const {
    const QWidget* popup = QApplication::activePopupWidget();
    const QSize size = popup != nullptr ? popup->size() : window_->size();
    return {x * size.width() / 1000, y * size.height() / 1000};
}

std::pair<QWidget*, QPoint> Hand::at(int x, int y) const {
    QWidget* root = QApplication::activePopupWidget();
    if (root == nullptr) root = window_.get();
    const QPoint there = place(x, y);
    QWidget* child = root->childAt(there);
    if (child == nullptr) return {root, there};
    return {child, child->mapFrom(root, there)};
}

void Hand::key(const Act& act) {
    QWidget* target = QApplication::activePopupWidget();
    if (target == nullptr) target = QApplication::focusWidget();
    if (target == nullptr) target = window_.get();
    const Qt::KeyboardModifiers with = modifiers[static_cast<std::size_t>(act.b) % modifiers.size()];
    const Qt::Key pressed = act.a < 600 ? keys[static_cast<std::size_t>(act.a) % keys.size()]
                                        : static_cast<Qt::Key>(Qt::Key_A + act.a % 26);
    QTest::keyClick(target, pressed, with);
}

void Hand::text(const Act& act) {
    for (const QChar letter : QString::fromUtf8(words[static_cast<std::size_t>(act.a) % words.size()])) {
        QWidget* target = QApplication::focusWidget();
        if (target == nullptr) return;
        QTest::sendKeyEvent(QTest::Click, target, Qt::Key_unknown, QString(letter), Qt::NoModifier);
    }
}

void Hand::action(const Act& act) {
    const auto rows = action_rows();
    const ActionRow& row = rows[static_cast<std::size_t>(act.a * actions_at_most / 1000 + act.b) % rows.size()];
    if (auto* found = window_->findChild<QAction*>(QString::fromLatin1(row.id))) found->trigger();
}

void Hand::drag(const Act& act) {
    const auto [widget, from] = at(act.a, act.b);
    const QPointer<QWidget> held = widget;
    const QPoint to = from + QPoint(act.c - 500, act.d - 500) / 2;
    QTest::mousePress(widget, Qt::LeftButton, {}, from);
    for (int i = 1; i <= 4 && held != nullptr; ++i) {
        const QPoint on_way = from + (to - from) * i / 4;
        QMouseEvent move(QEvent::MouseMove, on_way, held->mapToGlobal(on_way), Qt::NoButton, Qt::LeftButton,
                         Qt::NoModifier);
        QApplication::sendEvent(held, &move);
    }
    if (held != nullptr) QTest::mouseRelease(held, Qt::LeftButton, {}, to);
}

void Hand::wheel(const Act& act) {
    const auto [widget, there] = at(act.a, act.b);
    const int turn = (act.c - 500) / 2;
    QWheelEvent event(there, widget->mapToGlobal(there), {}, QPoint(act.d < 100 ? turn : 0, turn), Qt::NoButton,
                      modifiers[static_cast<std::size_t>(act.d) % modifiers.size()], Qt::NoScrollPhase, false);
    QApplication::sendEvent(widget, &event);
}

// Some picture, tape, shader or finish of the copy.
std::string Hand::some_file(int which) const {
    std::vector<std::string> files;
    for (const auto& entry : std::filesystem::recursive_directory_iterator(folder_.path() / "demo")) {
        if (entry.is_regular_file()) files.push_back(entry.path().string());
    }
    std::sort(files.begin(), files.end());
    return files.empty() ? std::string() : files[static_cast<std::size_t>(which) % files.size()];
}

void Hand::change_file(const Act& act) {
    const std::string path = act.a % 4 == 0 ? to_open_.toStdString() : some_file(act.b);
    std::error_code code;
    switch (act.c % 4) {
        case 0: {  // written again, as it is
            const std::string bytes = read_file(path);
            write_file(path, bytes);
            return;
        }
        case 1:  // cut
            std::filesystem::resize_file(path, static_cast<std::uintmax_t>(act.d), code);
            return;
        case 2:
            std::filesystem::remove(path, code);
            return;
        default: {  // a byte changed
            std::fstream file(path, std::ios::in | std::ios::out | std::ios::binary);
            file.seekp(act.d);
            file.put(static_cast<char>(act.b));
            return;
        }
    }
}

void Hand::drop(const Act& act) {
    QMimeData dropped;
    dropped.setUrls({QUrl::fromLocalFile(qs(some_file(act.c)))});
    const QPoint there(act.a * window_->width() / 1000, act.b * window_->height() / 1000);
    QDragEnterEvent enter(there, Qt::CopyAction, &dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window_.get(), &enter);
    QDropEvent event(there, Qt::CopyAction, &dropped, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window_.get(), &event);
}

void Hand::answer(const Act& act) {
    answer_ = act.a;
    if (act.b % 3 == 0) {
        std::vector<std::string> finishes;
        for (const auto& entry : std::filesystem::directory_iterator(folder_.path() / "demo/finishes"))
            finishes.push_back(entry.path().string());
        std::sort(finishes.begin(), finishes.end());
        if (!finishes.empty()) to_open_ = qs(finishes[static_cast<std::size_t>(act.c) % finishes.size()]);
    }
}

// Not for long: what takes minutes to draw is left to be drawn.
void Hand::rest() {
    QElapsedTimer since;
    since.start();
    constexpr int longest_ms = 1000;
    while (!models_->drawing.settled() && since.elapsed() < longest_ms)
        QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 20);
}

// What would be saved now is read back as it was.
void Hand::check_saved() {
    const std::string path = folder_.file("check.lacquer");
    const Finish& finish = models_->document.finish();
    if (const auto saved = save_finish(path, finish); !saved) {
        if (saved.fault().id != "file.size") trouble_ = "not saved: " + saved.fault().message;
        return;
    }
    const Result<OpenedFinish> again = load_finish(path);
    if (!again) {
        trouble_ = "what was saved cannot be opened: " + again.fault().message;
        return;
    }
    const std::string had = finish_to_text(finish);
    const std::string read = finish_to_text(again->finish);
    if (had != read) trouble_ = "what was saved is not what was there" + first_difference(had, read);
}

}  // namespace lacquer::test
