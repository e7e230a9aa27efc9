// The user's folder of operations, read again whenever something in it changes.
#pragma once

#include <QFileSystemWatcher>
#include <QTimer>
#include <memory>
#include <string>

#include "core/catalogue/catalogue.h"

namespace lacquer {

class OperationsFolder : public QObject {
    Q_OBJECT

public:
    /// Watches the folder, which is made if it is not there yet. An empty name watches nothing.
    explicit OperationsFolder(std::string folder, QObject* parent = nullptr);

    /// The operations that come along and those of the folder, as they are now.
    std::shared_ptr<const Catalogue> catalogue() const { return catalogue_with_folder(folder_); }

Q_SIGNALS:
    void changed();

private:
    void watch();
    std::string folder_;
    QFileSystemWatcher watcher_;
    QTimer settled_;  // an editor writes a file in several goes
};

}  // namespace lacquer
