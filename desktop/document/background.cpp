#include "desktop/document/background.h"

#include <QMetaObject>

namespace lacquer {

Background::~Background() {
    cancel_.request();
    if (thread_.joinable()) thread_.join();
}

bool Background::stop() {
    if (!busy() || !can_stop_) return false;
    cancel_.request();
    return true;
}

void Background::begin(const QString& words) {
    cancel_ = Cancel();
    words_ = words;
    share_ = 0;
    can_stop_ = true;
    emit changed();
}

// On the thread.
void Background::tell(double share) {
    const auto take = [this, share] {
        share_ = share;
        emit changed();
    };
    QMetaObject::invokeMethod(this, take, Qt::QueuedConnection);
}

// On the thread, at its end.
void Background::post(std::function<void()> done) {
    const auto take = [this, done = std::move(done)] {
        thread_.join();
        emit changed();
        done();
    };
    QMetaObject::invokeMethod(this, take, Qt::QueuedConnection);
}

}  // namespace lacquer
