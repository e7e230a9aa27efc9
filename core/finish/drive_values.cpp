#include "core/finish/drive_values.h"

#include <cmath>

#include "core/lang/oracle.h"

namespace lacquer {

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

DriveValues drive_values(const CheckedFinish& checked, const Moment& moment, const HeldDials& held) {
    const Finish& finish = *checked.finish;
    DriveValues values;
    for (const Response& response : finish.responses) {
        values[response.name] = make_number(static_cast<float>(response_value(response, moment)));
        values[response.name + ".presence"] = make_number(static_cast<float>(response_presence(response, moment)));
    }
    OracleInputs inputs;
    inputs.name = [&](const Typed& symbol, int, int) {
        if (symbol.name == "time") return make_number(static_cast<float>(moment.time));
        const auto found = values.find(symbol.name);
        return found != values.end() ? found->second : Value{symbol.type, {}, {}};
    };
    for (const std::size_t i : checked.dial_order) {
        const Dial& dial = finish.dials[i];
        const auto hand = held.find(dial.name);
        if (hand != held.end()) {
            values[dial.name] = dial_value(dial.kind, hand->second);
        } else if (checked.dials[i].formula) {
            Value value = evaluate(*checked.dials[i].formula, inputs);
            if (dial.kind == DialKind::integer) value.parts[0] = std::round(value.parts[0]);
            values[dial.name] = value;
        } else {
            values[dial.name] = dial_value(dial.kind, dial.value);
        }
    }
    return values;
}

}  // namespace lacquer
