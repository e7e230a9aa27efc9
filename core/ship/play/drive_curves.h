// What a cue does to each driven dial, as keys with slopes.
#pragma once

#include <span>
#include <vector>

#include "core/finish/json.h"
#include "core/ship/material.h"

namespace lacquer {

/// A value at a time, with the slopes before and after it, units a second; between keys a cubic Hermite piece.
struct CurveKey {
    double at = 0;
    double value = 0;
    double before = 0;
    double after = 0;
};

/// As few keys as a greedy search finds, so that pieces between them are nowhere further from the samples than `error`.
/// Samples lie `step` seconds apart; where they jump, two keys are one sample apart.
std::vector<CurveKey> curve_keys(std::span<const double> samples, double step, double error);

/// The value of such a curve at a time; it stays before its first key and after its last.
double curve_value(std::span<const CurveKey> keys, double time);

/// For each cue, fired at 0 s as strongly as its pad has it, each driven dial's curve over the finish's length; and
/// without a cue under the name "". The error of each is stated.
Json drive_curves(const ShipMaterial& material);

}  // namespace lacquer
