#include "core/render/grounds.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <system_error>

#include "core/finish/file.h"
#include "core/picture/cube.h"
#include "core/picture/sample.h"
#include "core/picture/sprite.h"

namespace lacquer {

namespace {

// The stage and small pictures, each of two moments.
constexpr std::size_t most_casts = 4;
constexpr std::size_t most_marked = 8;
constexpr std::size_t most_laid = 8;
constexpr std::size_t most_kept_of_an_animation = std::size_t{384} * 1024 * 1024;  // bytes

Fault ground_fault(const char* id, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {}, Severity::fault};
}

std::filesystem::file_time_type time_of(const std::string& path) {
    std::error_code code;
    return std::filesystem::last_write_time(path, code);
}

bool has(const SceneLayerSet& set, GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            return set.colour;
        case GroundLayer::depth:
            return set.depth;
        case GroundLayer::normal:
            return set.normal;
        case GroundLayer::position:
            return set.position;
        case GroundLayer::id:
        case GroundLayer::marks:
        case GroundLayer::part:
        case GroundLayer::share:
            break;
    }
    return set.id;
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
            break;
    }
    return layers.id;
}

// The value of a function, to be shared; its fault as it is.
Result<PicturePtr> held(Result<Picture> read) {
    if (!read) return read.fault();
    return PicturePtr(std::make_shared<const Picture>(std::move(*read)));
}

}  // namespace

void add_layer(SceneLayerSet& set, GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            set.colour = true;
            return;
        case GroundLayer::depth:
            set.depth = true;
            return;
        case GroundLayer::normal:
            set.normal = true;
            return;
        case GroundLayer::position:
            set.position = true;
            return;
        case GroundLayer::id:
        case GroundLayer::marks:
            set.id = true;
            return;
        case GroundLayer::part:
        case GroundLayer::share:
            return;
    }
}

// Which of a file's pictures is shown at a moment.
int GroundStore::frame_of(const std::string& path, double time) {
    const auto changed = time_of(path);
    const auto [place, fresh] = frames_.try_emplace(path);
    auto& [when, frames] = place->second;
    if (fresh || when != changed) {
        const Result<PictureFrames> told = picture_frames(path);
        when = changed;
        frames = told ? *told : PictureFrames{};
    }
    return frame_at(frames, time);
}

ReadWatch GroundStore::told_of(const std::string& path) const {
    return [this, path](double share) { return watch_ == nullptr || watch_(path, share); };
}

GroundStore::Entry& GroundStore::entry(const std::string& path, PictureMeaning meaning, int frame) {
    const auto changed = time_of(path);
    // Of a long animation only what was shown last: each frame is as large as a picture.
    const auto of_file = [&](const auto& kept) { return std::get<0>(kept.first) == path; };
    const auto add_bytes = [&](std::size_t bytes, const auto& kept) {
        const Result<PicturePtr>& picture = kept.second.picture;
        return bytes + (of_file(kept) && picture && *picture != nullptr ? (*picture)->data.size() * sizeof(float) : 0);
    };
    if (frame > 0 && !entries_.contains({path, meaning, frame}) &&
        std::accumulate(entries_.begin(), entries_.end(), std::size_t{0}, add_bytes) > most_kept_of_an_animation)
        std::erase_if(entries_, of_file);
    const auto [place, fresh] = entries_.try_emplace({path, meaning, frame});
    Entry& entry = place->second;
    if (fresh || entry.changed != changed) {
        entry = Entry{};
        entry.changed = changed;
        entry.picture = held(read_picture_watched(path, meaning, frame, told_of(path)));
    }
    return entry;
}

// Colours are averaged; of what cannot be averaged every so manieth pixel is kept.
PicturePtr GroundStore::small_of(Entry& entry, GroundLayer layer, int width, int height) {
    if (entry.small == nullptr || entry.small_size != std::pair(width, height)) {
        const Picture& whole = **entry.picture;
        entry.small = std::make_shared<const Picture>(layer == GroundLayer::colour ? shrink_to(whole, width, height)
                                                                                   : thinned_to(whole, width, height));
        entry.small_size = {width, height};
    }
    return entry.small;
}

Result<PicturePtr> GroundStore::file(const std::string& path, PictureMeaning meaning, int frame) {
    return entry(path, meaning, frame).picture;
}

Result<PicturePtr> GroundStore::small_file(const std::string& path, PictureMeaning meaning, int width, int height,
                                           int frame) {
    Entry& found = entry(path, meaning, frame);
    if (!found.picture) return found.picture.fault();
    return small_of(found, GroundLayer::colour, width, height);
}

Result<PicturePtr> GroundStore::picture(const NamedPicture& named, const GroundUse& use, const Cancel& cancel) {
    const Ground& ground = *named.ground;
    switch (ground.kind) {
        case GroundKind::picture: {
            const std::string path = picture_path(use.finish_path, ground.path);
            const PictureMeaning meaning = meaning_of(ground);
            if (ground.cells.columns * ground.cells.rows > 1) return cell(ground, use);
            const int frame = frame_of(path, use.time);
            return use.small ? small_file(path, meaning, use.width, use.height, frame) : file(path, meaning, frame);
        }
        case GroundKind::scene:
            return cast(seen_view(*use.finish, ground), named.picture.layer, use, cancel);
        case GroundKind::capture:
            return captured(ground, named.picture.layer, use);
        case GroundKind::marks:
            return marked(ground, use, cancel);
        case GroundKind::table:
            return table(picture_path(use.finish_path, ground.path));
        case GroundKind::sprite:
            return laid(ground, named.picture.layer, use);
        case GroundKind::gradient:
        case GroundKind::curve:
            break;
    }
    return PicturePtr();
}

// Its pictures are kept to be written over, those that nobody else holds.
void GroundStore::drop_oldest_cast() {
    Cast& oldest = casts_.back();
    const auto take = [&](GroundLayer layer, Picture& to) {
        const auto found = oldest.pictures.find(layer);
        if (found != oldest.pictures.end() && found->second.use_count() == 1) to = std::move(*found->second);
    };
    take(GroundLayer::colour, old_cast_.colour);
    take(GroundLayer::depth, old_cast_.depth);
    take(GroundLayer::normal, old_cast_.normal);
    take(GroundLayer::position, old_cast_.position);
    take(GroundLayer::id, old_cast_.id);
    casts_.pop_back();
}

Result<PicturePtr> GroundStore::cast(const SceneView& view, GroundLayer layer, const GroundUse& use,
                                     const Cancel& cancel) {
    const ScenePlace* place = find_place(view.place);
    if (place == nullptr) return ground_fault("ground.no-scene", "there is no such place", "choose another");
    auto found = std::find_if(casts_.begin(), casts_.end(), [&](const Cast& cast) {
        return cast.time == use.time && cast.width == use.width && cast.height == use.height && cast.view == view;
    });
    if (found == casts_.end()) {
        casts_.push_front({view, use.time, use.width, use.height, {}});
        if (casts_.size() > most_casts) drop_oldest_cast();
        found = casts_.begin();
    }
    casts_.splice(casts_.begin(), casts_, found);
    Cast& own = casts_.front();
    if (!own.pictures.contains(layer)) {
        SceneLayerSet wanted = use.wanted;
        add_layer(wanted, layer);
        SceneLayers cast_layers =
            cast_world(place->world(view.hour, use.time), camera_at(view.camera, view.path, use.time), use.width,
                       use.height, wanted, pool_, cancel, std::exchange(old_cast_, SceneLayers()));
        if (cancel.requested())
            return Fault{"render.cancelled", "the drawing was called off", "", {}, Severity::warning};
        const auto keep = [&](GroundLayer as, Picture& picture) {
            if (has(wanted, as)) own.pictures[as] = std::make_shared<Picture>(std::move(picture));
        };
        keep(GroundLayer::colour, cast_layers.colour);
        keep(GroundLayer::depth, cast_layers.depth);
        keep(GroundLayer::normal, cast_layers.normal);
        keep(GroundLayer::position, cast_layers.position);
        keep(GroundLayer::id, cast_layers.id);
    }
    return PicturePtr(own.pictures[layer]);
}

Result<PicturePtr> GroundStore::captured(const Ground& ground, GroundLayer layer, const GroundUse& use) {
    const std::string path = picture_path(use.finish_path, ground.path);
    const auto changed = time_of(path);
    const auto [place, fresh] = captures_.try_emplace(path);
    CapturedFile& file = place->second;
    if (fresh || file.changed != changed) {
        file = CapturedFile{};
        file.changed = changed;
        file.layers = picture_layers(path);
    }
    if (!file.layers) return file.layers.fault();
    const CaptureLayers layers = found_layers(*file.layers, ground.layers);
    const std::string& name = layer_name(layers, layer);
    if (name == no_layer)
        return ground_fault("ground.no-layer", "the capture holds no such layer",
                            "name it in the ground's page, or capture it");
    const auto [read, first] = file.read.try_emplace(name);
    Entry& entry = read->second;
    if (first) {
        const bool plain = layer == GroundLayer::colour && name.empty() && file.layers->size() == 1;
        entry.picture = held(plain ? read_picture_watched(path, PictureMeaning::colour, 0, told_of(path))
                                   : read_layer_watched(path, name, told_of(path)));
    }
    if (!entry.picture) return entry.picture.fault();
    return use.small ? small_of(entry, layer, use.width, use.height) : *entry.picture;
}

Result<PicturePtr> GroundStore::table(const std::string& path) {
    const auto changed = time_of(path);
    const auto [place, fresh] = tables_.try_emplace(path);
    Entry& entry = place->second;
    if (fresh || entry.changed != changed) {
        entry = Entry{};
        entry.changed = changed;
        Result<CubeTable> read = read_cube(path);
        entry.picture = read ? held(std::move(read->picture)) : read.fault();
    }
    return entry.picture;
}

// A sheet's cell at this moment.
Result<PicturePtr> GroundStore::cell(const Ground& ground, const GroundUse& use) {
    const std::string path = picture_path(use.finish_path, ground.path);
    const Result<PicturePtr> sheet = file(path, meaning_of(ground));
    if (!sheet) return sheet.fault();
    const SheetCells& cells = ground.cells;
    const int count = std::clamp(cells.count, 1, cells.columns * cells.rows);
    const int now = static_cast<int>(std::fmod(std::floor(std::max(0.0, use.time) * cells.rate), count));
    auto& [from, cut] = cells_[path + "\n" + std::to_string(cells.columns) + " " + std::to_string(cells.rows) + " " +
                               std::to_string(now)];
    if (from != *sheet) {
        from = *sheet;
        cut = std::make_shared<const Picture>(sheet_cell(**sheet, cells.columns, cells.rows, now));
    }
    return cut;
}

Result<PicturePtr> GroundStore::laid(const Ground& ground, GroundLayer layer, const GroundUse& use) {
    const Sprite& sprite = ground.sprite;
    std::vector<std::filesystem::file_time_type> changed;
    for (const std::string& path : paths_of(ground)) changed.push_back(time_of(picture_path(use.finish_path, path)));
    auto found = std::find_if(laid_.begin(), laid_.end(), [&](const Laid& l) {
        return l.sprite == sprite && l.multiplied == ground.multiplied && l.changed == changed;
    });
    if (found == laid_.end()) {
        if (sprite.parts.empty()) return ground_fault("ground.no-part", "it has no parts", "add one on its page");
        std::vector<LaidPart> parts;
        for (const SpritePart& part : sprite.parts) {
            const std::string path = picture_path(use.finish_path, part.path);
            Result<PicturePtr> colour = PicturePtr();
            if (part.layer.empty()) {
                colour = file(path, meaning_of(ground));
            } else {
                colour = held(read_layer_watched(path, part.layer, told_of(path)));
            }
            if (!colour) return colour.fault();
            PicturePtr normal;
            if (!part.normal.empty()) {
                const Result<PicturePtr> read = file(picture_path(use.finish_path, part.normal), PictureMeaning::data);
                if (!read) return read.fault();
                normal = *read;
            }
            parts.push_back({*colour, normal, part.x, part.y, part.scale, part.share, part.turn, part.mirrored});
        }
        SpritePictures made = lay_parts(parts, sprite.width, sprite.height);
        laid_.push_front({sprite, ground.multiplied, changed, {}});
        if (laid_.size() > most_laid) laid_.pop_back();
        found = laid_.begin();
        const auto keep = [&](GroundLayer as, Picture& picture) {
            found->pictures[as].picture = PicturePtr(std::make_shared<const Picture>(std::move(picture)));
        };
        keep(GroundLayer::colour, made.colour);
        keep(GroundLayer::normal, made.normal);
        keep(GroundLayer::part, made.part);
        keep(GroundLayer::share, made.share);
    }
    Entry& entry = found->pictures[layer];
    return use.small ? small_of(entry, layer, use.width, use.height) : *entry.picture;
}

Result<PicturePtr> GroundStore::marked(const Ground& ground, const GroundUse& use, const Cancel& cancel) {
    const Ground* of = find_ground(*use.finish, ground.of);
    if (of == nullptr || !has_layers(of->kind))
        return ground_fault("ground.no-scene", "it marks objects of a scene that is not there", "choose the scene");
    GroundUse of_ids = use;
    const Result<PicturePtr> ids = picture({of, {of->name, GroundLayer::id, Type::number, {}}}, of_ids, cancel);
    if (!ids) return ids.fault();
    for (const Marked& marked : marked_) {
        if (marked.ids == *ids && marked.chosen == ground.ids) return marked.mask;
    }
    Picture mask((*ids)->width, (*ids)->height, 4);
    for (std::size_t i = 0; i < mask.data.size(); i += 4) {
        const float id = (*ids)->data[i];
        const bool chosen =
            std::any_of(ground.ids.begin(), ground.ids.end(), [&](int own) { return static_cast<float>(own) == id; });
        mask.data[i] = mask.data[i + 1] = mask.data[i + 2] = chosen ? 1.0F : 0.0F;
        mask.data[i + 3] = 1;
    }
    marked_.push_front({*ids, ground.ids, std::make_shared<const Picture>(std::move(mask))});
    if (marked_.size() > most_marked) marked_.pop_back();
    return marked_.front().mask;
}

}  // namespace lacquer
