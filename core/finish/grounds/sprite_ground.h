// A ground that is a sprite of several parts.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"
#include "core/picture/files_module.h"
#include "core/picture/sample.h"

namespace lacquer {

class Fields;
class Json;

/// How many times its own size a part of a sprite may be.
inline constexpr double largest_part_scale = 64;

/// A part of a sprite: a picture at its place.
struct SpritePart {
    std::string name;
    std::string path;    ///< absolute, or relative to the finish's own folder
    std::string layer;   ///< of a layered file; empty for the whole file
    std::string normal;  ///< a picture of the directions in which it faces; may be empty
    double x = 0;        ///< of its middle, pixels of the sprite
    double y = 0;
    double scale = 1;
    double share = 1;       ///< of what drives all parts
    double turn = 0;        ///< degrees clockwise about its middle
    bool mirrored = false;  ///< left for right, before it is turned
    friend bool operator==(const SpritePart&, const SpritePart&) = default;
};

struct SpriteGround {
    static constexpr std::string_view key = "sprite";

    int width = 512;  ///< pixels
    int height = 512;
    std::vector<SpritePart> parts = {};  ///< the first at the bottom
    FileOpacity opacity = FileOpacity::as_marked;
    Sampling sampling = {};

    friend bool operator==(const SpriteGround&, const SpriteGround&) = default;
};

void read(Fields& fields, SpriteGround& ground);
void write(Json& object, const SpriteGround& ground);
std::vector<GroundPicture> pictures_of(const SpriteGround& ground, const std::string& name);
std::vector<std::string*> paths_of(SpriteGround& ground);
ListLength list_of(const SpriteGround& ground);

}  // namespace lacquer
