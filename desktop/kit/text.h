// Text between the core and Qt.
#pragma once

#include <QString>
#include <string>
#include <string_view>

#include "core/base/fault.h"

namespace lacquer {

inline QString qs(const std::string& text) { return QString::fromStdString(text); }
inline QString sv(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }

/// What is wrong, and what would mend it.
inline QString fault_words(const Fault& fault) {
    return qs(fault.mend.empty() ? fault.message : fault.message + " - " + fault.mend);
}

}  // namespace lacquer
