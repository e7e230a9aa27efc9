#include "desktop/playing/drop_counts.h"

namespace lacquer {

std::vector<float> drop_counts(const Play& play, const std::string& ground, double from, double to, int samples) {
    constexpr double most_in_all = 200'000;
    const Emitter* emitter = play.emitter(ground);
    const double expected = emitter != nullptr ? emitter->expected() : 0;
    const int stride = 1 + static_cast<int>(expected * samples / most_in_all);
    std::vector<float> counts;
    for (int i = 0; i < samples; ++i) {
        const bool anew = i % stride == 0;
        const double at = from + (to - from) * i / (samples - 1);
        counts.push_back(anew ? static_cast<float>(play.drop_count(ground, at)) : counts.back());
    }
    return counts;
}

}  // namespace lacquer
