#include "core/finish/finish.h"

namespace lacquer {

const Step* find_step(const Finish& finish, std::string_view name) {
    for (const Coat& coat : finish.coats) {
        for (const Step& step : coat.steps) {
            if (step.name == name) return &step;
        }
    }
    return nullptr;
}

const Dial* find_dial(const Finish& finish, std::string_view name) {
    for (const Dial& dial : finish.dials) {
        if (dial.name == name) return &dial;
    }
    return nullptr;
}

std::size_t step_count(const Finish& finish) {
    std::size_t count = 0;
    for_each_step(finish, [&](const Coat&, const Step&) { ++count; });
    return count;
}

}  // namespace lacquer
