// Calls of operations as sentences.
#include <catch2/catch.hpp>

#include "core/finish/sentence.h"

using namespace lacquer;

namespace {

std::string said(const std::string& formula) {
    const auto pieces = sentence_of(*built_in_catalogue(), formula);
    if (!pieces) return "-";
    std::string text;
    for (const SentencePiece& piece : *pieces) {
        if (piece.span) CHECK(formula.substr(piece.span->begin, piece.span->end - piece.span->begin) == piece.text);
        text += piece.text;
    }
    return text;
}

}  // namespace

TEST_CASE("a call reads as the operation says it, with defaults for what is left out") {
    CHECK(said("blur_by_mask(scene, rim * 2, haze)") == "blur scene by mask rim * 2 up to haze");
    CHECK(said("blur_by_mask(scene, rim)") == "blur scene by mask rim up to 8");
    CHECK(said("bleed(crab, 40)") == "edge colours of crab bled by 40");
}

TEST_CASE("what cannot be said whole speaks for itself") {
    CHECK(said("bleed(crab, 40, 1)") == "-");  // its sentence has no place for the third
    CHECK(said("mix(a, b, c)") == "-");
    CHECK(said("disc() * 2") == "-");
    CHECK(said("return disc();") == "-");
    CHECK(said("disc(") == "-");
    CHECK(said("bleed(a, b, c, d, e, f)") == "-");
}
