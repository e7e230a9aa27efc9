// The module itself: plain pictures by OpenImageIO, and the functions by which all that it reads and writes is asked
// for. No exception leaves it.
#include "core/picture/files_module.h"

#include <OpenImageIO/filesystem.h>
#include <OpenImageIO/imageio.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <exception>
#include <memory>

#include "core/picture/layered.h"
#include "core/picture/moving.h"
#include "core/picture/opened_file.h"
#include "core/picture/reading.h"
#include "core/picture/svg.h"
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

bool is_svg(const std::string& path) { return path.ends_with(".svg") || path.ends_with(".SVG"); }

// Some rows of a file as they are turned into a picture.
struct Rows {
    std::vector<float> channels;
    std::size_t stride = 4;
    PictureMeaning meaning = PictureMeaning::colour;
    bool whole_numbers = true;
    bool eight_bits = true;
};

// Colours of display values that opacity was multiplied into; what would be brighter than white was rounded.
void divide_by_opacity(std::vector<float>& channels, std::size_t stride) {
    for (std::size_t i = 0; i < channels.size(); i += stride) {
        const float opacity = channels[i + stride - 1];
        for (std::size_t c = 0; opacity > 0 && c + 1 < stride; ++c)
            channels[i + c] = std::min(1.0F, channels[i + c] / opacity);
    }
}

void put_rows(Rows& rows, Picture& picture, int first) {
    const std::size_t stride = rows.stride;
    const std::size_t colours = stride <= 2 ? 1 : 3;
    const bool has_opacity = stride == 2 || stride == 4;
    if (rows.eight_bits) to_whole_levels(rows.channels);
    const bool divided = rows.meaning == PictureMeaning::multiplied && has_opacity && rows.whole_numbers;
    if (divided) divide_by_opacity(rows.channels, stride);
    if (rows.meaning != PictureMeaning::data && rows.whole_numbers)
        to_linear(rows.channels, stride, colours, rows.eight_bits && !divided);
    float* to = picture.at(0, first);
    for (std::size_t i = 0; i < rows.channels.size(); i += stride, to += 4) {
        for (std::size_t c = 0; c < 3; ++c) to[c] = rows.channels[i + (colours == 1 ? 0 : c)];
        to[3] = has_opacity ? rows.channels[i + stride - 1] : 1.0F;
    }
}

// One of several that follow one another.
PictureRead read_moving(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch,
                        Picture& picture, std::string& error) {
    Rows rows;
    rows.meaning = meaning;
    int bits = 8;
    const PictureRead done = read_moving_frame(path, frame, watch, picture, bits, error);
    if (done != PictureRead::done) return done;
    rows.eight_bits = bits == 8;
    rows.channels.assign(picture.data.begin(), picture.data.end());
    put_rows(rows, picture, 0);
    return done;
}

PictureRead read(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch, Picture& picture,
                 std::string& error) {
    if (is_svg(path)) return read_svg(path, meaning, picture, error);
    if (is_moving(path)) return read_moving(path, meaning, frame, watch, picture, error);
    std::unique_ptr<OIIO::ImageInput> input;
    if (const PictureRead opened = open_at(path, frame, input, error); opened != PictureRead::done) return opened;
    const OIIO::ImageSpec spec = input->spec();
    const int kept = std::min(spec.nchannels, 4);
    Rows rows;
    rows.stride = static_cast<std::size_t>(kept);
    rows.meaning = meaning;
    rows.whole_numbers = !spec.format.is_floating_point();
    rows.eight_bits = spec.format == OIIO::TypeDesc::UINT8;
    picture = Picture(spec.width, spec.height, 4);
    // A few rows at a time, so that beside the picture little more is held; files cut into tiles give all at once.
    const int at_once = spec.tile_width > 0 ? spec.height : rows_at_once;
    for (int y = 0; y < spec.height; y += at_once) {
        if (!watch(static_cast<double>(y) / spec.height)) return PictureRead::unreadable;
        const int end = std::min(spec.height, y + at_once);
        rows.channels.resize(static_cast<std::size_t>(spec.width) * static_cast<std::size_t>(end - y) * rows.stride);
        const bool good = spec.tile_width > 0
                              ? input->read_image(frame, 0, 0, kept, OIIO::TypeDesc::FLOAT, rows.channels.data())
                              : input->read_scanlines(frame, 0, spec.y + y, spec.y + end, 0, 0, kept,
                                                      OIIO::TypeDesc::FLOAT, rows.channels.data());
        if (!good) {
            error = input->geterror();
            return PictureRead::unreadable;
        }
        put_rows(rows, picture, y);
    }
    const bool has_opacity = kept == 2 || kept == 4;
    if (has_opacity && !rows.whole_numbers && spec.get_int_attribute("oiio:UnassociatedAlpha") == 0)
        to_straight(picture);
    picture = in_display_window(std::move(picture), spec);
    return PictureRead::done;
}

PictureRead frames(const std::string& path, PictureFrames& found, std::string& error) {
    return is_moving(path) ? read_moving_frames(path, found, error) : PictureRead::done;
}

bool write_to_memory(OIIO::ImageOutput& output, const char* name, const OIIO::ImageSpec& spec,
                     const OIIO::TypeDesc& type, const void* data, OIIO::stride_t step, std::string& bytes,
                     std::string& error) {
    std::vector<unsigned char> written;
    OIIO::Filesystem::IOVecOutput memory(written);
    output.set_ioproxy(&memory);
    const bool done = output.open(name, spec) && output.write_image(type, data, step) && output.close();
    if (!done) error = output.geterror();
    bytes.assign(written.begin(), written.end());
    return done;
}

bool encode_exr(const std::vector<WrittenChannel>& channels, std::string& bytes, std::string& error) {
    const auto output = OIIO::ImageOutput::create("exr");
    if (!output || channels.empty()) {
        error = output ? "there is nothing to write" : OIIO::geterror();
        return false;
    }
    const Picture& first = *channels.front().picture;
    const auto count = channels.size();
    OIIO::ImageSpec spec(first.width, first.height, static_cast<int>(count), OIIO::TypeDesc::FLOAT);
    spec.channelnames.clear();
    for (const WrittenChannel& channel : channels) {
        if (channel.picture->width != first.width || channel.picture->height != first.height) {
            error = "its layers are of different sizes";
            return false;
        }
        spec.channelnames.push_back(channel.name);
        spec.channelformats.push_back(channel.half ? OIIO::TypeDesc::HALF : OIIO::TypeDesc::FLOAT);
        if (channel.name == "A") spec.alpha_channel = static_cast<int>(spec.channelnames.size()) - 1;
        if (channel.name == "Z") spec.z_channel = static_cast<int>(spec.channelnames.size()) - 1;
    }
    spec.attribute("compression", "zip");
    std::vector<float> pixels(static_cast<std::size_t>(first.width) * static_cast<std::size_t>(first.height) * count);
    for (std::size_t c = 0; c < count; ++c) {
        const Picture& from = *channels[c].picture;
        const auto stride = static_cast<std::size_t>(from.channels);
        const auto channel = static_cast<std::size_t>(channels[c].channel);
        for (std::size_t i = 0; i < pixels.size() / count; ++i) pixels[i * count + c] = from.data[i * stride + channel];
    }
    return write_to_memory(*output, "memory.exr", spec, OIIO::TypeDesc::FLOAT, pixels.data(), OIIO::AutoStride, bytes,
                           error);
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
    return write_to_memory(*output, "memory.png", spec, OIIO::TypeDesc::UINT8, image.data.data(), 4, bytes, error);
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

extern "C" lacquer::PictureRead lacquer_read_picture(const std::string& path, lacquer::PictureMeaning meaning,
                                                     int frame, const lacquer::ReadWatch& watch,
                                                     lacquer::Picture& picture, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::read(path, meaning, frame, watch, picture, error); },
                            lacquer::PictureRead::unreadable, error);
}

extern "C" bool lacquer_encode_png(const lacquer::Image8& image, std::string& bytes, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::encode(image, bytes, error); }, false, error);
}

extern "C" lacquer::PictureRead lacquer_picture_frames(const std::string& path, lacquer::PictureFrames& frames,
                                                       std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::frames(path, frames, error); }, lacquer::PictureRead::unreadable,
                            error);
}

extern "C" lacquer::PictureRead lacquer_picture_layers(const std::string& path,
                                                       std::vector<lacquer::PictureLayer>& layers,
                                                       std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::layers_in(path, layers, error); }, lacquer::PictureRead::unreadable,
                            error);
}

extern "C" lacquer::PictureRead lacquer_read_layer(const std::string& path, const std::string& layer,
                                                   const lacquer::ReadWatch& watch, lacquer::Picture& picture,
                                                   std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::read_one_layer(path, layer, watch, picture, error); },
                            lacquer::PictureRead::unreadable, error);
}

extern "C" bool lacquer_encode_exr(const std::vector<lacquer::WrittenChannel>& channels, std::string& bytes,
                                   std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::encode_exr(channels, bytes, error); }, false, error);
}
