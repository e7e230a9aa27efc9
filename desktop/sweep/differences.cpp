#include "desktop/sweep/differences.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int side_border = 14;
constexpr int difference_height = 20;
constexpr int head = 24;
constexpr int rows_shown = 5;
constexpr int follow_width = 18;

// A patch as somebody would say it: without the braces, `formula "..."` without its quotes.
QString plain_changes(const OverlayEntry& entry) {
    QString words = qs(entry.changes);
    if (words.startsWith(QLatin1Char('{')) && words.endsWith(QLatin1Char('}'))) words = words.mid(1, words.size() - 2);
    return words.remove(QLatin1Char('"'));
}

}  // namespace

Differences::Differences(Models& models, QWidget* parent) : QAbstractScrollArea(parent), document_(models.document) {
    setObjectName(QStringLiteral("differences"));
    setAccessibleName(tr("What the variant changes"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setToolTip(tr("× or Delete lets a thing follow the base again"));
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    connect(&document_, &Document::finish_changed, this, &Differences::rebuild);
    rebuild();
}

QSize Differences::sizeHint() const {
    return {340, head + std::clamp(cell_count(), 1, rows_shown) * difference_height + 8};
}

void Differences::rebuild() {
    const Finish& finish = document_.finish();
    setVisible(!finish.variant.empty());
    entries_ =
        finish.variant.empty() ? std::vector<OverlayEntry>() : entries_of(overlay_of(finish, finish.variant), finish);
    words_.clear();
    for (const OverlayEntry& entry : entries_)
        words_.push_back(entry.missing
                             ? tr("%1 is gone; kept: %2").arg(qs(shown_name(entry.name)), plain_changes(entry))
                             : qs(shown_name(entry.name)) + QStringLiteral("   ") + plain_changes(entry));
    present_ = std::clamp(present_, 0, std::max(0, cell_count() - 1));
    verticalScrollBar()->setRange(0, std::max(0, head + cell_count() * difference_height + 8 - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    updateGeometry();
    viewport()->update();
}

std::string Differences::present() const {
    return entries_.empty() ? std::string() : entries_[static_cast<std::size_t>(present_)].name;
}

QRect Differences::row_area(int row) const {
    return {side_border, head + row * difference_height - verticalScrollBar()->value(),
            viewport()->width() - 2 * side_border, difference_height};
}

void Differences::follow(int row) {
    const OverlayEntry entry = entries_[static_cast<std::size_t>(row)];
    document_.edit(follow_base(document_.finish(), entry.name),
                   tr("%1 follows the base").arg(qs(shown_name(entry.name))));
}

void Differences::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    const Finish& finish = document_.finish();
    for (int row = 0; row < cell_count(); ++row) {
        const QRect area = row_area(row);
        const bool missing = entries_[static_cast<std::size_t>(row)].missing;
        theme::paint_text(painter, area.adjusted(0, 0, -follow_width, 0), words_[static_cast<std::size_t>(row)],
                          theme::figures(theme::small), missing ? theme::vermilion_text : theme::text);
        theme::paint_text(painter, area, QStringLiteral("×"), theme::words(), theme::quiet, Qt::AlignRight);
        if (row == present_ && hasFocus()) theme::paint_focus(painter, area.adjusted(-4, 0, 3, -1));
    }
    const QRect top(0, 0, viewport()->width(), head);
    painter.fillRect(top, theme::panel);
    painter.setPen(theme::hairline);
    painter.drawLine(0, 0, viewport()->width(), 0);
    theme::paint_text(painter, top.adjusted(side_border, 2, -side_border, 0),
                      entries_.empty() ? tr("%1 is as the base: change something").arg(qs(shown_name(finish.variant)))
                                       : tr("%1 changes").arg(qs(shown_name(finish.variant))),
                      theme::words(theme::plain, true), theme::gold);
}

void Differences::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    verticalScrollBar()->setRange(0, std::max(0, head + cell_count() * difference_height + 8 - viewport()->height()));
}

void Differences::scrollContentsBy(int, int) { viewport()->update(); }

void Differences::mousePressEvent(QMouseEvent* event) {
    setFocus();
    for (int row = 0; row < cell_count(); ++row) {
        if (!row_area(row).contains(event->pos())) continue;
        present_ = row;
        viewport()->update();
        if (event->pos().x() > row_area(row).right() - follow_width) follow(row);
        return;
    }
}

void Differences::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Up:
        case Qt::Key_Down:
            present_ = std::clamp(present_ + (event->key() == Qt::Key_Up ? -1 : 1), 0, std::max(0, cell_count() - 1));
            return viewport()->update();
        case Qt::Key_Delete:
            if (!entries_.empty()) follow(present_);
            return;
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void Differences::focusInEvent(QFocusEvent*) { viewport()->update(); }
void Differences::focusOutEvent(QFocusEvent*) { viewport()->update(); }

AccessibleCell Differences::cell(int index) const {
    AccessibleCell told{qs(shown_name(entries_[static_cast<std::size_t>(index)].name)),
                        words_[static_cast<std::size_t>(index)], row_area(index)};
    told.chosen = index == present_;
    told.actions = {tr("follow the base")};
    return told;
}

void Differences::act_on_cell(int index, const QString&) { follow(index); }

}  // namespace lacquer
