#include "desktop/shell/setting_rows.h"

namespace lacquer {

namespace {

constexpr double largest_screen = 16384;  // pixels a side

SettingRow sizes(const char* key, const char* words) {
    return {.key = key, .otherwise = QVariantList(), .words = words, .most = largest_screen};
}

}  // namespace

const QList<SettingRow>& setting_rows() {
    static const QList<SettingRow> rows = {
        {"window/geometry", QByteArray(), "where the window was"},
        sizes("window/columns", "widths of the ladder and of what stands beside it, pixels"),
        sizes("window/rows", "heights of the stage and the dials, pixels"),
        sizes("window/rehearse_columns", "widths of the stage and the pads in rehearsal, pixels"),
        sizes("window/rehearse_rows", "heights of the stage and the lanes in rehearsal, pixels"),
        sizes("window/sweep_columns", "widths of the sheet and of what stands beside it, pixels"),
        {"window/screen", QString(), "the screen that was shown last"},
        {"window/shelf", false, "whether the ground shelf was open"},
        {"file/folder", QString(), "folder of the last file"},
        {"file/recent", QStringList(), "finishes that were opened or saved last, newest first"},
        {"ship/choices", QVariantMap(), "where each finish was shipped to, and as what, by its path"},
        {"keys", QVariantMap(), "keys that were chosen instead of those of the table of actions, by action"},
        {.key = "draw/backend",
         .otherwise = "auto",
         .words = "what draws the stage: the graphics card if it is a real one, the processor, or always the card",
         .label = "Drawing by",
         .choices = {"auto", "cpu", "gpu"}},
        {.key = "draw/threads",
         .otherwise = 0,
         .words = "threads that draw; 0 is one for each processor",
         .label = "Threads",
         .most = 64,
         .at_start = true},
        {.key = "draw/memory",
         .otherwise = 1024,
         .words = "memory that pictures may take, those of files and those that are drawn of them",
         .label = "Pictures in memory",
         .unit = "MB",
         .least = 64,
         .most = 65536,
         .at_start = true},
        {.key = "draw/picture_pixels",
         .otherwise = 64,
         .words = "most pixels of a picture that is read, so that a file cannot take all memory",
         .label = "Largest picture",
         .unit = "million pixels",
         .least = 1,
         .most = 64,
         .at_start = true},
        {.key = "draw/picture_file",
         .otherwise = 1024,
         .words = "largest file of a picture that is read",
         .label = "Largest picture file",
         .unit = "MB",
         .least = 1,
         .most = 65536,
         .at_start = true},
        {.key = "draw/decimals",
         .otherwise = 3,
         .words = "decimals of values on the stage and beside the steps",
         .label = "Decimals",
         .least = 1,
         .most = 6},
        {.key = "file/autosave",
         .otherwise = 2,
         .words = "how long after a change unsaved work is kept aside for a crash",
         .label = "Autosave after",
         .unit = "s",
         .least = 1,
         .most = 600},
        {.key = "link/port",
         .otherwise = 9127,
         .words = "UDP port at which a game is listened to",
         .label = "Game port",
         .least = 1,
         .most = 65535},
        {.key = "link/everywhere",
         .otherwise = false,
         .words = "listen to other machines, too, and not to this one alone",
         .label = "Listen to",
         .choices = {"this machine", "any machine"}},
    };
    return rows;
}

}  // namespace lacquer
