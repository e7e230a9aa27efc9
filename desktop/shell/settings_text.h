// Settings as the text of their file: JSON, one object with a member for each setting (RFC 8259).
#pragma once

#include <QVariantMap>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace lacquer {

/// The settings that a text holds, by key. What is not in the table, of another kind or beyond its range is left out,
/// so that what holds otherwise does. Fault `settings.unreadable` for what is no such text.
Result<QVariantMap> settings_of(std::string_view text);

/// The text with these settings in place of those of the same keys; all else that it holds stays, as a later Lacquer
/// may know it. Of what is no such text nothing stays.
std::string text_with(std::string_view text, const QVariantMap& values);

}  // namespace lacquer
