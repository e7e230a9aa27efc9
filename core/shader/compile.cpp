#include "core/shader/compile.h"

#include "core/base/guarded.h"
#include "core/shader/parser.h"
#include "core/shader/preprocess.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

Result<CompiledShader> compile_shader(std::string_view text, const Scope& scope) {
    return guarded([&]() -> Result<CompiledShader> {
        try {
            PreprocessedShader prepared = preprocess(text);
            const ShaderSyntax syntax = ShaderParser(prepared.tokens).shader();
            CompiledShader made;
            made.notes = std::move(prepared.notes);
            made.typed = ShaderTranslator(scope, text, made.notes).step(syntax);
            if (fits_a_step(made.typed.type)) return made;
            return Fault{"lang.step-type",
                         "a step has up to four numbers, and this is " + said(made.typed.type),
                         "write vec" + std::to_string(width_of(made.typed.type)) + "(...)",
                         {{}, made.typed.span, 0, 0},
                         Severity::fault};
        } catch (const Refusal& refusal) {
            return refusal.fault;
        }
    });
}

}  // namespace lacquer
