// The user's folder of operations, read again whenever something in it changes.
#pragma once

#include <memory>
#include <string>

#include "core/catalogue/catalogue.h"
#include "desktop/document/watched_files.h"

namespace lacquer {

class Disk;

class OperationsFolder : public QObject {
    Q_OBJECT

public:
    /// Reads and watches the folder, which is made if it is not there yet. An empty name watches nothing.
    OperationsFolder(std::string folder, Disk& disk, QObject* parent = nullptr);

    /// The operations that come along and those of the folder, as they were read last.
    const std::shared_ptr<const Catalogue>& catalogue() const { return catalogue_; }
    /// Whether changes are noticed by now.
    bool watching() const { return files_.watching(); }

Q_SIGNALS:
    void changed();

private:
    struct Read;

    static Read read(const std::string& folder);
    void take(Read read);

    std::string folder_;
    std::shared_ptr<const Catalogue> catalogue_ = built_in_catalogue();
    WatchedFiles files_;
};

}  // namespace lacquer
