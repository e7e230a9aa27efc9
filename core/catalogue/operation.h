// An operation: something that steps call by name, written in one file.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/lang/checker.h"

namespace lacquer {

/// What is handed to an operation.
struct OperationArgument {
    std::string name;
    bool picture = false;  ///< read at other places, so stored first
    int width = 1;         ///< 1 to 4 numbers; 0 is `same`: as wide as what it is called with
    std::string role;      ///< mask, opacity, coordinate, displacement, colour, number, choice
    std::string fallback;  ///< a formula for where it is left out; empty if it must be given
    std::optional<std::pair<double, double>> range;
    std::string unit;
    std::vector<std::string> choices;  ///< of the role choice: what 0, 1, 2 and so on stand for
    std::string words;
};

/// One function of an operation that is stored for the next.
struct OperationStage {
    std::string function;
    double scale = 1;     ///< of the frame's size
    int repeat = 1;       ///< rounds, each of which reads the one before by the stage's own name
    bool levels = false;  ///< as many rounds as halvings make the frame's longer side one pixel
};

struct Operation {
    std::string name;
    std::string title;
    std::string group;
    std::string about;
    std::string says;   ///< how a row speaks of it, such as "polar of {where} round {centre}"
    std::string shown;  ///< a formula over the samples on which it shows what it does best
    std::vector<OperationArgument> arguments;
    std::vector<OperationStage> stages;  ///< in order; the last gives the step its value
    std::string text;                    ///< the whole file
    std::string file;
    /// What its stages may call: the plain operations of the catalogue when it was read, so that one which is replaced
    /// later doesn't change or break it. Null before it stands in a catalogue.
    std::shared_ptr<const std::map<std::string, Callable, std::less<>>> functions;

    /// True if it may stand anywhere in a formula: one function, no pictures.
    bool is_plain() const;
    /// True if something of it is as wide as what it is called with.
    bool has_same() const;
};

/// Reads an operation's file. The head is made of lines that begin with //! and a word: title, group, about, says,
/// shown, value, picture, stage; docs/operations.md tells what they hold. `name` is the file's without its ending.
/// Faults, with line: `operation.head`, `operation.name`, and those of the language.
Result<Operation> read_operation(std::string name, std::string text, std::string file);

/// A fault of the language with the line and column that its span has in the operation's text, or in one in which
/// `same` was replaced.
Fault placed_in_file(Fault fault, const std::string& text, const std::string& file);

/// What a step says that calls an operation whose file has this fault: `finish.operation`.
Fault broken_operation(const std::string& name, const Fault& inner);

}  // namespace lacquer
