// The values of steps along a line over the picture, as a plot. Two guides measure; the edges that are dials can be
// dragged.
#pragma once

#include <QWidget>
#include <array>
#include <string>
#include <vector>

namespace lacquer {

class Document;
class Playing;
class Drawing;
struct Models;

class TransectView : public QWidget {
    Q_OBJECT

public:
    explicit TransectView(Models& models, QWidget* parent = nullptr);

    /// Which of the drawing's probe points are the line's, and how many picture pixels it is long.
    void set_line(int first, int count, double length);
    /// Where the guides stand, as shares of the line.
    std::vector<double> guides() const { return {guides_[0], guides_[1]}; }
    /// The curves' names: steps, and a part where they have several.
    std::vector<std::string> curve_names() const;
    /// The value of a curve at a sample; for tests.
    float value_of(const std::string& curve, int sample) const;
    /// "width 120 px · rim 0.1 to 0.9 · ..."
    QString reading() const;
    /// Where an edge dial's line stands; for tests.
    int edge_y(const std::string& dial) const;

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    struct Curve {
        std::string name;
        std::vector<float> values;
    };
    std::vector<Curve> curves() const;
    std::pair<float, float> range(const std::vector<Curve>& curves) const;
    QRect plot() const;
    double y_of(double value, std::pair<float, float> range) const;
    std::vector<std::string> edge_dials() const;

    Document& document_;
    Playing& playing_;
    Drawing& drawing_;
    int first_ = 0;
    int count_ = 0;
    double length_ = 1;
    std::array<double, 2> guides_{0.25, 0.75};
    int dragged_guide_ = -1;
    std::string dragged_dial_;
};

}  // namespace lacquer
