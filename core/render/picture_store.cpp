#include "core/render/picture_store.h"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <numeric>
#include <optional>
#include <system_error>
#include <utility>

#include "core/base/guarded.h"
#include "core/picture/coded.h"
#include "core/picture/cube.h"
#include "core/picture/sample.h"

namespace lacquer {

namespace {

constexpr std::size_t least_cost = 256;  // of what has no pixels: faults are kept, too
constexpr std::size_t most_asked = 256;  // pictures of which it is known whether they are opaque
constexpr auto look_again = std::chrono::milliseconds(20);

constexpr const char* memory_fault = "picture.memory";

Fault more_than_fits(std::size_t most) {
    return {memory_fault,
            fmt::format("with it, what is in use takes more than {:.1f} GB", static_cast<double>(most) / 1e9),
            "use smaller ones, or allow more memory for pictures in the preferences",
            {},
            Severity::fault};
}

Fault too_large(const std::string& path, std::string message) {
    return {"picture.too-large", std::move(message), "use a smaller one, or allow larger ones in the preferences",
            Place{path, {}, 0, 0}, Severity::fault};
}

std::size_t cost_of(const Result<KeptPictures>& pictures) {
    std::size_t bytes = least_cost;
    if (!pictures) return bytes;
    for (const PicturePtr& picture : *pictures) bytes += bytes_held(*picture);
    return bytes;
}

KeptPictures shared(std::vector<Picture> pictures) {
    KeptPictures kept;
    for (Picture& picture : pictures) kept.push_back(std::make_shared<const Picture>(std::move(picture)));
    return kept;
}

std::string key_of(const std::string& key, std::span<const PicturePtr> from) {
    std::string whole = key;
    for (const PicturePtr& picture : from) whole += fmt::format(" {}", static_cast<const void*>(picture.get()));
    return whole;
}

bool is_only_kept(const Result<KeptPictures>& pictures) {
    return pictures && std::all_of(pictures->begin(), pictures->end(),
                                   [](const PicturePtr& picture) { return picture.use_count() == 1; });
}

bool is_gone(const std::weak_ptr<const Picture>& picture) {
    // One that never was is not gone.
    const std::weak_ptr<const Picture> none;
    return picture.expired() && (picture.owner_before(none) || none.owner_before(picture));
}

}  // namespace

std::vector<Picture> alone(Picture picture) {
    std::vector<Picture> pictures;
    pictures.push_back(std::move(picture));
    return pictures;
}

std::string PictureStore::state_of(const std::string& path) {
    std::error_code code;
    const auto changed = std::filesystem::last_write_time(path, code);
    if (code) return "gone";
    const auto size = std::filesystem::file_size(path, code);
    return fmt::format("{} {}", changed.time_since_epoch().count(), code ? 0 : size);
}

std::size_t PictureStore::bytes() const {
    const std::lock_guard lock(mutex_);
    return items_.cost() + read_bytes().away + bytes_beside(false) + bytes_beside(true);
}

std::size_t PictureStore::room_beside() const {
    const std::lock_guard lock(mutex_);
    const std::size_t coming = bytes_beside(true) + bytes_coming();
    const ReadBytes read = read_bytes();
    const auto left_by = [&](std::size_t bytes) { return limits_.most - std::min(limits_.most, bytes); };
    const std::size_t wanted = std::clamp(left_by(read.all + coming), limits_.most / 4, limits_.most / 2);
    return std::min(wanted, left_by(read.in_use + coming));
}

std::size_t PictureStore::bytes_beside(bool in_use) const {
    return std::accumulate(beside_.begin(), beside_.end(), std::size_t{0}, [&](std::size_t sum, const auto& share) {
        return sum + (share.second.in_use == in_use ? share.second.bytes : 0);
    });
}

void PictureStore::set_beside(const MemoryShare* share, std::size_t bytes, bool in_use) {
    const std::lock_guard lock(mutex_);
    if (bytes == 0) {
        beside_.erase(share);
    } else {
        beside_[share] = {bytes, in_use};
    }
    give_way();
}

void PictureStore::keep(const std::string& key, Item item) {
    // Of what is gone nobody will ask again.
    items_.drop_if([](const Item& kept) { return std::any_of(kept.of.begin(), kept.of.end(), is_gone); });
    const std::size_t cost = cost_of(item.pictures);
    items_.put(key, std::move(item), cost);
    std::erase_if(read_pictures_, [](const auto& read) { return read.second.expired(); });
    give_way();
}

PictureStore::ReadBytes PictureStore::read_bytes() const {
    ReadBytes bytes;
    for (const auto& [key, read] : read_pictures_) {
        const PicturePtr held = read.lock();
        if (held == nullptr) continue;
        const std::size_t here = bytes_held(*held);
        const bool is_kept = items_.holds(key);
        bytes.all += here;
        // One of those that hold it is `held`.
        if (held.use_count() > (is_kept ? 2 : 1)) bytes.in_use += here;
        if (!is_kept) bytes.away += here;
    }
    return bytes;
}

std::size_t PictureStore::bytes_coming() const {
    return std::accumulate(bytes_coming_.begin(), bytes_coming_.end(), std::size_t{0},
                           [](std::size_t sum, const auto& coming) { return sum + coming.second; });
}

// What is only kept, for all that is in use or comes.
void PictureStore::give_way() {
    const std::size_t elsewhere = read_bytes().away + bytes_beside(false) + bytes_beside(true) + bytes_coming();
    items_.shrink_to(limits_.most - std::min(limits_.most, elsewhere),
                     [](const Item& item) { return is_only_kept(item.pictures); });
}

// One large picture among small ones may be of any size.
bool PictureStore::make_room(const std::string& key, std::size_t bytes) {
    bytes_coming_.erase(key);
    const std::size_t others = read_bytes().in_use + bytes_beside(true) + bytes_coming();
    bytes_coming_[key] = bytes;
    give_way();
    return others <= limits_.most / 4 || others + bytes <= limits_.most;
}

void PictureStore::try_again() {
    const std::lock_guard lock(mutex_);
    items_.drop_if([](const Item& kept) { return !kept.pictures && kept.pictures.fault().id == memory_fault; });
}

Result<PicturePtr> PictureStore::read(const std::string& key, const ReadWatch& watch, const Reading& reading) {
    std::unique_lock lock(mutex_);
    for (;;) {
        if (const Item* found = items_.find(key)) {
            if (!found->pictures) return found->pictures.fault();
            return found->pictures->front();
        }
        // No longer kept, but still drawn from.
        const auto read = read_pictures_.find(key);
        if (const PicturePtr held = read != read_pictures_.end() ? read->second.lock() : nullptr; held != nullptr) {
            keep(key, {{}, KeptPictures{held}});
            return held;
        }
        const auto elsewhere = shares_read_.find(key);
        if (elsewhere == shares_read_.end()) break;
        const double share = elsewhere->second;
        lock.unlock();
        const bool go_on = watch(share);
        lock.lock();
        if (!go_on) return reading_stopped();
        read_.wait_for(lock, look_again, [&] { return !shares_read_.contains(key); });
    }
    shares_read_[key] = 0;
    lock.unlock();
    std::optional<Fault> refused;
    const auto told_share = [&](double share) {
        {
            const std::lock_guard told(mutex_);
            shares_read_[key] = share;
        }
        return watch(share);
    };
    const auto told_size = [&](int width, int height, int bytes_read) {
        const std::lock_guard told(mutex_);
        const std::int64_t pixels = static_cast<std::int64_t>(width) * height;
        if (pixels > limits_.most_pixels) {
            refused = too_large({}, fmt::format("the picture has {} x {} pixels, which is more than {} million", width,
                                                height, limits_.most_pixels / 1'000'000));
        } else if (!make_room(key, static_cast<std::size_t>(pixels) *
                                       static_cast<std::size_t>(
                                           stays_as_read(pixels) ? bytes_read : bytes_a_pixel(Coding::numbers)))) {
            refused = more_than_fits(limits_.most);
        }
        return !refused;
    };
    Result<Picture> made = guarded([&] { return reading(ReadWatch(told_share, told_size)); });
    PicturePtr picture;
    if (made && !refused) {
        const std::int64_t pixels = static_cast<std::int64_t>(made->width) * made->height;
        if (!stays_as_read(pixels)) *made = decoded(std::move(*made));
        picture = std::make_shared<const Picture>(std::move(*made));
    }
    lock.lock();
    shares_read_.erase(key);
    bytes_coming_.erase(key);
    read_.notify_all();
    if (refused) {
        keep(key, {{}, *refused});
        return *refused;
    }
    if (!made) {
        // It was stopped for one of those that want it; others may still read it.
        if (made.fault().id != reading_stopped().id) keep(key, {{}, made.fault()});
        return made.fault();
    }
    keep(key, {{}, KeptPictures{picture}});
    read_pictures_[key] = picture;
    return PicturePtr(picture);
}

// By the file's open reader, where that has not been closed for others.
Result<Picture> PictureStore::next_of(const std::string& path, PictureMeaning meaning, int frame,
                                      const ReadWatch& watch) {
    std::shared_ptr<OpenFile> file;
    {
        const std::lock_guard lock(mutex_);
        const auto* found = open_files_.find(path);
        file = found != nullptr ? *found : open_files_.put(path, std::make_shared<OpenFile>(), 1);
    }
    const std::lock_guard lock(file->mutex);
    const std::string state = state_of(path);
    if (file->sequence == nullptr || file->state != state) {
        Result<std::shared_ptr<PictureSequence>> opened = open_sequence(path);
        if (!opened) return opened.fault();
        file->sequence = std::move(*opened);
        file->state = state;
    }
    Result<Picture> read = read_of_sequence(*file->sequence, path, frame, meaning, watch);
    if (!read) file->sequence = nullptr;
    return read;
}

std::optional<Fault> PictureStore::fault_of_file(const std::string& path) const {
    std::error_code code;
    const std::uintmax_t bytes = std::filesystem::file_size(path, code);
    if (code || bytes <= limits_.most_file_bytes) return std::nullopt;
    return too_large(path, fmt::format("the file has {} MB, which is more than {} MB", bytes / 1'000'000,
                                       limits_.most_file_bytes / 1'000'000));
}

Result<PicturePtr> PictureStore::file(const std::string& path, PictureMeaning meaning, int frame,
                                      const ReadWatch& watch) {
    const std::string key = fmt::format("file {} {} {}\n{}", static_cast<int>(meaning), frame, state_of(path), path);
    return read(key, watch, [&](const ReadWatch& watched) -> Result<Picture> {
        if (const auto fault = fault_of_file(path)) return *fault;
        const bool moves = frames(path).count > 1;
        return moves ? next_of(path, meaning, frame, watched) : read_picture_watched(path, meaning, frame, watched);
    });
}

Result<PicturePtr> PictureStore::layer(const std::string& path, const std::string& name, PictureMeaning meaning,
                                       const ReadWatch& watch) {
    const std::string key =
        fmt::format("layer {} {} {}\n{}\n{}", static_cast<int>(meaning), state_of(path), path.size(), path, name);
    return read(key, watch, [&](const ReadWatch& watched) -> Result<Picture> {
        if (const auto fault = fault_of_file(path)) return *fault;
        return read_layer_watched(path, name, watched, meaning);
    });
}

Result<PicturePtr> PictureStore::table(const std::string& path) {
    const auto unwatched = [](double) { return true; };
    return read(fmt::format("table {}\n{}", state_of(path), path), unwatched, [&](const ReadWatch&) -> Result<Picture> {
        Result<CubeTable> table = read_cube(path);
        if (!table) return table.fault();
        return std::move(table->picture);
    });
}

// Another picture may lie where an older one did.
const KeptPictures* PictureStore::find_made(const std::string& whole_key, std::span<const PicturePtr> from) {
    const auto same = [](const std::weak_ptr<const Picture>& of, const PicturePtr& now) { return of.lock() == now; };
    const Item* found = items_.find(whole_key);
    const bool is_it =
        found != nullptr && std::equal(found->of.begin(), found->of.end(), from.begin(), from.end(), same);
    return is_it ? &*found->pictures : nullptr;
}

KeptPictures PictureStore::made_of(const std::string& key, std::span<const PicturePtr> from,
                                   const std::function<std::vector<Picture>()>& make) {
    const std::string whole_key = key_of(key, from);
    {
        const std::lock_guard lock(mutex_);
        if (const KeptPictures* found = find_made(whole_key, from)) return *found;
    }
    KeptPictures made = shared(make());
    const std::lock_guard lock(mutex_);
    keep(whole_key, {{from.begin(), from.end()}, made});
    return made;
}

Result<PicturePtr> PictureStore::made_within(const std::string& key, std::span<const PicturePtr> from,
                                             std::size_t bytes, const std::function<Result<Picture>()>& make) {
    const std::string whole_key = key_of(key, from);
    {
        const std::lock_guard lock(mutex_);
        if (const KeptPictures* found = find_made(whole_key, from)) return found->front();
        const bool fits = make_room(whole_key, bytes);
        if (!fits) {
            bytes_coming_.erase(whole_key);
            return more_than_fits(limits_.most);
        }
    }
    Result<Picture> made = guarded(make);
    const std::lock_guard lock(mutex_);
    bytes_coming_.erase(whole_key);
    if (!made) return made.fault();
    const auto picture = std::make_shared<const Picture>(std::move(*made));
    keep(whole_key, {{from.begin(), from.end()}, KeptPictures{picture}});
    read_pictures_[whole_key] = picture;
    return PicturePtr(picture);
}

PicturePtr PictureStore::cell(const PicturePtr& sheet, int columns, int rows, int number) {
    return made_of(fmt::format("cell {} {} {}", columns, rows, number), {{sheet}},
                   [&] { return alone(sheet_cell(*sheet, columns, rows, number)); })
        .front();
}

PicturePtr PictureStore::smaller(const PicturePtr& whole, int width, int height, bool averaged) {
    return made_of(
               fmt::format("smaller {} {} {}", width, height, averaged), {{whole}},
               [&] { return alone(averaged ? shrink_to(*whole, width, height) : thinned_to(*whole, width, height)); })
        .front();
}

KeptPictures PictureStore::copies(const PicturePtr& whole, bool weighed) {
    return made_of(weighed ? "weighed copies" : "copies", {{whole}}, [&] { return smaller_copies(*whole, weighed); });
}

bool PictureStore::opaque(const PicturePtr& picture) {
    {
        const std::lock_guard lock(mutex_);
        const auto found = opaque_.find(picture.get());
        if (found != opaque_.end() && found->second.first.lock() == picture) return found->second.second;
    }
    const bool all = is_opaque(*picture);
    const std::lock_guard lock(mutex_);
    if (opaque_.size() >= most_asked) std::erase_if(opaque_, [](const auto& a) { return a.second.first.expired(); });
    opaque_[picture.get()] = {picture, all};
    return all;
}

Result<std::vector<PictureLayer>> PictureStore::layers(const std::string& path) {
    const std::string key = state_of(path) + "\n" + path;
    {
        const std::lock_guard lock(mutex_);
        if (const auto* found = layers_.find(key)) return *found;
    }
    Result<std::vector<PictureLayer>> told = picture_layers(path);
    const std::lock_guard lock(mutex_);
    return layers_.put(key, std::move(told), 1);
}

PictureFrames PictureStore::frames(const std::string& path) {
    const std::string key = state_of(path) + "\n" + path;
    {
        const std::lock_guard lock(mutex_);
        if (const auto* found = frames_.find(key)) return *found;
    }
    const Result<PictureFrames> told = picture_frames(path);
    const std::lock_guard lock(mutex_);
    return frames_.put(key, told ? *told : PictureFrames{}, 1);
}

}  // namespace lacquer
