// One frame: a checked finish at a moment, drawn pass by pass.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/cpu/kernels.h"
#include "core/flow/kept_pictures.h"
#include "core/gpu/runner.h"
#include "core/render/frame.h"
#include "core/render/frame_pictures.h"
#include "core/render/grounds.h"
#include "core/render/stores.h"

namespace lacquer {

struct NativeWay;
class FlowStore;

/// Drawing by shaders, from frame to frame.
struct ShaderDrawing {
    std::unique_ptr<ShaderRunner> runner;  ///< null where this processor draws
    std::set<StructuralHash> refused;      ///< passes whose shaders the driver did not take
};

/// What a frame is drawn with.
struct FrameTools {
    WorkerPool& pool;
    const KernelSet& kernels;
    RenderStores& stores;
    GroundStore& grounds;
    ShaderDrawing& shaders;
    FlowStore& ticks;
    std::shared_ptr<const Play> play;
};

/// The drawn grid and the frame that its coordinates speak of, pixels.
struct FrameSize {
    int width = 1;
    int height = 1;
    int frame_width = 1;
    int frame_height = 1;
};

/// What ticks have left for a frame or for the next tick.
struct TickPictures {
    double tick = 0;        ///< since all began
    double length = 0;      ///< seconds
    double part = 0;        ///< of the present tick that has passed, 0..1
    FlowPictures pictures;  ///< by their own names, see lang/past.h
};

/// The sizes that a request means.
FrameSize frame_size(const RenderRequest& request);

/// The driver has lost a picture: `gpu.lost`.
Fault lost_with_driver();

/// For each pass, the stored steps that it is the last to read.
std::vector<std::vector<std::string>> read_last_by(const Plan& plan);

/// Why a request of this size cannot be drawn: `render.size`, `render.point`.
std::optional<Fault> fault_of_size(const RenderRequest& request, const FrameSize& size);

/// Draws one frame, once.
class FrameRun {
public:
    FrameRun(const FrameTools& tools, const RenderRequest& request, const FrameSize& size, DriveValues values,
             const Cancel& cancel);

    /// What it finds of ticks; to be said before drawing.
    void set_ticks(TickPictures ticks) { ticks_ = std::move(ticks); }

    /// All passes. Faults: `render.memory` before anything is drawn, `render.cancelled`, `gpu.lost` if what lay with
    /// the driver is needed and gone.
    Result<Frame> drawn(const Plan& plan);

    /// One tick: what the passes store of these steps, here or with the driver. Faults as above.
    Result<FlowPictures> drawn_tick(const Plan& plan, const std::vector<std::string>& steps);

    /// What was noticed in drawing ticks.
    Faults take_notices() { return std::move(frame_.notices); }

private:
    // Of shaders, see frame_run_shaders.cpp.
    bool draws_by_shaders() const;
    bool is_refused(const StructuralHash& key) const;
    bool store_by_shaders(const Pass& pass, const StructuralHash& key);
    Result<Done> draw_by_shaders(const Pass& pass, const StructuralHash& key, std::vector<Picture>& outputs);
    ShaderInputs shader_inputs(const Pass& pass, const Shader& shader);
    void give_up_shader(const Pass& pass, const StructuralHash& key, Fault notice);

    void put_ground(const std::string& name);
    bool draw(const Pass& pass, bool is_last);
    void draw_pass(const Pass& pass, std::vector<Picture>& outputs, bool at_points);
    bool is_seen_by_rows(const Pass& pass) const;
    void draw_seen(const Pass& pass);
    void hand_out(const Pass& pass, const std::string& name, Picture values);

    // A pass ready to be drawn by this processor.
    struct Prepared {
        std::shared_ptr<const Program> program;
        std::vector<float> uniforms;
        std::vector<PictureView> pictures;
        RunInputs inputs() const;
        int width = 1;
        int height = 1;
        FrameSize size;
    };
    Prepared prepared(const Pass& pass, const StructuralHash& key);
    Value uniform_value(const std::string& name) const;
    void find_layers(const Plan& plan);
    // Of what is done natively, see frame_run_native.cpp.
    void find_native(const Plan& plan);
    bool is_spared(const Pass& pass) const;
    bool store_natively(const Pass& pass);
    const NativeWay* native_way_of(const Pass& pass) const;
    float native_argument(const NativePass& native);
    // See frame_run_memory.cpp.
    std::int64_t most_bytes(const Plan& plan, bool hands_out) const;
    std::optional<Fault> fault_of_memory(std::int64_t bytes) const;
    std::optional<Fault> claim(const Plan& plan, bool hands_out);
    PicturePtr ground_picture(const std::string& name);
    const FlowPicture* tick_left(const std::string& name) const;
    PicturePtr tick_picture(const std::string& name) const;
    PicturePtr without_ground(const NamedPicture& named, Fault notice);

    FrameTools tools_;
    const RenderRequest& request_;
    FrameSize size_;
    const Cancel& cancel_;
    FramePictures pictures_;
    MemoryShare drawn_here_;
    TickPictures ticks_;
    SceneLayerSet scene_layers_;  // all that is read of scenes, so that each is cast once
    std::map<std::string, DropLayers, std::less<>> drop_layers_;  // the same of droplets
    Frame frame_;
    std::set<std::string, std::less<>> native_;   // stored steps that are done natively
    std::set<std::string, std::less<>> spared_;   // those that nothing needs then
    std::set<std::string, std::less<>> resting_;  // native ones that are 0 everywhere
    std::set<StructuralHash> too_large_;          // passes whose pictures are larger than the driver takes
    bool whole_ = true;                           // not called off so far
    bool lost_ = false;                           // something that lay with the driver
};

}  // namespace lacquer
