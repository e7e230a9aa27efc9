#include "core/inspect/report.h"
#include "core/picture/png.h"
#include "core/ship/output.h"
#include "core/ship/pictures/drawn_frames.h"

namespace lacquer {

ShipOutput still_output() {
    ShipOutput output;
    output.id = "still";
    output.title = "Still";
    output.words = "one picture, where most of the effect is seen, or at the moment that is asked for";
    output.is_usual = false;
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        const double time =
            material.request.at.value_or(liveliest_moment(*material.request.checked, material.finish().tape));
        const Result<Image8> image = drawn_still(material, time, cancel);
        if (!image) return image.fault();
        Result<std::string> bytes = png_bytes(*image);
        if (!bytes) return bytes.fault();
        return ShippedFiles{{"pictures/" + material.stem + ".png", std::move(*bytes), {}, {}}};
    };
    return output;
}

}  // namespace lacquer
