#include "desktop/shell/notice_bar.h"

#include <QFileInfo>
#include <QMouseEvent>
#include <QPainter>

#include "core/base/text.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int bar_height = 24;
constexpr int mark_width = 14;

}  // namespace

NoticeBar::NoticeBar(Models& models, QWidget* parent)
    : QWidget(parent), document_(models.document), drawing_(models.drawing) {
    setObjectName(QStringLiteral("notice_bar"));
    setAccessibleName(tr("Notices"));
    setFixedHeight(bar_height);
    const auto repaint = qOverload<>(&QWidget::update);
    connect(&document_, &Document::said, this, [this](const QString& words) {
        notice_ = words;
        setToolTip(words);
        setAccessibleDescription(words);
        update();
    });
    connect(&document_, &Document::notices_seen, this, repaint);
    connect(&document_, &Document::finish_changed, this, repaint);
    connect(&document_.background(), &Background::changed, this, repaint);
    connect(&document_.disk(), &Disk::changed, this, repaint);
    connect(&drawing_, &Drawing::stage_changed, this, repaint);
    connect(&drawing_, &Drawing::reading_changed, this, repaint);
}

QString NoticeBar::failure() const {
    const auto& unseen = document_.notices().unseen();
    return unseen ? unseen->words : QString();
}

// What is going on that takes long, and how to stop it.
QString NoticeBar::work() const {
    const auto words = [](const QString& what, double share) {
        return tr("%1 · %2 % · Esc stops").arg(what).arg(share * 100, 0, 'f', 0);
    };
    const auto plain = [](const QString& what, bool can_stop) {
        return can_stop ? tr("%1 · Esc stops").arg(what) : tr("%1 …").arg(what);
    };
    const Disk& disk = document_.disk();
    if (!disk.words().isEmpty()) return plain(disk.words(), disk.can_stop());
    const Background& background = document_.background();
    if (background.busy())
        return background.can_stop() ? words(background.words(), background.share()) : plain(background.words(), false);
    if (!drawing_.reading().isEmpty())
        return words(tr("reading %1").arg(QFileInfo(drawing_.reading()).fileName()), drawing_.reading_share());
    if (drawing_.ticks_share() < 1) return tr("drawing ticks · %1 %").arg(drawing_.ticks_share() * 100, 0, 'f', 0);
    return {};
}

QString NoticeBar::facts() const {
    if (document_.checked().steps.empty()) return {};
    const StagePicture& stage = drawing_.stage();
    if (stage.rough && stage.more_comes) return tr("rough: ticks are drawn small first");
    if (stage.rough) return tr("rough: ticks go on as they were before the drag");
    const QString ticks = stage.ticks == 0 ? QString()
                                           : tr("%n tick(s)", nullptr, static_cast<int>(stage.ticks)) +
                                                 tr(" in %1 ms · ").arg(stage.tick_milliseconds, 0, 'f', 1);
    return ticks + tr("%1 × %2 · %3 · %4 ms")
                       .arg(document_.finish().frame_width)
                       .arg(document_.finish().frame_height)
                       .arg(tr("%n pass(es)", nullptr, static_cast<int>(stage.passes)))
                       .arg(stage.milliseconds, 0, 'f', 1);
}

void NoticeBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    painter.fillRect(QRect(0, 0, width(), 1), theme::hairline);
    const QString doing = work();
    const QString right = doing.isEmpty() ? facts() : doing;
    const int right_width = QFontMetrics(theme::words()).horizontalAdvance(right) + theme::gap;
    theme::paint_text(painter, QRect(width() - right_width - theme::margin, 0, right_width, height()), right,
                      theme::words(), doing.isEmpty() ? theme::quiet : theme::text, Qt::AlignRight);
    QRect room(theme::margin, 0, width() - right_width - 3 * theme::margin, height());
    if (const QString failed = failure(); !failed.isEmpty()) {
        theme::paint_notched_bar(painter, room.left(), room.left() + mark_width - 4, room.center().y());
        const int wide =
            std::min(QFontMetrics(theme::words()).horizontalAdvance(failed) + mark_width + theme::gap, room.width());
        theme::paint_text(painter, room.adjusted(mark_width, 0, wide - room.width(), 0), failed, theme::words(),
                          theme::vermilion_text);
        room.setLeft(room.left() + wide + theme::margin);
        if (failed == notice_) return;
    }
    theme::paint_text(painter, room, notice_, theme::words(), theme::text);
}

void NoticeBar::mousePressEvent(QMouseEvent*) { emit wants_list(); }

int NoticeBar::cell_count() const { return static_cast<int>(document_.notices().all().size()); }

AccessibleCell NoticeBar::cell(int index) const {
    const Notice& notice = document_.notices().all().at(static_cast<std::size_t>(index));
    AccessibleCell told{notice.words, notice.tone == Tone::failed ? tr("failed") : tr("done")};
    if (index == 0) told.area = rect();
    told.role = QAccessible::StatusBar;
    told.actions = {tr("show all")};
    return told;
}

void NoticeBar::act_on_cell(int, const QString&) { emit wants_list(); }

}  // namespace lacquer
