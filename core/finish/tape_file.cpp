#include "core/finish/tape_file.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/file.h"
#include "core/finish/file.h"
#include "core/finish/json_tree.h"
#include "core/finish/read_play.h"

namespace lacquer {

std::string tape_to_text(const NamedTape& tape) {
    const nlohmann::ordered_json head = {{"tape", tape.name}, {"format", finish_format}, {"length", tape.length}};
    std::string text = head.dump(-1, ' ', false, nlohmann::ordered_json::error_handler_t::replace) + "\n";
    for (const std::string& line : tape_lines(tape.tape)) text += line + "\n";
    return text;
}

Result<NamedTape> tape_from_text(std::string_view text, const std::string& where, Faults& notices) {
    NamedTape read;
    int number = 0;
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size());
        const std::string_view line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        ++number;
        if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
        Result<nlohmann::ordered_json> json = json_from_text(line, where);
        if (!json) {
            Fault fault = json.fault();
            fault.place.line = number;
            if (number == 1) return fault;
            fault.severity = Severity::warning;
            notices.push_back(std::move(fault));
            continue;
        }
        Fields fields(*json, fmt::format("line {}", number), where, notices);
        if (number > 1) {
            read_event(fields, read.tape);
            if (read.tape.cues.size() + read.tape.changes.size() > max_tape_events) {
                return Fault{"file.size", "a tape holds at most 200000 cues and changes", "part it",
                             Place{where, {}, number, 0}, Severity::fault};
            }
            continue;
        }
        if (!json->is_object() || !json->contains("tape")) {
            return Fault{"file.shape", "the file does not say that it is a tape", "open a .tape file",
                         Place{where, {}, 1, 0}, Severity::fault};
        }
        read.name = fields.text("tape", read.name);
        if (fields.number("format", finish_format) > finish_format) {
            return Fault{"file.format", "the tape is of a newer Lacquer", "open it with that", Place{where, {}, 1, 0},
                         Severity::fault};
        }
        const double length = fields.number("length", read.length);
        if (length > 0 && length <= 3600) read.length = length;
    }
    if (number == 0) {
        return Fault{"file.shape", "the file is empty", "open a .tape file", Place{where, {}, 0, 0}, Severity::fault};
    }
    sort_tape(read.tape);
    return read;
}

Result<NamedTape> load_tape(const std::string& path, Faults& notices) {
    Result<std::string> text = read_whole_file(path, 2 * max_file_size);
    if (!text) return text.fault();
    return tape_from_text(*text, path, notices);
}

Result<Done> save_tape(const std::string& path, const NamedTape& tape) {
    return write_whole_file(path, tape_to_text(tape));
}

}  // namespace lacquer
