// The module itself: OpenImageIO behind two plain functions. No exception leaves it.
#include "core/picture/files_module.h"

#include <OpenImageIO/filesystem.h>
#include <OpenImageIO/imageio.h>

#include <algorithm>
#include <cmath>
#include <exception>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

void to_linear(std::vector<float>& channels, std::size_t stride, std::size_t colours, bool eight_bits) {
    const std::array<float, 256>& table = srgb_decode_table();
    for (std::size_t i = 0; i < channels.size(); i += stride) {
        for (std::size_t c = 0; c < colours; ++c) {
            float& value = channels[i + c];
            value = eight_bits ? table[static_cast<std::size_t>(std::lround(value * 255.0F))]
                               : static_cast<float>(srgb_decode(static_cast<double>(value)));
        }
    }
}

// Exactly k / 255, which the library's own conversion misses by a rounding.
void to_whole_levels(std::vector<float>& channels) {
    for (float& value : channels) value = static_cast<float>(std::lround(value * 255.0F)) / 255.0F;
}

void to_straight(Picture& picture) {
    for (std::size_t i = 0; i < picture.data.size(); i += 4) {
        const float opacity = picture.data[i + 3];
        if (opacity > 0.0F) {
            for (std::size_t c = 0; c < 3; ++c) picture.data[i + c] /= opacity;
        }
    }
}

PictureRead read(const std::string& path, bool colour, Picture& picture, std::string& error) {
    OIIO::ImageSpec config;
    config.attribute("oiio:UnassociatedAlpha", 1);
    const auto input = OIIO::ImageInput::open(path, &config);
    if (!input) {
        error = OIIO::geterror();
        return PictureRead::unreadable;
    }
    const OIIO::ImageSpec& spec = input->spec();
    if (!is_drawable_size(spec.width, spec.height) || spec.depth > 1 || spec.nchannels < 1 || spec.nchannels > 64) {
        error = std::to_string(spec.width) + " x " + std::to_string(spec.height);
        return PictureRead::too_large;
    }
    const int kept = std::min(spec.nchannels, 4);
    const auto stride = static_cast<std::size_t>(kept);
    std::vector<float> read(static_cast<std::size_t>(spec.width) * static_cast<std::size_t>(spec.height) * stride);
    if (!input->read_image(0, 0, 0, kept, OIIO::TypeDesc::FLOAT, read.data())) {
        error = input->geterror();
        return PictureRead::unreadable;
    }
    const bool whole_numbers = !spec.format.is_floating_point();
    const std::size_t colours = stride <= 2 ? 1 : 3;
    const bool has_opacity = stride == 2 || stride == 4;
    if (spec.format == OIIO::TypeDesc::UINT8) to_whole_levels(read);
    if (colour && whole_numbers) to_linear(read, stride, colours, spec.format == OIIO::TypeDesc::UINT8);

    picture = Picture(spec.width, spec.height, 4);
    for (std::size_t i = 0, o = 0; i < read.size(); i += stride, o += 4) {
        for (std::size_t c = 0; c < 3; ++c) picture.data[o + c] = read[i + (colours == 1 ? 0 : c)];
        picture.data[o + 3] = has_opacity ? read[i + stride - 1] : 1.0F;
    }
    if (has_opacity && !whole_numbers && spec.get_int_attribute("oiio:UnassociatedAlpha") == 0) to_straight(picture);
    return PictureRead::done;
}

bool encode(const Image8& image, std::string& bytes, std::string& error) {
    const auto output = OIIO::ImageOutput::create("png");
    if (!output) {
        error = OIIO::geterror();
        return false;
    }
    bool opaque = true;
    for (std::size_t i = 3; i < image.data.size(); i += 4) opaque = opaque && image.data[i] == 255;
    OIIO::ImageSpec spec(image.width, image.height, opaque ? 3 : 4, OIIO::TypeDesc::UINT8);
    spec.attribute("oiio:UnassociatedAlpha", 1);
    spec.attribute("oiio:ColorSpace", "sRGB");
    std::vector<unsigned char> written;
    OIIO::Filesystem::IOVecOutput memory(written);
    output->set_ioproxy(&memory);
    const bool done = output->open("memory.png", spec) &&
                      output->write_image(OIIO::TypeDesc::UINT8, image.data.data(), 4) && output->close();
    if (!done) error = output->geterror();
    bytes.assign(written.begin(), written.end());
    return done;
}

template <class Work, class Failed>
auto guarded(const Work& work, Failed failed, std::string& error) noexcept {
    try {
        return work();
    } catch (const std::exception& problem) {
        error = problem.what();
    } catch (...) {
        error = "unknown trouble";
    }
    return failed;
}

}  // namespace

}  // namespace lacquer

extern "C" lacquer::PictureRead lacquer_read_picture(const std::string& path, bool colour, lacquer::Picture& picture,
                                                     std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::read(path, colour, picture, error); },
                            lacquer::PictureRead::unreadable, error);
}

extern "C" bool lacquer_encode_png(const lacquer::Image8& image, std::string& bytes, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::encode(image, bytes, error); }, false, error);
}
