// Names as GLSL allows them.
#pragma once

#include <map>
#include <set>
#include <string>
#include <string_view>

namespace lacquer {

/// Gives each thing of a shader a name of its own: the artist's where GLSL has no use for it itself.
class GlslNames {
public:
    /// The name for what `key` stands for, the same at every call; `wish` is how it should be called.
    const std::string& name(const std::string& key, std::string_view wish);

private:
    std::map<std::string, std::string, std::less<>> names_;
    std::set<std::string, std::less<>> taken_;
};

/// True for the words that GLSL 3.30 or GLSL ES 3.00 keep for themselves, and for those that HLSL or Metal's language
/// keep, as shaders are carried over to them.
bool is_glsl_reserved(std::string_view word);

}  // namespace lacquer
