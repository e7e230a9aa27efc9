#include "desktop/shell/actions.h"

#include <algorithm>
#include <array>
#include <cstring>

namespace lacquer {

namespace {

constexpr std::array rows = {
    ActionRow{"new_finish", "Finish", "New", "Ctrl+N", "start an empty finish"},
    ActionRow{"new_from_picture", "Finish", "New from a picture…", "Ctrl+Shift+N", "a new finish, sized to a picture"}
        .in(on_start),
    ActionRow{"open_finish", "Finish", "Open…", "Ctrl+O", "open a finish"}.in(on_start),
    ActionRow{"open_recent", "Finish", "Open recent…", "Ctrl+Alt+O", "one that was opened or saved recently"}.in(
        on_start),
    ActionRow{"open_demo", "Finish", "Demos…", "Ctrl+Shift+O", "open a copy of a finish that comes with Lacquer"}.in(
        on_start),
    ActionRow{"save_finish", "Finish", "Save", "Ctrl+S", "save the finish"},
    ActionRow{"save_finish_as", "Finish", "Save as…", "Ctrl+Shift+S",
              "save the finish in another place and go on there"},
    ActionRow{"save_copy", "Finish", "Save a copy…", "", "save a copy elsewhere and go on here"},
    ActionRow{"collect", "Finish", "Collect…", "", "the finish with all its files, in one folder"},
    ActionRow{"", "Finish"},
    ActionRow{"finish_page", "Finish", "Name, brief, frame…", "Ctrl+B", "what the effect must do, and its frame"},
    ActionRow{"preferences", "Finish", "Preferences…", "Ctrl+,", "drawing, memory, saving, keys"},
    ActionRow{"", "Finish"},
    ActionRow{"quit", "Finish", "Quit", "Ctrl+Q", "close Lacquer"},

    ActionRow{"undo", "Edit", "Undo", "Ctrl+Z", "take back the last change"}.needs(When::can_undo),
    ActionRow{"redo", "Edit", "Redo", "Ctrl+Shift+Z", "do it again"}.needs(When::can_redo),
    ActionRow{"history", "Edit", "History…", "Ctrl+H", "all changes, to go back to any"},
    ActionRow{"", "Edit"},
    ActionRow{"copy", "Edit", "Copy", "Ctrl+C", "what is selected, as text; or the core sample's numbers"}.in(
        on_step | on_dial | on_ground | on_lanes),
    ActionRow{"cut", "Edit", "Cut", "Ctrl+X", "copy what is selected and delete it"}
        .at(Where::bench)
        .in(on_step | on_dial | on_ground),
    ActionRow{"paste", "Edit", "Paste", "Ctrl+V", "what was copied, below what is selected; a picture becomes a ground"}
        .at(Where::bench)
        .in(on_step | on_coat | on_dial | on_ground),
    ActionRow{"select_all", "Edit", "Select all", "Ctrl+A",
              "all steps, dials, grounds or events, by what the keys are on"},
    ActionRow{"mend", "Edit", "Mend", "M", "the first repair that is offered here"}.at(Where::bench),

    ActionRow{"add_picture", "Ground", "Add picture…", "G", "add a picture to work on"}.in(on_ground),
    ActionRow{"add_scene", "Ground", "Add stand-in scene…", "Alt+S", "a small world with depth, normals and objects"}
        .in(on_ground),
    ActionRow{"add_gradient", "Ground", "Add gradient", "Alt+G", "add colours along a line, read by at()"}
        .at(Where::bench)
        .in(on_ground),
    ActionRow{"add_curve", "Ground", "Add curve", "Alt+C", "add heights along a line, read by at()"}
        .at(Where::bench)
        .in(on_ground),
    ActionRow{"add_droplets", "Ground", "Add droplets", "Ctrl+Alt+D", "add many small sprites: rain, sparks, splats"}
        .at(Where::bench)
        .in(on_ground),
    ActionRow{"add_sprite_part", "Ground", "Add sprite part…", "Alt+P",
              "to the sprite chosen on the shelf, or a new one"}
        .in(on_ground),
    ActionRow{"add_marks", "Ground", "Mark objects", "Alt+M", "point at objects of the scene to choose them"}
        .at(Where::bench)
        .needs(When::layers)
        .shows(Checked::pointing)
        .in(on_ground),
    ActionRow{"", "Ground"},
    ActionRow{"ground_shelf", "Ground", "Ground shelf", "Shift+G", "all that the finish reads, in place of the dials"}
        .at(Where::bench)
        .shows(Checked::shelf),
    ActionRow{"ground_page", "Ground", "Change ground…", "Ctrl+G", "file, layers, place, hour, stops of what is read"}
        .at(Where::bench)
        .in(on_ground),
    ActionRow{"replace_ground", "Ground", "Replace ground…", "Ctrl+Shift+G",
              "another file in its place; all that reads it follows"}
        .at(Where::bench)
        .needs(When::ground)
        .in(on_ground),
    ActionRow{"find_missing", "Ground", "Find what is missing…", "", "where a picture is that is not where it was"}
        .needs(When::missing)
        .in(on_ground),
    ActionRow{"delete_ground", "Ground", "Delete ground", "", "the one that is chosen on the shelf"}
        .at(Where::bench)
        .needs(When::ground)
        .in(on_ground),
    ActionRow{"", "Ground"},
    ActionRow{"camera", "Ground", "Move the camera", "Y", "turn, move and bring nearer the scene's camera"}
        .needs(When::scene)
        .shows(Checked::camera)
        .in(on_stage),
    ActionRow{"camera_key", "Ground", "Camera stop here", "Shift+Y", "a stop of the camera's path at this moment"}
        .needs(When::scene)
        .in(on_stage),
    ActionRow{"camera_home", "Ground", "Reset camera", "Alt+Y", "back to the place's own view, without a path"}
        .needs(When::scene)
        .in(on_stage),

    ActionRow{"add_step", "Step", "Add step", "A", "add a step below the selected one"}
        .at(Where::bench)
        .in(on_step | on_coat),
    ActionRow{"add_step_above", "Step", "Add step above", "Alt+A", "add a step above the selected one"}
        .at(Where::bench)
        .in(on_step),
    ActionRow{"try_on", "Step", "Try on…", "T", "all operations, already applied to the selected step"}
        .at(Where::bench)
        .in(on_step),
    ActionRow{"try_instead", "Step", "Try in its place…", "Shift+T", "another operation, keeping what carries over"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"edit_formula", "Step", "Edit formula", "E", "type into the selected step's formula"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"rename_step", "Step", "Rename", "F2", "rename the step and every use of it"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"note_step", "Step", "Note", "N", "write a line beside the step"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"toggle_step", "Step", "Switch on or off", "O", "a step that is off passes on what it takes"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"invert_step", "Step", "Invert", "I", "1 minus what it is: the edge becomes the middle"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"swap_parts", "Step", "Swap two parts", "X", "the two sides of the operator or call at the word"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"extract_part", "Step", "Extract to a step", "Ctrl+E", "the marked part of the formula becomes a step"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"inline_step", "Step", "Inline", "Ctrl+I", "its formula in place of its name, then it goes"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"duplicate_step", "Step", "Duplicate", "Ctrl+D", "the same step once more"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"tick_page", "Step", "From tick to tick…", "Ctrl+T", "how it starts, its size, and how often all ticks"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"stand_in", "Step", "Mark as stand-in", "Shift+S", "something else is to take its place later"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"use_instead", "Step", "Replace everywhere…", "U", "use something else wherever this step is named"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"", "Step"},
    ActionRow{"step_up", "Step", "Move up", "Alt+Up", "move the steps up"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"step_down", "Step", "Move down", "Alt+Down", "move the steps down"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"group_steps", "Step", "Group under a heading", "Ctrl+Alt+G",
              "the selected steps become a coat of their own"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"delete_step", "Step", "Delete", "Shift+Del", "delete the selected steps"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"", "Step"},
    ActionRow{"select_above", "Step", "Select the one above", "Ctrl+Up", "select the step above"}.at(Where::bench),
    ActionRow{"select_below", "Step", "Select the one below", "Ctrl+Down", "select the step below"}.at(Where::bench),
    ActionRow{"to_source", "Step", "Go to its source", "Alt+Left", "to what the step comes from"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"to_user", "Step", "Go to its next use", "Alt+Right", "to what uses the step"}
        .at(Where::bench)
        .needs(When::step)
        .in(on_step),
    ActionRow{"filter_steps", "Step", "Filter", "/", "show only steps that say what is typed"}.at(Where::bench),

    ActionRow{"add_coat", "Coat", "New coat", "Ctrl+Alt+N", "add a heading below the present coat"}
        .at(Where::bench)
        .in(on_coat),
    ActionRow{"rename_coat", "Coat", "Rename coat", "Shift+F2", "rename the present coat"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"fold_coat", "Coat", "Fold coat", "Shift+F", "fold or unfold the present coat"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"toggle_coat", "Coat", "Switch coat on or off", "Shift+O", "switch all steps of the coat"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"note_coat", "Coat", "Note on coat", "Shift+N", "write a line on the coat's heading"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"coat_up", "Coat", "Move coat up", "Alt+Shift+Up", "move the coat and its steps up"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"coat_down", "Coat", "Move coat down", "Alt+Shift+Down", "move the coat and its steps down"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"copy_coat", "Coat", "Copy coat", "Ctrl+Alt+C", "the coat as text, to be pasted anywhere"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"keep_coat", "Coat", "Keep coat", "Ctrl+Alt+K", "keep it as a coat of your own"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),
    ActionRow{"insert_coat", "Coat", "Insert kept coat…", "Ctrl+Alt+I", "a coat of your own, below the present one"}
        .at(Where::bench)
        .needs(When::kept_coat)
        .in(on_coat),
    ActionRow{"delete_coat", "Coat", "Delete coat", "", "delete the present coat and its steps"}
        .at(Where::bench)
        .needs(When::coat)
        .in(on_coat),

    ActionRow{"bench", "Look", "Bench", "Ctrl+1", "build the effect: steps, stage and dials"}.shows(Checked::bench),
    ActionRow{"rehearse", "Look", "Rehearse", "Ctrl+2", "play the effect: pads, signals and lanes of time"}.shows(
        Checked::rehearse),
    ActionRow{"sweep", "Look", "Sweep", "Ctrl+3", "the effect at many values: sheet, measures, variants, looks"}.shows(
        Checked::sweep),
    ActionRow{"", "Look"},
    ActionRow{"show_selected", "Look", "Show selected", "S", "show the selected step on the stage"}
        .needs(When::step)
        .in(on_step | on_stage),
    ActionRow{"show_finished", "Look", "Show the finished picture", "F", "show the finished picture on the stage"}.in(
        on_stage),
    ActionRow{"actual_size", "Look", "1:1 or fit", "Z", "one picture pixel to one screen pixel, or the whole picture"}
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
    ActionRow{"pick_colour", "Look", "Pick a colour", "Q", "copy a pixel's colour, into the chosen colour dial too"}.in(
        on_stage),
    ActionRow{"", "Look"},
    ActionRow{"frame_shape", "Look", "Frame shape…", "W", "look at it in another frame: 21:9, square, 9:16"}.in(
        on_stage),
    ActionRow{"safe_area", "Look", "Safe area", "Shift+W", "lines within which screens show everything"}.shows(
        Checked::safe_area),
    ActionRow{"line_grid", "Look", "Line grid", "H", "straight lines in place of pictures, to see a warp"}.shows(
        Checked::line_grid),
    ActionRow{"backdrop", "Look", "Backdrop", "B", "behind what is transparent: checker, black, white, a colour"}.in(
        on_stage),
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

    ActionRow{"sweep_dial", "Variant", "Sweep the dial", "Alt+D", "the chosen dial at many values, measured"}
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
    ActionRow{"compare_cells", "Variant", "Compare two cells", "Alt+X",
              "the marked cell and the one at hand, or its neighbour"}
        .at(Where::sweep)
        .needs(When::cells)
        .shows(Checked::comparing)
        .in(on_cell),
    ActionRow{"turn_compared", "Variant", "Beside or under the curtain", "Alt+B", "how two cells are compared"}
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
    ActionRow{"draw_lots", "Variant", "Draw again", "Alt+L", "eight other looks from the next seed"}.at(Where::sweep),
    ActionRow{"draw_closer", "Variant", "Draw around the cell", "Alt+R", "eight looks nearer to the one at hand"}
        .at(Where::sweep)
        .needs(When::cells)
        .in(on_cell),
    ActionRow{"", "Variant"},
    ActionRow{"set_aside", "Variant", "Set this look aside", "Alt+K",
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
    ActionRow{"add_variant", "Variant", "New variant", "Alt+V",
              "a named kind of this finish: what is changed goes into it"}
        .in(on_variant),
    ActionRow{"cell_variant", "Variant", "Cell as a variant", "Alt+J", "a new variant with what the cell at hand shows"}
        .at(Where::sweep)
        .needs(When::cells)
        .in(on_cell),
    ActionRow{"next_variant", "Variant", "Next variant", "Alt+PgDown", "put the next variant on"}.in(on_variant),
    ActionRow{"previous_variant", "Variant", "Previous variant", "Alt+PgUp", "put the previous variant on, or the base"}
        .in(on_variant),
    ActionRow{"into_base", "Variant", "Write into the base", "Alt+I",
              "what the variant has of the thing at hand, for all"}
        .needs(When::variant),
    ActionRow{"follow_base", "Variant", "Follow the base", "Alt+F", "the thing at hand is no longer the variant's own"}
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
    ActionRow{"bring_variants", "Variant", "Variants of a finish…", "", "bring in the variants of another finish"}.in(
        on_variant),
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
    ActionRow{"listen", "Time", "Listen to a game", "Ctrl+Shift+L", "play along with what a game sends, or stop"}.shows(
        Checked::listening),
    ActionRow{"check_rates", "Time", "Check frame rates", "Ctrl+R", "the tape at 24, 30, 60, 144 and uneven frames"},
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
    ActionRow{"delete_cue", "Cue", "Delete cue…", "", "delete a cue and its events on the tape"}.needs(When::cue).in(
        on_cue),
    ActionRow{"move_cue_earlier", "Cue", "Move earlier", "Ctrl+Alt+Left", "the chosen cues one pad and one key earlier"}
        .needs(When::cue)
        .in(on_cue),
    ActionRow{"move_cue_later", "Cue", "Move later", "Ctrl+Alt+Right", "the chosen cues one pad and one key later"}
        .needs(When::cue)
        .in(on_cue),
    ActionRow{"", "Cue"},
    ActionRow{"add_signal", "Cue", "Add signal", "Alt+W", "add something with a value all the time: health, a zone"}.in(
        on_signal),
    ActionRow{"signal_page", "Cue", "Change signals…", "Shift+J", "name, kind, range and zone of the signals"}.in(
        on_signal),
    ActionRow{"delete_signal", "Cue", "Delete signal…", "", "delete a signal and its events on the tape"}
        .needs(When::signal)
        .in(on_signal),

    ActionRow{"change_key", "Help", "Change a key…", "", "another key for any action"},
    ActionRow{"commands", "Help", "All commands…", "F4", "every action, by what it is called or does"},
    ActionRow{"notices", "Help", "Notices…", "Shift+F4", "what was said last"},
    ActionRow{"help", "Help", "What is this?", "F1", "explain what the keys are on"},
    ActionRow{"shortcuts", "Help", "All keys", "Shift+F1", "every key on one sheet"},
};

}  // namespace

std::span<const ActionRow> action_rows() { return rows; }

const ActionRow& action_row(const char* id) {
    return *std::find_if(rows.begin(), rows.end(), [&](const ActionRow& row) { return std::strcmp(row.id, id) == 0; });
}

}  // namespace lacquer
