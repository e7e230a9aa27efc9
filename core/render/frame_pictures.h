// The pictures at hand while one frame is drawn.
#pragma once

#include <map>
#include <memory>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/flow/kept_pictures.h"
#include "core/gpu/runner.h"
#include "core/picture/sample.h"
#include "core/plan/plan.h"
#include "core/render/picture_store.h"

namespace lacquer {

/// What the passes so far have stored, here or with the graphics driver, and the grounds that were asked for, by name.
class FramePictures {
public:
    FramePictures(PictureStore& store, const Cancel& cancel) : store_(store), cancel_(cancel) {}

    /// A picture to draw on: an old one of the same shape where nothing reads it any more, so its pixels are anything.
    Picture blank(int width, int height, int channels);
    void store(const std::string& name, Picture picture) { stored_[name] = std::move(picture); }
    void store(const std::string& name, GpuPicturePtr picture) { with_driver_[name] = std::move(picture); }
    /// A stored step, to be kept beyond the frame; neither here nor with the driver if it isn't there any more.
    FlowPicture take(const std::string& name);
    /// Nothing reads this stored step any more.
    void release(const std::string& name);

    bool has(const std::string& name) const { return grounds_.contains(name) || with_driver_.contains(name); }
    /// A ground's picture, null where there is none: it is black.
    void put_ground(const std::string& name, PicturePtr picture) { grounds_[name] = std::move(picture); }
    PicturePtr ground(const std::string& name) const;

    /// What a pass reads under this name, as this processor needs it. `weighed` where all of its readings are. What
    /// lies with the driver is fetched.
    PictureView view(const Pass& pass, const std::string& name, bool weighed, ShaderRunner* driver);

    /// A stored step that lies with the driver, with smaller copies where the pass wants them; null where it does not,
    /// or the driver failed.
    GpuPicturePtr with_driver(const Pass& pass, const std::string& name, ShaderRunner& driver);

    /// Fetches all that lies with the driver. False where something can't be had any more.
    bool fetch_all(ShaderRunner& driver);

private:
    struct Copies {
        KeptPictures pictures;
        std::vector<PictureView> views;
    };
    Sampling read_as(const Pass& pass, const std::string& name, const Picture& picture, bool weighed, bool is_ground);

    PictureStore& store_;
    const Cancel cancel_;
    std::map<std::string, Picture, std::less<>> stored_;
    std::map<std::string, GpuPicturePtr, std::less<>> with_driver_;
    std::set<std::string, std::less<>> copied_by_driver_;
    std::map<std::string, PicturePtr, std::less<>> grounds_;
    std::map<std::string, std::map<bool, Copies>, std::less<>> copies_;  // by whether they are weighed
    std::map<std::string, bool, std::less<>> all_opaque_;                // stored steps of which that has been asked
    std::vector<Picture> spare_;
};

}  // namespace lacquer
