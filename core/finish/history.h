// Undo and redo: snapshots of the finish, each with what was done in words.
#pragma once

#include <cstddef>
#include <memory>
#include <string>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

class History {
public:
    explicit History(Finish first);

    const std::shared_ptr<const Finish>& now() const { return entries_[at_].finish; }

    /// Makes `finish` the present state; what was undone is forgotten. A change with the same non-empty `merge_key` as
    /// the one before becomes one with it (the moves of one drag). An unchanged finish adds nothing.
    void record(Finish finish, std::string what, std::string merge_key = {});

    /// Ends merging: the next change stands alone.
    void seal() { entries_[at_].merge_key.clear(); }

    bool can_undo() const { return at_ > 0; }
    bool can_redo() const { return at_ + 1 < entries_.size(); }
    /// What undo would take back, or redo bring back.
    std::string undo_words() const { return can_undo() ? entries_[at_].what : std::string(); }
    std::string redo_words() const { return can_redo() ? entries_[at_ + 1].what : std::string(); }
    void undo();
    void redo();

    /// All states, oldest first: how many there are, which is the present one, what led to each ("" for the first).
    std::size_t size() const { return entries_.size(); }
    std::size_t at() const { return at_; }
    std::string words(std::size_t entry) const { return entries_[entry].what; }
    /// Makes one of them the present state; those after it stay until something is recorded.
    void go_to(std::size_t entry);

private:
    struct Entry {
        std::shared_ptr<const Finish> finish;
        std::string what;
        std::string merge_key;
    };
    static constexpr std::size_t most_entries_ = 1000;
    std::vector<Entry> entries_;
    std::size_t at_ = 0;
};

}  // namespace lacquer
