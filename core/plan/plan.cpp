#include "core/plan/plan.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/text.h"
#include "core/finish/kinds.h"

namespace lacquer {

namespace {

using Names = std::set<std::string, std::less<>>;

// What one step takes from others.
struct Sources {
    Names here;   // steps whose value it uses at its own pixel
    Names there;  // steps that it reads at other places
    Names grounds;
    Names pyramids;  // pictures that it reads at other sizes
};

Sources sources_of(const Typed& typed) {
    Sources sources;
    const auto collect = [&](const Typed& node) {
        if (node.kind != TypedKind::read && node.kind != TypedKind::symbol) return;
        if (node.symbol == SymbolKind::ground || node.symbol == SymbolKind::gradient) sources.grounds.insert(node.name);
        if (node.builtin == Builtin::texture_lod) sources.pyramids.insert(node.name);
        if (node.symbol == SymbolKind::step) {
            (node.kind == TypedKind::read ? sources.there : sources.here).insert(node.name);
        }
    };
    visit_nodes(typed, collect);
    return sources;
}

class Planner {
public:
    explicit Planner(const CheckedFinish& checked) : checked_(checked) {
        for (const CheckedStep& step : checked.steps) {
            if (!step.typed) continue;
            steps_[step.name] = &step;
            sources_[step.name] = sources_of(*step.typed);
        }
    }

    Plan run(const std::vector<std::string>& wanted) {
        std::vector<std::string> good;
        for (const std::string& name : wanted) {
            if (steps_.contains(name)) good.push_back(name);
        }
        find_stored(good);
        for (const auto& [name, step] : steps_) {
            if (step->scale != 1 && needed_.contains(name)) stored_.insert(name);
        }
        Plan plan;
        for (const CheckedStep& step : checked_.steps) {
            if (!stored_.contains(step.name)) continue;
            plan.passes.push_back(pass_for("stores " + step.name, {step.name}, step.name));
            plan.passes.back().scale = step.scale;
        }
        plan.passes.push_back(pass_for("draws", good, ""));
        return plan;
    }

private:
    void find_stored(const std::vector<std::string>& wanted) {
        std::vector<std::string> todo = wanted;
        while (!todo.empty()) {
            const std::string name = todo.back();
            todo.pop_back();
            if (!needed_.insert(name).second) continue;
            const Sources& sources = sources_[name];
            todo.insert(todo.end(), sources.here.begin(), sources.here.end());
            todo.insert(todo.end(), sources.there.begin(), sources.there.end());
            stored_.insert(sources.there.begin(), sources.there.end());
        }
    }

    Pass pass_for(std::string name, const std::vector<std::string>& outputs, const std::string& own) {
        Pass pass;
        pass.name = std::move(name);
        pass.outputs = outputs;
        Names computed;
        Names stored;
        Names grounds;
        Names pyramids;
        std::vector<std::string> todo = outputs;
        while (!todo.empty()) {
            const std::string step = todo.back();
            todo.pop_back();
            if (step != own && stored_.contains(step)) {
                stored.insert(step);
                continue;
            }
            if (!computed.insert(step).second) continue;
            const Sources& sources = sources_[step];
            todo.insert(todo.end(), sources.here.begin(), sources.here.end());
            stored.insert(sources.there.begin(), sources.there.end());
            grounds.insert(sources.grounds.begin(), sources.grounds.end());
            pyramids.insert(sources.pyramids.begin(), sources.pyramids.end());
        }
        for (const CheckedStep& step : checked_.steps) {
            if (computed.contains(step.name)) pass.steps.push_back({step.name, step.typed, step.text});
        }
        pass.stored.assign(stored.begin(), stored.end());
        pass.grounds.assign(grounds.begin(), grounds.end());
        for (const Ground& ground : checked_.finish->grounds) {
            if (grounds.contains(ground.name) && ground.sampling != Sampling{})
                pass.samplings[ground.name] = ground.sampling;
        }
        pass.pyramids.assign(pyramids.begin(), pyramids.end());
        return pass;
    }

    const CheckedFinish& checked_;
    std::map<std::string, const CheckedStep*, std::less<>> steps_;
    std::map<std::string, Sources, std::less<>> sources_;
    Names needed_;
    Names stored_;
};

std::string joined(const std::vector<std::string>& names) {
    std::string text;
    for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
    return text;
}

}  // namespace

int scaled_side(int side, double scale) { return std::max(1, static_cast<int>(std::ceil(side * scale))); }

Plan plan_passes(const CheckedFinish& checked, const std::vector<std::string>& wanted) {
    return Planner(checked).run(wanted);
}

std::string key_of(const Pass& pass) {
    std::string key;
    const auto add = [&](std::string_view text) {
        key += text;
        key += '\n';
    };
    const auto add_all = [&](const std::vector<std::string>& names) {
        for (const std::string& name : names) add(name);
        add("");
    };
    add_all(pass.stored);
    add_all(pass.grounds);
    add_all(pass.pyramids);
    add_all(pass.outputs);
    for (const auto& [name, sampling] : pass.samplings) {
        add(name);
        add(wrap_name(sampling.wrap));
        add(filter_name(sampling.filter));
    }
    add("");
    for (const PassStep& step : pass.steps) {
        add(step.name);
        add(glsl_name(step.typed->type));
        add(step.text.empty() ? to_text(*step.typed) : step.text);
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
                    std::string(wrap_name(sampling.wrap)) + "\n";
        }
        if (!pass.pyramids.empty()) text += "  wants smaller copies of " + joined(pass.pyramids) + "\n";
        if (!pass.stored.empty()) text += "  reads stored " + joined(pass.stored) + "\n";
        for (const PassStep& step : pass.steps) {
            text += "  " + step.name + ": " + std::string(glsl_name(step.typed->type)) + " = " + to_text(*step.typed) +
                    "\n";
        }
        text += "  hands out " + joined(pass.outputs) + "\n";
    }
    return text;
}

}  // namespace lacquer
