#include "core/ship/pictures/drawn_frames.h"

#include <algorithm>
#include <cmath>

#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer {

namespace {

// Of a finish in which nothing is drawn.
Image8 clear_pixel_image() {
    Image8 image{1, 1, {}};
    image.data.resize(4);
    std::fill(image.data.begin(), image.data.end(), std::uint8_t{0});
    return image;
}

class FrameDrawer {
public:
    FrameDrawer(const ShipMaterial& material, int width, int height) : renderer_(pool_) {
        request_.checked = material.request.checked;
        request_.finish_path = material.request.finish_path;
        request_.width = width;
        request_.height = height;
        request_.steps = {""};
        request_.seen = ViewStyle();
    }

    Result<Image8> at(double time, const Cancel& cancel) {
        request_.time = time;
        Result<Frame> frame = renderer_.render(request_, cancel);
        if (!frame) return frame.fault();
        if (frame->steps.empty()) return clear_pixel_image();
        return std::move(frame->steps.front().image);
    }

private:
    WorkerPool pool_;
    Renderer renderer_;
    RenderRequest request_;
};

int difference(const Image8& a, const Image8& b) {
    int largest = 0;
    for (std::size_t i = 0; i < std::min(a.data.size(), b.data.size()); ++i)
        largest = std::max(largest, std::abs(static_cast<int>(a.data[i]) - static_cast<int>(b.data[i])));
    return largest;
}

}  // namespace

Result<DrawnFrames> drawn_frames(const ShipMaterial& material, int longest_side, const Cancel& cancel) {
    const Finish& finish = material.finish();
    DrawnFrames frames;
    frames.rate = material.request.frame_rate;
    const int count = std::max(1, static_cast<int>(std::lround(finish.length * frames.rate)));
    if (count > most_shipped_frames) {
        return Fault{"ship.frames",
                     std::to_string(count) + " frames are more than one file should hold",
                     "make the finish shorter, or ship fewer frames a second",
                     {},
                     Severity::fault};
    }
    const double scale =
        std::min(1.0, static_cast<double>(longest_side) / std::max(finish.frame_width, finish.frame_height));
    FrameDrawer drawer(material, scaled_side(finish.frame_width, scale), scaled_side(finish.frame_height, scale));
    for (int k = 0; k <= count; ++k) {
        Result<Image8> image = drawer.at(k / frames.rate, cancel);
        if (!image) return image.fault();
        if (k < count) {
            frames.images.push_back(std::move(*image));
        } else {
            frames.loop_difference = difference(frames.images.front(), *image);
        }
    }
    return frames;
}

Result<Image8> drawn_still(const ShipMaterial& material, double time, const Cancel& cancel) {
    return FrameDrawer(material, 0, 0).at(time, cancel);
}

}  // namespace lacquer
