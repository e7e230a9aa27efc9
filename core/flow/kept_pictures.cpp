#include "core/flow/kept_pictures.h"

#include <algorithm>

#include "core/picture/half.h"

namespace lacquer {

bool are_here(const FlowPictures& pictures) {
    return std::all_of(pictures.begin(), pictures.end(), [](const auto& each) { return each.second.here != nullptr; });
}

void round_to_half(Picture& picture) {
    for (float& number : picture.data) number = float_from(half_from(number));
}

KeptFlowPictures kept_pictures(const FlowPictures& pictures, const std::set<std::string, std::less<>>& halves) {
    KeptFlowPictures kept;
    for (const auto& [name, left] : pictures) {
        const std::shared_ptr<const Picture>& picture = left.here;
        if (!halves.contains(name)) {
            kept[name].whole = picture;
            continue;
        }
        auto half = std::make_shared<HalfPicture>(HalfPicture{picture->width, picture->height, picture->channels, {}});
        half->data.resize(picture->data.size());
        std::transform(picture->data.begin(), picture->data.end(), half->data.begin(), half_from);
        kept[name].half = std::move(half);
    }
    return kept;
}

FlowPictures used_pictures(const KeptFlowPictures& kept) {
    FlowPictures pictures;
    for (const auto& [name, picture] : kept) {
        if (picture.whole != nullptr) {
            pictures[name].here = picture.whole;
            continue;
        }
        auto whole = std::make_shared<Picture>(picture.half->width, picture.half->height, picture.half->channels);
        std::transform(picture.half->data.begin(), picture.half->data.end(), whole->data.begin(), float_from);
        pictures[name].here = std::move(whole);
    }
    return pictures;
}

std::size_t bytes_of(const KeptFlowPictures& kept) {
    std::size_t bytes = 0;
    for (const auto& [name, picture] : kept)
        bytes += picture.whole != nullptr ? picture.whole->data.size() * sizeof(float)
                                          : picture.half->data.size() * sizeof(std::uint16_t);
    return bytes;
}

}  // namespace lacquer
