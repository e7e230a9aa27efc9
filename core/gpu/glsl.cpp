#include "core/gpu/glsl.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/gpu/glsl_expressions.h"
#include "core/gpu/glsl_names.h"
#include "core/gpu/glsl_prelude.h"

namespace lacquer {

namespace {

// Calls visit(function) on all functions that a tree calls, those that others need first, each once.
template <class Visit>
void for_each_function(const Typed& typed, std::set<const TypedFunction*>& seen, Visit& visit) {
    std::vector<const TypedFunction*> calls;
    const auto collect = [&](const Typed& node) {
        if (const TypedFunction* function = node.function()) calls.push_back(function);
    };
    visit_nodes(typed, collect);
    // Inner calls come after the outer ones that hold them, so the last is needed first.
    for (auto call = calls.rbegin(); call != calls.rend(); ++call) {
        if (seen.insert(*call).second) visit(**call);
    }
}

class ShaderWriter {
public:
    ShaderWriter(const Pass& pass, Dialect dialect, const ShaderStyle& style)
        : pass_(pass), dialect_(dialect), style_(style), expressions_(names_, pass, style.access) {}

    Shader run() {
        find_globals();
        find_counted();
        write_functions();
        write_main();
        shader_.outputs = pass_.outputs;
        shader_.text = head() + declarations() + helpers() + globals() + functions_ + body_;
        return std::move(shader_);
    }

private:
    // Steps whose values functions look at must be known outside main.
    void find_globals() {
        std::set<const TypedFunction*> seen;
        const auto look = [&](const TypedFunction& function) {
            const auto names = [&](const Typed& node) {
                if (const auto* here = node.as<NameHere>()) in_functions_.insert(here->name);
            };
            visit_nodes(function.body, names);
        };
        for (const PassStep& step : pass_.steps) for_each_function(*step.typed, seen, look);
    }

    // All that a step runs in which some turns have to be counted; the same function may also be run by others.
    void find_counted() {
        std::set<const TypedFunction*> counted;
        const auto add = [](const TypedFunction&) {};
        for (const PassStep& step : pass_.steps) {
            if (counts_turns(*step.typed)) for_each_function(*step.typed, counted, add);
        }
        counts_turns_ = !counted.empty();
        expressions_.count_turns_of(std::move(counted));
    }

    void write_functions() {
        std::set<const TypedFunction*> seen;
        for (const PassStep& step : pass_.steps) {
            const auto write = [&](const TypedFunction& function) {
                expressions_.set_function_name(function, function.name.empty() ? step.name + "_here" : function.name);
                functions_ += expressions_.text_of(function) + "\n";
            };
            for_each_function(*step.typed, seen, write);
        }
    }

    void write_main() {
        std::string lines;
        for (const PassStep& step : pass_.steps) {
            const std::string value = expressions_.text(*step.typed);
            const std::string name = names_.name(step.name, step.name);
            const std::string type =
                in_functions_.contains(step.name) ? "" : std::string(glsl_name(step.typed->type)) + " ";
            // Each step has turns of its own; where they are known to be few enough, none are counted away.
            if (counts_turns_)
                lines += fmt::format("    lq_turns = {};\n", counts_turns(*step.typed) ? "0" : "-2147483647");
            if (const auto note = style_.notes.find(step.name); note != style_.notes.end())
                lines += "    // " + comment_text(note->second) + "\n";
            lines += fmt::format("    {}{} = {};\n", type, name, value);
            types_[step.name] = step.typed->type;
        }
        for (std::size_t k = 0; k < pass_.outputs.size(); ++k) {
            lines += fmt::format("    lq_out_{} = {};\n", k, output_text(pass_.outputs[k]));
        }
        // The places are written last, when it is known which are used.
        std::string places;
        if (uses("uv")) places += "    " + declared("uv", Type::vec2) + " = gl_FragCoord.xy / lq_drawn_size;\n";
        if (uses("pixel")) {
            places += "    " + declared("pixel", Type::vec2) +
                      " = floor(gl_FragCoord.xy / lq_drawn_size * frame_size);  // of the frame, whatever is drawn\n";
        }
        body_ = "void main() {\n" + places + lines + "}\n";
    }

    bool uses(const std::string& name) const { return expressions_.used().contains(name); }
    std::string declared(const std::string& name, Type type) const {
        return in_functions_.contains(name) ? name : std::string(glsl_name(type)) + " " + name;
    }

    std::string output_text(const std::string& step) {
        const auto found = types_.find(step);
        if (found == types_.end()) return expressions_.read_here(step);
        const std::string& name = names_.name(step, step);
        if (scalar_of(found->second) != Scalar::real)
            return "vec4(" + std::string("float(") + name + "), 0.0, 0.0, 0.0)";
        switch (found->second) {
            case Type::vec4:
                return name;
            case Type::vec3:
                return "vec4(" + name + ", 0.0)";
            case Type::vec2:
                return "vec4(" + name + ", 0.0, 0.0)";
            default:
                return "vec4(" + name + ", 0.0, 0.0, 0.0)";
        }
    }

    std::string head() const {
        const auto version = [&] {
            switch (dialect_) {
                case Dialect::desktop_330:
                    return "#version 330 core\n";
                case Dialect::es_300:
                    return "#version 300 es\nprecision highp float;\nprecision highp int;\nprecision highp "
                           "sampler2D;\n";
                case Dialect::vulkan_450:
                    break;
            }
            return "#version 450\n";
        };
        return std::string(version()) + "// " + comment_text(pass_.name) + "\n\n";
    }

    std::string declarations() {
        std::string text;
        const bool in_block = dialect_ == Dialect::vulkan_450;
        const auto add = [&](const std::string& name, const std::string& source, Type type, const char* words) {
            shader_.uniforms.push_back({name, source, type, in_block ? next_in_block(type) : -1});
            text += fmt::format("{} {} {};{}\n", in_block ? "   " : "uniform", glsl_name(type), name, words);
        };
        for (const auto& [source, use] : expressions_.uniforms()) add(use.name, source, use.type, "");
        const bool places = uses("uv") || uses("pixel") || expressions_.reads_here();
        if (places) add("lq_drawn_size", "lq_drawn_size", Type::vec2, "  // of what is drawn, in pixels");
        if (uses("pixel") && !expressions_.uniforms().contains("frame_size")) {
            add("frame_size", "frame_size", Type::vec2, "");
        }
        if (in_block && !text.empty()) {
            text = "layout(std140, set = 0, binding = 0) uniform lq_values {\n" + text + "};\n";
            shader_.block_size = (shader_.block_size + 15) / 16 * 16;
        }
        for (const auto& [source, name] : expressions_.pictures()) {
            const int binding = in_block ? 1 + static_cast<int>(shader_.pictures.size()) : -1;
            shader_.pictures.push_back({name, source, binding});
            if (in_block) text += fmt::format("layout(set = 0, binding = {}) ", binding);
            text += fmt::format("uniform sampler2D {};\n", name);
        }
        for (std::size_t k = 0; k < pass_.outputs.size(); ++k) {
            text += fmt::format("layout(location = {}) out vec4 lq_out_{};  // {}\n", k, k, pass_.outputs[k]);
        }
        return text + "\n";
    }

    // Where the next of this type lies by the rules of std140: OpenGL 4.5 core specification, section 7.6.2.2.
    int next_in_block(Type type) {
        const int size = 4 * width_of(type);
        const int aligned = size == 12 ? 16 : size;
        const int offset = (shader_.block_size + aligned - 1) / aligned * aligned;
        shader_.block_size = offset + size;
        return offset;
    }

    std::string helpers() const {
        const std::string text = helper_definitions(expressions_.helpers());
        return text.empty() ? text : text + "\n";
    }

    std::string globals() {
        std::string text;
        for (const std::string& name : {std::string("uv"), std::string("pixel")}) {
            if (in_functions_.contains(name)) text += "vec2 " + name + ";\n";
        }
        for (const PassStep& step : pass_.steps) {
            if (!in_functions_.contains(step.name)) continue;
            text += fmt::format("{} {};\n", glsl_name(step.typed->type), names_.name(step.name, step.name));
        }
        if (counts_turns_) text += fmt::format("int lq_turns = 0;  // of a step's loops; {} at most\n", max_turns);
        return text.empty() ? text : text + "\n";
    }

    const Pass& pass_;
    Dialect dialect_;
    const ShaderStyle& style_;
    GlslNames names_;
    GlslExpressions expressions_;
    std::set<std::string, std::less<>> in_functions_;
    std::map<std::string, Type, std::less<>> types_;
    std::string functions_;
    std::string body_;
    bool counts_turns_ = false;
    Shader shader_;
};

}  // namespace

Shader emit_glsl(const Pass& pass, Dialect dialect, const ShaderStyle& style) {
    return ShaderWriter(pass, dialect, style).run();
}

std::string comment_text(std::string_view text) {
    std::string line;
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        const bool is_control = byte < 0x20 || byte == 0x7F;
        // Compilers before C23 and GLSL 4.20 read a backslash at the end of a line as going on, and ??/ as a backslash.
        const bool is_risky = c == '\\' || c == '?';
        const char last = line.empty() ? ' ' : line.back();
        const bool begins_or_ends = (c == '/' && last == '*') || (c == '*' && last == '/');
        line += is_control || is_risky || begins_or_ends ? ' ' : c;
    }
    // U+2028 and U+2029 end lines in scripts.
    for (const char* separator : {"\xE2\x80\xA8", "\xE2\x80\xA9"}) {
        for (std::size_t at = line.find(separator); at != std::string::npos; at = line.find(separator))
            line.replace(at, 3, " ");
    }
    while (!line.empty() && line.back() == ' ') line.pop_back();
    return line;
}

}  // namespace lacquer
