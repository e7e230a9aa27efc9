// The large picture: the finished one, or any step.
#pragma once

#include <QWidget>

namespace lacquer {

class Session;
class StartList;

class StageView : public QWidget {
    Q_OBJECT

public:
    StageView(Session& session, QWidget* parent = nullptr);
    void show_finished();
    /// Between fitting the picture into the view and one picture pixel to one screen pixel.
    void toggle_actual_size();
    QSize sizeHint() const override { return {820, 460}; }

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    struct Pill {
        QRect area;
        void (StageView::*press)();
    };
    QRect picture_area() const;
    void paint_picture(QPainter& painter) const;
    void paint_pills(QPainter& painter);
    void paint_beginning(QPainter& painter) const;
    bool shows_nothing() const;
    void place_start_list();
    void toggle_shown();

    Session& session_;
    StartList* start_list_;
    bool actual_size_ = false;
    QPoint pan_;
    QPoint drag_from_;
    QList<Pill> pills_;
};

}  // namespace lacquer
