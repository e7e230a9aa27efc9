// How the stage looks.
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/value_text.h"
#include "desktop/stage/stage_metrics.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"

namespace lacquer {

namespace {

constexpr double values_from_scale = 40;  // screen pixels to a picture pixel in which its value can be read

QString look_words(const Look& look) {
    QStringList words;
    if (look.style.exposure != 0) {
        words.append(StageView::tr("exposure %1%2")
                         .arg(look.style.exposure > 0 ? QStringLiteral("+") : QString(),
                              qs(plain_number(look.style.exposure, 1))));
    }
    if (look.style.false_colour) words.append(StageView::tr("false colours"));
    if (look.style.mark_range) words.append(StageView::tr("marks outside 0..1"));
    if (look.line_grid) words.append(StageView::tr("line grid"));
    if (!look.frame.isEmpty()) words.append(QStringLiteral("%1 × %2").arg(look.frame.width()).arg(look.frame.height()));
    return words.join(QStringLiteral(" · "));
}

}  // namespace

void StageView::paintEvent(QPaintEvent*) {
    tell_view_size();
    QPainter painter(this);
    painter.fillRect(rect(), theme::stage_grey);
    if (shows_nothing()) {
        paint_beginning(painter);
    } else {
        paint_picture(painter);
        paint_notice(painter);
    }
    paint_pills(painter);
    if (hasFocus()) theme::paint_focus_line(painter, rect());
}

void StageView::paint_backdrop(QPainter& painter, const QRect& area) const {
    switch (drawing_.look().backdrop) {
        case Backdrop::checker:
            return theme::paint_checker(painter, area);
        case Backdrop::black:
            return painter.fillRect(area, Qt::black);
        case Backdrop::white:
            return painter.fillRect(area, Qt::white);
        case Backdrop::own:
            return painter.fillRect(area, drawing_.look().own_backdrop);
    }
}

void StageView::paint_one(QPainter& painter, const StagePicture& picture, const StageFrame& frame,
                          const QRect& clip) const {
    if (picture.image.isNull()) return;
    const QRectF area = frame.area();
    painter.save();
    painter.setClipRect(clip.intersected(zoom_ > 0 ? frame.room : clip));
    // Not a line of it may stand beside the picture, where that begins or ends between the view's own pixels.
    painter.setClipRect(area, Qt::IntersectClip);
    if (picture.type == Type::vec4) paint_backdrop(painter, area.toAlignedRect());
    const bool stale = drawing_.stage_fault() != nullptr && !drawing_.shows_candidate();
    const QSize device = frame.device_size();
    const bool fits = picture.fitted.size() == device;
    QImage image = fits ? picture.fitted : picture.image;
    if (stale) image = image.convertToFormat(QImage::Format_Grayscale8);
    // Enlarged pixels stay pixels; a picture that is made smaller is averaged.
    if (!fits && device.width() < image.width() && !picture.in_a_drag) {
        image = image.scaled(device, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
    } else {
        painter.setRenderHint(QPainter::SmoothPixmapTransform, picture.reduced || picture.in_a_drag);
    }
    painter.drawImage(area, image);
    if (stale) painter.fillRect(area, theme::veil);
    painter.restore();
}

void StageView::paint_picture(QPainter& painter) const {
    const StagePicture& stage = drawing_.stage();
    const StageFrame now = frame();
    const QRect whole = now.area().toAlignedRect();
    const StagePicture* other = other_picture();
    if (other != nullptr) {
        const int x = curtain_x();
        paint_one(painter, *other, now, QRect(whole.left(), whole.top(), x - whole.left(), whole.height()));
        paint_one(painter, stage, now, QRect(x, whole.top(), whole.right() - x + 1, whole.height()));
    } else {
        paint_one(painter, stage, now, whole);
    }
    if (const StagePicture* pinned = pinned_picture()) {
        const StageFrame beside = pinned_frame();
        paint_one(painter, *pinned, beside, beside.area().toAlignedRect());
        const QRect label(beside.room.left(), beside.room.bottom() + 2, beside.room.width(), 16);
        theme::paint_text(painter, label, tr("pinned: %1").arg(qs(shown_name(drawing_.look().pinned))),
                          theme::words(theme::small), theme::stage_words);
    }
    const bool shows_values = now.scale() >= values_from_scale;
    if (shows_values) paint_pixel_values(painter, stage, now);
    drawing_.want_values(shows_values || tool_pick_);
    if (drawing_.look().safe_area) paint_safe_area(painter);
    if (other != nullptr) paint_curtain(painter);
    if (rehearses_) paint_play(painter);
    paint_droplets(painter);
    paint_tools(painter);
    if (detail_) paint_detail(painter);
    paint_scene_words(painter);
}

void StageView::paint_curtain(QPainter& painter) const {
    const QRect area = frame().area().toRect();
    const int x = curtain_x();
    painter.fillRect(QRect(x, area.top(), 1, area.height()), theme::text);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme::text);
    painter.drawRoundedRect(QRect(x - 6, area.center().y() - 12, 13, 24), 3, 3);
    painter.setRenderHint(QPainter::Antialiasing, false);
    const Ground* first = first_picture(document_.finish());
    const std::string& chosen = drawing_.look().curtain_other;
    const QString left = qs(shown_name(chosen.empty() && first != nullptr ? first->name : chosen));
    const QString right = drawing_.shown().empty() ? tr("the finished picture") : qs(shown_name(drawing_.shown()));
    const auto label = [&](const QString& words, bool on_left) {
        const int width = QFontMetrics(theme::words(theme::small)).horizontalAdvance(words) + 12;
        const QRect box(on_left ? x - 10 - width : x + 12, area.top() + 8, width, 18);
        painter.fillRect(box, theme::shade);
        theme::paint_text(painter, box.adjusted(6, 0, 0, 0), words, theme::words(theme::small), theme::text);
    };
    label(left, true);
    label(right, false);
}

void StageView::paint_pixel_values(QPainter& painter, const StagePicture& picture, const StageFrame& frame) const {
    const auto& values = picture.values;
    if (values == nullptr || values->width != frame.frame.width() || values->height != frame.frame.height()) return;
    const QPointF first = frame.to_picture(frame.room.topLeft());
    const QPointF last = frame.to_picture(frame.room.bottomRight());
    painter.save();
    painter.setClipRect(frame.room);
    painter.setFont(theme::figures(theme::tiny));
    for (int y = std::max(0, static_cast<int>(first.y())); y <= std::min(values->height - 1.0, last.y()); ++y) {
        for (int x = std::max(0, static_cast<int>(first.x())); x <= std::min(values->width - 1.0, last.x()); ++x) {
            const float* at = values->at(x, y);
            const QPointF corner = frame.to_screen({static_cast<double>(x), static_cast<double>(y)});
            const QColor colour = value_swatch(at, values->channels);
            painter.setPen(colour.lightness() > 120 ? Qt::black : Qt::white);
            for (int c = 0; c < values->channels; ++c) {
                painter.drawText(QRectF(corner.x() + 3, corner.y() + 2 + c * 11, frame.scale() - 4, 11),
                                 Qt::AlignLeft | Qt::AlignVCenter, qs(plain_number(static_cast<double>(at[c]), 3)));
            }
        }
    }
    painter.restore();
}

// SMPTE ST 2046-1, from memory: action within 93 % of each side, words within 90 %.
void StageView::paint_safe_area(QPainter& painter) const {
    const QRectF area = frame().area();
    painter.setBrush(Qt::NoBrush);
    for (const double share : {0.93, 0.90}) {
        QRectF inner(0, 0, area.width() * share, area.height() * share);
        inner.moveCenter(area.center());
        painter.setPen(QPen(theme::halo, 3));
        painter.drawRect(inner);
        painter.setPen(QPen(share > 0.91 ? theme::text : theme::quiet, 1));
        painter.drawRect(inner);
    }
}

void StageView::paint_tools(QPainter& painter) const {
    const StageFrame now = frame();
    painter.setRenderHint(QPainter::Antialiasing);
    const auto twice = [&](const auto& draw) {
        painter.setPen(QPen(theme::halo, 3));
        draw();
        painter.setPen(QPen(theme::gold, 1));
        draw();
    };
    if (transect_->isVisible() && line_) {
        const QPointF a = now.to_screen(line_->first);
        const QPointF b = now.to_screen(line_->second);
        painter.setBrush(Qt::NoBrush);
        twice([&] { painter.drawLine(a, b); });
        twice([&] {
            painter.drawEllipse(a, 4, 4);
            painter.drawRect(QRectF(b.x() - 4, b.y() - 4, 8, 8));
        });
        for (const double share : transect_->guides()) {
            const QPointF at = a + (b - a) * share;
            twice([&] { painter.drawEllipse(at, 2, 2); });
        }
    }
    if ((tool_core_ || (hasFocus() && (tool_pick_ || !marks_.empty()))) && core_) {
        const QPointF at = now.to_screen(QPointF(*core_) + QPointF(0.5, 0.5));
        painter.setBrush(Qt::NoBrush);
        twice([&] {
            painter.drawEllipse(at, 7, 7);
            for (const QPointF arm : {QPointF(1, 0), QPointF(-1, 0), QPointF(0, 1), QPointF(0, -1)})
                painter.drawLine(at + arm * 7, at + arm * 14);
        });
        const QString words = tr("%1, %2%3").arg(core_->x()).arg(core_->y()).arg(core_held_ ? tr(" held") : QString());
        const int width = QFontMetrics(theme::figures(theme::tiny)).horizontalAdvance(words) + 10;
        QRect box(static_cast<int>(at.x()) + 14, static_cast<int>(at.y()) + 8, width, 16);
        if (box.right() > this->width()) box.moveRight(static_cast<int>(at.x()) - 14);
        painter.fillRect(box, theme::shade);
        theme::paint_text(painter, box.adjusted(5, 0, 0, 0), words, theme::figures(theme::tiny), theme::text);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
}

void StageView::paint_detail(QPainter& painter) const {
    constexpr int side = 160;
    constexpr int times = 8;
    const StagePicture& stage = drawing_.stage();
    if (stage.image.isNull()) return;
    const double per_pixel = static_cast<double>(stage.image.width()) / frame().frame.width();
    const QPointF middle = *detail_ * per_pixel;
    const double half = side / 2.0 / times * per_pixel;
    const QRect box(width() - stage_margin - side - 8, stage_margin + 8, side, side);
    painter.fillRect(box.adjusted(-1, -1, 1, 1), theme::text);
    paint_backdrop(painter, box);
    painter.setRenderHint(QPainter::SmoothPixmapTransform, false);
    painter.drawImage(QRectF(box), stage.image, QRectF(middle.x() - half, middle.y() - half, 2 * half, 2 * half));
    theme::paint_text(painter, QRect(box.left(), box.bottom() + 3, side, 14), tr("%1 times").arg(times),
                      theme::words(theme::small), theme::stage_words, Qt::AlignRight);
    const StageFrame now = frame();
    QRectF source(0, 0, side / static_cast<double>(times) * now.scale(),
                  side / static_cast<double>(times) * now.scale());
    source.moveCenter(now.to_screen(*detail_));
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme::text, 1));
    painter.drawRect(source);
}

void StageView::paint_notice(QPainter& painter) const {
    const Fault* fault = drawing_.shows_candidate() ? nullptr : drawing_.stage_fault();
    QString notice;
    if (fault != nullptr) {
        notice = tr("%1: %2").arg(qs(shown_name(fault->place.where)), core_words(fault->message));
    } else if (!drawing_.stage().notices.empty()) {
        notice = core_words(drawing_.stage().notices.front().message);
    } else if (!drawing_.warnings().empty()) {
        const Warning& warning = drawing_.warnings().front();
        // Steps tell their own beside them; what belongs to no row is told here.
        if (find_step(document_.finish(), warning.where) == nullptr)
            notice = tr("%1: %2").arg(qs(shown_name(warning.where)), core_words(warning.message));
    }
    if (notice.isEmpty()) return;
    const int width =
        std::min(this->width() - 2 * stage_margin, QFontMetrics(theme::words()).horizontalAdvance(notice) + 34);
    const QRect box((this->width() - width) / 2, stage_margin + 8, width, 28);
    painter.fillRect(box, theme::shade);
    theme::paint_notched_bar(painter, box.left() + 8, box.left() + 20, box.center().y());
    theme::paint_text(painter, box.adjusted(26, 0, -6, 0), notice, theme::words(), theme::text);
}

void StageView::paint_beginning(QPainter& painter) const {
    const QRect line(stage_margin + 6, stage_margin, width() - 2 * stage_margin, 18);
    theme::paint_text(painter, line, tr("Nothing to show yet"), theme::words(theme::title, true), theme::text);
    theme::paint_text(
        painter, line.translated(0, 22),
        document_.keyed(
            tr("Add a picture ({add_picture}) or a step ({add_step}), open a finish ({open_finish}), or start from "
               "one of these.")),
        theme::words(), theme::stage_words);
}

void StageView::paint_pills(QPainter& painter) {
    pills_.clear();
    int x = stage_margin;
    const int y = height() - stage_margin / 2 - pill_height;
    const auto put = [&](const QString& quiet, const QString& strong, const QString& key, void (StageView::*press)(),
                         bool on = false) {
        const int quiet_width = QFontMetrics(theme::words()).horizontalAdvance(quiet);
        const int strong_width = QFontMetrics(theme::words(theme::plain, true)).horizontalAdvance(strong);
        const int key_width = key.isEmpty() ? 0 : QFontMetrics(theme::words()).horizontalAdvance(key) + 6;
        const QRect area(x, y, quiet_width + strong_width + key_width + 18 + (strong.isEmpty() ? 0 : 4), pill_height);
        if (area.right() > width() - 4) return;
        painter.setPen(on ? QPen(theme::celadon, 1) : QPen(Qt::NoPen));
        painter.setBrush(theme::shade);
        painter.drawRoundedRect(area, 3, 3);
        QRect inner = area.adjusted(8, 0, -8, 0);
        theme::paint_text(painter, QRect(inner.left(), y, quiet_width + 1, pill_height), quiet, theme::words(),
                          theme::text);
        theme::paint_text(painter, QRect(inner.left() + quiet_width + 4, y, strong_width + 1, pill_height), strong,
                          theme::words(theme::plain, true), theme::text);
        theme::paint_text(painter, inner, key, theme::words(), theme::quiet, Qt::AlignRight);
        if (press != nullptr) pills_.append({area, press});
        x = area.right() + 7;
    };
    const std::string& shown = drawing_.shown();
    if (drawing_.shows_candidate()) {
        put(drawing_.shows_variable() ? tr("Variable") : tr("Trying"), qs(drawing_.candidate_words()), {}, nullptr);
    } else {
        put(tr("Showing"), shown.empty() ? tr("the finished picture") : qs(shown_name(shown)), {}, nullptr);
    }
    if (shows_nothing()) return;
    if (!shown.empty())
        put(tr("Finished"), {}, document_.keyed(QStringLiteral("{show_finished}")), &StageView::show_finished);
    if (!document_.selected().empty() && shown != document_.selected())
        put(tr("Show selected"), {}, document_.keyed(QStringLiteral("{show_selected}")), &StageView::toggle_shown);
    put(tr("Curtain"), {}, document_.keyed(QStringLiteral("{curtain}")), &StageView::toggle_curtain,
        drawing_.look().curtain);
    put(tr("Core sample"), {}, document_.keyed(QStringLiteral("{core_sample}")), &StageView::toggle_core_sample,
        tool_core_);
    put(tr("Transect"), {}, document_.keyed(QStringLiteral("{transect}")), &StageView::toggle_transect,
        transect_->isVisible());
    const QString size = zoom_ == 0 ? tr("1:1") : zoom_ == 1 ? tr("Fit") : tr("%1 %").arg(std::lround(zoom_ * 100));
    put(size, {}, document_.keyed(QStringLiteral("{actual_size}")), &StageView::toggle_actual_size);
    const QString looks = look_words(drawing_.look());
    if (looks.isEmpty()) return;
    // At the top: what is seen is not quite the picture.
    const QRect box(stage_margin, stage_margin / 2,
                    QFontMetrics(theme::words(theme::small)).horizontalAdvance(looks) + 16, 18);
    painter.fillRect(box, theme::shade);
    theme::paint_text(painter, box.adjusted(8, 0, 0, 0), looks, theme::words(theme::small), theme::gold);
}

}  // namespace lacquer
