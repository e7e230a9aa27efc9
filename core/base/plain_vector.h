// A vector whose new elements are not set to anything: for large buffers that are written whole right away.
#pragma once

#include <cstddef>
#include <new>
#include <utility>
#include <vector>

namespace lacquer {

/// Memory begins where a line of the processor's cache does, and a default-made element keeps what the memory held.
template <class T>
struct PlainAllocator {
    using value_type = T;
    static constexpr std::align_val_t alignment{64};

    PlainAllocator() = default;
    template <class U>
    explicit PlainAllocator(const PlainAllocator<U>&) {}
    T* allocate(std::size_t count) {
        if (count > static_cast<std::size_t>(-1) / sizeof(T)) throw std::bad_array_new_length();
        return static_cast<T*>(::operator new(count * sizeof(T), alignment));
    }
    void deallocate(T* memory, std::size_t) { ::operator delete(memory, alignment); }
    friend bool operator==(const PlainAllocator&, const PlainAllocator&) { return true; }

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
