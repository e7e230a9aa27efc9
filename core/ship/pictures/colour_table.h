// A finish that is a pure function of colour, as a table.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/ship/material.h"

namespace lacquer {

/// Why a finish is none; empty if each pixel's colour follows from that pixel's colour alone.
std::string why_no_table(const ShipMaterial& material);

/// The table, and how far looking up in it is from drawing.
struct ColourTable {
    std::string text;    ///< a `.cube` of `colour_table_side` entries a side, for colours from 0 to 1 in linear light
    double largest = 0;  ///< difference at 4096 colours between the entries, in linear light
};
inline constexpr int colour_table_side = 33;

/// As dials are at 0 s. Fault `ship.table` with the reason where it is no table.
Result<ColourTable> colour_table(const ShipMaterial& material);

}  // namespace lacquer
