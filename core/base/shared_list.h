// A list that copies share until one of them is changed: a snapshot of a finish costs what is different in it.
#pragma once

#include <cstddef>
#include <initializer_list>
#include <memory>
#include <utility>
#include <vector>

namespace lacquer {

/// A value with the interface of a vector. Reading by way of a const list never copies; anything that may change a list
/// first makes it this one's own. Different copies may be used from different threads.
template <class T>
class SharedList {
public:
    using value_type = T;
    using iterator = typename std::vector<T>::iterator;
    using const_iterator = typename std::vector<T>::const_iterator;

    SharedList() = default;
    SharedList(std::initializer_list<T> items) : items_(std::make_shared<std::vector<T>>(items)) {}
    SharedList(std::vector<T> items) : items_(std::make_shared<std::vector<T>>(std::move(items))) {}

    std::size_t size() const { return read().size(); }
    bool empty() const { return read().empty(); }
    const T& operator[](std::size_t n) const { return read()[n]; }
    const T& front() const { return read().front(); }
    const T& back() const { return read().back(); }
    const_iterator begin() const { return read().begin(); }
    const_iterator end() const { return read().end(); }
    operator const std::vector<T>&() const { return read(); }

    T& operator[](std::size_t n) { return own()[n]; }
    T& front() { return own().front(); }
    T& back() { return own().back(); }
    iterator begin() { return own().begin(); }
    iterator end() { return own().end(); }
    /// The list itself, to be changed as any other.
    std::vector<T>& own() {
        if (items_ == nullptr) {
            items_ = std::make_shared<std::vector<T>>();
        } else if (items_.use_count() > 1) {
            items_ = std::make_shared<std::vector<T>>(*items_);
        } else {
            // The last other owner may have let go on another thread; what it read must come before what is written.
            // Letting go of one more hold sees to that, as it does for whoever is last.
            std::shared_ptr<std::vector<T>>(items_).reset();
        }
        return *items_;
    }
    void push_back(T item) { own().push_back(std::move(item)); }
    template <class... Parts>
    T& emplace_back(Parts&&... parts) {
        return own().emplace_back(std::forward<Parts>(parts)...);
    }
    iterator insert(const_iterator at, T item) {
        const auto n = at - std::as_const(*this).begin();
        return own().insert(own().begin() + n, std::move(item));
    }
    iterator erase(const_iterator at) { return erase(at, at + 1); }
    iterator erase(const_iterator first, const_iterator last) {
        const auto n = first - std::as_const(*this).begin();
        const auto m = last - std::as_const(*this).begin();
        return own().erase(own().begin() + n, own().begin() + m);
    }
    void pop_back() { own().pop_back(); }
    void clear() { items_.reset(); }
    void reserve(std::size_t count) { own().reserve(count); }

    friend bool operator==(const SharedList& a, const SharedList& b) {
        return a.items_ == b.items_ || a.read() == b.read();
    }

private:
    const std::vector<T>& read() const {
        static const std::vector<T> none;
        return items_ != nullptr ? *items_ : none;
    }

    std::shared_ptr<std::vector<T>> items_;
};

}  // namespace lacquer
