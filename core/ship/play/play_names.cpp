#include "core/ship/play/play_names.h"

#include <algorithm>
#include <array>
#include <set>

#include "core/finish/play.h"
#include "core/ship/material.h"

namespace lacquer {

namespace {

// Keywords of C99, C++20 and ECMAScript 2023 that are in lower case, from memory.
constexpr auto keywords = std::to_array<std::string_view>(
    {"alignas", "alignof",    "and",       "asm",       "async",    "auto",       "await",    "bool",      "break",
     "case",    "catch",      "char",      "class",     "concept",  "const",      "continue", "debugger",  "decltype",
     "default", "delete",     "do",        "double",    "else",     "enum",       "eval",     "explicit",  "export",
     "extends", "extern",     "false",     "finally",   "float",    "for",        "friend",   "function",  "goto",
     "if",      "implements", "import",    "in",        "inline",   "instanceof", "int",      "interface", "let",
     "long",    "mutable",    "namespace", "new",       "noexcept", "not",        "null",     "nullptr",   "operator",
     "or",      "package",    "private",   "protected", "public",   "register",   "requires", "restrict",  "return",
     "short",   "signed",     "sizeof",    "static",    "struct",   "super",      "switch",   "template",  "this",
     "throw",   "true",       "try",       "typedef",   "typeid",   "typename",   "typeof",   "union",     "unsigned",
     "using",   "var",        "virtual",   "void",      "volatile", "while",      "with",     "xor",       "yield"});

class UniqueNames {
public:
    std::string name(std::string_view wish, std::string_view instead) {
        std::string stem = safe_stem(wish, instead);
        if (std::find(keywords.begin(), keywords.end(), stem) != keywords.end()) stem += "_";
        std::string name = stem;
        for (int n = 2; taken_.contains(name); ++n) name = stem + "_" + std::to_string(n);
        taken_.insert(name);
        return name;
    }

private:
    std::set<std::string> taken_;
};

}  // namespace

PlayNames play_names(const Finish& finish) {
    PlayNames names;
    UniqueNames fields;
    for (const Dial& dial : finish.dials) {
        names.fields[dial.name] = {fields.name(dial.code_name.empty() ? dial.name : dial.code_name, "dial"),
                                   dial.kind == DialKind::colour ? 3 : 1, dial.kind == DialKind::toggle};
    }
    const auto add = [&](const std::vector<std::pair<std::string, Type>>& all) {
        for (const auto& [name, type] : all)
            names.fields[name] = {fields.name(name, "value"), width_of(type), type == Type::boolean};
    };
    for (const Signal& signal : finish.signals) add(signal_names(signal));
    for (const Response& response : finish.responses) add(response_names(response));
    for (const Ground& ground : finish.grounds) {
        if (ground.as<DropletsGround>() != nullptr) add(droplets_names(ground.name));
    }
    UniqueNames cues;
    for (const CueKind& cue : finish.cues) names.cues[cue.name] = cues.name(cue.name, "cue");
    UniqueNames responses;
    for (const Response& response : finish.responses)
        names.responses[response.name] = responses.name(response.name, "r");
    return names;
}

}  // namespace lacquer
