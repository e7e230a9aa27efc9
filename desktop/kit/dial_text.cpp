#include "desktop/kit/dial_text.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/colour_text.h"
#include "desktop/kit/text.h"

namespace lacquer {

namespace {

int decimals_of(const Dial& dial) {
    return std::clamp(static_cast<int>(std::ceil(-std::log10(dial.increment) - 1e-9)), 0, 6);
}

double brightness_of(const DialValue& colour) { return std::max({colour[0], colour[1], colour[2]}); }

DialValue with_brightness(const DialValue& colour, double brightness) {
    const double old = brightness_of(colour);
    if (old <= 0) return {brightness, brightness, brightness};
    return {colour[0] / old * brightness, colour[1] / old * brightness, colour[2] / old * brightness};
}

double main_number(const Dial& dial, const DialValue& value) {
    return dial.kind == DialKind::colour ? brightness_of(value) : value[0];
}

DialValue with_number(const Dial& dial, const DialValue& from, double number) {
    if (dial.kind == DialKind::colour) return with_brightness(from, std::max(number, 0.0));
    return {number, 0, 0};
}

}  // namespace

QString dial_value_text(const Dial& dial, const DialValue& value) {
    if (dial.kind == DialKind::toggle) return value[0] != 0 ? QStringLiteral("on") : QStringLiteral("off");
    if (dial.kind == DialKind::colour) return qs(colour_text(value));
    QString text = QString::number(value[0], 'f', dial.kind == DialKind::integer ? 0 : decimals_of(dial));
    // A working value may be finer than the increment: it is never shown rounded away.
    if (dial.kind == DialKind::number && dial.formula.empty() &&
        std::fabs(text.toDouble() - value[0]) > 1e-9 * std::max(1.0, std::fabs(value[0]))) {
        text = qs(plain_number(value[0], std::min(6, decimals_of(dial) + 2)));
    }
    if (!dial.unit.empty()) text += QLatin1Char(' ') + qs(dial.unit);
    return text;
}

std::optional<DialValue> dial_value_from(const Dial& dial, const QString& typed) {
    std::string text = typed.trimmed().toStdString();
    if (dial.kind == DialKind::colour) return parse_colour(text);
    if (dial.kind == DialKind::toggle) {
        if (text == "on" || text == "1" || text == "yes") return DialValue{1, 0, 0};
        if (text == "off" || text == "0" || text == "no") return DialValue{0, 0, 0};
        return std::nullopt;
    }
    if (!dial.unit.empty() && text.ends_with(dial.unit)) text.resize(text.size() - dial.unit.size());
    const auto number = parse_number(text);
    if (!number) return std::nullopt;
    return DialValue{dial.kind == DialKind::integer ? std::round(*number) : *number, 0, 0};
}

double dial_share(const Dial& dial, const DialValue& value) {
    if (dial.kind == DialKind::toggle) return value[0] != 0 ? 1 : 0;
    const double share = (main_number(dial, value) - dial.least) / (dial.most - dial.least);
    return std::isfinite(share) ? std::clamp(share, 0.0, 1.0) : 0.0;
}

DialValue dial_value_at(const Dial& dial, const DialValue& from, double share, bool coarse) {
    const double raw = dial.least + std::clamp(share, 0.0, 1.0) * (dial.most - dial.least);
    const double unit =
        (dial.kind == DialKind::integer ? std::max(1.0, dial.increment) : dial.increment) * (coarse ? 10 : 1);
    const double snapped = dial.least + std::round((raw - dial.least) / unit) * unit;
    // Whole increments, without the dust of the multiplication.
    const double clean = std::round(std::clamp(snapped, dial.least, dial.most) * 1e9) / 1e9;
    return with_number(dial, from, clean);
}

DialValue dial_value_stepped(const Dial& dial, const DialValue& from, double increments) {
    if (dial.kind == DialKind::toggle) return {from[0] != 0 ? 0.0 : 1.0, 0, 0};
    double next = main_number(dial, from) + increments * dial.increment;
    if (dial.kind == DialKind::integer) {
        next = std::round(from[0]) +
               std::copysign(std::max(1.0, std::round(std::fabs(increments * dial.increment))), increments);
    }
    next = std::round(std::clamp(next, dial.least, dial.most) * 1e9) / 1e9;
    return with_number(dial, from, next);
}

}  // namespace lacquer
