#include "core/finish/grounds/scene_ground.h"

#include "core/finish/grounds/picture_fields.h"
#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

Vec3 point(const std::vector<double>& numbers, std::size_t first) {
    return {numbers[first], numbers[first + 1], numbers[first + 2]};
}

double field_of_view(Fields& fields, double degrees) {
    if (degrees >= 1 && degrees <= 150) return degrees;
    fields.complain("field", "between 1 and 150 degrees");
    return Camera().field;
}

// Keys are a time, an eye, what it looks at, and the field of view.
void read_path(Fields& fields, std::vector<CameraKey>& path) {
    Json list;
    if (!fields.take("path", list)) return;
    const auto is_key = [](const Json& key) {
        return key.list().size() == 8 && std::all_of(key.list().begin(), key.list().end(), Fields::is_number);
    };
    const std::vector<Json>& keys = list.list();
    if (!list.is_array() || keys.size() > max_members || !std::all_of(keys.begin(), keys.end(), is_key))
        return fields.complain("path", "a list of keys, each 8 numbers");
    for (const Json& key : keys) {
        std::vector<double> numbers;
        for (const Json& number : key.list()) numbers.push_back(number.number());
        if (!path.empty() && !(numbers[0] > path.back().seconds)) return fields.complain("path", "in order of time");
        path.push_back({numbers[0], {point(numbers, 1), point(numbers, 4), field_of_view(fields, numbers[7])}});
    }
}

SceneView read_view(Fields& fields) {
    const ScenePlace* place = find_place(fields.text("scene"));
    if (place == nullptr) {
        fields.complain("scene", "harbour or lamp_room");
        place = &scene_places().front();
    }
    const auto hour = hour_named(fields.text("hour", "storm"));
    if (!hour) fields.complain("hour", "day, dusk or storm");
    SceneView view = view_of_place(*place, hour.value_or(Hour::storm));
    if (std::vector<double> eye; fields.numbers("eye", 3, eye)) view.camera.eye = point(eye, 0);
    if (std::vector<double> target; fields.numbers("target", 3, target)) view.camera.target = point(target, 0);
    view.camera.field = field_of_view(fields, fields.number("field", view.camera.field));
    read_path(fields, view.path);
    return view;
}

}  // namespace

void read(Fields& fields, SceneGround& ground) {
    ground.view = read_view(fields);
    ground.of = fields.text("camera_of");
    ground.sampling = read_sampling(fields);
}

void write(Json& object, const SceneGround& ground) {
    const auto point = [](Vec3 v) { return Json{v.x, v.y, v.z}; };
    const SceneView& view = ground.view;
    object["scene"] = view.place;
    object["hour"] = name_of(view.hour);
    object["eye"] = point(view.camera.eye);
    object["target"] = point(view.camera.target);
    object["field"] = view.camera.field;
    for (const CameraKey& key : view.path) {
        const Camera& c = key.camera;
        object["path"].push_back({key.seconds, c.eye.x, c.eye.y, c.eye.z, c.target.x, c.target.y, c.target.z, c.field});
    }
    if (!ground.of.empty()) object["camera_of"] = ground.of;
    write_sampling(object, ground.sampling);
}

std::vector<GroundPicture> pictures_of(const SceneGround&, const std::string& name) { return scene_pictures(name); }

std::vector<std::string*> paths_of(SceneGround&) { return {}; }

ListLength list_of(const SceneGround& ground) { return {ground.view.path.size(), "keys of the camera"}; }

}  // namespace lacquer
