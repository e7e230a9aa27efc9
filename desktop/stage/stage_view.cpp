#include "desktop/stage/stage_view.h"
#include "desktop/stage/stage_metrics.h"

#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>
#include <QImage>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/colour_text.h"
#include "core/picture/write_picture.h"
#include "core/render/renderer.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"
#include "desktop/stage/stage_metrics.h"
#include "desktop/stage/start_list.h"
#include "desktop/stage/transect_view.h"

namespace lacquer {

namespace {

constexpr int beginning_height = 70;  // of the words above the list to start from
constexpr int transect_height = 168;
constexpr int transect_samples = 240;

}  // namespace

StageView::StageView(Models& models, QWidget* parent)
    : QWidget(parent),
      document_(models.document),
      playing_(models.playing),
      drawing_(models.drawing),
      start_list_(new StartList(models, StartList::Offers::everything, this)),
      start_filter_(new LineEditor(this)),
      transect_(new TransectView(models, this)) {
    setObjectName(QStringLiteral("stage"));
    setAccessibleName(tr("Stage"));
    setMinimumSize(320, 180);
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    const auto repaint = qOverload<>(&QWidget::update);
    connect(&drawing_, &Drawing::stage_changed, this, repaint);
    connect(&document_, &Document::finish_changed, this, repaint);
    connect(&document_, &Document::selection_changed, this, repaint);
    connect(&drawing_, &Drawing::probe_changed, this, [this] {
        take_pick();
        take_touch();
        update();
    });
    connect(&drawing_, &Drawing::look_changed, this, [this] {
        ask_values();
        update();
    });
    connect(&document_, &Document::finish_changed, this, &StageView::place_children);
    start_filter_->setObjectName(QStringLiteral("start_filter"));
    start_filter_->setPlaceholderText(tr("Find by typing"));
    start_filter_->setAccessibleName(start_filter_->placeholderText());
    connect(start_filter_, &QLineEdit::textChanged, start_list_, &StartList::set_filter);
    connect(start_filter_, &QLineEdit::returnPressed, start_list_, &StartList::open_first);
    connect(start_filter_, &LineEditor::dismissed, start_filter_, [this] {
        start_filter_->clear();
        setFocus();
    });
    connect(&document_, &Document::called_off, this, [this] { dragging_ = Dragging::nothing; });
    transect_->hide();
    place_children();
}

bool StageView::shows_nothing() const {
    return document_.checked().steps.empty() && first_picture(document_.finish()) == nullptr;
}

void StageView::place_children() {
    start_list_->setGeometry(
        rect().adjusted(stage_margin, beginning_height, -stage_margin, -2 * stage_margin - pill_height));
    start_list_->setVisible(shows_nothing());
    constexpr int filter_width = 220;
    start_filter_->setGeometry(width() - stage_margin - filter_width, stage_margin, filter_width, 24);
    start_filter_->setVisible(shows_nothing());
    transect_->setGeometry(stage_margin, height() - 2 * stage_margin - pill_height - transect_height + 8,
                           width() - 2 * stage_margin, transect_height);
}

void StageView::resizeEvent(QResizeEvent*) { place_children(); }

void StageView::tell_view_size() {
    const StageFrame now = frame();
    drawing_.set_view_size(now.device_scale() < 1 ? now.device_size() : QSize());
}

QRect StageView::room() const {
    // What is said about the picture stands below it.
    QRect room = rect().adjusted(stage_margin, stage_margin, -stage_margin, -2 * stage_margin - pill_height);
    if (transect_->isVisibleTo(this)) room.setBottom(transect_->geometry().top() - 10);
    if (!drawing_.look().pinned.empty()) room.setRight(room.center().x() - stage_margin / 2);
    return room;
}

StageFrame StageView::frame() const { return {room(), drawing_.looked_frame(), zoom_, centre_, devicePixelRatioF()}; }

StageFrame StageView::pinned_frame() const {
    StageFrame pinned = frame();
    pinned.room.translate(pinned.room.width() + stage_margin, 0);
    return pinned;
}

const StagePicture* StageView::other_picture() const {
    const Look& look = drawing_.look();
    if (!look.curtain) return nullptr;
    const Ground* first = first_picture(document_.finish());
    const std::string name = look.curtain_other.empty() && first != nullptr ? first->name : look.curtain_other;
    for (const StagePicture& picture : drawing_.stage().beside) {
        if (picture.step == name) return &picture;
    }
    return nullptr;
}

const StagePicture* StageView::pinned_picture() const {
    const std::string& name = drawing_.look().pinned;
    if (name.empty()) return nullptr;
    for (const StagePicture& picture : drawing_.stage().beside) {
        if (picture.step == name) return &picture;
    }
    // It may be what is shown anyway.
    const std::string shown = drawing_.shown().empty() ? finished_step(document_.checked()) : drawing_.shown();
    return name == shown ? &drawing_.stage() : nullptr;
}

std::optional<QPoint> StageView::pixel_at(QPointF screen) const {
    const StageFrame now = frame();
    const QPointF at = now.to_picture(screen);
    const QPoint pixel(static_cast<int>(std::floor(at.x())), static_cast<int>(std::floor(at.y())));
    if (!QRect(QPoint(), now.frame).contains(pixel)) return std::nullopt;
    return pixel;
}

QPoint StageView::screen_point(QPoint pixel) const {
    return frame().to_screen(QPointF(pixel) + QPointF(0.5, 0.5)).toPoint();
}

int StageView::curtain_x() const {
    const QRectF area = frame().area();
    return static_cast<int>(area.left() + drawing_.look().curtain_at * area.width());
}

// ---- what the actions do ----

void StageView::show_finished() { drawing_.show_step({}); }

void StageView::toggle_actual_size() {
    zoom_ = zoom_ == 1 ? 0 : 1;
    centre_ = {0.5, 0.5};
    update();
}

void StageView::zoom(int direction) {
    const StageFrame now = frame();
    const QPointF about = QRectF(now.room).contains(mouse_) ? mouse_ : QRectF(now.room).center();
    const StageFrame next = now.zoomed(next_zoom(now.device_scale(), direction), about);
    zoom_ = next.zoom;
    centre_ = next.centre;
    update();
}

void StageView::toggle_shown() {
    drawing_.show_step(drawing_.shown() == document_.selected() ? std::string() : document_.selected());
}

void StageView::toggle_curtain() {
    Look look = drawing_.look();
    look.curtain = !look.curtain;
    if (look.curtain && look.curtain_other.empty() && first_picture(document_.finish()) == nullptr) {
        document_.say(tr("There is no picture to compare with: choose a step for the curtain's left side"));
        return;
    }
    drawing_.set_look(std::move(look));
}

void StageView::set_curtain_other(const std::string& step) {
    Look look = drawing_.look();
    look.curtain = true;
    look.curtain_other = step;
    drawing_.set_look(std::move(look));
    document_.say(tr("%1 is on the curtain's left side").arg(qs(shown_name(step))));
}

void StageView::toggle_pin() {
    Look look = drawing_.look();
    look.pinned = look.pinned.empty() ? document_.selected() : std::string();
    if (!look.pinned.empty()) document_.say(tr("%1 stays in view").arg(qs(shown_name(look.pinned))));
    drawing_.set_look(std::move(look));
}

void StageView::toggle_core_sample() {
    tool_core_ = !tool_core_;
    core_held_ = false;
    core_ = tool_core_ ? pixel_at(mouse_) : std::nullopt;
    if (tool_core_ && !core_) core_ = QPoint(frame().frame.width() / 2, frame().frame.height() / 2);
    ask_values();
    emit core_sample_changed(tool_core_);
    if (tool_core_) document_.say(tr("Core sample: point at the picture; a click holds the place"));
    update();
}

void StageView::toggle_transect() {
    const bool on = !transect_->isVisible();
    transect_->setVisible(on);
    if (on) {
        const QSize size = frame().frame;
        if (!line_) line_ = {QPointF(0, size.height() / 2.0), QPointF(size.width() - 1.0, size.height() / 2.0)};
        document_.say(tr("Transect: draw a line over the picture"));
    }
    ask_values();
    update();
}

void StageView::pick_colour() {
    tool_pick_ = true;
    setCursor(Qt::CrossCursor);
    update();
    document_.say(tr("Click a pixel to take its colour"));
}

void StageView::toggle_detail() {
    detail_ = detail_ ? std::nullopt : std::optional<QPointF>(frame().to_picture(mouse_));
    update();
}

void StageView::copy_picture() {
    if (drawing_.stage().image.isNull()) return document_.say(tr("There is no picture to copy"));
    QGuiApplication::clipboard()->setImage(drawing_.stage().image);
    document_.say(tr("Copied the picture that is shown"));
}

void StageView::save_picture(const QString& path) {
    if (path.isEmpty()) return;
    const StagePicture& shown = drawing_.stage();
    if (shown.image.isNull()) return document_.say(tr("There is no picture to save"));
    const QString file =
        QFileInfo(path).suffix().isEmpty() ? document_.with_ending(path, QStringLiteral(".png")) : path;
    if (file.isEmpty()) return;
    using Given = Result<Done>;
    const auto write = [step = shown.step, plain = width_of(shown.type) < 3,
                        name = file.toStdString()](const Picture& values) {
        const WrittenLayer layer{step, &values, plain};
        return write_picture(name, {&layer, 1}, {});
    };
    // What moves past is there as bytes only, so its numbers are drawn once more.
    const auto work = [write, values = shown.values, request = shown.request,
                       stores = drawing_.stores()]() -> Result<Done> {
        if (values != nullptr) return write(*values);
        WorkerPool pool;
        Renderer renderer(pool, std::nullopt, stores);
        const Result<Frame> frame = renderer.render(request, Cancel());
        if (!frame) return frame.fault();
        if (frame->steps.empty())
            return Fault{"stage.gone",
                         "the picture cannot be drawn any more",
                         "save the one that is shown now",
                         {},
                         Severity::fault};
        return write(frame->steps.front().picture);
    };
    const auto done = [this, file](const Given& given) {
        if (!given) return document_.complain(given.fault());
        document_.say(tr("Saved the picture that is shown as %1").arg(QFileInfo(file).fileName()));
    };
    if (!document_.background().run<Given>(tr("saving %1").arg(QFileInfo(file).fileName()), work, done))
        document_.say(tr("Something else is being done: wait until it is done"));
}

bool StageView::step_back() {
    if (tool_pick_) {
        tool_pick_ = false;
        unsetCursor();
        return true;
    }
    if (tool_camera_) {
        toggle_camera();
        return true;
    }
    if (!marks_.empty()) {
        point_at_objects({});
        return true;
    }
    if (core_held_) {
        core_held_ = false;
        return true;
    }
    if (tool_core_) {
        toggle_core_sample();
        return true;
    }
    if (transect_->isVisible()) {
        toggle_transect();
        return true;
    }
    return false;
}

// The pixel of the core sample comes first, then those of the transect.
void StageView::ask_values() {
    std::vector<PixelPoint> points;
    const QSize size = frame().frame;
    if ((tool_core_ || !marks_.empty() || touch_) && core_) {
        points.push_back({std::clamp(core_->x(), 0, size.width() - 1), std::clamp(core_->y(), 0, size.height() - 1)});
    }
    const int first = static_cast<int>(points.size());
    if (transect_->isVisibleTo(this) && line_) {
        for (int i = 0; i < transect_samples; ++i) {
            const QPointF at = line_->first + (line_->second - line_->first) * i / (transect_samples - 1.0);
            points.push_back({std::clamp(static_cast<int>(std::floor(at.x())), 0, size.width() - 1),
                              std::clamp(static_cast<int>(std::floor(at.y())), 0, size.height() - 1)});
        }
        const QPointF along = line_->second - line_->first;
        transect_->set_line(first, transect_samples, std::hypot(along.x(), along.y()));
    }
    drawing_.set_probe_points(std::move(points));
}

QString StageView::values_text() const {
    if (!tool_core_ || !core_) return {};
    QStringList lines{tr("pixel %1, %2").arg(core_->x()).arg(core_->y())};
    for (const DrawnStep& step : drawing_.probe().steps) {
        if (step.picture.width < 1) continue;
        lines.append(qs(step.name) + QLatin1Char('\t') +
                     value_text(step.picture.at(0, 0), width_of(step.type), drawing_.look().decimals));
    }
    if (const QString drop = held_drop_words(); !drop.isEmpty())
        lines.append(tr("held drop") + QLatin1Char('\t') + drop);
    return lines.join(QLatin1Char('\n'));
}

}  // namespace lacquer
