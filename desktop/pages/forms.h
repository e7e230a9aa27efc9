// The pages behind a dial, a response, a cue and the finish itself.
#pragma once

#include <QString>
#include <string>

namespace lacquer {

class FieldForm;
struct Ground;
struct Models;

/// Name, code name, kind, default, range, increment, unit, note and what drives it.
void show_dial_form(FieldForm& form, Models& models, const std::string& dial);
/// Name, kind, cue and every argument of the kind.
void show_response_form(FieldForm& form, Models& models, const std::string& response);
/// Name, kind, range, and the zone of a switch.
void show_signal_form(FieldForm& form, Models& models, const std::string& signal);
/// Name, strength and direction of the cue at an index.
void show_cue_form(FieldForm& form, Models& models, std::size_t cue);
/// Numbers, start, size and keeping of a step that goes on from tick to tick; rate and reset of all of them.
void show_tick_form(FieldForm& form, Models& models, const std::string& step);
/// Name, brief, frame size and length.
void show_finish_form(FieldForm& form, Models& models);
/// Of the ground at an index: a picture's name, file, meaning and ways of being read; a gradient's or curve's name and
/// stops.
void show_ground_form(FieldForm& form, Models& models, std::size_t ground);

/// What the shelf says of a ground below its picture: by its kind.
QString ground_facts(const Ground& ground);

}  // namespace lacquer
