// Any bytes as a step's formula and as pasted text: live words, edits of parts, dials made of numbers, try-on.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string>

#include "core/finish/completion.h"
#include "core/finish/dial_making.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/finish/steps_text.h"
#include "core/finish/try_on.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string text(reinterpret_cast<const char*>(data), size);
    Finish finish = empty_finish();
    for (const char* name : {"edge", "rim"}) {
        Step step;
        step.name = name;
        step.formula = finish.coats[0].steps.empty() ? "uv.x" : text;
        finish.coats[0].steps.push_back(std::move(step));
    }
    const CheckedFinish checked = check_finish(std::make_shared<const Finish>(finish));
    constexpr std::size_t most_words = 12;
    std::size_t count = 0;
    for (const LiveWord& word : live_words(checked, text)) {
        if (word.span.end > size || word.span.begin > word.span.end) std::abort();
        if (++count > most_words) break;
        (void)extract_step(finish, "rim", word.span);
        (void)swap_arguments(finish, "rim", word.span);
        if (const auto offer = offer_dial(checked, "rim", word.span)) (void)make_dial(finish, *offer, true);
        (void)replace_words(finish, "rim", word.span, number_text(word.value, word.increment));
        (void)completions_at(checked, *checked.catalogue, "rim", text, word.span.end);
    }
    (void)invert_step(checked, "rim");
    (void)inline_step(checked, "edge");
    (void)out_of_order(finish);
    (void)call_with_defaults(checked, "rim", "glow");
    const auto pasted = paste_text(finish, "/nonexistent/fuzz.lacquer", "edge", text);
    if (pasted && find_step(pasted->finish, pasted->step) == nullptr) std::abort();
    return 0;
}
