// Values of pixels as words and as a colour, and values at moments.
#pragma once

#include <QColor>
#include <QString>
#include <optional>
#include <utility>

namespace lacquer {

/// "0.354", "0.2  -1.5", "0.81  0.09  0.04": up to four numbers with so many decimals, two more where they are small;
/// "not a number" where it is none.
QString value_text(const float* values, int parts, int decimals = 3);

/// What such a value looks like: grey, red and green, or a colour.
QColor value_swatch(const float* values, int parts);

/// "1.25 s, 0.8": a moment in seconds and a value at it, as it is shown to be typed over.
QString moment_text(double seconds, double value);

/// What such a text says; nothing if it is none, or before 0 s.
std::optional<std::pair<double, double>> moment_from(const QString& text);

}  // namespace lacquer
