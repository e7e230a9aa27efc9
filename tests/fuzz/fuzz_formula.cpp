// Any bytes as a formula: lexer, parser, checker, oracle.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/lang/checker.h"
#include "core/lang/oracle.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    Scope scope = step_scope();
    scope.symbols["scene"] = {SymbolKind::ground, Type::vec4};
    scope.symbols["rim"] = {SymbolKind::step, Type::number};
    scope.symbols["tint"] = {SymbolKind::dial, Type::vec3};
    scope.symbols["wet"] = {SymbolKind::dial, Type::boolean};
    const Result<Typed> typed = compile_formula(text, scope);
    if (!typed) {
        if (typed.fault().place.span.end > size || typed.fault().message.empty()) std::abort();
        return 0;
    }
    OracleInputs inputs;
    inputs.name = [](const Typed& symbol) { return Value{symbol.type, {0.5F, 0.25F, -1, 3}, 1}; };
    inputs.picture = [](const Typed& read, float u, float v) { return Value{read.type, {u, v, u, 1}, 0}; };
    (void)evaluate(*typed, inputs);
    (void)to_text(*typed);
    return 0;
}
