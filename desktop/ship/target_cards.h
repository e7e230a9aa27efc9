// The targets as cards: whether each is chosen, what it writes, how much that is, and whether it draws the same.
#pragma once

#include <QAbstractScrollArea>
#include <vector>

#include "desktop/kit/accessible_cells.h"

namespace lacquer {

class Shipping;
struct ShipTarget;

class TargetCards : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    explicit TargetCards(Shipping& shipping, QWidget* parent = nullptr);
    /// Where the card of a target stands, in the viewport's pixels.
    QRect card_area(int index) const;
    /// What a card says of how it was verified.
    QString verified_words(const ShipTarget& target) const;

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
    int columns() const;
    void rebuild();
    void paint_card(QPainter& painter, int index) const;

    Shipping& shipping_;
    int present_ = 0;
};

}  // namespace lacquer
