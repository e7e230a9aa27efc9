// What a frame takes of memory, told before anything is drawn.
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cstdint>

#include "core/cpu/native.h"
#include "core/render/flow_store.h"
#include "core/render/frame_run.h"

namespace lacquer {

namespace {

// As `FramePictures` goes about it: what nothing reads any more is drawn on again where the shape is the same.
class Held {
public:
    void take(std::int64_t width, std::int64_t height, int channels) {
        const std::array<std::int64_t, 3> shape = {width, height, channels};
        const auto spare = std::find(spare_.begin(), spare_.end(), shape);
        if (spare == spare_.end()) {
            bytes_ += bytes_of(shape);
        } else {
            spare_.erase(spare);
        }
        last_ = shape;
    }
    void keep(const std::string& name) { kept_[name] = last_; }
    void release(const std::string& name) {
        const auto found = kept_.find(name);
        if (found == kept_.end()) return;
        spare_.push_back(found->second);
        kept_.erase(found);
    }
    void take_in_passing(std::int64_t bytes) { passing_ = std::max(passing_, bytes_ + bytes); }
    std::int64_t most() const { return std::max(bytes_, passing_); }

private:
    static std::int64_t bytes_of(const std::array<std::int64_t, 3>& shape) {
        return shape[0] * shape[1] * shape[2] * static_cast<std::int64_t>(sizeof(float));
    }
    std::vector<std::array<std::int64_t, 3>> spare_;
    std::map<std::string, std::array<std::int64_t, 3>, std::less<>> kept_;
    std::array<std::int64_t, 3> last_{};
    std::int64_t bytes_ = 0;
    std::int64_t passing_ = 0;
};

}  // namespace

std::vector<std::vector<std::string>> read_last_by(const Plan& plan) {
    std::map<std::string, std::size_t> last;
    for (std::size_t i = 0; i < plan.passes.size(); ++i) {
        for (const std::string& name : plan.passes[i].stored) last[name] = i;
    }
    std::vector<std::vector<std::string>> names(plan.passes.size());
    for (const auto& [name, pass] : last) names[pass].push_back(name);
    return names;
}

std::int64_t FrameRun::most_bytes(const Plan& plan, bool hands_out) const {
    Held held;
    std::set<std::string, std::less<>> copied;
    const std::vector<std::vector<std::string>> done_with = read_last_by(plan);
    for (std::size_t i = 0; i < plan.passes.size(); ++i) {
        const Pass& pass = plan.passes[i];
        const bool is_last = hands_out && i + 1 == plan.passes.size();
        const bool at_points = is_last && !request_.points.empty();
        const std::int64_t width = scaled_side(size_.width, pass.scale);
        const std::int64_t height = scaled_side(size_.height, pass.scale);
        for (const std::string& name : pass.pyramids) {
            // The copies at half the size, a quarter and so on are a third together.
            const bool is_stored = std::find(pass.stored.begin(), pass.stored.end(), name) != pass.stored.end();
            if (is_stored && copied.insert(name).second)
                held.take(width, (height + 2) / 3, resource_of(pass, name).channels);
        }
        const bool is_kept = !is_spared(pass) && !at_points && !(is_last && is_seen_by_rows(pass));
        for (const std::string& name : pass.outputs) {
            const bool is_dot = resting_.contains(name);
            if (is_kept) held.take(is_dot ? 1 : width, is_dot ? 1 : height, resource_of(pass, name).channels);
            if (is_kept && !is_last) held.keep(name);
        }
        const NativeWay* way = native_way_of(pass);
        if (way != nullptr && !resting_.contains(pass.outputs.front()))
            held.take_in_passing(width * height * way->working_bytes + width * way->column_bytes * tools_.pool.size());
        if (hands_out) {
            for (const std::string& name : done_with[i]) held.release(name);
        }
    }
    return held.most();
}

std::optional<Fault> FrameRun::claim(const Plan& plan, bool hands_out) {
    const std::int64_t bytes = most_bytes(plan, hands_out);
    if (auto fault = fault_of_memory(bytes)) return fault;
    drawn_here_.set(static_cast<std::size_t>(bytes));
    tools_.ticks.keep_within_memory();
    return std::nullopt;
}

std::optional<Fault> FrameRun::fault_of_memory(std::int64_t bytes) const {
    const auto most = static_cast<std::int64_t>(tools_.stores.pictures.limits().most);
    if (bytes <= most) return std::nullopt;
    const auto gigabytes = [](std::int64_t count) { return static_cast<double>(count) / 1e9; };
    return Fault{"render.memory",
                 fmt::format("drawing it at {} x {} takes {:.1f} GB at once, and {:.1f} GB is the most", size_.width,
                             size_.height, gigabytes(bytes), gigabytes(most)),
                 "draw it smaller, or allow more memory for pictures in the preferences",
                 {},
                 Severity::fault};
}

}  // namespace lacquer
