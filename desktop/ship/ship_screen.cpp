#include "desktop/ship/ship_screen.h"

#include <QAction>
#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/base/text.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/ship/limit_rows.h"
#include "desktop/ship/target_cards.h"

namespace lacquer {

namespace {

constexpr int side_width = 420;
constexpr int least_side_width = 320;

// Stays down as long as its action is so.
QPushButton* following_button(QWidget* parent, QAction* action, const QString& words) {
    QPushButton* button = panel_button(parent, action, words);
    if (!action->isCheckable()) return button;
    button->setCheckable(true);
    button->setChecked(action->isChecked());
    QObject::connect(action, &QAction::toggled, button, &QPushButton::setChecked);
    QObject::connect(action, &QAction::triggered, button,
                     [button, action] { button->setChecked(action->isChecked()); });
    return button;
}

}  // namespace

ShipScreen::ShipScreen(Models& models, const QHash<QString, QAction*>& actions, QWidget* parent)
    : QWidget(parent),
      shipping_(models),
      cards_(new TargetCards(shipping_, this)),
      facts_(new QLabel(this)),
      limits_(new LimitRows(shipping_, actions[QStringLiteral("find_missing")], this)),
      checklist_(new QPlainTextEdit(this)) {
    setObjectName(QStringLiteral("ship_screen"));
    auto* left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(head(actions));
    left->addWidget(cards_, 1);
    auto* side = new QWidget(this);
    side->setMinimumWidth(least_side_width);
    side->setMaximumWidth(side_width);
    auto* right = new QVBoxLayout(side);
    right->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    right->setSpacing(theme::gap);
    auto* checks = new QHBoxLayout;
    checks->addWidget(following_button(side, actions[QStringLiteral("verify_set")], tr("Verify")));
    checks->addWidget(following_button(side, actions[QStringLiteral("native_reading")], tr("Native reading")));
    checks->addStretch(1);
    right->addLayout(checks);
    facts_->setObjectName(QStringLiteral("ship_facts"));
    facts_->setWordWrap(true);
    facts_->setTextFormat(Qt::PlainText);
    right->addWidget(facts_);
    right->addWidget(limits_);
    auto* row = new QHBoxLayout;
    auto* title = new QLabel(tr("What the host supplies"), side);
    title->setFont(theme::words(theme::plain, true));
    row->addWidget(title, 1);
    row->addWidget(panel_button(side, actions[QStringLiteral("copy_checklist")], tr("Copy")));
    right->addLayout(row);
    checklist_->setObjectName(QStringLiteral("checklist"));
    checklist_->setAccessibleName(tr("What the host supplies"));
    checklist_->setReadOnly(true);
    checklist_->setFont(theme::figures());
    checklist_->setTabChangesFocus(true);
    right->addWidget(checklist_, 1);
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(0);
    columns->addLayout(left, 3);
    columns->addWidget(side, 2);
    connect(&shipping_, &Shipping::changed, this, &ShipScreen::refresh);
    refresh();
}

QWidget* ShipScreen::head(const QHash<QString, QAction*>& actions) {
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(this, row);
    for (const auto& [action, words] :
         {std::pair{"ship_to", tr("Ship to…")}, {"ship_again", tr("Ship again")}, {"keep_shipped", tr("Keep shipped")}})
        row->addWidget(following_button(head, actions[QString::fromLatin1(action)], words));
    row->addStretch(1);
    return head;
}

void ShipScreen::refresh() {
    QStringList lines;
    const ShipChoices& choices = shipping_.choices();
    if (shipping_.refused()) {
        lines.append(fault_words(*shipping_.refused()));
    } else {
        lines.append(choices.folder.isEmpty() ? tr("Not shipped yet: choose a folder.")
                     : choices.keeps          ? tr("Shipped to %1 at every save.").arg(choices.folder)
                                              : tr("Ships to %1.").arg(choices.folder));
        const SetCost& cost = shipping_.frame_cost();
        lines.append(
            tr("A frame: %n pass(es), %1 readings and %2 instructions a pixel, %3 MB stored.", nullptr, cost.passes)
                .arg(qs(plain_number(cost.reads, 1)), qs(plain_number(cost.instructions, 0)),
                     qs(plain_number(static_cast<double>(cost.bytes) / 1e6, 1))));
    }
    facts_->setText(lines.join(QStringLiteral("\n")));
    limits_->refresh();
    if (checklist_->toPlainText() != shipping_.checklist()) checklist_->setPlainText(shipping_.checklist());
}

QString ShipScreen::checklist() const { return checklist_->toPlainText(); }

void ShipScreen::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    shipping_.set_shown(true);
}

void ShipScreen::hideEvent(QHideEvent* event) {
    QWidget::hideEvent(event);
    shipping_.set_shown(false);
}

}  // namespace lacquer
