// Any bytes as a formula or code: lexer, parser, checker, oracle.
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
    const Result<Typed> typed = compile_step(text, scope);
    if (!typed) {
        if (typed.fault().place.span.end > size || typed.fault().message.empty()) std::abort();
        return 0;
    }
    OracleInputs inputs;
    inputs.name = [](const std::string&, Type type, int dx, int dy) {
        return Value{type, {0.5F, 0.25F, static_cast<float>(dx), static_cast<float>(dy)}, {1}};
    };
    inputs.picture = [](const PictureReading&, Type type, const std::vector<Value>& args) {
        return args.empty() ? Value{type, {}, {640, 360}} : Value{type, args[0].parts, args[0].wholes};
    };
    (void)evaluate(*typed, inputs);
    (void)to_text(*typed);
    return 0;
}
