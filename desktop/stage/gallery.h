// The demos over the window, as pictures, found by typing. One that is taken is opened as a copy.
#pragma once

#include <QFrame>
#include <QPointer>

namespace lacquer {

class LineEditor;
class StartList;
struct Models;

class Gallery : public QFrame {
    Q_OBJECT

public:
    explicit Gallery(Models& models, QWidget* window);
    /// Opens within this area of the window.
    void open(const QRect& area);
    StartList& list() { return *list_; }
    LineEditor& field() { return *field_; }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void leave();

    LineEditor* field_;
    StartList* list_;
    QPointer<QWidget> before_;
};

}  // namespace lacquer
