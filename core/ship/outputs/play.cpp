#include "core/ship/manifest.h"
#include "core/ship/output.h"
#include "core/ship/play/drive_curves.h"
#include "core/ship/play/play_code.h"

namespace lacquer {

ShipOutput play_output() {
    ShipOutput output;
    output.id = "play";
    output.title = "Play as code";
    output.words = "what drives it: a header of C99, a module for scripts, and curves as data";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        Result<PlayCode> code = play_code(material);
        if (!code) return code.fault();
        return ShippedFiles{{"play/" + material.stem + "_play.h", std::move(code->header), {}, {}},
                            {"play/" + material.stem + "_play.js", std::move(code->module), {}, {}},
                            {"play/play.json", readable_json(drive_curves(material)), {}, {}}};
    };
    return output;
}

}  // namespace lacquer
