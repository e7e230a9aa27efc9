#include "core/finish/ticked_edits.h"

#include "core/base/text.h"
#include "core/finish/edits.h"

namespace lacquer {

namespace {

constexpr int most_numbers = 4;

std::string_view bare(std::string_view text) {
    const auto begin = text.find_first_not_of(" \t");
    if (begin == std::string_view::npos) return {};
    return text.substr(begin, text.find_last_not_of(" \t") - begin + 1);
}

Finish with_width(Finish finish, std::string_view step, int width) {
    const StepPlace place = place_of(finish, step);
    finish.coats[place.coat].steps[place.step].ticking.width = width;
    return finish;
}

}  // namespace

std::string header_text(const Step& step) {
    const std::string name = shown_name(step.name);
    return step.ticking.width > 0 ? name + ": " + std::to_string(step.ticking.width) : name;
}

std::string name_in_header(std::string_view typed) { return std::string(bare(typed.substr(0, typed.rfind(':')))); }

Result<Finish> set_header(Finish finish, std::string_view step, std::string_view typed) {
    int width = 0;
    if (const auto colon = typed.rfind(':'); colon != std::string_view::npos) {
        const std::string_view count = bare(typed.substr(colon + 1));
        if (count.size() != 1 || count[0] < '1' || count[0] > '0' + most_numbers) {
            return Fault{"edit.width", "a step has 1 to 4 numbers", "write 'smoke: 1' or 'smoke: 4', or the name alone",
                         Place{std::string(step), {}, 0, 0}, Severity::fault};
        }
        width = count[0] - '0';
    }
    const std::string name = name_in_header(typed);
    Result<Finish> renamed = rename(std::move(finish), step, name);
    if (!renamed) return renamed;
    return with_width(std::move(*renamed), identifier_from(name), width);
}

Finish declare_past(const CheckedFinish& checked, std::string_view step) {
    Finish finish = *checked.finish;
    const CheckedStep* asks = find_step(checked, step);
    const Step* own = find_step(finish, step);
    if (asks == nullptr || own == nullptr || !asks->fault || asks->fault->id != "finish.past") return finish;
    const Span span = asks->fault->place.span;
    if (span.end <= span.begin || span.end > own->formula.size()) return finish;
    const std::string named = own->formula.substr(span.begin, span.end - span.begin);
    const Step* target = find_step(finish, named);
    if (target == nullptr || target->ticking.width != 0) return finish;
    const auto is_good = [](const CheckedFinish& made, std::string_view name) {
        const CheckedStep* found = find_step(made, name);
        return found != nullptr && (!found->fault || found->fault->id == "finish.broken-source");
    };
    for (int width = 1; width <= most_numbers; ++width) {
        Finish said = with_width(finish, named, width);
        const CheckedFinish made = check_finish(std::make_shared<const Finish>(said), checked.catalogue, &checked);
        if (is_good(made, step) && is_good(made, named)) return said;
    }
    return finish;
}

}  // namespace lacquer
