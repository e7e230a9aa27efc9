// All that views watch: made in the order in which each depends on the ones before it, so that each follows the finish
// before a view hears of it.
#pragma once

#include "desktop/drawing/drawing.h"
#include "desktop/playing/game_link.h"

namespace lacquer {

struct Models {
    Models(Prompts prompts, const Clock& clock, const DrawingLimits& limits = {})
        : document(std::move(prompts)),
          playing(document, clock),
          link(document, playing, clock),
          drawing(document, playing, limits) {}

    Document document;
    Playing playing;
    GameLink link;
    Drawing drawing;
};

}  // namespace lacquer
