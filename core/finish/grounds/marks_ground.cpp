#include "core/finish/grounds/marks_ground.h"

#include "core/finish/json_fields.h"

namespace lacquer {

void read(Fields& fields, MarksGround& ground) {
    Json marks;
    fields.take("marks", marks);
    ground.of = fields.text("of");
    const auto is_id = [](const Json& id) {
        return Fields::is_number(id) && id.number() >= 0 && id.number() <= 16777216;
    };
    const std::vector<Json>& list = marks.list();
    if (!marks.is_array() || list.size() > max_members || !std::all_of(list.begin(), list.end(), is_id))
        return fields.complain("marks", "a list of object numbers");
    for (const Json& id : list) ground.ids.push_back(static_cast<int>(id.number()));
    std::sort(ground.ids.begin(), ground.ids.end());
    ground.ids.erase(std::unique(ground.ids.begin(), ground.ids.end()), ground.ids.end());
}

void write(Json& object, const MarksGround& ground) {
    Json& marks = object["marks"] = Json::array();
    for (const int id : ground.ids) marks.push_back(id);
    object["of"] = ground.of;
}

std::vector<GroundPicture> pictures_of(const MarksGround&, const std::string& name) {
    return {{name, GroundLayer::marks, Type::number, "1 on chosen objects, 0 elsewhere"}};
}

std::vector<std::string*> paths_of(MarksGround&) { return {}; }

ListLength list_of(const MarksGround& ground) { return {ground.ids.size(), "objects"}; }

}  // namespace lacquer
