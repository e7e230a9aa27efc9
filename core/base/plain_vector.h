// A vector whose new elements are not set to anything: for large buffers that are written whole right away.
#pragma once

#include <memory>
#include <utility>
#include <vector>

namespace lacquer {

/// The standard allocator, but a default-made element keeps what the memory held.
template <class T>
struct PlainAllocator : std::allocator<T> {
    template <class U>
    struct rebind {
        using other = PlainAllocator<U>;
    };
    template <class U>
    void construct(U* place) {
        ::new (static_cast<void*>(place)) U;
    }
    template <class U, class... Args>
    void construct(U* place, Args&&... args) {
        ::new (static_cast<void*>(place)) U(std::forward<Args>(args)...);
    }
};

template <class T>
using PlainVector = std::vector<T, PlainAllocator<T>>;

}  // namespace lacquer
