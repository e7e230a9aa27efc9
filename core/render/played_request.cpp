#include "core/render/played_request.h"

namespace lacquer {

RenderRequest request_of(const PlayedFinish& played, double seconds) {
    RenderRequest request;
    request.checked = played.checked;
    request.finish_path = played.path;
    request.time = seconds;
    request.tape = std::make_shared<const Tape>(played.tape.tape);
    request.held = played.held;
    return request;
}

}  // namespace lacquer
