#include "core/finish/dial_making.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"

namespace lacquer {

namespace {

Fault dial_fault(std::string_view step, std::string message, std::string mend) {
    return {"edit.dial", std::move(message), std::move(mend), {std::string(step), {}, 0, 0}, Severity::fault};
}

// The part of the tree that has `span` as one of its own parts, and which of them.
struct Around {
    const Expression* part = nullptr;
    std::size_t index = 0;
};
Around around(const Expression& e, Span span) {
    for (std::size_t i = 0; i < e.args.size(); ++i) {
        if (e.args[i].span == span) return {&e, i};
        if (const Around found = around(e.args[i], span); found.part != nullptr) return found;
    }
    return {};
}

std::string name_in(const Around& place, std::string_view step) {
    const Expression& e = *place.part;
    if (e.kind == ExpressionKind::call) {
        if (e.text == "smoothstep") return place.index == 0 ? "edge" : place.index == 1 ? "edge_end" : "value";
        if (e.text == "step") return "edge";
        if (e.text == "mix" && place.index == 2) return "share";
        if (e.text == "pow" && place.index == 1) return "power";
        if (e.text == "clamp" && place.index > 0) return place.index == 1 ? "least" : "most";
    }
    if (e.kind == ExpressionKind::binary) {
        const Expression& other = e.args[1 - place.index];
        const std::string of = other.kind == ExpressionKind::name ? other.text : std::string(step);
        if (e.text == "*") return of + "_gain";
        if (e.text == "/") return of + (place.index == 1 ? "_width" : "_gain");
        if (e.text == "+" || e.text == "-") return of + "_shift";
        return of + "_edge";
    }
    return std::string(step) + "_amount";
}

// 1, 2 or 5 times a power of ten, not below `value`.
double tidy_above(double value) {
    const double power = std::pow(10.0, std::floor(std::log10(value) + 1e-9));
    for (const double times : {1.0, 2.0, 5.0}) {
        if (times * power >= value * (1 - 1e-9)) return times * power;
    }
    return 10 * power;
}

void set_range(Dial& dial, const LiveWord& word) {
    const double value = word.value;
    if (word.range) {
        dial.least = std::min(word.range->first, value);
        dial.most = std::max(word.range->second, value);
    } else if (value < 0) {
        dial.most = tidy_above(-2 * value);
        dial.least = -dial.most;
    } else {
        dial.least = 0;
        dial.most = value <= 1 ? 1 : tidy_above(2 * value);
    }
    dial.increment = std::pow(10.0, std::floor(std::log10((dial.most - dial.least) / 100) + 1e-9));
    dial.unit = word.unit;
}

bool same_value(const LiveWord& a, const LiveWord& b) {
    if (a.kind == LiveKind::colour || b.kind == LiveKind::colour) return a.kind == b.kind && a.colour == b.colour;
    const auto is_number = [](const LiveWord& w) { return w.kind == LiveKind::number || w.kind == LiveKind::choice; };
    return is_number(a) && is_number(b) && a.value == b.value && !b.whole && a.kind == b.kind;
}

}  // namespace

Result<DialOffer> offer_dial(const CheckedFinish& checked, std::string_view step, Span span) {
    const Finish& finish = *checked.finish;
    const Step* found = find_step(finish, step);
    if (found == nullptr) {
        return Fault{"edit.unknown", "nothing is called '" + std::string(step) + "'", "", {}, Severity::fault};
    }
    const std::vector<LiveWord> words = live_words(checked, found->formula);
    const auto at = std::find_if(words.begin(), words.end(), [&](const LiveWord& w) {
        const bool value = w.kind == LiveKind::number || w.kind == LiveKind::choice || w.kind == LiveKind::colour;
        return value && w.span == span;
    });
    if (at == words.end()) return dial_fault(step, "there is no number here", "choose a number or a colour");
    if (at->whole) {
        return dial_fault(step, "this number counts turns or picks a part, and must stay whole",
                          "write it with a point, such as 8.0, if it may be any number");
    }
    DialOffer offer;
    Dial& dial = offer.dial;
    std::string wish = at->argument;
    if (wish.empty()) {
        const Result<Expression> parsed = parse(found->formula);
        const Around place = parsed && !is_code(found->formula) ? around(*parsed, span) : Around{};
        wish = at->kind == LiveKind::colour ? std::string(step) + "_colour"
               : place.part != nullptr      ? name_in(place, step)
                                            : std::string(step) + "_amount";
    }
    wish = identifier_from(wish);
    dial.name = free_name(finish, wish.empty() ? "dial" : wish);
    if (at->kind == LiveKind::colour) {
        dial.kind = DialKind::colour;
        dial.value = at->colour;
        dial.most = std::max(4.0, std::ceil(std::max({at->colour[0], at->colour[1], at->colour[2]})));
    } else {
        dial.kind = at->kind == LiveKind::choice ? DialKind::integer : DialKind::number;
        dial.value = {at->value, 0, 0};
        set_range(dial, *at);
        if (at->kind == LiveKind::choice) {
            dial.most = static_cast<double>(at->choices.size()) - 1;
            dial.increment = 1;
        }
    }
    dial.default_value = dial.value;
    offer.places.push_back({std::string(step), span});
    for_each_step(finish, [&](const Coat&, const Step& other) {
        for (const LiveWord& word : live_words(checked, other.formula)) {
            const WordPlace place{other.name, word.span};
            if (same_value(*at, word) && place != offer.places.front()) offer.places.push_back(place);
        }
    });
    return offer;
}

Result<Finish> make_dial(Finish finish, const DialOffer& offer, bool everywhere) {
    std::map<std::string, std::vector<Span>> by_step;
    for (std::size_t i = 0; i < (everywhere ? offer.places.size() : 1); ++i) {
        by_step[offer.places[i].step].push_back(offer.places[i].span);
    }
    for (auto& [name, spans] : by_step) {
        // From the end, so that the places before stay where they are.
        std::sort(spans.begin(), spans.end(), [](Span a, Span b) { return a.begin > b.begin; });
        for (const Span span : spans) {
            const Step* step = find_step(finish, name);
            std::string text = offer.dial.name;
            const bool four = step != nullptr && offer.dial.kind == DialKind::colour &&
                              step->formula.compare(span.begin, 4, "vec4") == 0;
            if (four) {
                const std::string old = step->formula.substr(span.begin, span.end - span.begin);
                text = "vec4(" + text + "," + old.substr(old.rfind(',') + 1);
            }
            Result<Finish> replaced = replace_words(std::move(finish), name, span, text);
            if (!replaced) return replaced;
            finish = std::move(*replaced);
        }
    }
    return add_dial(std::move(finish), offer.dial);
}

}  // namespace lacquer
