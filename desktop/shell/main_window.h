// The window: the bench with its ladder, stage, dials and time rule.
#pragma once

#include <QHash>
#include <QWidget>
#include <functional>

#include "core/finish/finish.h"
#include "desktop/drawing/look.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/key_bindings.h"

class QAction;
class QLabel;
class QMenu;
class QMimeData;
class QPushButton;
class QSplitter;
class QStackedWidget;

namespace lacquer {

class Chooser;
class ColourEditor;
class CodeSide;
class CuePads;
class DialsView;
class FieldForm;
class GroundShelf;
class HelpCard;
class KeyEditor;
class LineEditor;
class LadderView;
class Gallery;
class NoticeBar;
class RehearseScreen;
class ShipScreen;
class Settings;
class Document;
class Playing;
class GameLink;
class Drawing;
struct Models;
class StageView;
class SweepScreen;
class TimeRule;
class TopBar;
class TryOnSheet;

class MainWindow : public QWidget {
    Q_OBJECT

public:
    MainWindow(Models& models, Settings& settings, QWidget* parent = nullptr);
    ~MainWindow() override;
    LadderView& ladder() { return *ladder_; }
    DialsView& dials() { return *dials_; }
    GroundShelf& shelf() { return *shelf_; }
    TimeRule& time_rule() { return *time_rule_; }
    CuePads& cue_pads() { return *cue_pads_; }
    TopBar& top_bar() { return *top_bar_; }
    StageView& stage() { return *stage_; }
    TryOnSheet& try_on() { return *try_on_; }
    Chooser& chooser() { return *chooser_; }
    ColourEditor& colour_editor() { return *colour_editor_; }
    HelpCard& help_card() { return *help_card_; }
    KeyEditor& key_editor() { return *key_editor_; }
    NoticeBar& notice_bar() { return *notice_bar_; }
    RehearseScreen& rehearse() { return *rehearse_; }
    SweepScreen& sweep() { return *sweep_; }
    ShipScreen& ship() { return *ship_; }
    CodeSide& code() { return *code_; }
    bool rehearses() const { return screen_shown() == Where::rehearse; }
    /// Never `everywhere`.
    Where screen_shown() const;

Q_SIGNALS:
    /// An action is about to be done.
    void ran(const QString& action);

protected:
    bool event(QEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void changeEvent(QEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    using Handlers = QHash<QString, std::function<void()>>;
    Handlers handlers();
    Handlers file_handlers();
    Handlers step_handlers();
    Handlers look_handlers();
    Handlers dial_handlers();
    Handlers play_handlers();
    Handlers sweep_handlers();
    Handlers ship_handlers();
    Handlers code_handlers();

    // Actions, as their rows say.
    void build_actions();
    void build_menus();
    void run(const ActionRow& row);
    /// Why an action cannot be used now; empty if it can.
    QString why_not(const ActionRow& row) const;
    QString what_is_missing(When when) const;
    bool holds(Checked what) const;
    void refresh_checks();
    /// The menu of a thing, built from the rows that belong to it.
    QMenu* context_menu(Context context);
    /// As it opens, what cannot be used is quiet and says why.
    void prepare(QMenu* menu);
    QString key_of(const char* action) const;
    void give_menus();
    void take_keys();

    void build_screens();
    void connect_views();
    void restore_layout();
    void keep_layout();

    QWidget* ladder_side();
    QWidget* dials_side();
    QWidget* foot();
    void refresh_words();
    void show_screen(Where screen);
    bool shows_code() const;
    bool types_code() const;
    void show_code();
    void hide_code();
    void choose_operation();
    void connect_sweep();
    void connect_ship();
    void ship_to();
    void sweep_dial();
    void set_look_aside();
    /// Among those that were set aside; -1 for none.
    int look_at_hand() const;
    void name_look();
    void delete_look();
    void cell_as_variant();
    void step_variant(int by);
    void into_base();
    void follow_base_again();
    void rename_variant_asking();
    void save_variant_as_finish();
    void bring_variants();
    void save_sheet(bool as_cells);
    void draw_lots(bool closer);
    /// What is at hand on the screen that is shown: a step, dial, ground or difference.
    std::string thing_at_hand() const;
    void ask_line(const QString& title, const QString& now, const std::function<void(const QString&)>& take);
    void connect_rehearse();
    /// The page of fields of the screen that is shown.
    FieldForm& form();
    void show_form();
    void close_form();
    void choose_page(const QStringList& names, const std::function<void(int)>& open, const QString& none);
    void choose(const QStringList& names, const std::function<void(int)>& take);
    void open_demo();
    void open_recent();
    void collect();
    void show_preferences();
    void change_key();
    void show_notices();
    void show_last_end();
    void delete_response();
    void press_cue(int cue);
    void delete_cue();
    CuePads* pads_in_use() const;
    void delete_signal();
    void choose_cue_page();
    void choose_response_page();
    void make_large(QSplitter& splitter, QList<int>& before, int side, bool large);
    void toggle_large_ladder();
    void toggle_large_dials();
    QWidget* preferences_head();
    QString change_setting(const QString& key, const QString& text);
    void take_settings();
    void ask_key(const ActionRow& row);
    void take_dropped(const QMimeData& dropped);
    void set_stage_alone(bool alone);
    void select_all();
    void cut();
    void add_dial();
    void add_response();
    void add_stops(StopValues kind);
    void choose_scene();
    void mark_objects();
    void add_sprite_part();
    void toggle_shelf();
    /// The page of a ground: that of the name, else the shelf's, else the only one, else one that is chosen.
    void show_ground_page(const QString& ground);
    void show_droplets(const Ground& ground);
    void replace_chosen_ground();
    void put_camera_key();
    void put_camera_home();
    QWidget* shelf_side();
    void refresh_shelf_words();
    void add_cue();
    void add_signal();
    void choose_signal_page();
    void next_speed();
    void take_shared_dial();
    void new_from_picture();
    void bring_shader();
    void bring_copied_shader();
    void open_try_on(bool replace);
    void step_back();
    void copy();
    void paste();
    void mend();
    void make_dial();
    void show_history();
    void show_commands();
    void show_help();
    void show_shortcuts();
    void choose_curtain_other();
    void choose_frame_shape();
    void next_backdrop();
    void choose_backdrop_colour();
    void flip_look(bool Look::*part, const QString& words);
    void flip_style(bool ViewStyle::*part, const QString& words);
    void change_look(const std::function<void(Look&)>& change, const QString& words);
    void take_picked(double red, double green, double blue);
    void edit_word_colour(const QString& step, const QRect& at, std::size_t begin, std::size_t end);
    void edit_dial_colour(const QString& dial, const QRect& at);
    void edit_stop_colour(const QString& ground, std::size_t stop, const QRect& at);
    void begin_filter();
    void end_filter();
    void note_recent();

    bool paint_is_due_ = false;  ///< was put off until the stage's picture is there
    // Pages in the place of the dials.
    static constexpr int dials_page = 0;
    static constexpr int form_page = 1;
    static constexpr int shelf_page = 2;

    Models& models_;
    Document& document_;
    Playing& playing_;
    GameLink& link_;
    Drawing& drawing_;
    Settings& settings_;
    QHash<QString, QAction*> actions_;
    Handlers handlers_;
    QHash<unsigned, QMenu*> context_menus_;
    KeyBindings keys_;
    TopBar* top_bar_;
    Chooser* chooser_;
    LadderView* ladder_;
    StageView* stage_;
    DialsView* dials_;
    FieldForm* form_;
    FieldForm* play_form_;
    GroundShelf* shelf_;
    TimeRule* time_rule_;
    CuePads* cue_pads_;
    TryOnSheet* try_on_;
    ColourEditor* colour_editor_;
    HelpCard* help_card_;
    KeyEditor* key_editor_;
    NoticeBar* notice_bar_;
    Gallery* gallery_ = nullptr;
    LineEditor* filter_ = nullptr;
    RehearseScreen* rehearse_ = nullptr;
    SweepScreen* sweep_ = nullptr;
    ShipScreen* ship_ = nullptr;
    QString shipped_key_;  ///< of the finish whose choices the ship screen has
    CodeSide* code_ = nullptr;
    QStackedWidget* screens_ = nullptr;
    QStackedWidget* side_pages_ = nullptr;  ///< the steps, or code
    QStackedWidget* dial_pages_ = nullptr;
    QSplitter* columns_ = nullptr;
    QSplitter* rows_ = nullptr;
    QLabel* step_words_ = nullptr;
    QLabel* dial_words_ = nullptr;
    QLabel* shelf_words_ = nullptr;
    int page_before_form_ = 0;
    QPushButton* play_button_ = nullptr;
    QWidget* foot_ = nullptr;
    QWidget* ladder_side_ = nullptr;
    QWidget* dials_side_ = nullptr;
    QList<int> columns_before_;  ///< sizes that a larger ladder comes back to
    QList<int> rows_before_;
    QList<int> columns_before_code_;
    bool stage_alone_ = false;
    std::string menu_signal_;  ///< the signal whose menu was opened last
};

}  // namespace lacquer
