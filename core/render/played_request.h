// Drawing what is played on an open finish.
#pragma once

#include "core/finish/played_finish.h"
#include "core/render/renderer.h"

namespace lacquer {

/// The whole picture at a time, in seconds, in the finish's own frame.
RenderRequest request_of(const PlayedFinish& played, double seconds = 0);

}  // namespace lacquer
