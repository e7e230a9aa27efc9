#include "core/picture/cube.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/base/file.h"
#include "core/base/guarded.h"

namespace lacquer {

namespace {

constexpr int most_entries_3d = 129;  // a side; beyond that files would be larger than anything that is used
constexpr int most_entries_1d = 65536;
constexpr std::size_t most_bytes = std::size_t{256} * 1024 * 1024;

std::string_view trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r");
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

std::vector<std::string_view> words_of(std::string_view line) {
    std::vector<std::string_view> words;
    while (!(line = trimmed(line)).empty()) {
        const std::size_t end = std::min(line.find_first_of(" \t"), line.size());
        words.push_back(line.substr(0, end));
        line.remove_prefix(end);
    }
    return words;
}

std::optional<float> number_from(std::string_view word) {
    if (!word.empty() && word.front() == '+') word.remove_prefix(1);
    double number = 0;
    const auto [end, error] = std::from_chars(word.data(), word.data() + word.size(), number);
    if (error != std::errc() || end != word.data() + word.size() || !std::isfinite(number)) return std::nullopt;
    const auto kept = static_cast<float>(number);
    return std::isfinite(kept) ? std::optional(kept) : std::nullopt;
}

// Three numbers after the first `skip` words.
std::optional<std::array<float, 3>> three_from(const std::vector<std::string_view>& words, std::size_t skip) {
    if (words.size() != skip + 3) return std::nullopt;
    std::array<float, 3> three{};
    for (std::size_t i = 0; i < 3; ++i) {
        const auto number = number_from(words[skip + i]);
        if (!number) return std::nullopt;
        three[i] = *number;
    }
    return three;
}

class Reader {
public:
    Reader(std::string_view text, const std::string& where) : text_(text), where_(where) {}

    Result<CubeTable> run() {
        while (!text_.empty()) {
            ++line_;
            const std::size_t end = std::min(text_.find('\n'), text_.size());
            const std::string_view line = trimmed(text_.substr(0, end));
            text_.remove_prefix(std::min(end + 1, text_.size()));
            if (line.empty() || line.front() == '#') continue;
            if (auto fault = take(line)) return *fault;
        }
        if (table_.size == 0) return wrong("it does not say LUT_1D_SIZE or LUT_3D_SIZE");
        if (entries_.size() != wanted())
            return wrong(fmt::format("it has {} entries and should have {}", entries_.size(), wanted()));
        for (std::size_t c = 0; c < 3; ++c) {
            if (!(table_.least[c] < table_.most[c])) return wrong("its domain should rise from least to most");
        }
        lay_out();
        return std::move(table_);
    }

private:
    Fault wrong(const std::string& why) const {
        return {"picture.cube",
                fmt::format("the table cannot be read: {} (line {})", why, line_),
                "save it again as a .cube file",
                {where_, {}, 0, 0},
                Severity::fault};
    }

    std::size_t wanted() const {
        const auto side = static_cast<std::size_t>(table_.size);
        return table_.three ? side * side * side : side;
    }

    std::optional<Fault> take(std::string_view line) {
        const std::vector<std::string_view> words = words_of(line);
        if (words[0] == "TITLE") {
            const auto open = line.find('"');
            const auto close = line.rfind('"');
            if (open != std::string_view::npos && close > open)
                table_.title = std::string(line.substr(open + 1, close - open - 1));
            return std::nullopt;
        }
        if (words[0] == "LUT_1D_SIZE" || words[0] == "LUT_3D_SIZE") return take_size(words);
        if (words[0] == "DOMAIN_MIN" || words[0] == "DOMAIN_MAX") {
            const auto three = three_from(words, 1);
            if (!three) return wrong("a domain is three numbers");
            (words[0] == "DOMAIN_MIN" ? table_.least : table_.most) = *three;
            return std::nullopt;
        }
        if (words[0] == "LUT_1D_INPUT_RANGE" || words[0] == "LUT_3D_INPUT_RANGE") {
            const auto least = words.size() == 3 ? number_from(words[1]) : std::nullopt;
            const auto most = words.size() == 3 ? number_from(words[2]) : std::nullopt;
            if (!least || !most) return wrong("a range of input is two numbers");
            table_.least.fill(*least);
            table_.most.fill(*most);
            return std::nullopt;
        }
        const auto entry = three_from(words, 0);
        // Words that only some programs know are passed over, as long as they are words.
        if (!entry) return number_from(words[0]) ? std::optional(wrong("an entry is three numbers")) : std::nullopt;
        if (table_.size == 0) return wrong("entries come before its size");
        if (entries_.size() >= wanted()) return wrong("it has more entries than it says");
        entries_.push_back(*entry);
        return std::nullopt;
    }

    std::optional<Fault> take_size(const std::vector<std::string_view>& words) {
        const auto number = words.size() == 2 ? number_from(words[1]) : std::nullopt;
        const bool three = words[0] == "LUT_3D_SIZE";
        const auto most = static_cast<float>(three ? most_entries_3d : most_entries_1d);
        if (!number || *number < 2 || *number > most || *number != std::floor(*number))
            return wrong(fmt::format("its size should be a whole number from 2 to {}", most));
        if (table_.size != 0) return wrong("it says its size twice");
        table_.size = static_cast<int>(*number);
        table_.three = three;
        return std::nullopt;
    }

    // Twice as fine: between two entries stands their mean, so that what is read in between stays.
    void refine_row() {
        std::vector<std::array<float, 3>> fine;
        for (std::size_t i = 0; i < entries_.size(); ++i) {
            if (i > 0) {
                std::array<float, 3> mean{};
                for (std::size_t c = 0; c < 3; ++c) mean[c] = (entries_[i - 1][c] + entries_[i][c]) / 2;
                fine.push_back(mean);
            }
            fine.push_back(entries_[i]);
        }
        entries_ = std::move(fine);
        table_.size = static_cast<int>(entries_.size());
    }

    void lay_out() {
        const bool ranged = table_.least != CubeTable().least || table_.most != CubeTable().most;
        if (ranged && !table_.three && table_.size == 4) refine_row();
        const int n = table_.size;
        const int rows = table_.three ? n : 1;
        table_.picture = Picture(n * rows, rows + (ranged ? 1 : 0), 4);
        if (ranged) {
            for (int x = 0; x < table_.picture.width; ++x) table_.picture.at(x, rows)[3] = 1;
            std::copy(table_.least.begin(), table_.least.end(), table_.picture.at(0, rows));
            std::copy(table_.most.begin(), table_.most.end(), table_.picture.at(1, rows));
        }
        for (std::size_t i = 0; i < entries_.size(); ++i) {
            const int red = static_cast<int>(i) % n;
            const int green = static_cast<int>(i) / n % n;
            const int blue = static_cast<int>(i) / (n * n);
            float* to = table_.three ? table_.picture.at(blue * n + red, green) : table_.picture.at(red, 0);
            std::copy(entries_[i].begin(), entries_[i].end(), to);
            to[3] = 1;
        }
    }

    std::string_view text_;
    std::string where_;
    int line_ = 0;
    CubeTable table_;
    std::vector<std::array<float, 3>> entries_;
};

}  // namespace

Result<CubeTable> cube_from_text(std::string_view text, const std::string& where) { return Reader(text, where).run(); }

Result<CubeTable> read_cube(const std::string& path) {
    Result<std::string> text = read_whole_file(path, most_bytes);
    if (text) return guarded([&] { return cube_from_text(*text, path); });
    Fault fault = text.fault();
    if (fault.id == "file.missing") {
        fault.id = "picture.missing";
        fault.mend = "put it back, or choose another";
    } else {
        fault.id = "picture.unreadable";
        fault.mend = "choose a .cube file";
    }
    return fault;
}

}  // namespace lacquer
