#include "core/picture/reader_lists.h"

#include <cmath>
#include <cstdint>

#include "core/picture/packed.h"

namespace lacquer {

namespace {

constexpr std::uint32_t most_entries = 100'000;

}  // namespace

std::string packed(const PictureFrames& frames) {
    Packer packer;
    packer.number(static_cast<std::int32_t>(frames.count)).number(static_cast<std::uint32_t>(frames.ends.size()));
    for (const double end : frames.ends) packer.number(end);
    return packer.bytes();
}

std::string packed(const std::vector<PictureLayer>& layers) {
    Packer packer;
    packer.number(static_cast<std::uint32_t>(layers.size()));
    for (const PictureLayer& layer : layers) {
        packer.text(layer.name).number(std::int32_t{layer.width}).number(std::int32_t{layer.height});
        packer.number(static_cast<std::uint32_t>(layer.channels.size()));
        for (const std::string& channel : layer.channels) packer.text(channel);
    }
    return packer.bytes();
}

std::string packed(const Walls& walls) {
    Packer packer;
    for (const bool stands : {walls.files, walls.calls, walls.memory}) packer.number(static_cast<std::uint8_t>(stands));
    return packer.bytes();
}

std::optional<PictureFrames> unpacked_frames(std::string_view bytes) {
    Unpacker unpacker(bytes);
    const auto count = unpacker.number<std::int32_t>();
    const auto ends = unpacker.number<std::uint32_t>();
    if (!count || !ends || *count < 1 || *ends > most_entries) return std::nullopt;
    // For each picture, or for none.
    if (*ends != 0 && static_cast<std::int64_t>(*ends) != *count) return std::nullopt;
    PictureFrames frames;
    frames.count = *count;
    double before = 0;
    for (std::uint32_t i = 0; i < *ends; ++i) {
        const auto end = unpacker.number<double>();
        if (!end || !std::isfinite(*end) || *end < before) return std::nullopt;
        frames.ends.push_back(before = *end);
    }
    return unpacker.at_end() ? std::optional(frames) : std::nullopt;
}

std::optional<std::vector<PictureLayer>> unpacked_layers(std::string_view bytes) {
    Unpacker unpacker(bytes);
    const auto count = unpacker.number<std::uint32_t>();
    if (!count || *count > most_entries) return std::nullopt;
    std::vector<PictureLayer> layers;
    for (std::uint32_t i = 0; i < *count; ++i) {
        const auto name = unpacker.text();
        const auto width = unpacker.number<std::int32_t>();
        const auto height = unpacker.number<std::int32_t>();
        const auto channels = unpacker.number<std::uint32_t>();
        if (!name || !width || !height || !channels || !is_drawable_size(*width, *height)) return std::nullopt;
        PictureLayer& layer = layers.emplace_back();
        layer.name = *name;
        layer.width = *width;
        layer.height = *height;
        for (std::uint32_t c = 0; c < *channels; ++c) {
            const auto channel = unpacker.text();
            if (!channel) return std::nullopt;
            layer.channels.push_back(*channel);
        }
    }
    return unpacker.at_end() ? std::optional(layers) : std::nullopt;
}

std::optional<Walls> unpacked_walls(std::string_view bytes) {
    Unpacker unpacker(bytes);
    const auto files = unpacker.number<std::uint8_t>();
    const auto calls = unpacker.number<std::uint8_t>();
    const auto memory = unpacker.number<std::uint8_t>();
    if (!files || !calls || !memory || !unpacker.at_end()) return std::nullopt;
    return Walls{*files != 0, *calls != 0, *memory != 0};
}

}  // namespace lacquer
