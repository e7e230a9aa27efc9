// The pictures that a ground gives, each under a name of its own that formulas read.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/finish/finish.h"
#include "core/lang/type.h"
#include "core/picture/files_module.h"

namespace lacquer {

/// What a picture of a ground holds.
enum class GroundLayer { colour, depth, normal, position, id, marks, part, share };

struct GroundPicture {
    std::string name;
    GroundLayer layer = GroundLayer::colour;
    Type type = Type::vec4;
    std::string_view words;  ///< what it holds, for people
};

/// All of them; none for gradients and curves. A scene called `bay` gives `bay`, `bay_depth`, `bay_normal`,
/// `bay_position` and `bay_id`.
std::vector<GroundPicture> ground_pictures(const Ground& ground);

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

/// True for a ground with depth, normals, positions and ids.
bool has_layers(GroundKind kind);
/// Every file that a ground reads, to be looked at or changed: its own, or those of its parts.
std::vector<std::string*> paths_of(Ground& ground);
std::vector<std::string> paths_of(const Ground& ground);

/// True for a ground that lies in a file of its own.
bool has_file(GroundKind kind);
/// True for a ground that gives colours to work on.
bool is_view(GroundKind kind);

/// A stand-in scene as it is looked at: one that follows another's camera has that one's.
SceneView seen_view(const Finish& finish, const Ground& scene);

/// What an object of a scene is called; of a capture, which has no names, its number.
std::string object_name(const Ground& scene, int id);

/// Finds a ground by its own name; null if there is none.
const Ground* find_ground(const Finish& finish, std::string_view name);

}  // namespace lacquer
