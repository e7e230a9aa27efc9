// Expressions and statements as GLSL, and what they turn out to need.
#pragma once

#include <map>
#include <set>
#include <string>

#include "core/gpu/glsl_names.h"
#include "core/lang/typed.h"
#include "core/plan/plan.h"

namespace lacquer {

class GlslExpressions {
public:
    GlslExpressions(GlslNames& names, const Pass& pass);

    /// A value as GLSL, with every change of width spelled out and guards where GLSL leaves a result open.
    std::string text(const Typed& typed) { return expression(typed, 0); }
    std::string function_text(const TypedFunction& function);
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
    /// The text, in brackets if it binds less than `strength` (GLSL ES 3.00 section 5.1, as in the parser).
    std::string expression(const Typed& typed, int strength);
    std::string literal(const Typed& typed) const;
    std::string symbol(const Typed& typed);
    std::string parts(const Typed& typed);
    std::string convert(const Typed& typed);
    std::string unary(const Typed& typed);
    std::string binary(const Typed& typed, int strength);
    std::string colour_and_opacity(const Typed& typed, int strength);
    std::string call(const Typed& typed);
    std::string held(const Typed& arg, const char* least, const char* most);
    std::string read(const Typed& typed);
    std::string run(const Typed& typed);
    std::string list(const std::vector<Typed>& args);
    std::string helper(const char* name);
    std::string picture(const std::string& source);
    /// A reading of the whole picture in the way that the source asks for, `weighed` by opacity whatever it asks for.
    /// With `lod`, from a smaller copy.
    std::string reading(const std::string& source, const std::string& where, bool weighed, const std::string& lod);

    std::string statements(const std::vector<TypedStatement>& list, int depth);
    std::string statement(const TypedStatement& s, int depth);
    std::string simple(const TypedStatement& s);

    GlslNames& names_;
    const Pass& pass_;
    std::map<const TypedFunction*, std::string> functions_;
    const TypedFunction* function_ = nullptr;
    std::map<std::string, Uniform, std::less<>> uniforms_;
    std::map<std::string, std::string, std::less<>> pictures_;
    std::set<std::string, std::less<>> helpers_;
    std::set<std::string, std::less<>> used_;
    bool reads_here_ = false;
    std::set<const TypedFunction*> counted_;
};

}  // namespace lacquer
