// A ground of many small sprites that are born, move and go.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/droplets/droplets.h"
#include "core/finish/grounds/ground_facts.h"
#include "core/picture/files_module.h"
#include "core/picture/sample.h"

namespace lacquer {

class Fields;
class Json;

struct DropletsGround {
    static constexpr std::string_view key = "droplets";

    Droplets drops = {};
    std::string picture = {};  ///< of the shape `picture`: absolute, or relative to the finish's own folder
    FileOpacity opacity = FileOpacity::as_marked;
    Sampling sampling = {};

    friend bool operator==(const DropletsGround&, const DropletsGround&) = default;
};

void read(Fields& fields, DropletsGround& ground);
void write(Json& object, const DropletsGround& ground);
std::vector<GroundPicture> pictures_of(const DropletsGround& ground, const std::string& name);
std::vector<std::string*> paths_of(DropletsGround& ground);
ListLength list_of(const DropletsGround& ground);

/// Its formulas, each with the key of what it stands for: those of its numbers, and `born_while`.
struct DropFormula {
    std::string_view key;
    std::string* text = nullptr;
    bool is_condition = false;
};
std::vector<DropFormula> formulas_of(DropletsGround& ground);

/// The names of cues, and of its place in play and of other grounds, that it goes by; some may be empty.
std::vector<std::string*> cues_in(DropletsGround& ground);
std::vector<std::string*> names_in(DropletsGround& ground);

}  // namespace lacquer
