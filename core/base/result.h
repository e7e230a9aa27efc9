// A value, or the fault that kept it from being made.
#pragma once

#include <cassert>
#include <utility>
#include <variant>

#include "core/base/fault.h"

namespace lacquer {

/// Holds either a `T` or a `Fault`. Test it before asking for either.
template <class T>
class [[nodiscard]] Result {
public:
    Result(T value) : held_(std::in_place_index<0>, std::move(value)) {}
    Result(Fault fault) : held_(std::in_place_index<1>, std::move(fault)) {}

    explicit operator bool() const { return held_.index() == 0; }

    T& operator*() & {
        assert(*this);
        return *std::get_if<0>(&held_);
    }
    const T& operator*() const& {
        assert(*this);
        return *std::get_if<0>(&held_);
    }
    T&& operator*() && {
        assert(*this);
        return std::move(*std::get_if<0>(&held_));
    }
    T* operator->() { return std::get_if<0>(&held_); }
    const T* operator->() const { return std::get_if<0>(&held_); }

    const Fault& fault() const {
        assert(!*this);
        return *std::get_if<1>(&held_);
    }

private:
    std::variant<T, Fault> held_;
};

/// For work that yields nothing but can fail.
struct Done {};

}  // namespace lacquer
