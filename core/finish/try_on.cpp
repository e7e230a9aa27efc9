#include "core/finish/try_on.h"

#include <algorithm>
#include <memory>
#include <optional>
#include <tuple>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

// What is at hand at a place of the ladder: steps above with their widths, nearest first, and the first picture.
struct Surroundings {
    std::vector<std::pair<std::string, int>> above;
    std::string picture;
};

Surroundings surroundings_of(const CheckedFinish& checked, std::string_view step, TryOnUse use) {
    Surroundings found;
    for (const CheckedStep& other : checked.steps) {
        if (other.name == step && use == TryOnUse::replace) break;
        const bool own = find_step(*checked.finish, other.name) != nullptr;
        if (own && other.typed && scalar_of(other.typed->type) == Scalar::real) {
            found.above.insert(found.above.begin(), {other.name, width_of(other.typed->type)});
        }
        if (other.name == step) break;
    }
    if (const Ground* ground = first_picture(*checked.finish)) found.picture = ground->name;
    return found;
}

std::optional<std::string> nearest_of_width(const Surroundings& around, int width, std::string_view but) {
    for (const auto& [name, wide] : around.above) {
        if (wide == width && name != but) return name;
    }
    return std::nullopt;
}

// What has `width` numbers as a picture of the width that an argument wants.
std::string as_picture(const OperationArgument& argument, const std::string& name, int width) {
    if (argument.width == 0 || argument.width == width) return name;
    if (argument.width == 1) {
        if (width == 2) return name + ".x";
        return width == 4 && argument.role == "opacity" ? name + ".a" : "luminance(" + name + ")";
    }
    if (argument.width == 2) return width == 1 ? "vec2(" + name + ")" : name + ".xy";
    const std::string colour = width == 1 ? "vec3(" + name + ")" : width == 2 ? "vec3(" + name + ", 0)" : name;
    if (argument.width == 4) return "vec4(" + colour + ", 1)";
    return width == 4 ? name + ".rgb" : colour;
}

// What a required argument gets that neither the step nor an old call fills.
std::string filler(const OperationArgument& argument, const Surroundings& around, std::string_view subject) {
    const auto picture = [&]() -> std::string {
        if (!around.picture.empty()) return as_picture(argument, around.picture, 4);
        if (const auto found = nearest_of_width(around, 4, {})) return as_picture(argument, *found, 4);
        if (around.above.empty()) return as_picture(argument, "vec4(uv, 0.5, 1)", 4);
        return as_picture(argument, around.above.front().first, around.above.front().second);
    };
    if (argument.picture) {
        const auto mask = argument.width == 1 ? nearest_of_width(around, 1, subject) : std::nullopt;
        return mask ? *mask : picture();
    }
    if (argument.role == "coordinate") return argument.width == 3 ? "vec3(uv, 0)" : "uv";
    if (argument.role == "displacement") {
        const auto found = nearest_of_width(around, 2, subject);
        return found ? *found : "vec2(0.02)";
    }
    if (argument.width >= 3) return picture();
    if (argument.width == 2) return "vec2(0.5)";
    if (argument.role == "mask" || argument.role == "opacity") {
        const auto found = nearest_of_width(around, 1, subject);
        return found ? *found : "uv.x";
    }
    return argument.range ? shortest_number((argument.range->first + argument.range->second) / 2) : "0.5";
}

// The step as the argument takes it, if that makes sense.
std::optional<std::string> handed_over(const OperationArgument& argument, const std::string& step, int width) {
    if (argument.picture) return as_picture(argument, step, width);
    const bool setting = argument.role == "number" && argument.width == 1 && !argument.fallback.empty();
    if (setting || argument.role == "choice") return std::nullopt;
    const bool places = argument.role == "coordinate" || argument.role == "displacement";
    if (places && argument.width == 3 && width == 2) return "vec3(" + step + ", 0)";
    const bool takes = places                ? width == argument.width
                       : argument.width == 0 ? true
                       : argument.width >= 3 ? width >= 3 || width == 1
                                             : argument.width == width;
    return takes ? std::optional<std::string>(step) : std::nullopt;
}

std::string call(const Operation& operation, std::vector<std::string> args) {
    // What is last and says no more than the default is left out.
    while (!args.empty() && args.back() == operation.arguments[args.size() - 1].fallback) args.pop_back();
    std::string text = operation.name + "(";
    for (std::size_t i = 0; i < args.size(); ++i) text += (i > 0 ? ", " : "") + args[i];
    return text + ")";
}

std::string on_step(const Operation& operation, std::string_view step, int width, const Surroundings& around) {
    std::vector<std::string> args;
    bool used = false;
    bool only_places = true;
    // A mask goes where a mask is asked for, though a picture is asked for before.
    const auto is_mask = [](const OperationArgument& a) {
        return !a.picture && a.width == 1 && (a.role == "mask" || a.role == "opacity");
    };
    const bool goes_as_mask =
        width == 1 && std::any_of(operation.arguments.begin(), operation.arguments.end(), is_mask);
    for (const OperationArgument& argument : operation.arguments) {
        only_places = only_places && argument.role != "colour" && argument.role != "mask" && !argument.picture;
        const bool passes = used || (goes_as_mask && !is_mask(argument));
        const auto own = passes ? std::nullopt : handed_over(argument, std::string(step), width);
        used = used || own.has_value();
        if (own) {
            args.push_back(*own);
        } else {
            args.push_back(argument.fallback.empty() ? filler(argument, around, step) : argument.fallback);
        }
    }
    const std::string made = call(operation, std::move(args));
    // Places are looked at by what stands there: the picture is read at them.
    const bool moves_places = operation.group == "Coordinates" && !used && width >= 3 && only_places;
    return moves_places ? "texture(" + std::string(step) + ", " + made + ")" : made;
}

// The arguments of the call that a formula is, as text, with what they were for.
struct OldCall {
    const Operation* operation = nullptr;
    std::vector<std::string> args;
};
OldCall old_call(const Catalogue& catalogue, const std::string& formula) {
    OldCall old;
    if (is_code(formula)) return old;
    const Result<Expression> parsed = parse(formula);
    if (!parsed || parsed->kind != ExpressionKind::call) return old;
    for (const Expression& arg : parsed->args) {
        old.args.push_back(formula.substr(arg.span.begin, arg.span.end - arg.span.begin));
    }
    const auto found = catalogue.operations.find(parsed->text);
    if (found != catalogue.operations.end()) old.operation = &found->second;
    return old;
}

std::string in_place_of(const Operation& operation, const OldCall& old, const Surroundings& around) {
    std::vector<std::string> args(operation.arguments.size());
    std::vector<bool> taken(old.args.size(), false);
    const auto carry = [&](auto same) {
        for (std::size_t i = 0; i < args.size(); ++i) {
            for (std::size_t k = 0; args[i].empty() && k < taken.size(); ++k) {
                if (taken[k] || k >= old.operation->arguments.size()) continue;
                if (!same(operation.arguments[i], old.operation->arguments[k])) continue;
                args[i] = old.args[k];
                taken[k] = true;
            }
        }
    };
    if (old.operation != nullptr) {
        const auto alike = [](const OperationArgument& a, const OperationArgument& b) {
            return a.role == b.role && a.picture == b.picture && (a.width == b.width || a.width == 0 || b.width == 0);
        };
        carry([&](const auto& a, const auto& b) { return a.name == b.name && alike(a, b) && a.choices == b.choices; });
        carry([&](const auto& a, const auto& b) { return a.role != "choice" && a.unit == b.unit && alike(a, b); });
    } else if (!old.args.empty() && !args.empty()) {
        args[0] = old.args[0];
    }
    for (std::size_t i = 0; i < args.size(); ++i) {
        const OperationArgument& argument = operation.arguments[i];
        if (args[i].empty()) args[i] = argument.fallback.empty() ? filler(argument, around, {}) : argument.fallback;
    }
    return call(operation, std::move(args));
}

}  // namespace

std::string candidate_name(std::size_t index) { return "try " + std::to_string(index); }

CheckedFinish candidates_on(const CheckedFinish& checked, std::string_view at, TryOnUse use,
                            const std::vector<std::string>& formulas) {
    Finish finish = *checked.finish;
    StepPlace place = place_of(finish, at);
    if (use == TryOnUse::add_below && find_step(finish, at) != nullptr) ++place.step;
    Coat tried;
    tried.name = "Candidates";
    for (std::size_t i = 0; i < formulas.size(); ++i) {
        Step step;
        step.name = candidate_name(i);
        step.formula = formulas[i];
        tried.steps.push_back(std::move(step));
    }
    if (!finish.coats.empty()) {
        finish.coats.resize(place.coat + 1);
        finish.coats.back().steps.own().resize(std::min(place.step, finish.coats.back().steps.size()));
    }
    finish.coats.push_back(std::move(tried));
    return check_finish(std::make_shared<const Finish>(std::move(finish)), checked.catalogue, &checked);
}

std::vector<TryOn> try_on(const CheckedFinish& checked, std::string_view step, TryOnUse use) {
    const Catalogue& catalogue = *checked.catalogue;
    const CheckedStep* subject = find_step(checked, step);
    const Surroundings around = surroundings_of(checked, step, use);
    std::string name(step);
    int width = 1;
    if (subject != nullptr && subject->typed) {
        width = width_of(subject->typed->type);
    } else {
        // Without a step at hand, the picture is what operations are applied to.
        name = around.picture.empty() ? "uv.x" : around.picture;
        width = around.picture.empty() ? 1 : 4;
    }
    OldCall old;
    if (use == TryOnUse::replace) {
        const Step* written = find_step(*checked.finish, step);
        if (written != nullptr) old = old_call(catalogue, written->formula);
    }
    std::vector<TryOn> all;
    std::vector<std::string> formulas;
    for (const auto& [key, operation] : catalogue.operations) {
        TryOn tried;
        tried.operation = key;
        tried.title = operation.title;
        tried.group = operation.group;
        tried.about = operation.about;
        tried.formula =
            use == TryOnUse::replace ? in_place_of(operation, old, around) : on_step(operation, name, width, around);
        all.push_back(std::move(tried));
    }
    std::sort(all.begin(), all.end(),
              [](const TryOn& a, const TryOn& b) { return std::tie(a.group, a.title) < std::tie(b.group, b.title); });
    for (const TryOn& tried : all) formulas.push_back(tried.formula);
    const CheckedFinish candidates = candidates_on(checked, step, use, formulas);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const CheckedStep* made = find_step(candidates, candidate_name(i));
        all[i].fits = made != nullptr && made->typed != nullptr;
        if (made != nullptr && made->fault) all[i].why_not = made->fault->message;
    }
    return all;
}

std::string call_with_defaults(const CheckedFinish& checked, std::string_view step, std::string_view operation) {
    const auto found = checked.catalogue->operations.find(operation);
    if (found == checked.catalogue->operations.end()) return {};
    return in_place_of(found->second, {}, surroundings_of(checked, step, TryOnUse::replace));
}

Result<std::pair<Finish, std::string>> take_try_on(const Finish& finish, std::string_view step, const TryOn& choice,
                                                   TryOnUse use) {
    using Made = std::pair<Finish, std::string>;
    Finish changed = finish;
    if (use == TryOnUse::replace) {
        for (Coat& coat : changed.coats) {
            for (Step& own : coat.steps) {
                if (own.name != step) continue;
                own.formula = choice.formula;
                return Made{std::move(changed), std::string(step)};
            }
        }
        return Fault{"edit.unknown", "nothing is called '" + std::string(step) + "'", "", {}, Severity::fault};
    }
    Step made;
    made.name = free_name(changed, choice.operation);
    made.formula = choice.formula;
    const std::string name = made.name;
    Result<Finish> added = add_step(std::move(changed), step, std::move(made));
    if (!added) return added.fault();
    return Made{std::move(*added), name};
}

}  // namespace lacquer
