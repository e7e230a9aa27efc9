// What a wheel or a touchpad was turned by, in whole increments.
#pragma once

#include <QWheelEvent>
#include <cmath>

namespace lacquer {

/// A wheel turns by notches of 15 degrees, a touchpad by single degrees that add up to them: so both go equally far.
class Wheel {
public:
    /// The notches that this event completes, up is above 0; what is left of a notch counts towards the next.
    int notches(const QWheelEvent& event) {
        constexpr double units_a_notch = 120;  // eighths of a degree, of 15
        const QPoint turned = event.angleDelta();
        const int units = turned.y() != 0 ? turned.y() : turned.x();
        // Turned round, it begins anew.
        if ((rest_ > 0) != (units > 0)) rest_ = 0;
        rest_ += units / units_a_notch;
        const double whole = std::trunc(rest_);
        rest_ -= whole;
        return static_cast<int>(whole);
    }

private:
    double rest_ = 0;
};

}  // namespace lacquer
