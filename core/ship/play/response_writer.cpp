#include "core/ship/play/response_writer.h"

#include <fmt/core.h>

#include <algorithm>
#include <optional>
#include <set>

#include "core/drive/arguments.h"
#include "core/drive/runs.h"
#include "core/ship/play/play_code.h"

namespace lacquer {

namespace {

class ResponseWriter {
public:
    ResponseWriter(const Response& response, const CheckedResponse& checked, const std::string& prefix,
                   const std::string& own, const CodeName& name_of)
        : response_(response),
          kind_(*find_response_kind(response.kind)),
          checked_(checked),
          prefix_(prefix),
          own_(own),
          name_of_(name_of),
          arguments_(response, kind_, no_tape_, no_formulas_) {}

    Result<ResponseCode> run() {
        if (kind_.name == "hold") write_hold();
        if (kind_.name == "wave") write_wave();
        if (kind_.name == "gate") write_gate();
        if (kind_.name == "chase") write_chase();
        if (kind_.name == "strike") write_strike();
        if (kind_.name == "sweep") write_sweep();
        if (kind_.name == "clock") write_clock();
        if (kind_.name == "drift") write_drift();
        if (kind_.name == "path") write_path();
        if (kind_.name == "jolt") write_jolt();
        if (fault_) return *fault_;
        return code_;
    }

private:
    // s->kind_blow
    std::string field(const char* what) const { return std::string("s->") + what + "_" + own_; }
    void add_field(const std::string& type, const char* what, const std::string& length = {}) {
        code_.fields += "    " + type + " " + what + "_" + own_ + (length.empty() ? "" : "[" + length + "]") + ";\n";
    }
    void steady(const std::string& line) { code_.steady += "    " + line + "\n"; }
    void set_steady(const std::string& target, const std::string& value) { steady(target + " = " + value + ";"); }

    bool is_formula(std::string_view name) const { return checked_.formulas.contains(std::string(name)); }

    // A number as it is now: a constant, or a function of its own that reads what was set.
    std::string now(std::string_view name) {
        const auto formula = checked_.formulas.find(std::string(name));
        if (formula == checked_.formulas.end()) return code_number(arguments_.number(name));
        const std::string function = prefix_ + "_read_" + own_ + "_" + std::string(name);
        if (!read_.insert(std::string(name)).second) return function + "(s)";
        const Result<FormulaCode> code = formula_code(formula->second, name_of_, "    ");
        if (!code) {
            fault_ = code.fault();
            return "0";
        }
        const ArgumentSpec* spec = find_argument(kind_, name);
        code_.functions += fmt::format(
            "static inline double {}(const {}_state *s) {{\n{}    const double read = {};\n    (void)s;\n"
            "    return read - read == 0 ? read : {};\n}}\n\n",
            function, prefix_, code->statements, code->parts.front(),
            code_number(spec == nullptr ? 0 : spec->default_number));
        return function + "(s)";
    }

    void put_easing(const std::string& target, std::string_view name) {
        const Easing easing = arguments_.easing(name);
        const played::lq_easing played = played_easing(easing);
        set_steady(target + ".kind", std::to_string(played.kind));
        switch (played.kind) {
            case LQ_BEZIER:
                set_steady(target + ".x1", code_number(played.x1));
                set_steady(target + ".y1", code_number(played.y1));
                set_steady(target + ".x2", code_number(played.x2));
                set_steady(target + ".y2", code_number(played.y2));
                break;
            case LQ_STEPS:
                set_steady(target + ".steps", std::to_string(played.steps));
                set_steady(target + ".first", std::to_string(played.first));
                set_steady(target + ".jumps", std::to_string(played.jumps));
                break;
            case LQ_LINEAR: {
                const std::string points = prefix_ + "_points_" + own_ + "_" + std::string(name);
                code_.statics += fmt::format("static const double {}[{}] = {{", points, 2 * played.count);
                for (int k = 0; k < 2 * played.count; ++k)
                    code_.statics += (k == 0 ? "" : ", ") + code_number(played.points[k]);
                code_.statics += "}; /* " + points + " */\n";
                set_steady(target + ".count", std::to_string(played.count));
                set_steady(target + ".points", points);
                break;
            }
            default:
                set_steady(target + ".curve", std::to_string(played.curve));
                set_steady(target + ".end", std::to_string(played.end));
        }
    }

    std::string rule() const {
        const ArgumentSpec* spec = find_argument(kind_, "when_again");
        return spec == nullptr ? "LQ_START_AGAIN" : std::to_string(when_again_of(arguments_));
    }
    bool takes_over() const {
        return find_argument(kind_, "when_again") != nullptr && when_again_of(arguments_) == LQ_TAKE_OVER;
    }
    bool queues() const {
        return find_argument(kind_, "when_again") != nullptr && when_again_of(arguments_) == LQ_QUEUE;
    }
    int slots() const { return queues() ? most_waiting : 2; }

    void write_answer(const std::string& lines) {
        code_.functions += fmt::format(
            "static inline void {0}_answer_{1}(const {0}_state *s, double seconds, lq_answer *answer) {{\n{2}}}\n\n",
            prefix_, own_, lines);
    }

    // What all have that answer cues by runs: which are kept, hearing a cue, finding the run of a moment.
    struct RunParts {
        std::string type;                     // lq_strike
        std::vector<std::string_view> reads;  // arguments, in order
        std::string begin;                    // arguments of begin beyond the run, before the start
        std::string begin_after;              // and behind the readings
        std::string take_over;                // arguments of take_over between the runs; none if it cannot
        std::string lasts;                    // an expression over `run`
        std::string at;                       // arguments of at between run and seconds
        std::string at_after;                 // and behind seconds
        std::string before;                   // value before the first run
    };

    void write_runs(const RunParts& parts) {
        const std::string runs = field("run");
        const std::string count = field("count");
        add_field(parts.type, "run", std::to_string(slots()));
        add_field("int", "count");
        add_field("double", "over");
        add_field("int", "heard");
        std::string readings;
        for (std::size_t k = 0; k < parts.reads.size(); ++k)
            readings += fmt::format("    reads[{}] = {};\n", k, now(parts.reads[k]));
        std::string hear = fmt::format(
            "static inline void {0}_hear_{1}({0}_state *s, double seconds, const lq_cue *cue) {{\n", prefix_, own_);
        if (!readings.empty())
            hear += fmt::format("    double reads[{}];\n", std::max<std::size_t>(parts.reads.size(), 1));
        hear += fmt::format("    const double start = lq_run_start({}, seconds, {});\n", rule(), field("over"));
        hear += fmt::format("    const int slot = {} % {};\n", count, slots());
        hear += fmt::format("    {} += 1;\n    if (start == INFINITY) return;\n", field("heard"));
        if (queues()) {
            hear += fmt::format("    if ({0} >= {1} && {2}[({0} + 1) % {1}].start > seconds) return;\n", count, slots(),
                                runs);
        }
        hear += readings;
        const std::string run = "&" + runs + "[slot]";
        hear += fmt::format("    {}_begin({}{}, start, cue{}{});\n", parts.type, run, parts.begin,
                            readings.empty() ? "" : ", reads", parts.begin_after);
        if (takes_over() && !parts.take_over.empty()) {
            hear += fmt::format("    if ({} > 0) {}_take_over({}{}, &{}[1 - slot]);\n", count, parts.type, run,
                                parts.take_over == "-" ? "" : parts.take_over, runs);
        }
        hear += fmt::format("    {} = start + {};\n    {} += 1;\n}}\n\n", field("over"), parts.lasts, count);
        code_.functions += hear;
        code_.functions += fmt::format(
            "/* The run of a moment; below 0 before the first. */\n"
            "static inline int {0}_find_{1}(const {0}_state *s, double seconds) {{\n"
            "    for (int back = 1; back <= {2} && back <= {3}; ++back) {{\n"
            "        const int slot = ({3} - back) % {2};\n"
            "        if ({4}[slot].start <= seconds) return slot;\n    }}\n    return -1;\n}}\n\n",
            prefix_, own_, slots(), count, runs);
        write_answer(
            fmt::format("    const int slot = {}_find_{}(s, seconds);\n"
                        "    if (slot < 0) {{\n        lq_answer_rest(answer, {});\n        return;\n    }}\n"
                        "    {}_at(&{}[slot]{}, seconds{}, answer);\n",
                        prefix_, own_, parts.before, parts.type, runs, parts.at, parts.at_after));
        set_steady(field("over"), "-INFINITY");
        set_steady(count, "0");
        set_steady(field("heard"), "0");
    }

    // One without a cue begins at 0 s.
    void begin_at_once() {
        if (!response_.cue.empty()) return;
        steady("lq_cue_set(&cue, 1, 0, 0.5, 0.5, 0);");
        steady(fmt::format("{}_hear_{}(s, 0, &cue);", prefix_, own_));
    }

    // The integral of an argument: its track, kept up to date.
    void write_track(std::string_view name) {
        add_field("lq_track", "rate");
        steady(fmt::format("lq_track_start(&{}, {});", field("rate"), now(name)));
    }
    void change_track(std::string_view name) {
        if (is_formula(name))
            code_.changed += fmt::format("    lq_track_change(&{}, seconds, {});\n", field("rate"), now(name));
    }

    void write_hold() { write_answer("    (void)seconds;\n    lq_answer_rest(answer, " + now("value") + ");\n"); }

    void write_wave() {
        write_track("rate");
        change_track("rate");
        add_field("double", "phase");
        set_steady(field("phase"), now("phase"));
        const std::string shape = arguments_.word("shape");
        const char* number = shape == "triangle"        ? "LQ_WAVE_TRIANGLE"
                             : shape == "saw"           ? "LQ_WAVE_SAW"
                             : shape == "square"        ? "LQ_WAVE_SQUARE"
                             : shape == "absolute_sine" ? "LQ_WAVE_ABSOLUTE_SINE"
                                                        : "LQ_WAVE_SINE";
        const std::string low = now("low");
        const std::string high = now("high");
        write_answer(
            fmt::format("    const double turns = lq_track_integral(&{}, seconds) + {};\n"
                        "    lq_answer_rest(answer, lq_wave_value({}, turns, {}, {}));\n",
                        field("rate"), field("phase"), number, low, high));
    }

    void write_gate() {
        add_field("lq_gate_kind", "kind");
        add_field("lq_gate", "run");
        add_field("int", "between");
        const std::string kind = field("kind");
        set_steady(kind + ".ease_in", "lq_larger(" + now("ease_in") + ", 0)");
        set_steady(kind + ".ease_out", "lq_larger(" + now("ease_out") + ", 0)");
        put_easing(kind + ".easing", "easing");
        const std::string when = is_formula("when") ? now("when") : "0";
        const std::string open = fmt::format("({} != 0 || {} != 0 ? 1 : 0)", when, field("between"));
        steady(fmt::format("lq_gate_start(&{}, {});", field("run"), open));
        const std::string turn = fmt::format("    lq_gate_turn(&{}, &{}, seconds, {});\n", field("run"), kind, open);
        if (is_formula("when")) code_.changed += turn;
        if (!response_.cue.empty()) {
            const std::string shuts = arguments_.word("until");
            const auto function = [&](const char* name, const std::string& value) {
                code_.functions += fmt::format(
                    "static inline void {0}_{1}_{2}({0}_state *s, double seconds, const lq_cue *cue) {{\n"
                    "    (void)cue;\n    {3} = {4};\n{5}}}\n\n",
                    prefix_, name, own_, field("between"), value, turn);
            };
            // One cue for both opens and shuts by turns.
            function("hear", shuts == response_.cue ? field("between") + " != 0 ? 0 : 1" : "1");
            if (!shuts.empty() && shuts != response_.cue) {
                function("shut", "0");
                code_.shuts = shuts;
            }
        }
        const std::string off = now("off");
        const std::string on = now("on");
        write_answer(
            fmt::format("    const double open = lq_gate_open(&{}, &{}, seconds);\n"
                        "    lq_answer_rest(answer, lq_blend({}, {}, open));\n"
                        "    answer->presence = open;\n",
                        kind, field("run"), off, on));
    }

    void write_chase() {
        add_field("lq_chase_kind", "kind");
        add_field("lq_chase", "run");
        const std::string kind = field("kind");
        for (const char* name : {"in_low", "in_high", "out_low", "out_high"}) set_steady(kind + "." + name, now(name));
        set_steady(kind + ".exponential", arguments_.word("way") == "exponential" ? "1" : "0");
        const std::string signal = now("signal");
        const std::string rate = now("rate");
        const auto change = [&](const char* seconds) {
            return fmt::format("lq_chase_change(&{}, &{}, {}, {}, {});", field("run"), kind, seconds, signal, rate);
        };
        steady(change("0"));
        if (is_formula("signal") || is_formula("rate")) code_.changed += "    " + change("seconds") + "\n";
        write_answer(
            fmt::format("    lq_answer_rest(answer, lq_chase_value(&{}, &{}, seconds));\n", kind, field("run")));
    }

    void write_strike() {
        add_field("lq_strike_kind", "kind");
        const std::string kind = field("kind");
        set_steady(kind + ".rest", now("rest"));
        put_easing(kind + ".rise_easing", "rise_easing");
        put_easing(kind + ".fall_easing", "fall_easing");
        write_runs({.type = "lq_strike",
                    .reads = {"least", "most", "rise", "stay", "fall"},
                    .begin = ", &" + kind,
                    .begin_after = {},
                    .take_over = ", &" + kind,
                    .lasts = "lq_strike_lasts(&" + field("run") + "[slot])",
                    .at = ", &" + kind,
                    .at_after = {},
                    .before = kind + ".rest"});
    }

    void write_sweep() {
        add_field("lq_sweep_kind", "kind");
        add_field("double", "before");
        const std::string kind = field("kind");
        set_steady(kind + ".turns_back", arguments_.word("turn_back") == "yes" ? "1" : "0");
        put_easing(kind + ".easing", "easing");
        set_steady(field("before"), now("from"));
        write_runs({.type = "lq_sweep",
                    .reads = {"from", "to", "seconds", "delay", "repeat"},
                    .begin = {},
                    .begin_after = {},
                    .take_over = ", &" + kind,
                    .lasts = "lq_sweep_lasts(&" + kind + ", &" + field("run") + "[slot])",
                    .at = ", &" + kind,
                    .at_after = {},
                    .before = field("before")});
        begin_at_once();
    }

    void write_clock() {
        add_field("lq_clock_kind", "kind");
        const std::string kind = field("kind");
        set_steady(kind + ".again", arguments_.word("repeat") == "again" ? "1" : "0");
        set_steady(kind + ".in_runs", arguments_.word("counts") == "runs" ? "1" : "0");
        write_runs({.type = "lq_clock",
                    .reads = {"seconds"},
                    .begin = {},
                    .begin_after = {},
                    .take_over = {},
                    .lasts = "lq_clock_lasts(&" + kind + ", &" + field("run") + "[slot])",
                    .at = ", &" + kind,
                    .at_after = {},
                    .before = "0"});
        begin_at_once();
    }

    void write_path() {
        const std::vector<played::lq_key> keys = played_keys(arguments_.keys("keys"));
        const std::string table = prefix_ + "_keys_" + own_;
        code_.statics += fmt::format("static const lq_key {}[{}] = {{\n", table, std::max<std::size_t>(keys.size(), 1));
        for (const played::lq_key& key : keys) {
            code_.statics += fmt::format("    {{{}, {}, {}, {}, {}}},\n", code_number(key.at), code_number(key.value),
                                         code_number(key.before), code_number(key.after), key.stays);
        }
        if (keys.empty()) code_.statics += "    {0, 0, 0, 0, 0},\n";
        code_.statics += "}; /* " + table + " */\n";
        add_field("lq_path_kind", "kind");
        const std::string kind = field("kind");
        set_steady(kind + ".keys", table);
        set_steady(kind + ".count", std::to_string(keys.size()));
        set_steady(kind + ".times", "lq_larger(floor(" + now("repeat") + "), 0)");
        set_steady(kind + ".turns_back", arguments_.word("turn_back") == "yes" ? "1" : "0");
        write_runs({.type = "lq_path",
                    .reads = {},
                    .begin = {},
                    .begin_after = {},
                    .take_over = ", &" + kind,
                    .lasts = "lq_path_lasts(&" + kind + ")",
                    .at = ", &" + kind,
                    .at_after = {},
                    .before = "lq_path_plain(&" + kind + ", 0)"});
        begin_at_once();
    }

    void write_drift() {
        const std::string word = arguments_.word("beyond");
        const std::string beyond = word == "wrap" ? "LQ_WRAPS" : word == "stop" ? "LQ_STOPS" : "LQ_GOES_ON";
        const std::string speed = field("rate");
        write_track("speed");
        add_field("double", "before");
        set_steady(field("before"), now("start"));
        write_runs({.type = "lq_drift",
                    .reads = {"start", "low", "high"},
                    .begin = ", " + beyond,
                    .begin_after = ", lq_track_integral(&" + speed + ", start)",
                    .take_over = {},
                    .lasts = "INFINITY",
                    .at = ", " + beyond,
                    .at_after = ", lq_track_integral(&" + speed + ", seconds)",
                    .before = field("before")});
        if (is_formula("speed")) {
            code_.changed += fmt::format(
                "    if ({0} > 0) lq_drift_change(&{1}[({0} - 1) % {2}], {3}, lq_track_integral(&{4}, seconds));\n",
                field("count"), field("run"), slots(), beyond, speed);
        }
        change_track("speed");
        begin_at_once();
    }

    void write_jolt() {
        add_field("lq_jolt_kind", "kind");
        const std::string kind = field("kind");
        set_steady(kind + ".linear", arguments_.word("decay_form") == "linear" ? "1" : "0");
        set_steady(kind + ".along", arguments_.word("way") == "along_the_blow" ? "1" : "0");
        set_steady(kind + ".each_new", arguments_.word("each_time") == "new" ? "1" : "0");
        set_steady(kind + ".seed", "lq_word(trunc(" + now("seed") + "))");
        const std::string rate = field("rate");
        write_track("rate");
        write_runs({.type = "lq_jolt",
                    .reads = {"reach", "turn", "zoom", "seconds", "decay"},
                    .begin = ", &" + kind,
                    .begin_after = ", lq_word(" + field("heard") + " - 1), lq_track_integral(&" + rate + ", start)",
                    .take_over = ", &" + kind,
                    .lasts = field("run") + "[slot].seconds",
                    .at = ", &" + kind,
                    .at_after = ", lq_track_integral(&" + rate + ", seconds)",
                    .before = "0"});
        change_track("rate");
        // Those that still wait will begin elsewhere along the noise.
        if (is_formula("rate") && queues()) {
            code_.changed += fmt::format(
                "    for (int slot = 0; slot < {0} && slot < {1}; ++slot) {{\n"
                "        if ({2}[slot].start > seconds) {2}[slot].travelled = lq_track_integral(&{3}, "
                "{2}[slot].start);\n"
                "    }}\n",
                slots(), field("count"), field("run"), rate);
        }
        begin_at_once();
    }

    const Response& response_;
    const ResponseKind& kind_;
    const CheckedResponse& checked_;
    const std::string& prefix_;
    const std::string& own_;
    const CodeName& name_of_;
    Tape no_tape_;
    FormulaSource no_formulas_;
    Arguments arguments_;
    std::set<std::string> read_;
    std::optional<Fault> fault_;
    ResponseCode code_;
};

}  // namespace

Result<ResponseCode> response_code(const Response& response, const CheckedResponse& checked, const std::string& prefix,
                                   const std::string& own, const CodeName& name_of) {
    return ResponseWriter(response, checked, prefix, own, name_of).run();
}

}  // namespace lacquer
