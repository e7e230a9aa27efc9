#include "core/render/frame_pictures.h"

#include <algorithm>
#include <utility>

namespace lacquer {

namespace {

bool wants_copies(const Pass& pass, const std::string& name) {
    return std::find(pass.pyramids.begin(), pass.pyramids.end(), name) != pass.pyramids.end();
}

KeptPictures copies_of(const Picture& picture, bool weighed, const Cancel& cancel) {
    KeptPictures copies;
    for (Picture& copy : smaller_copies(picture, weighed, cancel))
        copies.push_back(std::make_shared<const Picture>(std::move(copy)));
    return copies;
}

}  // namespace

Picture FramePictures::blank(int width, int height, int channels) {
    const auto fits = [&](const Picture& picture) {
        return picture.width == width && picture.height == height && picture.channels == channels;
    };
    const auto found = std::find_if(spare_.begin(), spare_.end(), fits);
    if (found == spare_.end()) return {width, height, channels};
    Picture taken = std::move(*found);
    spare_.erase(found);
    return taken;
}

void FramePictures::release(const std::string& name) {
    with_driver_.erase(name);
    copied_by_driver_.erase(name);
    const auto found = stored_.find(name);
    if (found == stored_.end()) return;
    spare_.push_back(std::move(found->second));
    stored_.erase(found);
    copies_.erase(name);
    all_opaque_.erase(name);
}

FlowPicture FramePictures::take(const std::string& name) {
    if (const auto found = stored_.find(name); found != stored_.end()) {
        auto taken = std::make_shared<const Picture>(std::move(found->second));
        stored_.erase(found);
        return {std::move(taken), {}};
    }
    const auto away = with_driver_.find(name);
    return {{}, away != with_driver_.end() ? away->second : GpuPicturePtr()};
}

PicturePtr FramePictures::ground(const std::string& name) const {
    const auto found = grounds_.find(name);
    return found != grounds_.end() ? found->second : PicturePtr();
}

// Where all of it is opaque, its opacity need not be looked at.
Sampling FramePictures::read_as(const Pass& pass, const std::string& name, const Picture& picture, bool weighed,
                                bool is_ground) {
    const auto sampling = pass.samplings.find(name);
    Sampling read_as = sampling != pass.samplings.end() ? sampling->second : Sampling{};
    read_as.weighed = (read_as.weighed || weighed) && picture.channels == 4;
    if (!read_as.weighed) return read_as;
    if (is_ground) {
        read_as.weighed = !store_.opaque(ground(name));
    } else {
        const auto [known, is_new] = all_opaque_.try_emplace(name);
        if (is_new) known->second = is_opaque(picture);
        read_as.weighed = !known->second;
    }
    return read_as;
}

PictureView FramePictures::view(const Pass& pass, const std::string& name, bool weighed, ShaderRunner* driver) {
    const auto away = with_driver_.find(name);
    if (away != with_driver_.end() && !stored_.contains(name)) {
        Result<Picture> fetched = driver != nullptr ? driver->fetch(*away->second) : Result<Picture>(Picture(1, 1, 4));
        if (fetched) stored_[name] = std::move(*fetched);
    }
    const auto stored = stored_.find(name);
    const bool is_ground = stored == stored_.end();
    const PicturePtr whole = is_ground ? ground(name) : PicturePtr();
    if (is_ground && whole == nullptr) return {};
    const Picture& picture = is_ground ? *whole : stored->second;
    const Sampling sampling = read_as(pass, name, picture, weighed, is_ground);
    PictureView view = view_of(picture, sampling);
    if (!wants_copies(pass, name)) return view;
    Copies& copies = copies_[name][sampling.weighed];
    if (copies.views.empty()) {
        copies.pictures =
            is_ground ? store_.copies(whole, sampling.weighed) : copies_of(picture, sampling.weighed, cancel_);
        for (const PicturePtr& copy : copies.pictures) copies.views.push_back(view_of(*copy, sampling));
    }
    view.smaller = copies.views;
    return view;
}

GpuPicturePtr FramePictures::with_driver(const Pass& pass, const std::string& name, ShaderRunner& driver) {
    const auto found = with_driver_.find(name);
    if (found == with_driver_.end()) return {};
    if (wants_copies(pass, name) && !copied_by_driver_.contains(name)) {
        if (!driver.add_smaller_copies(*found->second)) return {};
        copied_by_driver_.insert(name);
    }
    return found->second;
}

bool FramePictures::fetch_all(ShaderRunner& driver) {
    bool are_whole = true;
    for (const auto& [name, picture] : with_driver_) {
        if (stored_.contains(name)) continue;
        Result<Picture> fetched = driver.fetch(*picture);
        are_whole = are_whole && fetched;
        if (fetched) stored_[name] = std::move(*fetched);
    }
    with_driver_.clear();
    copied_by_driver_.clear();
    return are_whole;
}

}  // namespace lacquer
