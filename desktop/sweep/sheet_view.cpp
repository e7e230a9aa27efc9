#include "desktop/sweep/sheet_view.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"
#include "desktop/sweep/sweeping.h"

namespace lacquer {

namespace {

constexpr int least_cell_width = 200;
constexpr int caption_height = 24;
constexpr int cell_gap = 10;
constexpr int sheet_border = 14;

}  // namespace

SheetView::SheetView(Sweeping& sweeping, QWidget* parent) : QAbstractScrollArea(parent), sweeping_(sweeping) {
    setObjectName(QStringLiteral("sheet"));
    setAccessibleName(tr("Sheet"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
    verticalScrollBar()->setSingleStep(40);
    connect(&sweeping_, &Sweeping::spec_changed, this, &SheetView::rebuild);
    connect(&sweeping_, &Sweeping::picture_changed, viewport(),
            [this](int cell) { viewport()->update(cell_area(cell)); });
    connect(&sweeping_, &Sweeping::measured_changed, viewport(), qOverload<>(&QWidget::update));
    connect(&sweeping_, &Sweeping::compared_changed, viewport(), qOverload<>(&QWidget::update));
}

int SheetView::columns() const {
    if (sweeping_.table_columns() > 0) return sweeping_.table_columns();
    return std::max(1, (viewport()->width() - 2 * sheet_border + cell_gap) / (least_cell_width + cell_gap));
}

// A table keeps its rows whole: its cells become as narrow as they must, and scroll when that is too narrow.
int SheetView::cell_width() const {
    const int room = viewport()->width() - 2 * sheet_border + cell_gap;
    constexpr int narrowest = 72;
    return std::max(narrowest, room / columns() - cell_gap);
}

int SheetView::cell_height() const {
    const QSize size = sweeping_.cell_size();
    return cell_width() * size.height() / std::max(1, size.width()) + caption_height;
}

// In a table each row has its words above it.
int SheetView::row_height() const {
    constexpr int heading = 18;
    return cell_height() + cell_gap + (sweeping_.table_columns() > 0 ? heading : 0);
}

QRect SheetView::cell_area(int cell) const {
    const int below_heading = row_height() - cell_height() - cell_gap;
    return {sheet_border + cell % columns() * (cell_width() + cell_gap) - horizontalScrollBar()->value(),
            sheet_border + cell / columns() * row_height() + below_heading - verticalScrollBar()->value(), cell_width(),
            cell_height()};
}

int SheetView::cell_at(QPoint point) const {
    for (int cell = 0; cell < cell_count(); ++cell) {
        if (cell_area(cell).contains(point)) return cell;
    }
    return -1;
}

void SheetView::rebuild() {
    present_ = std::clamp(present_, 0, std::max(0, cell_count() - 1));
    if (marked_ >= cell_count()) marked_ = -1;
    const int rows = (cell_count() + columns() - 1) / columns();
    const int height = rows * row_height() - cell_gap + 2 * sheet_border;
    const int width = columns() * (cell_width() + cell_gap) - cell_gap + 2 * sheet_border;
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    horizontalScrollBar()->setRange(0, std::max(0, width - viewport()->width()));
    horizontalScrollBar()->setPageStep(viewport()->width());
    tell_view();
    viewport()->update();
}

void SheetView::tell_view() {
    sweeping_.set_cell_width(static_cast<int>(std::lround(cell_width() * devicePixelRatioF())));
    const int first = std::max(0, verticalScrollBar()->value() - sheet_border) / row_height();
    const int last = (verticalScrollBar()->value() + viewport()->height()) / row_height();
    sweeping_.set_cells_in_view(first * columns(), (last + 1) * columns());
}

void SheetView::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    rebuild();
}

void SheetView::scrollContentsBy(int, int) {
    tell_view();
    viewport()->update();
}

void SheetView::reveal(int cell) {
    const QRect area = cell_area(cell);
    QScrollBar* bar = verticalScrollBar();
    if (area.top() < sheet_border) bar->setValue(bar->value() + area.top() - sheet_border);
    if (area.bottom() > viewport()->height() - sheet_border)
        bar->setValue(bar->value() + area.bottom() - viewport()->height() + sheet_border);
}

void SheetView::set_present(int cell) {
    present_ = std::clamp(cell, 0, std::max(0, cell_count() - 1));
    reveal(present_);
    sweeping_.draw_first(present_);
    viewport()->update();
}

void SheetView::paint_cell(QPainter& painter, int cell) const {
    const QRect area = cell_area(cell);
    if (!area.intersects(viewport()->rect())) return;
    const QRect frame = area.adjusted(0, 0, 0, -caption_height);
    ThumbnailStyle style;
    style.clear = true;
    paint_thumbnail(painter, frame, sweeping_.picture(cell), style);
    const QRect caption(area.left(), frame.bottom() + 1, area.width(), caption_height);
    painter.fillRect(caption, theme::black);
    const SheetCell& one = sweeping_.cells()[static_cast<std::size_t>(cell)];
    const Dial* swept = sweeping_.swept_dial();
    QString changed;
    if (swept != nullptr && sweeping_.table_columns() == 0) {
        const auto held = one.held.find(swept->name);
        const auto share = held != one.held.end() ? sweeping_.share_changed_at(held->second[0]) : std::nullopt;
        if (share) changed = tr("%1 % changed").arg(*share * 100, 0, 'f', 1);
    }
    const QRect words = caption.adjusted(8, 0, -8, 0);
    theme::paint_text(painter, words, changed, theme::figures(theme::small), theme::quiet, Qt::AlignRight);
    const int taken = changed.isEmpty() ? 0 : QFontMetrics(theme::figures(theme::small)).horizontalAdvance(changed) + 8;
    theme::paint_text(painter, words.adjusted(0, 0, -taken, 0), one.along.isEmpty() ? one.words : one.along,
                      theme::figures(theme::small), theme::text);
    if (cell % columns() == 0 && !one.row.isEmpty())
        theme::paint_text(painter, QRect(sheet_border, area.top() - 18, viewport()->width() - 2 * sheet_border, 16),
                          one.row, theme::words(theme::small, true), theme::stage_words);
    if (cell == marked_) {
        painter.setPen(QPen(theme::celadon, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(area.adjusted(0, 0, -1, -1));
    }
    if (cell == present_ && hasFocus()) theme::paint_focus(painter, area.adjusted(-3, -3, 2, 2));
}

void SheetView::paint_compared(QPainter& painter) const {
    const QRect room =
        viewport()->rect().adjusted(sheet_border, sheet_border, -sheet_border, -sheet_border - caption_height);
    const auto words = [&](int nth) {
        const int cell = sweeping_.compared()[static_cast<std::size_t>(nth)];
        return cell < cell_count() ? sweeping_.cells()[static_cast<std::size_t>(cell)].words : QString();
    };
    const QImage images[2] = {sweeping_.compared_picture(0), sweeping_.compared_picture(1)};
    if (images[0].isNull() || images[1].isNull()) return;
    if (beside_) {
        const int half = (room.width() - cell_gap) / 2;
        for (int nth = 0; nth < 2; ++nth) {
            const QRect side(room.left() + nth * (half + cell_gap), room.top(), half, room.height());
            const QRect area = fitted(images[nth].size(), side);
            theme::paint_checker(painter, area);
            painter.drawImage(area, images[nth]);
            theme::paint_text(painter, QRect(area.left(), area.bottom() + 1, area.width(), caption_height), words(nth),
                              theme::figures(theme::small), theme::stage_words);
        }
        return;
    }
    const QRect area = fitted(images[0].size(), room);
    const int split = area.left() + static_cast<int>(curtain_ * area.width());
    theme::paint_checker(painter, area);
    painter.save();
    painter.setClipRect(QRect(area.left(), area.top(), split - area.left(), area.height()));
    painter.drawImage(area, images[0]);
    painter.setClipRect(QRect(split, area.top(), area.right() + 1 - split, area.height()));
    painter.drawImage(area, images[1]);
    painter.restore();
    painter.setPen(QPen(theme::gold, 1));
    painter.drawLine(split, area.top(), split, area.bottom());
    const QRect below(area.left(), area.bottom() + 1, area.width(), caption_height);
    theme::paint_text(painter, below, words(0), theme::figures(theme::small), theme::stage_words);
    theme::paint_text(painter, below, words(1), theme::figures(theme::small), theme::stage_words, Qt::AlignRight);
}

QString SheetView::empty_words() const {
    return sweeping_.mode() == SheetMode::set_aside
               ? sweeping_.document().keyed(
                     tr("No look was set aside yet: {set_aside} keeps what the stage shows, with all its values"))
               : tr("There is nothing to sweep yet");
}

void SheetView::paintEvent(QPaintEvent* event) {
    QPainter painter(viewport());
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.fillRect(viewport()->rect(), theme::stage_grey);
    if (sweeping_.comparing()) return paint_compared(painter);
    if (cell_count() == 0)
        theme::paint_text(painter, viewport()->rect(), empty_words(), theme::words(), theme::stage_words,
                          Qt::AlignHCenter);
    for (int cell = 0; cell < cell_count(); ++cell) {
        if (event->rect().intersects(cell_area(cell).adjusted(-4, -20, 4, 4))) paint_cell(painter, cell);
    }
}

void SheetView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (sweeping_.comparing()) {
        drags_curtain_ = !beside_;
        return mouseMoveEvent(event);
    }
    const int cell = cell_at(event->pos());
    if (cell < 0) return;
    present_ = cell;
    if (event->button() == Qt::LeftButton && event->modifiers().testFlag(Qt::ControlModifier)) {
        if (marked_ >= 0 && marked_ != cell) {
            compare_present();
        } else {
            marked_ = marked_ == cell ? -1 : cell;
        }
    } else if (event->button() == Qt::LeftButton) {
        sweeping_.take(cell);
    }
    viewport()->update();
}

void SheetView::mouseMoveEvent(QMouseEvent* event) {
    if (drags_curtain_) {
        const QRect room =
            viewport()->rect().adjusted(sheet_border, sheet_border, -sheet_border, -sheet_border - caption_height);
        const QRect area = fitted(sweeping_.compared_picture(0).size(), room);
        curtain_ =
            std::clamp(static_cast<double>(event->pos().x() - area.left()) / std::max(1, area.width()), 0.0, 1.0);
        return viewport()->update();
    }
    const int cell = cell_at(event->pos());
    if (cell >= 0 && !sweeping_.is_fine(cell)) sweeping_.draw_first(cell);
}

void SheetView::mouseReleaseEvent(QMouseEvent*) { drags_curtain_ = false; }

void SheetView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (sweeping_.comparing() || event->button() != Qt::LeftButton) return;
    if (cell_at(event->pos()) >= 0) emit wants_bench();
}

void SheetView::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

void SheetView::compare_present() {
    if (sweeping_.comparing()) return sweeping_.end_comparing();
    if (cell_count() < 2) return;
    const int other = marked_ >= 0 && marked_ != present_ ? marked_ : present_ + 1 < cell_count() ? present_ + 1 : 0;
    marked_ = -1;
    sweeping_.compare(std::min(other, present_), std::max(other, present_));
}

void SheetView::turn_compared() {
    beside_ = !beside_;
    viewport()->update();
}

// Home is the beginning of time elsewhere.
bool SheetView::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Home || key == Qt::Key_End) event->accept();
    }
    return QAbstractScrollArea::event(event);
}

void SheetView::keyPressEvent(QKeyEvent* event) {
    if (sweeping_.comparing()) {
        switch (event->key()) {
            case Qt::Key_Left:
            case Qt::Key_Right:
                curtain_ = std::clamp(curtain_ + (event->key() == Qt::Key_Left ? -0.02 : 0.02), 0.0, 1.0);
                return viewport()->update();
            case Qt::Key_Return:
            case Qt::Key_Enter:
                return turn_compared();
            default:
                return QAbstractScrollArea::keyPressEvent(event);
        }
    }
    switch (event->key()) {
        case Qt::Key_Left:
            return set_present(present_ - 1);
        case Qt::Key_Right:
            return set_present(present_ + 1);
        case Qt::Key_Up:
            return set_present(present_ - columns() >= 0 ? present_ - columns() : present_);
        case Qt::Key_Down:
            return set_present(present_ + columns() < cell_count() ? present_ + columns() : present_);
        case Qt::Key_Home:
            return set_present(0);
        case Qt::Key_End:
            return set_present(cell_count() - 1);
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return sweeping_.take(present_);
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void SheetView::focusInEvent(QFocusEvent*) { viewport()->update(); }
void SheetView::focusOutEvent(QFocusEvent*) { viewport()->update(); }

int SheetView::cell_count() const { return static_cast<int>(sweeping_.cells().size()); }

AccessibleCell SheetView::cell(int index) const {
    const SheetCell& one = sweeping_.cells()[static_cast<std::size_t>(index)];
    AccessibleCell told{one.words, {}, cell_area(index)};
    told.chosen = index == present_;
    told.actions = {tr("show on the stage"), tr("compare")};
    return told;
}

void SheetView::act_on_cell(int index, const QString& action) {
    set_present(index);
    action == tr("compare") ? compare_present() : sweeping_.take(index);
}

}  // namespace lacquer
