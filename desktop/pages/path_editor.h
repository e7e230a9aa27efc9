// The keys of a path, to be dragged where they stand, and how steeply it goes through them.
#pragma once

#include <QWidget>
#include <string>
#include <utility>

#include "core/drive/path_keys.h"

namespace lacquer {

class LineEditor;
class Document;
struct Models;

class PathEditor : public QWidget {
    Q_OBJECT

public:
    PathEditor(Models& models, std::string response, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {400, height()}; }
    /// Where a key stands, and the end of its slope's handle; for tests.
    QPoint key_place(std::size_t key) const;
    QPoint slope_place(std::size_t key, bool after) const;
    int chosen() const { return chosen_; }

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    enum class Hold { nothing, key, before, after };
    PathKeys keys() const;
    QRect plot() const;
    double seconds() const;
    std::pair<double, double> heights() const;
    QPointF place_of(double time, double value) const;
    double time_at(int x) const;
    double value_at(int y) const;
    Hold hold_at(QPoint point, int& key) const;
    void change(PathKeys keys, const QString& what, bool dragging);
    void set_slope(SlopeKind kind, bool before, bool after);
    void type_key();
    void take_typed();
    Document& document_;
    std::string name_;
    LineEditor* typed_;
    int chosen_ = 0;
    Hold hold_ = Hold::nothing;
    std::pair<double, double> held_heights_{0, 1};  ///< the plot does not change its scale under a drag
    double held_seconds_ = 1;
};

}  // namespace lacquer
