// The list of steps, read downwards, a live picture on each.
#pragma once

#include <QAbstractScrollArea>
#include <vector>

#include "desktop/ladder/ladder_layout.h"

class QMenu;

namespace lacquer {

class FormulaEditor;
class LineEditor;
class Session;

class LadderView : public QAbstractScrollArea {
    Q_OBJECT

public:
    LadderView(Session& session, QWidget* parent = nullptr);

    /// The menu that a right click opens, built by the shell from the actions.
    void set_step_menu(QMenu* menu) { step_menu_ = menu; }

    // What the actions do.
    void add_step();
    void edit_formula();
    void edit_name();
    void edit_note();
    void delete_selected();
    void move_selected(int direction);
    void select_next(int direction);
    void toggle_step();
    void toggle_coat();
    void fold_coat();
    void add_coat();
    void rename_coat();
    void delete_coat();
    void show_selected();

    /// Rows as they stand now, scrolled; for tests.
    QRect visible_area(const std::string& step) const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    enum class Editing { nothing, formula, step_name, coat_name, note };

    void rebuild();
    void finish_changed();
    void place_editors();
    void reveal(const std::string& step);
    const LadderRow* row_at(QPoint point) const;
    const LadderRow* selected_row() const { return find_row(rows_, selected_shown_); }
    QPoint scrolled() const;
    std::size_t current_coat() const;
    int wrapped_height(const std::string& formula) const;

    void paint_coat(QPainter& painter, const LadderRow& row) const;
    void paint_step(QPainter& painter, const LadderRow& row) const;
    void paint_open_step(QPainter& painter, const LadderRow& row) const;
    void paint_thumbnail(QPainter& painter, const LadderRow& row) const;
    void paint_formula(QPainter& painter, const LadderRow& row, const std::string& formula, bool wrapped) const;
    void paint_threads(QPainter& painter) const;
    void paint_thread(QPainter& painter, const LadderRow& from, const LadderRow& to, int lane, bool dashed) const;
    void paint_chips(QPainter& painter);
    void paint_empty(QPainter& painter) const;

    void begin_formula();
    void begin_line(Editing what, const QRect& area, const QString& text);
    void formula_typed();
    void end_formula(bool keep);
    void end_line(bool keep);

    struct Chip {
        QRect area;
        std::string step;
    };

    Session& session_;
    QMenu* step_menu_ = nullptr;
    std::vector<LadderRow> rows_;
    std::vector<Chip> chips_;
    std::string selected_shown_;
    std::string hovered_;
    FormulaEditor* formula_editor_;
    LineEditor* line_editor_;
    Editing editing_ = Editing::nothing;
    std::string formula_before_;
    bool name_then_formula_ = false;
    std::size_t coat_at_hand_ = 0;
};

}  // namespace lacquer
