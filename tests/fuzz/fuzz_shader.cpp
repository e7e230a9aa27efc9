// Any bytes as a shader: directives, grammar, translation, the oracle; and as one that is brought in.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/finish/bring_shader.h"
#include "core/finish/seen_variable.h"
#include "core/finish/shader_parts.h"
#include "core/lang/oracle.h"
#include "core/shader/compile.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    Scope scope = step_scope();
    scope.symbols["scene"] = {SymbolKind::ground, Type::vec4};
    scope.symbols["rim"] = {SymbolKind::step, Type::number};
    scope.symbols["count"] = {SymbolKind::dial, Type::number};
    if (const Result<BroughtShader> brought = bring_shader(text, "any"); brought && size > 0) {
        const auto middle = static_cast<std::uint32_t>(size / 2);
        (void)extract_variable(brought->finish, brought->step, {middle, middle});
    }
    for (const std::size_t place : {size / 4, size / 2, size - size / 4}) {
        const Result<SeenVariable> seen = seen_variable(text, static_cast<std::uint32_t>(place));
        if (!seen && (seen.fault().id == "base.unexpected" || seen.fault().message.empty())) std::abort();
        if (seen) (void)compile_shader(seen->code, scope);
    }
    const Result<CompiledShader> compiled = compile_shader(text, scope);
    if (!compiled) {
        const Fault& fault = compiled.fault();
        if (fault.place.span.end > size || fault.place.span.begin > fault.place.span.end || fault.message.empty() ||
            fault.id == "base.unexpected")
            std::abort();
        return 0;
    }
    OracleInputs inputs;
    inputs.name = [](const std::string&, Type type, int dx, int dy) {
        return Value{type, {0.5F, 0.25F, static_cast<float>(dx), static_cast<float>(dy)}, {1}};
    };
    inputs.picture = [](const PictureReading&, Type type, const std::vector<Value>& args) {
        return args.empty() ? Value{type, {}, {640, 360}} : Value{type, args[0].parts, args[0].wholes};
    };
    // What runs long does so by the turns of its loops, of which the oracle's are tested elsewhere.
    const TypedFunction* function = compiled->typed.function();
    if (function != nullptr && function->turns && *function->turns < 1000) (void)evaluate(compiled->typed, inputs);
    return 0;
}
