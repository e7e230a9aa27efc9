#include "core/ship/play/javascript.h"

#include <array>
#include <map>
#include <regex>
#include <vector>

namespace lacquer {

namespace {

using std::regex;
using std::regex_replace;

// A field of a struct, as what it begins with.
std::string fresh_field(const std::string& type, const std::string& length) {
    const bool is_number = type == "double" || type == "int" || type == "uint32_t";
    const std::string one = is_number ? "0" : type + "_new()";
    if (length.empty()) return one;
    return is_number ? "new Array(" + length + ").fill(0)" : "Array.from({length: " + length + "}, " + type + "_new)";
}

// What begins with lq_ is nobody else's business.
std::string exported(const std::string& name) { return name.starts_with("lq_") ? "" : "export "; }

// `typedef struct { fields } name;` as a function that makes one.
std::string with_makers(const std::string& text) {
    static const regex whole(R"(typedef struct \{\n([^}]*)\} (\w+);)");
    static const regex field(R"(^ *(const )?(\w+)( ?\*)? ?(\w+)(?:\[(\w+)\])?;)");
    std::string made;
    auto from = text.cbegin();
    std::smatch found;
    while (std::regex_search(from, text.cend(), found, whole)) {
        made.append(from, found[0].first);
        made += exported(found[2].str()) + "function " + found[2].str() + "_new() {\n    return {\n";
        const std::string fields = found[1].str();
        std::size_t at = 0;
        while (at < fields.size()) {
            const std::size_t end = std::min(fields.find('\n', at), fields.size());
            const std::string line = fields.substr(at, end - at);
            at = end + 1;
            std::smatch one;
            if (std::regex_search(line, one, field)) {
                const bool is_pointer = one[3].length() > 0;
                made += "        " + one[4].str() + ": " +
                        (is_pointer ? "null" : fresh_field(one[2].str(), one[5].str())) + ",\n";
            } else if (!line.empty()) {
                made += "    " + line + "\n";
            }
        }
        made += "    };\n}";
        from = found[0].second;
    }
    return made.append(from, text.cend());
}

// Only the names stay of what a function takes.
std::string plain_parameters(const std::string& list) {
    static const regex parameter(R"((?:const )?\w+(?: ?\* ?| )(\w+))");
    return list == "void" ? "" : regex_replace(list, parameter, "$1");
}

std::string with_plain_functions(const std::string& text) {
    static const regex head(R"(static inline \w+ (\w+)\(([^)]*)\)\s*\{)");
    std::string made;
    auto from = text.cbegin();
    std::smatch found;
    while (std::regex_search(from, text.cend(), found, head)) {
        made.append(from, found[0].first);
        made +=
            exported(found[1].str()) + "function " + found[1].str() + "(" + plain_parameters(found[2].str()) + ") {";
        from = found[0].second;
    }
    return made.append(from, text.cend());
}

}  // namespace

std::string javascript_of(std::string_view c_text) {
    std::string text = with_plain_functions(with_makers(std::string(c_text)));
    static const std::vector<std::pair<regex, std::string>> rules = [] {
        std::vector<std::pair<regex, std::string>> made;
        const auto add = [&](const char* from, const char* to) { made.emplace_back(regex(from), to); };
        add(R"(#define (\w+) ([^\n]+))", "const $1 = $2;");
        add(R"(\(void\)\w+;\n)", "");
        add(R"(\bstatic const double (\w+)\[\d+\] = \{)", "const $1 = [");
        add(R"(\((?:double|uint32_t|int|int64_t)\)(?=[\w(]))", "");
        add(R"(\bconst (?:double|int|uint32_t) (\w+) =)", "const $1 =");
        add(R"(\b(?:double|int|uint32_t) (\w+)(?= =|;))", "let $1");
        add(R"(\blq_answer (\w+);)", "const $1 = lq_answer_new();");
        add(R"(\blq_cue (\w+);)", "const $1 = lq_cue_new();");
        add(R"(\bdouble (\w+)\[(\d+)\];)", "const $1 = new Array($2).fill(0);");
        add(R"(([(,] ?)&(?=[A-Za-z_]))", "$1");
        add(R"(->)", ".");
        add(R"(>> (?=\d+U))", ">>> ");
        add(R"(\b(\d+)U\b)", "$1");
        add(R"(\bstatic const lq_key (\w+)\[\d+\] = \{)", "const $1 = [");
        add(R"(\{([^{},\n]+), ([^{},\n]+), ([^{},\n]+), ([^{},\n]+), ([01])\},)",
            "{at: $1, value: $2, before: $3, after: $4, stays: $5},");
        add(R"(\}; /\* (\w+) \*/)", "]; /* $1 */");
        return made;
    }();
    for (const auto& [from, to] : rules) text = regex_replace(text, from, to);
    return text;
}

}  // namespace lacquer
