// Visiting a variant with one function a kind: a kind without one does not compile.
#pragma once

namespace lacquer {

template <class... Functions>
struct Overloaded : Functions... {
    using Functions::operator()...;
};
template <class... Functions>
Overloaded(Functions...) -> Overloaded<Functions...>;

}  // namespace lacquer
