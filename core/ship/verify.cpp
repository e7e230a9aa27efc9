#include "core/ship/verify.h"

#include <algorithm>
#include <chrono>
#include <cmath>

#include "core/lang/past.h"

namespace lacquer {

namespace {

Fault verifying_stopped() { return {"ship.stopped", "shipping was stopped", "", {}, Severity::warning}; }

// Of what should be equal.
class Comparison {
public:
    void compare(const Picture& drawn, const Picture& wanted) {
        const auto pixels = static_cast<std::size_t>(wanted.width) * static_cast<std::size_t>(wanted.height);
        const auto channels = static_cast<std::size_t>(wanted.channels);
        const auto stride = static_cast<std::size_t>(drawn.channels);
        for (std::size_t i = 0; i < pixels; ++i) {
            double off = 0;
            for (std::size_t c = 0; c < channels; ++c)
                off = std::max(off, difference(drawn.data[i * stride + c], wanted.data[i * channels + c]));
            if (off > verified_within) {
                ++turned_over_;
            } else {
                largest_ = std::max(largest_, off);
            }
        }
        pixels_ += pixels;
    }
    double largest() const { return largest_; }
    double turned_over() const {
        return pixels_ == 0 ? 0 : static_cast<double>(turned_over_) / static_cast<double>(pixels_);
    }

private:
    static double difference(float drawn, float wanted) {
        // What is no number is left open by GLSL, and infinity with it.
        if (!std::isfinite(wanted)) return 0;
        if (!std::isfinite(drawn)) return 2 * verified_within;
        const double scale =
            std::max({1.0, std::fabs(static_cast<double>(drawn)), std::fabs(static_cast<double>(wanted))});
        return std::fabs(static_cast<double>(drawn) - static_cast<double>(wanted)) / scale;
    }

    double largest_ = 0;
    std::size_t turned_over_ = 0;
    std::size_t pixels_ = 0;
};

// The pictures of one drawing, with their smaller copies, as long as views of them are used.
class ViewedPictures {
public:
    PictureView view(const PicturePtr& picture, const Pass& pass, const std::string& name) {
        if (picture == nullptr) return {};
        const auto sampling = pass.samplings.find(name);
        const Sampling way = sampling != pass.samplings.end() ? sampling->second : Sampling{};
        kept_.push_back(picture);
        PictureView view = view_of(*picture, way);
        if (std::find(pass.pyramids.begin(), pass.pyramids.end(), name) == pass.pyramids.end()) return view;
        auto copies = std::make_unique<Copies>();
        copies->pictures = smaller_copies(*picture, way.weighed && picture->channels == 4);
        for (const Picture& copy : copies->pictures) copies->views.push_back(view_of(copy, way));
        view.smaller = copies->views;
        copies_.push_back(std::move(copies));
        return view;
    }

private:
    struct Copies {
        std::vector<Picture> pictures;
        std::vector<PictureView> views;
    };
    std::vector<PicturePtr> kept_;
    std::vector<std::unique_ptr<Copies>> copies_;
};

Picture with_channels(const Picture& drawn, int channels) {
    if (drawn.channels == channels) return drawn;
    Picture made(drawn.width, drawn.height, channels);
    const auto pixels = static_cast<std::size_t>(drawn.width) * static_cast<std::size_t>(drawn.height);
    for (std::size_t i = 0; i < pixels; ++i) {
        for (std::size_t c = 0; c < static_cast<std::size_t>(channels); ++c)
            made.data[i * static_cast<std::size_t>(channels) + c] =
                drawn.data[i * static_cast<std::size_t>(drawn.channels) + c];
    }
    return made;
}

class Verification {
public:
    Verification(const ShipMaterial& material, const ShippedDrawer& drawer, MomentSource& source, const Cancel& cancel)
        : material_(material), drawer_(drawer), source_(source), cancel_(cancel) {}

    Result<Done> run(const ShipMoment& moment) {
        spent_ = {};
        Result<MomentPictures> wanted = source_.pictures(moment, cancel_);
        if (!wanted) return wanted.fault();
        const double rate = material_.finish().ticks.rate;
        const std::int64_t tick = wanted->ticks.tick;
        const auto since = static_cast<double>(tick - wanted->begin);
        if (tick >= 0) {
            const ShipMoment at{static_cast<double>(tick) / rate, moment.width, moment.height};
            if (Result<Done> done = run_tick(at, *wanted, since); !done) return done;
        }
        const double part = std::clamp(moment.time * rate - static_cast<double>(tick), 0.0, 1.0);
        Result<MomentInputs> inputs =
            source_.inputs(moment, tick >= 0 ? since : std::floor(moment.time * rate), part, cancel_);
        if (!inputs) return inputs.fault();
        put_ticks(*inputs, wanted->ticks.now, present_picture);
        put_ticks(*inputs, wanted->ticks.before.empty() ? wanted->ticks.now : wanted->ticks.before, past_picture);
        Result<PicturePtr> finished = run_passes(PassMoment::frame, moment, *inputs);
        if (!finished) return finished.fault();
        if (*finished != nullptr) comparison_.compare(**finished, wanted->finished.picture);
        least_spent_ = std::min(least_spent_, spent_);
        return Done{};
    }

    const Comparison& comparison() const { return comparison_; }
    double milliseconds() const { return std::chrono::duration<double, std::milli>(least_spent_).count(); }

private:
    using Clock = std::chrono::steady_clock;

    template <class Name>
    static void put_ticks(MomentInputs& inputs, const FlowPictures& pictures, const Name& name) {
        for (const auto& [step, picture] : pictures) inputs.pictures[name(step)] = picture.here;
    }

    // One tick from what the application had before it.
    Result<Done> run_tick(const ShipMoment& at, const MomentPictures& wanted, double since) {
        Result<MomentInputs> inputs = source_.inputs(at, since, 0, cancel_);
        if (!inputs) return inputs.fault();
        const bool begins = wanted.ticks.tick == wanted.begin || wanted.ticks.before.empty();
        for (const TickedStep& step : material_.request.checked->ticked) {
            Picture clear(1, 1, 4);
            std::fill(clear.data.begin(), clear.data.end(), 0.0F);
            inputs->pictures[past_picture(step.name)] = std::make_shared<const Picture>(std::move(clear));
        }
        if (begins) {
            if (Result<PicturePtr> done = run_passes(PassMoment::start, at, *inputs); !done) return done.fault();
            for (const TickedStep& step : material_.request.checked->ticked) {
                if (step.has_start)
                    inputs->pictures[past_picture(step.name)] = inputs->pictures[start_picture(step.name)];
            }
        } else {
            put_ticks(*inputs, wanted.ticks.before, past_picture);
        }
        if (Result<PicturePtr> done = run_passes(PassMoment::tick, at, *inputs); !done) return done.fault();
        for (const auto& [step, picture] : wanted.ticks.now) {
            const auto drawn = inputs->pictures.find(step);
            if (drawn != inputs->pictures.end() && drawn->second != nullptr)
                comparison_.compare(*drawn->second, *picture.here);
        }
        return Done{};
    }

    // Every pass of a kind; what they store goes to the pictures. Gives what the last one drew.
    Result<PicturePtr> run_passes(PassMoment when, const ShipMoment& moment, MomentInputs& inputs) {
        PicturePtr last;
        for (const ShippedPass& shipped : material_.passes) {
            if (shipped.when != when) continue;
            if (cancel_.requested()) return verifying_stopped();
            ViewedPictures viewed;
            std::map<std::string, PictureView, std::less<>> views;
            for (const auto& [name, picture] : inputs.pictures) views[name] = viewed.view(picture, shipped.pass, name);
            const int width = scaled_side(moment.width, shipped.pass.scale);
            const int height = scaled_side(moment.height, shipped.pass.scale);
            inputs.values["lq_drawn_size"] = make_vec2(static_cast<float>(width), static_cast<float>(height));
            const Clock::time_point begun = Clock::now();
            Result<Picture> drawn = drawer_.draw({shipped, width, height, inputs.values, views});
            spent_ += Clock::now() - begun;
            if (!drawn) return drawn.fault();
            const std::string& name = shipped.pass.outputs.front();
            const Resource resource = resource_of(shipped.pass, name);
            Picture stored = with_channels(*drawn, resource.channels);
            const TickedStep* ticked = find_ticked(*material_.request.checked, name);
            if (when == PassMoment::tick && ticked != nullptr && ticked->half) round_to_half(stored);
            last = std::make_shared<const Picture>(std::move(stored));
            inputs.pictures[name] = last;
        }
        return last;
    }

    const ShipMaterial& material_;
    const ShippedDrawer& drawer_;
    MomentSource& source_;
    const Cancel& cancel_;
    Comparison comparison_;
    Clock::duration spent_{};  // of one moment
    Clock::duration least_spent_ = Clock::duration::max();
};

}  // namespace

bool Verified::holds() const { return was_run && turned_over <= most_turned_over; }

VerifyRequest usual_verification(const ShipMaterial& material) {
    constexpr int longest_side = 480;
    constexpr int moments = 5;
    const Finish& finish = material.finish();
    VerifyRequest request;
    const double scale =
        std::min(1.0, static_cast<double>(longest_side) / std::max(finish.frame_width, finish.frame_height));
    request.width = scaled_side(finish.frame_width, scale);
    request.height = scaled_side(finish.frame_height, scale);
    for (int k = 0; k < moments; ++k) request.moments.push_back(finish.length * k / moments);
    return request;
}

Result<Verified> verify_by(const ShipMaterial& material, const ShippedDrawer& drawer, const VerifyRequest& request,
                           WorkerPool& pool, const Cancel& cancel) {
    MomentSource source(material, request.tape, pool);
    Verification verification(material, drawer, source, cancel);
    for (const double time : request.moments) {
        if (Result<Done> done = verification.run({time, request.width, request.height}); !done) return done.fault();
    }
    Verified verified;
    verified.was_run = !request.moments.empty();
    verified.drawn_by = drawer.name;
    verified.largest = verification.comparison().largest();
    verified.turned_over = verification.comparison().turned_over();
    verified.milliseconds = verification.milliseconds();
    verified.moments = request.moments;
    verified.width = request.width;
    verified.height = request.height;
    return verified;
}

}  // namespace lacquer
