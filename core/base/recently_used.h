// A table that holds what was used last, within a budget.
#pragma once

#include <cstddef>
#include <list>
#include <map>
#include <utility>

namespace lacquer {

/// Values by key, each at a cost. What was not used for longest goes first where all together cost more than the
/// budget; what was put in last stays whatever it costs. Not to be shared between threads without a lock.
template <class Key, class Value>
class RecentlyUsed {
public:
    explicit RecentlyUsed(std::size_t budget) : budget_(budget) {}

    /// The value, which counts as used, or null.
    Value* find(const Key& key) {
        const auto found = places_.find(key);
        if (found == places_.end()) return nullptr;
        entries_.splice(entries_.begin(), entries_, found->second);
        return &entries_.front().value;
    }

    /// Puts a value in, over an older one of the same key.
    Value& put(const Key& key, Value value, std::size_t cost) {
        if (const auto old = places_.find(key); old != places_.end()) drop(old->second);
        entries_.push_front({key, std::move(value), cost});
        places_[key] = entries_.begin();
        cost_ += cost;
        keep_to_budget();
        return entries_.front().value;
    }

    /// Lets go of those of which `loose(value)` is true, what was not used for longest first, as long as all that is
    /// here costs more than `most`.
    template <class Loose>
    void shrink_to(std::size_t most, const Loose& loose) {
        for (auto entry = entries_.end(); cost_ > most && entry != entries_.begin();) {
            --entry;
            const auto next = std::next(entry);
            if (!loose(entry->value)) continue;
            drop(entry);
            entry = next;
        }
    }

    /// Whether there is a value, which does not count as used by that.
    bool holds(const Key& key) const { return places_.contains(key); }

    /// Drops those of which `unwanted(value)` is true.
    template <class Unwanted>
    void drop_if(const Unwanted& unwanted) {
        for (auto entry = entries_.begin(); entry != entries_.end();) {
            const auto next = std::next(entry);
            if (unwanted(entry->value)) drop(entry);
            entry = next;
        }
    }

    std::size_t size() const { return entries_.size(); }
    std::size_t cost() const { return cost_; }

private:
    struct Entry {
        Key key;
        Value value;
        std::size_t cost;
    };
    using Entries = std::list<Entry>;

    void keep_to_budget() {
        while (cost_ > budget_ && entries_.size() > 1) drop(std::prev(entries_.end()));
    }

    void drop(typename Entries::iterator entry) {
        cost_ -= entry->cost;
        places_.erase(entry->key);
        entries_.erase(entry);
    }

    std::size_t budget_;
    std::size_t cost_ = 0;
    Entries entries_;  // last used first
    std::map<Key, typename Entries::iterator> places_;
};

}  // namespace lacquer
