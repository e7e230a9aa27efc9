#include "core/finish/grounds/picture_ground.h"

#include "core/finish/grounds/picture_fields.h"
#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

void read_cells(Fields& fields, SheetCells& cells) {
    constexpr double most = 4096;
    if (!fields.has("cells")) return;
    std::vector<double> numbers;
    if (!fields.numbers("cells", 4, numbers)) return;
    const bool good = numbers[0] >= 1 && numbers[0] <= most && numbers[1] >= 1 && numbers[1] <= most &&
                      numbers[2] >= 1 && numbers[2] <= most && numbers[3] >= 0 && numbers[3] <= 1000;
    if (!good) return fields.complain("cells", "columns, rows, how many, and how many a second");
    cells = {static_cast<int>(numbers[0]), static_cast<int>(numbers[1]), static_cast<int>(numbers[2]), numbers[3]};
}

}  // namespace

void read(Fields& fields, PictureGround& ground) {
    ground.path = fields.text("picture");
    read_cells(fields, ground.cells);
    ground.data = fields.flag("data", false);
    ground.opacity = read_opacity(fields);
    ground.sampling = read_sampling(fields);
}

void write(Json& object, const PictureGround& ground) {
    object["picture"] = ground.path;
    if (ground.data) object["data"] = true;
    write_opacity(object, ground.opacity);
    const SheetCells& cells = ground.cells;
    if (cells != SheetCells()) object["cells"] = {cells.columns, cells.rows, cells.count, cells.rate};
    write_sampling(object, ground.sampling);
}

std::vector<GroundPicture> pictures_of(const PictureGround&, const std::string& name) {
    return {{name, GroundLayer::colour, Type::vec4, "picture"}};
}

std::vector<std::string*> paths_of(PictureGround& ground) { return {&ground.path}; }

ListLength list_of(const PictureGround&) { return {}; }

}  // namespace lacquer
