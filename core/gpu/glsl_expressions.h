// Expressions and statements as GLSL, and what they turn out to need.
#pragma once

#include <map>
#include <set>
#include <string>
#include <string_view>

#include "core/gpu/glsl.h"
#include "core/gpu/glsl_names.h"
#include "core/lang/tree_printer.h"
#include "core/plan/plan.h"

namespace lacquer {

/// Whether this is a literal above 0, or one that fills all parts.
bool is_above_0(const Typed& typed);

class GlslExpressions final : public TreePrinter {
public:
    GlslExpressions(GlslNames& names, const Pass& pass, PictureAccess access);

    /// A value as GLSL, with every change of width spelled out and guards where GLSL leaves a result open.
    std::string text(const Typed& typed) { return expression(typed, 0); }
    std::string text_of(const TypedFunction& function);
    void set_function_name(const TypedFunction& function, const std::string& wish);
    /// A stored step or ground at the drawn pixel, as vec4.
    std::string read_here(const std::string& source);

    struct Uniform {
        std::string name;
        Type type;
    };
    const std::map<std::string, Uniform, std::less<>>& uniforms() const { return uniforms_; }
    const std::map<std::string, std::string, std::less<>>& pictures() const { return pictures_; }
    const std::set<std::string, std::less<>>& helpers() const { return helpers_; }
    /// Which of uv and pixel were used.
    const std::set<std::string, std::less<>>& used() const { return used_; }
    bool reads_here() const { return reads_here_; }
    /// Functions whose loops count their turns in `lq_turns`.
    void count_turns_of(std::set<const TypedFunction*> functions) { counted_ = std::move(functions); }

private:
    std::string literal(const Typed& typed, int strength) override;
    std::string symbol(const Typed& typed) override;
    std::string variable(int number, const std::string& name) override;
    std::string convert(const Typed& typed) override;
    std::string binary(const Typed& typed, int strength) override;
    std::string call(const Typed& typed) override;
    std::string read(const Typed& typed) override;
    std::string run(const Typed& typed) override;
    const char* part_letters(Type type) const override;
    std::string condition(const Typed& typed) override;

    static std::string number_text(Type type, double number);
    std::string colour_and_opacity(const Typed& typed, int strength);
    std::string with_last_spread(const Typed& call, std::string_view name);
    std::string helper(const std::string& name);
    std::string picture(const std::string& source);
    /// A reading of the whole picture in the way that the source asks for, `weighed` by opacity whatever it asks for.
    /// With `lod`, from a smaller copy.
    std::string reading(const std::string& source, const std::string& where, bool weighed, const std::string& lod);

    GlslNames& names_;
    const Pass& pass_;
    PictureAccess access_;
    std::map<const TypedFunction*, std::string> functions_;
    std::map<std::string, Uniform, std::less<>> uniforms_;
    std::map<std::string, std::string, std::less<>> pictures_;
    std::set<std::string, std::less<>> helpers_;
    std::set<std::string, std::less<>> used_;
    bool reads_here_ = false;
    std::set<const TypedFunction*> counted_;
};

}  // namespace lacquer
