// What whoever draws the shipped set has to know: a row each, with a button where something can be done about it.
#pragma once

#include <QAction>
#include <QPointer>
#include <QWidget>

#include "desktop/ship/shipping.h"

class QVBoxLayout;

namespace lacquer {

class LimitRows : public QWidget {
    Q_OBJECT

public:
    /// `find_missing` is the window's action for files that are not where they were.
    LimitRows(Shipping& shipping, QAction* find_missing, QWidget* parent = nullptr);

    void refresh();

private:
    void add_row(const ShipLimit& limit);

    Shipping& shipping_;
    QAction* find_missing_;
    QVBoxLayout* rows_;
    std::vector<ShipLimit> shown_;
};

}  // namespace lacquer
