#include "core/ship/play/play_writer.h"

#include <fmt/core.h>

#include <array>
#include <map>
#include <optional>

#include "core/finish/play.h"
#include "core/gpu/glsl.h"
#include "core/ship/play/response_writer.h"

namespace lacquer {

namespace {

// A remark of one line.
std::string remark(const std::string& text) { return "/* " + comment_text(text) + " */"; }

class PlayWriter {
public:
    explicit PlayWriter(const ShipMaterial& material)
        : finish_(material.finish()),
          checked_(*material.request.checked),
          stem_(material.stem),
          names_(play_names(finish_)) {}

    Result<std::string> run() {
        for (const Signal& signal : finish_.signals) add_signal(signal);
        for (const Dial& dial : finish_.dials) {
            if (dial.formula.empty()) add_dial(dial);
        }
        for (const Ground& ground : finish_.grounds) {
            if (ground.as<DropletsGround>() == nullptr) continue;
            for (const auto& [name, type] : droplets_names(ground.name))
                add_setting(name, {"double"}, {"value"}, {"0"}, {"lq_f(value)"}, "how many drops live, and will");
        }
        for (std::size_t i = 0; i < finish_.responses.size(); ++i) {
            if (!add_response(i)) return *fault_;
        }
        std::string dials;
        for (const std::size_t i : checked_.dial_order) {
            if (!finish_.dials[i].formula.empty() && !add_driven(i, dials)) return *fault_;
        }
        return values_struct() + state_struct() + statics_ + functions_ + steady() + "\n" + changed() + setters_ +
               cues() + at(dials);
    }

private:
    std::string state_argument() const { return stem_ + "_state *s"; }

    // In the state: what was set.
    CodeValue setting(const std::string& name, int part) const {
        const auto found = settings_.find(name);
        if (found == settings_.end()) {
            const std::size_t dot = name.rfind('.');
            const Signal* signal = dot == std::string::npos ? nullptr : find_signal(finish_, name.substr(0, dot));
            if (signal == nullptr) return {"0", false};
            return {range_part(*signal, name.substr(dot + 1)), false};
        }
        const std::string field = "s->set_" + found->second.name;
        if (found->second.is_truth) return {"(" + field + " != 0 ? -1 : 0)", true};
        return {found->second.width > 1 ? fmt::format("{}[{}]", field, part) : field, false};
    }

    std::string range_part(const Signal& signal, const std::string& part) const {
        if (part == "most") return code_number(static_cast<double>(static_cast<float>(signal.most)));
        if (part == "least") return code_number(static_cast<double>(static_cast<float>(signal.least)));
        return fmt::format("lq_f((s->set_{} - {}) / {})", settings_.at(signal.name).name, code_number(signal.least),
                           code_number(signal.most - signal.least));
    }

    void add_setting(const std::string& name, const std::vector<std::string>& types,
                     const std::vector<std::string>& arguments, const std::vector<std::string>& begins,
                     const std::vector<std::string>& values, const std::string& words) {
        PlayField field = names_.fields.at(name);
        settings_[name] = field;
        const std::string target = "s->set_" + field.name;
        const bool many = arguments.size() > 1;
        state_ += fmt::format("    double set_{}{};\n", field.name, many ? fmt::format("[{}]", arguments.size()) : "");
        std::string list;
        std::string lines;
        for (std::size_t k = 0; k < arguments.size(); ++k) {
            const std::string one = many ? fmt::format("{}[{}]", target, k) : target;
            list += ", " + types[k] + " " + arguments[k];
            lines += "    " + one + " = " + values[k] + ";\n";
            init_ += "    " + one + " = " + begins[k] + ";\n";
        }
        setters_ += fmt::format(
            "{}\nstatic inline void {}_set_{}({}, double seconds{}) {{\n{}    {}_changed(s, seconds);\n}}\n\n",
            remark(words), stem_, field.name, state_argument(), list, lines, stem_);
    }

    static std::string spoken_range(double least, double most, const std::string& unit) {
        return code_number(least) + " to " + code_number(most) + (unit.empty() ? "" : " " + unit);
    }

    void add_signal(const Signal& signal) {
        const std::array<double, 3> begins = signal_value(signal, signal.value);
        const auto begin = [&](std::size_t k) {
            return code_number(static_cast<double>(static_cast<float>(begins[k])));
        };
        const std::string words = "the signal " + signal.name + (signal.note.empty() ? "" : ", " + signal.note);
        switch (signal.kind) {
            case SignalKind::toggle:
                return add_setting(signal.name, {"int"}, {"on"}, {begin(0)}, {"on != 0 ? 1 : 0"}, words + ": 0 or 1");
            case SignalKind::place:
                return add_setting(signal.name, {"double", "double"}, {"x", "y"}, {begin(0), begin(1)},
                                   {"lq_f(lq_set(x, 0, 1))", "lq_f(lq_set(y, 0, 1))"},
                                   words + ": shares of the frame, 0 to 1 from its top left");
            case SignalKind::integer:
            case SignalKind::number:
                break;
        }
        const std::string held =
            fmt::format("lq_set(value, {}, {})", code_number(signal.least), code_number(signal.most));
        const bool is_whole = signal.kind == SignalKind::integer;
        add_setting(signal.name, {"double"}, {"value"}, {begin(0)},
                    {is_whole ? "lq_f(lq_rounded(" + held + "))" : "lq_f(" + held + ")"},
                    words + ": " + spoken_range(signal.least, signal.most, signal.unit));
    }

    void add_dial(const Dial& dial) {
        const Value begins = dial_value(dial.kind, dial.value);
        const auto begin = [&](std::size_t k) { return code_number(static_cast<double>(begins.parts[k])); };
        const std::string words = "the dial " + dial.name + (dial.note.empty() ? "" : ", " + dial.note);
        switch (dial.kind) {
            case DialKind::toggle:
                return add_setting(dial.name, {"int"}, {"on"}, {dial.value[0] != 0 ? "1" : "0"}, {"on != 0 ? 1 : 0"},
                                   words + ": 0 or 1");
            case DialKind::colour:
                return add_setting(dial.name, {"double", "double", "double"}, {"red", "green", "blue"},
                                   {begin(0), begin(1), begin(2)}, {"lq_f(red)", "lq_f(green)", "lq_f(blue)"},
                                   words + ": in linear light");
            case DialKind::integer:
                return add_setting(dial.name, {"double"}, {"value"}, {begin(0)}, {"lq_f(lq_rounded(value))"},
                                   words + ": " + spoken_range(dial.least, dial.most, dial.unit));
            case DialKind::number:
                break;
        }
        add_setting(dial.name, {"double"}, {"value"}, {begin(0)}, {"lq_f(value)"},
                    words + ": " + spoken_range(dial.least, dial.most, dial.unit));
    }

    bool add_response(std::size_t i) {
        const Response& response = finish_.responses[i];
        const std::string& own = names_.responses.at(response.name);
        const CodeName in_state = [this](const std::string& name, int part) { return setting(name, part); };
        Result<ResponseCode> code = response_code(response, checked_.responses[i], stem_, own, in_state);
        if (!code) {
            fault_ = code.fault();
            fault_->place.where = response.name;
            return false;
        }
        statics_ += code->statics;
        state_ += code->fields;
        functions_ += remark(response.name + ", a " + response.kind +
                             (response.cue.empty() ? "" : " that hears " + response.cue)) +
                      "\n" + code->functions;
        steady_ += code->steady;
        changed_ += code->changed;
        if (!response.cue.empty() && code->functions.find("_hear_" + own + "(") != std::string::npos)
            heard_[response.cue] += fmt::format("    {}_hear_{}(s, seconds, &cue);\n", stem_, own);
        if (!code->shuts.empty()) heard_[code->shuts] += fmt::format("    {}_shut_{}(s, seconds, &cue);\n", stem_, own);
        answered_ += fmt::format("    {}_answer_{}(s, seconds, &answer);\n", stem_, own);
        const ResponseKind* kind = find_response_kind(response.kind);
        answered_ += value_lines(response.name, kind->width, {"answer.value[0]", "answer.value[1]"});
        for (const OutputSpec& output : response_outputs()) {
            if (!kind->has(output.name)) continue;
            answered_ += value_lines(response.name + "." + std::string(output.name), output.width,
                                     output_text(std::string(output.name)));
        }
        return true;
    }

    static std::vector<std::string> output_text(const std::string& output) {
        if (output == "strength" || output == "object") return {"answer.cue." + output};
        if (output == "place") return {"answer.cue.x", "answer.cue.y"};
        if (output == "direction") {
            const std::string angle = "answer.cue.direction * 3.14159265358979323846 / 180";
            return {"cos(" + angle + ")", "sin(" + angle + ")"};
        }
        return {"answer." + output};
    }

    std::string value_lines(const std::string& name, int width, const std::vector<std::string>& parts) const {
        const std::string field = "values->" + names_.fields.at(name).name;
        std::string lines;
        for (int k = 0; k < width; ++k) {
            lines += fmt::format("    {}{} = lq_f({});\n", field, width > 1 ? fmt::format("[{}]", k) : "",
                                 parts[static_cast<std::size_t>(k)]);
        }
        return lines;
    }

    // Among the values of the moment.
    CodeValue value(const std::string& name, int part) const {
        if (name == "time") return {"lq_f(seconds)", false};
        const auto found = names_.fields.find(name);
        if (found == names_.fields.end()) return {"0", false};
        const std::string field = "values->" + found->second.name;
        if (found->second.is_truth) return {"(" + field + " != 0 ? -1 : 0)", true};
        return {found->second.width > 1 ? fmt::format("{}[{}]", field, part) : field, false};
    }

    bool add_driven(std::size_t i, std::string& calls) {
        const Dial& dial = finish_.dials[i];
        const std::string& field = names_.fields.at(dial.name).name;
        if (!checked_.dials[i].formula) return true;
        const CodeName in_values = [this](const std::string& name, int part) { return value(name, part); };
        const Result<FormulaCode> code = formula_code(*checked_.dials[i].formula, in_values, "    ");
        if (!code) {
            fault_ = code.fault();
            fault_->place.where = dial.name;
            return false;
        }
        functions_ += remark(dial.name + " = " + dial.formula) + "\n";
        functions_ += fmt::format(
            "static inline void {0}_drive_{1}(double seconds, {0}_values *values) {{\n{2}    (void)seconds;\n", stem_,
            field, code->statements);
        for (std::size_t k = 0; k < code->parts.size(); ++k) {
            const std::string target = code->parts.size() > 1 ? fmt::format("[{}]", k) : "";
            const std::string part = code->parts[k];
            functions_ += fmt::format("    values->{}{} = {};\n", field, target,
                                      dial.kind == DialKind::integer ? "lq_rounded(" + part + ")" : part);
        }
        functions_ += "}\n\n";
        calls += fmt::format("    {}_drive_{}(seconds, values);\n", stem_, field);
        return true;
    }

    std::string values_struct() const {
        std::string text =
            "/* All that is worth something at a moment: dials, signals, responses. */\ntypedef struct {\n";
        for (const auto& [name, field] : names_.fields)
            text +=
                fmt::format("    double {}{};\n", field.name, field.width > 1 ? fmt::format("[{}]", field.width) : "");
        if (names_.fields.empty()) text += "    double nothing;\n";
        return text + fmt::format("}} {}_values;\n\n", stem_);
    }

    std::string state_struct() const {
        return "/* What has happened so far. It may be copied as a whole, but its parts are its own business. */\n"
               "typedef struct {\n    double begun;\n" +
               state_ + fmt::format("}} {}_state;\n\n", stem_);
    }

    std::string steady() const {
        const bool needs_cue = steady_.find("&cue") != std::string::npos;
        return fmt::format(
            "/* What is read once, as things are at 0 s, and what begins by itself then. */\n"
            "static inline void {0}_steady({1}) {{\n{2}{3}    s->begun = 1;\n}}\n\n"
            "/* Nothing has happened yet. */\n"
            "static inline void {0}_init({1}) {{\n{4}    {0}_steady(s);\n}}\n",
            stem_, state_argument(), needs_cue ? "    lq_cue cue;\n" : "", steady_, init_);
    }

    std::string changed() const {
        return fmt::format(
            "/* Something was set. */\nstatic inline void {0}_changed({1}, double seconds) {{\n"
            "    if (seconds <= 0) {{\n        {0}_steady(s);\n        return;\n    }}\n{2}}}\n\n",
            stem_, state_argument(), changed_);
    }

    std::string cues() const {
        std::map<std::string, std::string> all;
        for (const CueKind& cue : finish_.cues) all[cue.name];
        for (const auto& [name, calls] : heard_) all[name] = calls;
        std::string text;
        for (const auto& [name, calls] : all) {
            const auto own = names_.cues.find(name);
            text += fmt::format(
                "{}\nstatic inline void {}_cue_{}({}, double seconds, double strength, double direction, double x, "
                "double y, int object) {{\n    lq_cue cue;\n    if (!(strength > 0)) return;\n    (void)s;\n    "
                "(void)seconds;\n"
                "    lq_cue_set(&cue, strength, direction, x, y, object);\n{}}}\n\n",
                remark("The cue " + name +
                       ": strength 0 to 1, direction in degrees, where, and to which object (0 for none)"),
                stem_, own != names_.cues.end() ? own->second : safe_stem(name, "cue"), state_argument(), calls);
        }
        return text;
    }

    std::string at(const std::string& dials) const {
        std::string set;
        for (const auto& [name, field] : names_.fields) {
            const auto known = settings_.find(name);
            const std::size_t dot = name.rfind('.');
            const bool of_signal = dot != std::string::npos && find_signal(finish_, name.substr(0, dot)) != nullptr;
            if (known == settings_.end() && !of_signal) continue;
            for (int k = 0; k < field.width; ++k) {
                const std::string from = known != settings_.end()
                                             ? "s->set_" + field.name + (field.width > 1 ? fmt::format("[{}]", k) : "")
                                             : setting(name, k).text;
                set += fmt::format("    values->{}{} = {};\n", field.name,
                                   field.width > 1 ? fmt::format("[{}]", k) : "", from);
            }
        }
        std::string text = fmt::format(
            "/* What all is worth at a moment that is not before the last thing that was told. */\n"
            "static inline void {0}_at(const {0}_state *s, double seconds, {0}_values *values) {{\n",
            stem_);
        if (!answered_.empty()) text += "    lq_answer answer;\n";
        text += "    (void)s;\n    (void)seconds;\n";
        if (names_.fields.empty()) text += "    values->nothing = 0;\n";
        return text + set + answered_ + dials + "}\n";
    }

    const Finish& finish_;
    const CheckedFinish& checked_;
    const std::string& stem_;
    PlayNames names_;
    std::map<std::string, PlayField, std::less<>> settings_;
    std::map<std::string, std::string> heard_;
    std::string state_;
    std::string statics_;
    std::string functions_;
    std::string init_;
    std::string steady_;
    std::string changed_;
    std::string setters_;
    std::string answered_;
    std::optional<Fault> fault_;
};

}  // namespace

Result<std::string> play_text_of(const ShipMaterial& material) { return PlayWriter(material).run(); }

}  // namespace lacquer
