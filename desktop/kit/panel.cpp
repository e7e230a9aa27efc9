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

namespace {

constexpr const char* words_property = "button_words";
constexpr const char* action_property = "button_action";

// Its words, and the key that does the same.
void show_words(QPushButton* button, const QAction* action) {
    const QString words = button->property(words_property).toString();
    const QString key = action->shortcut().toString(QKeySequence::NativeText);
    button->setText(key.isEmpty() || words.isEmpty() ? words : words + QStringLiteral("  ") + key);
    button->setAccessibleName(words);
    button->setToolTip(action->toolTip());
}

}  // namespace

QPushButton* panel_button(QWidget* parent, QAction* action, const QString& words) {
    auto* made = new QPushButton(parent);
    made->setObjectName(QStringLiteral("button_") + action->objectName());
    made->setFocusPolicy(Qt::TabFocus);
    made->setProperty(words_property, words);
    made->setProperty(action_property, QVariant::fromValue<QObject*>(action));
    show_words(made, action);
    QObject::connect(made, &QPushButton::clicked, action, &QAction::trigger);
    QObject::connect(action, &QAction::changed, made, [made, action] { show_words(made, action); });
    return made;
}

void set_button_words(QPushButton* button, const QString& words) {
    if (button->property(words_property).toString() == words) return;
    button->setProperty(words_property, words);
    show_words(button, qobject_cast<QAction*>(button->property(action_property).value<QObject*>()));
}

QWidget* panel_header(QWidget* parent, QHBoxLayout*& row) {
    auto* head = new QWidget(parent);
    head->setFixedHeight(theme::header);
    row = new QHBoxLayout(head);
    row->setContentsMargins(theme::margin, 0, theme::margin, 0);
    row->setSpacing(theme::gap);
    return head;
}

}  // namespace lacquer
