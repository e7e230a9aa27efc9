// What happened and what comes of it, in lanes under one rule for time: cues, signals, driven dials. What they look
// like is in lanes_paint.cpp, what mouse and keys do in lanes_hands.cpp.
#pragma once

#include <QAbstractScrollArea>
#include <QPixmap>
#include <QTimer>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/drive/tape_edits.h"
#include "desktop/kit/accessible_cells.h"
#include "desktop/rehearse/lane_traces.h"
#include "desktop/rehearse/time_view.h"

class QMenu;

namespace lacquer {

class LineEditor;
class Document;
class Playing;
struct Models;

class LanesView : public QAbstractScrollArea, public CellSource {
    Q_OBJECT

public:
    LanesView(Models& models, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {1280, 300}; }

    // What the actions do.
    void show_all_time();
    void zoom_time(int direction);
    void delete_chosen();
    void copy_chosen();
    void nudge(double seconds);
    void clear_choice();
    void choose_all();
    void set_menu(QMenu* menu) { menu_ = menu; }
    bool has_choice() const { return !chosen_.empty(); }

    /// For tests: where a moment stands, in pixels of the viewport; where a lane lies; the traces that are painted.
    int x_of(double seconds) const;
    QRect lane_area(const std::string& name) const;
    const LaneTraces& traces() const { return traces_; }
    const TimeView& view() const { return view_; }
    const TapeEvents& chosen() const { return chosen_; }

    int cell_count() const override;
    AccessibleCell cell(int index) const override;
    void act_on_cell(int index, const QString& action) override;

Q_SIGNALS:
    void wants_dial(const QString& dial);
    void wants_response(const QString& response);
    void signal_chosen(const QString& signal);  ///< by a click on its name

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void scrollContentsBy(int dx, int dy) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent*) override { viewport()->update(); }
    void focusOutEvent(QFocusEvent*) override { viewport()->update(); }
    bool event(QEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

private:
    enum class Kind { cues, signal, dial, response, drops };
    struct Lane {
        Kind kind = Kind::cues;
        std::string name;
        int top = 0;  ///< within all lanes, before scrolling
        int height = 0;
    };
    enum class Drag { nothing, time, loop, pan, events, box };

    void rebuild();
    void retrace();
    void follow_time();
    bool is_quick() const;
    QRect area_of(const Lane& lane) const;
    const Lane* lane_at(QPoint point) const;
    int event_at(QPoint point, TapeEvent& event) const;
    double level_y(const Lane& lane, const LaneTrace& trace, double value) const;
    QString words_of(const Lane& lane) const;
    std::optional<Value> value_of(const Lane& lane) const;
    QString chosen_words() const;
    void press_lane(QMouseEvent* event, const Lane& lane);
    void press_plot(QMouseEvent* event);
    void drag_events(QMouseEvent* event);
    void take_tape(EditedTape edited, const QString& what, bool dragging);
    void type_chosen();
    void take_typed();

    void paint_rule(QPainter& painter) const;
    void paint_lane(QPainter& painter, const Lane& lane) const;
    void paint_cues(QPainter& painter, const QRect& area) const;
    void paint_changes(QPainter& painter, const Lane& lane, const QRect& area) const;
    void paint_traces(QPainter& painter);
    void paint_trace(QPainter& painter, const Lane& lane, const LaneTrace& trace, bool faint) const;
    void paint_now(QPainter& painter) const;

    Document& document_;
    Playing& playing_;
    LineEditor* typed_;
    QMenu* menu_ = nullptr;
    TimeView view_;
    double length_ = 0;   ///< that the view was made for
    std::string viewed_;  ///< the finish that the view is of
    std::vector<Lane> lanes_;
    std::set<std::string> opened_;
    std::set<std::string> closed_;
    std::string named_;  ///< the lane whose name was pressed last
    LaneTraces traces_;
    QPixmap was_;  ///< the lines of all lanes, as they are before now
    QPixmap will_be_;
    bool traces_are_stale_ = true;
    TapeEvents chosen_;
    Drag drag_ = Drag::nothing;
    QPoint drag_from_;
    QPoint mouse_;
    Tape tape_before_;
    TapeEvents chosen_before_;
    double loop_from_ = 0;
    QTimer live_timer_;
};

}  // namespace lacquer
