#include "core/picture/opened_file.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <string_view>
#include <system_error>

namespace lacquer {

namespace {

// The only readers that may look at a file, each chosen by how such files begin and not by their names: of the
// library's many others none is wanted, and each would be one more to trust.
const char* format_of(const std::string& path) {
    struct Beginning {
        const char* format;
        std::string_view bytes;
        std::size_t at = 0;
    };
    using namespace std::string_view_literals;
    static constexpr std::array beginnings = {Beginning{"png", "\x89PNG\r\n\x1a\n"sv},
                                              Beginning{"jpeg", "\xff\xd8\xff"sv},
                                              Beginning{"webp", "WEBP"sv, 8},
                                              Beginning{"tiff", "II*\0"sv},
                                              Beginning{"tiff", "MM\0*"sv},
                                              Beginning{"tiff", "II+\0"sv},
                                              Beginning{"tiff", "MM\0+"sv},
                                              Beginning{"openexr", "\x76\x2f\x31\x01"sv},
                                              Beginning{"hdr", "#?"sv},
                                              Beginning{"pnm", "P5"sv},
                                              Beginning{"pnm", "P6"sv},
                                              Beginning{"pnm", "P2"sv},
                                              Beginning{"pnm", "P3"sv},
                                              Beginning{"pnm", "Pf"sv},
                                              Beginning{"pnm", "PF"sv}};
    std::array<char, 16> head{};
    std::ifstream file(path, std::ios::binary);
    file.read(head.data(), head.size());
    const std::string_view read(head.data(), static_cast<std::size_t>(file.gcount()));
    for (const Beginning& beginning : beginnings) {
        if (read.size() > beginning.at && read.substr(beginning.at).starts_with(beginning.bytes))
            return beginning.format;
    }
    return nullptr;
}

}  // namespace

PictureRead open_at(const std::string& path, int part, std::unique_ptr<OIIO::ImageInput>& input, std::string& error) {
    OIIO::ImageSpec config;
    config.attribute("oiio:UnassociatedAlpha", 1);
    const char* format = format_of(path);
    if (format == nullptr) {
        error = "it is none of PNG, JPEG, WebP, TIFF, OpenEXR, HDR, GIF, SVG, Netpbm";
        return PictureRead::unreadable;
    }
    input = OIIO::ImageInput::create(format);
    OIIO::ImageSpec opened;
    if (!input || !input->open(path, opened, config)) {
        error = input ? input->geterror() : OIIO::geterror();
        return PictureRead::unreadable;
    }
    if (part > 0 && !input->seek_subimage(part, 0)) {
        error = input->geterror();
        return PictureRead::unreadable;
    }
    const OIIO::ImageSpec& spec = input->spec();
    const bool fits = is_drawable_size(spec.width, spec.height) && is_drawable_size(spec.full_width, spec.full_height);
    if (!fits || spec.depth > 1 || spec.nchannels < 1 || spec.nchannels > most_channels) {
        error = std::to_string(spec.width) + " x " + std::to_string(spec.height);
        return PictureRead::too_large;
    }
    std::error_code code;
    const std::uintmax_t bytes = std::filesystem::file_size(path, code);
    // What is stored as it stands cannot be longer than its file.
    if (!code && spec.get_string_attribute("compression") == "none" && spec.image_bytes(true) > bytes) {
        error = "it is cut short";
        return PictureRead::unreadable;
    }
    return PictureRead::done;
}

bool fills_display_window(const OIIO::ImageSpec& spec) {
    return spec.x == spec.full_x && spec.y == spec.full_y && spec.width == spec.full_width &&
           spec.height == spec.full_height;
}

Picture in_display_window(Picture data, const OIIO::ImageSpec& spec) {
    const int left = spec.x - spec.full_x;
    const int top = spec.y - spec.full_y;
    if (fills_display_window(spec)) return data;
    Picture whole(spec.full_width, spec.full_height, 4);
    std::fill(whole.data.begin(), whole.data.end(), 0.0F);
    const int first = std::max(0, left);
    const int count = std::min(whole.width, left + data.width) - first;
    for (int y = std::max(0, top); count > 0 && y < std::min(whole.height, top + data.height); ++y)
        std::copy_n(data.at(first - left, y - top), count * 4, whole.at(first, y));
    return whole;
}

bool is_straight(const OIIO::ImageSpec& spec) {
    return spec.get_int_attribute("oiio:UnassociatedAlpha") != 0 || spec.get_int_attribute(straight_mark) != 0;
}

bool is_multiplied(const OIIO::ImageSpec& spec, PictureMeaning meaning) {
    if (!spec.format.is_floating_point() || meaning == PictureMeaning::straight) return false;
    return meaning == PictureMeaning::multiplied || !is_straight(spec);
}

void to_straight(Picture& picture) {
    for (std::size_t i = 0; i < picture.data.size(); i += 4) {
        const float opacity = picture.data[i + 3];
        if (opacity > 0.0F) {
            for (std::size_t c = 0; c < 3; ++c) picture.data[i + c] /= opacity;
        }
    }
}

}  // namespace lacquer
