#include "core/picture/write_picture.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/base/file.h"
#include "core/base/guarded.h"
#include "core/picture/display_kernels.h"
#include "core/picture/files.h"
#include "core/picture/png.h"
#include "core/picture/transfer.h"

namespace lacquer {

namespace {

enum class FileKind { png, exr, tiff, webp, jpeg };

struct Ending {
    std::string_view ending;
    FileKind kind;
    std::array<int, 3> bits;  // the usual one first; 0 for none
};
constexpr std::array<Ending, 7> endings = {{{".png", FileKind::png, {8, 16, 0}},
                                            {".exr", FileKind::exr, {32, 16, 0}},
                                            {".tif", FileKind::tiff, {8, 16, 32}},
                                            {".tiff", FileKind::tiff, {8, 16, 32}},
                                            {".webp", FileKind::webp, {8, 0, 0}},
                                            {".jpg", FileKind::jpeg, {8, 0, 0}},
                                            {".jpeg", FileKind::jpeg, {8, 0, 0}}}};

// What the name says; a device has no ending, and gets the plainest.
const Ending* ending_of(const std::string& path) {
    if (path.starts_with("/dev/")) return &endings[0];
    std::string lower = path;
    std::transform(lower.begin(), lower.end(), lower.begin(),
                   [](char c) { return static_cast<char>(std::tolower(static_cast<unsigned char>(c))); });
    const auto found =
        std::find_if(endings.begin(), endings.end(), [&](const Ending& e) { return lower.ends_with(e.ending); });
    return found == endings.end() ? nullptr : &*found;
}

Fault writing_fault(const char* id, const std::string& path, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), Place{path, {}, 0, 0}, Severity::fault};
}

double held(float value) { return value > 0.0F ? std::min(static_cast<double>(value), 1.0) : 0.0; }

template <class Whole>
Whole level(double share) {
    constexpr double most = sizeof(Whole) == 1 ? 255 : 65535;
    return static_cast<Whole>(share * most + 0.5);
}

// Colours for eyes, whole rows at a time.
void put_shown_colours(const Picture& from, int channels, std::vector<std::uint8_t>& numbers) {
    const auto width = static_cast<std::size_t>(from.width);
    const auto count = static_cast<std::size_t>(channels);
    std::vector<std::uint8_t> row(width * 4);
    numbers.resize(width * static_cast<std::size_t>(from.height) * count);
    std::uint8_t* to = numbers.data();
    for (int y = 0; y < from.height; ++y) {
        const float* values = from.at(0, y);
        show_pixels(values, from.channels, 1.0F, row.data(), width);
        for (std::size_t x = 0; x < width; ++x, to += count) {
            std::copy_n(&row[x * 4], 3, to);
            if (count == 4) to[3] = level<std::uint8_t>(held(values[x * 4 + 3]));
        }
    }
}

// Whole numbers of so many channels: grey, colours, or colours and opacity.
template <class Whole>
std::vector<Whole> whole_numbers(const WrittenLayer& layer, int channels) {
    static const SrgbEncoder encode;
    const Picture& from = *layer.picture;
    const auto pixels = static_cast<std::size_t>(from.width) * static_cast<std::size_t>(from.height);
    const auto has = static_cast<std::size_t>(from.channels);
    std::vector<Whole> numbers;
    if constexpr (sizeof(Whole) == 1) {
        if (!layer.data && from.channels >= 3 && channels >= 3) {
            put_shown_colours(from, channels, numbers);
            return numbers;
        }
    }
    numbers.reserve(pixels * static_cast<std::size_t>(channels));
    for (std::size_t i = 0; i < pixels; ++i) {
        for (std::size_t c = 0; c < static_cast<std::size_t>(channels); ++c) {
            const float value = c < has ? from.data[i * has + c] : 0.0F;
            if (layer.data || c == 3) {
                numbers.push_back(level<Whole>(held(value)));
            } else if constexpr (sizeof(Whole) == 1) {
                numbers.push_back(encode(value));
            } else {
                numbers.push_back(level<Whole>(srgb_encode(held(value))));
            }
        }
    }
    return numbers;
}

bool is_opaque_layer(const Picture& picture) {
    for (std::size_t i = 3; i < picture.data.size(); i += 4) {
        if (!(picture.data[i] >= 1.0F)) return false;
    }
    return true;
}

// 1, 3 or 4 in files of whole numbers.
int file_channels(const Picture& picture, bool opacity) {
    if (picture.channels == 1) return 1;
    return picture.channels == 4 && opacity && !is_opaque_layer(picture) ? 4 : 3;
}

Picture multiplied(const Picture& straight) {
    Picture made = straight;
    for (std::size_t i = 0; i < made.data.size(); i += 4) {
        for (std::size_t c = 0; c < 3; ++c) made.data[i + c] *= made.data[i + 3];
    }
    return made;
}

Result<Done> write_layers(const std::string& path, std::span<const WrittenLayer> layers, const WriteOptions& options) {
    std::vector<Picture> own(layers.size());
    std::vector<WrittenChannel> channels;
    bool opacity = false;
    for (std::size_t i = 0; i < layers.size(); ++i) {
        const WrittenLayer& layer = layers[i];
        const Picture* picture = layer.picture;
        const bool has_opacity = picture->channels == 4 && !layer.data;
        opacity = opacity || has_opacity;
        if (has_opacity && options.multiplied) {
            own[i] = multiplied(*picture);
            picture = &own[i];
        }
        static constexpr std::array<const char*, 4> colours = {"R", "G", "B", "A"};
        const std::string stem = layers.size() > 1 ? layer.name + "." : std::string();
        for (int c = 0; c < picture->channels; ++c) {
            const char* name = picture->channels == 1 ? "Y" : colours[static_cast<std::size_t>(c)];
            channels.push_back({stem + name, picture, c, options.bits == 16});
        }
    }
    return write_exr(path, channels, opacity && !options.multiplied);
}

Result<Done> write_tiff_floats(const std::string& path, const WrittenLayer& layer, const WriteOptions& options) {
    const bool has_opacity = layer.picture->channels == 4 && !layer.data;
    const Picture own = has_opacity && options.multiplied ? multiplied(*layer.picture) : Picture();
    const Picture& picture = own.data.empty() ? *layer.picture : own;
    EncodedPicture encoded{"tiff", "zip", picture.width, picture.height, picture.channels, 32, picture.data.data()};
    encoded.straight = !options.multiplied || !has_opacity;
    encoded.srgb = false;
    return write_encoded(path, encoded);
}

template <class Whole>
Result<Done> write_whole_numbers(const std::string& path, FileKind kind, const WrittenLayer& layer) {
    const int channels = file_channels(*layer.picture, kind != FileKind::jpeg);
    const std::vector<Whole> numbers = whole_numbers<Whole>(layer, channels);
    const int bits = static_cast<int>(sizeof(Whole)) * 8;
    const int width = layer.picture->width;
    const int height = layer.picture->height;
    if (kind == FileKind::png) {
        std::string error;
        const std::string bytes =
            png_of({width, height, channels, bits, !layer.data}, numbers.data(), numbers.size() * sizeof(Whole), error);
        if (!bytes.empty()) return write_output(path, bytes);
        return writing_fault("picture.unwritable", path, "the picture cannot be written: " + error,
                             "try a smaller one");
    }
    EncodedPicture encoded{"tiff", "zip", width, height, channels, bits, numbers.data()};
    if (kind == FileKind::webp) encoded = {"webp", "lossless", width, height, channels, bits, numbers.data()};
    if (kind == FileKind::jpeg) encoded = {"jpeg", "jpeg:95", width, height, channels, bits, numbers.data()};
    encoded.srgb = !layer.data;
    // WebP knows colours only.
    std::vector<Whole> spread;
    if (kind == FileKind::webp && channels == 1) {
        for (const Whole number : numbers) spread.insert(spread.end(), 3, number);
        encoded.channels = 3;
        encoded.numbers = spread.data();
    }
    return write_encoded(path, encoded);
}

}  // namespace

bool holds_floats(const std::string& path) {
    const Ending* ending = ending_of(path);
    return ending != nullptr && ending->kind == FileKind::exr;
}

Result<Done> check_writing(const std::string& path, std::size_t layers, const WriteOptions& options) {
    const Ending* ending = ending_of(path);
    if (ending == nullptr) {
        return writing_fault("picture.ending", path, "the name does not end as a picture's does that can be written",
                             "end it in .png, .exr, .tif, .webp or .jpg");
    }
    const bool can =
        options.bits == 0 || std::find(ending->bits.begin(), ending->bits.end(), options.bits) != ending->bits.end();
    if (!can) {
        std::string offered;
        for (const int bits : ending->bits) {
            if (bits != 0) offered += (offered.empty() ? "" : ", ") + std::to_string(bits);
        }
        return writing_fault(
            "picture.bits", path,
            std::string(ending->ending) + " is not written with " + std::to_string(options.bits) + " bits",
            "it has " + offered);
    }
    if (layers > 1 && ending->kind != FileKind::exr)
        return writing_fault("picture.layers", path, "only OpenEXR holds several layers", "end the name in .exr");
    return Done{};
}

Result<Done> write_picture(const std::string& path, std::span<const WrittenLayer> layers, const WriteOptions& options) {
    if (auto good = check_writing(path, layers.size(), options); !good) return good;
    return guarded([&]() -> Result<Done> {
        const Ending& ending = *ending_of(path);
        WriteOptions chosen = options;
        if (chosen.bits == 0) chosen.bits = ending.bits[0];
        if (ending.kind == FileKind::exr) return write_layers(path, layers, chosen);
        if (chosen.bits == 32) return write_tiff_floats(path, layers.front(), chosen);
        return chosen.bits == 16 ? write_whole_numbers<std::uint16_t>(path, ending.kind, layers.front())
                                 : write_whole_numbers<std::uint8_t>(path, ending.kind, layers.front());
    });
}

}  // namespace lacquer
