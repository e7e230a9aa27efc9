#include "core/ship/ground_files.h"

#include <bit>
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
    if (colour && picture.channels == 4) {
        const Image8 image = to_image(picture, Type::vec4, pool);
        std::string error;
        file.is_png = true;
        file.bytes = png_of({image.width, image.height, 4, 8, true}, image.data.data(), image.data.size(), error);
        if (file.bytes.empty())
            return Fault{
                "picture.unwritable", "a ground cannot be written: " + error, "", {name, {}, 0, 0}, Severity::fault};
        return file;
    }
    file.bytes.resize(picture.data.size() * sizeof(float));
    std::memcpy(file.bytes.data(), picture.data.data(), file.bytes.size());
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

std::string ground_path(const GroundFile& file) {
    return "grounds/" + safe_stem(file.name, "ground") + (file.is_png ? ".png" : ".f32");
}

}  // namespace lacquer
