// Rows, cards, lanes and pads that a view paints itself, as screen readers and other assistive programs see them.
#pragma once

#include <QAccessible>
#include <QRect>
#include <QString>
#include <QStringList>

namespace lacquer {

/// A thing in a view, such as a row.
struct AccessibleCell {
    QString name;
    QString value = {};
    QRect area = {};  ///< in the view's own pixels; null while it is not in view
    bool chosen = false;
    QAccessible::Role role = QAccessible::ListItem;
    QStringList actions = {};  ///< what can be done to it; the first is what Enter or a click does
};

/// What a view with such things is.
class CellSource {
public:
    virtual ~CellSource() = default;
    virtual int cell_count() const = 0;
    virtual AccessibleCell cell(int index) const = 0;
    virtual void act_on_cell(int index, const QString& action) = 0;
};

/// From here on, every widget that is a `CellSource` shows its cells. To be called once, after the application is made.
void install_accessible_cells();

}  // namespace lacquer
