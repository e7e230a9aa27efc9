// GLSL that others wrote, as it stands: functions of general-purpose packages of the npm registry, whose versions are
// pinned in package.json beside this file. What glslang takes is taken; what the software GL driver draws is drawn.
#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <filesystem>
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
    const Picture scene = test::test_picture(wide, high);
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
        const Picture wanted = test::driven(modern(shader), wide, high, &scene);
        CHECK(test::share_off(test::by_strips(shader, wide, high, &scene), wanted, 5e-3) <= 0.01);
    }
    WARN(fmt::format("{} files taken, {} of them drawn and compared", taken, drawn));
    CHECK(taken > 100);
}
