// The parts of a step's own formula, with the words they stand in.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "core/finish/checked.h"

namespace lacquer {

/// The characters of the span.
inline std::string words_of(const std::string& formula, Span span) {
    return span.end <= formula.size() && span.begin <= span.end ? formula.substr(span.begin, span.end - span.begin)
                                                                : std::string();
}

/// A share of the pixels as words: "12 %", "under 1 %".
std::string percent(double share);

/// Calls `visit(const Step&, const Typed&)` on the steps that are on and whose formulas are single expressions without
/// a fault.
void for_each_formula(const CheckedFinish& checked, const std::function<void(const Step&, const Typed&)>& visit);

/// True if the step of this name goes by the shape of the frame, itself or by way of a step that it names.
bool goes_by_shape(const CheckedFinish& checked, const std::string& step);

/// The steps, dials and grounds that a formula's text names, in order of first use.
std::vector<std::string> names_in(const Finish& finish, const std::string& formula);

/// An argument of an operation or of `mix`, as it was handed over.
struct HandedOver {
    std::string role;  ///< as in the operation's file; of mix "mask"
    Span span;
    bool centred = false;  ///< the call has a choice `centring`, and it is made
};

/// A picture that is read at another place in a formula, by `texture`, or a step by `previous`.
struct Reading {
    std::string picture;
    Span where;
};

/// All readings in a formula.
std::vector<Reading> readings(const std::string& formula);

/// All arguments with a role in a step's formula.
std::vector<HandedOver> handed_over(const CheckedFinish& checked, const std::string& formula);

}  // namespace lacquer
