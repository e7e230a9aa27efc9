// The ship screen: the targets as cards, beside them where they go, what they cost and what the host has to supply.
#pragma once

#include <QHash>
#include <QWidget>

#include "desktop/ship/shipping.h"

class QAction;
class QLabel;
class QPlainTextEdit;

namespace lacquer {

class LimitRows;
class TargetCards;

class ShipScreen : public QWidget {
    Q_OBJECT

public:
    /// The buttons are those of the window's actions, by their ids.
    ShipScreen(Models& models, const QHash<QString, QAction*>& actions, QWidget* parent = nullptr);

    Shipping& shipping() { return shipping_; }
    TargetCards& cards() { return *cards_; }
    /// What the text beside the cards says.
    QString checklist() const;

protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    QWidget* head(const QHash<QString, QAction*>& actions);
    void refresh();

    Shipping shipping_;
    TargetCards* cards_;
    QLabel* facts_;
    LimitRows* limits_;
    QPlainTextEdit* checklist_;
};

}  // namespace lacquer
