// Compiled passes, shared by all that draw.
#pragma once

#include <memory>
#include <mutex>
#include <string>
#include <utility>
#include <vector>

#include "core/base/recently_used.h"
#include "core/cpu/kernels.h"
#include "core/cpu/program.h"
#include "core/gpu/glsl.h"
#include "core/plan/plan.h"

namespace lacquer {

/// What passes compile to, by structural key: passes that mean the same share it, whichever finish they come from. What
/// was not used for longest is dropped. Safe from any thread.
class ProgramStore {
public:
    /// The pass for this processor. `key` is the pass's own, see `key_of`.
    std::shared_ptr<const Program> program(const Pass& pass, const StructuralHash& key, const KernelSet& kernels);

    /// The pass as shaders; one has few outputs, so a pass with many is several.
    std::shared_ptr<const std::vector<Shader>> shaders(const Pass& pass, const StructuralHash& key);

private:
    using ProgramKey = std::pair<StructuralHash, std::string>;  // with the name of the instruction set
    static constexpr std::size_t most = 512;

    std::mutex mutex_;
    RecentlyUsed<ProgramKey, std::shared_ptr<const Program>> programs_{most};
    RecentlyUsed<StructuralHash, std::shared_ptr<const std::vector<Shader>>> shaders_{most};
};

}  // namespace lacquer
