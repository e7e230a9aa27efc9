// Opacities, masks and coordinates that leave 0..1 somewhere along the sweep, and values that are not numbers.
#include <array>
#include <cmath>
#include <optional>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/measure.h"

namespace lacquer {

namespace {

constexpr float leeway = 0.002F;
constexpr std::array looked_at = {0.0, 0.25, 0.5, 0.75, 1.0};

struct Outside {
    double share = 0;  // of the pixels
    double value = 0;  // of the dial
    std::string what;
};

// Share of the pixels with a part that `is_bad`.
template <class IsBad>
double share_of(const DrawnStep* drawn, int first_part, IsBad is_bad) {
    if (drawn == nullptr || drawn->picture.channels <= first_part) return 0;
    std::size_t bad = 0;
    for (int y = 0; y < drawn->picture.height; ++y) {
        for (int x = 0; x < drawn->picture.width; ++x) {
            bool found = false;
            for (int c = first_part; c < drawn->picture.channels; ++c)
                found = found || is_bad(drawn->picture.at(x, y)[c]);
            bad += found ? 1 : 0;
        }
    }
    return static_cast<double>(bad) / drawn->picture.width / drawn->picture.height;
}

bool is_no_number(float value) { return !std::isfinite(value); }
bool is_outside(float value) { return value < -leeway || value > 1 + leeway; }

class Search {
public:
    explicit Search(Swept& swept) : swept_(swept) {}
    const std::optional<Outside>& worst() const { return worst_; }

    void look_at(double value) {
        const CheckedFinish& checked = swept_.checked();
        for_each_formula(checked, [&](const Step& step, const Typed& typed) {
            const DrawnStep* drawn = swept_.step_at(step.name, value);
            note(share_of(drawn, 0, is_no_number), value, shown_name(step.name) + " isn't a number");
            if (finished_step(checked) == step.name && typed.type == Type::vec4)
                note(share_of(drawn, 3, is_outside), value, "the opacity leaves 0..1");
            for (const HandedOver& argument : handed_over(checked, step.formula)) {
                const bool is_mask = argument.role == "mask" || argument.role == "opacity";
                if (!is_mask) continue;
                const std::string words = words_of(step.formula, argument.span);
                const DrawnStep* handed = swept_.formula_at(step.name, words, value);
                if (handed == nullptr || handed->type != Type::number) continue;
                note(share_of(handed, 0, is_outside), value,
                     "the " + argument.role + " " + words + " of " + shown_name(step.name) + " leaves 0..1");
            }
            for (const Reading& reading : readings(step.formula)) {
                // What wraps may go on beyond the frame; a coordinate that isn't a number reads nothing.
                const std::string words = words_of(step.formula, reading.where);
                note(share_of(swept_.formula_at(step.name, words, value), 0, is_no_number), value,
                     "where " + shown_name(step.name) + " reads " + shown_name(reading.picture) + " isn't a number");
            }
        });
    }

private:
    void note(double share, double value, const std::string& what) {
        if (share > 0 && (!worst_ || share > worst_->share)) worst_ = Outside{share, value, what};
    }
    Swept& swept_;
    std::optional<Outside> worst_;
};

void measure_range(Swept& swept, Measured& measured) {
    Search search(swept);
    for (const double share : looked_at) {
        if (swept.called_off()) return;
        search.look_at(swept.value_at(share));
    }
    if (!search.worst()) {
        measured.verdict = Verdict::passes;
        measured.words = "no value below 0, above 1 or not a number reaches a mask or opacity";
        return;
    }
    measured.verdict = Verdict::falls_short;
    measured.numbers = {{"share", search.worst()->share}, {"at", search.worst()->value}};
    measured.words = "at " + swept.words_of(search.worst()->value) + " " + search.worst()->what + ", at " +
                     percent(search.worst()->share) + " of the pixels";
}

}  // namespace

Measure range_measure() {
    return {"range", "Range", "masks and opacities stay within 0..1, and all values are numbers", measure_range};
}

}  // namespace lacquer
