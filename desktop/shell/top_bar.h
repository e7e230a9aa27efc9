// The strip along the top: which finish, the menus, what was done last, what a frame costs.
#pragma once

#include <QWidget>

class QAction;
class QHBoxLayout;
class QMenu;

namespace lacquer {

class Document;
class Drawing;
struct Models;

class TopBar : public QWidget {
    Q_OBJECT

public:
    TopBar(Models& models, QWidget* parent = nullptr);
    void add_menu(const QString& title, const QString& name, QMenu* menu);
    /// A screen of the window, behind the menus; checked while it is shown.
    void add_tab(QAction* action);
    /// The line that says what was done last; for tests.
    const QString& notice() const { return notice_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Document& document_;
    Drawing& drawing_;
    QHBoxLayout* row_;
    QString notice_;
    int tabs_ = 0;
};

}  // namespace lacquer
