#include "desktop/shell/top_bar.h"

#include <QAction>
#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QPainterPath>
#include <QPushButton>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int name_width = 230;

// A drop of lacquer with light on it.
void paint_mark(QPainter& painter, QPointF at) {
    painter.setRenderHint(QPainter::Antialiasing);
    QPainterPath drop;
    drop.addEllipse(QRectF(at, QSizeF(18, 18)));
    drop.addRect(QRectF(at + QPointF(0, 9), QSizeF(9, 9)));
    painter.fillPath(drop.simplified(), theme::gold);
    QPainterPath inner;
    inner.addEllipse(QRectF(at + QPointF(3, 3), QSizeF(15, 15)));
    painter.fillPath(inner.intersected(drop), theme::vermilion);
    painter.setRenderHint(QPainter::Antialiasing, false);
}

}  // namespace

TopBar::TopBar(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), row_(new QHBoxLayout(this)) {
    setObjectName(QStringLiteral("top_bar"));
    setFixedHeight(40);
    row_->setContentsMargins(name_width, 0, 12, 0);
    row_->setSpacing(0);
    row_->addStretch(1);
    connect(&document_, &Document::finish_changed, this, qOverload<>(&QWidget::update));
}

void TopBar::add_menu(const QString& title, const QString& name, QMenu* menu) {
    auto* button = new QPushButton(title, this);
    button->setObjectName(QStringLiteral("menu_") + name.toLower());
    button->setMenu(menu);
    button->setFlat(true);
    button->setFocusPolicy(Qt::TabFocus);
    button->setStyleSheet(
        QStringLiteral("QPushButton { border: none; background: transparent; padding: 6px 9px; color: %1; }"
                       "QPushButton:hover, QPushButton:focus { color: %2; }")
            .arg(theme::quiet.name(), theme::text.name()));
    row_->insertWidget(row_->count() - 1, button);
}

void TopBar::add_tab(QAction* action) {
    auto* button = new QPushButton(action->iconText(), this);
    button->setObjectName(QStringLiteral("tab_") + action->objectName());
    button->setToolTip(action->toolTip());
    button->setCheckable(true);
    button->setChecked(action->isChecked());
    button->setFlat(true);
    button->setFocusPolicy(Qt::TabFocus);
    button->setStyleSheet(
        QStringLiteral("QPushButton { border: none; border-bottom: 2px solid transparent; background: transparent;"
                       " padding: 11px 4px; margin: 0 5px; color: %1; }"
                       "QPushButton:hover, QPushButton:focus { color: %2; }"
                       "QPushButton:checked { color: %2; border-bottom: 2px solid %3; }")
            .arg(theme::quiet.name(), theme::text.name(), theme::vermilion.name()));
    connect(button, &QPushButton::clicked, action, &QAction::trigger);
    connect(action, &QAction::toggled, button, &QPushButton::setChecked);
    connect(action, &QAction::changed, button, [button, action] { button->setToolTip(action->toolTip()); });
    if (tabs_ == 0) row_->insertSpacing(row_->count() - 1, 14);
    row_->insertWidget(row_->count() - 1, button);
    ++tabs_;
}

void TopBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    painter.fillRect(QRect(0, height() - 1, width(), 1), theme::hairline);
    paint_mark(painter, QPointF(12, 11));
    QString name = qs(document_.finish().name);
    if (!document_.finish().variant.empty()) name += QStringLiteral(" · ") + qs(shown_name(document_.finish().variant));
    theme::paint_text(painter, QRect(44, 0, name_width - 100, 40), name, theme::words(theme::title, true), theme::text);
    const int after =
        44 + std::min(name_width - 100, QFontMetrics(theme::words(theme::title, true)).horizontalAdvance(name)) + 12;
    if (document_.edited())
        theme::paint_text(painter, QRect(after, 0, 60, 40), tr("edited"), theme::words(), theme::quiet);
}

}  // namespace lacquer
