#include "core/finish/grounds/ground.h"

#include <algorithm>
#include <type_traits>

namespace lacquer {

namespace {

// A pointer to a part of a ground; what is const has const parts.
template <class Any, class Part>
using PartOf = std::conditional_t<std::is_const_v<Any>, const Part, Part>*;

template <class Any>
PartOf<Any, std::string> path_in(Any& ground) {
    return std::visit(
        [](auto& kind) -> PartOf<Any, std::string> {
            if constexpr (requires { kind.path; }) return &kind.path;
            return nullptr;
        },
        ground.kind);
}

template <class Any>
PartOf<Any, Sampling> sampling_in(Any& ground) {
    return std::visit(
        [](auto& kind) -> PartOf<Any, Sampling> {
            if constexpr (requires { kind.sampling; }) return &kind.sampling;
            return nullptr;
        },
        ground.kind);
}

template <class Any>
PartOf<Any, FileOpacity> opacity_in(Any& ground) {
    return std::visit(
        [](auto& kind) -> PartOf<Any, FileOpacity> {
            if constexpr (requires { kind.opacity; }) return &kind.opacity;
            return nullptr;
        },
        ground.kind);
}

template <class Any>
PartOf<Any, Stops> stops_in(Any& ground) {
    return std::visit(
        [](auto& kind) -> PartOf<Any, Stops> {
            if constexpr (requires { kind.stops; }) return &kind.stops;
            return nullptr;
        },
        ground.kind);
}

template <class Any>
PartOf<Any, std::string> other_in(Any& ground) {
    return std::visit(
        [](auto& kind) -> PartOf<Any, std::string> {
            if constexpr (requires { kind.of; }) return &kind.of;
            return nullptr;
        },
        ground.kind);
}

}  // namespace

std::vector<GroundPicture> ground_pictures(const Ground& ground) {
    return std::visit([&](const auto& kind) { return pictures_of(kind, ground.name); }, ground.kind);
}

std::vector<std::string*> paths_of(Ground& ground) {
    return std::visit([](auto& kind) { return paths_of(kind); }, ground.kind);
}

std::vector<std::string> paths_of(const Ground& ground) {
    Ground copy = ground;
    std::vector<std::string> paths;
    for (const std::string* path : paths_of(copy)) paths.push_back(*path);
    return paths;
}

std::string* path_of(Ground& ground) { return path_in(ground); }
const std::string* path_of(const Ground& ground) { return path_in(ground); }

Sampling* sampling_of(Ground& ground) { return sampling_in(ground); }
const Sampling* sampling_of(const Ground& ground) { return sampling_in(ground); }

FileOpacity* opacity_of(Ground& ground) { return opacity_in(ground); }
const FileOpacity* opacity_of(const Ground& ground) { return opacity_in(ground); }

std::string* other_of(Ground& ground) { return other_in(ground); }
const std::string* other_of(const Ground& ground) { return other_in(ground); }

Stops* stops_of(Ground& ground) { return stops_in(ground); }
const Stops* stops_of(const Ground& ground) { return stops_in(ground); }

std::optional<StopValues> stop_values(const Ground& ground) {
    return std::visit(
        [](const auto& kind) -> std::optional<StopValues> {
            if constexpr (requires { kind.stops; }) return kind.values;
            return std::nullopt;
        },
        ground.kind);
}

ListLength list_of(const Ground& ground) {
    return std::visit([](const auto& kind) { return list_of(kind); }, ground.kind);
}

bool is_data(const Ground& ground) {
    const auto* picture = ground.as<PictureGround>();
    return picture != nullptr && picture->data;
}

bool has_layers(const Ground& ground) {
    const std::vector<GroundPicture> pictures = ground_pictures(ground);
    return std::any_of(pictures.begin(), pictures.end(),
                       [](const GroundPicture& picture) { return picture.layer == GroundLayer::id; });
}

}  // namespace lacquer
