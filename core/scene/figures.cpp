// The keeper and the crabs.
#include <cmath>

#include "core/scene/building.h"

namespace lacquer {

void put_keeper(const Builder& at, double swing) {
    const Material oilskin{.colour = {0.62F, 0.40F, 0.05F}, .gloss = 0.25F};
    const Material boots{.colour = {0.03F, 0.03F, 0.035F}, .gloss = 0.3F};
    const Material skin{.colour = {0.45F, 0.27F, 0.19F}};
    at.drum({-0.13, 0, 0}, 0.1, 0.5, boots);
    at.drum({0.13, 0, 0}, 0.1, 0.5, boots);
    at.drum({0, 0.42, 0}, 0.34, 0.95, oilskin, 0.62);
    at.ball({0, 1.55, 0}, {0.15, 0.18, 0.15}, skin);
    at.drum({0, 1.62, 0}, 0.27, 0.06, oilskin, 0.9);
    at.ball({0, 1.66, 0}, {0.17, 0.14, 0.17}, oilskin);
    at.put(Shape::cone, {0.24, 1.28, 0}, {0.085, -0.62, 0.085}, oilskin, 0, 14 + swing);
    at.put(Shape::cone, {-0.24, 1.28, 0}, {0.085, -0.62, 0.085}, oilskin, 0, -14 + swing);
    // A hand lantern.
    at.ball({0.40 + swing * 0.006, 0.62, 0.05}, {0.09, 0.12, 0.09}, glowing({1.0F, 0.62F, 0.25F}, 4));
}

void put_crab(const Builder& at, double step) {
    const Material shell{.colour = {0.55F, 0.13F, 0.035F}, .gloss = 0.5F};
    const Material claw{.colour = {0.68F, 0.20F, 0.06F}, .gloss = 0.5F};
    const Material eye{.colour = {0.01F, 0.01F, 0.01F}, .gloss = 1};
    at.ball({0, 0.24, 0}, {0.36, 0.19, 0.27}, shell);
    for (const double side : {-1.0, 1.0}) {
        at.ball({side * 0.42, 0.26, 0.26}, {0.16, 0.1, 0.13}, claw, side * 20);
        at.ball({side * 0.1, 0.42, 0.17}, {0.045, 0.06, 0.045}, eye);
        for (int leg = 0; leg < 3; ++leg) {
            const double lift = 0.05 * std::sin(step + leg * 2.1 + side);
            at.put(Shape::block, {side * 0.47, 0.15 + lift, -0.16 + leg * 0.14}, {0.2, 0.03, 0.03}, shell, 0,
                   side * -32);
        }
    }
}

}  // namespace lacquer
