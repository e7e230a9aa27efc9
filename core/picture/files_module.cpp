// The module itself: plain pictures by OpenImageIO, and the functions by which all that it reads and writes is asked
// for. No exception leaves it.
#include "core/picture/files_module.h"

#include <OpenImageIO/filesystem.h>
#include <OpenImageIO/imageio.h>
#include <sys/mman.h>
#include <unistd.h>
#include <webp/encode.h>

#include <exception>
#include <fstream>
#include <iterator>
#include <memory>
#include <string_view>

#include "core/picture/layered.h"
#include "core/picture/moving.h"
#include "core/picture/opened_file.h"
#include "core/picture/reading.h"
#include "core/picture/rows.h"

namespace lacquer {

namespace {

// One of several that follow one another.
PictureRead read_moving(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch,
                        Picture& picture, std::string& error) {
    std::shared_ptr<PictureSequence> opened;
    const PictureRead done = open_moving(path, opened, error);
    return done == PictureRead::done ? opened->read(frame, meaning, watch, picture, error) : done;
}

// As bytes, a few rows at a time; files cut into tiles give all at once.
PictureRead read_bytes(OIIO::ImageInput& input, int frame, int kept, Coding coding, const ReadWatch& watch,
                       Picture& picture, std::string& error) {
    const OIIO::ImageSpec spec = input.spec();
    picture = Picture::of_bytes(spec.width, spec.height, coding);
    const int at_once = spec.tile_width > 0 ? spec.height : rows_at_once;
    std::vector<std::uint8_t> rows;
    for (int y = 0; y < spec.height; y += at_once) {
        if (!watch(static_cast<double>(y) / spec.height)) return PictureRead::unreadable;
        const int end = std::min(spec.height, y + at_once);
        const auto pixels = static_cast<std::size_t>(spec.width) * static_cast<std::size_t>(end - y);
        rows.resize(pixels * static_cast<std::size_t>(kept));
        const bool good = spec.tile_width > 0 ? input.read_image(frame, 0, 0, kept, OIIO::TypeDesc::UINT8, rows.data())
                                              : input.read_scanlines(frame, 0, spec.y + y, spec.y + end, 0, 0, kept,
                                                                     OIIO::TypeDesc::UINT8, rows.data());
        if (!good) {
            error = input.geterror();
            return PictureRead::unreadable;
        }
        put_byte_rows(rows.data(), static_cast<std::size_t>(kept), pixels, picture, y);
    }
    return PictureRead::done;
}

PictureRead read(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch, Picture& picture,
                 std::string& error) {
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
    const bool has_opacity = kept == 2 || kept == 4;
    const bool becomes_straight = has_opacity && is_multiplied(spec, meaning);
    const Coding coding =
        rows.eight_bits && !becomes_straight && fills_display_window(spec) ? coding_of(meaning) : Coding::numbers;
    if (!watch.admits(spec.width, spec.height, bytes_a_pixel(coding))) return PictureRead::unreadable;
    if (coding != Coding::numbers) return read_bytes(*input, frame, kept, coding, watch, picture, error);
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
    if (becomes_straight) to_straight(picture);
    picture = in_display_window(std::move(picture), spec);
    return PictureRead::done;
}

PictureRead frames(const std::string& path, PictureFrames& found, std::string& error) {
    return is_moving(path) ? read_moving_frames(path, found, error) : PictureRead::done;
}

bool write_to_memory(OIIO::ImageOutput& output, const std::string& name, const OIIO::ImageSpec& spec,
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

bool encode_exr(const std::vector<WrittenChannel>& channels, bool straight, std::string& bytes, std::string& error) {
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
    if (straight) spec.attribute(straight_mark, 1);
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

// By its own library: the large one writes it with losses.
bool encode_webp(const EncodedPicture& picture, std::string& bytes, std::string& error) {
    const auto* numbers = static_cast<const std::uint8_t*>(picture.numbers);
    const int row = picture.width * picture.channels;
    std::uint8_t* made = nullptr;
    const std::size_t size = picture.channels == 4
                                 ? WebPEncodeLosslessRGBA(numbers, picture.width, picture.height, row, &made)
                                 : WebPEncodeLosslessRGB(numbers, picture.width, picture.height, row, &made);
    if (size == 0) {
        error = "WebP holds up to 16383 pixels a side";
        return false;
    }
    bytes.assign(reinterpret_cast<const char*>(made), size);
    WebPFree(made);
    return true;
}

bool encode(const EncodedPicture& picture, std::string& bytes, std::string& error) {
    if (std::string_view(picture.format) == "webp") return encode_webp(picture, bytes, error);
    const auto output = OIIO::ImageOutput::create(picture.format);
    if (!output) {
        error = OIIO::geterror();
        return false;
    }
    const OIIO::TypeDesc type = picture.bits == 8    ? OIIO::TypeDesc::UINT8
                                : picture.bits == 16 ? OIIO::TypeDesc::UINT16
                                                     : OIIO::TypeDesc::FLOAT;
    OIIO::ImageSpec spec(picture.width, picture.height, picture.channels, type);
    if (picture.straight) spec.attribute("oiio:UnassociatedAlpha", 1);
    if (picture.srgb) spec.attribute("oiio:ColorSpace", "sRGB");
    spec.attribute("compression", picture.compression);
    // Not by the library's own file in memory: of these formats some read back what they have written.
    const int file = memfd_create("picture", MFD_CLOEXEC);
    const std::string path = "/proc/self/fd/" + std::to_string(file);
    const bool done =
        file >= 0 && output->open(path, spec) && output->write_image(type, picture.numbers) && output->close();
    if (!done) error = file >= 0 ? output->geterror() : "there is not enough memory";
    if (done) {
        std::ifstream written(path, std::ios::binary);
        bytes.assign(std::istreambuf_iterator<char>(written), std::istreambuf_iterator<char>());
    }
    if (file >= 0) ::close(file);
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

extern "C" lacquer::PictureRead lacquer_read_picture(const std::string& path, lacquer::PictureMeaning meaning,
                                                     int frame, const lacquer::ReadWatch& watch,
                                                     lacquer::Picture& picture, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::read(path, meaning, frame, watch, picture, error); },
                            lacquer::PictureRead::unreadable, error);
}

extern "C" lacquer::PictureRead lacquer_open_sequence(const std::string& path,
                                                      std::shared_ptr<lacquer::PictureSequence>& opened,
                                                      std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::open_moving(path, opened, error); }, lacquer::PictureRead::unreadable,
                            error);
}

extern "C" bool lacquer_encode_picture(const lacquer::EncodedPicture& picture, std::string& bytes,
                                       std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::encode(picture, bytes, error); }, false, error);
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
                                                   lacquer::PictureMeaning meaning, const lacquer::ReadWatch& watch,
                                                   lacquer::Picture& picture, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::read_one_layer(path, layer, meaning, watch, picture, error); },
                            lacquer::PictureRead::unreadable, error);
}

extern "C" bool lacquer_encode_exr(const std::vector<lacquer::WrittenChannel>& channels, bool straight,
                                   std::string& bytes, std::string& error) noexcept {
    return lacquer::guarded([&] { return lacquer::encode_exr(channels, straight, bytes, error); }, false, error);
}
