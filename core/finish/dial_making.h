// Making a number of a formula a dial: the picture stays as it is.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/live_words.h"

namespace lacquer {

/// A place in a formula.
struct WordPlace {
    std::string step;
    Span span;
    friend bool operator==(const WordPlace&, const WordPlace&) = default;
};

/// What a number or colour would become: a dial with a name that says what it does, the range that its use allows, and
/// all places where the same value stands, the chosen one first.
struct DialOffer {
    Dial dial;
    std::vector<WordPlace> places;
};

/// The offer for the number, choice or colour at `span` of a step's formula. Faults: `edit.unknown`, `edit.dial`.
Result<DialOffer> offer_dial(const CheckedFinish& checked, std::string_view step, Span span);

/// Adds the offer's dial and names it at its first place, or `everywhere`. Faults: `edit.name`, `edit.span`.
Result<Finish> make_dial(Finish finish, const DialOffer& offer, bool everywhere);

}  // namespace lacquer
