#include "core/finish/read_ground.h"

#include "core/finish/kinds.h"
#include "core/finish/stops_table.h"

namespace lacquer {

namespace {

using Json = nlohmann::ordered_json;

// A gradient's stops are a place and four parts, a curve's a place and a height; an easing may follow.
bool read_stops(Fields& fields, const char* key, std::size_t numbers, std::vector<Stop>& stops) {
    Json list;
    if (!fields.take(key, list)) return false;
    const auto is_stop = [&](const Json& stop) {
        if (!stop.is_array() || stop.size() < numbers || stop.size() > numbers + 1) return false;
        const auto end_of_numbers = stop.begin() + static_cast<std::ptrdiff_t>(numbers);
        return std::all_of(stop.begin(), end_of_numbers, Fields::is_number) &&
               (end_of_numbers == stop.end() || end_of_numbers->is_string());
    };
    if (!list.is_array() || list.size() > max_members || !std::all_of(list.begin(), list.end(), is_stop)) {
        fields.complain(key, fmt::format("a list of stops, each {} numbers", numbers));
        return true;
    }
    for (const Json& each : list) {
        Stop stop{each[0].get<double>(), {0, 0, 0, 1}, {}};
        for (std::size_t c = 1; c < numbers; ++c) stop.value[c - 1] = each[c].get<double>();
        if (each.size() > numbers) stop.easing = each[numbers].get<std::string>();
        const auto& known = stop_easings();
        if (!stop.easing.empty() && std::find(known.begin(), known.end(), stop.easing) == known.end()) {
            fields.complain(key, "a list of stops with easings such as ease_in");
            stop.easing.clear();
        }
        stops.push_back(stop);
    }
    return true;
}

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
        return key.is_array() && key.size() == 8 && std::all_of(key.begin(), key.end(), Fields::is_number);
    };
    if (!list.is_array() || list.size() > max_members || !std::all_of(list.begin(), list.end(), is_key))
        return fields.complain("path", "a list of keys, each 8 numbers");
    for (const Json& key : list) {
        const auto numbers = key.get<std::vector<double>>();
        if (!path.empty() && !(numbers[0] > path.back().seconds)) return fields.complain("path", "in order of time");
        path.push_back({numbers[0], {point(numbers, 1), point(numbers, 4), field_of_view(fields, numbers[7])}});
    }
}

void read_scene(Fields& fields, SceneView& scene) {
    scene.place = fields.text("scene");
    const ScenePlace* place = find_place(scene.place);
    if (place == nullptr) {
        fields.complain("scene", "harbour or lamp_room");
        place = &scene_places().front();
        scene.place = place->name;
    }
    const auto hour = hour_named(fields.text("hour", "storm"));
    if (!hour) fields.complain("hour", "day, dusk or storm");
    scene = view_of_place(*place, hour.value_or(Hour::storm));
    if (std::vector<double> eye; fields.numbers("eye", 3, eye)) scene.camera.eye = point(eye, 0);
    if (std::vector<double> target; fields.numbers("target", 3, target)) scene.camera.target = point(target, 0);
    scene.camera.field = field_of_view(fields, fields.number("field", scene.camera.field));
    read_path(fields, scene.path);
}

void read_capture(Fields& fields, Ground& ground) {
    ground.path = fields.text("capture");
    Json named;
    if (!fields.take("layers", named)) return;
    if (!named.is_object()) return fields.complain("layers", "an object");
    const auto take = [&](const char* key, std::string& layer) {
        if (named.contains(key) && named[key].is_string()) layer = named[key].get<std::string>();
    };
    take("colour", ground.layers.colour);
    take("depth", ground.layers.depth);
    take("normal", ground.layers.normal);
    take("position", ground.layers.position);
    take("id", ground.layers.id);
}

void read_marks(Fields& fields, const Json& marks, Ground& ground) {
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

void read_sprite(Fields& fields, Sprite& sprite) {
    fields.each("sprite", [&](Fields& part) {
        SpritePart read;
        read.name = part.text("part");
        read.path = part.text("picture");
        read.layer = part.text("layer");
        read.normal = part.text("normal");
        if (std::vector<double> at; part.numbers("at", 2, at)) {
            read.x = at[0];
            read.y = at[1];
        }
        read.scale = part.number("scale", 1);
        if (!(read.scale > 0 && read.scale <= largest_part_scale)) {
            part.complain("scale", "more than 0 and at most 64");
            read.scale = 1;
        }
        read.share = part.number("share", 1);
        read.turn = part.number("turn", 0);
        read.mirrored = part.flag("mirrored", false);
        sprite.parts.push_back(std::move(read));
    });
    std::vector<double> size;
    if (!fields.numbers("size", 2, size)) return;
    if (!is_drawable_size(static_cast<std::int64_t>(size[0]), static_cast<std::int64_t>(size[1])))
        return fields.complain("size", "a size of at most 64 million pixels");
    sprite.width = static_cast<int>(size[0]);
    sprite.height = static_cast<int>(size[1]);
}

void read_cells(Fields& fields, SheetCells& cells) {
    constexpr double most = 4096;
    if (!fields.left().contains("cells")) return;
    std::vector<double> numbers;
    if (!fields.numbers("cells", 4, numbers)) return;
    const bool good = numbers[0] >= 1 && numbers[0] <= most && numbers[1] >= 1 && numbers[1] <= most &&
                      numbers[2] >= 1 && numbers[2] <= most && numbers[3] >= 0 && numbers[3] <= 1000;
    if (!good) return fields.complain("cells", "columns, rows, how many, and how many a second");
    cells = {static_cast<int>(numbers[0]), static_cast<int>(numbers[1]), static_cast<int>(numbers[2]), numbers[3]};
}

StopMix read_between(Fields& fields) {
    const auto mix = stop_mix_named(fields.text("between", "linear"));
    if (!mix) fields.complain("between", "linear, srgb, oklab, smooth or hold");
    return mix.value_or(StopMix::straight);
}

FileOpacity read_opacity(Fields& fields) {
    const bool multiplied = fields.flag("multiplied", false);
    const bool straight = fields.flag("straight", false);
    if (multiplied && straight) fields.complain("straight", "left out where it is multiplied");
    if (multiplied) return FileOpacity::multiplied;
    return straight ? FileOpacity::straight : FileOpacity::as_marked;
}

Sampling read_sampling(Fields& fields) {
    const auto wrap = wrap_named(fields.text("wrap", "clamp"));
    if (!wrap) fields.complain("wrap", "clamp, repeat or mirror");
    const auto filter = filter_named(fields.text("filter", "linear"));
    if (!filter) fields.complain("filter", "linear or nearest");
    return {wrap.value_or(Wrap::clamp), filter.value_or(Filter::linear)};
}

}  // namespace

Ground read_ground(Fields& fields) {
    Ground ground;
    ground.name = fields.text("name");
    Json marks;
    if (read_stops(fields, "gradient", 5, ground.stops)) {
        ground.kind = GroundKind::gradient;
        ground.between = read_between(fields);
    } else if (read_stops(fields, "curve", 2, ground.stops)) {
        ground.kind = GroundKind::curve;
        ground.between = read_between(fields);
    } else if (fields.left().contains("table")) {
        ground.kind = GroundKind::table;
        ground.path = fields.text("table");
    } else if (fields.take("marks", marks)) {
        ground.kind = GroundKind::marks;
        read_marks(fields, marks, ground);
    } else if (fields.left().contains("scene")) {
        ground.kind = GroundKind::scene;
        read_scene(fields, ground.scene);
        ground.of = fields.text("camera_of");
        ground.sampling = read_sampling(fields);
    } else if (fields.left().contains("capture")) {
        ground.kind = GroundKind::capture;
        read_capture(fields, ground);
        ground.opacity = read_opacity(fields);
        ground.sampling = read_sampling(fields);
    } else if (fields.left().contains("sprite")) {
        ground.kind = GroundKind::sprite;
        read_sprite(fields, ground.sprite);
        ground.opacity = read_opacity(fields);
        ground.sampling = read_sampling(fields);
    } else {
        ground.path = fields.text("picture");
        read_cells(fields, ground.cells);
        ground.data = fields.flag("data", false);
        ground.opacity = read_opacity(fields);
        ground.sampling = read_sampling(fields);
    }
    ground.extra = fields.kept();
    return ground;
}

}  // namespace lacquer
