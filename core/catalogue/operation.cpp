#include "core/catalogue/operation.h"

#include <algorithm>
#include <array>
#include <sstream>

#include "core/base/text.h"
#include "core/lang/builtins.h"
#include "core/lang/code.h"

namespace lacquer {

namespace {

constexpr std::array<std::string_view, 7> roles = {"mask",   "opacity", "coordinate", "displacement",
                                                   "colour", "number",  "choice"};
constexpr std::size_t max_choices = 16;

// One line of the head, read word by word.
class HeadLine {
public:
    HeadLine(std::string_view text, int number, const std::string& file) : rest_(text), number_(number), file_(file) {}

    std::string word() {
        skip_blanks();
        const std::size_t end = std::min(rest_.find_first_of(" \t"), rest_.size());
        std::string taken(rest_.substr(0, end));
        rest_.remove_prefix(end);
        return taken;
    }
    bool take(std::string_view mark) {
        skip_blanks();
        if (!rest_.starts_with(mark)) return false;
        rest_.remove_prefix(mark.size());
        return true;
    }
    // What stands before the first of these marks, without blanks at its ends.
    std::string before(std::initializer_list<std::string_view> marks) {
        skip_blanks();
        std::size_t end = rest_.size();
        for (const std::string_view mark : marks) end = std::min(end, rest_.find(mark));
        std::string taken(rest_.substr(0, end));
        rest_.remove_prefix(end);
        while (!taken.empty() && taken.back() == ' ') taken.pop_back();
        return taken;
    }
    std::string rest() { return before({}); }
    bool empty() {
        skip_blanks();
        return rest_.empty();
    }
    Fault fault(std::string message, std::string mend) const {
        return {"operation.head", std::move(message), std::move(mend), {file_, {}, number_, 0}, Severity::fault};
    }

private:
    void skip_blanks() {
        while (!rest_.empty() && (rest_.front() == ' ' || rest_.front() == '\t')) rest_.remove_prefix(1);
    }
    std::string_view rest_;
    int number_;
    const std::string& file_;
};

// of CHOICE, CHOICE, ...
Result<Done> read_choices(HeadLine& line, OperationArgument& argument) {
    const auto fault = [&] {
        return line.fault("the choices of '" + argument.name + "' are missing", "write them like of inside, outside");
    };
    if (!line.take("of ") || argument.width != 1) return fault();
    do {
        argument.choices.push_back(line.before({",", " : "}));
        if (argument.choices.back().empty() || argument.choices.size() > max_choices) return fault();
    } while (line.take(","));
    if (argument.choices.size() < 2) return fault();
    argument.range = {0, static_cast<double>(argument.choices.size() - 1)};
    return Done{};
}

// value NAME WIDTH ROLE [= DEFAULT] [in LEAST..MOST] [UNIT] : WORDS
// value NAME 1 choice [= DEFAULT] of CHOICE, CHOICE, ... : WORDS
Result<OperationArgument> read_argument(HeadLine& line, bool picture) {
    OperationArgument argument;
    argument.picture = picture;
    argument.name = line.word();
    if (!is_identifier(argument.name))
        return line.fault("an argument needs a name", "write value radius 1 number : words");
    const std::string width = line.word();
    if (width == "same") {
        argument.width = 0;
    } else if (width.size() == 1 && width[0] >= '1' && width[0] <= '4') {
        argument.width = width[0] - '0';
    } else {
        return line.fault("'" + width + "' isn't a width", "1, 2, 3, 4 or same");
    }
    argument.role = line.word();
    if (std::find(roles.begin(), roles.end(), argument.role) == roles.end()) {
        return line.fault("'" + argument.role + "' isn't a role",
                          "mask, opacity, coordinate, displacement, colour, number or choice");
    }
    if (line.take("=")) argument.fallback = line.before({" in ", " of ", " : "});
    if (argument.role == "choice") {
        if (auto good = read_choices(line, argument); !good) return good.fault();
    }
    if (line.take("in ")) {
        const std::string range = line.word();
        const std::size_t dots = range.find("..");
        const auto least = parse_number(range.substr(0, dots));
        const auto most = dots == std::string::npos ? std::nullopt : parse_number(range.substr(dots + 2));
        if (!least || !most || *least >= *most)
            return line.fault("'" + range + "' isn't a range", "write it like 0..1");
        argument.range = {*least, *most};
        argument.unit = line.before({":"});
    }
    if (!line.take(":"))
        return line.fault("a few words about '" + argument.name + "' are missing", "add : and the words");
    argument.words = line.rest();
    return argument;
}

// stage FUNCTION [size 1/N] [repeat N|levels] [native WAY of STAGE by FUNCTION]
Result<OperationStage> read_stage(HeadLine& line) {
    OperationStage stage;
    stage.function = line.word();
    if (!is_identifier(stage.function)) return line.fault("a stage is named by its function", "write stage across");
    while (!line.empty()) {
        const std::string what = line.word();
        const std::string value = line.word();
        if (what == "size") {
            const std::size_t slash = value.find('/');
            const auto whole = parse_number(value.substr(0, slash));
            const auto part =
                slash == std::string::npos ? std::optional<double>(1) : parse_number(value.substr(slash + 1));
            if (!whole || !part || *whole <= 0 || *part < 1 || *whole / *part > 1 || *part > 256) {
                return line.fault("'" + value + "' isn't a size", "1, or a part of it such as 1/4");
            }
            stage.scale = *whole / *part;
        } else if (what == "repeat") {
            const auto rounds = parse_number(value);
            stage.levels = value == "levels";
            if (!stage.levels && (!rounds || *rounds < 1 || *rounds > 64)) {
                return line.fault("'" + value + "' isn't a number of rounds", "1 to 64, or levels");
            }
            if (!stage.levels) stage.repeat = static_cast<int>(*rounds);
        } else if (what == "native") {
            NativeStage native;
            native.way = value;
            const bool of = line.word() == "of";
            native.from = line.word();
            const bool by = line.word() == "by";
            native.argument = line.word();
            if (!of || !by || !is_identifier(value) || !is_identifier(native.from) || !is_identifier(native.argument))
                return line.fault("it is not said what the native way reads", "write native WAY of STAGE by FUNCTION");
            stage.native = std::move(native);
        } else {
            return line.fault("'" + what + "' is not known of a stage", "size, repeat or native");
        }
    }
    return stage;
}

Result<Done> read_head_line(HeadLine& line, Operation& operation) {
    const std::string key = line.word();
    if (key == "title") {
        operation.title = line.rest();
    } else if (key == "group") {
        operation.group = line.rest();
    } else if (key == "about") {
        operation.about = line.rest();
    } else if (key == "says") {
        operation.says = line.rest();
    } else if (key == "shown") {
        operation.shown = line.rest();
    } else if (key == "value" || key == "picture") {
        Result<OperationArgument> argument = read_argument(line, key == "picture");
        if (!argument) return argument.fault();
        operation.arguments.push_back(std::move(*argument));
    } else if (key == "stage") {
        Result<OperationStage> stage = read_stage(line);
        if (!stage) return stage.fault();
        operation.stages.push_back(std::move(*stage));
    } else {
        return line.fault("'" + key + "' is not known in an operation's head",
                          "title, group, about, says, shown, value, picture or stage");
    }
    return Done{};
}

Result<Done> read_functions(Operation& operation) {
    Result<Code> code = parse_code(operation.text, CodeOf::operation);
    if (!code) return placed_in_file(code.fault(), operation);
    const HeadLine whole({}, 1, operation.file);
    if (!code->body.empty()) return whole.fault("an operation holds functions only", "put the statements into one");
    const auto missing = [&](const std::string& name) -> std::optional<Fault> {
        const bool found = std::any_of(code->functions.begin(), code->functions.end(),
                                       [&](const FunctionSyntax& f) { return f.name == name; });
        if (found) return std::nullopt;
        return whole.fault("there is no function '" + name + "'", "write it, or name another");
    };
    for (const OperationStage& stage : operation.stages) {
        if (auto fault = missing(stage.function)) return *fault;
        if (!stage.native) continue;
        if (auto fault = missing(stage.native->argument)) return *fault;
        const auto is_from = [&](const OperationStage& other) { return other.function == stage.native->from; };
        const bool is_before =
            std::any_of(operation.stages.data(), operation.stages.data() + (&stage - operation.stages.data()), is_from);
        if (!is_before)
            return whole.fault("there is no stage '" + stage.native->from + "' before '" + stage.function + "'",
                               "name one that is");
    }
    operation.code = std::make_shared<const Code>(std::move(*code));
    return Done{};
}

}  // namespace

bool Operation::is_plain() const {
    const auto picture = [](const OperationArgument& a) { return a.picture; };
    return stages.size() == 1 && stages[0].repeat == 1 && !stages[0].levels && stages[0].scale == 1 &&
           std::none_of(arguments.begin(), arguments.end(), picture);
}

bool Operation::has_same() const {
    return std::any_of(arguments.begin(), arguments.end(), [](const OperationArgument& a) { return a.width == 0; });
}

Fault placed_in_file(Fault fault, const Operation& operation) {
    const std::string& text = operation.text;
    const Span span = fault.place.span;
    std::size_t line = 0;
    fault.place = {operation.file, span, 1, 1};
    for (std::size_t i = 0; i < span.begin && i < text.size(); ++i) {
        fault.place.column = text[i] == '\n' ? 1 : fault.place.column + 1;
        line += text[i] == '\n' ? 1 : 0;
    }
    fault.place.line = static_cast<int>(line) + 1;
    if (line < operation.lines.size()) {
        fault.place.where = operation.lines[line].file;
        fault.place.line = operation.lines[line].line;
    }
    return fault;
}

namespace {

constexpr std::string_view uses_mark = "//! uses ";

class Assembler {
public:
    explicit Assembler(const UsedText& used) : used_(used) {}

    Result<Done> add(const std::string& text, const std::string& file, bool whole) {
        under_way_.push_back(file);
        std::istringstream lines(text);
        std::string line;
        for (int number = 1; std::getline(lines, line); ++number) {
            if (line.starts_with(uses_mark)) {
                if (auto good = add_used(line.substr(uses_mark.size()), file, number); !good) return good;
            } else if (whole || !line.starts_with("//!")) {
                made.text += line + "\n";
                made.lines.push_back({file, number});
            }
        }
        under_way_.pop_back();
        return Done{};
    }

    AssembledText made;

private:
    Result<Done> add_used(std::string name, const std::string& file, int line) {
        while (!name.empty() && (name.back() == ' ' || name.back() == '\r')) name.pop_back();
        const auto fault = [&](std::string message) {
            return Fault{"operation.uses", std::move(message), "name a file beside it that is marked //! shared",
                         Place{file, {}, line, 0}, Severity::fault};
        };
        const auto* found = used_ != nullptr ? used_(name) : nullptr;
        if (found == nullptr) return fault("there is no shared file '" + name + "'");
        if (std::find(under_way_.begin(), under_way_.end(), found->second) != under_way_.end())
            return fault("'" + name + "' uses what uses it");
        if (std::find(put_in_.begin(), put_in_.end(), name) != put_in_.end()) return Done{};
        put_in_.push_back(name);
        return add(found->first, found->second, false);
    }

    const UsedText& used_;
    std::vector<std::string> under_way_;
    std::vector<std::string> put_in_;
};

}  // namespace

Result<AssembledText> assembled(const std::string& text, const std::string& file, const UsedText& used) {
    Assembler assembler(used);
    if (auto good = assembler.add(text, file, true); !good) return good.fault();
    return std::move(assembler.made);
}

bool is_shared_text(std::string_view text) {
    return text.starts_with("//! shared") || text.find("\n//! shared") != std::string_view::npos;
}

Fault broken_operation(const std::string& name, const Fault& inner) {
    const std::string line = inner.place.line > 0 ? "line " + std::to_string(inner.place.line) + " of " : std::string();
    return {"finish.operation",
            "'" + name + "' has a fault in " + line + "its file: " + inner.message,
            (inner.mend.empty() ? "mend the file" : inner.mend) + "; the file is read again by itself",
            {},
            Severity::fault};
}

Result<Operation> read_operation(std::string name, AssembledText text, std::string file) {
    Operation operation;
    operation.name = std::move(name);
    operation.text = std::move(text.text);
    operation.lines = std::move(text.lines);
    operation.file = std::move(file);
    const HeadLine whole({}, 1, operation.file);
    if (operation.text.size() > max_operation_file)
        return whole.fault("the file is longer than 65,536 characters", "make it shorter");
    if (!is_identifier(operation.name) || is_builtin_name(operation.name)) {
        Fault fault =
            whole.fault("'" + operation.name + "' cannot be the name of an operation", "name the file otherwise");
        fault.id = "operation.name";
        return fault;
    }
    std::istringstream lines(operation.text);
    std::string line;
    for (int number = 1; std::getline(lines, line); ++number) {
        if (!line.starts_with("//!")) continue;
        HeadLine head(std::string_view(line).substr(3), number, operation.file);
        if (auto good = read_head_line(head, operation); !good) return good.fault();
    }
    if (operation.title.empty() || operation.group.empty() || operation.about.empty() || operation.says.empty()) {
        return whole.fault("title, group, about or says is missing", "add a line such as //! title Polar");
    }
    if (operation.stages.empty()) operation.stages.push_back({operation.name, 1, 1, false});
    if (auto good = read_functions(operation); !good) return good.fault();
    return operation;
}

}  // namespace lacquer
