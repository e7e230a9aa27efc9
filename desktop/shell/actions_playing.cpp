// Actions of the menus Variant, Time, Cue and Help.
#include <array>

#include "desktop/shell/actions.h"

namespace lacquer {

std::span<const ActionRow> playing_rows() {
    static constexpr std::array rows = {
        ActionRow{"sweep_dial", "Variant", "Sweep the dial", "Ctrl+Alt+W", "the chosen dial at many values, measured"}
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"sheet_sweep", "Variant", "Show the sweep", "Alt+1", "cells along a dial, or a table of two"}
            .at(Where::sweep)
            .shows(Checked::sheet_sweep),
        ActionRow{"sheet_looks", "Variant", "Show looks set aside", "Alt+2", "all looks that were set aside"}
            .at(Where::sweep)
            .shows(Checked::sheet_looks),
        ActionRow{"sheet_lots", "Variant", "Show lots", "Alt+3", "eight looks drawn by lot"}
            .at(Where::sweep)
            .shows(Checked::sheet_lots),
        ActionRow{"compare_cells", "Variant", "Compare two cells", "Ctrl+Alt+X",
                  "the marked cell and the one at hand, or its neighbour"}
            .at(Where::sweep)
            .needs(When::cells)
            .shows(Checked::comparing)
            .in(on_cell),
        ActionRow{"turn_compared", "Variant", "Beside or under the curtain", "Ctrl+Alt+Y", "how two cells are compared"}
            .at(Where::sweep)
            .in(on_cell),
        ActionRow{"save_sheet", "Variant", "Save the sheet…", "", "all cells with their words, as one picture"}
            .at(Where::sweep)
            .needs(When::cells)
            .in(on_cell),
        ActionRow{"save_cells", "Variant", "Save the cells…", "", "each cell as a picture of its own, numbered"}
            .at(Where::sweep)
            .needs(When::cells)
            .in(on_cell),
        ActionRow{"draw_lots", "Variant", "Draw again", "Ctrl+Alt+E", "eight other looks from the next seed"}.at(
            Where::sweep),
        ActionRow{"draw_closer", "Variant", "Draw around the cell", "Ctrl+Alt+R",
                  "eight looks nearer to the one at hand"}
            .at(Where::sweep)
            .needs(When::cells)
            .in(on_cell),
        ActionRow{"", "Variant"},
        ActionRow{"set_aside", "Variant", "Set this look aside", "Ctrl+Alt+A",
                  "all values and formulas as they are, with a picture"}
            .in(on_stage),
        ActionRow{"name_look", "Variant", "Words of the look…", "", "a line of words for a look that was set aside"}
            .at(Where::sweep)
            .needs(When::look)
            .in(on_cell),
        ActionRow{"delete_look", "Variant", "Delete the look", "", "throw away a look that was set aside"}
            .at(Where::sweep)
            .needs(When::look)
            .in(on_cell),
        ActionRow{"", "Variant"},
        ActionRow{"add_variant", "Variant", "New variant", "Ctrl+Alt+V",
                  "a named kind of this finish: what is changed goes into it"}
            .in(on_variant),
        ActionRow{"cell_variant", "Variant", "Cell as a variant", "Ctrl+Alt+J",
                  "a new variant with what the cell at hand shows"}
            .at(Where::sweep)
            .needs(When::cells)
            .in(on_cell),
        ActionRow{"next_variant", "Variant", "Next variant", "Alt+PgDown", "put the next variant on"}.in(on_variant),
        ActionRow{"previous_variant", "Variant", "Previous variant", "Alt+PgUp",
                  "put the previous variant on, or the base"}
            .in(on_variant),
        ActionRow{"into_base", "Variant", "Write into the base", "Ctrl+Alt+B",
                  "what the variant has of the thing at hand, for all"}
            .needs(When::variant),
        ActionRow{"follow_base", "Variant", "Follow the base", "Ctrl+Alt+F",
                  "the thing at hand is no longer the variant's own"}
            .needs(When::variant),
        ActionRow{"copy_variant", "Variant", "Copy the variant", "", "once more, under another name"}
            .needs(When::variant)
            .in(on_variant),
        ActionRow{"rename_variant", "Variant", "Rename the variant…", "", "another name for it"}
            .needs(When::variant)
            .in(on_variant),
        ActionRow{"variant_earlier", "Variant", "Move the variant back", "", "one place back in the strip"}
            .needs(When::variant)
            .in(on_variant),
        ActionRow{"variant_later", "Variant", "Move the variant on", "", "one place on in the strip"}
            .needs(When::variant)
            .in(on_variant),
        ActionRow{"variant_finish", "Variant", "Variant as a finish…", "", "a finish of its own, saved as a new file"}
            .needs(When::variant)
            .in(on_variant),
        ActionRow{"bring_variants", "Variant", "Variants of a finish…", "", "bring in the variants of another finish"}
            .in(on_variant),
        ActionRow{"delete_variant", "Variant", "Delete the variant", "", "take it out; the base stays"}
            .needs(When::variant)
            .in(on_variant),

        ActionRow{"play", "Time", "Play or pause", "Space", "let time run, or stop it"}
            .shows(Checked::playing)
            .in(on_rule | on_lanes),
        ActionRow{"record", "Time", "Record", "Shift+Space", "play, and put what is pressed and set on the tape"}
            .shows(Checked::recording)
            .in(on_rule | on_lanes),
        ActionRow{"keep_live", "Time", "Keep what was live", "Ctrl+K", "put on the tape what was just played live"}
            .needs(When::live)
            .in(on_lanes),
        ActionRow{"loop", "Time", "Loop", "Ctrl+L", "begin again at the end, or stop there"}
            .shows(Checked::looping)
            .in(on_rule | on_lanes),
        ActionRow{"slow_motion", "Time", "Slow motion", "J", "full speed, a half, a quarter, a tenth"}
            .shows(Checked::slow)
            .in(on_rule),
        ActionRow{"all_time", "Time", "Show all time", "Ctrl+0", "the whole length in the lanes"}
            .at(Where::rehearse)
            .in(on_lanes),
        ActionRow{"time_nearer", "Time", "Time larger", "Alt+=", "half as much time in the lanes"}
            .at(Where::rehearse)
            .in(on_lanes),
        ActionRow{"time_farther", "Time", "Time smaller", "Alt+-", "twice as much time in the lanes"}
            .at(Where::rehearse)
            .in(on_lanes),
        ActionRow{"", "Time"},
        ActionRow{"frame_back", "Time", "Previous frame", ",", "one sixtieth of a second back"}.in(on_rule),
        ActionRow{"frame_on", "Time", "Next frame", ".", "one sixtieth of a second on"}.in(on_rule),
        ActionRow{"to_start", "Time", "To the start", "Home", "go to 0 s"}.in(on_rule),
        ActionRow{"", "Time"},
        ActionRow{"listen", "Time", "Listen to a game", "Ctrl+Shift+L", "play along with what a game sends, or stop"}
            .shows(Checked::listening),
        ActionRow{"check_rates", "Time", "Check frame rates", "Ctrl+R",
                  "the tape at 24, 30, 60, 144 and uneven frames"},
        ActionRow{"", "Time"},
        ActionRow{"open_tape", "Time", "Open a tape…", "", "play against a tape from a file"}.in(on_lanes),
        ActionRow{"save_tape", "Time", "Save the tape…", "", "write the tape to a file of its own"}.in(on_lanes),
        ActionRow{"delete_events", "Time", "Delete events", "", "delete the chosen cues and changes"}
            .at(Where::rehearse)
            .needs(When::chosen_events)
            .in(on_lanes),
        ActionRow{"clear_tape", "Time", "Delete all events", "", "delete every cue and change on the tape"}
            .needs(When::events)
            .in(on_lanes),

        ActionRow{"cue_1", "Cue", "Press cue 1", "1", "play the first cue now"}.needs(When::cues),
        ActionRow{"cue_2", "Cue", "Press cue 2", "2", "play the second cue now"}.needs(When::cues),
        ActionRow{"cue_3", "Cue", "Press cue 3", "3", "play the third cue now"}.needs(When::cues),
        ActionRow{"cue_4", "Cue", "Press cue 4", "4", "play the fourth cue now"}.needs(When::cues),
        ActionRow{"cue_5", "Cue", "Press cue 5", "5", "play the fifth cue now"}.needs(When::cues),
        ActionRow{"cue_6", "Cue", "Press cue 6", "6", "play the sixth cue now"}.needs(When::cues),
        ActionRow{"cue_7", "Cue", "Press cue 7", "7", "play the seventh cue now"}.needs(When::cues),
        ActionRow{"cue_8", "Cue", "Press cue 8", "8", "play the eighth cue now"}.needs(When::cues),
        ActionRow{"cue_9", "Cue", "Press cue 9", "9", "play the ninth cue now"}.needs(When::cues),
        ActionRow{"", "Cue"},
        ActionRow{"add_cue", "Cue", "Add cue", "Alt+Q", "add something that happens in play"}.in(on_cue),
        ActionRow{"cue_page", "Cue", "Change cues…", "Shift+Q", "name and strength of the cues"}.in(on_cue),
        ActionRow{"delete_cue", "Cue", "Delete cue…", "", "delete a cue and its events on the tape"}
            .needs(When::cue)
            .in(on_cue),
        ActionRow{"move_cue_earlier", "Cue", "Move earlier", "Ctrl+Alt+Left",
                  "the chosen cues one pad and one key earlier"}
            .needs(When::cue)
            .in(on_cue),
        ActionRow{"move_cue_later", "Cue", "Move later", "Ctrl+Alt+Right", "the chosen cues one pad and one key later"}
            .needs(When::cue)
            .in(on_cue),
        ActionRow{"", "Cue"},
        ActionRow{"add_signal", "Cue", "Add signal", "Alt+W", "add something with a value all the time: health, a zone"}
            .in(on_signal),
        ActionRow{"signal_page", "Cue", "Change signals…", "Shift+J", "name, kind, range and zone of the signals"}.in(
            on_signal),
        ActionRow{"delete_signal", "Cue", "Delete signal…", "", "delete a signal and its events on the tape"}
            .needs(When::signal)
            .in(on_signal),

        ActionRow{"change_key", "Help", "Change a key…", "", "another key for any action"},
        ActionRow{"commands", "Help", "All commands…", "F4", "every action, by what it is called or does"},
        ActionRow{"notices", "Help", "Notices…", "Shift+F4", "what was said last"},
        ActionRow{"last_end", "Help", "What happened last time…", "",
                  "what Lacquer was doing when it last ended in the middle of something"},
        ActionRow{"help", "Help", "What is this?", "F1", "explain what the keys are on"},
        ActionRow{"shortcuts", "Help", "All keys", "Shift+F1", "every key on one sheet"},
    };
    return rows;
}

}  // namespace lacquer
