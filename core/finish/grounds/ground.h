// What a finish reads. The list of kinds stands here; each has a file of its own beside this one.
//
// A kind says the key by which a finish's file names it, and how it is read and written, which pictures it gives and
// which files it reads, and how long its list is (`read`, `write`, `pictures_of`, `paths_of`, `list_of`). By its
// members' names it has more: `sampling`, if it gives colours to work on; `opacity`, if those may have some; `path`, if
// it lies in one file; `stops`, if it is looked up in; `of`, if it works on another ground.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/kept_keys.h"
#include "core/finish/grounds/capture_ground.h"
#include "core/finish/grounds/curve_ground.h"
#include "core/finish/grounds/droplets_ground.h"
#include "core/finish/grounds/gradient_ground.h"
#include "core/finish/grounds/marks_ground.h"
#include "core/finish/grounds/picture_ground.h"
#include "core/finish/grounds/scene_ground.h"
#include "core/finish/grounds/sprite_ground.h"
#include "core/finish/grounds/table_ground.h"

namespace lacquer {

using GroundKind = std::variant<PictureGround, GradientGround, CurveGround, SceneGround, CaptureGround, MarksGround,
                                SpriteGround, TableGround, DropletsGround>;

struct Ground {
    std::string name = {};
    GroundKind kind = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    /// Null if it is of another kind.
    template <class Kind>
    const Kind* as() const {
        return std::get_if<Kind>(&kind);
    }
    template <class Kind>
    Kind* as() {
        return std::get_if<Kind>(&kind);
    }

    friend bool operator==(const Ground&, const Ground&) = default;
};

/// All pictures that it gives; none for gradients and curves.
std::vector<GroundPicture> ground_pictures(const Ground& ground);

/// Every file that it reads, to be looked at or changed: its own, or those of its parts.
std::vector<std::string*> paths_of(Ground& ground);
std::vector<std::string> paths_of(const Ground& ground);

/// The file that it lies in; null for one that lies in none, or in several.
std::string* path_of(Ground& ground);
const std::string* path_of(const Ground& ground);

/// How it is read between its pixels and beyond its borders; null for one that gives no colours to work on.
Sampling* sampling_of(Ground& ground);
const Sampling* sampling_of(const Ground& ground);

/// The name of the ground that it works on, which may be empty; null for one that works on none.
std::string* other_of(Ground& ground);
const std::string* other_of(const Ground& ground);

/// What the opacity in its files means; null for one that has none.
FileOpacity* opacity_of(Ground& ground);
const FileOpacity* opacity_of(const Ground& ground);

/// What it is looked up in; null for a ground of pictures.
Stops* stops_of(Ground& ground);
const Stops* stops_of(const Ground& ground);

/// What its stops hold; nothing for a ground without.
std::optional<StopValues> stop_values(const Ground& ground);

/// How long its list is: stops, parts, objects, keys.
ListLength list_of(const Ground& ground);

/// True if its numbers are no colours and are taken as they are.
bool is_data(const Ground& ground);

/// True for a ground with depth, normals, positions and ids.
bool has_layers(const Ground& ground);

}  // namespace lacquer
