// Any bytes as a tape, as a packet of the play link, and as an easing; what they give is played.
#include <unistd.h>

#include <cmath>
#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>
#include <string_view>

#include "core/drive/arguments.h"
#include "core/finish/tape_file.h"
#include "core/link/vocabulary.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    LinkNames names;
    names.cues = {"hit", "touch"};
    names.signals = {{"hull", SignalKind::integer, 0, 100}, {"keeper", SignalKind::place}};
    names.dials = {{"tint", "tint"}};
    if (const auto messages = messages_in({data, size})) {
        for (const LinkMessage& message : *messages) (void)understood(message, names);
        const auto again = messages_in(bundle_of(*messages));
        if (!again || again->size() != messages->size()) std::abort();
    }
    if (const auto easing = easing_named(text)) {
        for (const double t : {0.0, 0.3, 1.0}) {
            if (!std::isfinite((*easing)(t))) std::abort();
        }
    }
    Faults notices;
    const Result<NamedTape> tape = tape_from_text(text, "fuzz.tape", notices);
    if (!tape) return 0;
    for (const ResponseKind& kind : response_kinds()) {
        const Answerer answer = make_answerer({"r", std::string(kind.name), "hit", {}}, tape->tape);
        for (const double time : {0.0, 0.7, 5.0}) {
            if (!std::isfinite(answer(time).value[0])) std::abort();
        }
    }
    // Written again, it reads as the same.
    const std::string path = "/dev/shm/lacquer-fuzz-" + std::to_string(::getpid()) + ".tape";
    if (!save_tape(path, *tape)) return 0;
    const Result<NamedTape> again = load_tape(path, notices);
    std::remove(path.c_str());
    if (!again || again->tape != tape->tape) std::abort();
    return 0;
}
