#include "core/ship/output.h"
#include "core/ship/play/play_code.h"

namespace lacquer {

ShipOutput play_output() {
    ShipOutput output;
    output.id = "play";
    output.title = "Play as code";
    output.words = "what drives it: a header of C99 and a module for scripts, without allocation or dependencies";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        Result<PlayCode> code = play_code(material);
        if (!code) return code.fault();
        return ShippedFiles{{"play/" + material.stem + "_play.h", std::move(code->header)},
                            {"play/" + material.stem + "_play.js", std::move(code->module)}};
    };
    return output;
}

}  // namespace lacquer
