// The strip along the top: which finish, the menus, the screens.
#pragma once

#include <QWidget>

class QAction;
class QHBoxLayout;
class QMenu;

namespace lacquer {

class Document;

class TopBar : public QWidget {
    Q_OBJECT

public:
    TopBar(Document& document, QWidget* parent = nullptr);
    void add_menu(const QString& title, const QString& name, QMenu* menu);
    /// A screen of the window, behind the menus; checked while it is shown.
    void add_tab(QAction* action);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Document& document_;
    QHBoxLayout* row_;
    int tabs_ = 0;
};

}  // namespace lacquer
