#include "desktop/ship/target_cards.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <algorithm>

#include "core/base/text.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/text.h"
#include "desktop/kit/theme.h"
#include "desktop/ship/shipping.h"

namespace lacquer {

namespace {

constexpr int card_height = 104;
constexpr int least_card_width = 290;
constexpr int card_line = 17;
constexpr int box_side = 13;

QString size_words(std::size_t bytes) {
    return bytes < 1'000'000 ? TargetCards::tr("%1 kB").arg(qs(plain_number(static_cast<double>(bytes) / 1e3, 1)))
                             : TargetCards::tr("%1 MB").arg(qs(plain_number(static_cast<double>(bytes) / 1e6, 2)));
}

}  // namespace

TargetCards::TargetCards(Shipping& shipping, QWidget* parent) : QAbstractScrollArea(parent), shipping_(shipping) {
    setObjectName(QStringLiteral("targets"));
    setAccessibleName(tr("Targets"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setToolTip(tr("A click, or Space, takes a target into the set or leaves it out"));
    connect(&shipping_, &Shipping::changed, this, &TargetCards::rebuild);
}

int TargetCards::columns() const {
    return std::max(1, (viewport()->width() - theme::margin) / (least_card_width + theme::gap));
}

QRect TargetCards::card_area(int index) const {
    const int across = columns();
    const int width = (viewport()->width() - 2 * theme::margin - (across - 1) * theme::gap) / across;
    return {theme::margin + index % across * (width + theme::gap),
            theme::margin + index / across * (card_height + theme::gap) - verticalScrollBar()->value(), width,
            card_height};
}

void TargetCards::rebuild() {
    const int rows = (cell_count() + columns() - 1) / columns();
    const int high = 2 * theme::margin + rows * (card_height + theme::gap) - theme::gap;
    verticalScrollBar()->setRange(0, std::max(0, high - viewport()->height()));
    verticalScrollBar()->setPageStep(viewport()->height());
    verticalScrollBar()->setSingleStep(card_line);
    viewport()->update();
}

QString TargetCards::verified_words(const ShipTarget& target) const {
    if (target.fault) return fault_words(*target.fault);
    if (!target.unless.empty()) return tr("not for this finish: %1").arg(core_words(target.unless));
    if (target.output->ending.empty()) return {};
    if (!target.verified) return tr("not verified yet");
    const Verified& verified = *target.verified;
    if (!verified.was_run) return tr("not run here: %1").arg(core_words(verified.drawn_by));
    const QString difference = QString::number(verified.largest, 'g', 2);
    const QString turned = qs(plain_number(100 * verified.turned_over, 3));
    if (!verified.holds() && shipping_.choices().native)
        return tr("native reading: %1 % of pixels are further off than %2").arg(turned).arg(verified_within);
    return verified.holds() ? tr("verified: at most %1 off, %2 % of pixels tip over an edge; %3 ms a frame here")
                                  .arg(difference, turned, qs(plain_number(verified.milliseconds, 1)))
                            : tr("differs: %1 % of pixels are further off than %2").arg(turned).arg(verified_within);
}

void TargetCards::paint_card(QPainter& painter, int index) const {
    const ShipTarget& target = shipping_.targets()[static_cast<std::size_t>(index)];
    const QRect area = card_area(index);
    painter.setPen(target.chosen ? theme::border : theme::hairline);
    painter.setBrush(target.chosen ? theme::raised : theme::panel);
    painter.drawRoundedRect(area.adjusted(0, 0, -1, -1), theme::radius, theme::radius);
    if (index == present_ && hasFocus()) theme::paint_focus(painter, area.adjusted(1, 1, -2, -2));
    const QRect room = area.adjusted(theme::margin, 9, -theme::margin, -8);
    const QRect box(room.left(), room.top() + 2, box_side, box_side);
    painter.setPen(target.chosen ? theme::celadon : theme::border);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(box);
    if (target.chosen) painter.fillRect(box.adjusted(3, 3, -2, -2), theme::celadon);
    const QRect title = room.adjusted(box_side + 9, 0, 0, card_line - room.height());
    theme::paint_text(painter, title, core_words(target.output->title), theme::words(theme::title, true),
                      target.chosen ? theme::text : theme::quiet);
    const QString size =
        target.files == 0 ? QString()
                          : tr("%n file(s), %1", nullptr, static_cast<int>(target.files)).arg(size_words(target.bytes));
    theme::paint_text(painter, title, size, theme::figures(), theme::quiet, Qt::AlignRight);
    painter.setFont(theme::words(theme::small));
    painter.setPen(theme::quiet);
    painter.drawText(QRect(room.left(), room.top() + card_line + 5, room.width(), 2 * card_line), Qt::TextWordWrap,
                     core_words(target.output->words));
    const bool holds = target.verified && target.verified->holds();
    const bool differs =
        target.fault || (target.verified && target.verified->was_run && !holds && !shipping_.choices().native);
    const QString words = verified_words(target);
    painter.setPen(differs ? theme::vermilion_text : holds ? theme::celadon : theme::disabled);
    painter.drawText(QRect(room.left(), room.bottom() - 2 * card_line + 2, room.width(), 2 * card_line),
                     Qt::TextWordWrap | Qt::AlignBottom, (holds ? QStringLiteral("✓ ") : QString()) + words);
}

void TargetCards::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::page);
    for (int i = 0; i < cell_count(); ++i) paint_card(painter, i);
}

void TargetCards::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    rebuild();
}

void TargetCards::scrollContentsBy(int, int) { viewport()->update(); }

void TargetCards::mousePressEvent(QMouseEvent* event) {
    setFocus();
    for (int i = 0; i < cell_count(); ++i) {
        if (!card_area(i).contains(event->pos())) continue;
        present_ = i;
        shipping_.toggle(static_cast<std::size_t>(i));
        return viewport()->update();
    }
}

void TargetCards::keyPressEvent(QKeyEvent* event) {
    const auto go = [this](int by) {
        present_ = std::clamp(present_ + by, 0, cell_count() - 1);
        const QRect area = card_area(present_);
        if (area.top() < 0) verticalScrollBar()->setValue(verticalScrollBar()->value() + area.top() - theme::margin);
        if (area.bottom() > viewport()->height())
            verticalScrollBar()->setValue(verticalScrollBar()->value() + area.bottom() - viewport()->height() +
                                          theme::margin);
        viewport()->update();
    };
    switch (event->key()) {
        case Qt::Key_Left:
            return go(-1);
        case Qt::Key_Right:
            return go(1);
        case Qt::Key_Up:
            return go(-columns());
        case Qt::Key_Down:
            return go(columns());
        case Qt::Key_Space:
        case Qt::Key_Return:
        case Qt::Key_Enter:
            return shipping_.toggle(static_cast<std::size_t>(present_));
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void TargetCards::focusInEvent(QFocusEvent*) { viewport()->update(); }
void TargetCards::focusOutEvent(QFocusEvent*) { viewport()->update(); }

int TargetCards::cell_count() const { return static_cast<int>(shipping_.targets().size()); }

AccessibleCell TargetCards::cell(int index) const {
    const ShipTarget& target = shipping_.targets()[static_cast<std::size_t>(index)];
    AccessibleCell told{core_words(target.output->title), verified_words(target), card_area(index)};
    told.chosen = target.chosen;
    told.actions = {target.chosen ? tr("leave out") : tr("take into the set")};
    return told;
}

void TargetCards::act_on_cell(int index, const QString&) { shipping_.toggle(static_cast<std::size_t>(index)); }

}  // namespace lacquer
