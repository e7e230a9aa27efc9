// Files that other programs may change while they are in use.
#pragma once

#include <QFileSystemWatcher>
#include <QStringList>
#include <QTimer>

namespace lacquer {

class WatchedFiles : public QObject {
    Q_OBJECT

public:
    explicit WatchedFiles(QObject* parent = nullptr);
    /// Watches these, and no others. For one that is missing, its folder. After a change they have to be named again.
    void watch(const QStringList& paths);

Q_SIGNALS:
    /// Something was changed; once for what is written in several goes.
    void changed();

private:
    QFileSystemWatcher watcher_;
    QTimer settled_;
};

}  // namespace lacquer
