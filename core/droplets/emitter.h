// Which drops live at a moment, and what each of them is like then. Every drop is a closed form of its age, so any
// moment can be asked for at once, in any order.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <mutex>
#include <optional>
#include <vector>

#include "core/base/worker_pool.h"
#include "core/drive/response.h"
#include "core/droplets/droplets.h"
#include "core/droplets/motion.h"

namespace lacquer {

/// A place in play that was somewhere from a moment on, in shares of the frame.
struct PlaceMoment {
    double at = 0;  ///< seconds
    double x = 0;
    double y = 0;
};

/// What droplets hear of play.
struct DropPlay {
    Tape tape;
    /// By the number's key, or "born_while".
    FormulaSource formulas;
    /// Where the place was that ends them; the first from the beginning on. Empty if they have none.
    std::vector<PlaceMoment> path;
};

/// Curves and colours over a life, each as values at even distances from 0 to 1; what is empty is as usual.
struct DropCurves {
    std::vector<float> size;
    std::vector<float> opacity;
    std::vector<float> ending;
    std::vector<std::array<float, 4>> tint;
};

/// A drop at a moment.
struct Drop {
    double birth = 0;          ///< seconds
    std::int64_t index = 0;    ///< among those that are born likewise
    std::uint32_t stream = 0;  ///< how it is born: by the rate, in the field, or by which burst
    std::int64_t burst = -1;   ///< the cue that brought it, among those that bring some; -1 for none
    double age = 0;            ///< seconds
    double share = 0;          ///< of its life, or of its end where that goes on; 0..1
    double x = 0;              ///< of its middle, pixels
    double y = 0;
    double along = 0;   ///< half its length along its own axis, pixels
    double across = 0;  ///< half its width
    double turn = 0;    ///< of that axis, radians clockwise from the right
    Vector2 velocity;   ///< shorter sides a second
    double opacity = 1;
    std::array<float, 3> tint{1, 1, 1};
    float seed = 0;  ///< its own random number, 0..1
    int cell = 0;    ///< of the sheet
};

struct LiveDrops {
    std::vector<Drop> drops;  ///< the oldest first
    bool capped = false;      ///< there would be more than may live
};

class Emitter {
public:
    Emitter(Droplets droplets, const DropPlay& play, DropCurves curves = {});
    ~Emitter();
    Emitter(const Emitter&) = delete;
    Emitter& operator=(const Emitter&) = delete;

    /// All that live at a time, in seconds, in a frame of so many pixels. Safe from any thread. With a pool, it works
    /// them out.
    LiveDrops alive(double time, int width, int height, WorkerPool* pool = nullptr) const;
    /// The same drop at another time; nothing if it doesn't live then.
    std::optional<Drop> at(const Drop& drop, double time, int width, int height) const;
    /// How many those are.
    std::int64_t count(double time, int width, int height) const;
    /// How many may have to be looked at for one moment, about: what all this costs goes by it.
    double expected() const { return expected_; }
    /// How many there will be in the long run if things stay as they are: births a second times their mean life, and
    /// the fixed field.
    double steady(double time) const;

    const Droplets& droplets() const { return droplets_; }

private:
    struct Birth;
    struct Field;
    struct Frame;
    using Births = std::vector<Birth>;

    std::optional<std::int64_t> plain_count(double time) const;
    double number(DropNumberId id, const Birth& birth) const;
    double steady_number(DropNumberId id) const;
    void limit_work();
    double time_of(std::int64_t index) const;
    bool add_rate_births(double time, Births& births) const;
    bool add_bursts(double time, Births& births) const;
    bool add_field(double time, const Frame& frame, Births& births) const;
    bool births_at(double time, const Frame& frame, Births& births) const;
    double end_of(const Birth& birth, double until, const Frame& frame) const;
    double reached_at(const Birth& birth, double until, const Frame& frame) const;
    bool lives(Birth& birth, double time, const Frame& frame) const;
    Vector2 birth_place(const Birth& birth, const Frame& frame) const;
    void move(const Birth& birth, double age, const Frame& frame, Drop& drop) const;
    double look_step(const Birth& birth) const;
    void stick(const Birth& birth, const Frame& frame, Drop& drop) const;
    Drop drop_of(const Birth& birth, double time, const Frame& frame) const;
    std::shared_ptr<const Field> field(const Frame& frame) const;

    Droplets droplets_;
    DropCurves curves_;
    std::array<Track, drop_number_count> tracks_;  // of numbers that are formulas
    Track born_;                                   // births a second
    std::vector<double> sums_;                     // births up to each of its moments
    double longest_life_ = 0;
    Cues bursts_;
    std::vector<double> ends_;  // times of the cue that ends all
    std::vector<PlaceMoment> path_;
    std::vector<PlaceMoment> coarse_path_;  // what single drops look at
    double expected_ = 0;
    double most_looks_ = 0;  // of a drop that moves, at the place that ends it or at the border
    Wind wind_x_;
    Wind wind_y_;
    bool moves_ = false;
    mutable std::mutex mutex_;  // of the field
    mutable std::shared_ptr<const Field> field_;
};

}  // namespace lacquer
