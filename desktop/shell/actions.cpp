#include "desktop/shell/actions.h"

#include <algorithm>
#include <cstring>
#include <vector>

namespace lacquer {

std::span<const ActionRow> action_rows() {
    static const std::vector<ActionRow> all = [] {
        std::vector<ActionRow> joined;
        for (const auto rows : {building_rows(), looking_rows(), playing_rows()})
            joined.insert(joined.end(), rows.begin(), rows.end());
        return joined;
    }();
    return all;
}

const ActionRow& action_row(const char* id) {
    const auto rows = action_rows();
    return *std::find_if(rows.begin(), rows.end(), [&](const ActionRow& row) { return std::strcmp(row.id, id) == 0; });
}

}  // namespace lacquer
