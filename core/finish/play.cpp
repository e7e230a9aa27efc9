#include "core/finish/play.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/lang/oracle.h"

namespace lacquer {

namespace {

Value value_of(const Signal& signal, const std::array<double, 3>& raw) {
    const std::array<double, 3> value = signal_value(signal, raw);
    switch (signal.kind) {
        case SignalKind::toggle:
            return make_boolean(value[0] != 0);
        case SignalKind::place:
            return make_vec2(static_cast<float>(value[0]), static_cast<float>(value[1]));
        case SignalKind::number:
        case SignalKind::integer:
            break;
    }
    return make_number(static_cast<float>(value[0]));
}

bool has_range(const Signal& signal) { return signal.kind == SignalKind::number || signal.kind == SignalKind::integer; }

// All numbers become one; a yes is 1.
double number_of(const Value& value) {
    return scalar_of(value.type) == Scalar::real ? static_cast<double>(value.parts[0])
                                                 : static_cast<double>(value.wholes[0]);
}

Value value_of(const std::array<double, 2>& numbers, int width) {
    const auto x = static_cast<float>(numbers[0]);
    return width == 2 ? make_vec2(x, static_cast<float>(numbers[1])) : make_number(x);
}

}  // namespace

Value dial_value(DialKind kind, const DialValue& setting) {
    switch (kind) {
        case DialKind::integer:
            return make_number(static_cast<float>(std::round(setting[0])));
        case DialKind::toggle:
            return make_boolean(setting[0] != 0);
        case DialKind::colour:
            return make_vec3(static_cast<float>(setting[0]), static_cast<float>(setting[1]),
                             static_cast<float>(setting[2]));
        case DialKind::number:
            break;
    }
    return make_number(static_cast<float>(setting[0]));
}

DialValue setting_from(const Value& value) {
    if (!is_float(value.type)) return {static_cast<double>(value.wholes[0]), 0, 0};
    return {static_cast<double>(value.parts[0]), static_cast<double>(value.parts[1]),
            static_cast<double>(value.parts[2])};
}

Type signal_type(SignalKind kind) {
    if (kind == SignalKind::toggle) return Type::boolean;
    return kind == SignalKind::place ? Type::vec2 : Type::number;
}

std::vector<std::pair<std::string, Type>> signal_names(const Signal& signal) {
    std::vector<std::pair<std::string, Type>> names = {{signal.name, signal_type(signal.kind)}};
    if (!has_range(signal)) return names;
    for (const char* part : {".share", ".most", ".least"}) names.emplace_back(signal.name + part, Type::number);
    return names;
}

std::vector<std::pair<std::string, Type>> response_names(const Response& response) {
    const ResponseKind* kind = find_response_kind(response.kind);
    std::vector<std::pair<std::string, Type>> names = {{response.name, float_type(kind == nullptr ? 1 : kind->width)}};
    if (kind == nullptr) return names;
    for (const OutputSpec& output : response_outputs()) {
        if (kind->has(output.name))
            names.emplace_back(response.name + "." + std::string(output.name), float_type(output.width));
    }
    return names;
}

const Value& Play::Setting::value(double time) const {
    const auto next = std::upper_bound(at.begin(), at.end(), time);
    return values[static_cast<std::size_t>(next - at.begin())];
}

Play::Play(std::shared_ptr<const CheckedFinish> checked, const Tape& tape, HeldDials held)
    : checked_(std::move(checked)), held_(std::move(held)), settings_(std::make_shared<Settings>()) {
    add_settings(tape);
    std::vector<double> moments;
    for (const Change& change : tape.changes) {
        if (moments.empty() || change.at > moments.back()) moments.push_back(change.at);
    }
    const Finish& finish = *checked_->finish;
    for (std::size_t i = 0; i < finish.responses.size(); ++i) {
        FormulaSource formulas;
        formulas.moments = moments;
        formulas.value = [finish_checked = checked_, i, settings = settings_](const std::string& argument, double at) {
            const auto& typed = finish_checked->responses[i].formulas;
            const auto found = typed.find(argument);
            if (found == typed.end()) return std::numeric_limits<double>::quiet_NaN();
            OracleInputs inputs;
            inputs.name = [&](const std::string& name, Type type, int, int) {
                const auto setting = settings->find(name);
                return setting != settings->end() ? setting->second.value(at) : Value{type, {}, {}};
            };
            return number_of(evaluate(found->second, inputs));
        };
        formulas.stands_still = [&](const std::string& argument) {
            const auto& typed = checked_->responses[i].formulas;
            const auto found = typed.find(argument);
            if (found == typed.end()) return true;
            const std::vector<std::string> names = names_used(found->second);
            return std::all_of(names.begin(), names.end(), [&](const std::string& name) {
                const auto setting = settings_->find(name);
                return setting == settings_->end() || setting->second.at.empty();
            });
        };
        answerers_.push_back(make_answerer(finish.responses[i], tape, formulas));
    }
}

void Play::add_settings(const Tape& tape) {
    const Finish& finish = *checked_->finish;
    Settings& settings = *settings_;
    for (const Signal& signal : finish.signals) {
        for (const auto& [name, type] : signal_names(signal)) settings[name].type = type;
        settings[signal.name].values.push_back(value_of(signal, signal.value));
        if (!has_range(signal)) continue;
        settings[signal.name + ".most"].values.push_back(make_number(static_cast<float>(signal.most)));
        settings[signal.name + ".least"].values.push_back(make_number(static_cast<float>(signal.least)));
    }
    for (const Dial& dial : finish.dials) {
        if (!dial.formula.empty()) continue;
        const auto hand = held_.find(dial.name);
        settings[dial.name] = {
            dial_type(dial.kind), {}, {dial_value(dial.kind, hand != held_.end() ? hand->second : dial.value)}};
    }
    for (const Change& change : tape.changes) {
        const auto found = settings.find(change.name);
        if (found == settings.end() || held_.contains(change.name)) continue;
        Setting& setting = found->second;
        const Signal* signal = find_signal(finish, change.name);
        const Dial* dial = find_dial(finish, change.name);
        if (signal == nullptr && dial == nullptr) continue;
        setting.at.push_back(change.at);
        setting.values.push_back(signal != nullptr ? value_of(*signal, change.value)
                                                   : dial_value(dial->kind, change.value));
    }
    for (const Signal& signal : finish.signals) {
        if (!has_range(signal)) continue;
        // In double precision first: 90 of 100 is 0.9 to the last bit of a float.
        const Setting& whole = settings[signal.name];
        Setting& share = settings[signal.name + ".share"];
        share.at = whole.at;
        for (const Value& value : whole.values) {
            const double part = (static_cast<double>(value.parts[0]) - signal.least) / (signal.most - signal.least);
            share.values.push_back(make_number(static_cast<float>(part)));
        }
    }
}

DriveValues Play::values(double time) const {
    const Finish& finish = *checked_->finish;
    DriveValues values;
    for (const auto& [name, setting] : *settings_) values[name] = setting.value(time);
    for (std::size_t i = 0; i < finish.responses.size(); ++i) {
        const Response& response = finish.responses[i];
        const ResponseKind* kind = find_response_kind(response.kind);
        const Answer answer = answerers_[i](time);
        values[response.name] = value_of(answer.value, kind == nullptr ? 1 : kind->width);
        if (kind == nullptr) continue;
        for (const OutputSpec& output : response_outputs()) {
            if (kind->has(output.name))
                values[response.name + "." + std::string(output.name)] = value_of(output.of(answer), output.width);
        }
    }
    OracleInputs inputs;
    inputs.name = [&](const std::string& name, Type type, int, int) {
        if (name == "time") return make_number(static_cast<float>(time));
        const auto found = values.find(name);
        return found != values.end() ? found->second : Value{type, {}, {}};
    };
    for (const std::size_t i : checked_->dial_order) {
        const Dial& dial = finish.dials[i];
        if (dial.formula.empty()) continue;
        const auto hand = held_.find(dial.name);
        if (hand != held_.end()) {
            values[dial.name] = dial_value(dial.kind, hand->second);
        } else if (checked_->dials[i].formula) {
            Value value = evaluate(*checked_->dials[i].formula, inputs);
            if (dial.kind == DialKind::integer) value.parts[0] = std::round(value.parts[0]);
            values[dial.name] = value;
        } else {
            values[dial.name] = dial_value(dial.kind, dial.value);
        }
    }
    return values;
}

Answer Play::answer(std::string_view response, double time) const {
    const std::vector<Response>& responses = checked_->finish->responses;
    for (std::size_t i = 0; i < responses.size(); ++i) {
        if (responses[i].name == response) return answerers_[i](time);
    }
    return {};
}

DriveValues drive_values(const CheckedFinish& checked, double time, const Tape& tape, const HeldDials& held) {
    // Not kept beyond this call, so nothing need be owned.
    const std::shared_ptr<const CheckedFinish> here(std::shared_ptr<const CheckedFinish>(), &checked);
    return Play(here, tape, held).values(time);
}

}  // namespace lacquer
