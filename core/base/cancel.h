// A flag by which the one who asked for work can call it off.
#pragma once

#include <atomic>
#include <memory>

#include "core/base/fault.h"

namespace lacquer {

/// Shared between asker and worker; copies speak of the same flag. Safe from any thread.
class Cancel {
public:
    Cancel() : flag_(std::make_shared<std::atomic<bool>>(false)) {}

    /// Calls the work off. It stops at its next look at the flag.
    void request() const { flag_->store(true, std::memory_order_relaxed); }
    /// True once the work was called off.
    bool requested() const { return flag_->load(std::memory_order_relaxed); }

private:
    std::shared_ptr<std::atomic<bool>> flag_;
};

/// What work that stopped at the flag gives in place of a picture: a warning, `render.cancelled`.
inline Fault cancelled_fault() { return {"render.cancelled", "the drawing was called off", "", {}, Severity::warning}; }

}  // namespace lacquer
