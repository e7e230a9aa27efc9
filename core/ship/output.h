// What a finish can be shipped as. The list stands in output.cpp; each has a file of its own under outputs/.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/finish/json.h"
#include "core/ship/material.h"

namespace lacquer {

/// A file of a set: its path within the set, with slashes, of safe names only; and what it holds.
struct ShippedFile {
    std::string path;
    std::string bytes;
    std::string of = {};  ///< the ground that it is the picture of; mostly empty
    Json facts = {};      ///< what the manifest says of that picture
};
using ShippedFiles = std::vector<ShippedFile>;

/// What a finish is shipped as.
struct ShipOutput {
    std::string_view id;      ///< as the command line and the manifest name it
    std::string_view title;   ///< as the screen does
    std::string_view words;   ///< what it writes, in a line
    std::string_view ending;  ///< of a pass's shader; empty for what is no shader
    /// Why a finish cannot be shipped so; empty if it can. Null for what every finish can be.
    std::string (*unless)(const ShipMaterial&) = nullptr;
    /// False for what takes long and not everybody wants: it is written only where it is asked for.
    bool is_usual = true;
    /// All its files. Faults: those of `cross_shader`, of reading and of drawing pictures; `render.cancelled`.
    Result<ShippedFiles> (*write)(const ShipMaterial&, const Cancel& cancel) = nullptr;
};

/// All of them, in the order in which they are offered.
std::span<const ShipOutput> ship_outputs();

/// The one of this id, or null.
const ShipOutput* find_ship_output(std::string_view id);

/// Where a pass's shader lies in a set: "shaders/glsl330/01_blur.frag".
std::string shader_path(const ShipOutput& output, const ShippedPass& pass);

// One file each.
ShipOutput glsl330_output();
ShipOutput es300_output();
ShipOutput glsl450_output();
ShipOutput spirv_output();
ShipOutput hlsl_output();
ShipOutput msl_output();
ShipOutput play_output();
ShipOutput grounds_output();
ShipOutput drops_output();
ShipOutput page_output();
ShipOutput still_output();
ShipOutput frames_output();
ShipOutput sheet_output();
ShipOutput animation_output();
ShipOutput gif_output();
ShipOutput webp_output();
ShipOutput webm_output();
ShipOutput mp4_output();
ShipOutput cube_output();

}  // namespace lacquer
