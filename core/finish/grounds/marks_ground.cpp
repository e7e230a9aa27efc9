#include "core/finish/grounds/marks_ground.h"

#include "core/finish/json_fields.h"

namespace lacquer {

using Json = nlohmann::ordered_json;

void read(Fields& fields, MarksGround& ground) {
    Json marks;
    fields.take("marks", marks);
    ground.of = fields.text("of");
    const auto is_id = [](const Json& id) {
        return Fields::is_number(id) && id.get<double>() >= 0 && id.get<double>() <= 16777216;
    };
    if (!marks.is_array() || marks.size() > max_members || !std::all_of(marks.begin(), marks.end(), is_id))
        return fields.complain("marks", "a list of object numbers");
    for (const Json& id : marks) ground.ids.push_back(id.get<int>());
    std::sort(ground.ids.begin(), ground.ids.end());
    ground.ids.erase(std::unique(ground.ids.begin(), ground.ids.end()), ground.ids.end());
}

void write(Json& object, const MarksGround& ground) {
    object["marks"] = ground.ids;
    object["of"] = ground.of;
}

std::vector<GroundPicture> pictures_of(const MarksGround&, const std::string& name) {
    return {{name, GroundLayer::marks, Type::number, "1 on chosen objects, 0 elsewhere"}};
}

std::vector<std::string*> paths_of(MarksGround&) { return {}; }

ListLength list_of(const MarksGround& ground) { return {ground.ids.size(), "objects"}; }

}  // namespace lacquer
