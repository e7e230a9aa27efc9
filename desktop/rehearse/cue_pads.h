// The pads on which cues are pressed, each with its strength.
#pragma once

#include <QWidget>

namespace lacquer {

class Document;
class Playing;
struct Models;

class CuePads : public QWidget {
    Q_OBJECT

public:
    /// The first few beside one another, or all of them in rows, larger.
    enum class Shape { row, grid };

    CuePads(Models& models, Shape shape = Shape::row, QWidget* parent = nullptr);
    /// Presses the pad of the cue at an index, with its strength.
    void press(int cue);
    QRect pad_area(int cue) const;
    QRect strength_area(int cue) const;
    QSize sizeHint() const override;
    bool hasHeightForWidth() const override { return shape_ == Shape::grid; }
    int heightForWidth(int width) const override;

Q_SIGNALS:
    void wants_form(int cue);
    void wants_cue();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    void drag_strength(int x, bool weakest);
    void paint_pad(QPainter& painter, int cue) const;
    int count() const;
    Document& document_;
    Playing& playing_;
    Shape shape_;
    int dragged_ = -1;
    bool drags_weakest_ = false;
    int lit_ = -1;
};

}  // namespace lacquer
