// A track with two handles, for a number that lies somewhere from one value to another.
#pragma once

#include <QWidget>

namespace lacquer {

class SpanTrack : public QWidget {
    Q_OBJECT

public:
    /// From `least` to `most`; a hand doesn't leave that, whatever stands there.
    SpanTrack(double least, double most, QWidget* parent = nullptr);
    void set_values(double from, double to);
    bool is_held() const { return hand_ != Hand::none; }
    double from() const { return from_; }
    double to() const { return to_; }
    QSize sizeHint() const override { return {110, 22}; }
    /// Where the two handles are; tests take hold of them there.
    QPoint handle_of(bool upper) const;

Q_SIGNALS:
    void moved(double from, double to);
    /// A hand takes hold, or lets go.
    void dragging(bool on);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    enum class Hand { none, lower, upper, both };
    double share_of(double value) const;
    void move_by(Hand hand, double by);
    QRect track() const { return rect().adjusted(6, 0, -6, 0); }
    void tell();

    double least_;
    double most_;
    double from_ = 0;
    double to_ = 0;
    Hand hand_ = Hand::none;
    bool key_upper_ = true;  ///< which end the keys move
    int last_x_ = 0;
};

}  // namespace lacquer
