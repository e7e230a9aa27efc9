// A part of the program that is loaded when it is first needed: what brings many libraries along should keep nobody
// waiting at the start.
#pragma once

#include <string>

namespace lacquer {

class Module {
public:
    /// Loads the file of this name from beside the program, or from `../lib/lacquer` next to that. It stays loaded.
    explicit Module(const char* file);

    /// The function of this name, of type `Function`; null if there is none, which `error` then tells.
    template <class Function>
    Function function(const char* name) {
        return reinterpret_cast<Function>(address(name));
    }

    /// Why it did not load, or what it lacks; empty if nothing is wrong.
    const std::string& error() const { return error_; }

private:
    void* address(const char* name);

    void* handle_ = nullptr;
    std::string error_;
};

}  // namespace lacquer
