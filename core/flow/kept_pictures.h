// The pictures of a tick, as they are used and as they are kept.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/picture/picture.h"

namespace lacquer {

class GpuPicture;

/// What a step leaves after a tick: here, with the graphics driver, or both.
struct FlowPicture {
    std::shared_ptr<const Picture> here;
    std::shared_ptr<const GpuPicture> with_driver;
};

/// By the name of the step.
using FlowPictures = std::map<std::string, FlowPicture, std::less<>>;

/// Whether none of them lies with the driver alone.
bool are_here(const FlowPictures& pictures);

/// A picture whose numbers are halves, in half the room.
struct HalfPicture {
    int width = 0;
    int height = 0;
    int channels = 0;
    std::vector<std::uint16_t> data;
};

/// Either of them is null.
struct KeptPicture {
    std::shared_ptr<const Picture> whole;
    std::shared_ptr<const HalfPicture> half;
};

using KeptFlowPictures = std::map<std::string, KeptPicture, std::less<>>;

/// Each number as the nearest half.
void round_to_half(Picture& picture);

/// As they are kept, all of them being here: those of `halves` in half the room, which loses nothing, as their numbers
/// are halves already.
KeptFlowPictures kept_pictures(const FlowPictures& pictures, const std::set<std::string, std::less<>>& halves);
FlowPictures used_pictures(const KeptFlowPictures& kept);

std::size_t bytes_of(const KeptFlowPictures& kept);

}  // namespace lacquer
