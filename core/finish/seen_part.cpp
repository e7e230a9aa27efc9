#include "core/finish/seen_part.h"

#include <algorithm>
#include <string_view>

#include "core/shader/shape.h"

namespace lacquer {

namespace {

void add_structs(const ShaderStatement& s, ShaderStructs& structs) {
    if (s.type.structure != nullptr && !s.type.structure->name.empty())
        structs[s.type.structure->name] = s.type.structure.get();
    for (const auto* list : {&s.first, &s.body, &s.otherwise}) {
        for (const ShaderStatement& inner : *list) add_structs(inner, structs);
    }
}

// The mark that closes the bracket at `open`; the end where none does.
std::size_t closing(const std::vector<SourceToken>& tokens, std::size_t open) {
    int depth = 0;
    for (std::size_t k = open; k < tokens.size(); ++k) {
        if (tokens[k].is("[")) ++depth;
        if (tokens[k].is("]") && --depth == 0) return k;
    }
    return tokens.size() - 1;
}

bool only_reads(const SourceToken& token) {
    static constexpr std::string_view kept[] = {"[", "]", ".", "+", "-", "*", "/", "%"};
    if (token.kind == SourceTokenKind::name || token.kind == SourceTokenKind::number) return true;
    return token.kind == SourceTokenKind::mark &&
           std::find(std::begin(kept), std::end(kept), token.text) != std::end(kept);
}

// Numbers of a vector by their letters.
bool is_swizzle(std::string_view letters) {
    const auto all_of = [&](std::string_view set) {
        return std::all_of(letters.begin(), letters.end(),
                           [&](char c) { return set.find(c) != std::string_view::npos; });
    };
    return !letters.empty() && letters.size() <= 4 && (all_of("xyzw") || all_of("rgba") || all_of("stpq"));
}

// What is left to be taken apart.
struct Whole {
    TypeSyntax type;
    bool is_array = false;
};

std::optional<Whole> field_of(const StructSyntax& structure, std::string_view name) {
    for (const FieldsSyntax& fields : structure.fields) {
        for (const Declarator& field : fields.names) {
            if (name.empty() || field.name == name) return Whole{fields.type, field.is_array || fields.type.is_array};
        }
    }
    return std::nullopt;
}

std::string first_field(const StructSyntax& structure) {
    if (structure.fields.empty() || structure.fields.front().names.empty()) return {};
    return structure.fields.front().names.front().name;
}

}  // namespace

ShaderStructs structs_of(const ShaderSyntax& syntax) {
    ShaderStructs structs;
    for (const auto& item : syntax.items) {
        if (const auto* s = std::get_if<ShaderStatement>(&item)) add_structs(*s, structs);
        const auto* function = std::get_if<ShaderFunctionSyntax>(&item);
        if (function == nullptr || !function->body) continue;
        for (const ShaderStatement& s : *function->body) add_structs(s, structs);
    }
    return structs;
}

std::size_t root_of(const std::vector<SourceToken>& tokens, std::size_t at) {
    while (at >= 2 && tokens[at - 1].is(".")) {
        std::size_t before = at - 2;
        // Back over the brackets.
        for (int depth = 0; tokens[before].is("]") || depth > 0; --before) {
            if (tokens[before].is("]")) ++depth;
            if (tokens[before].is("[")) --depth;
            if (before == 0) return at;
        }
        if (tokens[before].kind != SourceTokenKind::name) return at;
        at = before;
    }
    return at;
}

std::vector<PartAccess> accesses_behind(const std::vector<SourceToken>& tokens, std::size_t at, std::size_t marked) {
    std::vector<PartAccess> accesses;
    for (std::size_t k = at + 1; k + 1 < tokens.size();) {
        if (tokens[k].is(".") && tokens[k + 1].kind == SourceTokenKind::name) {
            accesses.push_back({"." + tokens[k + 1].text, k + 1 == marked});
            k += 2;
        } else if (tokens[k].is("[")) {
            const std::size_t end = closing(tokens, k);
            std::string text;
            bool reads = true;
            for (std::size_t inner = k; inner <= end; ++inner) {
                text += tokens[inner].text;
                // "a - -b" is no "a--b".
                if (inner < end) text += ' ';
                reads = reads && only_reads(tokens[inner]);
            }
            accesses.push_back({reads ? text : "[0]"});
            k = end + 1;
        } else {
            break;
        }
    }
    return accesses;
}

std::optional<SeenPart> seen_part(const ShaderStructs& structs, const TypeSyntax& type, bool is_array,
                                  const std::vector<PartAccess>& accesses) {
    const bool marked =
        std::any_of(accesses.begin(), accesses.end(), [](const PartAccess& access) { return access.is_marked; });
    Whole whole{type, is_array};
    SeenPart part;
    auto next = accesses.begin();
    bool ended = false;  // behind the mark nothing is followed any more
    const auto take = [&](char begin) -> std::string {
        if (ended || next == accesses.end() || next->text[0] != begin) return {};
        ended = next->is_marked;
        return (next++)->text;
    };
    constexpr int deepest = 64;
    for (int depth = 0; depth < deepest; ++depth) {
        if (whole.is_array) {
            const std::string place = take('[');
            part.path += place.empty() ? "[0]" : place;
            whole.is_array = false;
            continue;
        }
        const auto found = structs.find(whole.type.name);
        const StructSyntax* structure = whole.type.structure != nullptr ? whole.type.structure.get()
                                        : found != structs.end()        ? found->second
                                                                        : nullptr;
        if (structure != nullptr) {
            std::string field = take('.');
            if (field.empty()) field = "." + first_field(*structure);
            const std::optional<Whole> inner = field_of(*structure, field.substr(1));
            if (!inner || field.size() == 1) return std::nullopt;
            part.path += field;
            whole = *inner;
            continue;
        }
        const GlslShape shape = shape_named(whole.type.name);
        if (shape.is(GlslShape::Kind::matrix)) {
            const std::string place = take('[');
            part.path += place.empty() ? "[0]" : place;
            part.type = make_type(Scalar::real, shape.rows);
        } else if (shape.is(GlslShape::Kind::leaf)) {
            part.type = shape.leaf;
        } else {
            return std::nullopt;
        }
        // A vector is shown whole unless the mark is on numbers of it.
        if (marked && !ended && next != accesses.end() && next->is_marked && width_of(part.type) > 1 &&
            is_swizzle(next->text.substr(1))) {
            part.type = make_type(scalar_of(part.type), static_cast<int>(next->text.size()) - 1);
            part.path += next->text;
        }
        return part;
    }
    return std::nullopt;
}

}  // namespace lacquer
