// Which of a view's things are chosen: one that commands work on, and perhaps others with it.
#pragma once

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

namespace lacquer {

class ChosenNames {
public:
    /// The one that single commands work on; empty if nothing is chosen.
    const std::string& one() const { return one_; }
    /// All of them, the one above among them.
    const std::vector<std::string>& all() const { return all_; }
    bool several() const { return all_.size() > 1; }
    bool holds(const std::string& name) const { return std::find(all_.begin(), all_.end(), name) != all_.end(); }

    void choose(const std::string& name) {
        one_ = name;
        all_.clear();
        if (!name.empty()) all_.push_back(name);
    }

    void choose_all(std::vector<std::string> names) {
        all_ = std::move(names);
        if (!holds(one_)) one_ = all_.empty() ? std::string() : all_.front();
    }

    /// Puts it in, or takes it out if it isn't the only one. They stand in `order`, which names all that there are.
    void toggle(const std::string& name, const std::vector<std::string>& order) {
        const bool was = holds(name);
        if (was && !several()) return;
        std::vector<std::string> now;
        for (const std::string& each : order) {
            if (each == name ? !was : holds(each)) now.push_back(each);
        }
        all_ = std::move(now);
        one_ = was ? all_.front() : name;
    }

    /// Some have gone; if none is left, the first that there is comes in their place.
    void keep_among(const std::vector<std::string>& there) {
        const auto gone = [&](const std::string& name) {
            return std::find(there.begin(), there.end(), name) == there.end();
        };
        std::erase_if(all_, gone);
        if (!one_.empty() && !gone(one_)) return;
        if (all_.empty()) return choose(there.empty() ? std::string() : there.front());
        one_ = all_.front();
    }

private:
    std::string one_;
    std::vector<std::string> all_;
};

}  // namespace lacquer
