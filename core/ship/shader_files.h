// Shaders as files of a set.
#pragma once

#include "core/ship/cross.h"
#include "core/ship/output.h"

namespace lacquer {

/// A line or two on top of a shader: of which finish and pass it is, and where its inputs are told of.
std::string shader_heading(const ShipMaterial& material, const ShippedPass& pass);

/// A triangle that covers all, from the numbers of its corners.
std::string vertex_text(Dialect dialect);

/// One file a pass in a dialect of GLSL, and the vertex shader that they all have.
ShippedFiles glsl_files(const ShipMaterial& material, const ShipOutput& output, Dialect dialect);

/// One file a pass of what `cross_shader` gives. Faults as there.
Result<ShippedFiles> crossed_files(const ShipMaterial& material, const ShipOutput& output,
                                   std::string CrossedShader::*language);

}  // namespace lacquer
