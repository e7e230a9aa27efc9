// A one-line text field that stands where the text stood: Enter keeps, Escape leaves things as they were.
#pragma once

#include <QKeyEvent>
#include <QLineEdit>

namespace lacquer {

class LineEditor : public QLineEdit {
    Q_OBJECT

public:
    using QLineEdit::QLineEdit;

Q_SIGNALS:
    void dismissed();

protected:
    bool event(QEvent* event) override {
        // Escape belongs to the field while it is open, whatever else it is a shortcut for.
        if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape) {
            event->accept();
            return true;
        }
        return QLineEdit::event(event);
    }
    void keyPressEvent(QKeyEvent* event) override {
        if (event->key() == Qt::Key_Escape) {
            emit dismissed();
        } else {
            QLineEdit::keyPressEvent(event);
        }
        // A field leaves Enter to whatever lies below it, which would open it again.
        event->accept();
    }
};

}  // namespace lacquer
