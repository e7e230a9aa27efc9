// A formula as coloured words.
#pragma once

#include <QString>
#include <QTextLayout>
#include <string>

#include "core/finish/checked.h"

namespace lacquer {

/// Character formats for the words of `formula`: steps and grounds, dials and responses, numbers, functions.
QList<QTextLayout::FormatRange> formula_formats(const std::string& formula, const Finish& finish);

/// How a name is written, as a word that is called or not.
QTextCharFormat name_format(std::string_view name, bool is_called, const Finish& finish);

/// A byte offset of UTF-8 text as an index into the QString of it.
int text_index(const std::string& text, std::uint32_t byte);

/// "1 number", "2 numbers" and so on.
QString type_words(Type type);

/// A formula's text as a layout breaks it: each line of code on a line of its own.
QString lines_of(const std::string& formula);

}  // namespace lacquer
