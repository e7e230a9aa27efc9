// What signals are worth now, to be dragged.
#pragma once

#include <QWidget>

namespace lacquer {

struct Signal;
class Document;
class Playing;
struct Models;

class SignalFaders : public QWidget {
    Q_OBJECT

public:
    SignalFaders(Models& models, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    /// Where a signal's groove lies; for tests.
    QRect groove(int signal) const;

Q_SIGNALS:
    void wants_form(const QString& signal);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

private:
    const Signal* at(int row) const;
    int row_at(QPoint point) const;
    void drag_to(QMouseEvent* event);
    void step(int direction, bool far);
    Document& document_;
    Playing& playing_;
    int chosen_ = 0;
    bool dragging_ = false;
    double drag_share_ = 0;
    int drag_x_ = 0;
};

}  // namespace lacquer
