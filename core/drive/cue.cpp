#include "core/drive/cue.h"

#include <algorithm>

namespace lacquer {

void sort_cues(Cues& cues) {
    std::stable_sort(cues.begin(), cues.end(), [](const Cue& a, const Cue& b) { return a.at < b.at; });
}

}  // namespace lacquer
