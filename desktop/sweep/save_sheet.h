// Writes a sheet as one picture, or each of its cells as a picture of its own.
#pragma once

#include <QSize>
#include <QString>
#include <functional>
#include <memory>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "desktop/drawing/sheet_thread.h"

namespace lacquer {

/// All cells, drawn anew when it is saved: those on the screen are as many as can be seen.
struct SheetToSave {
    std::vector<SheetPicture> pictures;
    std::vector<QString> words;  ///< of each, written below it
    QSize cell;
    int columns = 1;
    std::shared_ptr<RenderStores> stores;
};

/// Most pixels of a sheet that is one picture.
inline constexpr double most_sheet_pixels = 64e6;

/// Writes PNG files: the sheet at `path`, or the cells as `sheet-0000.png` and so on beside it. Away from the
/// interface. Faults: `sheet.size`, `sheet.stopped`, those of drawing and writing.
Result<Done> save_sheet(const SheetToSave& sheet, const QString& path, bool as_cells, const Cancel& cancel,
                        const std::function<void(double)>& progress);

}  // namespace lacquer
