// Passes that this processor does in one go, in place of their text.
#include <algorithm>

#include "core/cpu/native.h"
#include "core/render/frame_run.h"

namespace lacquer {

namespace {

// The way of a pass, if there is one for pictures of such channels.
const NativeWay* way_of(const Pass& pass) {
    if (pass.native == nullptr) return nullptr;
    const NativeWay* way = native_way(pass.native->way);
    if (way == nullptr) return nullptr;
    const Resource from = resource_of(pass, pass.native->from);
    const int stores = resource_of(pass, pass.outputs.front()).channels;
    const bool fits = (way->reads == 0 || way->reads == from.channels) &&
                      stores == (way->stores == 0 ? from.channels : way->stores) &&
                      (way->resizes || from.scale == pass.scale);
    return fits ? way : nullptr;
}

// A picture of zeros.
Picture nothing(int width, int height, int channels) {
    Picture made(width, height, channels);
    std::fill(made.data.begin(), made.data.end(), 0.0F);
    return made;
}

}  // namespace

void FrameRun::find_native(const Plan& plan) {
    if (draws_by_shaders()) return;
    for (const Pass& pass : plan.passes) {
        if (way_of(pass) == nullptr) continue;
        const NativePass& native = *pass.native;
        const bool is_told = native.argument.stored.empty() && native.argument.grounds.empty();
        native_.insert(pass.outputs.front());
        if (way_of(pass)->rests && native.may_shrink && is_told && !(native_argument(native) > 0))
            resting_.insert(pass.outputs.front());
        spared_.insert(pass.native->spared.begin(), pass.native->spared.end());
    }
}

float FrameRun::native_argument(const NativePass& native) {
    const Prepared ready = prepared(native.argument, key_of(native.argument));
    std::vector<Picture> number;
    number.emplace_back(1, 1, 1);
    run_at(*ready.program, ready.inputs(), std::vector<PixelPoint>{{}}, number);
    return number.front().data.front();
}

const NativeWay* FrameRun::native_way_of(const Pass& pass) const {
    const bool is_native = !native_.empty() && !pass.outputs.empty() && native_.contains(pass.outputs.front());
    return is_native ? way_of(pass) : nullptr;
}

bool FrameRun::is_spared(const Pass& pass) const {
    return !spared_.empty() && !pass.outputs.empty() && spared_.contains(pass.outputs.front());
}

// False where it is to be drawn as usual.
bool FrameRun::store_natively(const Pass& pass) {
    const NativeWay* way = native_way_of(pass);
    if (way == nullptr) return false;
    const NativePass& native = *pass.native;
    const std::string& name = pass.outputs.front();
    const int channels = resource_of(pass, name).channels;
    if (resting_.contains(name)) {
        pictures_.store(name, nothing(1, 1, channels));
        return true;
    }
    NativeInputs inputs;
    inputs.argument = native_argument(native);
    inputs.from = pictures_.view(pass, native.from, false, nullptr);
    const double from_scale = resource_of(pass, native.from).scale;
    const int from_width = scaled_side(size_.width, from_scale);
    const int from_height = scaled_side(size_.height, from_scale);
    Picture grown;
    if (inputs.from.width != from_width || inputs.from.height != from_height) {
        grown = nothing(from_width, from_height, inputs.from.channels);
        inputs.from = view_of(grown);
    }
    inputs.frame_width = static_cast<float>(size_.frame_width);
    inputs.frame_height = static_cast<float>(size_.frame_height);
    inputs.stage_width = static_cast<float>(scaled_side(size_.frame_width, pass.scale));
    inputs.stage_height = static_cast<float>(scaled_side(size_.frame_height, pass.scale));
    Picture made =
        pictures_.blank(scaled_side(size_.width, pass.scale), scaled_side(size_.height, pass.scale), channels);
    whole_ = way->run(inputs, tools_.kernels, made, tools_.pool, cancel_) && whole_;
    if (whole_) pictures_.store(name, std::move(made));
    return true;
}

}  // namespace lacquer
