// The module itself: OpenImageIO behind two plain functions. No exception leaves it.
#include "core/picture/files_module.h"

#include <OpenImageIO/filesystem.h>
#include <OpenImageIO/imageio.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <exception>
#include <fstream>
#include <memory>
#include <string_view>

#include "core/picture/moving.h"
#include "core/picture/reading.h"
#include "core/picture/svg.h"
#include "core/picture/transfer.h"

namespace lacquer {

namespace {

constexpr int most_channels = 256;
constexpr int most_parts = 64;
constexpr int rows_at_once = 64;

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

// What a file gives is checked before any of it is held in memory.
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
    return PictureRead::done;
}

// The picture within its display window: what lies beyond is cut off, what it does not fill is clear.
Picture in_display_window(Picture data, const OIIO::ImageSpec& spec) {
    const int left = spec.x - spec.full_x;
    const int top = spec.y - spec.full_y;
    if (left == 0 && top == 0 && data.width == spec.full_width && data.height == spec.full_height) return data;
    Picture whole(spec.full_width, spec.full_height, 4);
    std::fill(whole.data.begin(), whole.data.end(), 0.0F);
    const int first = std::max(0, left);
    const int count = std::min(whole.width, left + data.width) - first;
    for (int y = std::max(0, top); count > 0 && y < std::min(whole.height, top + data.height); ++y)
        std::copy_n(data.at(first - left, y - top), count * 4, whole.at(first, y));
    return whole;
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

struct FoundLayer {
    PictureLayer layer;
    int part = 0;
    std::vector<int> channels;  // numbers within the part
};

std::string last_name(const std::string& channel) { return channel.substr(channel.rfind('.') + 1); }

// Colours and coordinates in their usual order, whatever it is in the file.
int rank_of(const std::string& channel) {
    static const std::string order = "RGBXYZUVA";
    std::string name = last_name(channel);
    if (name.size() != 1) return 100;
    const auto at = order.find(static_cast<char>(std::toupper(static_cast<unsigned char>(name[0]))));
    return at == std::string::npos ? 100 : static_cast<int>(at);
}

// The layer that a channel belongs to: what stands before its last point; depth and ids stand alone.
std::string layer_of(const std::string& channel, const std::string& part_name) {
    const std::size_t point = channel.rfind('.');
    if (point != std::string::npos) return channel.substr(0, point);
    const bool plain = rank_of(channel) < 3 || channel == "A" || channel == "a" || channel == "Y";
    if (!part_name.empty()) return part_name;
    return plain ? std::string() : channel;
}

PictureRead find_layers(const std::string& path, std::vector<FoundLayer>& found, std::string& error) {
    std::unique_ptr<OIIO::ImageInput> input;
    if (const PictureRead opened = open_at(path, 0, input, error); opened != PictureRead::done) return opened;
    for (int part = 0; part < most_parts && (part == 0 || input->seek_subimage(part, 0)); ++part) {
        const OIIO::ImageSpec& spec = input->spec();
        if (spec.nchannels < 1 || spec.nchannels > most_channels) continue;
        // The first part of most files is called something that says nothing; a second shows that names matter.
        const bool several = part > 0 || input->seek_subimage(1, 0);
        if (!input->seek_subimage(part, 0)) break;
        const std::string part_name = several ? spec.get_string_attribute("oiio:subimagename").c_str() : std::string();
        for (int c = 0; c < spec.nchannels; ++c) {
            const std::string& channel = spec.channelnames[static_cast<std::size_t>(c)];
            const std::string name = layer_of(channel, part_name);
            auto own = std::find_if(found.begin(), found.end(),
                                    [&](const FoundLayer& f) { return f.part == part && f.layer.name == name; });
            if (own == found.end()) {
                found.push_back({{name, {}, spec.full_width, spec.full_height}, part, {}});
                own = found.end() - 1;
            }
            own->channels.push_back(c);
        }
        for (FoundLayer& layer : found) {
            if (layer.part != part) continue;
            const auto full_name = [&](int c) { return spec.channelnames[static_cast<std::size_t>(c)]; };
            std::stable_sort(layer.channels.begin(), layer.channels.end(),
                             [&](int a, int b) { return rank_of(full_name(a)) < rank_of(full_name(b)); });
            for (const int c : layer.channels) layer.layer.channels.push_back(full_name(c));
        }
    }
    return PictureRead::done;
}

PictureRead layers(const std::string& path, std::vector<PictureLayer>& named, std::string& error) {
    std::vector<FoundLayer> found;
    const PictureRead done = find_layers(path, found, error);
    for (FoundLayer& layer : found) named.push_back(std::move(layer.layer));
    return done;
}

// Some rows of one channel. Whole numbers such as ids stay what they are; the library's own conversion would make them
// shares of the largest.
bool read_rows(OIIO::ImageInput& input, int part, int channel, int y, int end, std::vector<float>& to) {
    const OIIO::ImageSpec& spec = input.spec();
    const OIIO::TypeDesc type =
        spec.channelformat(channel) == OIIO::TypeDesc::UINT32 ? OIIO::TypeDesc::UINT32 : OIIO::TypeDesc::FLOAT;
    std::vector<std::uint32_t> whole(type == OIIO::TypeDesc::UINT32 ? to.size() : 0);
    void* into = whole.empty() ? static_cast<void*>(to.data()) : whole.data();
    const bool done = spec.tile_width > 0 ? input.read_image(part, 0, channel, channel + 1, type, into)
                                          : input.read_scanlines(part, 0, spec.y + y, spec.y + end, 0, channel,
                                                                 channel + 1, type, into);
    if (done)
        std::transform(whole.begin(), whole.end(), to.begin(), [](std::uint32_t n) { return static_cast<float>(n); });
    return done;
}

// One channel into one of a picture's, a few rows at a time.
bool read_channel(OIIO::ImageInput& input, int part, int channel, std::size_t into, const ReadWatch& watch,
                  Picture& picture) {
    const OIIO::ImageSpec& spec = input.spec();
    const int at_once = spec.tile_width > 0 ? spec.height : rows_at_once;
    std::vector<float> rows;
    for (int y = 0; y < spec.height; y += at_once) {
        const int end = std::min(spec.height, y + at_once);
        rows.resize(static_cast<std::size_t>(spec.width) * static_cast<std::size_t>(end - y));
        if (!watch(static_cast<double>(y) / spec.height) || !read_rows(input, part, channel, y, end, rows))
            return false;
        float* to = picture.at(0, y) + into;
        for (std::size_t i = 0; i < rows.size(); ++i) to[i * 4] = rows[i];
    }
    return true;
}

PictureRead read_one_layer(const std::string& path, const std::string& name, const ReadWatch& watch, Picture& picture,
                           std::string& error) {
    std::vector<FoundLayer> found;
    if (const PictureRead done = find_layers(path, found, error); done != PictureRead::done) return done;
    const auto own =
        std::find_if(found.begin(), found.end(), [&](const FoundLayer& f) { return f.layer.name == name; });
    if (own == found.end()) return PictureRead::done;
    std::unique_ptr<OIIO::ImageInput> input;
    if (const PictureRead opened = open_at(path, own->part, input, error); opened != PictureRead::done) return opened;
    const OIIO::ImageSpec spec = input->spec();
    picture = Picture(spec.width, spec.height, 4);
    for (std::size_t i = 0; i < picture.data.size(); i += 4) {
        for (std::size_t c = 0; c < 3; ++c) picture.data[i + c] = 0;
        picture.data[i + 3] = 1;
    }
    std::size_t to = 0;
    bool has_opacity = false;
    for (std::size_t k = 0; k < own->channels.size(); ++k) {
        const int c = own->channels[k];
        const std::string last = last_name(own->layer.channels[k]);
        const bool opacity = (last == "A" || last == "a") && k > 0;
        if (!opacity && to == 3) continue;
        const double channels = static_cast<double>(own->channels.size());
        const auto of_all = [&, k](double share) { return watch((static_cast<double>(k) + share) / channels); };
        if (!read_channel(*input, own->part, c, opacity ? 3 : to++, of_all, picture)) {
            error = input->geterror();
            picture = Picture();
            return PictureRead::unreadable;
        }
        has_opacity = has_opacity || opacity;
    }
    const bool whole_numbers = !spec.format.is_floating_point();
    if (has_opacity && !whole_numbers && spec.get_int_attribute("oiio:UnassociatedAlpha") == 0) to_straight(picture);
    picture = in_display_window(std::move(picture), spec);
    return PictureRead::done;
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
    return lacquer::guarded([&] { return lacquer::layers(path, layers, error); }, lacquer::PictureRead::unreadable,
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
