#include "core/ship/ground_files.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstring>

#include "core/finish/ground_pictures.h"
#include "core/picture/png.h"
#include "core/render/view.h"

namespace lacquer {

namespace {

static_assert(std::endian::native == std::endian::little, "floats are written as they lie in memory");

bool is_colour(const Finish& finish, const std::string& name) {
    const auto named = find_ground_picture(finish, name);
    return named && named->picture.layer == GroundLayer::colour && !is_data(*named->ground) &&
           named->picture.type == Type::vec4;
}

// Numbers with ten bits after the first, which is enough for colours that are shown, and packs well.
Picture rounded(Picture picture) {
    for (float& number : picture.data) {
        const auto bits = std::bit_cast<std::uint32_t>(number);
        number = std::bit_cast<float>(static_cast<std::uint32_t>(bits & 0xFFFFE000U));
    }
    return picture;
}

// No colour is brighter than a file of display values can tell.
bool is_displayable(const Picture& picture) {
    return std::all_of(picture.data.begin(), picture.data.end(), [](float number) { return !(number > 1.0F); });
}

Result<GroundFile> ground_file(const Finish& finish, const std::string& name, const Picture& whole, int most_side,
                               WorkerPool& pool) {
    GroundFile file;
    file.name = name;
    const bool colour = is_colour(finish, name);
    const bool is_table = find_ground_picture(finish, name) == std::nullopt;
    const bool large = most_side > 0 && !is_table && (whole.width > most_side || whole.height > most_side);
    const Picture picture = !large   ? whole
                            : colour ? shrink_to(whole, most_side, most_side, true)
                                     : thinned_to(whole, most_side, most_side);
    file.width = picture.width;
    file.height = picture.height;
    file.channels = picture.channels;
    if (colour && picture.channels == 4 && is_displayable(picture)) {
        const Image8 image = to_image(picture, Type::vec4, pool);
        Result<std::string> bytes = png_bytes(image);
        if (!bytes) return bytes.fault();
        file.is_png = true;
        file.bytes = std::move(*bytes);
        return file;
    }
    const Picture kept = colour && most_side > 0 ? rounded(picture) : picture;
    file.bytes.resize(kept.data.size() * sizeof(float));
    std::memcpy(file.bytes.data(), kept.data.data(), file.bytes.size());
    return file;
}

}  // namespace

Result<std::vector<GroundFile>> ground_files(const ShipMaterial& material, const ShipMoment& moment, int most_side,
                                             const Cancel& cancel) {
    WorkerPool pool;
    MomentSource source(material, nullptr, pool);
    Result<MomentInputs> inputs = source.inputs(moment, 0, 0, cancel);
    if (!inputs) return inputs.fault();
    std::vector<GroundFile> files;
    for (const auto& [name, picture] : inputs->pictures) {
        if (picture == nullptr) continue;
        Result<GroundFile> file = ground_file(material.finish(), name, *picture, most_side, pool);
        if (!file) return file.fault();
        files.push_back(std::move(*file));
    }
    return files;
}

Result<std::vector<PlayedGround>> played_droplets(const ShipMaterial& material, double rate, int most_frames,
                                                  int most_side, const Cancel& cancel) {
    const Finish& finish = material.finish();
    std::vector<PlayedGround> played;
    for (const ShippedPass& shipped : material.passes) {
        for (const std::string& name : shipped.pass.grounds) {
            const auto named = find_ground_picture(finish, name);
            const bool known = std::any_of(played.begin(), played.end(),
                                           [&](const PlayedGround& ground) { return ground.name == name; });
            if (named && !known && named->ground->as<DropletsGround>() != nullptr) played.push_back({name, rate, {}});
        }
    }
    if (played.empty()) return played;
    const double scale =
        std::min(1.0, static_cast<double>(most_side) / std::max(finish.frame_width, finish.frame_height));
    const int count = std::clamp(static_cast<int>(std::ceil(finish.length * rate)), 1, most_frames);
    WorkerPool pool;
    MomentSource source(material, nullptr, pool);
    for (PlayedGround& ground : played) {
        ground.rate = std::min(rate, count / finish.length);
        for (int k = 0; k < count; ++k) {
            const ShipMoment moment{k / ground.rate, scaled_side(finish.frame_width, scale),
                                    scaled_side(finish.frame_height, scale)};
            Result<PicturePtr> picture = source.ground(ground.name, moment, cancel);
            if (!picture) return picture.fault();
            if (*picture == nullptr) break;
            Result<GroundFile> file = ground_file(finish, ground.name, rounded(**picture), 0, pool);
            if (!file) return file.fault();
            ground.frames.push_back(std::move(*file));
        }
    }
    return played;
}

std::string ground_path(const GroundFile& file) {
    return "grounds/" + safe_stem(file.name, "ground") + (file.is_png ? ".png" : ".f32");
}

}  // namespace lacquer
