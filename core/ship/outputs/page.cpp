#include "core/ship/page/page.h"
#include "core/ship/output.h"

namespace lacquer {

ShipOutput page_output() {
    ShipOutput output;
    output.id = "page";
    output.title = "Page";
    output.words = "one HTML file that runs the effect in a browser, for those who have nothing installed";
    output.write = [](const ShipMaterial& material, const Cancel& cancel) -> Result<ShippedFiles> {
        Result<std::string> page = page_of(material, cancel);
        if (!page) return page.fault();
        return ShippedFiles{{material.stem + ".html", std::move(*page)}};
    };
    return output;
}

}  // namespace lacquer
