// Takes the next key that is pressed, and says whose it is now. Stands over the window.
#pragma once

#include <QFrame>
#include <QKeySequence>
#include <QPointer>
#include <functional>

class QLabel;

namespace lacquer {

class KeyEditor : public QFrame {
    Q_OBJECT

public:
    explicit KeyEditor(QWidget* window);
    /// What a key is asked for; `told` says in words what pressing it would change, `taken` gets it on Enter, or an
    /// empty one on Backspace.
    struct Offer {
        QString action;
        QKeySequence now;
        std::function<QString(const QKeySequence&)> told;
        std::function<void(const QKeySequence&)> taken;
    };
    void open(Offer offer);
    QString words() const;

protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    void close_editor();
    void refresh();

    QLabel* label_;
    Offer offer_;
    QKeySequence key_;
    QPointer<QWidget> before_;
};

}  // namespace lacquer
