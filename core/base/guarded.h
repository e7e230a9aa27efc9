// The edge of a library: what is thrown behind it becomes a fault.
#pragma once

#include <exception>
#include <new>
#include <string>
#include <type_traits>

#include "core/base/result.h"

namespace lacquer {

/// What `work` gives, a `Result`. Faults besides its own: `base.memory` where there is not enough, `base.unexpected`
/// for anything else that the standard library or another throws.
template <class Work>
std::invoke_result_t<const Work&> guarded(const Work& work) {
    std::string why = "of a kind that does not tell its name";
    try {
        return work();
    } catch (const std::bad_alloc&) {
        return Fault{"base.memory",
                     "there is not enough memory for it",
                     "make it smaller, or close other programs",
                     {},
                     Severity::fault};
    } catch (const std::exception& problem) {
        why = problem.what();
    } catch (...) {
        // Nothing is known of it.
    }
    return Fault{"base.unexpected",
                 "something went wrong that was not expected: " + why,
                 "save your work under another name and start again",
                 {},
                 Severity::fault};
}

}  // namespace lacquer
