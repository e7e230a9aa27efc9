#include "desktop/tryon/try_on_grid.h"

#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cstdlib>

#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"
#include "desktop/tryon/try_on_sheet.h"

namespace lacquer {

namespace {

constexpr int margin = 10;
constexpr int gap = 8;
constexpr int picture_width = 136;
constexpr int picture_height = 76;
constexpr int name_height = 18;
constexpr int heading_height = 26;

}  // namespace

TryOnGrid::TryOnGrid(TryOnSheet& sheet) : QAbstractScrollArea(&sheet), sheet_(sheet) {
    setFrameShape(QFrame::NoFrame);
    setObjectName(QStringLiteral("try_on_grid"));
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);
    viewport()->setMouseTracking(true);
}

void TryOnGrid::rebuild() {
    cells_.clear();
    headings_.clear();
    const int columns = std::max(1, (viewport()->width() - 2 * margin + gap) / (picture_width + gap));
    int y = 0;
    int column = 0;
    QString group;
    for (const TryOn& tried : sheet_.shown_) {
        if (qs(tried.group) != group) {
            if (column > 0) y += picture_height + name_height + gap;
            column = 0;
            group = qs(tried.group);
            headings_.push_back({group, y});
            y += heading_height;
        }
        if (column == columns) {
            column = 0;
            y += picture_height + name_height + gap;
        }
        cells_.emplace_back(margin + column * (picture_width + gap), y, picture_width, picture_height + name_height);
        ++column;
    }
    const int height = y + (column > 0 ? picture_height + name_height + gap : 0);
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(40);
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    viewport()->update();
}

QRect TryOnGrid::area_of(int candidate) const {
    if (candidate < 0 || candidate >= static_cast<int>(cells_.size())) return {};
    return cells_[static_cast<std::size_t>(candidate)].translated(0, -verticalScrollBar()->value());
}

void TryOnGrid::reveal(int candidate) {
    const QRect area = area_of(candidate);
    if (area.isNull()) return;
    if (area.top() < heading_height)
        verticalScrollBar()->setValue(verticalScrollBar()->value() + area.top() - heading_height);
    if (area.bottom() > viewport()->height())
        verticalScrollBar()->setValue(verticalScrollBar()->value() + area.bottom() - viewport()->height() + gap);
    viewport()->update();
}

int TryOnGrid::next_row(int candidate, int direction) const {
    if (cells_.empty()) return -1;
    const QRect from = cells_[static_cast<std::size_t>(candidate)];
    int best = candidate;
    int row = -1;
    for (int i = candidate; i >= 0 && i < static_cast<int>(cells_.size()); i += direction) {
        const QRect& cell = cells_[static_cast<std::size_t>(i)];
        if (cell.top() == from.top()) continue;
        if (row >= 0 && cell.top() != row) break;
        const bool nearer = row < 0 || std::abs(cell.left() - from.left()) <
                                           std::abs(cells_[static_cast<std::size_t>(best)].left() - from.left());
        row = cell.top();
        if (nearer) best = i;
    }
    return best;
}

int TryOnGrid::candidate_at(QPoint point) const {
    const QPoint at = point + QPoint(0, verticalScrollBar()->value());
    const auto found = std::find_if(cells_.begin(), cells_.end(), [&](const QRect& cell) { return cell.contains(at); });
    return found == cells_.end() ? -1 : static_cast<int>(found - cells_.begin());
}

void TryOnGrid::resizeEvent(QResizeEvent*) { rebuild(); }

void TryOnGrid::mousePressEvent(QMouseEvent* event) {
    const int at = candidate_at(event->pos());
    if (at < 0) return;
    // The first click looks, one on what is looked at takes.
    if (at == sheet_.present_) return sheet_.take();
    sheet_.go(at);
}

void TryOnGrid::mouseMoveEvent(QMouseEvent* event) {
    const int at = candidate_at(event->pos());
    if (at >= 0 && at != sheet_.present_) sheet_.go(at);
}

void TryOnGrid::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    const int scrolled = verticalScrollBar()->value();
    for (const Heading& heading : headings_) {
        theme::paint_text(painter, QRect(margin, heading.y - scrolled + 4, 300, heading_height - 4), heading.words,
                          theme::words(theme::plain, true), theme::quiet);
    }
    if (cells_.empty()) {
        theme::paint_text(painter, QRect(margin, 12, viewport()->width(), 20), tr("No operation says that"),
                          theme::words(), theme::quiet);
    }
    for (int i = 0; i < static_cast<int>(cells_.size()); ++i) {
        const QRect area = area_of(i);
        if (area.bottom() < 0 || area.top() > viewport()->height()) continue;
        const TryOn& tried = sheet_.shown_[static_cast<std::size_t>(i)];
        const QRect frame(area.topLeft(), QSize(picture_width, picture_height));
        const QImage image = sheet_.picture_of(i);
        paint_thumbnail(painter, frame, image, {.clear = true});
        if (image.isNull() && !tried.fits) {
            painter.setPen(theme::quiet);
            painter.setFont(theme::words(theme::tiny));
            painter.drawText(frame.adjusted(6, 4, -6, -4), Qt::TextWordWrap | Qt::AlignVCenter, qs(tried.why_not));
        }
        if (i == sheet_.present_) {
            painter.setPen(QPen(theme::gold, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(frame.adjusted(-2, -2, 2, 2));
        }
        theme::paint_text(painter, QRect(area.left(), frame.bottom() + 2, picture_width, name_height - 2),
                          qs(tried.title), theme::words(theme::small, i == sheet_.present_),
                          tried.fits ? theme::text : theme::quiet);
    }
}

int TryOnGrid::cell_count() const { return static_cast<int>(cells_.size()); }

AccessibleCell TryOnGrid::cell(int index) const {
    const TryOn& tried = sheet_.shown_[static_cast<std::size_t>(index)];
    AccessibleCell told{qs(tried.title), qs(tried.fits ? tried.about : tried.why_not)};
    if (area_of(index).intersects(viewport()->rect())) told.area = area_of(index);
    told.chosen = index == sheet_.present_;
    told.actions = {tr("try"), tr("take")};
    return told;
}

void TryOnGrid::act_on_cell(int index, const QString& action) {
    sheet_.go(index);
    if (action == tr("take")) sheet_.take();
}

}  // namespace lacquer
