#include "core/finish/finish.h"

namespace lacquer {

namespace {

template <class Things>
auto named(const Things& things, std::string_view name) -> decltype(&things.front()) {
    for (const auto& thing : things) {
        if (thing.name == name) return &thing;
    }
    return nullptr;
}

}  // namespace

Finish::Finish() = default;
Finish::Finish(const Finish&) = default;
Finish::Finish(Finish&&) noexcept = default;
Finish& Finish::operator=(const Finish&) = default;
Finish& Finish::operator=(Finish&&) noexcept = default;
Finish::~Finish() = default;
bool operator==(const Finish&, const Finish&) = default;

const Step* find_step(const Finish& finish, std::string_view name) {
    for (const Coat& coat : finish.coats) {
        for (const Step& step : coat.steps) {
            if (step.name == name) return &step;
        }
    }
    return nullptr;
}

const Dial* find_dial(const Finish& finish, std::string_view name) { return named(finish.dials, name); }
const Signal* find_signal(const Finish& finish, std::string_view name) { return named(finish.signals, name); }
const Response* find_response(const Finish& finish, std::string_view name) { return named(finish.responses, name); }
const Variant* find_variant(const Finish& finish, std::string_view name) { return named(finish.variants, name); }

const CueKind* find_cue(const Finish& finish, std::string_view name) { return named(finish.cues, name); }

std::size_t step_count(const Finish& finish) {
    std::size_t count = 0;
    for_each_step(finish, [&](const Coat&, const Step&) { ++count; });
    return count;
}

}  // namespace lacquer
