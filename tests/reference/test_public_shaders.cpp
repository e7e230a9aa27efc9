// GLSL that others wrote, as it stands: functions of general-purpose packages of the npm registry, whose versions are
// pinned in package.json beside this file. What glslang takes is taken; what the software GL driver draws is drawn.
#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <random>
#include <regex>
#include <set>

#include "core/shader/compile.h"
#include "tests/shader/driven.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

namespace fs = std::filesystem;

constexpr int wide = 24;
constexpr int high = 16;

struct PublicFile {
    std::string name;
    std::string text;
};

// Those that stand by themselves: without main, and without parts of other files.
std::vector<PublicFile> public_files() {
    std::vector<PublicFile> files;
    const fs::path root = LACQUER_SOURCE "/build/reference/node_modules";
    REQUIRE(fs::is_directory(root));
    std::vector<fs::path> paths;
    for (const auto& entry : fs::recursive_directory_iterator(root)) {
        if (entry.path().extension() == ".glsl") paths.push_back(entry.path());
    }
    std::sort(paths.begin(), paths.end());
    const std::set<std::string> not_these = {"test", "demo", "example", "examples"};
    std::set<std::string> seen;
    for (const fs::path& path : paths) {
        const std::string text = test::read_file(path.string());
        const bool is_example = std::any_of(path.begin(), path.end(),
                                            [&](const fs::path& part) { return not_these.contains(part.string()); });
        if (is_example || text.find("require(") != std::string::npos || text.find("void main") != std::string::npos ||
            text.find("attribute ") != std::string::npos || !seen.insert(text).second)
            continue;
        files.push_back({fs::relative(path, root).string(), text});
    }
    return files;
}

std::string without_remarks(const std::string& text) {
    std::string plain;
    for (std::size_t at = 0; at < text.size(); ++at) {
        if (text.compare(at, 2, "//") == 0) {
            at = std::min(text.find('\n', at), text.size());
            plain += '\n';
        } else if (text.compare(at, 2, "/*") == 0) {
            at = std::min(text.find("*/", at + 2), text.size() - 2) + 1;
        } else {
            plain += text[at];
        }
    }
    return plain;
}

std::string argument(const std::string& type, int nth) {
    const std::string k = fmt::format("{:.2f}", 0.15 + 0.17 * nth);
    if (type == "float") return fmt::format("(p.x * {} + p.y * 0.3 + 0.1)", k);
    if (type == "vec2") return fmt::format("(p * {} + 0.2)", k);
    if (type == "vec3") return fmt::format("vec3(p * {}, p.x * 0.7 - p.y * {})", k, k);
    if (type == "vec4") return fmt::format("vec4(p * {}, p.x * p.y + {}, p.y)", k, k);
    if (type == "int") return std::to_string(2 + nth % 3);
    if (type == "bool") return "(p.x > 0.5)";
    if (type == "mat2") return fmt::format("mat2(p, {}, 1.0)", k);
    if (type == "mat3") return fmt::format("mat3(p, {}, 0.1, 1.0, p.yx, 0.3, 2.0)", k);
    if (type == "mat4") return fmt::format("mat4(1.5, p, 0.2, p, {}, 0.3, 0.4, p, 1.0, 0.1, 0.2, p, 2.0)", k);
    if (type == "sampler2D") return "scene";
    return {};
}

std::string as_vec4(const std::string& type, const std::string& value) {
    if (type == "float" || type == "int" || type == "bool") return "vec4(float(" + value + "))";
    if (type == "vec2") return "vec4(" + value + ", 0.0, 0.0)";
    if (type == "vec3") return "vec4(" + value + ", 0.0)";
    if (type == "vec4") return value;
    if (type == "mat2") return "vec4(" + value + "[0], " + value + "[1])";
    if (type == "mat3") return "vec4(" + value + "[0] + " + value + "[2], " + value + "[1].y)";
    if (type == "mat4") return "(" + value + "[0] + " + value + "[3] * 0.5)";
    return {};
}

// A whole shader that adds up what every function of the text gives.
std::string calling(const std::string& text) {
    static const std::regex head(
        R"((?:^|[;}\n])\s*(?:(?:highp|mediump|lowp)\s+)?(float|int|bool|vec[234]|mat[234])\s+(\w+)\s*\(([^(){};]*)\)\s*\{)");
    const std::string plain = without_remarks(text);
    std::string calls;
    for (std::sregex_iterator it(plain.begin(), plain.end(), head), end; it != end; ++it) {
        const std::smatch& found = *it;
        std::string args;
        std::string before;
        bool known = true;
        int nth = 0;
        static const std::regex parameter(
            R"(\s*(?:const\s+)?(in|out|inout)?\s*(?:highp|mediump|lowp)?\s*(\w+)(?:\s+(\w+))?\s*)");
        const std::string list = found[3];
        for (std::size_t at = 0; at <= list.size() && list.find_first_not_of(" \n\r\t") != std::string::npos;) {
            const std::size_t comma = std::min(list.find(',', at), list.size());
            const std::string one = list.substr(at, comma - at);
            at = comma + 1;
            std::smatch parts;
            if (std::regex_match(one, parts, parameter) && parts[2] == "void") break;
            if (!std::regex_match(one, parts, parameter) || argument(parts[2], nth).empty()) {
                known = false;
                break;
            }
            std::string given = argument(parts[2], nth);
            if (parts[1] == "out" || parts[1] == "inout") {
                before += fmt::format("{} given_{} = {}; ", parts[2].str(), nth, given);
                given = fmt::format("given_{}", nth);
            }
            args += (args.empty() ? "" : ", ") + given;
            ++nth;
        }
        if (known)
            calls += "    { " + before + found[1].str() + " made = " + found[2].str() + "(" + args +
                     "); c += " + as_vec4(found[1], "made") + "; }\n";
    }
    return "uniform sampler2D scene;\nout vec4 c;\n" + text +
           "\nvoid main() {\n    vec2 p = gl_FragCoord.xy / vec2(24.0, 16.0);\n    c = vec4(0.0);\n" + calls + "}\n";
}

Result<CompiledShader> compiled(const std::string& shader) {
    Scope scope = step_scope();
    scope.symbols["scene"] = {SymbolKind::ground, Type::vec4};
    return compile_shader(shader, scope);
}

// Where a driver is free to do otherwise: powers of numbers below 0 (GLSL ES 3.00, 8.2).
bool is_left_open(const std::string& name) { return name.find("quartic-in-out") != std::string::npos; }

// ES 3.00 has its functions under their new names only.
std::string modern(const std::string& text) { return "#define texture2D texture\n" + text; }

// Random numbers are made of the last bits of sines, of which each driver has its own.
bool is_chaotic(const std::string& text) {
    return text.find("43758") != std::string::npos || text.find("sin(dot") != std::string::npos;
}

}  // namespace

TEST_CASE("public GLSL is taken and refused as by glslang, and draws the same") {
    // Soft, as samplers round places differently, and opaque, as colours are weighed by their opacity here only.
    Picture scene(wide, high, 4);
    for (int y = 0; y < high; ++y) {
        for (int x = 0; x < wide; ++x) {
            float* pixel = scene.at(x, y);
            for (int c = 0; c < 3; ++c)
                pixel[c] = 0.5F + 0.4F * std::sin(0.3F * static_cast<float>(x * (c + 1) + 2 * y));
            pixel[3] = 1;
        }
    }
    int taken = 0;
    int drawn = 0;
    for (const PublicFile& file : public_files()) {
        INFO(file.name);
        const std::string shader = calling(file.text);
        const test::Verdict verdict = test::by_glslang(modern(shader));
        const Result<CompiledShader> ours = compiled(shader);
        INFO(verdict.words);
        INFO((ours ? std::string("taken") : to_text(ours.fault())));
        CHECK(static_cast<bool>(ours) == verdict.accepted);
        if (!ours || !verdict.accepted) continue;
        ++taken;
        if (is_chaotic(file.text) || is_left_open(file.name)) continue;
        ++drawn;
        // Of what reads pictures, more depends on how places are rounded.
        const double most_off = file.text.find("sampler2D") != std::string::npos ? 0.05 : 0.02;
        const Picture wanted = test::driven(modern(shader), wide, high, &scene);
        CHECK(test::share_off(test::by_lacquer(shader, wide, high, Backend::cpu, &scene), wanted, 5e-3) <= most_off);
    }
    WARN(fmt::format("{} files taken, {} of them drawn and compared", taken, drawn));
    CHECK(taken > 100);
}

namespace {

// A shader with one mistake, or what may be one: a token is left out, doubled, exchanged or put in another's place.
std::string mutated(const std::string& shader, std::mt19937& chance) {
    static const std::regex token(R"([A-Za-z_]\w*|\d+\.?\d*|\.\d+|[-+*/<>=!&|]=?|[][(){},;.?:])");
    std::vector<std::pair<std::size_t, std::size_t>> tokens;
    for (std::sregex_iterator it(shader.begin(), shader.end(), token), end; it != end; ++it)
        tokens.emplace_back(it->position(), it->length());
    const auto any = [&](std::size_t count) { return static_cast<std::size_t>(chance() % count); };
    const auto [at, length] = tokens[any(tokens.size())];
    const auto [other_at, other_length] = tokens[any(tokens.size())];
    static const std::vector<std::string> words = {"float", "vec2", "vec3", "vec4", "int",    "1",   "1.0",  "2u",
                                                   "+",     "*",    "<",    "==",   "const",  "(",   ")",    ";",
                                                   "x",     "xy",   "true", "if",   "return", "out", "mat3", "[0]"};
    std::string made = shader;
    switch (chance() % 4) {
        case 0:
            return made.erase(at, length);
        case 1:
            return made.insert(at, shader.substr(at, length) + " ");
        case 2:
            return made.replace(at, length, " " + shader.substr(other_at, other_length) + " ");
        default:
            return made.replace(at, length, " " + words[any(words.size())] + " ");
    }
}

}  // namespace

TEST_CASE("of shaders with one change each, the same are taken and refused as by glslang") {
    std::vector<std::string> shaders;
    for (const PublicFile& file : public_files()) {
        const std::string shader = calling(without_remarks(file.text));
        if (shader.size() < 4000 && test::by_glslang(shader).accepted) shaders.push_back(shader);
    }
    REQUIRE(shaders.size() > 50);
    std::mt19937 chance(20261127);
    int alike = 0;
    int refused = 0;
    constexpr int count = 200;
    for (int k = 0; k < count; ++k) {
        const std::string shader = mutated(shaders[chance() % shaders.size()], chance);
        const test::Verdict verdict = test::by_glslang(shader);
        const Result<CompiledShader> ours = compiled(shader);
        refused += verdict.accepted ? 0 : 1;
        // A step must have a value, which a shader need not.
        const bool has_none = !ours && ours.fault().id == "shader.output";
        if (static_cast<bool>(ours) == verdict.accepted || has_none) {
            ++alike;
            continue;
        }
        UNSCOPED_INFO((ours ? std::string("taken") : to_text(ours.fault())) << "\n" << verdict.words << "\n" << shader);
        CHECK(static_cast<bool>(ours) == verdict.accepted);
    }
    WARN(fmt::format("{} of {} alike, {} refused", alike, count, refused));
}
