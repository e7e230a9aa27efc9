// What a host has to supply for a set, as text for a ticket.
#pragma once

#include <string>

#include "core/ship/material.h"

namespace lacquer {

/// Plain text, a line a thing: pictures, values, cues, ticks, and what to know before.
std::string host_checklist(const ShipMaterial& material);

}  // namespace lacquer
