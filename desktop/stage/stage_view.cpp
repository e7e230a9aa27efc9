#include "desktop/stage/stage_view.h"

#include <QMouseEvent>
#include <QPainter>

#include "core/base/text.h"
#include "desktop/session/session.h"
#include "desktop/stage/start_list.h"
#include "desktop/theme/theme.h"

namespace lacquer {

namespace {

constexpr int margin = 16;
constexpr int pill_height = 22;
constexpr int beginning_height = 70;  // of the words above the list to start from

}  // namespace

StageView::StageView(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), start_list_(new StartList(session, this)) {
    setObjectName(QStringLiteral("stage"));
    setAccessibleName(tr("Stage"));
    setMinimumSize(320, 180);
    connect(&session_, &Session::stage_changed, this, qOverload<>(&QWidget::update));
    connect(&session_, &Session::finish_changed, this, qOverload<>(&QWidget::update));
    connect(&session_, &Session::selection_changed, this, qOverload<>(&QWidget::update));
    connect(&session_, &Session::finish_changed, this, &StageView::place_start_list);
    place_start_list();
}

bool StageView::shows_nothing() const {
    return session_.checked().steps.empty() && first_picture(session_.finish()) == nullptr;
}

void StageView::place_start_list() {
    start_list_->setGeometry(rect().adjusted(margin, beginning_height, -margin, -2 * margin - pill_height));
    start_list_->setVisible(shows_nothing());
}

void StageView::resizeEvent(QResizeEvent*) { place_start_list(); }

void StageView::show_finished() { session_.show_step({}); }

void StageView::toggle_actual_size() {
    actual_size_ = !actual_size_;
    pan_ = {};
    update();
}

void StageView::toggle_shown() {
    session_.show_step(session_.shown() == session_.selected() ? std::string() : session_.selected());
}

QRect StageView::picture_area() const {
    const QSize frame(session_.finish().frame_width, session_.finish().frame_height);
    // What is said about the picture stands below it.
    const QRect room = rect().adjusted(margin, margin, -margin, -2 * margin - pill_height);
    const QSize size = actual_size_ ? frame : frame.scaled(room.size(), Qt::KeepAspectRatio);
    QRect area(QPoint(), size);
    area.moveCenter(room.center() + (actual_size_ ? pan_ : QPoint()));
    return area;
}

void StageView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::stage_grey);
    if (shows_nothing()) {
        paint_beginning(painter);
    } else {
        paint_picture(painter);
    }
    paint_pills(painter);
}

void StageView::paint_picture(QPainter& painter) const {
    const StagePicture& stage = session_.stage();
    const QRect area = picture_area();
    const Fault* fault = session_.stage_fault();
    if (!stage.image.isNull()) {
        if (stage.type == Type::vec4) theme::paint_checker(painter, area);
        // Enlarged pixels stay pixels; a picture that is made smaller is averaged.
        const bool smaller = area.width() < stage.image.width();
        if (smaller) {
            const QImage scaled = stage.image.scaled(area.size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
            painter.drawImage(area.topLeft(),
                              fault != nullptr ? scaled.convertToFormat(QImage::Format_Grayscale8) : scaled);
        } else {
            painter.setRenderHint(QPainter::SmoothPixmapTransform, stage.reduced);
            painter.drawImage(area,
                              fault != nullptr ? stage.image.convertToFormat(QImage::Format_Grayscale8) : stage.image);
        }
        if (fault != nullptr) painter.fillRect(area, QColor(0x2B, 0x2B, 0x2B, 0x90));
    }
    QString notice;
    if (fault != nullptr) {
        notice = tr("%1: %2").arg(qs(shown_name(fault->place.where)), qs(fault->message));
    } else if (!stage.notices.empty()) {
        notice = qs(stage.notices.front().message);
    }
    if (notice.isEmpty()) return;
    const int width = std::min(this->width() - 2 * margin, QFontMetrics(theme::words()).horizontalAdvance(notice) + 34);
    const QRect box((this->width() - width) / 2, margin + 8, width, 28);
    painter.fillRect(box, QColor(0x17, 0x14, 0x12, 0xE6));
    theme::paint_notched_bar(painter, box.left() + 8, box.left() + 20, box.center().y());
    theme::paint_text(painter, box.adjusted(26, 0, -6, 0), notice, theme::words(), theme::text);
}

void StageView::paint_beginning(QPainter& painter) const {
    const QRect line(margin + 6, margin, width() - 2 * margin, 18);
    theme::paint_text(painter, line, tr("Nothing to show yet"), theme::words(13, true), theme::text);
    theme::paint_text(painter, line.translated(0, 22),
                      tr("Add a picture (G) or a step (A), open a finish (Ctrl+O), or start from one of these."),
                      theme::words(), QColor(0xBB, 0xB3, 0xA9));
}

void StageView::paint_pills(QPainter& painter) {
    pills_.clear();
    int x = margin;
    const int y = height() - margin / 2 - pill_height;
    const auto put = [&](const QString& quiet, const QString& strong, const QString& key, void (StageView::*press)()) {
        const int quiet_width = QFontMetrics(theme::words()).horizontalAdvance(quiet);
        const int strong_width = QFontMetrics(theme::words(12, true)).horizontalAdvance(strong);
        const int key_width = key.isEmpty() ? 0 : QFontMetrics(theme::words()).horizontalAdvance(key) + 6;
        const QRect area(x, y, quiet_width + strong_width + key_width + 18 + (strong.isEmpty() ? 0 : 4), pill_height);
        painter.setPen(Qt::NoPen);
        painter.setBrush(QColor(0x17, 0x14, 0x12, 0xD8));
        painter.drawRoundedRect(area, 3, 3);
        QRect inner = area.adjusted(8, 0, -8, 0);
        theme::paint_text(painter, QRect(inner.left(), y, quiet_width + 1, pill_height), quiet, theme::words(),
                          theme::text);
        theme::paint_text(painter, QRect(inner.left() + quiet_width + 4, y, strong_width + 1, pill_height), strong,
                          theme::words(12, true), theme::text);
        theme::paint_text(painter, inner, key, theme::words(), theme::quiet, Qt::AlignRight);
        if (press != nullptr) pills_.append({area, press});
        x = area.right() + 7;
    };
    const std::string& shown = session_.shown();
    put(tr("Showing"), shown.empty() ? tr("the finished picture") : qs(shown_name(shown)), {}, nullptr);
    if (!shown.empty()) put(tr("Finished"), {}, tr("F"), &StageView::show_finished);
    if (!session_.selected().empty() && shown != session_.selected())
        put(tr("Show selected"), {}, tr("S"), &StageView::toggle_shown);
    put(actual_size_ ? tr("Fit") : tr("1:1"), {}, tr("Z"), &StageView::toggle_actual_size);
}

void StageView::mousePressEvent(QMouseEvent* event) {
    drag_from_ = event->pos() - pan_;
    for (const Pill& pill : std::as_const(pills_)) {
        if (pill.area.contains(event->pos())) return (this->*pill.press)();
    }
}

void StageView::mouseMoveEvent(QMouseEvent* event) {
    if (!actual_size_ || (event->buttons() & Qt::LeftButton) == 0) return;
    pan_ = event->pos() - drag_from_;
    update();
}

}  // namespace lacquer
