#include "desktop/kit/choice_list.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>

#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"

namespace lacquer {

namespace {

constexpr int plain_height = 24;
constexpr int picture_height = 34;
constexpr int picture_width = 52;

}  // namespace

ChoiceList::ChoiceList(QWidget* parent) : QAbstractScrollArea(parent) {
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::StrongFocus);
    viewport()->setMouseTracking(true);
    setAccessibleName(tr("Choices"));
}

void ChoiceList::set_choices(std::vector<Choice> choices) {
    choices_ = std::move(choices);
    any_picture_ = std::any_of(choices_.begin(), choices_.end(), [](const Choice& c) { return c.has_picture; });
    const auto first = std::find_if(choices_.begin(), choices_.end(), [](const Choice& c) { return !c.heading; });
    present_ = first == choices_.end() ? -1 : static_cast<int>(first - choices_.begin());
    verticalScrollBar()->setValue(0);
    rebuild();
}

int ChoiceList::row_height() const { return any_picture_ ? picture_height : plain_height; }

QSize ChoiceList::sizeHint() const {
    return {360, std::clamp(static_cast<int>(choices_.size()), 1, 10) * row_height() + 2};
}

void ChoiceList::rebuild() {
    const int height = static_cast<int>(choices_.size()) * row_height();
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(row_height());
    verticalScrollBar()->setRange(0, std::max(0, height - viewport()->height()));
    viewport()->update();
}

void ChoiceList::set_present(int choice) {
    if (choice < 0 || choice >= static_cast<int>(choices_.size()) ||
        choices_[static_cast<std::size_t>(choice)].heading) {
        return;
    }
    present_ = choice;
    const int top = choice * row_height();
    const int seen = verticalScrollBar()->value();
    if (top < seen) verticalScrollBar()->setValue(std::max(0, top - (choice > 0 ? row_height() : 0)));
    if (top + row_height() > seen + viewport()->height())
        verticalScrollBar()->setValue(top + row_height() - viewport()->height());
    viewport()->update();
    emit moved(choice);
}

void ChoiceList::go(int by) {
    for (int at = present_ + by; at >= 0 && at < static_cast<int>(choices_.size()); at += by) {
        if (choices_[static_cast<std::size_t>(at)].heading) continue;
        return set_present(at);
    }
}

bool ChoiceList::take_key(int key) {
    const int page = std::max(1, viewport()->height() / row_height() - 1);
    switch (key) {
        case Qt::Key_Up:
            go(-1);
            return true;
        case Qt::Key_Down:
            go(1);
            return true;
        case Qt::Key_PageUp:
        case Qt::Key_PageDown:
            for (int i = 0; i < page; ++i) go(key == Qt::Key_PageUp ? -1 : 1);
            return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (present_ >= 0) emit taken(present_);
            return true;
        default:
            return false;
    }
}

void ChoiceList::keyPressEvent(QKeyEvent* event) {
    if (!take_key(event->key())) QAbstractScrollArea::keyPressEvent(event);
}

int ChoiceList::choice_at(QPoint point) const {
    const int at = (point.y() + verticalScrollBar()->value()) / row_height();
    const bool inside = at >= 0 && at < static_cast<int>(choices_.size());
    return inside && !choices_[static_cast<std::size_t>(at)].heading ? at : -1;
}

QRect ChoiceList::choice_area(int choice) const {
    return {0, choice * row_height() - verticalScrollBar()->value(), viewport()->width(), row_height()};
}

void ChoiceList::mousePressEvent(QMouseEvent* event) {
    const int at = choice_at(event->pos());
    if (at < 0 || event->button() != Qt::LeftButton) return;
    present_ = at;
    emit taken(at);
}

void ChoiceList::mouseMoveEvent(QMouseEvent* event) {
    const int at = choice_at(event->pos());
    if (at >= 0 && at != present_) set_present(at);
}

void ChoiceList::resizeEvent(QResizeEvent*) { rebuild(); }

void ChoiceList::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    for (int i = 0; i < static_cast<int>(choices_.size()); ++i) {
        const QRect area = choice_area(i);
        if (area.bottom() < 0 || area.top() > viewport()->height()) continue;
        const Choice& choice = choices_[static_cast<std::size_t>(i)];
        if (choice.heading) {
            theme::paint_text(painter, area.adjusted(8, 4, -8, 0), choice.name, theme::words(theme::small, true),
                              theme::quiet);
            continue;
        }
        if (i == present_) {
            painter.fillRect(area, theme::hairline);
            painter.fillRect(QRect(area.left(), area.top(), 3, area.height()), theme::gold);
        }
        int left = 10;
        if (choice.has_picture) {
            paint_thumbnail(painter, QRect(left, area.top() + 2, picture_width, picture_height - 4),
                            pictures_ ? pictures_(i) : QImage());
        }
        if (any_picture_) left += picture_width + 8;
        if (choice.failed) {
            theme::paint_notched_bar(painter, left, left + 8, area.center().y());
            left += 14;
        }
        const QFont bold = choice.is_code ? theme::figures() : theme::words(theme::plain, true);
        const int key_width =
            choice.key.isEmpty() ? 0 : QFontMetrics(theme::figures(theme::tiny)).horizontalAdvance(choice.key) + 10;
        const int name_width =
            std::min(QFontMetrics(bold).horizontalAdvance(choice.name) + 8, area.width() - left - key_width - 12);
        theme::paint_text(painter, QRect(left, area.top(), name_width, area.height()), choice.name, bold,
                          choice.failed ? theme::vermilion_text
                          : choice.fits ? theme::text
                                        : theme::quiet);
        theme::paint_text(
            painter,
            QRect(left + name_width + 4, area.top(), area.width() - left - name_width - key_width - 14, area.height()),
            choice.words, theme::words(theme::small), theme::quiet);
        theme::paint_text(painter, QRect(area.right() - key_width - 4, area.top(), key_width, area.height()),
                          choice.key, theme::figures(theme::tiny), theme::quiet, Qt::AlignRight);
    }
}

int ChoiceList::cell_count() const { return static_cast<int>(choices_.size()); }

AccessibleCell ChoiceList::cell(int index) const {
    const Choice& choice = choices_[static_cast<std::size_t>(index)];
    AccessibleCell told{choice.name, choice.words};
    if (choice_area(index).intersects(viewport()->rect())) told.area = choice_area(index);
    told.chosen = index == present_;
    if (choice.heading) {
        told.role = QAccessible::Heading;
    } else {
        told.actions = {tr("take")};
    }
    return told;
}

void ChoiceList::act_on_cell(int index, const QString&) {
    if (!choices_[static_cast<std::size_t>(index)].heading) emit taken(index);
}

}  // namespace lacquer
