#include "core/finish/history.h"

namespace lacquer {

History::History(Finish first) { entries_.push_back({std::make_shared<const Finish>(std::move(first)), {}, {}}); }

void History::record(Finish finish, std::string what, std::string merge_key) {
    if (finish == *now()) return;
    auto state = std::make_shared<const Finish>(std::move(finish));
    entries_.resize(at_ + 1);
    if (at_ > 0 && !merge_key.empty() && entries_[at_].merge_key == merge_key) {
        entries_[at_] = {std::move(state), std::move(what), std::move(merge_key)};
        return;
    }
    entries_.push_back({std::move(state), std::move(what), std::move(merge_key)});
    if (entries_.size() > most_entries_) entries_.erase(entries_.begin());
    at_ = entries_.size() - 1;
}

void History::undo() {
    if (!can_undo()) return;
    seal();
    --at_;
}

void History::redo() {
    if (!can_redo()) return;
    ++at_;
    seal();
}

void History::go_to(std::size_t entry) {
    if (entry >= entries_.size()) return;
    seal();
    at_ = entry;
    seal();
}

}  // namespace lacquer
