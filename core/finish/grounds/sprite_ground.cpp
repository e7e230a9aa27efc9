#include "core/finish/grounds/sprite_ground.h"

#include "core/finish/grounds/picture_fields.h"
#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

SpritePart read_part(Fields& fields) {
    SpritePart part;
    part.name = fields.text("part");
    part.path = fields.text("picture");
    part.layer = fields.text("layer");
    part.normal = fields.text("normal");
    if (std::vector<double> at; fields.numbers("at", 2, at)) {
        part.x = at[0];
        part.y = at[1];
    }
    part.scale = fields.number("scale", 1);
    if (!(part.scale > 0 && part.scale <= largest_part_scale)) {
        fields.complain("scale", "more than 0 and at most 64");
        part.scale = 1;
    }
    part.share = fields.number("share", 1);
    part.turn = fields.number("turn", 0);
    part.mirrored = fields.flag("mirrored", false);
    return part;
}

void read_size(Fields& fields, SpriteGround& ground) {
    std::vector<double> size;
    if (!fields.numbers("size", 2, size)) return;
    if (!is_drawable_size(static_cast<std::int64_t>(size[0]), static_cast<std::int64_t>(size[1])))
        return fields.complain("size", "a size of at most 64 million pixels");
    ground.width = static_cast<int>(size[0]);
    ground.height = static_cast<int>(size[1]);
}

Json part_object(const SpritePart& part) {
    Json object = Json::object({{"part", part.name}, {"picture", part.path}, {"at", {part.x, part.y}}});
    if (!part.layer.empty()) object["layer"] = part.layer;
    if (!part.normal.empty()) object["normal"] = part.normal;
    if (part.scale != 1) object["scale"] = part.scale;
    if (part.share != 1) object["share"] = part.share;
    if (part.turn != 0) object["turn"] = part.turn;
    if (part.mirrored) object["mirrored"] = true;
    return object;
}

}  // namespace

void read(Fields& fields, SpriteGround& ground) {
    fields.each("sprite", [&](Fields& part) { ground.parts.push_back(read_part(part)); });
    read_size(fields, ground);
    ground.opacity = read_opacity(fields);
    ground.sampling = read_sampling(fields);
}

void write(Json& object, const SpriteGround& ground) {
    Json parts = Json::array();
    for (const SpritePart& part : ground.parts) parts.push_back(part_object(part));
    object["sprite"] = std::move(parts);
    object["size"] = {ground.width, ground.height};
    write_opacity(object, ground.opacity);
    write_sampling(object, ground.sampling);
}

std::vector<GroundPicture> pictures_of(const SpriteGround&, const std::string& name) {
    return {{name, GroundLayer::colour, Type::vec4, "the sprite's colours, clear around it"},
            {name + "_normal", GroundLayer::normal, Type::vec3, "which way it faces, 0, 0, 1 towards you"},
            {name + "_part", GroundLayer::part, Type::number, "number of the part on top, 0 for none"},
            {name + "_share", GroundLayer::share, Type::number, "that part's share of what drives all"}};
}

std::vector<std::string*> paths_of(SpriteGround& ground) {
    std::vector<std::string*> paths;
    for (SpritePart& part : ground.parts) {
        paths.push_back(&part.path);
        if (!part.normal.empty()) paths.push_back(&part.normal);
    }
    return paths;
}

ListLength list_of(const SpriteGround& ground) { return {ground.parts.size(), "parts"}; }

}  // namespace lacquer
