#include "desktop/sweep/variant_strip.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QWheelEvent>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"
#include "desktop/sweep/sweeping.h"

namespace lacquer {

namespace {

constexpr int card_width = 132;
constexpr int picture_height = 74;
constexpr int card_height = picture_height + 22;
constexpr int card_gap = 8;
constexpr int strip_border = 12;

}  // namespace

VariantStrip::VariantStrip(Models& models, Sweeping& sweeping, QWidget* parent)
    : QAbstractScrollArea(parent), document_(models.document), sweeping_(sweeping) {
    setObjectName(QStringLiteral("variants"));
    setAccessibleName(tr("Variants"));
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::StrongFocus);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFixedHeight(card_height + 2 * strip_border);
    setToolTip(tr("A click puts a variant on: what is changed then goes into it. The right button has more"));
    connect(&sweeping_, &Sweeping::strip_changed, viewport(), qOverload<>(&QWidget::update));
    connect(&sweeping_, &Sweeping::spec_changed, this, &VariantStrip::rebuild);
}

QSize VariantStrip::sizeHint() const { return {400, card_height + 2 * strip_border}; }

int VariantStrip::variants() const { return static_cast<int>(document_.finish().variants.size()); }

std::string VariantStrip::name_of(int card) const {
    return card < 1 || card > variants() ? std::string()
                                         : document_.finish().variants[static_cast<std::size_t>(card) - 1].name;
}

int VariantStrip::card_on() const {
    for (int card = 1; card <= variants(); ++card) {
        if (name_of(card) == document_.finish().variant) return card;
    }
    return 0;
}

QString VariantStrip::words_of(int card) const { return card == 0 ? tr("base") : qs(shown_name(name_of(card))); }

QRect VariantStrip::card_area(int card) const {
    return {strip_border + card * (card_width + card_gap) - horizontalScrollBar()->value(), strip_border, card_width,
            card_height};
}

void VariantStrip::rebuild() {
    const int width = 2 * strip_border + (variants() + 2) * (card_width + card_gap) - card_gap;
    horizontalScrollBar()->setRange(0, std::max(0, width - viewport()->width()));
    horizontalScrollBar()->setPageStep(viewport()->width());
    horizontalScrollBar()->setSingleStep(card_width + card_gap);
    tell_view();
    viewport()->update();
}

void VariantStrip::tell_view() {
    const int first = std::max(0, horizontalScrollBar()->value() - strip_border) / (card_width + card_gap);
    sweeping_.set_strip_in_view(first, first + viewport()->width() / (card_width + card_gap) + 2);
}

void VariantStrip::put_on(int card) {
    if (card < 0 || card > variants() || card == card_on()) return;
    document_.edit(switch_variant(document_.finish(), name_of(card)), tr("Variant: %1").arg(words_of(card)));
    QScrollBar* bar = horizontalScrollBar();
    const QRect area = card_area(card);
    if (area.left() < strip_border) bar->setValue(bar->value() + area.left() - strip_border);
    if (area.right() > viewport()->width() - strip_border)
        bar->setValue(bar->value() + area.right() - viewport()->width() + strip_border);
}

void VariantStrip::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.fillRect(viewport()->rect(), theme::black);
    for (int card = 0; card <= variants() + 1; ++card) {
        const QRect area = card_area(card);
        if (!area.intersects(viewport()->rect())) continue;
        if (card > variants()) {
            painter.setPen(QPen(theme::hairline, 1, Qt::DashLine));
            painter.drawRect(area.adjusted(0, 0, -1, -1));
            theme::paint_text(painter, area, tr("+ variant"), theme::words(), theme::quiet, Qt::AlignHCenter);
            continue;
        }
        const bool on = card == card_on();
        ThumbnailStyle style;
        style.clear = true;
        style.outlined = true;
        paint_thumbnail(painter, QRect(area.left(), area.top(), card_width, picture_height),
                        sweeping_.strip_picture(card), style);
        const QRect words(area.left() + 2, area.top() + picture_height + 2, card_width - 4, 18);
        const std::size_t size =
            card == 0 ? 0 : document_.finish().variants[static_cast<std::size_t>(card) - 1].overlay.size();
        const QString differs = card == 0 ? QString() : QString::number(size);
        theme::paint_text(painter, words, differs, theme::figures(theme::tiny), theme::quiet, Qt::AlignRight);
        theme::paint_text(painter, words.adjusted(0, 0, -18, 0), words_of(card), theme::words(theme::plain, on),
                          on ? theme::gold : theme::text);
        if (on) {
            painter.fillRect(QRect(area.left(), area.bottom() - 1, card_width, 2), theme::gold);
            if (hasFocus()) theme::paint_focus(painter, area.adjusted(-3, -3, 2, 2));
        }
    }
}

void VariantStrip::resizeEvent(QResizeEvent* event) {
    QAbstractScrollArea::resizeEvent(event);
    rebuild();
}

void VariantStrip::scrollContentsBy(int, int) {
    tell_view();
    viewport()->update();
}

void VariantStrip::wheelEvent(QWheelEvent* event) {
    const QPoint turned = event->angleDelta();
    QScrollBar* bar = horizontalScrollBar();
    bar->setValue(bar->value() - (turned.x() != 0 ? turned.x() : turned.y()));
    event->accept();
}

void VariantStrip::mousePressEvent(QMouseEvent* event) {
    setFocus();
    for (int card = 0; card <= variants() + 1; ++card) {
        if (!card_area(card).contains(event->pos())) continue;
        if (card <= variants()) return put_on(card);
        if (event->button() == Qt::LeftButton) emit wants_variant();
        return;
    }
}

void VariantStrip::contextMenuEvent(QContextMenuEvent* event) {
    if (menu_ != nullptr) menu_->popup(event->globalPos());
}

// Home is the beginning of time elsewhere.
bool VariantStrip::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Home || key == Qt::Key_End) event->accept();
    }
    return QAbstractScrollArea::event(event);
}

void VariantStrip::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            return put_on(card_on() - 1);
        case Qt::Key_Right:
            return put_on(card_on() + 1);
        case Qt::Key_Home:
            return put_on(0);
        case Qt::Key_End:
            return put_on(variants());
        default:
            QAbstractScrollArea::keyPressEvent(event);
    }
}

void VariantStrip::focusInEvent(QFocusEvent*) { viewport()->update(); }
void VariantStrip::focusOutEvent(QFocusEvent*) { viewport()->update(); }

int VariantStrip::cell_count() const { return variants() + 1; }

AccessibleCell VariantStrip::cell(int index) const {
    AccessibleCell told{words_of(index), index == card_on() ? tr("on") : tr("off"), card_area(index)};
    told.chosen = index == card_on();
    told.role = QAccessible::RadioButton;
    told.actions = {tr("put on")};
    return told;
}

void VariantStrip::act_on_cell(int index, const QString&) { put_on(index); }

}  // namespace lacquer
