// The pictures of a finish's grounds, each under a name of its own that formulas read.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

/// The ground whose picture has this name, and which of its pictures that is.
struct NamedPicture {
    const Ground* ground = nullptr;
    GroundPicture picture;
};
std::optional<NamedPicture> find_ground_picture(const Finish& finish, std::string_view name);

/// How a picture is read between its pixels: colours as the ground says, all else the nearest pixel, for a mean of two
/// depths or ids belongs to neither.
Sampling sampling_of(const Ground& ground, GroundLayer layer);

/// What the numbers in its file stand for.
PictureMeaning meaning_of(const Ground& ground);

/// A stand-in scene as it is looked at: one that follows another's camera has that one's.
SceneView seen_view(const Finish& finish, const SceneGround& scene);

/// What an object of a scene is called; of a capture, which has no names, its number.
std::string object_name(const Ground& scene, int id);

/// Finds a ground by its own name; null if there is none.
const Ground* find_ground(const Finish& finish, std::string_view name);

}  // namespace lacquer
