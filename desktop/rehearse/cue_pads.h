// The pads on which cues are pressed, each with its strength.
#pragma once

#include <QWidget>

#include "desktop/kit/accessible_cells.h"

class QMenu;

namespace lacquer {

class Document;
class Playing;
struct Models;

class CuePads : public QWidget, public CellSource {
    Q_OBJECT

public:
    /// The first few beside one another, or all of them in rows, larger.
    enum class Shape { row, grid };

    CuePads(Models& models, Shape shape = Shape::row, QWidget* parent = nullptr);
    /// Presses the pad of the cue at an index, with its strength.
    void press(int cue);
    /// The chosen cues as text for other finishes and people.
    void copy_chosen();
    void choose_all();
    /// One pad earlier (-1) or later (+1).
    void move_chosen(int direction);
    QRect pad_area(int cue) const;
    QRect strength_area(int cue) const;
    void set_menu(QMenu* menu) { menu_ = menu; }
    QSize sizeHint() const override;
    bool hasHeightForWidth() const override { return shape_ == Shape::grid; }
    int heightForWidth(int width) const override;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_cue();
    void wants_delete();

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    void choose_one(const std::string& cue);
    void drag_strength(int x, bool weakest);
    void paint_pad(QPainter& painter, int cue) const;
    int count() const;
    Document& document_;
    Playing& playing_;
    Shape shape_;
    QMenu* menu_ = nullptr;
    int present_ = 0;  ///< that the keys are on
    int dragged_ = -1;
    bool drags_weakest_ = false;
    int lit_ = -1;
};

}  // namespace lacquer
