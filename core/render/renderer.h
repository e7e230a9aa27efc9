// One frame: a checked finish at a moment, drawn.
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
#include "core/cpu/program.h"
#include "core/finish/checked.h"
#include "core/finish/play.h"
#include "core/gpu/glsl.h"
#include "core/gpu/runner.h"
#include "core/plan/plan.h"
#include "core/render/grounds.h"

namespace lacquer {

/// What draws: this processor, or the graphics processor by GL; `automatic` takes the latter if it is a real one.
enum class Backend { cpu, gpu, automatic };

/// The backend called "cpu", "gpu" or "auto".
std::optional<Backend> backend_named(std::string_view name);

/// What to draw.
struct RenderRequest {
    std::shared_ptr<const CheckedFinish> checked;
    std::string finish_path;  ///< where the finish lies, for its pictures; may be empty
    double time = 0;
    std::shared_ptr<const Tape> tape = {};  ///< what was played; null for the finish's own tape
    HeldDials held;
    int width = 0;  ///< drawn size in pixels; 0 draws the frame's own
    int height = 0;
    /// The frame's size for this drawing; 0 is the finish's own.
    int frame_width = 0;
    int frame_height = 0;
    /// Steps whose values are wanted; an empty name stands for the finished picture.
    std::vector<std::string> steps;
    bool small_grounds = false;  ///< pictures averaged down to the drawn size first
    /// If not empty, the wanted values at these pixels of the drawn size only: a picture of one row, a pixel a point.
    std::vector<PixelPoint> points;
    bool line_grid = false;  ///< straight lines in place of every picture, to see what bends them
};

/// A step's value at each pixel: as many channels as its type has parts.
struct DrawnStep {
    std::string name;
    Type type = Type::number;
    Picture picture;
};

struct Frame {
    std::vector<DrawnStep> steps;  ///< those wanted that have no fault: steps as they were wanted, then pictures
    Faults notices;                ///< missing pictures
    DriveValues values;
    std::size_t passes = 0;
    double milliseconds = 0;
    std::vector<double> pass_milliseconds;  ///< of each pass of `plan_for` the same steps
};

/// Draws frames, keeping programs and pictures between them. To be used from one thread at a time.
class Renderer {
public:
    /// With `kernels`, those instead of the fastest.
    explicit Renderer(WorkerPool& pool, std::optional<KernelSet> kernels = std::nullopt);
    ~Renderer();

    /// Chooses what draws from here on. The fault, a warning, says why it is this processor after all.
    std::optional<Fault> use(Backend backend);
    /// What draws, in a few words: an instruction set, or the driver's name.
    std::string drawn_by() const;

    /// Is told of picture files that are read; see `GroundStore`.
    void watch_reading(GroundStore::Watch watch) { grounds_.watch_reading(std::move(watch)); }

    /// The frame, or nothing if it was called off. Faults: `render.size`, `render.point`,
    /// `render.cancelled`.
    /// Faults besides: `base.memory`, `base.unexpected`.
    Result<Frame> render(const RenderRequest& request, const Cancel& cancel);

    /// Width and height of a ground that has a size of its own: a picture or a sprite; nothing if it cannot be read.
    std::optional<std::pair<int, int>> size_of(const Ground& ground, const std::string& finish_path);

private:
    struct Run;
    Result<Frame> drawn(const RenderRequest& request, const Cancel& cancel);
    struct Copies;
    DriveValues values_of(const RenderRequest& request);
    static Value uniform_value(const Run& run, const std::string& name);
    PicturePtr ground_picture(Run& run, const std::string& name);
    std::shared_ptr<const std::vector<Picture>> copies_of_ground(const std::string& name, const PicturePtr& picture,
                                                                 bool weighed);
    bool opaque(const std::string& name, const PicturePtr& picture);
    ShaderInputs shader_inputs(Run& run, const Pass& pass, const Shader& shader);
    bool store_by_shaders(Run& run, const Pass& pass);
    void give_up_shader(Run& run, const Pass& pass, const StructuralHash& key, Fault notice);
    const std::vector<Shader>& shaders_for(const Pass& pass, const StructuralHash& key);
    static SceneLayerSet scene_layers_of(const Finish& finish, const Plan& plan);
    PictureView picture_view(Run& run, const Pass& pass, const std::string& name, bool weighed);
    Result<Done> draw_by_shaders(Run& run, const Pass& pass, const StructuralHash& key, std::vector<Picture>& outputs);
    std::shared_ptr<const Program> program_for(const Pass& pass);
    void draw_pass(Run& run, const Pass& pass, std::vector<Picture>& outputs, bool at_points);

    WorkerPool& pool_;
    KernelSet kernels_;
    GroundStore grounds_;
    std::unique_ptr<ShaderRunner> shaders_;  ///< null where this processor draws
    std::map<StructuralHash, std::shared_ptr<const Program>> programs_;
    std::map<StructuralHash, std::vector<Shader>> emitted_;  ///< shaders of passes, a few outputs each
    std::set<StructuralHash> refused_;                       ///< passes whose shaders the driver did not take
    struct KeptCopies {
        PicturePtr of;
        std::shared_ptr<const std::vector<Picture>> smaller;
    };
    /// What responses need of the tape is worked out once for many frames.
    struct KeptPlay {
        std::shared_ptr<const CheckedFinish> checked;
        std::shared_ptr<const Tape> tape;
        std::shared_ptr<const Play> play;
    };
    KeptPlay play_;
    std::map<std::string, std::pair<PicturePtr, bool>> opaque_;  ///< grounds, and whether all of them is opaque
    std::map<std::string, KeptCopies> ground_copies_;            ///< of grounds that are read at other sizes, by name
};

/// The plan that `render` follows for these steps, for explaining.
Plan plan_for(const CheckedFinish& checked, const std::vector<std::string>& steps);

}  // namespace lacquer
