#include "core/drive/easing.h"

namespace lacquer {

namespace {

double bezier(double a, double b, double s) {
    const double r = 1 - s;
    return 3 * r * r * s * a + 3 * r * s * s * b + s * s * s;
}

}  // namespace

double Easing::operator()(double t) const {
    if (!(t > 0)) return 0;
    if (t >= 1) return 1;
    if (x1 == y1 && x2 == y2) return t;
    // x(s) rises all the way, so halving always closes in on the one s with x(s) = t.
    double low = 0;
    double high = 1;
    for (int i = 0; i < 60; ++i) {
        const double middle = (low + high) / 2;
        (bezier(x1, x2, middle) < t ? low : high) = middle;
    }
    return bezier(y1, y2, (low + high) / 2);
}

const std::vector<std::string>& easing_names() {
    static const std::vector<std::string> names = {"linear", "ease", "ease_in", "ease_out", "ease_in_out"};
    return names;
}

std::optional<Easing> easing_named(std::string_view name) {
    if (name == "linear") return Easing{0, 0, 1, 1};
    if (name == "ease") return Easing{0.25, 0.1, 0.25, 1};
    if (name == "ease_in") return Easing{0.42, 0, 1, 1};
    if (name == "ease_out") return Easing{0, 0, 0.58, 1};
    if (name == "ease_in_out") return Easing{0.42, 0, 0.58, 1};
    return std::nullopt;
}

}  // namespace lacquer
