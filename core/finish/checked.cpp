#include "core/finish/checked.h"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_map>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/operation_steps.h"
#include "core/finish/play.h"
#include "core/finish/ticked_steps.h"
#include "core/lang/known_names.h"
#include "core/lang/structural_hash.h"
#include "core/shader/compile.h"

namespace lacquer {

namespace {

Fault finish_fault(const char* id, const std::string& where, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {where, {}, 0, 0}, Severity::fault};
}

void add_signals(const Finish& finish, Scope& scope) {
    for (const Signal& signal : finish.signals) {
        for (const auto& [name, type] : signal_names(signal)) scope.symbols[name] = {SymbolKind::response, type};
    }
}

// What the formula of a response's argument may use: signals, and dials that stand still. So it stays in between the
// moments at which play sets something, and can be integrated exactly.
Scope argument_scope(const Finish& finish) {
    Scope scope;
    scope.no_neighbours = "a response's argument is one number for the whole picture";
    add_signals(finish, scope);
    for (const Dial& dial : finish.dials) {
        if (dial.formula.empty()) {
            scope.symbols[dial.name] = {SymbolKind::dial, dial_type(dial.kind)};
        } else {
            scope.out_of_reach[dial.name] =
                "'" + dial.name + "' is driven, and a response's argument reads signals and dials that stand still";
        }
    }
    for (const Response& response : finish.responses) {
        scope.out_of_reach[response.name] =
            "'" + response.name + "' moves, and a response's argument reads signals and dials that stand still";
    }
    scope.out_of_reach["time"] = "time runs on, and a response's argument reads signals and dials that stand still";
    return scope;
}

// Everything that a dial's formula may use: responses, signals, dials and time.
Scope dial_scope(const Finish& finish) {
    Scope scope;
    scope.no_neighbours = "a dial has one value for the whole picture";
    for (const KnownName& known : known_names()) {
        if (known.domain == KnownDomain::moment)
            scope.symbols[std::string(known.name)] = {SymbolKind::known, known.type};
    }
    for (const Response& response : finish.responses) {
        for (const auto& [name, type] : response_names(response)) scope.symbols[name] = {SymbolKind::response, type};
    }
    add_signals(finish, scope);
    for (const Ground& ground : finish.grounds) {
        if (ground.as<DropletsGround>() == nullptr) continue;
        for (const auto& [name, type] : droplets_names(ground.name)) scope.symbols[name] = {SymbolKind::response, type};
    }
    for (const Dial& dial : finish.dials) scope.symbols[dial.name] = {SymbolKind::dial, dial_type(dial.kind)};
    return scope;
}

class NameCheck {
public:
    explicit NameCheck(Faults& faults) : faults_(faults) {}

    void add(const std::string& name, const std::string& what) {
        if (!is_identifier(name)) {
            faults_.push_back(finish_fault("finish.name", name, "'" + name + "' cannot be the name of a " + what,
                                           "use up to 24 lower-case letters, digits and underscores"));
        } else if (is_builtin_name(name) || find_known(name) != nullptr) {
            faults_.push_back(finish_fault("finish.name", name, "'" + name + "' is a word of the language",
                                           "give the " + what + " another name"));
        } else if (const auto [place, fresh] = taken_.try_emplace(name, what); !fresh) {
            faults_.push_back(finish_fault("finish.duplicate", name,
                                           "a " + place->second + " is called '" + name + "' already",
                                           "give one of them another name"));
        }
    }

private:
    Faults& faults_;
    std::map<std::string, std::string> taken_;
};

void add_symbols(const Ground& ground, Scope& scope) {
    if (const auto values = stop_values(ground))
        scope.symbols[ground.name] = {SymbolKind::gradient, *values == StopValues::colours ? Type::vec4 : Type::number};
    for (const GroundPicture& picture : ground_pictures(ground))
        scope.symbols[picture.name] = {SymbolKind::ground, picture.type};
}

// The first in the tree, of the wanted type, that names a step or ground, here or at another place: what a step that is
// off passes on.
const Typed* first_source(const Typed& typed, Type wanted) {
    const Typed* source = nullptr;
    const auto look = [&](const Typed& node) {
        const auto* reading = node.as<PictureReading>();
        const SymbolKind symbol = symbol_of(node);
        const bool names = (symbol == SymbolKind::step || symbol == SymbolKind::ground) &&
                           (reading == nullptr || reading->builtin != Builtin::texture_size);
        if (source == nullptr && names && node.type == wanted) source = &node;
    };
    visit_nodes(typed, look);
    return source;
}

Typed zero_of(Type type) {
    if (width_of(type) == 1) return {Literal(), type};
    Typed filled{Construction(), type};
    filled.args.push_back({});
    return filled;
}

Typed value_here(SymbolKind kind, Type type, const std::string& name, Span span) {
    return {NameHere{name, kind}, type, span};
}

// `handed` are the pictures that an operation was handed, in order.
Typed passed_on(const Typed& typed, const std::vector<Symbol>& handed) {
    for (const Symbol& picture : handed) {
        if (picture.type == typed.type) return value_here(picture.kind, picture.type, picture.actual, typed.span);
    }
    if (const Typed* source = first_source(typed, typed.type))
        return value_here(symbol_of(*source), source->type, *name_of(*source), source->span);
    return zero_of(typed.type);
}

class FinishCheck {
public:
    FinishCheck(std::shared_ptr<const Finish> finish, std::shared_ptr<const Catalogue> catalogue,
                const CheckedFinish* before)
        : catalogue_(*catalogue) {
        made_.finish = std::move(finish);
        if (before == nullptr || before->catalogue != catalogue) before = nullptr;
        before_ = before;
        made_.catalogue = std::move(catalogue);
        if (before_ == nullptr) return;
        for (const StepSource& source : before_->sources) known_[source.name] = &source;
    }

    CheckedFinish run() {
        names();
        responses();
        droplets();
        dials();
        steps();
        made_.ticked = ticked_steps(made_);
        return std::move(made_);
    }

private:
    const Finish& finish() const { return *made_.finish; }

    void names() {
        NameCheck check(made_.faults);
        for (const Ground& ground : finish().grounds) {
            check.add(ground.name, "ground");
            for (const GroundPicture& picture : ground_pictures(ground)) {
                if (picture.name != ground.name) check.add(picture.name, "layer of " + ground.name);
            }
        }
        for (const Signal& signal : finish().signals) check.add(signal.name, "signal");
        for (const Response& response : finish().responses) check.add(response.name, "response");
        for (const Dial& dial : finish().dials) check.add(dial.name, "dial");
        for_each_step(finish(), [&](const Coat&, const Step& step) { check.add(step.name, "step"); });
    }

    void responses() {
        const Scope scope = argument_scope(finish());
        for (const Response& response : finish().responses) {
            CheckedResponse& checked = made_.responses.emplace_back();
            for (Fault& fault : check_response(response)) made_.faults.push_back(std::move(fault));
            check_cue(response.name, response.cue);
            const ResponseKind* kind = find_response_kind(response.kind);
            for (const auto& [name, setting] : response.settings) {
                const std::string* text = std::get_if<std::string>(&setting);
                const ArgumentSpec* spec = kind == nullptr ? nullptr : find_argument(*kind, name);
                if (text == nullptr || spec == nullptr) continue;
                if (spec->kind == ArgumentKind::cue) check_cue(response.name, *text);
                if (spec->kind == ArgumentKind::number || spec->kind == ArgumentKind::condition)
                    check_argument(response, *spec, *text, scope, checked);
            }
        }
    }

    void check_argument(const Response& response, const ArgumentSpec& spec, const std::string& text, const Scope& scope,
                        CheckedResponse& checked) {
        const Type wanted = spec.kind == ArgumentKind::condition ? Type::boolean : Type::number;
        Result<Typed> typed = compile_formula(text, scope, wanted);
        if (typed) {
            checked.formulas.emplace(spec.name, std::move(*typed));
            return;
        }
        complain(response.name, spec.name, typed.fault());
    }

    void check_cue(const std::string& listener, const std::string& cue) {
        if (cue.empty() || find_cue(finish(), cue) != nullptr) return;
        std::vector<std::string> names;
        for (const CueKind& known : finish().cues) names.push_back(known.name);
        const auto near = nearest_name(cue, names);
        made_.faults.push_back(finish_fault("finish.cue", listener,
                                            "'" + listener + "' listens to '" + cue + "', which isn't a cue here",
                                            near ? "did you mean " + *near + "?" : "add the cue, or choose another"));
    }

    void droplets() {
        const Scope scope = argument_scope(finish());
        for (Ground ground : finish().grounds) {
            auto* drops = ground.as<DropletsGround>();
            if (drops == nullptr) continue;
            CheckedDroplets& checked = made_.droplets.emplace_back();
            checked.name = ground.name;
            for (const DropFormula& formula : formulas_of(*drops)) {
                Result<Typed> typed =
                    compile_formula(*formula.text, scope, formula.is_condition ? Type::boolean : Type::number);
                if (typed) {
                    checked.formulas.emplace(formula.key, std::move(*typed));
                } else {
                    complain(ground.name, formula.key, typed.fault());
                }
            }
            check_cue(ground.name, drops->drops.cue);
            check_cue(ground.name, drops->drops.ends_at);
            check_named(ground.name, "ends_near", drops->drops.ends_near, [&](const std::string& name) {
                const Signal* place = find_signal(finish(), name);
                return place != nullptr && place->kind == SignalKind::place;
            });
            for (const auto& [key, name] : {std::pair("size_over_life", &drops->drops.size_curve),
                                            {"opacity_over_life", &drops->drops.opacity_curve},
                                            {"opacity_over_end", &drops->drops.ending_curve}})
                check_named(ground.name, key, *name, [&](const std::string& other) {
                    const Ground* curve = find_ground(finish(), other);
                    return curve != nullptr && curve->as<CurveGround>() != nullptr;
                });
            check_named(ground.name, "tint", drops->drops.tint, [&](const std::string& other) {
                const Ground* gradient = find_ground(finish(), other);
                return gradient != nullptr && gradient->as<GradientGround>() != nullptr;
            });
        }
    }

    void complain(const std::string& where, std::string_view key, Fault fault) {
        fault.place.where = where;
        fault.message = std::string(key) + ": " + fault.message;
        made_.faults.push_back(std::move(fault));
    }

    template <class Fits>
    void check_named(const std::string& where, const char* key, const std::string& name, const Fits& fits) {
        if (name.empty() || fits(name)) return;
        complain(where, key,
                 finish_fault("finish.droplets", where, "there is no such thing as '" + name + "' for it",
                              "choose one on the ground's page"));
    }

    void dials() {
        const Scope scope = dial_scope(finish());
        for (const Dial& dial : finish().dials) {
            CheckedDial checked{dial.name, std::nullopt, std::nullopt};
            if (!dial.formula.empty()) {
                Result<Typed> typed = compile_formula(dial.formula, scope, dial_type(dial.kind));
                if (typed) {
                    checked.formula = std::move(*typed);
                } else {
                    checked.fault = typed.fault();
                    checked.fault->place.where = dial.name;
                }
            }
            made_.dials.push_back(std::move(checked));
        }
        order_dials();
        for (const CheckedDial& dial : made_.dials) {
            if (dial.fault) made_.faults.push_back(*dial.fault);
        }
    }

    void order_dials() {
        enum class Visit { not_yet, under_way, done };
        std::vector<Visit> visits(made_.dials.size(), Visit::not_yet);
        std::map<std::string_view, std::vector<std::size_t>> places;
        for (std::size_t i = 0; i < made_.dials.size(); ++i) places[made_.dials[i].name].push_back(i);
        // Chains of dials are followed by a stack of our own, so that a long one cannot exhaust the program's.
        for (std::size_t root = 0; root < made_.dials.size(); ++root) {
            std::vector<std::size_t> stack{root};
            while (!stack.empty()) {
                const std::size_t at = stack.back();
                if (visits[at] != Visit::not_yet) {
                    if (visits[at] == Visit::under_way) {
                        visits[at] = Visit::done;
                        made_.dial_order.push_back(at);
                    }
                    stack.pop_back();
                    continue;
                }
                visits[at] = Visit::under_way;
                CheckedDial& dial = made_.dials[at];
                if (!dial.formula) continue;
                for (const std::string& name : names_used(*dial.formula)) {
                    const auto named = places.find(name);
                    if (named == places.end()) continue;
                    for (const std::size_t i : named->second) {
                        if (visits[i] == Visit::under_way) {
                            dial.fault = finish_fault("finish.circle", dial.name,
                                                      "'" + dial.name + "' waits for itself by way of '" + name + "'",
                                                      "let one of them stand still");
                        } else if (visits[i] == Visit::not_yet) {
                            stack.push_back(i);
                        }
                    }
                }
                if (dial.fault) dial.formula.reset();
            }
        }
    }

    void steps() {
        Scope scope = step_scope();
        scope.functions = &catalogue_.plain;
        scope.not_called = &catalogue_.not_called;
        for (const auto& [name, symbol] : dial_scope(finish()).symbols) scope.symbols[name] = symbol;
        for (const Ground& ground : finish().grounds) add_symbols(ground, scope);
        for_each_step(finish(), [&](const Coat&, const Step& step) {
            scope.symbols.erase(step.name);
            scope.out_of_reach[step.name] =
                "'" + step.name + "' stands further down, and a step reads only what is above it";
            add_past(step, scope);
        });
        surroundings_ = hash_of(scope);
        for_each_step(finish(), [&](const Coat& coat, const Step& step) {
            StepSource source{step.name,          step.formula,  step.rules,         step.ticking,
                              coat.on && step.on, surroundings_, made_.steps.size(), 0};
            if (!take_over(source)) add_step(step, source.on, scope);
            source.count = made_.steps.size() - source.first;
            made_.sources.push_back(std::move(source));
            make_known(made_.steps.back(), step.ticking, scope);
        });
    }

    static void stir(std::uint64_t& hash, std::uint64_t more) {
        hash = (hash ^ more) * 0x9E3779B97F4A7C15ULL;
        hash ^= hash >> 32U;
    }
    static std::uint64_t hash_of(std::string_view text) { return std::hash<std::string_view>()(text); }

    // Operations are not in it: another catalogue starts all over.
    std::uint64_t hash_of(const Scope& scope) const {
        std::uint64_t hash = 0;
        stir(hash, static_cast<std::uint64_t>(finish().frame_width));
        stir(hash, static_cast<std::uint64_t>(finish().frame_height));
        for (const auto& [name, symbol] : scope.symbols) {
            stir(hash, hash_of(name));
            stir(hash, static_cast<std::uint64_t>(symbol.kind) * 256 + static_cast<std::uint64_t>(symbol.type));
        }
        for_each_step(finish(), [&](const Coat&, const Step& step) {
            stir(hash, hash_of(step.name));
            stir(hash, static_cast<std::uint64_t>(step.ticking.width));
        });
        return hash;
    }

    // The step as it was checked before, if neither it nor anything that it may see has changed.
    bool take_over(const StepSource& source) {
        const auto found = known_.find(source.name);
        if (found == known_.end()) return false;
        const StepSource& old = *found->second;
        if (old.formula != source.formula || old.rules != source.rules || old.ticking != source.ticking ||
            old.on != source.on || old.surroundings != source.surroundings)
            return false;
        const auto first = before_->steps.begin() + static_cast<std::ptrdiff_t>(old.first);
        made_.steps.insert(made_.steps.end(), first, first + static_cast<std::ptrdiff_t>(old.count));
        return true;
    }

    // What the steps below may do with this one.
    void make_known(const CheckedStep& checked, const Ticking& ticking, Scope& scope) {
        stir(surroundings_, hash_of(checked.name));
        if (checked.typed) {
            scope.symbols[checked.name] = {SymbolKind::step, checked.typed->type};
            scope.out_of_reach.erase(checked.name);
            if (ticking.width == 0 && is_float(checked.typed->type)) scope.past[checked.name] = checked.typed->type;
            stir(surroundings_, 1 + static_cast<std::uint64_t>(checked.typed->type));
        } else {
            broken_.insert(checked.name);
            stir(surroundings_, 0);
        }
    }

    static void set_typed(CheckedStep& step, Typed typed) {
        step.hash = lacquer::hash_of(typed);
        step.typed = std::make_shared<const Typed>(std::move(typed));
    }

    void add_step(const Step& step, bool on, Scope& scope) {
        CheckedStep checked;
        checked.name = step.name;
        checked.on = on;
        scope.out_of_reach[step.name] = "'" + step.name + "' is this step itself";
        std::vector<UnnamedStep> unnamed;
        scope.unnamed = &unnamed;
        scope.unnamed_stem = step.name;
        std::vector<OperationStep> stages;
        std::vector<Symbol> handed;
        const Operation* operation = whole_step_operation(step.formula, catalogue_);
        Result<Typed> typed = operation != nullptr
                                  ? expand_operation(*operation, step.formula, scope, finish(), stages, handed)
                                  : compile(step, scope, checked.notes);
        if (typed && step.ticking.width > 0) typed = as_declared(std::move(*typed), step);
        if (typed && !step.ticking.starts.empty()) {
            Result<std::vector<UnnamedStep>> starts = start_of(step, scope, typed->type);
            if (!starts) typed = starts.fault();
            for (std::size_t i = 0; starts && i < starts->size(); ++i) {
                CheckedStep& start = made_.steps.emplace_back();
                start.name = (*starts)[i].name;
                set_typed(start, std::move((*starts)[i].typed));
            }
        }
        if (typed) {
            for (UnnamedStep& part : unnamed) {
                CheckedStep& stored = made_.steps.emplace_back();
                stored.name = part.name;
                stored.on = checked.on;
                set_typed(stored, std::move(part.typed));
            }
            for (OperationStep& stage : stages) {
                CheckedStep& stored = made_.steps.emplace_back();
                stored.name = stage.name;
                stored.on = checked.on;
                stored.scale = stage.scale;
                stored.native = std::move(stage.native);
                set_typed(stored, std::move(stage.typed));
            }
            set_typed(checked, checked.on ? std::move(*typed) : passed_on(*typed, handed));
        } else {
            checked.fault = typed.fault();
            checked.fault->place.where = step.name;
            const auto reason = broken_.find(std::string(word_at(step.formula, checked.fault->place.span)));
            if (checked.fault->id == "lang.out-of-reach" && reason != broken_.end()) {
                checked.fault->id = "finish.broken-source";
                checked.fault->message = "'" + *reason + "' has a fault of its own";
                checked.fault->mend = "mend that step first";
            }
        }
        made_.steps.push_back(std::move(checked));
    }

    static Result<Typed> compile(const Step& step, const Scope& scope, Faults& notes) {
        if (step.rules != CodeRules::glsl || !is_code(step.formula)) return compile_step(step.formula, scope);
        Result<CompiledShader> compiled = compile_shader(step.formula, scope);
        if (!compiled) return compiled.fault();
        notes = std::move(compiled->notes);
        for (Fault& note : notes) note.place.where = step.name;
        return std::move(compiled->typed);
    }

    static std::string_view word_at(std::string_view text, Span span) {
        return text.substr(std::min<std::size_t>(span.begin, text.size()), span.end - span.begin);
    }

    const Catalogue& catalogue_;
    const CheckedFinish* before_ = nullptr;
    std::unordered_map<std::string_view, const StepSource*> known_;
    std::uint64_t surroundings_ = 0;
    CheckedFinish made_;
    std::set<std::string> broken_;
};

}  // namespace

CheckedFinish::CheckedFinish() = default;
CheckedFinish::CheckedFinish(const CheckedFinish&) = default;
CheckedFinish::CheckedFinish(CheckedFinish&&) noexcept = default;
CheckedFinish& CheckedFinish::operator=(const CheckedFinish&) = default;
CheckedFinish& CheckedFinish::operator=(CheckedFinish&&) noexcept = default;
CheckedFinish::~CheckedFinish() = default;

Type dial_type(DialKind kind) {
    switch (kind) {
        case DialKind::toggle:
            return Type::boolean;
        case DialKind::colour:
            return Type::vec3;
        case DialKind::number:
        case DialKind::integer:
            break;
    }
    return Type::number;
}

CheckedFinish check_finish(std::shared_ptr<const Finish> finish, std::shared_ptr<const Catalogue> catalogue,
                           const CheckedFinish* before) {
    return FinishCheck(std::move(finish), std::move(catalogue), before).run();
}

const CheckedStep* find_step(const CheckedFinish& checked, std::string_view name) {
    for (const CheckedStep& step : checked.steps) {
        if (step.name == name) return &step;
    }
    return nullptr;
}

std::string finished_step(const CheckedFinish& checked) {
    for (std::size_t i = checked.steps.size(); i-- > 0;) {
        if (checked.steps[i].on) return checked.steps[i].name;
    }
    return {};
}

}  // namespace lacquer
