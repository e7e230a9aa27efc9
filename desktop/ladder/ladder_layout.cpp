#include "desktop/ladder/ladder_layout.h"

#include <algorithm>

namespace lacquer {

namespace {

constexpr int right_margin = 12;
constexpr int small_thumbnail_width = 44;
constexpr int open_thumbnail_width = 120;
constexpr int name_width = 92;
constexpr int line = row_line_height;

void place_closed(LadderRow& row) {
    const QRect area = row.area;
    row.thumbnail = QRect(ladder_margin, area.top() + 3, small_thumbnail_width, 25);
    const int name_left = row.thumbnail.right() + 9;
    row.name_area = QRect(name_left, area.top(), name_width, area.height());
    const int formula_left = name_left + name_width + 8;
    row.formula_area = QRect(formula_left, area.top(), area.width() - formula_left - right_margin, area.height());
}

void place_open(LadderRow& row, const LadderMetrics& metrics) {
    const QRect area = row.area;
    row.thumbnail = QRect(ladder_margin, area.top() + 8, open_thumbnail_width, 68);
    const int left = row.thumbnail.right() + 9;
    row.name_area = QRect(left, area.top() + 5, area.width() - left - right_margin, line);
    row.formula_area =
        QRect(left, area.top() + 5 + line + 2, open_formula_width(metrics.width), metrics.formula_height);
}

}  // namespace

int open_formula_width(int ladder_width) {
    return std::max(60, ladder_width - ladder_margin - open_thumbnail_width - 8 - right_margin);
}

std::vector<LadderRow> ladder_rows(const Finish& finish, const std::string& selected, const LadderMetrics& metrics) {
    std::vector<LadderRow> rows;
    int y = 0;
    const auto add = [&](LadderRow row, int height) {
        row.area = QRect(0, y, metrics.width, height);
        y += height;
        return row;
    };
    for (std::size_t c = 0; c < finish.coats.size(); ++c) {
        const Coat& coat = finish.coats[c];
        const auto shown = [&](const Step& step) { return metrics.shows == nullptr || metrics.shows(coat, step); };
        if (metrics.shows != nullptr && std::none_of(coat.steps.begin(), coat.steps.end(), shown)) continue;
        rows.push_back(add({LadderRowKind::coat, c, 0, {}, {}, {}, {}, {}}, coat_row_height));
        if (coat.folded && metrics.shows == nullptr) continue;
        for (std::size_t s = 0; s < coat.steps.size(); ++s) {
            if (!shown(coat.steps[s])) continue;
            const bool open = coat.steps[s].name == selected;
            const int below = metrics.lines * line + 6;
            const int open_height = std::max(84, 5 + line + 2 + metrics.formula_height + below);
            LadderRow row = add({LadderRowKind::step, c, s, coat.steps[s].name, {}, {}, {}, {}},
                                open ? open_height : step_row_height);
            if (open) {
                place_open(row, metrics);
            } else {
                place_closed(row);
            }
            rows.push_back(std::move(row));
        }
    }
    return rows;
}

const LadderRow* find_row(const std::vector<LadderRow>& rows, const std::string& step) {
    const auto found = std::find_if(rows.begin(), rows.end(), [&](const LadderRow& row) {
        return row.kind == LadderRowKind::step && row.name == step;
    });
    return found == rows.end() ? nullptr : &*found;
}

}  // namespace lacquer
