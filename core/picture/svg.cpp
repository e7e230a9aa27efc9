#include "core/picture/svg.h"

#include <librsvg/rsvg.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

constexpr double usual_side = 1024;
constexpr double largest_side = 8192;

struct Unref {
    void operator()(RsvgHandle* handle) const { g_object_unref(handle); }
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
    void operator()(cairo_t* context) const { cairo_destroy(context); }
    void operator()(GError* problem) const { g_error_free(problem); }
};
template <class T>
using Held = std::unique_ptr<T, Unref>;

std::string words_of(GError* problem) {
    const Held<GError> held(problem);
    return held ? held->message : "it is no drawing";
}

// Its own size in pixels, else that of what it shows.
std::pair<double, double> size_of(RsvgHandle* handle) {
    double width = 0;
    double height = 0;
    if (rsvg_handle_get_intrinsic_size_in_pixels(handle, &width, &height) == 0 || !(width >= 1) || !(height >= 1)) {
        gboolean has_box = 0;
        RsvgRectangle box{};
        rsvg_handle_get_intrinsic_dimensions(handle, nullptr, nullptr, nullptr, nullptr, &has_box, &box);
        const double shape = has_box != 0 && box.width > 0 && box.height > 0 ? box.height / box.width : 1;
        width = usual_side;
        height = usual_side * std::clamp(shape, 1.0 / 64, 64.0);
    }
    const double shrink = std::min(1.0, largest_side / std::max(width, height));
    return {std::max(1.0, std::floor(width * shrink)), std::max(1.0, std::floor(height * shrink))};
}

}  // namespace

PictureRead read_svg(const std::string& path, PictureMeaning meaning, Picture& picture, std::string& error) {
    GError* problem = nullptr;
    const Held<RsvgHandle> handle(rsvg_handle_new_from_file(path.c_str(), &problem));
    if (!handle) {
        error = words_of(problem);
        return PictureRead::unreadable;
    }
    const auto [width, height] = size_of(handle.get());
    if (!is_drawable_size(static_cast<std::int64_t>(width), static_cast<std::int64_t>(height))) {
        error = "it is too large";
        return PictureRead::too_large;
    }
    const int w = static_cast<int>(width);
    const int h = static_cast<int>(height);
    const Held<cairo_surface_t> surface(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, w, h));
    const Held<cairo_t> context(cairo_create(surface.get()));
    const RsvgRectangle view{0, 0, width, height};
    if (rsvg_handle_render_document(handle.get(), context.get(), &view, &problem) == 0) {
        error = words_of(problem);
        return PictureRead::unreadable;
    }
    cairo_surface_flush(surface.get());
    const unsigned char* rows = cairo_image_surface_get_data(surface.get());
    const int stride = cairo_image_surface_get_stride(surface.get());
    if (rows == nullptr) {
        error = "it is too large";
        return PictureRead::too_large;
    }
    picture = Picture(w, h, 4);
    for (int y = 0; y < h; ++y) {
        const auto* row = reinterpret_cast<const std::uint32_t*>(rows + static_cast<std::ptrdiff_t>(y) * stride);
        for (int x = 0; x < w; ++x) {
            const std::uint32_t pixel = row[x];
            const auto part = [&](unsigned shift) { return static_cast<double>(pixel >> shift & 255U) / 255; };
            const double opacity = part(24);
            float* to = picture.at(x, y);
            for (unsigned c = 0; c < 3; ++c) {
                const double straight = opacity > 0 ? std::min(1.0, part(16 - 8 * c) / opacity) : 0;
                to[c] = static_cast<float>(meaning == PictureMeaning::data ? straight : srgb_decode(straight));
            }
            to[3] = static_cast<float>(opacity);
        }
    }
    return PictureRead::done;
}

}  // namespace lacquer
