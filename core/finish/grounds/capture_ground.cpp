#include "core/finish/grounds/capture_ground.h"

#include <array>

#include "core/finish/grounds/picture_fields.h"
#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

struct LayerKey {
    const char* key;
    std::string CaptureLayers::*layer;
};
constexpr std::array layer_keys{LayerKey{"colour", &CaptureLayers::colour}, LayerKey{"depth", &CaptureLayers::depth},
                                LayerKey{"normal", &CaptureLayers::normal},
                                LayerKey{"position", &CaptureLayers::position}, LayerKey{"id", &CaptureLayers::id}};

void read_layers(Fields& fields, CaptureLayers& layers) {
    Json named;
    if (!fields.take("layers", named)) return;
    if (!named.is_object()) return fields.complain("layers", "an object");
    for (const LayerKey& each : layer_keys) {
        const Json* name = named.find(each.key);
        if (name != nullptr && name->is_string()) layers.*each.layer = name->text();
    }
}

}  // namespace

void read(Fields& fields, CaptureGround& ground) {
    ground.path = fields.text("capture");
    read_layers(fields, ground.layers);
    ground.opacity = read_opacity(fields);
    ground.sampling = read_sampling(fields);
}

void write(Json& object, const CaptureGround& ground) {
    object["capture"] = ground.path;
    for (const LayerKey& each : layer_keys) {
        if (const std::string& layer = ground.layers.*each.layer; !layer.empty()) object["layers"][each.key] = layer;
    }
    write_opacity(object, ground.opacity);
    write_sampling(object, ground.sampling);
}

std::vector<GroundPicture> pictures_of(const CaptureGround&, const std::string& name) { return scene_pictures(name); }

std::vector<std::string*> paths_of(CaptureGround& ground) { return {&ground.path}; }

ListLength list_of(const CaptureGround&) { return {}; }

}  // namespace lacquer
