// The pictures of the try-on sheet, by group.
#pragma once

#include <QAbstractScrollArea>
#include <vector>

#include "desktop/kit/accessible_cells.h"

namespace lacquer {

class TryOnSheet;

class TryOnGrid : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit TryOnGrid(TryOnSheet& sheet);
    void rebuild();
    void reveal(int candidate);
    /// Where a candidate stands, scrolled.
    QRect area_of(int candidate) const;
    /// The candidate a row above (-1) or below (+1), nearest to the present column.
    int next_row(int candidate, int direction) const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    int candidate_at(QPoint point) const;
    TryOnSheet& sheet_;
    std::vector<QRect> cells_;
    struct Heading {
        QString words;
        int y = 0;
    };
    std::vector<Heading> headings_;
};

}  // namespace lacquer
