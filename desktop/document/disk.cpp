#include "desktop/document/disk.h"

#include <QCoreApplication>
#include <QEventLoop>
#include <QKeyEvent>
#include <QMetaObject>
#include <QTimer>
#include <chrono>
#include <tuple>

namespace lacquer {

namespace {

using namespace std::chrono_literals;

// Most files are there sooner: nothing else has to happen meanwhile.
constexpr auto at_once = 8ms;
// Whoever waits longer is told what for. Until then, keys and clicks stay in their queue.
constexpr auto told_after = 400ms;

// While something is waited for, the window is there to be looked at only; Escape asks to stop.
class HeldInput : public QObject {
public:
    HeldInput() { QCoreApplication::instance()->installEventFilter(this); }
    bool escape = false;

protected:
    bool eventFilter(QObject*, QEvent* event) override {
        switch (event->type()) {
            case QEvent::ShortcutOverride:
            case QEvent::KeyPress:
                escape = escape || static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape;
                return true;
            case QEvent::Shortcut:
            case QEvent::MouseButtonPress:
            case QEvent::MouseButtonDblClick:
            case QEvent::Wheel:
            case QEvent::ContextMenu:
            case QEvent::DragEnter:
            case QEvent::Drop:
            case QEvent::TouchBegin:
            case QEvent::TabletPress:
                return true;
            case QEvent::Close:
                event->ignore();
                return true;
            default:
                return false;
        }
    }
};

}  // namespace

Disk::Disk(QObject* parent) : QObject(parent), thread_([this] { work(); }) {}

Disk::~Disk() {
    {
        const std::lock_guard lock(mutex_);
        ending_ = true;
    }
    more_.notify_all();
    thread_.join();
}

void Disk::later(std::function<void()> work) {
    {
        const std::lock_guard lock(mutex_);
        queue_.push_back(std::move(work));
    }
    more_.notify_all();
}

// The thread.
void Disk::work() {
    std::unique_lock lock(mutex_);
    while (true) {
        more_.wait(lock, [this] { return ending_ || !queue_.empty(); });
        if (queue_.empty()) return;
        const std::function<void()> next = std::move(queue_.front());
        queue_.pop_front();
        lock.unlock();
        next();
        lock.lock();
    }
}

void Disk::post(std::function<void()> take) { QMetaObject::invokeMethod(this, std::move(take), Qt::QueuedConnection); }

// On a thread. The lock keeps whoever waits here until they are told.
void Disk::set(Mark& mark) {
    const std::lock_guard lock(mark.mutex);
    mark.done = true;
    mark.done_now.notify_all();
    if (mark.wake) mark.wake();
}

// False if it was called off.
bool Disk::until(const QString& words, Mark& mark, bool may_stop) {
    const auto done = [&mark] {
        const std::lock_guard lock(mark.mutex);
        return mark.done;
    };
    {
        std::unique_lock lock(mark.mutex);
        if (mark.done_now.wait_for(lock, at_once, [&mark] { return mark.done; })) return true;
        mark.wake = [this] { post([] {}); };
    }
    const std::pair<QString, bool> outer{words_, can_stop_};
    std::optional<HeldInput> held;
    QTimer alarm;
    bool takes_long = false;
    connect(&alarm, &QTimer::timeout, [&takes_long] { takes_long = true; });
    alarm.start(told_after);
    bool stopped = false;
    while (!done() && !stopped) {
        if (!held && takes_long) {
            held.emplace();
            words_ = words;
            can_stop_ = may_stop;
            emit changed();
        }
        QCoreApplication::processEvents((held ? QEventLoop::AllEvents : QEventLoop::ExcludeUserInputEvents) |
                                        QEventLoop::WaitForMoreEvents);
        stopped = may_stop && held && held->escape;
    }
    if (held) {
        std::tie(words_, can_stop_) = outer;
        emit changed();
    }
    const std::lock_guard lock(mark.mutex);
    mark.wake = nullptr;
    return mark.done;
}

}  // namespace lacquer
