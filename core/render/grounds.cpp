#include "core/render/grounds.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/finish/file.h"
#include "core/picture/sample.h"
#include "core/picture/sprite.h"

namespace lacquer {

namespace {

// What laying the parts of a sprite may take: a second or two.
constexpr std::int64_t most_touched = std::int64_t{1} << 28U;

Fault ground_fault(const char* id, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {}, Severity::fault};
}

const std::string& layer_name(const CaptureLayers& layers, GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            return layers.colour;
        case GroundLayer::depth:
            return layers.depth;
        case GroundLayer::normal:
            return layers.normal;
        case GroundLayer::position:
            return layers.position;
        case GroundLayer::id:
        case GroundLayer::marks:
        case GroundLayer::part:
        case GroundLayer::share:
        case GroundLayer::age:
        case GroundLayer::seed:
        case GroundLayer::place:
        case GroundLayer::push:
            break;
    }
    return layers.id;
}

SpriteLayer sprite_layer(GroundLayer layer) {
    switch (layer) {
        case GroundLayer::normal:
            return SpriteLayer::normal;
        case GroundLayer::part:
            return SpriteLayer::part;
        case GroundLayer::share:
            return SpriteLayer::share;
        case GroundLayer::colour:
        case GroundLayer::depth:
        case GroundLayer::position:
        case GroundLayer::id:
        case GroundLayer::marks:
        case GroundLayer::age:
        case GroundLayer::seed:
        case GroundLayer::place:
        case GroundLayer::push:
            break;
    }
    return SpriteLayer::colour;
}

Picture marked_mask(const Picture& layer, const std::vector<int>& chosen) {
    const std::optional<Picture> numbers = decoded(view_of(layer));
    const Picture& ids = numbers ? *numbers : layer;
    Picture mask(ids.width, ids.height, 4);
    for (std::size_t i = 0; i < mask.data.size(); i += 4) {
        const bool is_chosen =
            std::any_of(chosen.begin(), chosen.end(), [&](int own) { return static_cast<float>(own) == ids.data[i]; });
        mask.data[i] = mask.data[i + 1] = mask.data[i + 2] = is_chosen ? 1.0F : 0.0F;
        mask.data[i + 3] = 1;
    }
    return mask;
}

}  // namespace

Result<PicturePtr> GroundStore::told(Result<PicturePtr> read, const std::string& path) {
    if (!read && read.fault().id == reading_stopped().id) stopped_[path] = PictureStore::state_of(path);
    return read;
}

bool GroundStore::was_stopped(const std::string& path) const {
    const auto found = stopped_.find(path);
    return found != stopped_.end() && found->second == PictureStore::state_of(path);
}

ReadWatch GroundStore::told_of(const std::string& path) const {
    return [this, path](double share) { return watch_ == nullptr || watch_(path, share); };
}

Result<PicturePtr> GroundStore::file(const std::string& path, PictureMeaning meaning, int frame) {
    if (was_stopped(path)) return reading_stopped(path);
    return told(pictures_->file(path, meaning, frame, told_of(path)), path);
}

Result<PicturePtr> GroundStore::layer_of(const std::string& path, const std::string& name, PictureMeaning meaning) {
    if (was_stopped(path)) return reading_stopped(path);
    return told(pictures_->layer(path, name, meaning, told_of(path)), path);
}

// Colours are averaged; of what cannot be averaged, one pixel in so many is kept.
PicturePtr GroundStore::fitted(const PicturePtr& whole, GroundLayer layer, const GroundUse& use) {
    return use.small ? pictures_->smaller(whole, use.width, use.height, layer == GroundLayer::colour) : whole;
}

Result<PicturePtr> GroundStore::picture(const NamedPicture& named, const GroundUse& use, const Cancel& cancel) {
    const Ground& ground = *named.ground;
    const Asked asked{ground.name, named.picture.layer, use, cancel, meaning_of(ground)};
    return std::visit([&](const auto& kind) { return drawn(kind, asked); }, ground.kind);
}

// The file's picture at this moment, or the sheet's cell.
Result<PicturePtr> GroundStore::drawn(const PictureGround& ground, const Asked& asked) {
    const GroundUse& use = asked.use;
    const std::string path = picture_path(use.finish_path, ground.path);
    const SheetCells& cells = ground.cells;
    const bool sheet = cells.columns * cells.rows > 1;
    const Result<PicturePtr> whole = file(path, asked.meaning, sheet ? 0 : frame_at(pictures_->frames(path), use.time));
    if (!whole) return whole.fault();
    if (!sheet) return fitted(*whole, GroundLayer::colour, use);
    const int count = std::clamp(cells.count, 1, cells.columns * cells.rows);
    const int now = static_cast<int>(std::fmod(std::floor(std::max(0.0, use.time) * cells.rate), count));
    return pictures_->cell(*whole, cells.columns, cells.rows, now);
}

Result<PicturePtr> GroundStore::drawn(const GradientGround&, const Asked&) { return PicturePtr(); }

Result<PicturePtr> GroundStore::drawn(const CurveGround&, const Asked&) { return PicturePtr(); }

Result<PicturePtr> GroundStore::drawn(const SceneGround& ground, const Asked& asked) {
    const GroundUse& use = asked.use;
    return casts_.cast(seen_view(*use.finish, ground), asked.layer, {use.time, use.width, use.height, use.wanted},
                       asked.cancel);
}

Result<PicturePtr> GroundStore::drawn(const CaptureGround& ground, const Asked& asked) {
    const std::string path = picture_path(asked.use.finish_path, ground.path);
    const Result<std::vector<PictureLayer>> there = pictures_->layers(path);
    if (!there) return there.fault();
    const CaptureLayers layers = found_layers(*there, ground.layers);
    const std::string& name = layer_name(layers, asked.layer);
    if (name == no_layer)
        return ground_fault("ground.no-layer", "the capture holds no such layer",
                            "name it in the ground's page, or capture it");
    const bool plain = asked.layer == GroundLayer::colour && name.empty() && there->size() == 1;
    const Result<PicturePtr> whole = plain ? file(path, asked.meaning) : layer_of(path, name, asked.meaning);
    if (!whole) return whole.fault();
    return fitted(*whole, asked.layer, asked.use);
}

Result<PicturePtr> GroundStore::drawn(const MarksGround& ground, const Asked& asked) {
    const Ground* of = find_ground(*asked.use.finish, ground.of);
    if (of == nullptr || !has_layers(*of))
        return ground_fault("ground.no-scene", "it marks objects of a scene that is not there", "choose the scene");
    const Result<PicturePtr> ids =
        picture({of, {of->name, GroundLayer::id, Type::number, {}}}, asked.use, asked.cancel);
    if (!ids) return ids.fault();
    std::string key = "marked";
    for (const int id : ground.ids) key += fmt::format(" {}", id);
    return pictures_->made_of(key, {{*ids}}, [&] { return alone(marked_mask(**ids, ground.ids)); }).front();
}

Result<LaidPart> GroundStore::part_of(const SpritePart& part, const Asked& asked) {
    const std::string path = picture_path(asked.use.finish_path, part.path);
    const Result<PicturePtr> colour =
        part.layer.empty() ? file(path, asked.meaning) : layer_of(path, part.layer, asked.meaning);
    if (!colour) return colour.fault();
    PicturePtr normal;
    if (!part.normal.empty()) {
        const Result<PicturePtr> read = file(picture_path(asked.use.finish_path, part.normal), PictureMeaning::data);
        if (!read) return read.fault();
        normal = *read;
    }
    return LaidPart{*colour, normal, part.x, part.y, part.scale, part.share, part.turn, part.mirrored};
}

Result<PicturePtr> GroundStore::drawn(const SpriteGround& sprite, const Asked& asked) {
    if (sprite.parts.empty()) return ground_fault("ground.no-part", "it has no parts", "add one on its page");
    std::vector<LaidPart> parts;
    std::vector<PicturePtr> from;
    std::string key = fmt::format("sprite {} {}", sprite.width, sprite.height);
    for (const SpritePart& part : sprite.parts) {
        Result<LaidPart> found = part_of(part, asked);
        if (!found) return found.fault();
        key += fmt::format(" {} {} {} {} {} {}", part.x, part.y, part.scale, part.share, part.turn, part.mirrored);
        from.push_back(found->colour);
        from.push_back(found->normal);
        parts.push_back(std::move(*found));
    }
    if (const std::int64_t touched = touched_pixels(parts, sprite.width, sprite.height); touched > most_touched) {
        return ground_fault(
            "ground.too-many-pixels",
            fmt::format("its parts lie over {} million pixels, all together, which is more than {} million",
                        touched / 1'000'000, most_touched / 1'000'000),
            "make it smaller, or scale parts down");
    }
    const SpriteLayer layer = sprite_layer(asked.layer);
    const std::size_t bytes = sizeof(float) * static_cast<std::size_t>(channels_of(layer)) *
                              static_cast<std::size_t>(sprite.width) * static_cast<std::size_t>(sprite.height);
    const Result<PicturePtr> made = pictures_->made_within(
        fmt::format("{} {}", key, static_cast<int>(layer)), from, bytes, [&]() -> Result<Picture> {
            Picture picture = lay_parts(parts, sprite.width, sprite.height, layer, pool_, asked.cancel);
            if (asked.cancel.requested()) return cancelled_fault();
            return picture;
        });
    if (!made) return made.fault();
    return fitted(*made, asked.layer, asked.use);
}

Result<PicturePtr> GroundStore::drawn(const DropletsGround& ground, const Asked& asked) {
    const GroundUse& use = asked.use;
    DropSprite sprite;
    if (ground.drops.shape == DropShape::picture) {
        const Result<PicturePtr> whole = file(picture_path(use.finish_path, ground.picture), asked.meaning);
        if (!whole) return whole.fault();
        sprite.levels = pictures_->copies(*whole, true);
        sprite.levels.insert(sprite.levels.begin(), *whole);
    }
    return drops_.picture({use.play, asked.ground, use.time, use.width, use.height}, sprite, asked.layer, use.of_drops,
                          asked.cancel);
}

Result<PicturePtr> GroundStore::drawn(const TableGround& ground, const Asked& asked) {
    return pictures_->table(picture_path(asked.use.finish_path, ground.path));
}

}  // namespace lacquer
