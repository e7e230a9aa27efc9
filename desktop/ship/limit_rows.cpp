#include "desktop/ship/limit_rows.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "desktop/kit/core_words.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/text.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

// The same said of several grounds is said once, with all their names.
std::vector<ShipLimit> gathered(const std::vector<ShipLimit>& limits) {
    std::vector<ShipLimit> all;
    for (const ShipLimit& limit : limits) {
        const auto same = std::find_if(all.begin(), all.end(), [&](const ShipLimit& one) {
            return one.fault.id == limit.fault.id && one.fault.message == limit.fault.message;
        });
        if (same == all.end()) {
            all.push_back(limit);
        } else {
            same->fault.place.where += ", " + limit.fault.place.where;
        }
    }
    return all;
}

QString words_of(const Fault& fault) {
    const QString where = fault.place.where.empty() ? QString() : qs(fault.place.where) + QStringLiteral(": ");
    return where + fault_words(fault);
}

}  // namespace

LimitRows::LimitRows(Shipping& shipping, QAction* find_missing, QWidget* parent)
    : QWidget(parent), shipping_(shipping), find_missing_(find_missing), rows_(new QVBoxLayout(this)) {
    setObjectName(QStringLiteral("limit_rows"));
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setSpacing(theme::gap);
}

void LimitRows::refresh() {
    const std::vector<ShipLimit> limits = shipping_.refused() ? std::vector<ShipLimit>() : gathered(shipping_.limits());
    if (limits != shown_) {
        shown_ = limits;
        while (QLayoutItem* item = rows_->takeAt(0)) {
            if (QWidget* row = item->widget()) {
                row->hide();
                row->deleteLater();
            }
            delete item;
        }
        for (const ShipLimit& limit : shown_) add_row(limit);
        setVisible(!shown_.empty());
    }
    for (QPushButton* button : findChildren<QPushButton*>()) {
        const QVariant instead = button->property("instead");
        if (!instead.isValid()) continue;
        const ShipTarget* target = shipping_.target(instead.toString());
        button->setEnabled(target != nullptr && !target->chosen);
    }
}

void LimitRows::add_row(const ShipLimit& limit) {
    auto* row = new QWidget(this);
    auto* parts = new QHBoxLayout(row);
    parts->setContentsMargins(0, 0, 0, 0);
    parts->setSpacing(theme::gap);
    auto* words = new QLabel(words_of(limit.fault), row);
    words->setWordWrap(true);
    words->setTextFormat(Qt::PlainText);
    parts->addWidget(words, 1);
    if (const ShipTarget* target = shipping_.target(qs(std::string(limit.instead)))) {
        const QString title = core_words(target->output->title);
        auto* button = new QPushButton(tr("Ship %1").arg(title.left(1).toLower() + title.mid(1)), row);
        button->setProperty("instead", qs(std::string(limit.instead)));
        button->setToolTip(tr("takes this target, too"));
        connect(button, &QPushButton::clicked, this,
                [this, id = qs(std::string(limit.instead))] { shipping_.take(id); });
        parts->addWidget(button, 0, Qt::AlignTop);
    } else if (limit.fault.id == "ship.missing") {
        parts->addWidget(panel_button(row, find_missing_, tr("Find…")), 0, Qt::AlignTop);
    }
    rows_->addWidget(row);
}

}  // namespace lacquer
