// The list of steps, read downwards, a live picture on each. What it looks like is in ladder_paint.cpp, what mouse and
// keys do in ladder_hands.cpp, what the actions do in ladder_edits.cpp and ladder_coats.cpp, editing of single words in
// ladder_words.cpp, what assistive programs see in ladder_cells.cpp.
#pragma once

#include <QAbstractScrollArea>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/finish/completion.h"
#include "core/finish/live_words.h"
#include "desktop/kit/accessible_cells.h"
#include "desktop/kit/wheel.h"
#include "desktop/ladder/ladder_layout.h"
#include "desktop/ladder/row_lines.h"

class QMenu;

namespace lacquer {

class Chooser;
class ChoiceList;
class TextCompletion;
class FormulaEditor;
class FormulaLine;
class LineEditor;
class Document;
class Drawing;
struct Models;

/// It has a function for each action on steps and coats, so it has more of them than others.
class LadderView : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    /// Choices open in `chooser`, which stands over the window.
    LadderView(Models& models, Chooser& chooser, QWidget* parent = nullptr);
    ~LadderView() override;

    /// The menus that a right click opens, built by the shell from the actions.
    void set_menus(QMenu* steps, QMenu* coats) {
        step_menu_ = steps;
        coat_menu_ = coats;
    }
    /// Shows only steps whose name, formula, note or coat holds all of these words.
    void set_filter(const QString& words);

    // What the actions do.
    void add_step();
    void add_step_above();
    void edit_formula();
    void edit_name();
    void edit_note();
    /// All of these work on every step that is selected.
    void delete_selected();
    void move_selected(int direction);
    /// To the step above (-1) or below (+1); with `stretch`, all on the way are selected.
    void select_next(int direction, bool stretch = false);
    void toggle_step();
    void show_selected();
    void duplicate_selected();
    /// The selected steps under a heading of their own.
    void group_selected();
    void select_all();
    void extract_part();
    void inline_selected();
    void invert_selected();
    void swap_selected();
    void toggle_stand_in();
    void replace_everywhere();
    void take_mend();
    /// Along a thread, to the step that this one comes from (-1) or that uses it (+1); of several one is chosen.
    void walk_thread(int direction);
    /// Along the live words of the selected row.
    void walk_word(int direction);
    void edit_word();
    void change_number(double increments);
    void make_dial(bool everywhere);
    /// True if the keys or the mouse are on a number or colour of the selected step.
    bool has_value_at_hand() const;
    /// Marks the numbers and colours of the selected step, to be walked by arrows, one of which becomes a dial by
    /// Enter. False if there are none.
    bool choose_value();
    bool choosing_value() const { return choosing_value_; }
    void end_choosing_value();
    /// The dial that the keys or the mouse are on; empty if there is none.
    std::string dial_at_hand() const;
    /// What the word at hand, else the selected step, is: as rich text.
    QString help() const;
    void copy_steps();
    void cut_steps();
    void paste_steps();
    void toggle_coat();
    void fold_coat();
    void add_coat();
    void rename_coat();
    void note_coat();
    void move_coat(int direction);
    void delete_coat();
    void copy_coat();
    void keep_coat();
    void insert_kept_coat();
    bool any_kept_coats() const { return any_kept_coats_; }
    /// Values of the core sample beside the rows, or formulas.
    void set_shows_values(bool values);

    /// Rows as they stand now, scrolled, and words within them; for tests.
    QRect visible_area(const std::string& step) const;
    /// Where a coat's heading stands; null if it is not shown. For tests.
    QRect heading_area(std::size_t coat) const;
    QRect word_area(const std::string& step, const std::string& word) const;
    QRect mend_area(int index) const;
    /// The choices beside the formula that is being typed.
    ChoiceList& completions();

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_colour(const QString& step, const QRect& at, std::size_t begin, std::size_t end);
    void wants_dial(const QString& dial);
    void kept_coats_changed();

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void focusInEvent(QFocusEvent*) override { viewport()->update(); }
    void focusOutEvent(QFocusEvent*) override { viewport()->update(); }
    bool event(QEvent* event) override;
    bool viewportEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    void look_for_kept_coats();
    enum class Editing { nothing, formula, step_name, coat_name, note, coat_note, word };
    enum class Dragging { nothing, pressed, number, picture, row };

    /// A live word of a row that is in view.
    struct WordAt {
        std::string step;
        LiveWord word;
        QRect area;  ///< in the viewport
    };

    void rebuild();
    void forget_what_changed();
    void finish_changed();
    void place_editors();
    void reveal(const std::string& step);
    void tell_rows_in_view();
    const LadderRow* row_at(QPoint point) const;
    bool is_selected(const std::string& step) const;
    const LadderRow* selected_row() const { return find_row(rows_, selected_shown_); }
    QPoint scrolled() const;
    /// The coat whose heading was chosen, else that of the selected step.
    std::size_t current_coat() const;
    void choose_coat(std::size_t coat);
    /// Opens a line on a coat's heading, if that is in view.
    void begin_coat_line(Editing what, std::size_t coat);
    const FormulaLine& laid_out(const std::string& formula, const QRect& area, bool open) const;
    const FormulaLine& line_of(const LadderRow& row) const;
    const std::vector<std::string>& users(const std::string& step) const;
    const std::vector<std::string>& sources(const std::string& step) const;
    std::vector<std::string> coat_sources(const Coat& coat) const;
    QImage thumbnail_of(const std::string& step) const;
    const std::vector<LiveWord>& words(const std::string& formula) const;

    // Painting.
    void paint_coat(QPainter& painter, const LadderRow& row) const;
    void paint_step(QPainter& painter, const LadderRow& row) const;
    bool uses_promised(const std::string& formula) const;
    void paint_open_step(QPainter& painter, const LadderRow& row) const;
    void paint_row_picture(QPainter& painter, const LadderRow& row) const;
    void paint_formula(QPainter& painter, const LadderRow& row) const;
    void paint_values(QPainter& painter, const LadderRow& row) const;
    void paint_words(QPainter& painter, const LadderRow& row, const FormulaLine& line) const;
    void paint_threads(QPainter& painter) const;
    void paint_thread(QPainter& painter, const LadderRow& from, const LadderRow& to, int lane, bool dashed) const;
    void paint_chips(QPainter& painter);
    void paint_empty(QPainter& painter) const;
    void paint_dragged(QPainter& painter) const;
    QString coat_facts(const Coat& coat) const;
    QString coat_words(const Coat& coat) const;

    // Words.
    std::optional<WordAt> word_at(QPoint point) const;
    std::vector<LiveWord> words_of_selected() const;
    std::optional<WordAt> word_at_hand() const;
    void edit_number(const WordAt& at);
    void choose_name(const WordAt& at);
    void choose_of(const WordAt& at);
    /// Gives the text that was written.
    std::string set_number(const std::string& step, const LiveWord& word, double value, bool dragging);
    void end_word(bool keep);
    void replace_word(const std::string& step, Span span, const std::string& text, const QString& what,
                      const std::string& merge_key = {});
    void offer_names(const std::string& step, const QString& title, QPoint at, std::vector<Completion> names,
                     const std::function<std::string(const Completion&)>& formula,
                     const std::function<void(const Completion&)>& take);

    // Dragging.
    void begin_drag(QPoint at);
    void drag_picture(QPoint at);
    void drag_row(QPoint at);
    void drop_picture();
    void drop_row();
    bool call_off_drag();
    Result<Finish> dropped() const;
    /// The dragged step, or all that are selected if it is one of them.
    std::vector<std::string> dragged_steps() const;

    void begin_formula();
    void begin_line(Editing what, const QRect& area, const QString& text);
    void formula_typed();
    void end_formula(bool keep);
    void end_line(bool keep);
    void toggle_of_step(bool Step::*flag, const QString& set, const QString& unset);
    void paste(const QString& text);
    QString broken_words(const Finish& finish, const std::vector<std::string>& names) const;
    Result<Finish> for_each_selected(const std::function<Result<Finish>(Finish, const std::string&)>& change,
                                     bool from_below = false) const;

    struct Chip {
        QRect area;
        std::string step;
    };

    Document& document_;
    bool any_kept_coats_ = false;
    Drawing& drawing_;
    Chooser& chooser_;
    QMenu* step_menu_ = nullptr;
    QMenu* coat_menu_ = nullptr;
    std::vector<LadderRow> rows_;
    std::vector<RowLine> lines_;  ///< of the open row
    std::vector<Mend> fault_mends_;
    std::vector<Chip> chips_;
    /// Formulas as they were laid out, by text and size; anew when names mean something else.
    mutable std::map<std::string, std::unique_ptr<FormulaLine>> laid_out_;
    std::string names_laid_out_;
    std::string formulas_read_;
    /// Who uses a step, whom it uses, and the words of a formula, as long as no formula changes: reading them again
    /// costs time.
    mutable std::map<std::string, std::vector<std::string>> users_;
    mutable std::map<std::string, std::vector<std::string>> sources_;
    mutable std::map<std::string, std::vector<LiveWord>> words_;
    std::string selected_shown_;
    std::string hovered_;
    QString filter_;
    bool shows_values_ = false;
    std::optional<WordAt> hovered_word_;
    int word_cursor_ = -1;
    bool choosing_value_ = false;  ///< the next Enter makes the marked number a dial
    FormulaEditor* formula_editor_;
    LineEditor* line_editor_;
    TextCompletion* completion_;
    Editing editing_ = Editing::nothing;
    std::string formula_before_;
    CodeRules rules_before_ = CodeRules::formulas;
    std::optional<WordAt> edited_word_;
    bool name_then_formula_ = false;
    std::optional<std::size_t> chosen_coat_;  ///< by its heading; until a step is selected
    std::string line_step_;                   ///< the same of a step
    std::size_t line_coat_ = 0;               ///< whose name or note is being typed
    Dragging dragging_ = Dragging::nothing;
    Wheel wheel_;
    QPoint press_;
    QPoint drag_at_;
    std::optional<WordAt> dragged_word_;
    double dragged_value_ = 0;
    std::string dragged_step_;
    bool press_selected_ = false;  ///< the row was selected already when it was pressed
    std::string drop_below_;
    std::optional<std::size_t> drop_coat_;  ///< the heading that a row is held over
    QString drop_words_;
    bool drop_fits_ = false;
};

}  // namespace lacquer
