// Lines of code as text: brackets, remarks, how far they stand in.
#pragma once

#include <QString>
#include <QStringList>
#include <optional>

namespace lacquer {

/// Blanks by which what is within brackets stands further in.
inline constexpr int code_indent = 4;

/// Where the bracket stands that belongs to the one at `at`, both as indices into the text; nothing if there is none,
/// or none at `at`. Brackets in remarks belong to nothing.
std::optional<int> matching_bracket(const QString& text, int at);

/// The lines made remarks, each by // where the one stands that stands out most; made code again if all are remarks.
/// Empty lines stay as they are.
QStringList with_remarks_turned(QStringList lines);

/// The lines moved in by steps of `code_indent` blanks, or out if `steps` is less than 0; empty ones stay empty.
QStringList moved_in(QStringList lines, int steps);

/// The blanks with which a line begins that comes after these words of the line above: as far in, or a step further
/// behind an open bracket.
QString blanks_after(const QString& above);

/// Where a place of text that goes by lines and columns stands, both from 1.
struct CodePlace {
    int line = 1;
    int column = 1;
};
CodePlace place_in(const QString& text, int at);

}  // namespace lacquer
