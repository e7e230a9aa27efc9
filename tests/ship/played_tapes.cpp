#include "tests/ship/played_tapes.h"

#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <sstream>

#include "core/finish/play.h"
#include "core/ship/play/formula_code.h"
#include "core/ship/play/play_names.h"
#include "tests/support/finishes.h"

namespace lacquer::test {

namespace {

// What happens, and what is asked, in the order in which a game would say it.
struct Said {
    double at = 0;
    int order = 0;  // of what is said at one time: settings, cues, questions
    std::string call;
};

std::vector<Said> said_of(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments,
                          const std::string& pointer) {
    const PlayNames names = play_names(material.finish());
    const std::string& stem = material.stem;
    std::vector<Said> said;
    for (const Change& change : tape.changes) {
        const PlayField& field = names.fields.at(change.name);
        const Dial* dial = find_dial(material.finish(), change.name);
        if (dial != nullptr && !dial->formula.empty()) continue;
        std::string call = fmt::format("{}_set_{}({}s, {}", stem, field.name, pointer, code_number(change.at));
        for (std::size_t k = 0; k < static_cast<std::size_t>(field.width); ++k)
            call += ", " +
                    (field.is_truth ? std::to_string(static_cast<int>(change.value[k])) : code_number(change.value[k]));
        said.push_back({change.at, 0, call + ");"});
    }
    for (const Cue& cue : tape.cues) {
        said.push_back({cue.at, 1,
                        fmt::format("{}_cue_{}({}s, {}, {}, {}, {}, {}, {});", stem, names.cues.at(cue.name), pointer,
                                    code_number(cue.at), code_number(cue.strength), code_number(cue.direction),
                                    code_number(cue.x), code_number(cue.y), cue.object)});
    }
    for (const double moment : moments)
        said.push_back(
            {moment, 2, fmt::format("{}_at({}s, {}, {}v); tell();", stem, pointer, code_number(moment), pointer)});
    std::stable_sort(said.begin(), said.end(),
                     [](const Said& a, const Said& b) { return a.at < b.at || (a.at == b.at && a.order < b.order); });
    return said;
}

// One field a line, a blank line behind each moment.
PlayedValues parsed(const std::string& output) {
    PlayedValues values;
    std::vector<std::pair<std::string, double>> moment;
    std::istringstream in(output);
    for (std::string line; std::getline(in, line);) {
        if (line.empty()) {
            values.push_back(std::move(moment));
            moment.clear();
            continue;
        }
        const std::size_t blank = line.find(' ');
        moment.emplace_back(line.substr(0, blank), std::strtod(line.c_str() + blank, nullptr));
    }
    return values;
}

std::string telling(const ShipMaterial& material, const std::string& form) {
    std::string text;
    for (const auto& [name, field] : play_names(material.finish()).fields) {
        for (int k = 0; k < field.width; ++k) {
            const std::string part = field.name + (field.width > 1 ? fmt::format("[{}]", k) : "");
            text += fmt::format(fmt::runtime(form), part);
        }
    }
    return text;
}

PlayCode code_of(const ShipMaterial& material) {
    Result<PlayCode> code = play_code(material);
    if (!code) FAIL(to_text(code.fault()));
    return std::move(*code);
}

PlayedValues output_of(const std::string& command) {
    const CommandResult result = run_command(command);
    if (result.code != 0) FAIL(command << "\n" << result.output);
    return parsed(result.output);
}

}  // namespace

ShipMaterial material_of(const Finish& finish, const std::string& path) {
    Result<ShipMaterial> material = ship_material({checked(finish), path, PictureAccess::exact});
    if (!material) FAIL(to_text(material.fault()));
    return std::move(*material);
}

PlayedValues by_application(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments) {
    const Play play(material.request.checked, tape);
    const PlayNames names = play_names(material.finish());
    PlayedValues all;
    for (const double moment : moments) {
        const DriveValues values = play.values(moment);
        std::vector<std::pair<std::string, double>> told;
        for (const auto& [name, field] : names.fields) {
            const auto found = values.find(name);
            for (std::size_t k = 0; k < static_cast<std::size_t>(field.width); ++k) {
                const bool real = found != values.end() && scalar_of(found->second.type) == Scalar::real;
                const double value = found == values.end() ? 0
                                     : real                ? static_cast<double>(found->second.parts[k])
                                                           : (found->second.wholes[k] != 0 ? 1.0 : 0.0);
                told.emplace_back(field.name + (field.width > 1 ? fmt::format("[{}]", k) : ""), value);
            }
        }
        all.push_back(std::move(told));
    }
    return all;
}

PlayedValues by_header(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments,
                       const std::string& compiler, const std::string& ending) {
    const TemporaryFolder folder;
    write_file(folder.file("play.h"), code_of(material).header);
    std::string text = "#include \"play.h\"\n#include <stdio.h>\n";
    text += fmt::format("static {0}_state state;\nstatic {0}_values values;\n", material.stem);
    text += "static void tell(void) {\n" + telling(material, "    printf(\"{0} %.17g\\n\", values.{0});\n") +
            "    printf(\"\\n\");\n}\n";
    text += "int main(void) {\n    " + material.stem + "_state *const s = &state;\n    " + material.stem +
            "_values *const v = &values;\n    " + material.stem + "_init(s);\n";
    for (const Said& said : said_of(material, tape, moments, "")) text += "    " + said.call + "\n";
    write_file(folder.file("main." + ending), text + "    return 0;\n}\n");
    return output_of("cd " + folder.path().string() + " && " + compiler + strict + " main." + ending +
                     " -lm -o played && ./played");
}

PlayedValues by_module(const ShipMaterial& material, const Tape& tape, const std::vector<double>& moments) {
    const TemporaryFolder folder;
    write_file(folder.file("play.mjs"), code_of(material).module);
    std::string text = "import * as play from './play.mjs';\nconst lines = [];\n";
    text +=
        fmt::format("const s = play.{0}_state_new(), v = play.{0}_values_new();\nplay.{0}_init(s);\n", material.stem);
    text += "function tell() {\n" + telling(material, "    lines.push('{0} ' + v.{0});\n") + "    lines.push('');\n}\n";
    for (const Said& said : said_of(material, tape, moments, "")) text += "play." + said.call + "\n";
    write_file(folder.file("main.mjs"), text + "console.log(lines.join('\\n'));\n");
    return output_of("node " + folder.file("main.mjs"));
}

void check_alike(const PlayedValues& shipped, const PlayedValues& wanted) {
    REQUIRE(shipped.size() == wanted.size());
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        REQUIRE(shipped[i].size() == wanted[i].size());
        for (std::size_t k = 0; k < wanted[i].size(); ++k) {
            const auto& [name, value] = wanted[i][k];
            REQUIRE(shipped[i][k].first == name);
            const double off = std::fabs(shipped[i][k].second - value);
            INFO("moment " << i << ", " << name << ": shipped " << shipped[i][k].second << ", application " << value);
            CHECK(off <= 1e-6 * std::max(1.0, std::fabs(value)));
        }
    }
}

}  // namespace lacquer::test
