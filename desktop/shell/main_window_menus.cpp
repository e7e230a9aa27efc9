// The window's actions, and the menus that their rows make.
#include <QAction>
#include <QMenu>
#include <QToolTip>

#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/signal_faders.h"
#include "desktop/rehearse/time_rule.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/mnemonics.h"
#include "desktop/shell/top_bar.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/sweep/variant_strip.h"

namespace lacquer {

namespace {

QString plain_tip(const ActionRow& row, const QKeySequence& key) {
    const QString tip = QObject::tr(row.tip);
    return key.isEmpty() ? tip : QObject::tr("%1 (%2)").arg(tip, key.toString(QKeySequence::NativeText));
}

}  // namespace

QString MainWindow::key_of(const char* action) const {
    return actions_[QString::fromLatin1(action)]->shortcut().toString(QKeySequence::NativeText);
}

void MainWindow::build_actions() {
    handlers_ = handlers();
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0') continue;
        const QString id = QString::fromLatin1(row.id);
        auto* action = new QAction(tr(row.words), this);
        action->setObjectName(id);
        action->setIconText(tr(row.words));
        action->setCheckable(row.checked != Checked::never);
        // A cue that is held down is one cue.
        action->setAutoRepeat(!id.startsWith(QStringLiteral("cue_")) && id != QStringLiteral("play"));
        Q_ASSERT(handlers_.contains(id));
        connect(action, &QAction::triggered, this, [this, &row] { run(row); });
        addAction(action);
        actions_[id] = action;
    }
    take_keys();
}

// Those of the table, or what the user has chosen instead.
void MainWindow::take_keys() {
    KeyNames names;
    // One that changes hands is let go of first: two of a kind would trigger neither.
    for (QAction* action : std::as_const(actions_)) action->setShortcut({});
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0') continue;
        QAction* action = actions_[QString::fromLatin1(row.id)];
        const QKeySequence key = keys_.key_of(row);
        action->setShortcut(key);
        action->setToolTip(plain_tip(row, key));
        names[QString::fromLatin1(row.id)] = key.toString(QKeySequence::NativeText);
    }
    document_.set_key_names(std::move(names));
    update();
}

void MainWindow::run(const ActionRow& row) {
    const QString why = why_not(row);
    if (why.isEmpty()) {
        emit ran(QString::fromLatin1(row.id));
        handlers_[QString::fromLatin1(row.id)]();
    } else {
        document_.say(why);
    }
    refresh_checks();
}

void MainWindow::build_menus() {
    // Alt and a letter opens a menu where no action has it.
    QSet<QChar> of_the_bar;
    for (const QAction* action : std::as_const(actions_)) {
        const QString key = action->shortcut().toString(QKeySequence::PortableText);
        if (key.startsWith(QStringLiteral("Alt+")) && key.size() == 5) of_the_bar.insert(key.back().toLower());
    }
    QHash<QString, QMenu*> menus;
    QHash<QString, QSet<QChar>> taken;
    for (const ActionRow& row : action_rows()) {
        const QString title = tr(row.menu);
        QMenu*& menu = menus[title];
        if (menu == nullptr) {
            menu = new QMenu(title, this);
            prepare(menu);
            top_bar_->add_menu(with_mnemonic(title, of_the_bar), title, menu);
        }
        if (*row.id == '\0') {
            menu->addSeparator();
            continue;
        }
        QAction* action = actions_[QString::fromLatin1(row.id)];
        action->setText(with_mnemonic(tr(row.words), taken[title]));
        menu->addAction(action);
    }
}

QMenu* MainWindow::context_menu(Context context) {
    QMenu*& menu = context_menus_[context];
    if (menu != nullptr) return menu;
    menu = new QMenu(this);
    prepare(menu);
    QString last;
    for (const ActionRow& row : action_rows()) {
        if ((row.contexts & context) == 0) continue;
        const QString title = QString::fromLatin1(row.menu);
        if (!last.isEmpty() && title != last) menu->addSeparator();
        last = title;
        menu->addAction(actions_[QString::fromLatin1(row.id)]);
    }
    return menu;
}

// The keys go on working whatever a menu looks like: they say why nothing happens.
void MainWindow::prepare(QMenu* menu) {
    menu->setToolTipsVisible(true);
    const auto each = [menu](const auto& change) {
        for (QAction* action : menu->actions()) {
            if (!action->isSeparator()) change(action, action_row(action->objectName().toLatin1().constData()));
        }
    };
    connect(menu, &QMenu::aboutToShow, this, [this, each] {
        refresh_checks();
        each([this](QAction* action, const ActionRow& row) {
            const QString why = why_not(row);
            action->setEnabled(why.isEmpty());
            action->setToolTip(why.isEmpty() ? plain_tip(row, action->shortcut()) : why);
        });
    });
    connect(menu, &QMenu::aboutToHide, this, [each] {
        each([](QAction* action, const ActionRow& row) {
            action->setEnabled(true);
            action->setToolTip(plain_tip(row, action->shortcut()));
        });
    });
}

void MainWindow::give_menus() {
    ladder_->set_menus(context_menu(on_step), context_menu(on_coat));
    dials_->set_menu(context_menu(on_dial));
    shelf_->set_menu(context_menu(on_ground));
    stage_->set_menu(context_menu(on_stage));
    stage_->start_list().set_menu(context_menu(on_start));
    time_rule_->set_menu(context_menu(on_rule));
    cue_pads_->set_menu(context_menu(on_cue));
    rehearse_->pads().set_menu(context_menu(on_cue));
    rehearse_->lanes().set_menu(context_menu(on_lanes));
    rehearse_->faders().set_menu(context_menu(on_signal));
    sweep_->sheet().set_menu(context_menu(on_cell));
    sweep_->strip().set_menu(context_menu(on_variant));
}

}  // namespace lacquer
