// The pads on which cues are pressed, each with its strength.
#pragma once

#include <QWidget>

namespace lacquer {

class Session;

class CuePads : public QWidget {
    Q_OBJECT

public:
    CuePads(Session& session, QWidget* parent = nullptr);
    /// Presses the pad of the cue at an index, with its strength.
    void press(int cue);
    QRect pad_area(int cue) const;
    QRect strength_area(int cue) const;
    QSize sizeHint() const override;

signals:
    void wants_form(int cue);
    void wants_cue();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    void drag_strength(int x);
    int count() const;
    Session& session_;
    int dragged_ = -1;
    int lit_ = -1;
};

}  // namespace lacquer
