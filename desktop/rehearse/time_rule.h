// The one rule for time: where the finish stands, and the cues on its tape.
#pragma once

#include <QWidget>

class QMenu;

namespace lacquer {

class Document;
class Playing;
struct Models;

class TimeRule : public QWidget {
    Q_OBJECT

public:
    TimeRule(Models& models, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {480, 50}; }
    /// Where a moment stands, in pixels from the left; for tests.
    int x_of(double seconds) const;
    void set_menu(QMenu* menu) { menu_ = menu; }
    /// Deletes the chosen cue from the tape.
    void delete_chosen();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void focusInEvent(QFocusEvent*) override { update(); }
    void focusOutEvent(QFocusEvent*) override { update(); }

private:
    double time_at(int x) const;
    int cue_at(QPoint point) const;

    Document& document_;
    Playing& playing_;
    QMenu* menu_ = nullptr;
    int chosen_cue_ = -1;
    bool scrubbing_ = false;
};

}  // namespace lacquer
