#include "core/finish/json_line.h"
#include "core/picture/png.h"
#include "core/ship/manifest.h"
#include "core/ship/output.h"
#include "core/ship/pictures/drawn_frames.h"
#include "core/ship/pictures/sprite_sheet.h"

namespace lacquer {

namespace {

constexpr int sheet_padding = 2;
constexpr int most_cell_side = 256;

Json sheet_json(const SpriteSheet& sheet, const DrawnFrames& frames, const std::string& picture) {
    Json cells = Json::array();
    for (std::size_t k = 0; k < sheet.rectangles.size(); ++k) {
        const SheetRectangle& cell = sheet.rectangles[k];
        cells.push_back(Json::object({{"time", static_cast<double>(k) / frames.rate},
                                      {"x", cell.x},
                                      {"y", cell.y},
                                      {"width", cell.width},
                                      {"height", cell.height},
                                      {"left", cell.left},
                                      {"top", cell.top}}));
    }
    const Image8& first = frames.images.front();
    return Json::object({{"picture", picture},
                         {"width", sheet.image.width},
                         {"height", sheet.image.height},
                         {"columns", sheet.columns},
                         {"rows", sheet.rows},
                         {"padding", sheet_padding},
                         {"frame", Json::object({{"width", first.width}, {"height", first.height}})},
                         {"rate", frames.rate},
                         {"loops", frames.loop_difference <= 1},
                         {"loop_difference", frames.loop_difference},
                         {"cells", std::move(cells)}});
}

}  // namespace

ShipOutput sheet_output() {
    ShipOutput output;
    output.id = "sheet";
    output.title = "Sprite sheet";
    output.words = "frames of the tape as trimmed cells of one PNG, with their rectangles and times as JSON";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        const Result<DrawnFrames> frames = drawn_frames(material, most_cell_side, cancel);
        if (!frames) return frames.fault();
        const SpriteSheet sheet = sprite_sheet(frames->images, sheet_padding);
        if (!is_drawable_size(sheet.image.width, sheet.image.height)) {
            return Fault{"ship.frames",
                         "the sheet would be larger than a picture can be",
                         "ship fewer frames a second",
                         {},
                         Severity::fault};
        }
        Result<std::string> bytes = png_bytes(sheet.image);
        if (!bytes) return bytes.fault();
        const std::string stem = "pictures/" + material.stem + "_sheet";
        return ShippedFiles{
            {stem + ".png", std::move(*bytes), {}, {}},
            {stem + ".json", readable_json(sheet_json(sheet, *frames, material.stem + "_sheet.png")), {}, {}}};
    };
    return output;
}

}  // namespace lacquer
