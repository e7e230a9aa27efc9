#include "core/finish/lots.h"

#include <algorithm>
#include <cmath>

#include "core/base/hash.h"

namespace lacquer {

namespace {

// The name's letters go into what is drawn, so that another dial more leaves the others as they are.
std::uint32_t key_of(const std::string& name) {
    std::uint32_t key = 2166136261U;
    for (const char letter : name) key = pcg(key ^ static_cast<std::uint32_t>(static_cast<unsigned char>(letter)));
    return key;
}

double drawn(double least, double most, const double* around, double reach, double random) {
    if (around == nullptr) return least + (most - least) * random;
    const double far = (most - least) * reach;
    return std::clamp(*around + far * (2 * random - 1), least, most);
}

}  // namespace

HeldDials lot(const Lots& lots, const Finish& finish, int nth) {
    HeldDials values;
    for (const std::string& name : lots.dials) {
        const Dial* dial = find_dial(finish, name);
        if (dial == nullptr) continue;
        const auto place = lots.around.find(name);
        DialValue value{};
        const std::size_t parts = dial->kind == DialKind::colour ? 3 : 1;
        for (std::size_t part = 0; part < parts; ++part) {
            const auto random =
                pcg3d({lots.seed, static_cast<std::uint32_t>(nth), key_of(name) + static_cast<std::uint32_t>(part)})[0];
            const double* around = place != lots.around.end() ? &place->second[part] : nullptr;
            const bool is_switch = dial->kind == DialKind::toggle;
            value[part] = drawn(is_switch ? 0 : dial->least, is_switch ? 1 : dial->most, around, lots.reach,
                                static_cast<double>(unit_from_hash(random)));
        }
        if (dial->kind == DialKind::integer || dial->kind == DialKind::toggle) value[0] = std::round(value[0]);
        if (dial->kind == DialKind::number && dial->increment > 0) {
            const double tidy = std::round(value[0] / dial->increment) * dial->increment;
            value[0] = std::clamp(tidy, dial->least, dial->most);
        }
        values[name] = value;
    }
    return values;
}

Finish with_values(Finish finish, const HeldDials& values) {
    for (Dial& dial : finish.dials) {
        const auto found = values.find(dial.name);
        if (found != values.end()) dial.value = found->second;
    }
    return finish;
}

}  // namespace lacquer
