#include "core/finish/bring_shader.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <optional>
#include <set>
#include <utility>

#include "core/base/guarded.h"
#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/lang/builtins.h"
#include "core/lang/known_names.h"
#include "core/scene/places.h"
#include "core/shader/refusal.h"
#include "core/shader/source_tokens.h"

namespace lacquer {

namespace {

// A uniform as it is declared: what is replaced, and the remark behind it.
struct Uniform {
    std::string type;
    std::string name;
    std::string value;  // behind an '=', as it is written
    std::string remark;
    Span span;  // of the whole declaration
    bool alone = true;
};

std::string lower(std::string_view text) {
    std::string made;
    for (const char c : text) made += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return made;
}

// "uFogColour" and "u_fog_colour" are fog_colour.
std::string plain_name(const std::string& name) {
    std::string made;
    for (std::size_t k = 0; k < name.size(); ++k) {
        const bool upper = std::isupper(static_cast<unsigned char>(name[k])) != 0;
        const bool after_lower = k > 0 && std::islower(static_cast<unsigned char>(name[k - 1])) != 0;
        if (upper && after_lower) made += '_';
        made += name[k];
    }
    made = lower(made);
    if (made.starts_with("u_") && made.size() > 2) made.erase(0, 2);
    return made;
}

bool is_one_of(std::string_view word, std::initializer_list<std::string_view> words) {
    return std::find(words.begin(), words.end(), word) != words.end();
}

bool holds(std::string_view word, std::initializer_list<std::string_view> parts) {
    return std::any_of(parts.begin(), parts.end(),
                       [&](std::string_view part) { return word.find(part) != std::string_view::npos; });
}

struct Range {
    double least = 0;
    double most = 1;
    double value = 0.5;
};

std::optional<double> number_at(std::string_view text, std::size_t& at) {
    std::size_t end = at;
    if (end < text.size() && text[end] == '-') ++end;
    while (end < text.size() && (std::isdigit(static_cast<unsigned char>(text[end])) != 0 ||
                                 // A point belongs to the number unless another follows, as in "0..1".
                                 (text[end] == '.' && text.substr(end, 2) != "..")))
        ++end;
    const std::optional<double> number = parse_number(text.substr(at, end - at));
    if (number) at = end;
    return number;
}

// "0..1", "0 to 1", "0 - 1", "[0, 1]" in a remark.
std::optional<Range> range_in(std::string_view remark) {
    for (std::size_t begin = 0; begin < remark.size(); ++begin) {
        const bool starts = std::isdigit(static_cast<unsigned char>(remark[begin])) != 0 || remark[begin] == '-';
        const bool within =
            begin > 0 && (std::isalnum(static_cast<unsigned char>(remark[begin - 1])) != 0 || remark[begin - 1] == '.');
        if (!starts || within) continue;
        std::size_t at = begin;
        const std::optional<double> least = number_at(remark, at);
        if (!least) continue;
        const std::size_t gap = remark.find_first_not_of(" \t", at);
        if (gap == std::string_view::npos) continue;
        for (const std::string_view between : {"...", "..", "to ", "-", ",", "\xE2\x80\x93"}) {
            if (remark.substr(gap, between.size()) != between) continue;
            std::size_t next = remark.find_first_not_of(" \t", gap + between.size());
            if (next == std::string_view::npos) break;
            const std::optional<double> most = number_at(remark, next);
            if (most && *most > *least) return Range{*least, *most, (*least + *most) / 2};
        }
    }
    return std::nullopt;
}

Range range_by_name(const std::string& name, bool whole) {
    if (whole) return holds(name, {"seed"}) ? Range{0, 99, 1} : Range{0, 16, 4};
    if (holds(name, {"angle", "rotation", "degrees", "turn"})) return {-180, 180, 0};
    if (holds(name, {"speed", "rate"})) return {0, 4, 1};
    if (holds(name, {"scale", "freq", "zoom", "size", "count", "density"})) return {0, 20, 4};
    if (holds(name, {"seed"})) return {0, 99, 1};
    if (holds(name, {"gamma", "contrast", "exposure", "brightness", "gain", "saturation"})) return {0, 4, 1};
    if (holds(name, {"pixel", "px"})) return {0, 64, 8};
    return {};
}

class Bringer {
public:
    Bringer(std::string_view text, std::string_view name) : text_(text) {
        made_.finish.name = name;
        for (const SourceToken& token : source_tokens(text)) {
            if (token.kind == SourceTokenKind::name) words_.insert(token.text);
        }
    }

    BroughtShader run() {
        find_uniforms();
        std::string code;
        std::size_t copied = 0;
        for (std::size_t k = 0; k < uniforms_.size(); ++k) {
            const Uniform& uniform = uniforms_[k];
            const std::string instead = connected(uniform);
            // Several of one declaration are replaced as one.
            lines_ += instead;
            if (k + 1 < uniforms_.size() && uniforms_[k + 1].span == uniform.span) continue;
            code += text_.substr(copied, uniform.span.begin - copied);
            add_instead(code, uniform.span);
            copied = uniform.span.end;
        }
        code += text_.substr(copied);
        Step step;
        step.name = free_name_for("picture");
        step.formula = std::move(code);
        step.rules = CodeRules::glsl;
        made_.step = step.name;
        made_.finish.coats = {Coat{"Brought in", "", true, false, {}, {}}};
        made_.finish.coats[0].steps.push_back(std::move(step));
        return std::move(made_);
    }

private:
    // What was declared stays, or is replaced by lines of its own.
    void add_instead(std::string& code, Span declared) {
        if (lines_.empty()) {
            code += text_.substr(declared.begin, declared.end - declared.begin);
            return;
        }
        const std::size_t before = code.find_last_not_of(" \t");
        if (lines_[0] == '#' && before != std::string::npos && code[before] != '\n') code += '\n';
        const std::size_t after = text_.find_first_not_of(" \t", declared.end);
        const bool ends_line = after == std::string_view::npos || text_[after] == '\n' || text_[after] == '\r' ||
                               text_.substr(after, 2) == "//";
        // The line's own end, or remark, comes behind it.
        if (ends_line && lines_.back() == '\n') lines_.pop_back();
        code += std::exchange(lines_, {});
    }

    void find_uniforms() {
        const std::vector<SourceToken> tokens = source_tokens(text_);
        int depth = 0;
        bool directive = false;
        for (std::size_t k = 0; k < tokens.size(); ++k) {
            const SourceToken& token = tokens[k];
            const bool begins_line = k == 0 || tokens[k - 1].kind == SourceTokenKind::line;
            if (begins_line) directive = token.is("#");
            if (token.is("{")) ++depth;
            if (token.is("}")) --depth;
            if (!token.is_word("uniform") || depth != 0 || directive) continue;
            k = declaration(tokens, k);
        }
    }

    // Reads one declaration; its last token.
    std::size_t declaration(const std::vector<SourceToken>& tokens, std::size_t first) {
        const auto token = [&](std::size_t at) -> const SourceToken& {
            return tokens[std::min(at, tokens.size() - 1)];
        };
        const auto skip_lines = [&](std::size_t& at) {
            while (token(at).kind == SourceTokenKind::line) ++at;
        };
        std::size_t at = first + 1;
        skip_lines(at);
        while (is_one_of(token(at).text, {"highp", "mediump", "lowp"})) {
            ++at;
            skip_lines(at);
        }
        const std::string type = token(at).text;
        std::vector<Uniform> names;
        while (true) {
            ++at;
            skip_lines(at);
            if (token(at).kind != SourceTokenKind::name) return first;
            Uniform uniform;
            uniform.type = type;
            uniform.name = tokens[at++].text;
            skip_lines(at);
            if (token(at).is("=")) {
                const std::size_t begin = token(at).span.end;
                while (!token(at).is(";") && token(at).kind != SourceTokenKind::end) ++at;
                uniform.value = text_.substr(begin, token(at).span.begin - begin);
            }
            names.push_back(std::move(uniform));
            if (token(at).is(",")) continue;
            if (!token(at).is(";")) return first;
            break;
        }
        const std::size_t end = token(at).span.end;
        const std::size_t line = std::min(text_.find('\n', end), text_.size());
        std::string remark(text_.substr(end, line - end));
        for (Uniform& uniform : names) {
            uniform.span = {token(first).span.begin, static_cast<std::uint32_t>(end)};
            const std::size_t begins = remark.find_first_not_of("/* \t\r");
            if (remark.find("//") != std::string::npos || remark.find("/*") != std::string::npos)
                uniform.remark = begins == std::string::npos ? "" : remark.substr(begins);
            while (!uniform.remark.empty() &&
                   std::string_view("*/ \t\r").find(uniform.remark.back()) != std::string_view::npos)
                uniform.remark.pop_back();
            uniform.alone = names.size() == 1;
            uniforms_.push_back(std::move(uniform));
        }
        return at;
    }

    // A name that nothing has here, and no word of the shader.
    std::string free_name_for(const std::string& wanted) {
        std::string stem = identifier_from(wanted);
        if (stem.empty()) stem = "value";
        for (int k = 1;; ++k) {
            const std::string suffix = k == 1 ? "" : fmt::format("_{}", k);
            std::string name = stem.substr(0, max_name_length - suffix.size()) + suffix;
            const bool taken = taken_.contains(name) || (words_.contains(name) && name != wanted_here_) ||
                               find_known(name) != nullptr || is_builtin_name(name);
            if (!taken) {
                taken_.insert(name);
                return name;
            }
        }
    }

    std::string name_for(const std::string& in_shader) {
        wanted_here_ = in_shader;
        std::string name = free_name_for(is_identifier(in_shader) ? in_shader : plain_name(in_shader));
        wanted_here_.clear();
        return name;
    }

    void tell(std::string words) { made_.told.push_back(std::move(words)); }

    static std::string defined(const std::string& name, const std::string& as) {
        return fmt::format("#define {} {}\n", name, as);
    }

    // What stands in the text instead of its declaration; empty if that stays.
    std::string connected(const Uniform& uniform) {
        const std::string plain = plain_name(uniform.name);
        const std::string& type = uniform.type;
        if (type == "float" && is_one_of(plain, {"time", "seconds", "elapsed", "elapsed_time", "clock", "global_time",
                                                 "current_time", "t"})) {
            tell("'" + uniform.name + "' is the time in seconds");
            return uniform.name == "time" && uniform.alone ? "" : defined(uniform.name, "time");
        }
        const bool is_size =
            holds(plain, {"resolution", "viewport", "screen_size", "frame_size", "canvas_size", "screen"});
        if (is_size && is_one_of(type, {"vec2", "vec3", "vec4"})) {
            tell("'" + uniform.name + "' is the size of the frame in pixels");
            return defined(uniform.name, type == "vec2"   ? "frame_size"
                                         : type == "vec3" ? "vec3(frame_size, 1.0)"
                                                          : "vec4(frame_size, pixel_size)");
        }
        if (type == "int" && is_one_of(plain, {"frame", "frame_count", "frame_number"})) {
            tell("'" + uniform.name + "' counts ticks");
            return defined(uniform.name, "int(tick)");
        }
        if (type == "sampler2D") return ground(uniform);
        if (type == "float" || type == "int" || type == "uint" || type == "bool") return dial(uniform, plain);
        const bool is_vector = is_one_of(type, {"vec2", "vec3", "vec4"});
        const bool is_colour = holds(plain, {"colour", "color", "tint", "rgb", "paint", "albedo", "diffuse", "ink"});
        if (is_vector && type != "vec2" && is_colour) return colour(uniform);
        if (is_vector) return numbers(uniform, plain);
        tell("'" + uniform.name + "' is a " + type + ", which nothing here can stand for: it stays as it is");
        return uniform.alone ? "" : fmt::format("uniform {} {};\n", type, uniform.name);
    }

    static void set(Dial& dial, const Range& range) {
        dial.least = range.least;
        dial.most = range.most;
        dial.value = dial.default_value = {range.value, 0, 0};
        dial.increment = dial.kind == DialKind::integer ? 1 : (range.most - range.least) / 100;
    }

    Dial& new_dial(const Uniform& uniform, const std::string& name, DialKind kind) {
        Dial dial;
        dial.name = name;
        dial.code_name = uniform.name;
        dial.kind = kind;
        dial.note = uniform.remark;
        made_.finish.dials.push_back(std::move(dial));
        return made_.finish.dials.back();
    }

    Range range_of(const Uniform& uniform, const std::string& plain, bool whole) const {
        Range range = range_in(uniform.remark).value_or(range_by_name(plain, whole));
        const std::optional<double> value = parse_number(uniform.value);
        if (value) {
            range.value = *value;
            range.least = std::min(range.least, *value);
            range.most = std::max(range.most, *value);
        }
        if (whole) range.value = std::round(range.value);
        return range;
    }

    std::string dial(const Uniform& uniform, const std::string& plain) {
        const bool whole = uniform.type == "int" || uniform.type == "uint";
        const bool yes_or_no = uniform.type == "bool";
        const std::string name = name_for(uniform.name);
        Dial& dial = new_dial(uniform, name,
                              yes_or_no ? DialKind::toggle
                              : whole   ? DialKind::integer
                                        : DialKind::number);
        if (yes_or_no) {
            dial.value = dial.default_value = {uniform.value.find("true") != std::string::npos ? 1.0 : 0.0, 0, 0};
            dial.increment = 1;
        } else {
            set(dial, range_of(uniform, plain, whole));
        }
        tell(name == uniform.name ? "'" + name + "' is a dial" : "'" + uniform.name + "' is the dial '" + name + "'");
        if (name == uniform.name && uniform.alone && uniform.value.empty()) return "";
        const std::string converted = whole ? fmt::format("{}({})", uniform.type, name) : name;
        return converted == uniform.name ? " " : defined(uniform.name, converted);
    }

    std::string colour(const Uniform& uniform) {
        const std::string name = name_for(uniform.name);
        Dial& dial = new_dial(uniform, name, DialKind::colour);
        dial.value = dial.default_value = {0.8, 0.5, 0.3};
        std::vector<double> numbers;
        for (std::size_t at = 0; at < uniform.value.size(); ++at) {
            if (std::isdigit(static_cast<unsigned char>(uniform.value[at])) == 0 || at == 0 ||
                std::isalpha(static_cast<unsigned char>(uniform.value[at - 1])) != 0)
                continue;
            if (const std::optional<double> number = number_at(uniform.value, at)) numbers.push_back(*number);
        }
        if (numbers.size() == 1) numbers.resize(3, numbers[0]);
        if (numbers.size() >= 3) dial.value = dial.default_value = {numbers[0], numbers[1], numbers[2]};
        tell("'" + uniform.name + "' is the colour '" + name + "'");
        const bool opaque = uniform.type == "vec4";
        if (name == uniform.name && !opaque && uniform.alone && uniform.value.empty()) return "";
        const std::string as = opaque ? fmt::format("vec4({}, 1.0)", name) : name;
        return as == uniform.name ? " " : defined(uniform.name, as);
    }

    // A dial for each number of a vector.
    std::string numbers(const Uniform& uniform, const std::string& plain) {
        std::string all;
        std::string names;
        const std::size_t count = static_cast<std::size_t>(uniform.type[3] - '0');
        for (std::size_t k = 0; k < count; ++k) {
            const std::string name = free_name_for(plain + "_" + std::string(1, "xyzw"[k]));
            Dial& dial = new_dial(uniform, name, DialKind::number);
            dial.code_name = uniform.name + "_" + std::string(1, "xyzw"[k]);
            set(dial, range_of(uniform, plain, false));
            all += (k == 0 ? "" : ", ") + name;
            names += (k == 0 ? "'" : ", '") + name + "'";
        }
        tell("'" + uniform.name + "' is made of the dials " + names);
        return defined(uniform.name, uniform.type + "(" + all + ")");
    }

    std::string ground(const Uniform& uniform) {
        const std::string name = name_for(uniform.name);
        made_.finish.grounds.push_back({name, SceneGround{view_of_place(*find_place("harbour"), Hour::dusk)}});
        tell("'" + uniform.name + "' is the ground '" + name + "', a stand-in picture: choose another on its page");
        if (name == uniform.name && uniform.alone) return "";
        return defined(uniform.name, name);
    }

    std::string_view text_;
    BroughtShader made_;
    std::set<std::string, std::less<>> words_;
    std::set<std::string, std::less<>> taken_;
    std::string wanted_here_;
    std::vector<Uniform> uniforms_;
    std::string lines_;
};

}  // namespace

Result<BroughtShader> bring_shader(std::string_view text, std::string_view name) {
    return guarded([&]() -> Result<BroughtShader> {
        try {
            if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
                return Fault{"shader.empty", "there is nothing in it", "choose a fragment shader", {}, Severity::fault};
            return Bringer(text, name).run();
        } catch (const Refusal& refusal) {
            return refusal.fault;
        }
    });
}

}  // namespace lacquer
