// What signals are worth now, to be dragged.
#pragma once

#include <QWidget>

#include "desktop/kit/accessible_cells.h"

class QMenu;

namespace lacquer {

struct Signal;
class Document;
class Playing;
struct Models;

class SignalFaders : public QWidget, public CellSource {
    Q_OBJECT

public:
    SignalFaders(Models& models, QWidget* parent = nullptr);
    void set_menu(QMenu* menu) { menu_ = menu; }
    QSize sizeHint() const override;
    /// Where a signal's groove lies; for tests.
    QRect groove(int signal) const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_form(const QString& signal);
    void chosen_changed(const QString& signal);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    const Signal* at(int row) const;
    int row_at(QPoint point) const;
    void drag_to(QMouseEvent* event);
    void step(int direction, bool far);
    Document& document_;
    Playing& playing_;
    QMenu* menu_ = nullptr;
    int chosen_ = 0;
    bool dragging_ = false;
    double drag_share_ = 0;
    int drag_x_ = 0;
};

}  // namespace lacquer
