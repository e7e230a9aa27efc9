// What a sweep sheet shows: which dial goes from where to where, against what, and so what each of its cells is.
#pragma once

#include <QString>
#include <optional>
#include <string>
#include <vector>

#include "core/finish/finish.h"
#include "core/finish/play.h"

namespace lacquer {

/// What goes along a side of the sheet.
enum class AxisKind { nothing, dial, time, variants };

struct SheetAxis {
    AxisKind kind = AxisKind::nothing;
    std::string dial;  ///< of the kind `dial`
    double from = 0;
    double to = 1;
    int count = 12;
    friend bool operator==(const SheetAxis&, const SheetAxis&) = default;
};

inline constexpr int most_cells_a_side = 64;

struct SheetSpec {
    SheetAxis along;
    SheetAxis against;
    std::string step;  ///< that is looked at; empty is the finished picture
    friend bool operator==(const SheetSpec&, const SheetSpec&) = default;
};

/// One picture of the sheet.
struct SheetCell {
    QString words;  ///< "0.42 · wet"
    QString along;  ///< "0.42": what stands below it
    QString row;    ///< "wet": what stands above its row; empty where the sheet is no table
    HeldDials held;
    std::optional<double> time;          ///< seconds; nothing for the present moment
    std::optional<std::string> variant;  ///< another that is on; nothing for the present one
};

/// A dial over its whole range: in as many cells as it has values if those are few.
SheetAxis axis_of(const Dial& dial, int count);
SheetAxis axis_of_time(const Finish& finish, int count);

/// Time along the first run of a response on the tape: from where it leaves its rest to where it is back, or to the
/// end. Nothing if it never runs.
std::optional<SheetAxis> axis_of_run(const Play& play, const std::string& response, int count);

/// The value at a place along an axis: whole for dials that have whole values only.
double value_on(const SheetAxis& axis, const Finish& finish, int place);
/// As it is written below a cell, with its unit.
QString words_on(const SheetAxis& axis, const Finish& finish, int place);
/// How many places it has; 1 for nothing, one more than there are variants for those.
int places_on(const SheetAxis& axis, const Finish& finish);

/// The cells, row by row; along an axis alone they are one row that wraps.
std::vector<SheetCell> cells_of(const SheetSpec& spec, const Finish& finish);
bool is_table(const SheetSpec& spec);

/// The sheet without what the finish no longer has.
SheetSpec held_to(SheetSpec spec, const Finish& finish);

}  // namespace lacquer
