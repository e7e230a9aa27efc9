// What the benchmarks draw.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/render/renderer.h"

namespace lacquer::bench {

/// The demo during a blow.
RenderRequest demo_request(double time);

/// A finish of these steps, name and formula, at 1920 x 1080, without dials.
Finish finish_of(const std::vector<std::pair<std::string, std::string>>& steps);

/// Its finished picture.
RenderRequest request_for(const Finish& finish);

/// Makes `finish` read a picture of colours and opacities, `scene`, of this size, from a file of this run.
void add_scene(Finish& finish, int width, int height);

/// Gives the finish a dial.
void add_dial(Finish& finish, const std::string& name, double value);

}  // namespace lacquer::bench
