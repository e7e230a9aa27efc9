// Any bytes as a picture file: what reads PNG here, under the sanitizers, and every library in a process of its own,
// whose end is a fault and no more.
#include <unistd.h>

#include <cmath>
#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>

#include "core/picture/coded.h"
#include "core/picture/files.h"
#include "core/picture/png.h"

namespace {

using namespace lacquer;

// Libraries go by the name as well as by what the file begins with.
const char* ending_of(std::string_view bytes) {
    if (bytes.starts_with("GIF")) return "gif";
    if (bytes.starts_with("II*") || bytes.starts_with("MM")) return "tif";
    if (bytes.starts_with("\x76\x2f\x31\x01")) return "exr";
    if (bytes.starts_with("RIFF")) return "webp";
    if (bytes.starts_with("\xff\xd8")) return "jpg";
    if (bytes.starts_with("BM")) return "bmp";
    if (bytes.starts_with("#?")) return "hdr";
    if (bytes.starts_with("<")) return "svg";
    return bytes.starts_with("\x89") ? "png" : "tga";
}

void check(bool holds) {
    if (!holds) std::abort();
}

template <class Value>
bool is_told(const Result<Value>& read) {
    check(read || (!read.fault().message.empty() && read.fault().id != "base.unexpected"));
    return static_cast<bool>(read);
}

void check(const Picture& picture) {
    check(is_drawable_size(picture.width, picture.height) && bytes_held(picture) > 0);
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    const std::string path = "/dev/shm/lacquer-fuzz-" + std::to_string(::getpid()) + "." + ending_of(bytes);
    std::FILE* file = std::fopen(path.c_str(), "wb");
    if (file == nullptr) return 0;
    const bool written = std::fwrite(data, 1, size, file) == size;
    if (std::fclose(file) != 0 || !written) return 0;
    if (is_still_png(path)) {
        Picture picture;
        std::string error;
        const PictureRead read =
            read_png(path, PictureMeaning::colour, ReadWatch([](double) { return true; }), picture, error);
        check(read == PictureRead::done || !error.empty() || read == PictureRead::too_large);
        if (read == PictureRead::done) check(picture);
    }
    const Result<PictureFrames> frames = picture_frames(path);
    if (is_told(frames)) check(frames->count >= 1);
    const Result<Picture> picture = read_picture(path, PictureMeaning::colour, frames ? frames->count - 1 : 0);
    if (is_told(picture)) check(*picture);
    const Result<std::vector<PictureLayer>> layers = picture_layers(path);
    if (is_told(layers) && !layers->empty()) {
        const Result<Picture> layer = read_layer(path, layers->back().name);
        if (is_told(layer)) check(*layer);
    }
    std::remove(path.c_str());
    return 0;
}
