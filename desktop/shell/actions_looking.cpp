// Actions of the menus Look and Dial.
#include <array>

#include "desktop/shell/actions.h"

namespace lacquer {

std::span<const ActionRow> looking_rows() {
    static constexpr std::array rows = {
        ActionRow{"bench", "Look", "Bench", "Ctrl+1", "build the effect: steps, stage and dials"}.shows(Checked::bench),
        ActionRow{"rehearse", "Look", "Rehearse", "Ctrl+2", "play the effect: pads, signals and lanes of time"}.shows(
            Checked::rehearse),
        ActionRow{"sweep", "Look", "Sweep", "Ctrl+3", "the effect at many values: sheet, measures, variants, looks"}
            .shows(Checked::sweep),
        ActionRow{"ship", "Look", "Ship", "Ctrl+4", "the effect for use elsewhere: shaders, play, page, verified"}
            .shows(Checked::ship),
        ActionRow{"", "Look"},
        ActionRow{"show_selected", "Look", "Show selected", "S", "show the selected step on the stage"}
            .needs(When::step)
            .in(on_step | on_stage),
        ActionRow{"show_finished", "Look", "Show the finished picture", "F", "show the finished picture on the stage"}
            .in(on_stage),
        ActionRow{"actual_size", "Look", "1:1 or fit", "Z",
                  "one picture pixel to one screen pixel, or the whole picture"}
            .in(on_stage),
        ActionRow{"zoom_in", "Look", "Larger", "Ctrl+=", "twice as large, about the mouse"}.in(on_stage),
        ActionRow{"zoom_out", "Look", "Smaller", "Ctrl+-", "half as large"}.in(on_stage),
        ActionRow{"detail", "Look", "Enlarged detail", "Shift+Z", "what is at the mouse, eight times as large"}
            .shows(Checked::detail)
            .in(on_stage),
        ActionRow{"", "Look"},
        ActionRow{"curtain", "Look", "Curtain", "C", "part the stage between before and after"}
            .shows(Checked::curtain)
            .in(on_stage),
        ActionRow{"curtain_other", "Look", "Curtain's left side…", "Shift+C",
                  "choose what stands on the left of the curtain"}
            .in(on_stage),
        ActionRow{"pin", "Look", "Pin beside", "P", "keep the selected step in view beside the other"}
            .shows(Checked::pinned)
            .in(on_stage),
        ActionRow{"core_sample", "Look", "Core sample", "K", "the values of all steps at one pixel"}
            .shows(Checked::core_sample)
            .in(on_stage),
        ActionRow{"transect", "Look", "Transect", "L", "the values of steps along a line"}
            .shows(Checked::transect)
            .in(on_stage),
        ActionRow{"pick_colour", "Look", "Pick a colour", "Q", "copy a pixel's colour, into the chosen colour dial too"}
            .in(on_stage),
        ActionRow{"", "Look"},
        ActionRow{"frame_shape", "Look", "Frame shape…", "W", "look at it in another frame: 21:9, square, 9:16"}.in(
            on_stage),
        ActionRow{"safe_area", "Look", "Safe area", "Shift+W", "lines within which screens show everything"}.shows(
            Checked::safe_area),
        ActionRow{"line_grid", "Look", "Line grid", "H", "straight lines in place of pictures, to see a warp"}.shows(
            Checked::line_grid),
        ActionRow{"backdrop", "Look", "Backdrop", "B", "behind what is transparent: checker, black, white, a colour"}
            .in(on_stage),
        ActionRow{"backdrop_colour", "Look", "Backdrop's colour…", "Shift+B",
                  "a colour of choice behind what is transparent"},
        ActionRow{"false_colours", "Look", "False colours", "Shift+K", "masks as a ramp of colours"}
            .shows(Checked::false_colours)
            .in(on_stage),
        ActionRow{"mark_range", "Look", "Mark outside 0..1", "Shift+M",
                  "stripes where values leave 0..1 or are not numbers"}
            .shows(Checked::mark_range)
            .in(on_stage),
        ActionRow{"brighter", "Look", "Look brighter", "]", "half a stop brighter, for looking only"},
        ActionRow{"darker", "Look", "Look darker", "[", "half a stop darker, for looking only"},
        ActionRow{"plain_look", "Look", "Reset view", "\\", "no exposure, marks, false colours or other frame"}.in(
            on_stage),
        ActionRow{"", "Look"},
        ActionRow{"copy_picture", "Look", "Copy picture", "Ctrl+Shift+C", "copy what is shown"}
            .needs(When::picture)
            .in(on_stage),
        ActionRow{"save_picture", "Look", "Save this picture…", "Ctrl+Alt+S",
                  "save what is shown as PNG, OpenEXR, TIFF, WebP or JPEG"}
            .needs(When::picture)
            .in(on_stage),
        ActionRow{"", "Look"},
        ActionRow{"focus_ladder", "Look", "Go to the steps", "F6", "put the keys on the steps"}.at(Where::bench),
        ActionRow{"focus_dials", "Look", "Go to the dials", "F7", "put the keys on the dials"}.at(Where::bench),
        ActionRow{"focus_stage", "Look", "Go to the stage", "F8", "put the keys on the stage"},
        ActionRow{"large_ladder", "Look", "Larger ladder", "Shift+F6", "more room for the steps, or as it was"}
            .at(Where::bench)
            .shows(Checked::large_ladder),
        ActionRow{"large_dials", "Look", "Larger dials", "Shift+F7", "more room for the dials, or as it was"}
            .at(Where::bench)
            .shows(Checked::large_dials),
        ActionRow{"stage_alone", "Look", "Stage alone", "Shift+F8", "nothing but the picture, or all again"}
            .shows(Checked::stage_alone)
            .in(on_stage),

        ActionRow{"add_dial", "Dial", "Add dial", "D", "make the number at hand a dial, or add one"}
            .at(Where::bench)
            .in(on_dial),
        ActionRow{"dial_everywhere", "Dial", "Make all equal numbers one dial", "Ctrl+Shift+D",
                  "wherever the same value stands"}
            .at(Where::bench)
            .needs(When::step),
        ActionRow{"dial_page", "Dial", "Change dial…", "Shift+D", "name, code name, range, unit, what drives it"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"type_value", "Dial", "Type the value", "V", "type the chosen dial's value"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"reset_dial", "Dial", "To its default", "Backspace", "back to the default; a held dial is let go"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"dial_colour", "Dial", "Change the colour…", "Shift+E", "by its shares and its brightness"}
            .at(Where::bench)
            .needs(When::colour_dial)
            .in(on_dial),
        ActionRow{"dial_use", "Dial", "Go to its next use", "Shift+V", "select the next step that uses the chosen dial"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"dial_up", "Dial", "Move up", "Ctrl+Alt+Up", "move the dials up"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"dial_down", "Dial", "Move down", "Ctrl+Alt+Down", "move the dials down"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"take_shared", "Dial", "Take a shared dial…", "", "a dial that other finishes read, too"},
        ActionRow{"value_as_default", "Dial", "Make the value the default", "", "the working value becomes the default"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"delete_dial", "Dial", "Delete dial", "", "delete the chosen dials"}
            .at(Where::bench)
            .needs(When::dial)
            .in(on_dial),
        ActionRow{"", "Dial"},
        ActionRow{"add_response", "Dial", "Add response", "R", "add something that moves a dial"},
        ActionRow{"response_page", "Dial", "Change responses…", "Shift+R", "kind, cue and arguments of the responses"},
        ActionRow{"delete_response", "Dial", "Delete response…", "", "delete something that moves dials"}.needs(
            When::response),
        ActionRow{"let_go", "Dial", "Let go of held dials", "Esc", "dials held by hand follow their formulas again"},
    };
    return rows;
}

}  // namespace lacquer
