#include "core/finish/play.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/finish/ground_pictures.h"
#include "core/finish/stops_table.h"
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

std::vector<std::pair<std::string, Type>> droplets_names(const std::string& ground) {
    return {{ground + ".count", Type::number}, {ground + ".steady", Type::number}};
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
    : checked_(std::move(checked)), held_(std::move(held)), settings_(std::make_shared<Settings>()), tape_(tape) {
    add_settings(tape);
    for (const Change& change : tape.changes) {
        if (moments_.empty() || change.at > moments_.back()) moments_.push_back(change.at);
    }
    const Finish& finish = *checked_->finish;
    for (std::size_t i = 0; i < finish.responses.size(); ++i)
        answerers_.push_back(make_answerer(finish.responses[i], tape, formulas_by(checked_->responses[i].formulas)));
    find_counted();
}

// To count drops takes time, so that it is done only for whoever asks.
void Play::find_counted() {
    for (const CheckedDroplets& drops : checked_->droplets) {
        const auto reads = [&](const Typed& typed) {
            const std::vector<std::string> names = names_used(typed);
            return std::any_of(names.begin(), names.end(),
                               [&](const std::string& name) { return name.starts_with(drops.name + "."); });
        };
        const bool by_a_step =
            std::any_of(checked_->steps.begin(), checked_->steps.end(),
                        [&](const CheckedStep& step) { return step.typed != nullptr && reads(*step.typed); });
        const bool by_a_dial =
            std::any_of(checked_->dials.begin(), checked_->dials.end(),
                        [&](const CheckedDial& dial) { return dial.formula && reads(*dial.formula); });
        if ((by_a_step || by_a_dial) && emitter(drops.name) != nullptr) counted_.push_back(drops.name);
    }
}

double Play::drop_count(std::string_view ground, double time) const {
    const Emitter* live = emitter(ground);
    const Finish& finish = *checked_->finish;
    return live != nullptr ? static_cast<double>(live->count(time, finish.frame_width, finish.frame_height)) : 0;
}

// What it gives holds on to the finish, as the formulas stand there.
FormulaSource Play::formulas_by(const std::map<std::string, Typed, std::less<>>& typed) const {
    FormulaSource formulas;
    formulas.moments = moments_;
    formulas.value = [finish_checked = checked_, &typed, settings = settings_](const std::string& argument, double at) {
        const auto found = typed.find(argument);
        if (found == typed.end()) return std::numeric_limits<double>::quiet_NaN();
        OracleInputs inputs;
        inputs.name = [&](const std::string& name, Type type, int, int) {
            const auto setting = settings->find(name);
            return setting != settings->end() ? setting->second.value(at) : Value{type, {}, {}};
        };
        return number_of(evaluate(found->second, inputs));
    };
    formulas.stands_still = [&typed, settings = settings_](const std::string& argument) {
        const auto found = typed.find(argument);
        if (found == typed.end()) return true;
        const std::vector<std::string> names = names_used(found->second);
        return std::all_of(names.begin(), names.end(), [&](const std::string& name) {
            const auto setting = settings->find(name);
            return setting == settings->end() || setting->second.at.empty();
        });
    };
    return formulas;
}

std::unique_ptr<Emitter> Play::make_emitter(const Ground& ground, const CheckedDroplets& checked) const {
    const Finish& finish = *checked_->finish;
    const Droplets& drops = ground.as<DropletsGround>()->drops;
    DropPlay play{tape_, formulas_by(checked.formulas), {}};
    if (const Signal* place = find_signal(finish, drops.ends_near); place != nullptr) {
        // Held to the frame, as the signal itself is.
        const auto add = [&](double at, const std::array<double, 3>& raw) {
            const std::array<double, 3> value = signal_value(*place, raw);
            play.path.push_back({at, value[0], value[1]});
        };
        add(0, place->value);
        for (const Change& change : tape_.changes) {
            if (change.name == place->name) add(change.at, change.value);
        }
    }
    DropCurves curves;
    const auto heights = [&](const std::string& name, std::vector<float>& values) {
        const Ground* curve = name.empty() ? nullptr : find_ground(finish, name);
        const Stops* stops = curve != nullptr && curve->as<CurveGround>() != nullptr ? stops_of(*curve) : nullptr;
        if (stops == nullptr) return;
        const Picture table = stops_table(*stops);
        for (int x = 0; x < table.width; ++x) values.push_back(table.at(x, 0)[0]);
    };
    heights(drops.size_curve, curves.size);
    heights(drops.opacity_curve, curves.opacity);
    heights(drops.ending_curve, curves.ending);
    const Ground* gradient = drops.tint.empty() ? nullptr : find_ground(finish, drops.tint);
    if (gradient != nullptr && gradient->as<GradientGround>() != nullptr) {
        const Picture table = stops_table(*stops_of(*gradient));
        for (int x = 0; x < table.width; ++x) {
            const float* colour = table.at(x, 0);
            curves.tint.push_back({colour[0], colour[1], colour[2], colour[3]});
        }
    }
    return std::make_unique<Emitter>(drops, play, std::move(curves));
}

const Emitter* Play::emitter(std::string_view name) const {
    if (const auto known = emitters_.find(name); known != emitters_.end()) return known->second.get();
    const Ground* ground = find_ground(*checked_->finish, name);
    const auto checked = std::find_if(checked_->droplets.begin(), checked_->droplets.end(),
                                      [&](const CheckedDroplets& each) { return each.name == name; });
    if (ground == nullptr || ground->as<DropletsGround>() == nullptr || checked == checked_->droplets.end())
        return nullptr;
    return (emitters_[std::string(name)] = make_emitter(*ground, *checked)).get();
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
    for (const std::string& name : counted_) {
        values[name + ".count"] = make_number(static_cast<float>(drop_count(name, time)));
        values[name + ".steady"] = make_number(static_cast<float>(emitter(name)->steady(time)));
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
