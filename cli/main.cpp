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
    "            [--tape FILE.tape] [--frames N]\n"
    "    a tape replaces the cues, too; with --frames, N pictures a second over its whole length,\n"
    "    numbered PICTURE-0000.png and so on\n"
    "lacquer-cli rates FILE [--tape FILE.tape]\n"
    "    plays the tape at several frame rates and tells what differs\n"
    "lacquer-cli values FILE [--tape FILE.tape] [--frames N]\n"
    "    prints what signals, responses and driven dials are worth, N times a second\n"
    "lacquer-cli explain FILE [--step NAME]\n"
    "    prints how a finish is understood, from its formulas down to strips and shaders\n"
    "lacquer-cli responses\n"
    "    prints what is known of the responses\n"
    "lacquer-cli catalogue [--sheet SHEET.png] [--pictures FOLDER]\n"
    "    prints what is known of the operations, or draws all of them on a sheet, or one by one\n"
    "lacquer-cli scene harbour|lamp_room -o FILE.exr [--hour day|dusk|storm] [--at SECONDS] [--size WxH]\n"
    "            [--colour-bits 16|32]\n"
    "    writes a stand-in scene as a layered file: colour, depth, normals, positions, objects\n"
    "All that read a finish take --operations FOLDER in place of the user's own folder of operations.\n";

int run(const std::vector<std::string>& words) {
    const std::string verb = words.empty() ? "help" : words[0];
    if (verb == "help" || verb == "--help" || verb == "-h") {
        fmt::print("{}", help);
        return words.empty() ? 2 : 0;
    }
    lacquer::cli::Arguments arguments({words.begin() + 1, words.end()});
    using Verb = lacquer::Result<lacquer::Done> (*)(lacquer::cli::Arguments&);
    const std::map<std::string, Verb> verbs{
        {"render", lacquer::cli::render}, {"rates", lacquer::cli::rates},     {"responses", lacquer::cli::responses},
        {"values", lacquer::cli::values}, {"explain", lacquer::cli::explain}, {"catalogue", lacquer::cli::catalogue},
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
