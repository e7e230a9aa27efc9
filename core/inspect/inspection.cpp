#include "core/inspect/inspection.h"

#include <array>

#include "core/finish/try_on.h"

namespace lacquer {

namespace {

// Enough to see what fills a share of the frame, and quick.
constexpr int inspected_longer_side = 240;

}  // namespace

Inspected::Inspected(const RenderRequest& request, Renderer& renderer, const Cancel& cancel)
    : request_(request), renderer_(renderer), cancel_(cancel) {
    // What would be at other values is looked at from the present tick, not from the tape's beginning.
    request_.in_a_drag = true;
    const double wide = request.checked->finish->frame_width;
    const double high = request.checked->finish->frame_height;
    const double share = std::min(1.0, inspected_longer_side / std::max(wide, high));
    request_.width = std::max(2, static_cast<int>(wide * share) / 2 * 2);
    request_.height = std::max(2, static_cast<int>(high * share) / 2 * 2);
    request_.small_grounds = true;
    request_.points.clear();
}

const DrawnStep* Inspected::draw(const std::string& key, const RenderRequest& request) {
    const auto [found, fresh] = kept_.try_emplace(key);
    if (fresh) {
        Result<Frame> frame = renderer_.render(request, cancel_);
        if (frame && !frame->steps.empty()) found->second = std::move(frame->steps.front());
    }
    return found->second ? &*found->second : nullptr;
}

const DrawnStep* Inspected::drawn(const std::string& step, const std::string& formula) {
    RenderRequest request = request_;
    request.checked =
        std::make_shared<const CheckedFinish>(candidates_on(checked(), step, TryOnUse::replace, {formula}));
    request.steps = {candidate_name(0)};
    return draw("step " + step + " = " + formula, request);
}

const DrawnStep* Inspected::after(const std::string& step, double seconds, double rate) {
    RenderRequest request = request_;
    if (rate != finish().ticks.rate) {
        auto other = std::make_shared<Finish>(finish());
        other->ticks.rate = rate;
        request.checked = std::make_shared<const CheckedFinish>(check_finish(other, checked().catalogue, &checked()));
    }
    request.in_a_drag = false;
    request.frame_width = request.width;
    request.frame_height = request.height;
    request.time = seconds;
    request.steps = {step};
    return draw("after " + std::to_string(seconds) + " at " + std::to_string(rate) + " " + step, request);
}

const DrawnStep* Inspected::finished(const std::string& dial, double value) {
    RenderRequest request = request_;
    request.steps = {""};
    if (!dial.empty()) request.held[dial] = {value, 0, 0};
    return draw("finished " + dial + " " + std::to_string(value), request);
}

const DrawnStep* Inspected::ground(const std::string& name) {
    RenderRequest request = request_;
    request.steps = {name};
    return draw("ground " + name, request);
}

std::span<const Inspection> inspections() {
    static const std::array all = {
        not_finite_inspection(),    one_way_push_inspection(),   corrected_reading_inspection(),
        outside_range_inspection(), unclean_ends_inspection(),   jump_inspection(),
        two_runs_inspection(),      hidden_colours_inspection(), picture_size_inspection(),
        tick_rate_inspection(),     growing_inspection(),        still_vectors_inspection(),
        stand_in_inspection(),      unnamed_inspection()};
    return all;
}

Warnings inspect(const RenderRequest& request, Renderer& renderer, const Cancel& cancel) {
    Warnings warnings;
    Inspected inspected(request, renderer, cancel);
    for (const Inspection& inspection : inspections()) {
        if (cancel.requested()) break;
        inspection.run(inspected, warnings);
    }
    return warnings;
}

}  // namespace lacquer
