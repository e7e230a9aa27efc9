#include "core/inspect/measure.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace lacquer {

namespace {

std::vector<Measured> measured_in_one(const RenderRequest& request, Renderer& renderer, const Cancel& cancel,
                                      const Sweep& sweep, const MeasureOptions& options) {
    Swept swept(request, renderer, cancel, sweep);
    std::vector<Measured> all;
    for (const Measure& one : measures()) {
        const bool wanted =
            options.ids.empty() || std::find(options.ids.begin(), options.ids.end(), one.id) != options.ids.end();
        if (!wanted) continue;
        Measured found;
        found.id = one.id;
        found.title = one.title;
        one.run(swept, found);
        if (cancel.requested()) break;
        if (options.told) options.told(found);
        all.push_back(std::move(found));
    }
    return all;
}

}  // namespace

std::span<const Measure> measures() {
    static const std::array all = {rest_measure(), end_measure(),         pace_measure(),
                                   jump_measure(), dead_travel_measure(), range_measure(),
                                   seen_measure(), rest_value_measure(),  cost_measure()};
    return all;
}

const Measure* find_measure(std::string_view id) {
    const auto all = measures();
    const auto found = std::find_if(all.begin(), all.end(), [&](const Measure& one) { return one.id == id; });
    return found == all.end() ? nullptr : &*found;
}

std::span<const FrameShape> frame_shapes() {
    static constexpr std::array<FrameShape, 5> all = {
        {{"16:9", 16.0 / 9}, {"21:9", 21.0 / 9}, {"4:3", 4.0 / 3}, {"1:1", 1}, {"9:16", 9.0 / 16}}};
    return all;
}

std::pair<int, int> size_of_shape(const FrameShape& shape, int width, int height) {
    const double area = static_cast<double>(width) * height;
    const double tall = std::sqrt(area / shape.aspect);
    const auto even = [](double side) { return std::max(2, static_cast<int>(std::lround(side / 2)) * 2); };
    return {even(tall * shape.aspect), even(tall)};
}

std::vector<Measured> measure(const RenderRequest& request, Renderer& renderer, const Cancel& cancel,
                              const Sweep& sweep, const MeasureOptions& options) {
    if (find_dial(*request.checked->finish, sweep.dial) == nullptr) return {};
    std::vector<Measured> all = measured_in_one(request, renderer, cancel, sweep, options);
    if (!options.all_shapes) return all;
    const Finish& finish = *request.checked->finish;
    const int width = request.frame_width > 0 ? request.frame_width : finish.frame_width;
    const int height = request.frame_height > 0 ? request.frame_height : finish.frame_height;
    MeasureOptions elsewhere = options;
    elsewhere.told = nullptr;
    for (const FrameShape& shape : frame_shapes()) {
        RenderRequest other = request;
        std::tie(other.frame_width, other.frame_height) = size_of_shape(shape, width, height);
        std::vector<Measured> there = measured_in_one(other, renderer, cancel, sweep, elsewhere);
        for (std::size_t i = 0; i < std::min(all.size(), there.size()); ++i) {
            if (there[i].verdict != Verdict::falls_short || all[i].verdict == Verdict::falls_short) continue;
            all[i] = std::move(there[i]);
            all[i].shape = shape.words;
        }
    }
    return all;
}

}  // namespace lacquer
