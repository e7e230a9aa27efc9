#include "core/picture/png.h"

#include <spng.h>

#include <array>
#include <cstring>
#include <memory>

#include "core/base/file.h"
#include "core/picture/moving_format.h"
#include "core/picture/rows.h"

namespace lacquer {

namespace {

constexpr std::size_t longest_file = std::size_t{1} * 1024 * 1024 * 1024;
constexpr std::size_t longest_chunk = std::size_t{32} * 1024 * 1024;
constexpr int rows_between_looks = 64;
constexpr std::size_t all_chunks = std::size_t{64} * 1024 * 1024;

struct Free {
    void operator()(spng_ctx* context) const { spng_ctx_free(context); }
};
using Context = std::unique_ptr<spng_ctx, Free>;

PictureRead failed(int code, std::string& error) {
    error = spng_strerror(code);
    return code == SPNG_EUSER_WIDTH || code == SPNG_EUSER_HEIGHT ? PictureRead::too_large : PictureRead::unreadable;
}

}  // namespace

bool is_still_png(const std::string& path) { return is_png(path) && moving_format(path) == nullptr; }

PictureRead read_png(const std::string& path, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error) {
    const Result<std::string> file = read_whole_file(path, longest_file);
    if (!file) {
        error = file.fault().message;
        return PictureRead::unreadable;
    }
    const Context context(spng_ctx_new(0));
    if (context == nullptr) {
        error = "there is not enough memory";
        return PictureRead::unreadable;
    }
    spng_set_image_limits(context.get(), max_picture_side, max_picture_side);
    spng_set_chunk_limits(context.get(), longest_chunk, all_chunks);
    spng_set_png_buffer(context.get(), file->data(), file->size());
    spng_ihdr head{};
    if (const int code = spng_get_ihdr(context.get(), &head); code != 0) return failed(code, error);
    if (!is_drawable_size(head.width, head.height)) {
        error = std::to_string(head.width) + " x " + std::to_string(head.height);
        return PictureRead::too_large;
    }
    const bool wide = head.bit_depth == 16;
    const int w = static_cast<int>(head.width);
    const int h = static_cast<int>(head.height);
    if (!watch.admits(w, h, bytes_a_pixel(wide ? Coding::numbers : coding_of(meaning)))) return PictureRead::unreadable;
    const Coding coding = wide ? Coding::numbers : coding_of(meaning);
    Picture made = coding == Coding::numbers ? Picture(w, h, 4) : Picture::of_bytes(w, h, coding);
    Rows rows;
    rows.meaning = meaning;
    rows.eight_bits = !wide;
    const auto in_row = static_cast<std::size_t>(w) * 4;
    std::vector<std::uint8_t> narrow(wide ? 0 : in_row);
    std::vector<std::uint16_t> broad(wide ? in_row : 0);
    rows.channels.resize(in_row);
    const auto put_row = [&](const void* from, int y) {
        if (coding != Coding::numbers)
            return put_byte_rows(static_cast<const std::uint8_t*>(from), 4, static_cast<std::size_t>(w), made, y);
        if (wide) std::memcpy(broad.data(), from, in_row * 2);
        if (!wide) std::memcpy(narrow.data(), from, in_row);
        for (std::size_t i = 0; i < in_row; ++i)
            rows.channels[i] = wide ? static_cast<float>(broad[i]) / 65535.0F : static_cast<float>(narrow[i]) / 255.0F;
        put_rows(rows, made, y);
    };
    const std::size_t row_bytes = wide ? in_row * 2 : in_row;
    const int format = wide ? SPNG_FMT_RGBA16 : SPNG_FMT_RGBA8;
    if (!watch(0)) return PictureRead::unreadable;
    if (head.interlace_method != 0) {
        // Its rows come several times over, so all of them are held until the last.
        std::vector<std::uint8_t> all(row_bytes * static_cast<std::size_t>(h));
        if (const int code = spng_decode_image(context.get(), all.data(), all.size(), format, SPNG_DECODE_TRNS);
            code != 0)
            return failed(code, error);
        for (int y = 0; y < h; ++y) put_row(all.data() + row_bytes * static_cast<std::size_t>(y), y);
    } else {
        const int begun =
            spng_decode_image(context.get(), nullptr, 0, format, SPNG_DECODE_TRNS | SPNG_DECODE_PROGRESSIVE);
        if (begun != 0) return failed(begun, error);
        std::vector<std::uint8_t> row(row_bytes);
        for (int y = 0, done = 0; done != SPNG_EOI; ++y) {
            if (y % rows_between_looks == 0 && !watch(static_cast<double>(y) / h)) return PictureRead::unreadable;
            done = spng_decode_row(context.get(), row.data(), row.size());
            if (done != 0 && done != SPNG_EOI) return failed(done, error);
            put_row(row.data(), y);
        }
    }
    if (const int end = spng_decode_chunks(context.get()); end != 0) return failed(end, error);
    picture = std::move(made);
    return PictureRead::done;
}

std::string png_of(const PngShape& shape, const void* numbers, std::size_t bytes, std::string& error) {
    const Context context(spng_ctx_new(SPNG_CTX_ENCODER));
    if (context == nullptr) {
        error = "there is not enough memory";
        return {};
    }
    spng_set_option(context.get(), SPNG_ENCODE_TO_BUFFER, 1);
    spng_ihdr head{};
    head.width = static_cast<std::uint32_t>(shape.width);
    head.height = static_cast<std::uint32_t>(shape.height);
    head.bit_depth = static_cast<std::uint8_t>(shape.bits);
    head.color_type = shape.channels == 1   ? SPNG_COLOR_TYPE_GRAYSCALE
                      : shape.channels == 3 ? SPNG_COLOR_TYPE_TRUECOLOR
                                            : SPNG_COLOR_TYPE_TRUECOLOR_ALPHA;
    int code = spng_set_ihdr(context.get(), &head);
    if (code == 0 && shape.srgb) code = spng_set_srgb(context.get(), 0);
    if (code == 0) code = spng_encode_image(context.get(), numbers, bytes, SPNG_FMT_PNG, SPNG_ENCODE_FINALIZE);
    std::size_t length = 0;
    int got = 0;
    const std::unique_ptr<void, decltype(&std::free)> buffer(
        code == 0 ? spng_get_png_buffer(context.get(), &length, &got) : nullptr, &std::free);
    if (buffer == nullptr) {
        error = spng_strerror(code != 0 ? code : got);
        return {};
    }
    return {static_cast<const char*>(buffer.get()), length};
}

Result<std::string> png_bytes(const Image8& image) {
    std::string error;
    std::string bytes = png_of({image.width, image.height, 4, 8, true}, image.data.data(), image.data.size(), error);
    if (!bytes.empty()) return bytes;
    return Fault{"picture.unwritable", "the picture cannot be written: " + error, "", {}, Severity::fault};
}

}  // namespace lacquer
