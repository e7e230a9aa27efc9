#include "core/finish/stops_table.h"

#include "core/drive/easing.h"

namespace lacquer {

namespace {

double eased(const std::string& easing, double share) {
    if (easing == stay_easing) return share < 1 ? 0 : 1;
    return easing_named(easing).value_or(Easing{})(share);
}

}  // namespace

const std::vector<std::string>& stop_easings() {
    static const std::vector<std::string> names = [] {
        std::vector<std::string> all = css_easing_names();
        all.emplace_back(stay_easing);
        return all;
    }();
    return names;
}

Picture stops_table(const Stops& stops) { return table_of(stops.list, stops.between, eased); }

}  // namespace lacquer
