// From a checked finish to an ordered list of passes.
#pragma once

#include <compare>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/lang/structural_hash.h"
#include "core/lang/typed.h"
#include "core/picture/sample.h"

namespace lacquer {

struct CheckedFinish;

/// How long a picture is needed: by the pass that makes it alone, until the frame is drawn, or from tick to tick.
enum class Lifetime { pass, frame, tick };

/// What a picture's numbers are stored as.
enum class StoredAs { float32, half };

/// A picture that passes write and read.
struct Resource {
    std::string name;
    Type type = Type::vec4;
    int channels = 4;  ///< 1, 2 or 4, as many as its type needs; what is handed out at the end may have 3
    StoredAs format = StoredAs::float32;
    double scale = 1;  ///< of the frame's size
    Lifetime lifetime = Lifetime::frame;
    friend bool operator==(const Resource&, const Resource&) = default;
};

/// How many channels a stored value of this type takes.
int stored_channels(Type type);

/// A step to compute within a pass.
struct PassStep {
    std::string name;
    std::shared_ptr<const Typed> typed;
    StructuralHash hash = {};  ///< of `typed`
};

struct NativePass;

/// One run over all pixels. Its steps stand in order; names that are neither among them nor in `stored` are grounds,
/// dials, responses and known names.
struct Pass {
    std::string name;
    double scale = 1;  ///< of the frame's size
    std::vector<PassStep> steps;
    std::vector<std::string> stored;                         ///< steps of earlier passes that it reads
    std::vector<std::string> grounds;                        ///< grounds that it reads
    std::map<std::string, Sampling, std::less<>> samplings;  ///< how grounds are read, where it is not the usual way
    std::vector<std::string> pyramids;  ///< pictures, among those that it reads, of which it wants smaller copies
    std::vector<std::string> outputs;   ///< steps, among `steps` or `stored`, whose values it hands out
    std::map<std::string, Resource, std::less<>> resources;  ///< what is stored or handed out, by name
    /// How this processor may do it in one go; null for most.
    std::shared_ptr<const NativePass> native = {};
};

/// A pass done natively, see core/cpu/native.h.
struct NativePass {
    std::string way;
    std::string from;                 ///< the stored step that it reads
    Pass argument;                    ///< hands out a number that is the same at all pixels
    std::vector<std::string> spared;  ///< stored steps that nothing needs then
    bool may_shrink = false;          ///< to a single pixel, where all are the same: nothing asks for its size
};

/// All passes; each but the last stores one step.
struct Plan {
    std::vector<Pass> passes;
    std::vector<Resource> resources;  ///< all that passes store or hand out, in their order
};

/// What a pass knows of a picture that it stores, reads or hands out; a picture of 4 numbers where it knows nothing.
Resource resource_of(const Pass& pass, std::string_view name);

/// The drawn size of a side at a pass's scale, in pixels.
int scaled_side(int side, double scale);

/// The passes that yield the values of `wanted`: steps, and pictures among the grounds as they are. Steps that are read
/// elsewhere by `texture` are stored first. Wanted steps with a fault are left out.
Plan plan_passes(const CheckedFinish& checked, const std::vector<std::string>& wanted);

/// The passes that draw one tick: each stores one step that goes on from tick to tick, or what it is made of. What
/// those steps were in the last tick is among the grounds, see lang/past.h.
Plan plan_ticks(const CheckedFinish& checked);
/// The passes that store what such steps were before the first tick, as far as a formula says it.
Plan plan_starts(const CheckedFinish& checked);

/// Stands for everything that the compiled pass depends on: passes with the same key are the same.
StructuralHash key_of(const Pass& pass);

/// The passes as text, a few lines each.
std::string to_text(const Plan& plan);

}  // namespace lacquer
