// Text between the core and Qt.
#pragma once

#include <QString>
#include <string>
#include <string_view>

namespace lacquer {

inline QString qs(const std::string& text) { return QString::fromStdString(text); }
inline QString sv(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }

}  // namespace lacquer
