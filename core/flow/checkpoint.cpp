#include "core/flow/checkpoint.h"

#include <bit>
#include <cstring>
#include <optional>

namespace lacquer {

namespace {

static_assert(std::endian::native == std::endian::little, "numbers lie in the file as they lie in memory");

constexpr std::string_view first_line = "lacquer checkpoint 1\n";
constexpr std::uint32_t most_pictures = 4096;
constexpr std::uint32_t longest_name = 256;

template <class Number>
void put(std::string& bytes, Number number) {
    bytes.append(reinterpret_cast<const char*>(&number), sizeof(number));
}

void put(std::string& bytes, const FlowPictures& pictures) {
    put(bytes, static_cast<std::uint32_t>(pictures.size()));
    for (const auto& [name, left] : pictures) {
        const Picture* picture = left.here.get();
        put(bytes, static_cast<std::uint32_t>(name.size()));
        bytes += name;
        for (const int side : {picture->width, picture->height, picture->channels}) put(bytes, side);
        bytes.append(reinterpret_cast<const char*>(picture->data.data()), picture->data.size() * sizeof(float));
    }
}

// Takes numbers from the front; once there are too few, all that follows is nothing.
class Reader {
public:
    explicit Reader(std::string_view bytes) : left_(bytes) {}

    template <class Number>
    std::optional<Number> number() {
        Number number{};
        if (!take(&number, sizeof(number))) return std::nullopt;
        return number;
    }

    bool take(void* to, std::size_t count) {
        if (left_.size() < count) return false;
        std::memcpy(to, left_.data(), count);
        left_.remove_prefix(count);
        return true;
    }

    bool pictures(FlowPictures& pictures) {
        const auto count = number<std::uint32_t>();
        if (!count || *count > most_pictures) return false;
        for (std::uint32_t i = 0; i < *count; ++i) {
            const auto length = number<std::uint32_t>();
            if (!length || *length > longest_name || left_.size() < *length) return false;
            std::string name(left_.substr(0, *length));
            left_.remove_prefix(*length);
            const auto width = number<int>();
            const auto height = number<int>();
            const auto channels = number<int>();
            if (!width || !height || !channels || !is_drawable_size(*width, *height) || *channels < 1 || *channels > 4)
                return false;
            const std::size_t floats = static_cast<std::size_t>(*width) * static_cast<std::size_t>(*height) *
                                       static_cast<std::size_t>(*channels);
            // Nothing is made room for that isn't there.
            if (left_.size() < floats * sizeof(float)) return false;
            auto picture = std::make_shared<Picture>(*width, *height, *channels);
            take(picture->data.data(), floats * sizeof(float));
            pictures[std::move(name)].here = std::move(picture);
        }
        return true;
    }

    bool is_empty() const { return left_.empty(); }

private:
    std::string_view left_;
};

}  // namespace

std::string to_bytes(const Checkpoint& checkpoint) {
    std::string bytes(first_line);
    for (const std::uint64_t part : checkpoint.stamp) put(bytes, part);
    put(bytes, checkpoint.state.tick);
    put(bytes, checkpoint.state.now);
    put(bytes, checkpoint.state.before);
    return bytes;
}

Result<Checkpoint> checkpoint_from(std::string_view bytes, const std::string& where) {
    const Fault broken{"flow.checkpoint", "this isn't a whole checkpoint", "write it again by --to-checkpoint",
                       Place{where, {}, 0, 0}, Severity::fault};
    if (!bytes.starts_with(first_line)) return broken;
    Reader reader(bytes.substr(first_line.size()));
    Checkpoint checkpoint;
    for (std::uint64_t& part : checkpoint.stamp) {
        const auto number = reader.number<std::uint64_t>();
        if (!number) return broken;
        part = *number;
    }
    const auto tick = reader.number<std::int64_t>();
    if (!tick || *tick < 0 || !reader.pictures(checkpoint.state.now) || !reader.pictures(checkpoint.state.before) ||
        !reader.is_empty())
        return broken;
    checkpoint.state.tick = *tick;
    return checkpoint;
}

}  // namespace lacquer
