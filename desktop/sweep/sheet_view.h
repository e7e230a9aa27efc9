// The cells of the sheet, or two of them compared.
#pragma once

#include <QAbstractScrollArea>

#include "desktop/kit/accessible_cells.h"

class QMenu;

namespace lacquer {

class Sweeping;

class SheetView : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit SheetView(Sweeping& sweeping, QWidget* parent = nullptr);
    /// Where a cell stands now, in the viewport's pixels.
    QRect cell_area(int cell) const;
    int present() const { return present_; }
    void set_present(int cell);
    /// How many stand beside one another.
    int columns() const;
    void set_menu(QMenu* menu) { menu_ = menu; }
    /// Compares the cell at hand with the one that was marked, or with its neighbour.
    void compare_present();
    /// Laid over one another with a curtain, or side by side.
    void turn_compared();

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_bench();  ///< with the cell that was taken

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    int cell_width() const;
    int cell_height() const;
    int row_height() const;
    int cell_at(QPoint point) const;
    void rebuild();
    void tell_view();
    void reveal(int cell);
    void paint_cell(QPainter& painter, int cell) const;
    void paint_compared(QPainter& painter) const;
    QString empty_words() const;

    Sweeping& sweeping_;
    QMenu* menu_ = nullptr;
    int present_ = 0;
    int marked_ = -1;  ///< to be compared
    bool beside_ = false;
    double curtain_ = 0.5;
    bool drags_curtain_ = false;
};

}  // namespace lacquer
