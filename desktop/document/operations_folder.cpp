#include "desktop/document/operations_folder.h"

#include <QDir>

#include "desktop/document/disk.h"
#include "desktop/kit/text.h"

namespace lacquer {

struct OperationsFolder::Read {
    std::shared_ptr<const Catalogue> catalogue;
    QStringList files;  ///< and the folder itself
};

OperationsFolder::Read OperationsFolder::read(const std::string& folder) {
    Read read{catalogue_with_folder(folder), {qs(folder)}};
    for (const OperationFile& file : operation_files_in(folder)) read.files.append(qs(file.path));
    return read;
}

OperationsFolder::OperationsFolder(std::string folder, Disk& disk, QObject* parent)
    : QObject(parent), folder_(std::move(folder)) {
    if (folder_.empty()) return;
    take(disk.wait(tr("reading your operations"), [folder = folder_] {
        QDir().mkpath(qs(folder));
        return read(folder);
    }));
    connect(&files_, &WatchedFiles::changed, this, [this, &disk] {
        disk.then(
            this, [folder = folder_] { return read(folder); },
            [this](Read read) {
                take(std::move(read));
                emit changed();
            });
    });
}

void OperationsFolder::take(Read read) {
    catalogue_ = std::move(read.catalogue);
    files_.watch(read.files);
}

}  // namespace lacquer
