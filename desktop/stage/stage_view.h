// The large picture: the finished one, or any step. What it looks like is in stage_paint.cpp, what mouse and keys do in
// stage_hands.cpp.
#pragma once

#include <QWidget>
#include <optional>

#include "core/droplets/emitter.h"
#include "desktop/stage/stage_frame.h"

class QMenu;

namespace lacquer {

struct Ground;
class Document;
class Playing;
class Drawing;
struct Models;
class LineEditor;
class StartList;
class TransectView;
struct StagePicture;

class StageView : public QWidget {
    Q_OBJECT

public:
    StageView(Models& models, QWidget* parent = nullptr);

    void set_menu(QMenu* menu) { menu_ = menu; }

    // What the actions do.
    void show_finished();
    /// Between fitting the picture into the view and one picture pixel to one screen pixel.
    void toggle_actual_size();
    void zoom(int direction);
    /// Between the picture that came in, or `other`, and the one that is shown.
    void toggle_curtain();
    void set_curtain_other(const std::string& step);
    void toggle_pin();
    void toggle_core_sample();
    void toggle_transect();
    /// The next click takes the colour there.
    void pick_colour();
    void toggle_detail();
    /// Clicks on objects put them among those that these marks choose, or take them out; empty ends that.
    void point_at_objects(const std::string& marks);
    const std::string& pointing_marks() const { return marks_; }
    /// Dragging turns, moves and brings nearer the camera of the stand-in scene.
    void toggle_camera();
    bool moves_camera() const { return tool_camera_; }
    /// Clicks play the chosen cue where they are; places of signals are dragged; zones and jolts are seen.
    void set_rehearses(bool rehearses);
    /// The hands by which droplets are dragged while their page is open: where they are born, how far about that, and
    /// the wind. Where one stands on the screen; nothing where it has none.
    enum class DropletsHand { middle, edge, wind };
    std::optional<QPointF> droplets_point(DropletsHand hand) const;
    /// The drop that a click held; nothing if none is.
    const std::optional<Drop>& held_drop() const { return held_drop_; }
    /// Where a signal's place stands on the screen; for tests.
    QPoint place_point(const std::string& signal) const;
    /// The scene whose camera that is; null if there is none. A capture has no camera to move.
    const Ground* stand_in_scene() const;
    /// Turns it by degrees, moves it by shares of the picture's height, or brings it nearer by a factor.
    void orbit_camera(double right, double up);
    void move_camera(double right, double up);
    void dolly_camera(double factor);
    /// What lies under the mouse: object, place in the world and in the picture; empty where there is no scene.
    QString object_words() const;
    void copy_picture();
    void save_picture(const QString& path);
    /// One step back: a tool that is at work is put away. False if there was none.
    bool step_back();
    bool samples() const { return tool_core_; }
    bool shows_detail() const { return detail_.has_value(); }

    /// The values under the mouse or at the held point, as text.
    QString values_text() const;
    QSize sizeHint() const override { return {820, 460}; }
    /// Where a pixel of the picture stands; for tests.
    QPoint screen_point(QPoint pixel) const;
    TransectView& transect() { return *transect_; }
    StartList& start_list() { return *start_list_; }

Q_SIGNALS:
    void core_sample_changed(bool on);
    /// A colour that was picked, with three parts in linear light.
    void picked(double red, double green, double blue);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void focusInEvent(QFocusEvent*) override { update(); }
    void focusOutEvent(QFocusEvent*) override { update(); }

private:
    enum class Dragging { nothing, picture, curtain, line, line_end, camera, place, droplets };
    struct Pill {
        QRect area;
        void (StageView::*press)();
    };

    QRect room() const;
    StageFrame frame() const;
    StageFrame pinned_frame() const;
    const StagePicture* other_picture() const;
    const StagePicture* pinned_picture() const;
    std::optional<QPoint> pixel_at(QPointF screen) const;
    void ask_values();
    void place_children();
    void tell_view_size();
    bool shows_nothing() const;
    void toggle_shown();
    int curtain_x() const;

    void paint_picture(QPainter& painter) const;
    void paint_one(QPainter& painter, const StagePicture& picture, const StageFrame& frame, const QRect& clip) const;
    void paint_backdrop(QPainter& painter, const QRect& area) const;
    void paint_curtain(QPainter& painter) const;
    void paint_pixel_values(QPainter& painter, const StagePicture& picture, const StageFrame& frame) const;
    void paint_safe_area(QPainter& painter) const;
    void paint_tools(QPainter& painter) const;
    void paint_detail(QPainter& painter) const;
    void paint_scene_words(QPainter& painter) const;
    void take_pick();
    void take_colour(QPoint pixel);
    bool move_by_key(QPoint by);
    bool take_by_key();
    QPoint pointed() const;
    bool press_play(QPoint pixel);
    void touch(QPoint pixel);
    void take_touch();
    void drag_place();
    std::string place_near(QPointF screen) const;
    void paint_play(QPainter& painter) const;
    // Of droplets, see stage_droplets.cpp.
    const Droplets* shown_droplets() const;
    QPointF wind_root() const;
    std::optional<DropletsHand> droplets_hand_near(QPointF screen) const;
    bool press_droplets();
    void drag_droplets();
    void paint_droplets(QPainter& painter) const;
    const Emitter* emitter_of_held() const;
    std::optional<Drop> held_drop_now() const;
    QString held_drop_words() const;
    void paint_held_drop(QPainter& painter) const;
    void paint_jolt(QPainter& painter, const std::string& response) const;
    void drag_camera(QMouseEvent* event);
    void paint_notice(QPainter& painter) const;
    void paint_beginning(QPainter& painter) const;
    void paint_pills(QPainter& painter);

    Document& document_;
    Playing& playing_;
    Drawing& drawing_;
    StartList* start_list_;
    LineEditor* start_filter_;
    QMenu* menu_ = nullptr;
    TransectView* transect_;
    double zoom_ = 0;
    QPointF centre_{0.5, 0.5};
    bool tool_core_ = false;
    bool tool_pick_ = false;
    bool core_held_ = false;
    bool tool_camera_ = false;
    std::string marks_;           ///< that clicks on objects change
    std::optional<QPoint> pick_;  ///< clicked, and its object not known yet
    std::optional<QPoint> core_;
    struct Touch {
        QPoint pixel;
        double at = 0;
    };
    bool rehearses_ = false;
    std::optional<Touch> touch_;  ///< clicked to play a cue, and its object not known yet
    std::string dragged_place_;
    std::optional<std::pair<QPointF, QPointF>> line_;  ///< of the transect, in picture pixels
    std::optional<QPointF> detail_;                    ///< middle of the enlarged detail, in picture pixels
    QPointF mouse_;
    Dragging dragging_ = Dragging::nothing;
    DropletsHand droplets_hand_ = DropletsHand::middle;
    std::optional<Drop> held_drop_;
    std::string held_of_;  ///< the ground that it is of
    bool drags_second_end_ = true;
    QPointF drag_from_;
    QPointF centre_from_;
    QList<Pill> pills_;
};

}  // namespace lacquer
