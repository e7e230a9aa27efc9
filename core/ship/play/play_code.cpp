#include "core/ship/play/play_code.h"

#include "core/gpu/glsl.h"
#include "core/ship/play/javascript.h"
#include "core/ship/play/play_text.h"
#include "core/ship/play/play_writer.h"

namespace lacquer {

namespace {

std::string about(const ShipMaterial& material, const std::string& how) {
    return "/* " + comment_text(material.finish().name) +
           ": what drives it, written by Lacquer.\n"
           "\n"
           "   Seconds may begin anywhere, but never go back. Tell of things in the order in which they happen; of "
           "what\n"
           "   happens at one time, first what is set, then cues. Directions are degrees clockwise from the right,\n"
           "   places shares of the frame from its top left.\n" +
           how + "*/\n";
}

std::string upper(std::string text) {
    for (char& c : text) c = static_cast<char>(c >= 'a' && c <= 'z' ? c - 'a' + 'A' : c);
    return text;
}

}  // namespace

Result<PlayCode> play_code(const ShipMaterial& material) {
    Result<std::string> own = play_text_of(material);
    if (!own) return own.fault();
    std::vector<std::string> kinds;
    for (const Response& response : material.finish().responses) kinds.push_back(response.kind);
    const std::vector<PlayText> texts = play_texts_for(kinds);
    const std::string guard = upper(material.stem) + "_PLAY_H";
    const std::string& stem = material.stem;
    PlayCode code;
    code.header = about(material, "\n   " + stem + "_state state;\n   " + stem + "_values values;\n   " + stem +
                                      "_init(&state);\n   " + stem + "_at(&state, seconds, &values);\n");
    code.header += "#ifndef " + guard + "\n#define " + guard +
                   "\n\n#include <math.h>\n#include <stdint.h>\n#include <string.h>\n\n"
                   "/* Several sets in one program share what begins with lq_. */\n\n";
    for (const PlayText& text : texts) {
        const std::string once = "LACQUER_PLAY_" + upper(std::string(text.name));
        code.header += "#ifndef " + once + "\n#define " + once + "\n" + std::string(text.c99) + "#endif\n\n";
    }
    code.header += *own + "\n#endif\n";
    code.module =
        about(material, "\n   const state = " + stem + "_state_new(), values = " + stem + "_values_new();\n   " + stem +
                            "_init(state);\n   " + stem + "_at(state, seconds, values);\n");
    for (const PlayText& text : texts)
        code.module += text.script.empty() ? javascript_of(text.c99) + "\n" : std::string(text.script) + "\n";
    code.module += javascript_of(*own);
    return code;
}

}  // namespace lacquer
