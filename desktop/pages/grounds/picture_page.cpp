#include "desktop/pages/grounds/ground_pages.h"

#include "desktop/pages/form_changes.h"
#include "desktop/pages/grounds/typed_numbers.h"

namespace lacquer {

using namespace forms;

namespace {

Field cells_field(const SheetCells& cells) {
    return {"cells", tr("Cells"),
            cells == SheetCells() ? tr("whole")
                                  : QStringLiteral("%1 x %2, %3 of them, %4/s")
                                        .arg(cells.columns)
                                        .arg(cells.rows)
                                        .arg(cells.count)
                                        .arg(number_text(cells.rate)),
            tr("of a sheet: columns x rows, how many, how many a second: 4 x 2, 7 of them, 12/s; or whole")};
}

QString cells_changed(SheetCells& cells, const QString& text) {
    const std::vector<double> numbers = numbers_in(text);
    if (numbers.empty()) {
        cells = SheetCells();
        return {};
    }
    const bool good = numbers.size() == 4 && numbers[0] >= 1 && numbers[1] >= 1 && numbers[2] >= 1 &&
                      numbers[0] * numbers[1] <= 4096 && numbers[3] >= 0;
    if (!good) return tr("Write it as 4 x 2, 7 of them, 12/s");
    cells = {static_cast<int>(numbers[0]), static_cast<int>(numbers[1]), static_cast<int>(numbers[2]), numbers[3]};
    return {};
}

}  // namespace

QString kind_words(const PictureGround&) { return tr("picture"); }

QString facts_of(const PictureGround& ground) { return kind_words(ground); }

std::vector<Field> fields_of(const PictureGround& ground, const Finish&) {
    return {{"meaning",
             tr("Holds"),
             ground.data ? "data" : "colour",
             tr("data is taken as it is, colour is turned into linear light"),
             {"colour", "data"}},
            cells_field(ground.cells)};
}

QString change_field(PictureGround& ground, const QString& key, const QString& text) {
    if (key == "meaning") ground.data = text == "data";
    return key == "cells" ? cells_changed(ground.cells, text) : QString();
}

}  // namespace lacquer
