// Values of pixels as words and as a colour.
#pragma once

#include <QColor>
#include <QString>

namespace lacquer {

/// "0.354", "0.2, -1.5", "0.81 0.09 0.04": up to four numbers with three places; "not a number" where it is none.
QString value_text(const float* values, int parts);

/// What such a value looks like: grey, red and green, or a colour.
QColor value_swatch(const float* values, int parts);

}  // namespace lacquer
