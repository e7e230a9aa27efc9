// All actions in one table: id, words, shortcut, what it does. Menus, keys, help and tests read it.
#pragma once

#include <span>

namespace lacquer {

struct ActionRow {
    const char* id;  ///< also the QAction's objectName
    const char* menu;
    const char* words;
    const char* shortcut;
    const char* tip;
};

/// In the order of the menus; a row with an empty id is a separator.
std::span<const ActionRow> action_rows();

}  // namespace lacquer
