// Actions of the menus in which a finish is built: Finish, Edit, Ground, Step, Coat.
#include <array>

#include "desktop/shell/actions.h"

namespace lacquer {

std::span<const ActionRow> building_rows() {
    static constexpr std::array rows = {
        ActionRow{"new_finish", "Finish", "New", "Ctrl+N", "start an empty finish"},
        ActionRow{"new_from_picture", "Finish", "New from a picture…", "Ctrl+Shift+N",
                  "a new finish, sized to a picture"}
            .in(on_start),
        ActionRow{"bring_shader", "Finish", "Bring in a shader…", "Ctrl+Alt+U", "a new finish of a fragment shader"}.in(
            on_start),
        ActionRow{"bring_copied_shader", "Finish", "Bring in the copied shader", "Ctrl+Alt+Z",
                  "the same of text that was copied elsewhere"}
            .in(on_start),
        ActionRow{"open_finish", "Finish", "Open…", "Ctrl+O", "open a finish"}.in(on_start),
        ActionRow{"open_recent", "Finish", "Open recent…", "Ctrl+Alt+O", "one that was opened or saved recently"}.in(
            on_start),
        ActionRow{"open_demo", "Finish", "Demos…", "Ctrl+Shift+O", "open a copy of a finish that comes with Lacquer"}
            .in(on_start),
        ActionRow{"save_finish", "Finish", "Save", "Ctrl+S", "save the finish"},
        ActionRow{"save_finish_as", "Finish", "Save as…", "Ctrl+Shift+S",
                  "save the finish in another place and go on there"},
        ActionRow{"save_copy", "Finish", "Save a copy…", "", "save a copy elsewhere and go on here"},
        ActionRow{"collect", "Finish", "Collect…", "", "the finish with all its files, in one folder"},
        ActionRow{"", "Finish"},
        ActionRow{"ship_to", "Finish", "Ship to…", "Ctrl+Alt+P", "write the chosen targets into a folder"},
        ActionRow{"ship_again", "Finish", "Ship again", "Ctrl+Alt+H", "the same set to the same place"},
        ActionRow{"keep_shipped", "Finish", "Keep shipped", "Ctrl+Alt+L",
                  "ship again at every save, for a game that watches the folder"}
            .shows(Checked::keep_shipped),
        ActionRow{"native_reading", "Finish", "Native reading", "Ctrl+Alt+T",
                  "pictures are read by the sampler's own filtering, one read a read; else exactly as here"}
            .at(Where::ship)
            .shows(Checked::native_reading),
        ActionRow{"verify_set", "Finish", "Verify the targets", "Ctrl+Alt+M",
                  "draw what would be written, and compare it with what is seen here"}
            .at(Where::ship),
        ActionRow{"copy_checklist", "Finish", "Copy what the host supplies", "Ctrl+Alt+Q", "as text for a ticket"}.at(
            Where::ship),
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
        ActionRow{"paste", "Edit", "Paste", "Ctrl+V",
                  "what was copied, below what is selected; a picture becomes a ground"}
            .at(Where::bench)
            .in(on_step | on_coat | on_dial | on_ground),
        ActionRow{"select_all", "Edit", "Select all", "Ctrl+A",
                  "all steps, dials, grounds or events, by what the keys are on"},
        ActionRow{"find_in_code", "Edit", "Find and replace…", "Ctrl+F", "words of the code, and others in their place"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"find_next", "Edit", "Find next", "F3", "the next place of these words"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"find_before", "Edit", "Find the one before", "Shift+F3", "the place before"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"mend", "Edit", "Mend", "M", "the first repair that is offered here"}.at(Where::bench),

        ActionRow{"add_picture", "Ground", "Add picture…", "G", "add a picture to work on"}.in(on_ground),
        ActionRow{"add_scene", "Ground", "Add stand-in scene…", "Alt+S",
                  "a small world with depth, normals and objects"}
            .in(on_ground),
        ActionRow{"add_gradient", "Ground", "Add gradient", "Alt+G", "add colours along a line, read by at()"}
            .at(Where::bench)
            .in(on_ground),
        ActionRow{"add_curve", "Ground", "Add curve", "Alt+C", "add heights along a line, read by at()"}
            .at(Where::bench)
            .in(on_ground),
        ActionRow{"add_droplets", "Ground", "Add droplets", "Ctrl+Alt+D",
                  "add many small sprites: rain, sparks, splats"}
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
        ActionRow{"ground_shelf", "Ground", "Ground shelf", "Shift+G",
                  "all that the finish reads, in place of the dials"}
            .at(Where::bench)
            .shows(Checked::shelf),
        ActionRow{"ground_page", "Ground", "Change ground…", "Ctrl+G",
                  "file, layers, place, hour, stops of what is read"}
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
        ActionRow{"extract_part", "Step", "Extract to a step", "Ctrl+E",
                  "the marked part of the formula becomes a step"}
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
        ActionRow{"tick_page", "Step", "From tick to tick…", "Ctrl+T",
                  "how it starts, its size, and how often all ticks"}
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
        ActionRow{"select_below", "Step", "Select the one below", "Ctrl+Down", "select the step below"}.at(
            Where::bench),
        ActionRow{"to_source", "Step", "Go to its source", "Alt+Left", "to what the step comes from"}
            .at(Where::bench)
            .needs(When::step)
            .in(on_step),
        ActionRow{"to_user", "Step", "Go to its next use", "Alt+Right", "to what uses the step"}
            .at(Where::bench)
            .needs(When::step)
            .in(on_step),
        ActionRow{"code_editor", "Step", "Code beside the stage", "F9",
                  "the step's code in an editor of its own, and back to the steps"}
            .at(Where::bench)
            .needs(When::step)
            .shows(Checked::code)
            .in(on_step),
        ActionRow{"see_variable", "Step", "Variable on the stage", "Shift+F9",
                  "the variable at the mark as a picture, as it is after its line"}
            .at(Where::bench)
            .needs(When::code)
            .shows(Checked::variable),
        ActionRow{"turn_remarks", "Step", "Remark or code", "Ctrl+/",
                  "the lines at the mark become remarks, or code again"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"move_in", "Step", "Move in", "Ctrl+]", "the lines at the mark a step to the right"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"move_out", "Step", "Move out", "Ctrl+[", "the lines at the mark a step to the left"}
            .at(Where::bench)
            .needs(When::code),
        ActionRow{"filter_steps", "Step", "Filter", "/", "show only steps that say what is typed"}.at(Where::bench),
        ActionRow{"edit_operation", "Step", "Operation of your own…", "Ctrl+F9",
                  "its file in the same editor: one that is there, or a new one"}
            .at(Where::bench),

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
    };
    return rows;
}

}  // namespace lacquer
