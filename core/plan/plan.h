// From a checked finish to an ordered list of passes.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/finish/checked.h"
#include "core/picture/sample.h"

namespace lacquer {

/// A step to compute within a pass.
struct PassStep {
    std::string name;
    std::shared_ptr<const Typed> typed;
    std::string text = {};  ///< `typed` as text, where it is known
};

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
};

/// All passes; each but the last stores one step.
struct Plan {
    std::vector<Pass> passes;
};

/// The drawn size of a side at a pass's scale, in pixels.
int scaled_side(int side, double scale);

/// The passes that yield the values of `wanted`: steps, and pictures among the grounds as they are. Steps that are read
/// elsewhere by `texture` are stored first. Wanted steps with a fault are left out.
Plan plan_passes(const CheckedFinish& checked, const std::vector<std::string>& wanted);

/// Stands for everything that the compiled pass depends on: passes with the same key are the same.
std::string key_of(const Pass& pass);

/// The passes as text, a few lines each.
std::string to_text(const Plan& plan);

}  // namespace lacquer
