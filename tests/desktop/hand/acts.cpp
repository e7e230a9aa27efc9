#include "tests/desktop/hand/acts.h"

#include <algorithm>
#include <array>
#include <random>
#include <sstream>

namespace lacquer::test {

namespace {

struct Share {
    Kind kind;
    const char* word;
    int share;  ///< of a thousand
};

constexpr std::array shares = {
    Share{Kind::key, "key", 330},      Share{Kind::text, "text", 90},   Share{Kind::action, "action", 160},
    Share{Kind::click, "click", 130},  Share{Kind::twice, "twice", 30}, Share{Kind::menu, "menu", 20},
    Share{Kind::drag, "drag", 70},     Share{Kind::wheel, "wheel", 40}, Share{Kind::size, "size", 10},
    Share{Kind::time, "time", 50},     Share{Kind::file, "file", 10},   Share{Kind::drop, "drop", 5},
    Share{Kind::answer, "answer", 15}, Share{Kind::rest, "rest", 10},   Share{Kind::escape, "escape", 30}};

const char* word_of(Kind kind) {
    return std::find_if(shares.begin(), shares.end(), [&](const Share& share) { return share.kind == kind; })->word;
}

}  // namespace

std::vector<Act> acts_of(std::uint64_t seed, std::size_t count) {
    std::mt19937_64 random(seed);
    const auto below = [&](std::uint64_t most) { return static_cast<int>(random() % most); };
    std::vector<Act> acts;
    while (acts.size() < count) {
        int left = below(1000);
        const auto share = std::find_if(shares.begin(), shares.end() - 1, [&](const Share& one) {
            left -= one.share;
            return left < 0;
        });
        acts.push_back({share->kind, below(1000), below(1000), below(1000), below(1000)});
    }
    return acts;
}

std::string to_line(const Act& act) {
    std::ostringstream line;
    line << word_of(act.kind) << ' ' << act.a << ' ' << act.b << ' ' << act.c << ' ' << act.d;
    return line.str();
}

std::optional<Act> act_of(const std::string& line) {
    std::istringstream words(line);
    std::string word;
    Act act;
    if (!(words >> word >> act.a >> act.b >> act.c >> act.d)) return std::nullopt;
    const auto found = std::find_if(shares.begin(), shares.end(), [&](const Share& one) { return word == one.word; });
    if (found == shares.end()) return std::nullopt;
    act.kind = found->kind;
    return act;
}

}  // namespace lacquer::test
