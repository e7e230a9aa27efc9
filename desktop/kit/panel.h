// The head of a panel: a few words at its left, buttons of actions at its right.
#pragma once

#include <QString>

class QAction;
class QHBoxLayout;
class QLabel;
class QPushButton;
class QWidget;

namespace lacquer {

QLabel* quiet_label(QWidget* parent);
/// Does what the action does, explains itself as that does, and shows its key behind `words`.
QPushButton* panel_button(QWidget* parent, QAction* action, const QString& words);
/// Other words for such a button; its key stays.
void set_button_words(QPushButton* button, const QString& words);
/// `row` is where its parts go.
QWidget* panel_header(QWidget* parent, QHBoxLayout*& row);

}  // namespace lacquer
