// A part of the program that is loaded when it is first needed: what brings many libraries along should keep nobody
// waiting at the start.
#pragma once

#include <string>

namespace lacquer {

/// Where a file lies that belongs to this program: beside it, in `../lib/lacquer` next to that, or, where all this is a
/// library of another program, beside that library or in `lacquer` there. The first place if it is nowhere.
std::string part_of_program(const std::string& file);

class Module {
public:
    /// Loads a part of the program; see above. It stays loaded.
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
