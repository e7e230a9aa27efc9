// The stops of a gradient or the keys of a curve, to be dragged where they stand.
#pragma once

#include <QWidget>
#include <string>

#include "core/finish/finish.h"

namespace lacquer {

class Document;
struct Models;

class StopsEditor : public QWidget {
    Q_OBJECT

public:
    StopsEditor(Models& models, std::string ground, StopValues values, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    /// Where a stop's handle stands; for tests.
    QPoint handle(std::size_t stop) const;
    int chosen() const { return chosen_; }

Q_SIGNALS:
    /// A double click on a gradient's stop.
    void wants_colour(const QString& ground, std::size_t stop, const QRect& at);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    const Stops* stops() const;
    QRect plot() const;
    std::pair<double, double> heights() const;
    int stop_at(QPoint point) const;
    void set_easing(const std::string& easing);
    void change(const std::vector<Stop>& stops, const QString& what, bool dragging);
    Document& document_;
    std::string name_;
    StopValues values_;
    int chosen_ = 0;
    bool dragging_ = false;
};

}  // namespace lacquer
