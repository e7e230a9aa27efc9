#include "core/finish/grounds/table_ground.h"

#include "core/finish/json_fields.h"

namespace lacquer {

void read(Fields& fields, TableGround& ground) { ground.path = fields.text("table"); }

void write(Json& object, const TableGround& ground) { object["table"] = ground.path; }

std::vector<GroundPicture> pictures_of(const TableGround&, const std::string& name) {
    return {{name, GroundLayer::colour, Type::vec4, "table of colours for colours, for look_table()"}};
}

std::vector<std::string*> paths_of(TableGround& ground) { return {&ground.path}; }

ListLength list_of(const TableGround&) { return {}; }

}  // namespace lacquer
