#include <fmt/core.h>

#include "core/ship/ground_files.h"
#include "core/ship/output.h"

namespace lacquer {

namespace {

constexpr double drops_rate = 15;
constexpr int most_frames = 240;
constexpr int most_side = 640;

std::string frame_path(const GroundFile& file, std::size_t frame) {
    const std::string path = ground_path(file);
    const std::size_t ending = path.rfind('.');
    return fmt::format("{}_{:04}{}", path.substr(0, ending), frame + 1, path.substr(ending));
}

}  // namespace

ShipOutput drops_output() {
    ShipOutput output;
    output.id = "drops";
    output.title = "Pictures of drops";
    output.words =
        "its droplets over the tape, for a host that does not draw them itself: PNG for colours, else floats";
    output.is_usual = false;
    output.unless = [](const ShipMaterial& material) -> std::string {
        return material.request.checked->droplets.empty() ? "it has no droplets" : "";
    };
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        Result<std::vector<PlayedGround>> played =
            played_droplets(material, drops_rate, most_frames, most_side, cancel);
        if (!played) return played.fault();
        ShippedFiles files;
        for (PlayedGround& ground : *played) {
            if (ground.frames.empty()) continue;
            const std::size_t first = files.size();
            const GroundFile& like = ground.frames.front();
            Json paths = Json::array();
            Json frames = Json::object(
                {{"rate", ground.rate}, {"width", like.width}, {"height", like.height}, {"channels", like.channels}});
            for (std::size_t k = 0; k < ground.frames.size(); ++k) {
                const std::string path = frame_path(ground.frames[k], k);
                paths.push_back(path);
                files.push_back({path, std::move(ground.frames[k].bytes)});
            }
            frames["files"] = std::move(paths);
            files[first].of = ground.name;
            files[first].facts = Json::object({{"frames", std::move(frames)}});
        }
        return files;
    };
    return output;
}

}  // namespace lacquer
