// Where the rows of the ladder stand.
#pragma once

#include <QRect>
#include <functional>
#include <string>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

enum class LadderRowKind { coat, step };

struct LadderRow {
    LadderRowKind kind = LadderRowKind::step;
    std::size_t coat = 0;
    std::size_t step = 0;
    std::string name;  ///< of the step
    QRect area;        ///< in the ladder's own coordinates, unscrolled
    QRect thumbnail;
    QRect name_area;
    QRect formula_area;
};

/// Height of the selected row's formula, wrapped, and of the lines below it; the rest of the row follows from them.
struct LadderMetrics {
    int width = 460;
    int formula_height = 32;
    int lines = 1;
    /// Which steps are shown; null for all. Where some are not, no coat is folded and those without a step are left
    /// out.
    std::function<bool(const Coat&, const Step&)> shows = nullptr;
};

inline constexpr int coat_row_height = 28;
inline constexpr int step_row_height = 32;
inline constexpr int row_line_height = 18;
inline constexpr int ladder_margin = 40;  ///< for the threads

/// Rows from the top; steps of folded coats have none.
std::vector<LadderRow> ladder_rows(const Finish& finish, const std::string& selected, const LadderMetrics& metrics);

/// Width of the selected row's formula.
int open_formula_width(int ladder_width);

/// The row of a step, or null.
const LadderRow* find_row(const std::vector<LadderRow>& rows, const std::string& step);

}  // namespace lacquer
