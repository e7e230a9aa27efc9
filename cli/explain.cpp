// lacquer-cli explain FILE: what every stage on the way from text to pixels makes of a finish.
#include <fmt/core.h>

#include <CLI/CLI.hpp>

#include "cli/played.h"
#include "cli/verbs.h"
#include "core/cpu/cost.h"
#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/gpu/glsl.h"
#include "core/render/renderer.h"

namespace lacquer::cli {

namespace {

void print_adaptations(const Typed& typed, const std::string& formula) {
    for (const AdaptationMark& mark : adaptations(typed)) {
        const std::string words = formula.substr(mark.span.begin, mark.span.end - mark.span.begin);
        const char* how = mark.adaptation == Adaptation::filled            ? "fills all parts"
                          : mark.adaptation == Adaptation::opacity_dropped ? "drops its opacity"
                                                                           : "gets opacity 1";
        fmt::print("      {} {}\n", words, how);
    }
}

void print_steps(const CheckedFinish& checked) {
    fmt::print("steps\n");
    for_each_step(*checked.finish, [&](const Coat& coat, const Step& step) {
        const CheckedStep* known = find_step(checked, step.name);
        fmt::print("  {} / {}{}\n    {}\n", coat.name, step.name, known->on ? "" : " (off)", step.formula);
        for (const Fault& note : known->notes) fmt::print("    note: {}\n", note.message);
        if (known->fault) fmt::print("    fault {}: {}\n", known->fault->id, to_text(*known->fault));
        if (!known->typed) return;
        fmt::print("    {} = {}\n", glsl_name(known->typed->type), to_text(*known->typed));
        if (known->on) print_adaptations(*known->typed, step.formula);
    });
}

void print_dials(const CheckedFinish& checked) {
    for (std::size_t i = 0; i < checked.dials.size(); ++i) {
        const CheckedDial& dial = checked.dials[i];
        if (dial.formula) fmt::print("dial {} = {}\n", dial.name, to_text(*dial.formula));
    }
}

struct ExplainOptions {
    FinishOptions finish;
    std::string step;
};

Result<Outcome> explain(const ExplainOptions& options) {
    Faults notices;
    const Result<PlayedFinish> played = played_finish(options.finish, notices);
    if (!played) return played.fault();
    for (const Fault& notice : notices) tell(notice);
    const CheckedFinish& checked = *played->checked;
    for (const Fault& fault : checked.faults) fmt::print("fault {}: {}\n", fault.id, to_text(fault));
    print_dials(checked);
    print_steps(checked);
    const Plan plan = plan_for(checked, {options.step});
    fmt::print("\nplan\n{}", to_text(plan));
    for (const Pass& pass : plan.passes) {
        const Ir lowered = lower(pass);
        const Ir folded = fold_constants(lowered);
        const Ir shared = share_common(folded);
        const Ir hoisted = hoist_from_loops(shared);
        const Ir kept = drop_unused(hoisted);
        const Ir rated = with_rates(kept);
        const Ir certain = drop_certain_choices(rated);
        const Ir fused = fuse(certain);
        fmt::print("\npass {}: lowered\n{}", pass.name, to_text(lowered));
        fmt::print("\npass {}: constants folded\n{}", pass.name, to_text(folded));
        fmt::print("\npass {}: common parts shared\n{}", pass.name, to_text(shared));
        fmt::print("\npass {}: what stays the same taken out of loops\n{}", pass.name, to_text(hoisted));
        fmt::print("\npass {}: unused dropped\n{}", pass.name, to_text(kept));
        fmt::print("\npass {}: how often each can change\n{}", pass.name, to_text(rated));
        fmt::print("\npass {}: certain choices dropped\n{}", pass.name, to_text(certain));
        fmt::print("\npass {}: products and sums put together\n{}", pass.name, to_text(fused));
        const Ir split = split_noise(fused);
        fmt::print("\npass {}: noise taken apart\n{}", pass.name, to_text(split));
        const bool stored = &pass != &plan.passes.back();
        double stored_bytes = 0;
        for (const std::string& name : pass.outputs) stored_bytes += 4.0 * resource_of(pass, name).channels;
        const double pixels = static_cast<double>(scaled_side(played->finish().frame_width, pass.scale)) *
                              scaled_side(played->finish().frame_height, pass.scale);
        fmt::print("\npass {}: cost\n{}{}\n", pass.name, to_text(cost_of(split)),
                   stored ? fmt::format(", stores {:.1f} MB", pixels * stored_bytes / 1e6) : "");
        fmt::print("\npass {}: strips\n{}", pass.name, to_text(lay_out(split, best_kernels())));
        fmt::print("\npass {}: shader\n{}", pass.name, emit_glsl(pass, Dialect::es_300).text);
    }
    return Outcome::done;
}

}  // namespace

Run offer_explain(CLI::App& options) {
    const auto chosen = std::make_shared<ExplainOptions>();
    add_finish(options, chosen->finish);
    options.add_option("--step", chosen->step, "the step to explain, else the finished picture");
    return [chosen] { return explain(*chosen); };
}

}  // namespace lacquer::cli
