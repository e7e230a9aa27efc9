#include "core/plan/plan.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>
#include <utility>

#include "core/base/text.h"
#include "core/finish/checked.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/kinds.h"
#include "core/lang/past.h"

namespace lacquer {

namespace {

using Names = std::set<std::string, std::less<>>;
using Views = std::vector<std::string_view>;

// What one step takes from others; the names lie in its tree.
struct Sources {
    Views here;   // steps whose value it uses at its own pixel
    Views there;  // steps that it reads at other places
    Views grounds;
    Views pyramids;  // pictures that it reads at other sizes
    Views sized;     // pictures whose size it asks for
};

Sources sources_of(const Typed& typed) {
    Sources sources;
    const auto collect = [&](const Typed& node) {
        const std::string* name = name_of(node);
        if (name == nullptr) return;
        const SymbolKind symbol = symbol_of(node);
        const auto* reading = node.as<PictureReading>();
        if (symbol == SymbolKind::ground || symbol == SymbolKind::gradient) sources.grounds.push_back(*name);
        if (reading != nullptr && reading->builtin == Builtin::texture_lod) sources.pyramids.push_back(*name);
        if (reading != nullptr && reading->builtin == Builtin::texture_size) sources.sized.push_back(*name);
        if (symbol == SymbolKind::step) (reading != nullptr ? sources.there : sources.here).push_back(*name);
    };
    visit_nodes(typed, collect);
    return sources;
}

// What is planned: a picture, or what goes on from tick to tick.
enum class Planned { frame, ticks };

// Steps go by their number among the checked ones: this runs at every edit.
class Planner {
public:
    explicit Planner(const CheckedFinish& checked, Planned planned = Planned::frame)
        : checked_(checked),
          planned_(planned),
          steps_(checked.steps.size()),
          sources_(checked.steps.size()),
          needed_(checked.steps.size()),
          stored_(needed_) {
        for (std::size_t n = 0; n < checked.steps.size(); ++n) {
            const CheckedStep& step = checked.steps[n];
            if (!step.typed) continue;
            steps_[n] = {step.name, step.typed, step.hash};
            const TickedStep* ticked = checked.ticked.empty() ? nullptr : find_ticked(checked, step.name);
            if (planned == Planned::frame && ticked != nullptr)
                steps_[n] = {step.name, ticked->shown, ticked->shown_hash};
            numbers_[step.name] = n;
            sources_[n] = sources_of(*steps_[n].typed);
        }
    }

    // Each of these steps is stored.
    Plan run_ticks(const std::vector<std::string>& wanted) {
        std::vector<std::string> good;
        for (const std::string& name : wanted) {
            if (numbers_.contains(name)) good.push_back(name);
        }
        find_stored(good);
        for (const std::string& name : good) stored_[numbers_.at(name)] = 1;
        Plan plan;
        add_storing(plan);
        find_resources(plan);
        for (Pass& pass : plan.passes) {
            for (const std::string& name : pass.outputs) {
                if (std::find(good.begin(), good.end(), name) != good.end())
                    pass.resources[name].lifetime = Lifetime::tick;
            }
        }
        find_native(plan);
        return plan;
    }

    Plan run(const std::vector<std::string>& wanted) {
        std::vector<std::string> good;
        for (const std::string& name : wanted) {
            if (numbers_.contains(name)) good.push_back(name);
        }
        find_stored(good);
        Plan plan;
        add_storing(plan);
        plan.passes.push_back(pass_for("draws", good, checked_.steps.size()));
        for (const std::string& name : wanted) add_ground(plan.passes.back(), name);
        find_resources(plan);
        find_native(plan);
        return plan;
    }

private:
    // The passes of all that is stored.
    void add_storing(Plan& plan) {
        for (std::size_t n = 0; n < needed_.size(); ++n) {
            if (needed_[n] != 0 && checked_.steps[n].scale != 1) stored_[n] = 1;
        }
        for (std::size_t n = 0; n < stored_.size(); ++n) {
            if (stored_[n] == 0) continue;
            const CheckedStep& step = checked_.steps[n];
            plan.passes.push_back(pass_for("stores " + step.name, {step.name}, n));
            plan.passes.back().scale = step.scale * scale_of(step.name);
        }
    }

    // What belongs to a step that goes on from tick to tick is drawn at that one's size; what such steps only read, at
    // that of the largest.
    double scale_of(std::string_view name) const {
        if (planned_ == Planned::frame) return 1;
        if (const TickedStep* owner = find_ticked(checked_, name.substr(0, name.find('.')))) return owner->scale;
        double largest = 0;
        for (const TickedStep& step : checked_.ticked) largest = std::max(largest, step.scale);
        return largest;
    }

    template <class Strings>
    void add_numbers(const Strings& names, std::vector<std::size_t>& todo) const {
        for (const auto& name : names) todo.push_back(numbers_.at(name));
    }

    void find_stored(const std::vector<std::string>& wanted) {
        std::vector<std::size_t> todo;
        add_numbers(wanted, todo);
        while (!todo.empty()) {
            const std::size_t n = todo.back();
            todo.pop_back();
            if (std::exchange(needed_[n], 1) != 0) continue;
            add_numbers(sources_[n].here, todo);
            add_numbers(sources_[n].there, todo);
            for (const std::string_view name : sources_[n].there) stored_[numbers_.at(name)] = 1;
        }
    }

    // `own` is the number of the step that the pass stores.
    Pass pass_for(std::string name, const std::vector<std::string>& outputs, std::size_t own) {
        Pass pass;
        pass.name = std::move(name);
        pass.outputs = outputs;
        std::vector<std::uint8_t> computed(checked_.steps.size(), 0);
        Names stored;
        Names grounds;
        Names pyramids;
        std::vector<std::size_t> todo;
        add_numbers(outputs, todo);
        while (!todo.empty()) {
            const std::size_t n = todo.back();
            todo.pop_back();
            if (n != own && stored_[n] != 0) {
                stored.insert(checked_.steps[n].name);
                continue;
            }
            if (std::exchange(computed[n], 1) != 0) continue;
            const Sources& sources = sources_[n];
            add_numbers(sources.here, todo);
            stored.insert(sources.there.begin(), sources.there.end());
            grounds.insert(sources.grounds.begin(), sources.grounds.end());
            pyramids.insert(sources.pyramids.begin(), sources.pyramids.end());
        }
        for (std::size_t n = 0; n < computed.size(); ++n) {
            if (computed[n] != 0) pass.steps.push_back(steps_[n]);
        }
        pass.stored.assign(stored.begin(), stored.end());
        pass.grounds.assign(grounds.begin(), grounds.end());
        for (const std::string& read : pass.grounds) {
            if (const auto found = find_ground_picture(*checked_.finish, read)) add_sampling(pass, *found);
        }
        pass.pyramids.assign(pyramids.begin(), pyramids.end());
        return pass;
    }

    // What each pass stores, and what the last one hands out.
    void find_resources(Plan& plan) const {
        std::map<std::string, Resource, std::less<>> stored;
        for (Pass& pass : plan.passes) {
            const bool hands_out = planned_ == Planned::frame && &pass == &plan.passes.back();
            for (const std::string& name : pass.stored) pass.resources[name] = stored[name];
            for (const std::string& name : pass.outputs) {
                Resource made = stored.contains(name) ? stored[name] : Resource{name, type_in(pass, name)};
                made.scale = pass.scale;
                made.channels = hands_out ? width_of(made.type) : stored_channels(made.type);
                made.lifetime = hands_out ? Lifetime::pass : Lifetime::frame;
                plan.resources.push_back(made);
                if (!hands_out) stored[name] = made;
                pass.resources[name] = std::move(made);
            }
        }
    }

    // Passes that this processor may do in one go.
    void find_native(Plan& plan) const {
        for (std::size_t i = 0; i < plan.passes.size(); ++i) {
            Pass& pass = plan.passes[i];
            const auto own = pass.outputs.size() == 1 ? numbers_.find(pass.outputs.front()) : numbers_.end();
            const std::shared_ptr<const NativeUse> use =
                own != numbers_.end() ? checked_.steps[own->second].native : nullptr;
            const bool reads =
                use != nullptr && std::find(pass.stored.begin(), pass.stored.end(), use->from) != pass.stored.end();
            if (!reads) continue;
            auto native = std::make_shared<NativePass>();
            native->way = use->way;
            native->from = use->from;
            native->argument = argument_pass(pass, use->argument);
            native->spared = spared_by(plan, i, use->from);
            native->may_shrink =
                !is_sized(pass.outputs.front()) && resource_of(pass, pass.outputs.front()).lifetime != Lifetime::tick;
            pass.native = std::move(native);
        }
    }

    bool is_sized(const std::string& name) const {
        return std::any_of(sources_.begin(), sources_.end(), [&](const Sources& sources) {
            return std::find(sources.sized.begin(), sources.sized.end(), name) != sources.sized.end();
        });
    }

    static Pass argument_pass(const Pass& pass, const Typed& argument) {
        const std::string name = "native argument";
        Pass made;
        made.name = name;
        made.scale = pass.scale;
        made.steps.push_back({name, std::make_shared<const Typed>(argument), hash_of(argument)});
        for (const std::string_view read : sources_of(argument).there) made.stored.emplace_back(read);
        for (const std::string& read : made.stored) made.resources[read] = resource_of(pass, read);
        made.outputs = {name};
        made.resources[name] = Resource{name, argument.type, stored_channels(argument.type)};
        return made;
    }

    // What is stored for this pass alone, directly or not, and what of that is left when it reads `from` only.
    static std::vector<std::string> spared_by(const Plan& plan, std::size_t native, const std::string& from) {
        Names kept{from};
        for (std::size_t i = 0; i < plan.passes.size(); ++i) {
            if (i > native) kept.insert(plan.passes[i].stored.begin(), plan.passes[i].stored.end());
        }
        std::vector<std::string> spared;
        for (std::size_t i = native; i-- > 0;) {
            const Pass& pass = plan.passes[i];
            const bool is_spared = std::none_of(pass.outputs.begin(), pass.outputs.end(), [&](const std::string& name) {
                return kept.contains(name) || resource_of(pass, name).lifetime == Lifetime::tick;
            });
            if (is_spared) {
                spared.insert(spared.end(), pass.outputs.begin(), pass.outputs.end());
            } else {
                kept.insert(pass.stored.begin(), pass.stored.end());
            }
        }
        return spared;
    }

    static Type type_in(const Pass& pass, const std::string& name) {
        for (const PassStep& step : pass.steps) {
            if (step.name == name) return step.typed->type;
        }
        return Type::vec4;
    }

    // A picture that is wanted itself, as if a step of its name stood for it.
    void add_ground(Pass& pass, const std::string& name) const {
        const auto found = find_ground_picture(*checked_.finish, name);
        // A step of the same name goes first, though it may have a fault.
        if (!found || find_step(checked_, name) != nullptr) return;
        const auto symbol =
            std::make_shared<const Typed>(Typed{NameHere{name, SymbolKind::ground}, found->picture.type});
        pass.steps.push_back({name, symbol, hash_of(*symbol)});
        pass.outputs.push_back(name);
        if (std::find(pass.grounds.begin(), pass.grounds.end(), name) == pass.grounds.end())
            pass.grounds.push_back(name);
        add_sampling(pass, *found);
    }

    static void add_sampling(Pass& pass, const NamedPicture& found) {
        const Sampling sampling = sampling_of(*found.ground, found.picture.layer);
        if (sampling != Sampling{}) pass.samplings[found.picture.name] = sampling;
    }

    const CheckedFinish& checked_;
    Planned planned_;
    std::vector<PassStep> steps_;  // as they are computed
    std::unordered_map<std::string_view, std::size_t> numbers_;
    std::vector<Sources> sources_;
    std::vector<std::uint8_t> needed_;
    std::vector<std::uint8_t> stored_;
};

std::string joined(const std::vector<std::string>& names) {
    std::string text;
    for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
    return text;
}

}  // namespace

// A scale that is a quotient of whole numbers may come out a little too large.
int scaled_side(int side, double scale) { return std::max(1, static_cast<int>(std::ceil(side * scale - 1e-6))); }

Plan plan_passes(const CheckedFinish& checked, const std::vector<std::string>& wanted) {
    return Planner(checked).run(wanted);
}

Plan plan_ticks(const CheckedFinish& checked) {
    std::vector<std::string> names;
    for (const TickedStep& step : checked.ticked) names.push_back(step.name);
    return Planner(checked, Planned::ticks).run_ticks(names);
}

Plan plan_starts(const CheckedFinish& checked) {
    std::vector<std::string> names;
    for (const TickedStep& step : checked.ticked) {
        if (step.has_start) names.push_back(start_picture(step.name));
    }
    return Planner(checked, Planned::ticks).run_ticks(names);
}

Resource resource_of(const Pass& pass, std::string_view name) {
    const auto found = pass.resources.find(name);
    return found != pass.resources.end() ? found->second : Resource{std::string(name)};
}

int stored_channels(Type type) {
    const int width = width_of(type);
    return width <= 2 ? width : 4;
}

StructuralHash key_of(const Pass& pass) {
    StructuralHash key;
    const auto add_all = [&](const std::vector<std::string>& names) {
        key.stir(names.size());
        for (const std::string& name : names) key.stir(name);
    };
    add_all(pass.stored);
    add_all(pass.grounds);
    add_all(pass.pyramids);
    add_all(pass.outputs);
    key.stir(pass.samplings.size());
    for (const auto& [name, sampling] : pass.samplings) {
        key.stir(name);
        key.stir(static_cast<std::uint64_t>(sampling.wrap) | static_cast<std::uint64_t>(sampling.filter) << 8U |
                 static_cast<std::uint64_t>(sampling.weighed) << 16U);
    }
    key.stir(pass.resources.size());
    for (const auto& [name, resource] : pass.resources) {
        key.stir(name);
        key.stir(static_cast<std::uint64_t>(resource.type) | static_cast<std::uint64_t>(resource.channels) << 8U |
                 static_cast<std::uint64_t>(resource.format) << 16U);
    }
    key.stir(pass.steps.size());
    for (const PassStep& step : pass.steps) {
        key.stir(step.name);
        key.stir(step.hash == StructuralHash() ? hash_of(*step.typed) : step.hash);
    }
    return key;
}

std::string to_text(const Plan& plan) {
    std::string text;
    for (const Pass& pass : plan.passes) {
        text += "pass " + pass.name + "\n";
        if (pass.scale != 1) text += "  at " + shortest_number(pass.scale) + " of the size\n";
        if (!pass.grounds.empty()) text += "  reads grounds " + joined(pass.grounds) + "\n";
        for (const auto& [name, sampling] : pass.samplings) {
            text += "  reads " + name + " " + std::string(filter_name(sampling.filter)) + ", " +
                    std::string(wrap_name(sampling.wrap)) + (sampling.weighed ? ", by opacity" : "") + "\n";
        }
        if (!pass.pyramids.empty()) text += "  wants smaller copies of " + joined(pass.pyramids) + "\n";
        if (!pass.stored.empty()) text += "  reads stored " + joined(pass.stored) + "\n";
        if (pass.native != nullptr)
            text += "  this processor does it by " + pass.native->way + " of " + pass.native->from + "\n";
        for (const PassStep& step : pass.steps) {
            text += "  " + step.name + ": " + std::string(glsl_name(step.typed->type)) + " = " + to_text(*step.typed) +
                    "\n";
        }
        for (const std::string& name : pass.outputs) {
            const Resource made = resource_of(pass, name);
            text += std::string(made.lifetime == Lifetime::pass ? "  hands out " : "  stores ") + name + ", " +
                    counted(static_cast<std::size_t>(made.channels), "channel") + "\n";
        }
    }
    return text;
}

}  // namespace lacquer
