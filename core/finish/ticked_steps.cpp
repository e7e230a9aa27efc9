#include "core/finish/ticked_steps.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

#include "core/lang/expression_checker.h"
#include "core/lang/past.h"
#include "core/picture/picture.h"

namespace lacquer {

namespace {

Fault past_fault(const std::string& step, std::string message, std::string mend) {
    return {"finish.past", std::move(message), std::move(mend), {step, {}, 0, 0}, Severity::fault};
}

TickedStep ticked(const Finish& finish, const Step& step, const Typed& typed) {
    const Ticking& ticking = step.ticking;
    double scale = ticking.pixels > 0 ? static_cast<double>(ticking.pixels) / finish.frame_width : ticking.share;
    // A width in pixels may ask for more than can be drawn in a high frame.
    while (scale > 1 &&
           !is_drawable_size(std::llround(finish.frame_width * scale), std::llround(finish.frame_height * scale)))
        scale = std::max(1.0, scale / 2);
    TickedStep made{step.name, typed.type, scale, ticking.half, !ticking.starts.empty(), nullptr, {}};
    const Type stored = float_type(width_of(typed.type));
    Typed now{NameHere{present_picture(step.name), SymbolKind::ground}, stored, typed.span};
    if (stored != typed.type) {
        Typed whole{Conversion(), typed.type, typed.span};
        whole.args.push_back(std::move(now));
        now = std::move(whole);
    } else if (ticking.smooth) {
        Scope both = step_scope();
        both.symbols["now"] = {SymbolKind::ground, stored, present_picture(step.name)};
        both.symbols["before"] = {SymbolKind::ground, stored, past_picture(step.name)};
        if (Result<Typed> blend = compile_formula("mix(before, now, tick_part)", both)) now = std::move(*blend);
    }
    made.shown_hash = hash_of(now);
    made.shown = std::make_shared<const Typed>(std::move(now));
    return made;
}

}  // namespace

void add_past(const Step& step, Scope& scope) {
    if (step.ticking.width > 0) {
        scope.past[step.name] = float_type(step.ticking.width);
        return;
    }
    scope.no_past[step.name] = past_fault(step.name, "it isn't said how many numbers '" + step.name + "' has",
                                          "write '" + step.name + ": 4' as its name, or another number");
}

Result<Typed> as_declared(Typed typed, const Step& step) {
    const Type declared = float_type(step.ticking.width);
    if (fits(typed, declared)) return fitted(std::move(typed), declared);
    return past_fault(
        step.name, "'" + step.name + "' is to have " + said(declared) + ", and its formula gives " + said(typed.type),
        "say another number after its name, or change the formula");
}

Result<std::vector<UnnamedStep>> start_of(const Step& step, const Scope& scope, Type type) {
    Scope before = scope;
    before.past.clear();
    std::vector<UnnamedStep> stored;
    before.unnamed = &stored;
    before.unnamed_stem = start_picture(step.name);
    Result<Typed> typed = compile_step(step.ticking.starts, before);
    if (typed && !fits(*typed, type))
        typed = ExpressionChecker(before, step.ticking.starts).does_not_fit(*typed, type, "'" + step.name + "'");
    if (!typed) {
        // Its places are in another text than the step's.
        Fault fault = typed.fault();
        fault.message = "what it starts as: " + fault.message;
        fault.place.span = {};
        return fault;
    }
    stored.push_back({start_picture(step.name), fitted(std::move(*typed), type)});
    return stored;
}

std::vector<TickedStep> ticked_steps(const CheckedFinish& checked) {
    std::vector<TickedStep> steps;
    const auto may_use = [](const StepSource& source) { return source.formula.find("previous") != std::string::npos; };
    if (std::none_of(checked.sources.begin(), checked.sources.end(), may_use)) return steps;
    std::set<std::string, std::less<>> named;
    std::map<std::string, std::string, std::less<>> uses;  // of each that uses it, the first step that it names
    for (const StepSource& source : checked.sources) {
        const auto look = [&](const Typed& node) {
            const std::string* name = name_of(node);
            const auto step = name != nullptr ? step_of_tick_picture(*name) : std::nullopt;
            if (!step) return;
            named.emplace(*step);
            uses.try_emplace(source.name, *step);
        };
        for (std::size_t i = source.first; i < source.first + source.count; ++i) {
            if (checked.steps[i].typed) visit_nodes(*checked.steps[i].typed, look);
        }
    }
    std::size_t at = 0;
    for_each_step(*checked.finish, [&](const Coat&, const Step& step) {
        const StepSource& source = checked.sources[at++];
        const CheckedStep& own = checked.steps[source.first + source.count - 1];
        const bool is_ticked = named.contains(step.name) || uses.contains(step.name);
        if (is_ticked && own.typed) steps.push_back(ticked(*checked.finish, step, *own.typed));
    });
    // What only uses it is drawn at the size of what it uses, unless it has one of its own.
    for (TickedStep& step : steps) {
        if (named.contains(step.name) || step.scale != 1) continue;
        const std::string& loop = uses.at(step.name);
        const auto of = std::find_if(steps.begin(), steps.end(), [&](const TickedStep& s) { return s.name == loop; });
        if (of != steps.end()) step.scale = of->scale;
    }
    return steps;
}

const TickedStep* find_ticked(const CheckedFinish& checked, std::string_view name) {
    for (const TickedStep& step : checked.ticked) {
        if (step.name == name) return &step;
    }
    return nullptr;
}

}  // namespace lacquer
