// An operation: something that steps call by name, written in one file.
#pragma once

#include <functional>
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

/// Longest file of an operation, in bytes.
inline constexpr std::size_t max_operation_file = 65536;

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

/// How this processor may do a stage without running its text, and those between it and the one that it reads.
struct NativeStage {
    std::string way;       ///< see core/cpu/native.h; one that is not known is not taken
    std::string from;      ///< the stage that it reads
    std::string argument;  ///< the function that gives it a number, the same for all pixels
};

/// One function of an operation that is stored for the next.
struct OperationStage {
    std::string function;
    double scale = 1;     ///< of the frame's size
    int repeat = 1;       ///< rounds, each of which reads the one before by the stage's own name
    bool levels = false;  ///< as many rounds as halvings make the frame's longer side one pixel
    std::optional<NativeStage> native = {};
};

/// A line of a file.
struct TextLine {
    std::string file;
    int line = 0;
};

/// A text in which every line `//! uses NAME` has been replaced by that file's lines.
struct AssembledText {
    std::string text;
    std::vector<TextLine> lines;
};

/// Finds the text and the path of a file that others use; null if there is none.
using UsedText = std::function<const std::pair<std::string, std::string>*(const std::string& name)>;

/// Puts in what a file uses, and what that uses, each once. Faults: `operation.uses` for one that is not there, and for
/// those that use each other in a circle.
Result<AssembledText> assembled(const std::string& text, const std::string& file, const UsedText& used);

/// True for a file that is only there to be used by others: it has a line `//! shared`.
bool is_shared_text(std::string_view text);

struct Operation {
    std::string name;
    std::string title;
    std::string group;
    std::string about;
    std::string says;   ///< how a row speaks of it, such as "polar of {where} round {centre}"
    std::string shown;  ///< a formula over the samples on which it shows what it does best
    std::vector<OperationArgument> arguments;
    std::vector<OperationStage> stages;  ///< in order; the last gives the step its value
    std::string text;                    ///< the whole file, with what it uses put in
    std::shared_ptr<const Code> code;    ///< its functions, as they are written
    std::string file;
    std::vector<TextLine> lines;  ///< where each line of `text` comes from
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
Result<Operation> read_operation(std::string name, AssembledText text, std::string file);

/// A fault of the language with the file, line and column that its span has in the operation's text.
Fault placed_in_file(Fault fault, const Operation& operation);

/// What a step says that calls an operation whose file has this fault: `finish.operation`.
Fault broken_operation(const std::string& name, const Fault& inner);

}  // namespace lacquer
