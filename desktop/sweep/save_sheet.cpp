#include "desktop/sweep/save_sheet.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImage>
#include <QPainter>
#include <algorithm>

#include "core/base/file.h"
#include "core/picture/picture.h"
#include "desktop/drawing/render_thread.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int caption = 24;

Fault sheet_fault(const char* id, const QString& path, const char* message, const char* mend) {
    return {id, message, mend, {path.toStdString(), {}, 0, 0}};
}

Result<Done> write_png_of(const QImage& image, const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return write_whole_file(path.toStdString(),
                            std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

// "sheet.png" as "sheet-0007.png".
QString numbered(const QString& path, std::size_t number) {
    const QFileInfo file(path);
    return QStringLiteral("%1/%2-%3.%4")
        .arg(file.path(), file.completeBaseName())
        .arg(number, 4, 10, QLatin1Char('0'))
        .arg(file.suffix());
}

}  // namespace

Result<Done> save_sheet(const SheetToSave& sheet, const QString& path, bool as_cells, const Cancel& cancel,
                        const std::function<void(double)>& progress) {
    const int count = static_cast<int>(sheet.pictures.size());
    const int columns = std::clamp(sheet.columns, 1, std::max(1, count));
    const QSize size(columns * sheet.cell.width(), (count + columns - 1) / columns * (sheet.cell.height() + caption));
    if (!as_cells && (size.width() > max_picture_side || size.height() > max_picture_side ||
                      1.0 * size.width() * size.height() > most_sheet_pixels))
        return sheet_fault("sheet.size", path, "the sheet is too large for one picture", "save its cells instead");
    WorkerPool pool;
    Renderer renderer(pool, std::nullopt, sheet.stores);
    QImage whole = as_cells ? QImage() : QImage(size, QImage::Format_RGBA8888);
    if (!as_cells) whole.fill(theme::black);
    for (std::size_t nth = 0; nth < sheet.pictures.size(); ++nth) {
        if (progress) progress(static_cast<double>(nth) / count);
        RenderRequest request = request_of(sheet.pictures[nth]);
        request.seen = ViewStyle();
        const Result<Frame> frame = renderer.render(request, cancel);
        if (cancel.requested())
            return sheet_fault("sheet.stopped", path, "saving the sheet was stopped", "what was written lies there");
        if (!frame) return frame.fault();
        QImage image;
        if (!frame->steps.empty()) image = to_qimage(frame->steps.front().image);
        if (as_cells) {
            if (auto written = write_png_of(image, numbered(path, nth)); !written) return written;
            continue;
        }
        const int place = static_cast<int>(nth);
        const QPoint corner(place % columns * sheet.cell.width(), place / columns * (sheet.cell.height() + caption));
        QPainter painter(&whole);
        theme::paint_checker(painter, QRect(corner, sheet.cell));
        painter.drawImage(QRect(corner, sheet.cell), image);
        theme::paint_text(painter,
                          QRect(corner.x() + 8, corner.y() + sheet.cell.height(), sheet.cell.width() - 16, caption),
                          sheet.words[nth], theme::figures(theme::small), theme::text);
    }
    return as_cells ? Result<Done>(Done{}) : write_png_of(whole, path);
}

}  // namespace lacquer
