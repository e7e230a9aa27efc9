// What the code of play calls the things of a finish.
#pragma once

#include <map>
#include <string>

#include "core/finish/finish.h"

namespace lacquer {

/// A value that play gives at each moment, as code knows it.
struct PlayField {
    std::string name;  ///< of the field in NAME_values
    int width = 1;     ///< numbers that it has
    bool is_truth = false;
};

struct PlayNames {
    /// By the names that formulas use: dials by their code names, signals, responses and their outputs (`blow.presence`
    /// is `blow_presence`).
    std::map<std::string, PlayField, std::less<>> fields;
    std::map<std::string, std::string, std::less<>> cues;       ///< ends of the functions' names
    std::map<std::string, std::string, std::less<>> responses;  ///< parts of names within the state
};

/// Names that C, C++ and scripts take, each used once.
PlayNames play_names(const Finish& finish);

}  // namespace lacquer
