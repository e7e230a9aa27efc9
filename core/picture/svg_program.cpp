// lacquer-svg: draws an SVG that comes on its standard input, in a process of its own, so that whoever asks can call it
// off and is not hurt by what a drawing does. What it writes is told in svg_process.h.
#include <librsvg/rsvg.h>
#include <sys/prctl.h>
#include <unistd.h>

#include <algorithm>
#include <cmath>
#include <csignal>
#include <cstdint>
#include <cstdlib>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "core/picture/confine.h"
#include "core/picture/picture.h"
#include "core/picture/svg_process.h"

namespace {

using lacquer::SvgAnswer;

struct Unref {
    void operator()(RsvgHandle* handle) const { g_object_unref(handle); }
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
    void operator()(cairo_t* context) const { cairo_destroy(context); }
    void operator()(GError* problem) const { g_error_free(problem); }
};
template <class T>
using Held = std::unique_ptr<T, Unref>;

bool put(const void* bytes, std::size_t size) {
    const char* from = static_cast<const char*>(bytes);
    while (size > 0) {
        const ssize_t written = ::write(STDOUT_FILENO, from, size);
        if (written <= 0) return false;
        from += written;
        size -= static_cast<std::size_t>(written);
    }
    return true;
}

int refuse(SvgAnswer::Kind kind, const std::string& why) {
    const SvgAnswer answer{kind, 0, 0, static_cast<std::uint32_t>(why.size())};
    put(&answer, sizeof(answer));
    put(why.data(), why.size());
    return 0;
}

int refuse(GError* problem) {
    const Held<GError> held(problem);
    return refuse(SvgAnswer::unreadable, held ? held->message : "it isn't a drawing");
}

// Its own size in pixels, else that of what it shows.
std::pair<double, double> size_of(RsvgHandle* handle) {
    constexpr double usual_side = 1024;
    constexpr double largest_side = 8192;
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

// Fonts, what says which they are, and the libraries that draw them; nothing of the user's but those.
std::vector<std::string> readable() {
    std::vector<std::string> folders = {
        "/usr/share",       "/usr/local/share/fonts", "/usr/lib", "/lib", "/lib64", "/etc/fonts",
        "/etc/ld.so.cache", "/var/cache/fontconfig"};
    if (const char* home = std::getenv("HOME"); home != nullptr && *home != '\0') {
        for (const char* own : {"/.fonts", "/.local/share/fonts", "/.config/fontconfig", "/.cache/fontconfig"})
            folders.push_back(std::string(home) + own);
    }
    return folders;
}

void put_walls_around_this() {
    // Whoever asked may be gone before it could say so.
    (void)prctl(PR_SET_PDEATHSIG, SIGKILL);
    lacquer::Allowed allowed;
    allowed.readable = readable();
    allowed.processor_seconds = 2 * lacquer::svg_patience_seconds;
    (void)lacquer::Confinement(true).put_around_this(allowed);
}

}  // namespace

int main() {
    put_walls_around_this();
    std::string text;
    std::string block(std::size_t{64} * 1024, '\0');
    for (ssize_t count = 0; (count = ::read(STDIN_FILENO, block.data(), block.size())) > 0;)
        text.append(block, 0, static_cast<std::size_t>(count));
    GError* problem = nullptr;
    // Without a place that it comes from, a drawing can ask for no other file.
    const Held<RsvgHandle> handle(
        rsvg_handle_new_from_data(reinterpret_cast<const guint8*>(text.data()), text.size(), &problem));
    if (!handle) return refuse(problem);
    const auto [width, height] = size_of(handle.get());
    if (!lacquer::is_drawable_size(static_cast<std::int64_t>(width), static_cast<std::int64_t>(height)))
        return refuse(SvgAnswer::too_large, "it is too large");
    const int w = static_cast<int>(width);
    const int h = static_cast<int>(height);
    const Held<cairo_surface_t> surface(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, w, h));
    const Held<cairo_t> context(cairo_create(surface.get()));
    const RsvgRectangle view{0, 0, width, height};
    if (rsvg_handle_render_document(handle.get(), context.get(), &view, &problem) == 0) return refuse(problem);
    cairo_surface_flush(surface.get());
    const unsigned char* rows = cairo_image_surface_get_data(surface.get());
    if (rows == nullptr) return refuse(SvgAnswer::too_large, "it is too large");
    const SvgAnswer answer{SvgAnswer::drawn, w, h, 0};
    bool good = put(&answer, sizeof(answer));
    for (int y = 0; y < h && good; ++y) {
        good = put(rows + static_cast<std::ptrdiff_t>(y) * cairo_image_surface_get_stride(surface.get()),
                   static_cast<std::size_t>(w) * 4);
    }
    return good ? 0 : 1;
}
