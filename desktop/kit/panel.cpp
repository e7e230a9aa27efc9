#include "desktop/kit/panel.h"

#include <QAction>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include "desktop/kit/theme.h"

namespace lacquer {

QLabel* quiet_label(QWidget* parent) {
    auto* label = new QLabel(parent);
    QPalette palette = label->palette();
    palette.setColor(QPalette::WindowText, theme::quiet);
    label->setPalette(palette);
    label->setTextFormat(Qt::RichText);
    return label;
}

QPushButton* panel_button(QWidget* parent, QAction* action, const QString& words) {
    auto* made = new QPushButton(words, parent);
    made->setObjectName(QStringLiteral("button_") + action->objectName());
    made->setToolTip(action->toolTip());
    made->setFocusPolicy(Qt::TabFocus);
    QObject::connect(made, &QPushButton::clicked, action, &QAction::trigger);
    return made;
}

QWidget* panel_header(QWidget* parent, QHBoxLayout*& row) {
    auto* head = new QWidget(parent);
    head->setFixedHeight(34);
    row = new QHBoxLayout(head);
    row->setContentsMargins(12, 0, 12, 0);
    row->setSpacing(8);
    return head;
}

}  // namespace lacquer
