// A plot with stops that are dragged where they stand: what gradients, curves and paths have in common.
#pragma once

#include <QPointF>
#include <QString>
#include <QWidget>
#include <utility>
#include <vector>

class QMenu;

namespace lacquer {

class LineEditor;

/// Stops are chosen by clicks and Page Up and Down, moved by dragging and arrows (Shift: finely), added by clicks
/// between them, typed after Enter, and deleted by Delete. What they are is up to who derives from it.
class PlotEditor : public QWidget {
    Q_OBJECT

public:
    /// The stop that keys work on.
    int chosen() const { return chosen_; }
    /// Where a stop's handle stands, in pixels; null if there is no such stop.
    QPoint handle(std::size_t stop) const;
    QSize sizeHint() const override { return {400, height()}; }
    /// Lets go of what is dragged, for it was called off.
    void let_go();

Q_SIGNALS:
    /// The hand has taken hold of something, or let go of it.
    void held(bool holds);

protected:
    /// Where on the plot stops can stand: 0 to `longest`, and between two values.
    struct Extent {
        double longest = 1;
        double least = 0;
        double most = 1;
    };

    explicit PlotEditor(QWidget* parent = nullptr);

    /// Where the stops stand, as place and value, in order of their places.
    virtual std::vector<QPointF> stops() const = 0;
    virtual Extent extent() const = 0;
    /// How far the last stop may be dragged.
    virtual double farthest() const { return 1; }
    /// False where values can't be seen as heights: all stops stand below the plot then.
    virtual bool has_heights() const { return true; }
    virtual void paint_plot(QPainter& painter, const QRect& area) = 0;
    virtual QColor colour_of(std::size_t stop) const;
    /// Puts a stop there, between those before and after it.
    virtual void add_stop(std::size_t before, QPointF at) = 0;
    virtual void move_stop(std::size_t stop, QPointF to) = 0;
    virtual void delete_stop(std::size_t stop) = 0;
    /// `E`: the next way of going on from a stop.
    virtual void change_way(std::size_t stop) = 0;
    virtual void fill_menu(QMenu& menu, std::size_t stop) = 0;
    /// Enter. `text` is what stands in the line to begin with.
    virtual QString text_of(std::size_t stop) const = 0;
    /// Takes what was typed; the stop may stand elsewhere among the others then, which is given back.
    virtual std::size_t take_text(std::size_t stop, const QString& text) = 0;
    /// Something besides stops that can be dragged; true if there is something here.
    virtual bool take_hold(QPoint) { return false; }
    virtual void drag_held(QMouseEvent*) {}
    /// A value's part of the menu's, of arrows up and down, and of a double click; false if it has none of its own.
    virtual bool open_value(std::size_t) { return false; }

    QRect plot() const;
    QPointF place_of(QPointF stop) const;
    /// The other way round; places are held to 0 and above, both are rounded to thousandths.
    QPointF stop_at(QPoint point) const;
    /// The extent, as it was when the hand took hold.
    Extent shown_extent() const { return held_ == Held::nothing ? extent() : held_extent_; }
    bool holds() const { return held_ != Held::nothing; }

    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    enum class Held { nothing, stop, other };

    int stop_near(QPoint point) const;
    void hold(Held what);
    /// Between its neighbours.
    void move_within(std::size_t stop, QPointF to);
    void begin_typing();
    void end_typing();

    LineEditor* typed_;
    int chosen_ = 0;
    Held held_ = Held::nothing;
    Extent held_extent_;  ///< the plot doesn't change its scale under a drag
};

}  // namespace lacquer
