// What was measured of the swept dial: a plot, and a row for each measure with its verdict, its words and its mends.
#pragma once

#include <QAbstractScrollArea>
#include <vector>

#include "core/inspect/measure.h"
#include "desktop/kit/accessible_cells.h"

namespace lacquer {

class Sweeping;

class MeasureList : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit MeasureList(Sweeping& sweeping, QWidget* parent = nullptr);
    /// Where the row of a measure, its promise and its first mend stand, in the viewport's pixels; null if not there.
    QRect row_area(const std::string& id) const;
    QRect promise_area(const std::string& id) const;
    QRect mend_area(const std::string& id) const;
    /// Whose curve is plotted: the row at hand, or the first that has one.
    const Measured* plotted() const;

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;

private:
    struct Row {
        QRect area;  // all of these unscrolled
        QRect promise;
        std::vector<QRect> mends;
    };
    const Row* row_of(const std::string& id) const;
    void rebuild();
    QString words_of(const Measured& one) const;
    bool is_promised(const std::string& id) const;
    void paint_plot(QPainter& painter, const QRect& area) const;
    void paint_row(QPainter& painter, std::size_t index) const;

    Sweeping& sweeping_;
    std::vector<Row> rows_;
    int present_ = 0;
};

}  // namespace lacquer
