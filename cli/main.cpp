// lacquer-cli: Lacquer without a window.
#include <fmt/core.h>

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "cli/arguments.h"
#include "cli/verbs.h"

namespace {

constexpr std::string_view help =
    "lacquer-cli render FILE -o PICTURE.png [--at SECONDS] [--cue NAME:STRENGTH@SECONDS]...\n"
    "            [--size WxH] [--scale FACTOR] [--step NAME] [--dial NAME=VALUE]...\n"
    "            [--threads N] [--kernels AVX3|AVX2|SSE4|scalar] [--backend cpu|gpu|auto]\n"
    "    draws a finish; cues replace those that the file holds; --size changes the frame,\n"
    "    --scale how finely it is drawn\n"
    "lacquer-cli explain FILE [--step NAME]\n"
    "    prints how a finish is understood, from its formulas down to strips and shaders\n"
    "lacquer-cli catalogue [--sheet SHEET.png] [--pictures FOLDER]\n"
    "    prints what is known of the operations, or draws all of them on a sheet, or one by one\n"
    "lacquer-cli scene harbour|lamp_room -o FILE.exr [--hour day|dusk|storm] [--at SECONDS] [--size WxH]\n"
    "            [--colour-bits 16|32]\n"
    "    writes a stand-in scene as a layered file: colour, depth, normals, positions, objects\n"
    "All but the last take --operations FOLDER in place of the user's own folder of operations.\n";

int run(const std::vector<std::string>& words) {
    const std::string verb = words.empty() ? "help" : words[0];
    if (verb == "help" || verb == "--help" || verb == "-h") {
        fmt::print("{}", help);
        return words.empty() ? 2 : 0;
    }
    lacquer::cli::Arguments arguments({words.begin() + 1, words.end()});
    using Verb = lacquer::Result<lacquer::Done> (*)(lacquer::cli::Arguments&);
    const std::map<std::string, Verb> verbs{{"render", lacquer::cli::render},
                                            {"explain", lacquer::cli::explain},
                                            {"catalogue", lacquer::cli::catalogue},
                                            {"scene", lacquer::cli::scene}};
    const auto chosen = verbs.find(verb);
    if (chosen == verbs.end()) {
        fmt::print(stderr, "lacquer-cli: there is no '{}'\n{}", verb, help);
        return 2;
    }
    const auto done = chosen->second(arguments);
    if (done) return 0;
    fmt::print(stderr, "lacquer-cli: {}\n", to_text(done.fault()));
    return 1;
}

}  // namespace

int main(int argc, char** argv) { return run(std::vector<std::string>(argv + 1, argv + argc)); }
