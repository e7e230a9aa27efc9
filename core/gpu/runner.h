// Drawing shaders without a window.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/gpu/glsl.h"
#include "core/lang/value.h"
#include "core/picture/sample.h"

namespace lacquer {

/// A drawn picture that stays with the driver until nobody holds it any more. It may be let go of on any thread.
class GpuPicture {
public:
    struct Bin;  ///< textures that nobody holds, to be deleted by the driver's own thread
    GpuPicture(unsigned texture, int width, int height, int channels, std::shared_ptr<Bin> bin)
        : texture_(texture), width_(width), height_(height), channels_(channels), bin_(std::move(bin)) {}
    ~GpuPicture();
    GpuPicture(const GpuPicture&) = delete;
    GpuPicture& operator=(const GpuPicture&) = delete;

    unsigned texture() const { return texture_; }
    int width() const { return width_; }
    int height() const { return height_; }
    int channels() const { return channels_; }

private:
    unsigned texture_;
    int width_;
    int height_;
    int channels_;
    std::shared_ptr<Bin> bin_;
};
using GpuPicturePtr = std::shared_ptr<const GpuPicture>;

/// What a shader is drawn with.
struct ShaderInputs {
    int width = 1;  ///< of the drawn grid, pixels
    int height = 1;
    std::vector<Value> uniforms;        ///< in the order of the shader's
    std::vector<PictureView> pictures;  ///< in the order of the shader's
    /// For each of `pictures` what it is a view of, where that stays between drawings, else null: while somebody holds
    /// it, it is handed to the driver only once. May be empty.
    std::vector<PicturePtr> lasting;
    /// For each of `pictures` one that the driver has already, to be read in its place; else null. May be empty.
    std::vector<GpuPicturePtr> kept;
    /// Pictures filter and wrap as their views say, by the driver's own samplers; else each reading takes one pixel.
    bool filters = false;
};

/// What has passed between the program and the driver since it was opened.
struct DriverTraffic {
    std::int64_t drawings = 0;
    std::int64_t waits = 0;       ///< for the driver with nothing left for it to do
    std::int64_t uploads = 0;     ///< pictures handed over
    std::int64_t bytes_up = 0;    ///< of those
    std::int64_t bytes_down = 0;  ///< of pictures read back
    friend bool operator==(const DriverTraffic&, const DriverTraffic&) = default;
};

/// An offscreen GL context in a thread of its own; one call at a time. What hands out numbers comes back when they are
/// there; what leaves its pictures with the driver when nothing but its own drawing is still to be done.
class ShaderRunner {
public:
    /// Opens GL 3.3 on a surfaceless EGL display. Fault `gpu.none` if there is none.
    static Result<std::unique_ptr<ShaderRunner>> open();
    ~ShaderRunner();
    ShaderRunner(const ShaderRunner&) = delete;
    ShaderRunner& operator=(const ShaderRunner&) = delete;

    /// What draws, in the driver's words.
    const std::string& name() const;
    /// True where a graphics processor draws and not this one pretending to be one.
    bool is_hardware() const;

    /// Draws the shader; output k goes to `outputs[k]`, of the grid's size, first channels first. Faults: `gpu.shader`
    /// (with the driver's words), `gpu.size` for what is too wide or high for it, `gpu.lost`.
    Result<Done> draw(const Shader& shader, const ShaderInputs& inputs, std::span<Picture> outputs);

    /// Draws the shader, whose outputs stay with the driver, of so many channels each: 1, 2 or 4. Faults as above.
    Result<std::vector<GpuPicturePtr>> draw_and_keep(const Shader& shader, const ShaderInputs& inputs,
                                                     const std::vector<int>& channels);
    /// Gives such a picture copies at half its size, a quarter and so on, as `smaller_copies` makes them, each pixel
    /// the mean of those that it covers. Faults: `gpu.shader`, `gpu.lost`.
    Result<Done> add_smaller_copies(const GpuPicture& picture);
    /// What such a picture holds. Faults: `gpu.lost`.
    Result<Picture> fetch(const GpuPicture& picture);
    DriverTraffic traffic() const;

private:
    struct Thread;
    explicit ShaderRunner(std::unique_ptr<Thread> thread);
    std::unique_ptr<Thread> thread_;
};

}  // namespace lacquer
