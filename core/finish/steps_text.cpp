#include "core/finish/steps_text.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/lang/rename.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

// In the text of a whole coat.
constexpr const char* copied_key = "copied_as_coat";

using Names = std::set<std::string, std::less<>>;

void add_names(const std::string& formula, Names& names) {
    const Result<std::vector<Token>> tokens = tokenize(formula);
    if (!tokens) return;
    for (const Token& token : *tokens) {
        if (token.kind == TokenKind::name) names.emplace(token.text);
    }
}

bool listens_to(const Response& response, const std::string& cue) {
    if (response.cue == cue) return true;
    return std::any_of(response.settings.begin(), response.settings.end(), [&](const auto& setting) {
        const std::string* word = std::get_if<std::string>(&setting.second);
        return word != nullptr && *word == cue;
    });
}

bool reads_from(const Ground& ground, const Names& names) {
    const std::vector<GroundPicture> pictures = ground_pictures(ground);
    return names.contains(ground.name) ||
           std::any_of(pictures.begin(), pictures.end(),
                       [&](const GroundPicture& picture) { return names.contains(picture.name); });
}

// These names, and everything but coats that the steps name, also by way of dials.
void add_what_is_named(Finish& fragment, const Finish& finish, const std::string& finish_path, Names names = {}) {
    for_each_step(fragment, [&](const Coat&, const Step& step) {
        add_names(step.formula, names);
        add_names(step.ticking.starts, names);
    });
    for (std::size_t before = 0; before != names.size();) {
        before = names.size();
        for (const Dial& dial : finish.dials) {
            if (names.contains(dial.name)) add_names(dial.formula, names);
        }
        for (Response response : finish.responses) {
            if (!names.contains(response.name)) continue;
            for (const std::string* formula : formulas_of(response)) add_names(*formula, names);
        }
        for (Ground ground : finish.grounds) {
            if (auto* drops = ground.as<DropletsGround>(); drops != nullptr && reads_from(ground, names)) {
                for (const std::vector<std::string*>& own : {names_in(*drops), cues_in(*drops)}) {
                    for (const std::string* name : own) names.insert(*name);
                }
                for (const DropFormula& formula : formulas_of(*drops)) add_names(*formula.text, names);
            }
        }
        for (const Signal& signal : finish.signals) {
            if (names.contains(signal.name) && !signal.zone.of.empty()) names.insert(signal.zone.of);
        }
    }
    const auto copy = [&](const auto& from, auto& to) {
        for (const auto& thing : from) {
            if (names.contains(thing.name)) to.push_back(thing);
        }
    };
    copy(finish.dials, fragment.dials);
    copy(finish.responses, fragment.responses);
    copy(finish.signals, fragment.signals);
    for (const Ground& ground : finish.grounds) {
        for (const GroundPicture& picture : ground_pictures(ground)) {
            if (!names.contains(picture.name) && !names.contains(ground.name)) continue;
            names.insert(ground.name);
            if (const std::string* other = other_of(ground); other != nullptr && !other->empty()) names.insert(*other);
        }
    }
    copy(finish.grounds, fragment.grounds);
    for (Ground& ground : fragment.grounds) {
        for (std::string* path : paths_of(ground)) *path = picture_path(finish_path, *path);
    }
    for (const CueKind& cue : finish.cues) {
        const bool heard = std::any_of(fragment.responses.begin(), fragment.responses.end(),
                                       [&](const Response& r) { return listens_to(r, cue.name); });
        if (heard || names.contains(cue.name)) fragment.cues.push_back(cue);
    }
}

Finish bare_copy(const Finish& finish) {
    Finish fragment;
    fragment.name = finish.name;
    fragment.frame_width = finish.frame_width;
    fragment.frame_height = finish.frame_height;
    return fragment;
}

Fault paste_fault(std::string message, std::string mend) {
    return {"edit.paste", std::move(message), std::move(mend), {}, Severity::fault};
}

// Lines that say `name = formula`; a line that does not begin so goes on with the one before.
Result<Finish> from_lines(std::string_view text) {
    Finish fragment;
    fragment.coats.push_back(Coat{"Pasted", "", true, false, {}, {}});
    std::vector<Step>& steps = fragment.coats[0].steps.own();
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size());
        std::string_view line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
        const std::size_t equals = line.find('=');
        const std::string name =
            equals == std::string_view::npos ? std::string() : identifier_from(line.substr(0, equals));
        const bool begins = !name.empty() && line.front() != ' ' && line.front() != '\t' &&
                            (equals + 1 >= line.size() || line[equals + 1] != '=') &&
                            shown_name(name).size() + 2 >= equals;
        if (begins) {
            Step step;
            step.name = name;
            const std::size_t first = line.find_first_not_of(" \t", equals + 1);
            step.formula = first == std::string_view::npos ? std::string() : std::string(line.substr(first));
            steps.push_back(std::move(step));
        } else if (line.find_first_not_of(" \t") != std::string_view::npos) {
            if (steps.empty()) return paste_fault("this isn't a step", "copy steps first, or write name = formula");
            steps.back().formula += '\n' + std::string(line);
        }
    }
    if (steps.empty()) return paste_fault("there is nothing to paste", "copy steps first, or write name = formula");
    return fragment;
}

class Paster {
public:
    Paster(Finish finish, Finish fragment, const std::string& finish_path)
        : finish_(std::move(finish)), fragment_(std::move(fragment)), finish_path_(finish_path) {}

    Result<StepEdit> run(std::string_view after, bool as_coats) {
        if (step_count(fragment_) == 0) return add_parts(after);
        take_all(fragment_.grounds, finish_.grounds, true);
        take_all(fragment_.signals, finish_.signals, true);
        take_all(fragment_.responses, finish_.responses, false);
        take_all(fragment_.dials, finish_.dials, false);
        for (const CueKind& cue : fragment_.cues) {
            const bool known = std::any_of(finish_.cues.begin(), finish_.cues.end(),
                                           [&](const CueKind& own) { return own.name == cue.name; });
            if (!known) finish_.cues.push_back(cue);
        }
        std::string at(after);
        if (finish_.coats.empty()) finish_.coats.push_back(Coat{"Coat 1", "", true, false, {}, {}});
        std::size_t coat = place_of(finish_, at).coat;
        for (Coat& pasted : fragment_.coats) {
            std::vector<Step> steps = std::move(pasted.steps);
            pasted.steps.clear();
            if (as_coats) {
                ++coat;
                pasted.folded = false;
                finish_.coats.insert(finish_.coats.begin() + static_cast<std::ptrdiff_t>(coat), std::move(pasted));
            }
            for (Step& step : steps) {
                step.formula = renamed(std::move(step.formula));
                step.ticking.starts = renamed(std::move(step.ticking.starts));
                const std::string name = free_name(finish_, step.name);
                if (name != step.name) renames_.emplace_back(step.name, name);
                step.name = name;
                if (as_coats) {
                    finish_.coats[coat].steps.push_back(std::move(step));
                } else {
                    Result<Finish> added = add_step(std::move(finish_), at, std::move(step));
                    if (!added) return added.fault();
                    finish_ = std::move(*added);
                }
                at = name;
            }
        }
        return StepEdit{std::move(finish_), at};
    }

private:
    // What was copied by itself comes once more, also where it came from.
    Result<StepEdit> add_parts(std::string_view after) {
        const auto add = [&](auto& from, auto& to) {
            for (auto& thing : from) {
                fit(thing);
                const std::string name = free_name(finish_, thing.name);
                if (name != thing.name) renames_.emplace_back(thing.name, name);
                thing.name = name;
                to.push_back(std::move(thing));
            }
            return !from.empty();
        };
        bool any = add(fragment_.grounds, finish_.grounds);
        any = add(fragment_.signals, finish_.signals) || any;
        any = add(fragment_.responses, finish_.responses) || any;
        any = add(fragment_.dials, finish_.dials) || any;
        for (CueKind& cue : fragment_.cues) {
            for (int i = 2; find_cue(finish_, cue.name) != nullptr; ++i) cue.name = cue.name + std::to_string(i);
            finish_.cues.push_back(std::move(cue));
            any = true;
        }
        if (!any) return paste_fault("there is nothing in it to paste", "copy steps, dials or grounds first");
        return StepEdit{std::move(finish_), std::string(after)};
    }

    std::string renamed(std::string formula) const {
        // By way of names that no formula can have: what changes its name may take one that another gives up.
        for (std::size_t i = 0; i < renames_.size(); ++i) {
            formula = rename_in_formula(formula, renames_[i].first, "lqmoved" + std::to_string(i));
        }
        for (std::size_t i = 0; i < renames_.size(); ++i) {
            formula = rename_in_formula(formula, "lqmoved" + std::to_string(i), renames_[i].second);
        }
        return formula;
    }

    // Takes what is not there yet. A ground of a name that is there is the one that is there.
    template <class Things>
    void take_all(const Things& from, Things& to, bool by_name) {
        for (auto thing : from) {
            fit(thing);
            const auto own = std::find_if(to.begin(), to.end(), [&](const auto& t) { return t.name == thing.name; });
            if (own != to.end() && (by_name || *own == thing)) continue;
            const std::string name = free_name(finish_, thing.name);
            if (name != thing.name) renames_.emplace_back(thing.name, name);
            thing.name = name;
            to.push_back(std::move(thing));
        }
    }
    void fit(Ground& ground) const {
        for (std::string* path : paths_of(ground)) *path = stored_picture_path(finish_path_, *path);
        auto* drops = ground.as<DropletsGround>();
        if (drops == nullptr) return;
        for (const DropFormula& formula : formulas_of(*drops)) *formula.text = renamed(std::move(*formula.text));
        for (std::string* name : names_in(*drops)) *name = renamed(std::move(*name));
    }
    void fit(Dial& dial) const { dial.formula = renamed(std::move(dial.formula)); }
    void fit(Signal&) const {}
    void fit(Response& response) const {
        for (std::string* formula : formulas_of(response)) *formula = renamed(std::move(*formula));
    }

    Finish finish_;
    Finish fragment_;
    const std::string& finish_path_;
    std::vector<std::pair<std::string, std::string>> renames_;
};

}  // namespace

std::string steps_as_text(const Finish& finish, const std::string& finish_path, const std::vector<std::string>& names) {
    Finish fragment = bare_copy(finish);
    for (const Coat& coat : finish.coats) {
        Coat part = coat;
        std::erase_if(part.steps.own(), [&](const Step& step) {
            return std::find(names.begin(), names.end(), step.name) == names.end();
        });
        if (!part.steps.empty()) fragment.coats.push_back(std::move(part));
    }
    add_what_is_named(fragment, finish, finish_path);
    return finish_to_text(fragment);
}

std::string parts_as_text(const Finish& finish, const std::string& finish_path, const std::vector<std::string>& names) {
    Finish fragment = bare_copy(finish);
    add_what_is_named(fragment, finish, finish_path, Names(names.begin(), names.end()));
    return finish_to_text(fragment);
}

std::string coat_as_text(const Finish& finish, const std::string& finish_path, std::size_t coat) {
    Finish fragment = bare_copy(finish);
    if (coat < finish.coats.size()) fragment.coats.push_back(finish.coats[coat]);
    keep_key(fragment.extra, copied_key, "true");
    add_what_is_named(fragment, finish, finish_path);
    return finish_to_text(fragment);
}

Result<StepEdit> paste_text(Finish finish, const std::string& finish_path, std::string_view after,
                            std::string_view text) {
    const std::size_t first = text.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos) return paste_fault("there is nothing to paste", "copy steps first");
    if (text[first] == '{') {
        Result<OpenedFinish> opened = finish_from_text(text, "the clipboard");
        if (!opened) return paste_fault("this text holds no steps: " + opened.fault().message, "copy steps first");
        const bool coats = kept_json(opened->finish.extra, copied_key).has_value();
        return Paster(std::move(finish), std::move(opened->finish), finish_path).run(after, coats);
    }
    Result<Finish> fragment = from_lines(text.substr(first));
    if (!fragment) return fragment.fault();
    return Paster(std::move(finish), std::move(*fragment), finish_path).run(after, false);
}

}  // namespace lacquer
