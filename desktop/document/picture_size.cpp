#include "desktop/document/picture_size.h"

#include <QImageReader>

#include "core/picture/files.h"

namespace lacquer {

QSize picture_size(const std::string& path) {
    if (const QSize size = QImageReader(QString::fromStdString(path)).size(); !size.isEmpty()) return size;
    const Result<std::vector<PictureLayer>> layers = picture_layers(path);
    return layers && !layers->empty() ? QSize(layers->front().width, layers->front().height) : QSize();
}

}  // namespace lacquer
