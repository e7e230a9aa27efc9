// A one-line text field that stands where the text stood: Enter keeps, Escape leaves things as they were.
#pragma once

#include <QKeyEvent>
#include <QLineEdit>

namespace lacquer {

class LineEditor : public QLineEdit {
    Q_OBJECT

public:
    using QLineEdit::QLineEdit;

signals:
    void dismissed();

protected:
    void keyPressEvent(QKeyEvent* event) override {
        if (event->key() == Qt::Key_Escape) {
            emit dismissed();
        } else {
            QLineEdit::keyPressEvent(event);
        }
    }
};

}  // namespace lacquer
