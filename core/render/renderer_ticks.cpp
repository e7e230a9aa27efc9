#include "core/render/renderer_ticks.h"

#include <algorithm>
#include <chrono>
#include <utility>

#include "core/lang/past.h"

namespace lacquer {

namespace {

// In a drag ticks go on from where they are, if that is not further away than this.
constexpr double longest_rough_seconds = 2;

double milliseconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
}

std::vector<std::string> names_of(const std::vector<TickedStep>& steps) {
    std::vector<std::string> names;
    names.reserve(steps.size());
    for (const TickedStep& step : steps) names.push_back(step.name);
    return names;
}

// What goes from pixel to pixel, and not by parts of the frame, is something else at another size: on fewer pixels a
// reaction dies out.
bool goes_by_pixels(const Plan& plan) {
    const auto does = [](const PassStep& step) {
        bool counts_pixels = false;
        bool knows_frame = false;
        const auto look = [&](const Typed& node) {
            const auto* reading = node.as<PictureReading>();
            const auto* name = node.as<NameHere>();
            const bool counts = reading != nullptr &&
                                (reading->builtin == Builtin::texture_size || reading->builtin == Builtin::texel_fetch);
            counts_pixels = counts_pixels || counts || (name != nullptr && name->name == "pixel_size");
            knows_frame = knows_frame || (name != nullptr && name->name == "frame_size");
        };
        visit_nodes(*step.typed, look);
        return counts_pixels && !knows_frame;
    };
    return std::any_of(plan.passes.begin(), plan.passes.end(),
                       [&](const Pass& pass) { return std::any_of(pass.steps.begin(), pass.steps.end(), does); });
}

}  // namespace

bool reads_ticks(const Plan& plan) {
    const auto is_tick = [](const std::string& name) { return step_of_tick_picture(name).has_value(); };
    const auto says_tick = [](const PassStep& step) {
        const std::vector<std::string> names = names_used(*step.typed);
        return std::any_of(names.begin(), names.end(),
                           [](const std::string& name) { return name == "tick" || name == "tick_part"; });
    };
    return std::any_of(plan.passes.begin(), plan.passes.end(), [&](const Pass& pass) {
        return std::any_of(pass.grounds.begin(), pass.grounds.end(), is_tick) ||
               std::any_of(pass.steps.begin(), pass.steps.end(), says_tick);
    });
}

const Renderer::KeptPlans& Renderer::plans_of(const std::shared_ptr<const CheckedFinish>& checked) {
    if (plans_.checked != checked) {
        plans_ = {checked, plan_ticks(*checked), plan_starts(*checked), {}, false};
        plans_.go_by_pixels = goes_by_pixels(plans_.ticks);
        plans_.key = flow_key(*checked, plans_.ticks, plans_.starts);
    }
    return plans_;
}

// `before` is empty where all begins anew.
Result<FlowPictures> Renderer::tick(const TickRun& ticks, std::int64_t tick, const FlowPictures& before,
                                    bool wanted_here, Faults& notices) {
    const RenderRequest& request = ticks.request;
    const Cancel& cancel = ticks.cancel;
    const std::int64_t begin = begin_of(tick, ticks.begins);
    const CheckedFinish& checked = *request.checked;
    const double rate = checked.finish->ticks.rate;
    RenderRequest at = request;
    at.time = static_cast<double>(tick) / rate;
    if (!ticks.is_rough) at.width = at.height = 0;
    at.points.clear();
    at.small_grounds = at.line_grid = false;
    const FrameSize size = frame_size(at);
    const DriveValues values = values_of(at);
    const FrameTools tools{pool_, kernels_, *stores_, grounds_, shaders_, flows_, play_.play};
    TickPictures left{static_cast<double>(tick - begin), 1 / rate, 0, {}};
    const KeptPlans& plans = plans_of(request.checked);
    if (before.empty() && !plans.starts.passes.empty()) {
        std::vector<std::string> starts;
        for (const TickedStep& step : checked.ticked) {
            if (step.has_start) starts.push_back(start_picture(step.name));
        }
        FrameRun run(tools, at, size, values, cancel);
        run.set_ticks(left);
        const Result<FlowPictures> started = run.drawn_tick(plans.starts, starts);
        if (!started) return started.fault();
        for (const TickedStep& step : checked.ticked) {
            if (step.has_start) left.pictures[past_picture(step.name)] = started->at(start_picture(step.name));
        }
    }
    for (const auto& [name, picture] : before) left.pictures[past_picture(name)] = picture;
    FrameRun run(tools, at, size, values, cancel);
    run.set_ticks(std::move(left));
    Result<FlowPictures> drawn = run.drawn_tick(plans.ticks, names_of(checked.ticked));
    if (!drawn) return drawn;
    notices = run.take_notices();
    for (const TickedStep& step : checked.ticked) {
        FlowPicture& picture = (*drawn)[step.name];
        // Drivers round to halves in ways of their own.
        if ((wanted_here || step.half) && !bring_here(picture)) return lost_with_driver();
        if (!step.half) continue;
        Picture rounded = *picture.here;
        round_to_half(rounded);
        picture = {std::make_shared<const Picture>(std::move(rounded)), {}};
    }
    return drawn;
}

bool Renderer::bring_here(FlowPicture& left) {
    if (left.here != nullptr) return true;
    if (shaders_.runner == nullptr) return false;
    Result<Picture> fetched = shaders_.runner->fetch(*left.with_driver);
    if (fetched) left.here = std::make_shared<const Picture>(std::move(*fetched));
    return left.here != nullptr;
}

bool Renderer::bring_here(FlowState& state) {
    for (FlowPictures* pictures : {&state.now, &state.before}) {
        for (auto& [name, left] : *pictures) {
            if (!bring_here(left)) return false;
        }
    }
    return true;
}

FlowKey Renderer::key_of_ticks(const RenderRequest& request, const FrameSize& size) {
    FlowKey key = plans_of(request.checked).key;
    key.finish_path = request.finish_path;
    key.width = size.frame_width;
    key.height = size.frame_height;
    for (const Dial& dial : key.dials) {
        if (const auto held = request.held.find(dial.name); held != request.held.end()) key.held.insert(*held);
    }
    return key;
}

bool Renderer::would_be_rough(const RenderRequest& request) {
    if (plans_of(request.checked).go_by_pixels) return false;
    const Tape& tape = request.tape != nullptr ? *request.tape : request.checked->finish->tape;
    return flows_.find(key_of_ticks(request, frame_size(request)), tape) == nullptr;
}

Simulation::Draw Renderer::drawn_by(const TickRun& run, Ticked& given) {
    return [this, run, &given](std::int64_t at, const FlowPictures& before, bool wanted_here) {
        ++given.drawn;
        return tick(run, at, before, wanted_here, given.notices);
    };
}

Result<FlowState> Renderer::state_after(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given) {
    if (flows_.find(run.key, tape) != nullptr) return exact_state(run, tick, tape, given);
    const FlowState* present = flows_.present(run.key);
    const double most_ticks = longest_rough_seconds * run.request.checked->finish->ticks.rate;
    const bool is_near = present != nullptr && tick >= present->tick && present->tick >= begin_of(tick, run.begins) &&
                         static_cast<double>(tick - present->tick) <= most_ticks;
    if (run.request.in_a_drag && is_near) return dragged_state(run, tick, *present, given);
    if (run.request.rough_ticks && !plans_of(run.request.checked).go_by_pixels)
        return rough_state(run, tick, tape, given);
    return exact_state(run, tick, tape, given);
}

Result<FlowState> Renderer::exact_state(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given) {
    Simulation& simulation = flows_.simulation(run.key, tape, *run.request.checked);
    Result<FlowState> state = simulation.at(tick, run.begins, drawn_by(run, given), run.cancel, watch_ticks_);
    if (!state) return state;
    if (run.wanted_here() && !(are_here(state->now) && are_here(state->before))) {
        if (!bring_here(*state)) return lost_with_driver();
        simulation.keep(*state);
    }
    flows_.set_present(run.key, *state);
    return state;
}

Result<FlowState> Renderer::rough_state(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given) {
    given.are_rough = true;
    const FrameSize size = frame_size(run.request);
    FlowKey key = run.key;
    key.drawn_width = size.width;
    key.drawn_height = size.height;
    const TickRun rough{run.request, key, run.begins, run.cancel, true};
    Simulation& simulation = flows_.simulation(key, tape, *run.request.checked);
    Result<FlowState> state = simulation.at(tick, run.begins, drawn_by(rough, given), run.cancel, watch_ticks_);
    if (state && run.wanted_here() && !bring_here(*state)) return lost_with_driver();
    return state;
}

Result<FlowState> Renderer::dragged_state(const TickRun& run, std::int64_t tick, FlowState state, Ticked& given) {
    given.are_rough = true;
    const bool goes_on = tick > state.tick;
    TickRun again = run;
    again.is_rough = run.request.rough_ticks && !goes_on;
    const Simulation::Draw draw = drawn_by(again, given);
    // Where time stands still, the last tick is drawn once more, so that something is seen of the drag.
    if (!goes_on) state = {state.tick - 1, state.before, {}};
    while (state.tick < tick) {
        Result<FlowPictures> drawn = draw(state.tick + 1, state.now, run.wanted_here());
        if (!drawn) return drawn.fault();
        state = {state.tick + 1, std::move(*drawn), std::move(state.now)};
    }
    if (run.wanted_here() && !bring_here(state)) return lost_with_driver();
    // A last tick that was only drawn once more is nothing to go on from.
    if (goes_on) flows_.set_present(run.key, state);
    return state;
}

Result<Renderer::Ticked> Renderer::ticked(const RenderRequest& request, const FrameSize& size, const Cancel& cancel) {
    const Finish& finish = *request.checked->finish;
    const double rate = finish.ticks.rate;
    const Tape& tape = request.tape != nullptr ? *request.tape : finish.tape;
    const std::vector<std::int64_t> begins = flow_begins(finish, tape);
    const std::int64_t wanted = tick_at(request.time, rate);
    for (const TickedStep& step : request.checked->ticked) {
        if (is_drawable_size(scaled_side(size.frame_width, step.scale), scaled_side(size.frame_height, step.scale)))
            continue;
        return Fault{"render.size",
                     "'" + step.name + "' would be drawn larger than a picture can be",
                     "let it be drawn at half the frame's size",
                     {step.name, {}, 0, 0},
                     Severity::fault};
    }
    Ticked given;
    given.left = {static_cast<double>(wanted - begin_of(wanted, begins)),
                  1 / rate,
                  std::clamp(request.time * rate - static_cast<double>(wanted), 0.0, 1.0),
                  {}};
    if (request.checked->ticked.empty()) return given;
    const auto began = std::chrono::steady_clock::now();
    if (shaders_.runner == nullptr) flows_.forget_with_driver();
    const FlowKey key = key_of_ticks(request, size);
    const TickRun run{request, key, begins, cancel};
    Result<FlowState> state = state_after(run, wanted, tape, given);
    if (!state && state.fault().id == "gpu.lost") {
        // What is kept is here: the way from there is short, whoever draws now.
        flows_.forget_with_driver();
        state = state_after(run, wanted, tape, given);
    }
    flows_.keep_within_memory();
    if (!state) return state.fault();
    for (const auto& [name, left] : state->now) {
        given.left.pictures[present_picture(name)] = left;
        const auto before = state->before.find(name);
        given.left.pictures[past_picture(name)] = before != state->before.end() ? before->second : left;
    }
    given.milliseconds = milliseconds_since(began);
    return given;
}

}  // namespace lacquer
