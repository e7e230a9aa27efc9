#include "core/render/drop_pictures.h"

#include <algorithm>
#include <utility>

namespace lacquer {

namespace {

// A frame and its thumbnails, of two grounds.
constexpr std::size_t most_kept = 4;

}  // namespace

std::optional<DropLayer> drop_layer(GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            return DropLayer::colour;
        case GroundLayer::age:
            return DropLayer::age;
        case GroundLayer::seed:
            return DropLayer::seed;
        case GroundLayer::place:
            return DropLayer::place;
        case GroundLayer::push:
            return DropLayer::push;
        case GroundLayer::depth:
        case GroundLayer::normal:
        case GroundLayer::position:
        case GroundLayer::id:
        case GroundLayer::marks:
        case GroundLayer::part:
        case GroundLayer::share:
            break;
    }
    return std::nullopt;
}

Result<PicturePtr> DropDrawings::picture(const DropMoment& moment, const DropSprite& sprite, GroundLayer layer,
                                         const std::map<std::string, DropLayers, std::less<>>& wanted,
                                         const Cancel& cancel) {
    const std::optional<DropLayer> asked = drop_layer(layer);
    const Emitter* emitter = moment.play != nullptr ? moment.play->emitter(moment.ground) : nullptr;
    if (!asked || emitter == nullptr) return PicturePtr();
    const auto known =
        std::find_if(drawn_.begin(), drawn_.end(), [&](const Drawn& drawn) { return drawn.moment == moment; });
    const auto index = static_cast<std::size_t>(*asked);
    if (known != drawn_.end() && known->layers[index] != nullptr) {
        drawn_.splice(drawn_.begin(), drawn_, known);
        return PicturePtr(drawn_.front().layers[index]);
    }
    DropLayers layers;
    if (const auto all = wanted.find(moment.ground); all != wanted.end()) layers = all->second;
    layers[*asked] = true;
    const LiveDrops live = emitter->alive(moment.time, moment.width, moment.height, &pool_);
    DropPictures pictures = draw_drops(live, emitter->droplets(), sprite, moment.width, moment.height, layers, pool_,
                                       cancel, take_oldest());
    if (cancel.requested()) return cancelled_fault();
    note(moment, live, emitter->droplets(), sprite);
    Drawn drawn{moment, {}};
    for (std::size_t i = 0; i < drawn.layers.size(); ++i) {
        if (layers.wanted[i]) drawn.layers[i] = std::make_shared<Picture>(std::move(pictures.layers[i]));
    }
    drawn_.push_front(std::move(drawn));

    return PicturePtr(drawn_.front().layers[index]);
}

// Pictures that nobody else holds any more, to be written over: fresh memory costs as much as drawing does.
DropPictures DropDrawings::take_oldest() {
    DropPictures old;
    if (drawn_.size() < most_kept) return old;
    for (std::size_t i = 0; i < drawn_.back().layers.size(); ++i) {
        std::shared_ptr<Picture>& picture = drawn_.back().layers[i];
        if (picture != nullptr && picture.use_count() == 1) old.layers[i] = std::move(*picture);
    }
    drawn_.pop_back();
    return old;
}

void DropDrawings::note(const DropMoment& moment, const LiveDrops& live, const Droplets& droplets,
                        const DropSprite& sprite) {
    const auto warn = [&](const char* id, std::string message, std::string mend) {
        notices_.push_back({id, std::move(message), std::move(mend), {moment.ground, {}, 0, 0}, Severity::warning});
    };
    if (live.capped) {
        const auto most = static_cast<int>(std::min(droplets.number(DropNumberId::most).from, 1.0 * most_drops));
        warn("droplets.many",
             "more of '" + moment.ground + "' would live than " + std::to_string(most) +
                 " at a time: the oldest are left out",
             "let fewer be born, or let them live shorter");
    }
    if (sprite.levels.empty()) return;
    double largest = 0;
    for (const Drop& drop : live.drops) largest = std::max(largest, 2 * std::max(drop.along, drop.across));
    const Picture& whole = *sprite.levels.front();
    const int across = std::max(whole.width / std::max(1, droplets.columns), whole.height / std::max(1, droplets.rows));
    if (largest > across + 0.5) {
        warn("droplets.enlarged",
             "the picture of '" + moment.ground + "' is shown " + std::to_string(static_cast<int>(largest)) +
                 " pixels large and has " + std::to_string(across),
             "use a larger picture, or smaller drops");
    }
}

}  // namespace lacquer
