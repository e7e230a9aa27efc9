// Files that other programs may change while they are in use.
#pragma once

#include <QObject>
#include <QStringList>
#include <QThread>
#include <atomic>

namespace lacquer {

class WatchedFiles : public QObject {
    Q_OBJECT

public:
    explicit WatchedFiles(QObject* parent = nullptr);
    ~WatchedFiles() override;
    /// Watches these, and no others, from soon on: a disk is asked for each. For one that is missing, its folder. After
    /// a change they have to be named again.
    void watch(const QStringList& paths);
    /// Whether all that was named is being watched by now.
    bool watching() const { return asked_ == 0; }

Q_SIGNALS:
    /// Something was changed; once for what is written in several goes.
    void changed();

private:
    class Watcher;

    QThread thread_;
    Watcher* watcher_;  ///< lives on the thread, and goes with it
    std::atomic<int> asked_ = 0;
};

}  // namespace lacquer
