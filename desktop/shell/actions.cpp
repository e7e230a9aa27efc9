#include "desktop/shell/actions.h"

#include <array>

namespace lacquer {

namespace {

constexpr std::array rows = {
    ActionRow{"new_finish", "Finish", "New", "Ctrl+N", "start an empty finish"},
    ActionRow{"open_finish", "Finish", "Open…", "Ctrl+O", "open a finish"},
    ActionRow{"open_demo", "Finish", "Start from a demo…", "Ctrl+Shift+O", "open one of the finishes that come along"},
    ActionRow{"save_finish", "Finish", "Save", "Ctrl+S", "save the finish"},
    ActionRow{"save_finish_as", "Finish", "Save as…", "Ctrl+Shift+S", "save the finish in another place"},
    ActionRow{"", "Finish", "", "", ""},
    ActionRow{"finish_page", "Finish", "Name, brief, frame…", "Ctrl+B", "what the effect must do, and its frame"},
    ActionRow{"add_picture", "Finish", "Add picture…", "G", "add a picture to work on"},
    ActionRow{"add_gradient", "Finish", "Add gradient", "Alt+G", "add colours along a line, read by at()"},
    ActionRow{"add_curve", "Finish", "Add curve", "Alt+C", "add heights along a line, read by at()"},
    ActionRow{"picture_page", "Finish", "Pictures, gradients, curves…", "Shift+G", "change what the finish reads"},
    ActionRow{"", "Finish", "", "", ""},
    ActionRow{"quit", "Finish", "Quit", "Ctrl+Q", "close Lacquer"},

    ActionRow{"undo", "Edit", "Undo", "Ctrl+Z", "take back the last change"},
    ActionRow{"redo", "Edit", "Redo", "Ctrl+Shift+Z", "do it again"},

    ActionRow{"add_step", "Step", "Add step", "A", "add a step below the selected one"},
    ActionRow{"edit_formula", "Step", "Edit formula", "E", "type into the selected step's formula"},
    ActionRow{"rename_step", "Step", "Rename", "F2", "rename the step and every use of it"},
    ActionRow{"note_step", "Step", "Note", "N", "write a line beside the step"},
    ActionRow{"toggle_step", "Step", "Switch on or off", "O", "a step that is off passes on what it takes"},
    ActionRow{"step_up", "Step", "Move up", "Alt+Up", "move the step up"},
    ActionRow{"step_down", "Step", "Move down", "Alt+Down", "move the step down"},
    ActionRow{"delete_step", "Step", "Delete", "Shift+Del", "delete the selected step"},
    ActionRow{"", "Step", "", "", ""},
    ActionRow{"select_above", "Step", "Select the one above", "Ctrl+Up", "select the step above"},
    ActionRow{"select_below", "Step", "Select the one below", "Ctrl+Down", "select the step below"},
    ActionRow{"", "Step", "", "", ""},
    ActionRow{"add_coat", "Step", "Add coat", "Shift+A", "add a heading below the present coat"},
    ActionRow{"rename_coat", "Step", "Rename coat", "Shift+F2", "rename the present coat"},
    ActionRow{"fold_coat", "Step", "Fold coat", "Shift+F", "fold or unfold the present coat"},
    ActionRow{"toggle_coat", "Step", "Switch coat on or off", "Shift+O", "switch all steps of the coat"},
    ActionRow{"delete_coat", "Step", "Delete coat", "", "delete the present coat and its steps"},

    ActionRow{"show_selected", "Look", "Show selected", "S", "show the selected step on the stage"},
    ActionRow{"show_finished", "Look", "Show the finished picture", "F", "show the finished picture on the stage"},
    ActionRow{"actual_size", "Look", "1:1 or fit", "Z", "one picture pixel to one screen pixel, or the whole picture"},
    ActionRow{"", "Look", "", "", ""},
    ActionRow{"focus_ladder", "Look", "Go to the steps", "F6", "put the keys on the steps"},
    ActionRow{"focus_dials", "Look", "Go to the dials", "F7", "put the keys on the dials"},

    ActionRow{"add_dial", "Dial", "Add dial", "D", "add a number with a name and a range"},
    ActionRow{"dial_page", "Dial", "Change dial…", "Shift+D", "name, code name, range, unit, what drives it"},
    ActionRow{"type_value", "Dial", "Type the value", "V", "type the chosen dial's value"},
    ActionRow{"reset_dial", "Dial", "To its default", "Backspace", "back to the default; a held dial is let go"},
    ActionRow{"value_as_default", "Dial", "Make the value the default", "", "the working value becomes the default"},
    ActionRow{"delete_dial", "Dial", "Delete dial", "", "delete the chosen dial"},
    ActionRow{"", "Dial", "", "", ""},
    ActionRow{"add_response", "Dial", "Add response", "R", "add something that moves a dial"},
    ActionRow{"response_page", "Dial", "Change responses…", "Shift+R", "kind, cue and arguments of the responses"},
    ActionRow{"let_go", "Dial", "Let go of held dials", "Esc", "dials held by hand follow their formulas again"},

    ActionRow{"play", "Time", "Play or pause", "Space", "let time run, or stop it"},
    ActionRow{"frame_back", "Time", "A frame back", ",", "one sixtieth of a second back"},
    ActionRow{"frame_on", "Time", "A frame on", ".", "one sixtieth of a second on"},
    ActionRow{"to_start", "Time", "To the start", "Home", "go to 0 s"},
    ActionRow{"", "Time", "", "", ""},
    ActionRow{"cue_1", "Time", "Press cue 1", "1", "play the first cue now"},
    ActionRow{"cue_2", "Time", "Press cue 2", "2", "play the second cue now"},
    ActionRow{"cue_3", "Time", "Press cue 3", "3", "play the third cue now"},
    ActionRow{"add_cue", "Time", "Add cue", "C", "add something that happens in play"},
    ActionRow{"cue_page", "Time", "Change cues…", "Shift+C", "name and strength of the cues"},
    ActionRow{"clear_tape", "Time", "Clear the tape", "", "take all cues off the tape"},
};

}  // namespace

std::span<const ActionRow> action_rows() { return rows; }

}  // namespace lacquer
