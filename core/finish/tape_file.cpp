#include "core/finish/tape_file.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/file.h"
#include "core/base/guarded.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/json_line.h"
#include "core/finish/json_tree.h"
#include "core/finish/read_play.h"

namespace lacquer {

namespace {

// What is told of lines that could not be used: of a flood of them the first, and how many more there are.
class LineNotices {
public:
    LineNotices(std::string where, Faults& notices) : where_(std::move(where)), notices_(notices) {}

    void add(Fault fault) {
        constexpr std::size_t most = 20;
        if (++count_ > most) return;
        fault.severity = Severity::warning;
        told_ = count_;
        notices_.push_back(std::move(fault));
    }
    void finish() {
        if (count_ == told_) return;
        notices_.push_back({"file.value", counted(count_ - told_, "more line") + " could not be used",
                            "they were left out", Place{where_, {}, 0, 0}, Severity::warning});
    }

private:
    std::string where_;
    Faults& notices_;
    std::size_t count_ = 0;
    std::size_t told_ = 0;
};

// What the first line says of the tape.
Result<Done> read_head(const Json& json, Fields& fields, const std::string& where, NamedTape& read) {
    const Place place{where, {}, 1, 0};
    if (!json.is_object() || !json.contains("tape")) {
        return Fault{"file.shape", "the file does not say that it is a tape", "open a .tape file", place,
                     Severity::fault};
    }
    read.name = fields.text("tape", read.name);
    if (fields.number("format", finish_format) > finish_format)
        return Fault{"file.format", "the tape is of a newer Lacquer", "open it with that", place, Severity::fault};
    const double length = fields.number("length", read.length);
    if (length > 0 && length <= max_length) {
        read.length = length;
    } else {
        fields.complain("length", fmt::format("more than 0 and at most {} seconds", max_length));
    }
    return Done{};
}

}  // namespace

std::string tape_to_text(const NamedTape& tape) {
    const Json head = Json::object({{"tape", tape.name}, {"format", finish_format}, {"length", tape.length}});
    std::string text = one_line(head) + "\n";
    for (const std::string& line : tape_lines(tape.tape)) text += line + "\n";
    return text;
}

Result<NamedTape> tape_from_text(std::string_view text, const std::string& where, Faults& notices) {
    NamedTape read;
    LineNotices told(where, notices);
    int number = 0;
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size());
        const std::string_view line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        ++number;
        if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
        Result<Json> json = json_from_text(line, where);
        if (!json) {
            Fault fault = json.fault();
            fault.place.line = number;
            if (number == 1) return fault;
            told.add(std::move(fault));
            continue;
        }
        Faults of_line;
        Fields fields(*json, fmt::format("line {}", number), where, of_line);
        if (number == 1) {
            if (auto head = read_head(*json, fields, where, read); !head) return head.fault();
        } else if (room_on(read.tape) == 0) {
            told.add({"file.size", fmt::format("a tape holds {} cues and changes at most", max_tape_events),
                      "what follows was left out", Place{where, {}, number, 0}, Severity::warning});
            break;
        } else {
            read_event(fields, read.tape);
        }
        for (Fault& fault : of_line) told.add(std::move(fault));
    }
    if (number == 0) {
        return Fault{"file.shape", "the file is empty", "open a .tape file", Place{where, {}, 0, 0}, Severity::fault};
    }
    told.finish();
    sort_tape(read.tape);
    return read;
}

Result<NamedTape> load_tape(const std::string& path, Faults& notices) {
    Result<std::string> text = read_whole_file(path, 2 * max_file_size);
    if (!text) return text.fault();
    return guarded([&] { return tape_from_text(*text, path, notices); });
}

Result<Done> save_tape(const std::string& path, const NamedTape& tape) {
    return write_whole_file(path, tape_to_text(tape));
}

}  // namespace lacquer
