#include "core/ship/ground_files.h"
#include "core/ship/output.h"

namespace lacquer {

ShipOutput grounds_output() {
    ShipOutput output;
    output.id = "grounds";
    output.title = "Grounds";
    output.words = "the pictures that it reads, as they are at 0 s: PNG for colours, plain floats for all else";
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        const Finish& finish = material.finish();
        Result<std::vector<GroundFile>> grounds =
            ground_files(material, {0, finish.frame_width, finish.frame_height}, 0, cancel);
        if (!grounds) return grounds.fault();
        ShippedFiles files;
        for (GroundFile& ground : *grounds) {
            const std::string path = ground_path(ground);
            Json facts = Json::object(
                {{"file", path}, {"width", ground.width}, {"height", ground.height}, {"channels", ground.channels}});
            files.push_back({path, std::move(ground.bytes), ground.name, std::move(facts)});
        }
        return files;
    };
    return output;
}

}  // namespace lacquer
