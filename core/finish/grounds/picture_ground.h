// A ground that is a picture file.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"
#include "core/picture/files_module.h"
#include "core/picture/sample.h"

namespace lacquer {

class Fields;
class Json;

/// How a picture is cut into cells that follow one another, `rate` a second; one cell is the whole picture.
struct SheetCells {
    int columns = 1;
    int rows = 1;
    int count = 1;
    double rate = 12;
    friend bool operator==(const SheetCells&, const SheetCells&) = default;
};

struct PictureGround {
    static constexpr std::string_view key = "picture";

    std::string path = {};  ///< absolute, or relative to the finish's own folder
    bool data = false;      ///< the numbers are taken as they are, not as sRGB display values
    FileOpacity opacity = FileOpacity::as_marked;
    SheetCells cells = {};
    Sampling sampling = {};

    friend bool operator==(const PictureGround&, const PictureGround&) = default;
};

void read(Fields& fields, PictureGround& ground);
void write(Json& object, const PictureGround& ground);
std::vector<GroundPicture> pictures_of(const PictureGround& ground, const std::string& name);
std::vector<std::string*> paths_of(PictureGround& ground);
ListLength list_of(const PictureGround& ground);

}  // namespace lacquer
