// Pointing at objects of a scene, and moving its camera.
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/stage/stage_view.h"

namespace lacquer {

namespace {

constexpr double degrees_a_pixel = 0.25;
constexpr double nearer_a_pixel = 1.005;

}  // namespace

void StageView::point_at_objects(const std::string& marks) {
    marks_ = marks;
    pick_.reset();
    tool_camera_ = false;
    if (!tool_core_) core_.reset();
    document_.say(
        marks.empty()
            ? tr("Clicks no longer mark objects")
            : tr("Click objects to mark them in %1, again to take them out; Escape ends").arg(qs(shown_name(marks))));
    ask_values();
    update();
}

const Ground* StageView::stand_in_scene() const {
    const auto& grounds = document_.finish().grounds;
    const auto found =
        std::find_if(grounds.begin(), grounds.end(), [](const Ground& g) { return g.as<SceneGround>() != nullptr; });
    return found != grounds.end() ? &*found : nullptr;
}

void StageView::toggle_camera() {
    if (!tool_camera_ && stand_in_scene() == nullptr)
        return document_.say(tr("There is no stand-in scene whose camera could be moved: add one ({add_scene})"));
    tool_camera_ = !tool_camera_;
    marks_.clear();
    document_.say(tool_camera_
                      ? tr("Drag turns the camera, Shift moves it, the wheel or Ctrl brings it nearer; Escape ends")
                      : tr("The camera stays where it is"));
    update();
}

void StageView::orbit_camera(double right, double up) {
    if (const Ground* scene = stand_in_scene())
        set_camera(document_, scene->name, orbited(camera_of(*scene, playing_.time()), right, up), playing_.time());
}

void StageView::move_camera(double right, double up) {
    if (const Ground* scene = stand_in_scene())
        set_camera(document_, scene->name, moved(camera_of(*scene, playing_.time()), right, up), playing_.time());
}

void StageView::dolly_camera(double factor) {
    if (const Ground* scene = stand_in_scene())
        set_camera(document_, scene->name, dollied(camera_of(*scene, playing_.time()), factor), playing_.time());
}

void StageView::drag_camera(QMouseEvent* event) {
    const QPointF by = event->position() - drag_from_;
    drag_from_ = event->position();
    const bool sideways = (event->modifiers() & Qt::ShiftModifier) != 0 || (event->buttons() & Qt::RightButton) != 0;
    if ((event->modifiers() & Qt::ControlModifier) != 0) return dolly_camera(std::pow(nearer_a_pixel, by.y()));
    const double high = std::max(1.0, frame().area().height());
    if (sideways) return move_camera(-by.x() / high, by.y() / high);
    orbit_camera(-by.x() * degrees_a_pixel, by.y() * degrees_a_pixel);
}

// The clicked pixel's object goes into the marks or out of them once it is known.
void StageView::take_pick() {
    const Ground* scene = first_scene(document_.finish());
    if (!pick_ || marks_.empty() || scene == nullptr) return;
    const Probe& probe = drawing_.probe();
    const DrawnStep* ids = probe.find(scene->name + "_id");
    if (ids == nullptr || ids->picture.width < 1 || probe.points.empty()) return;
    if (probe.points.front().x != pick_->x() || probe.points.front().y != pick_->y()) return;
    pick_.reset();
    const int id = static_cast<int>(std::lround(ids->picture.at(0, 0)[0]));
    if (id == 0) return document_.say(tr("There is no object there"));
    const Ground* ground = find_ground(document_.finish(), marks_);
    const auto* before = ground != nullptr ? ground->as<MarksGround>() : nullptr;
    if (before == nullptr) return;
    const bool was = std::find(before->ids.begin(), before->ids.end(), id) != before->ids.end();
    const QString name = qs(object_name(*scene, id));
    document_.edit(toggle_mark(document_.finish(), marks_, id),
                   (was ? tr("Removed %1 from %2") : tr("Marked %1 in %2")).arg(name, qs(shown_name(marks_))));
}

QString StageView::object_words() const {
    const Ground* scene = first_scene(document_.finish());
    const Probe& probe = drawing_.probe();
    const DrawnStep* ids = scene != nullptr ? probe.find(scene->name + "_id") : nullptr;
    const DrawnStep* places = scene != nullptr ? probe.find(scene->name + "_position") : nullptr;
    if (ids == nullptr || ids->picture.width < 1 || places == nullptr || probe.points.empty()) return {};
    const int id = static_cast<int>(std::lround(ids->picture.at(0, 0)[0]));
    const float* at = places->picture.at(0, 0);
    const auto metres = [](float v) { return qs(plain_number(static_cast<double>(v), 3)); };
    const QSize size = drawing_.looked_frame();
    const auto share = [](int pixel, int side) { return qs(plain_number((pixel + 0.5) / side, 3)); };
    const QString uv =
        QStringLiteral("uv %1, %2")
            .arg(share(probe.points.front().x, size.width()), share(probe.points.front().y, size.height()));
    if (id == 0) return tr("no object · %1").arg(uv);
    return tr("%1 · id %2 · %3, %4, %5 m · %6")
        .arg(qs(object_name(*scene, id)), QString::number(id), metres(at[0]), metres(at[1]), metres(at[2]), uv);
}

void StageView::paint_scene_words(QPainter& painter) const {
    QString words;
    if (!marks_.empty()) {
        words = core_ ? object_words() : QString();
        if (words.isEmpty()) words = tr("Point at an object");
    } else if (tool_camera_) {
        if (const Ground* scene = stand_in_scene()) {
            const Camera camera = camera_of(*scene, playing_.time());
            const auto metres = [](double v) { return qs(plain_number(v, 3)); };
            words = tr("camera at %1, %2, %3 m · %4°%5")
                        .arg(metres(camera.eye.x), metres(camera.eye.y), metres(camera.eye.z), metres(camera.field),
                             scene->as<SceneGround>()->view.path.empty() ? QString() : tr(" · on its path"));
        }
    }
    if (words.isEmpty()) return;
    const QRect area = frame().area().toRect();
    const int width = QFontMetrics(theme::figures(theme::small)).horizontalAdvance(words) + 16;
    const QRect box(area.left() + 8, area.bottom() - 30, width, 22);
    painter.fillRect(box, theme::shade);
    theme::paint_text(painter, box.adjusted(8, 0, 0, 0), words, theme::figures(theme::small), theme::text);
}

}  // namespace lacquer
