// All actions in one table: id, words, key, what each does, where it works, when it can be used, when it is checked.
// Menus, keys, context menus, the list of commands, the sheet of keys and the tests follow from it.
#pragma once

#include <span>

namespace lacquer {

/// The screen on which an action has something to work on.
enum class Where { everywhere, bench, rehearse, sweep, ship };

/// What must be there for an action to be used.
enum class When {
    always,
    can_undo,
    can_redo,
    step,
    coat,
    dial,
    colour_dial,
    ground,
    picture,
    scene,
    layers,
    cue,
    signal,
    response,
    cues,
    events,
    chosen_events,
    live,
    missing,
    kept_coat,
    cells,
    variant,
    look,
    code,
};

/// What an action's mark says is so.
enum class Checked {
    never,
    bench,
    rehearse,
    sweep,
    ship,
    keep_shipped,
    native_reading,
    sheet_sweep,
    sheet_looks,
    sheet_lots,
    comparing,
    playing,
    recording,
    looping,
    slow,
    listening,
    curtain,
    pinned,
    core_sample,
    transect,
    detail,
    camera,
    pointing,
    safe_area,
    line_grid,
    false_colours,
    mark_range,
    shelf,
    large_ladder,
    large_dials,
    stage_alone,
    code,
    variable,
};

/// Things whose context menu shows an action; they can be joined.
enum Context : unsigned {
    on_nothing = 0,
    on_step = 1U << 0U,
    on_coat = 1U << 1U,
    on_dial = 1U << 2U,
    on_ground = 1U << 3U,
    on_stage = 1U << 4U,
    on_lanes = 1U << 5U,
    on_rule = 1U << 6U,
    on_cue = 1U << 7U,
    on_signal = 1U << 8U,
    on_start = 1U << 9U,
    on_cell = 1U << 10U,
    on_variant = 1U << 11U,
};

struct ActionRow {
    const char* id = "";  ///< also the QAction's objectName
    const char* menu = "";
    const char* words = "";
    const char* key = "";  ///< as long as the user has not chosen another
    const char* tip = "";
    Where where = Where::everywhere;
    When when = When::always;
    Checked checked = Checked::never;
    unsigned contexts = on_nothing;

    constexpr ActionRow at(Where place) const {
        ActionRow row = *this;
        row.where = place;
        return row;
    }
    constexpr ActionRow needs(When what) const {
        ActionRow row = *this;
        row.when = what;
        return row;
    }
    constexpr ActionRow shows(Checked what) const {
        ActionRow row = *this;
        row.checked = what;
        return row;
    }
    constexpr ActionRow in(unsigned menus) const {
        ActionRow row = *this;
        row.contexts = menus;
        return row;
    }
};

/// In the order of the menus; a row with an empty id is a separator.
std::span<const ActionRow> action_rows();

// The parts of that table, a file each: the menus up to Coat, Look and Dial, those from Variant on.
std::span<const ActionRow> building_rows();
std::span<const ActionRow> looking_rows();
std::span<const ActionRow> playing_rows();

/// The row of an id, which must be in the table.
const ActionRow& action_row(const char* id);

}  // namespace lacquer
