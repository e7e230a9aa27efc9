// The strip along the top: which finish, the menus, what was done last, what a frame costs.
#pragma once

#include <QWidget>

class QHBoxLayout;
class QMenu;

namespace lacquer {

class Session;

class TopBar : public QWidget {
    Q_OBJECT

public:
    TopBar(Session& session, QWidget* parent = nullptr);
    void add_menu(const QString& title, QMenu* menu);
    /// The line that says what was done last; for tests.
    const QString& notice() const { return notice_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Session& session_;
    QHBoxLayout* row_;
    QString notice_;
};

}  // namespace lacquer
