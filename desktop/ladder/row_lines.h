// What an open row says under its formula: what is wrong and its mends, who uses it, its note.
#pragma once

#include <QColor>
#include <QRect>
#include <QString>
#include <string>
#include <vector>

#include "core/inspect/warning.h"

namespace lacquer {

class Document;
class Drawing;

/// A line of words, or of mends to be clicked.
struct RowLine {
    QString words;
    QColor colour;
    std::vector<Mend> mends;
    bool marked = false;  ///< has the mark of what is wrong before it
};

/// The lines of a step, which `users` use, faults first.
std::vector<RowLine> row_lines(const Document& document, const Drawing& drawing, const std::string& step,
                               const std::vector<std::string>& users, const std::vector<Mend>& fault_mends);

/// Where the mends of a line that begins at `area` stand.
std::vector<QRect> mend_areas(const RowLine& line, const QRect& area);

/// The names as one text: "soft view, stained".
QString joined_names(const std::vector<std::string>& names);

}  // namespace lacquer
