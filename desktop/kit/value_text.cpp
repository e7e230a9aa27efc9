#include "desktop/kit/value_text.h"

#include <QStringList>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/picture/transfer.h"

namespace lacquer {

QString value_text(const float* values, int parts, int decimals) {
    QStringList list;
    for (int i = 0; i < parts; ++i) {
        const double value = static_cast<double>(values[i]);
        list.append(std::isnan(value)   ? QStringLiteral("not a number")
                    : std::isinf(value) ? QStringLiteral("infinite")
                                        : QString::fromStdString(
                                              plain_number(value, std::fabs(value) < 0.01 ? decimals + 2 : decimals)));
    }
    return list.join(QStringLiteral("  "));
}

QColor value_swatch(const float* values, int parts) {
    const auto plain = [&](int i) {
        const float value = values[i];
        return value > 0 ? std::clamp(static_cast<int>(std::lround(std::min(value, 1.0F) * 255)), 0, 255) : 0;
    };
    const auto light = [&](int i) {
        return values[i] > 0 ? std::clamp(static_cast<int>(std::lround(
                                              srgb_encode(static_cast<double>(std::min(values[i], 1.0F))) * 255)),
                                          0, 255)
                             : 0;
    };
    if (parts == 1) return {plain(0), plain(0), plain(0)};
    if (parts == 2) return {plain(0), plain(1), 0};
    return {light(0), light(1), light(2)};
}

QString moment_text(double seconds, double value) {
    return QString::fromStdString(plain_number(seconds, 3) + " s, " + plain_number(value, 3));
}

std::optional<std::pair<double, double>> moment_from(const QString& text) {
    const auto number = [](QString part) {
        return parse_number(part.remove(QLatin1Char('s')).trimmed().toStdString());
    };
    const auto seconds = number(text.section(QLatin1Char(','), 0, 0));
    const auto value = number(text.section(QLatin1Char(','), 1, 1));
    if (!seconds || !value || *seconds < 0) return std::nullopt;
    return std::pair(*seconds, *value);
}

}  // namespace lacquer
