// A ground that is a table of colours for colours, in a file, read by look_table().
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"

namespace lacquer {

class Fields;
class Json;

struct TableGround {
    static constexpr std::string_view key = "table";

    std::string path = {};  ///< absolute, or relative to the finish's own folder

    friend bool operator==(const TableGround&, const TableGround&) = default;
};

void read(Fields& fields, TableGround& ground);
void write(Json& object, const TableGround& ground);
std::vector<GroundPicture> pictures_of(const TableGround& ground, const std::string& name);
std::vector<std::string*> paths_of(TableGround& ground);
ListLength list_of(const TableGround& ground);

}  // namespace lacquer
