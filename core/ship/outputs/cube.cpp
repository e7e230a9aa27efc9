#include "core/ship/output.h"
#include "core/ship/pictures/colour_table.h"

namespace lacquer {

ShipOutput cube_output() {
    ShipOutput output;
    output.id = "cube";
    output.title = "Table of colours";
    output.words = "a .cube, for a finish in which each colour follows from that colour alone";
    output.write = [](const ShipMaterial& material, const Cancel&) -> Result<ShippedFiles> {
        Result<ColourTable> table = colour_table(material);
        if (!table) return table.fault();
        return ShippedFiles{{"pictures/" + material.stem + ".cube", std::move(table->text), {}, {}}};
    };
    output.unless = why_no_table;
    return output;
}

}  // namespace lacquer
