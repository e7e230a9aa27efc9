#include "desktop/shell/main_window.h"

#include <QAbstractButton>
#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QCoreApplication>
#include <QCursor>
#include <QDropEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <string_view>
#include <utility>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/demos.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/colour_editor.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/pages/forms.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/time_rule.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/help_card.h"
#include "desktop/shell/mnemonics.h"
#include "desktop/shell/settings.h"
#include "desktop/shell/top_bar.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"
#include "desktop/tryon/try_on_sheet.h"

namespace lacquer {

MainWindow::MainWindow(Models& models, QSettings& settings, QWidget* parent)
    : QWidget(parent),
      models_(models),
      document_(models.document),
      playing_(models.playing),
      link_(models.link),
      drawing_(models.drawing),
      settings_(settings),
      top_bar_(new TopBar(models, this)),
      chooser_(new Chooser(this)),
      ladder_(new LadderView(models, *chooser_, this)),
      stage_(new StageView(models, this)),
      dials_(new DialsView(models, this)),
      form_(new FieldForm(this)),
      play_form_(new FieldForm(this, true)),
      shelf_(new GroundShelf(models, ground_facts, this)),
      time_rule_(new TimeRule(models, this)),
      cue_pads_(new CuePads(models, CuePads::Shape::row, this)),
      try_on_(new TryOnSheet(models, this)),
      colour_editor_(new ColourEditor(this)),
      help_card_(new HelpCard(this)) {
    setObjectName(QStringLiteral("main_window"));
    setAcceptDrops(true);
    play_form_->setObjectName(QStringLiteral("play_form"));
    build_actions();
    for (const char* screen : {"bench", "rehearse"}) {
        actions_[screen]->setCheckable(true);
        top_bar_->add_tab(actions_[screen]);
    }
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(top_bar_);
    columns_ = new QSplitter(Qt::Horizontal, this);
    columns_->setHandleWidth(1);
    columns_->setChildrenCollapsible(false);
    columns_->addWidget(ladder_side());
    rows_ = new QSplitter(Qt::Vertical, columns_);
    rows_->setHandleWidth(1);
    rows_->setChildrenCollapsible(false);
    rows_->addWidget(stage_);
    rows_->addWidget(dials_side());
    rows_->setStretchFactor(0, 1);
    auto* right = new QWidget(columns_);
    auto* right_column = new QVBoxLayout(right);
    right_column->setContentsMargins(0, 0, 0, 0);
    right_column->setSpacing(0);
    right_column->addWidget(rows_, 1);
    right_column->addWidget(foot());
    columns_->addWidget(right);
    columns_->setStretchFactor(1, 1);
    screens_ = new QStackedWidget(this);
    screens_->addWidget(columns_);
    rehearse_ = new RehearseScreen(models, actions_, play_form_, this);
    screens_->addWidget(rehearse_);
    column->addWidget(screens_, 1);

    resize(1280, 800);
    const QByteArray geometry = setting(settings_, "window/geometry").toByteArray();
    if (!geometry.isEmpty()) restoreGeometry(geometry);
    const int ladder_width = setting(settings_, "window/ladder_width").toInt();
    columns_->setSizes({ladder_width, std::max(320, width() - ladder_width)});
    const int dials_height = setting(settings_, "window/dials_height").toInt();
    rows_->setSizes({std::max(180, height() - 90 - dials_height), dials_height});

    connect(&document_, &Document::finish_changed, this, &MainWindow::refresh_words);
    connect(&document_, &Document::selection_changed, this, &MainWindow::refresh_words);
    connect(&playing_, &Playing::playing_changed, this, &MainWindow::refresh_words);
    connect(dials_, &DialsView::wants_form, this, [this](const QString& dial) {
        show_dial_form(form(), models_, dial.toStdString());
        show_form();
    });
    connect(cue_pads_, &CuePads::wants_form, this, [this](int cue) {
        show_cue_form(form(), models_, static_cast<std::size_t>(cue));
        show_form();
    });
    connect(cue_pads_, &CuePads::wants_cue, this, &MainWindow::add_cue);
    connect_rehearse();
    connect(&drawing_, &Drawing::candidates_changed, chooser_, &Chooser::refresh);
    connect(try_on_, &TryOnSheet::taken, ladder_, [this] { ladder_->setFocus(); });
    connect(stage_, &StageView::core_sample_changed, ladder_, &LadderView::set_shows_values);
    connect(stage_, &StageView::picked, this, &MainWindow::take_picked);
    connect(ladder_, &LadderView::wants_colour, this, &MainWindow::edit_word_colour);
    connect(ladder_, &LadderView::wants_dial, this, [this](const QString& dial) {
        dials_->choose(dial.toStdString());
        dials_->setFocus();
    });
    connect(dials_, &DialsView::wants_colour, this, &MainWindow::edit_dial_colour);
    connect(filter_, &QLineEdit::textChanged, ladder_, &LadderView::set_filter);
    connect(filter_, &LineEditor::dismissed, this, &MainWindow::end_filter);
    connect(filter_, &QLineEdit::returnPressed, ladder_, [this] { ladder_->setFocus(); });
    connect(&document_, &Document::finish_changed, this, &MainWindow::note_recent);
    connect(&drawing_, &Drawing::stage_came, this, [this] {
        if (std::exchange(paint_is_due_, false))
            QCoreApplication::postEvent(this, new QEvent(QEvent::UpdateRequest), Qt::LowEventPriority);
    });
    connect(shelf_, &GroundShelf::wants_page, this, &MainWindow::show_ground_page);
    stage_->start_list().set_recent(setting(settings_, "file/recent").toStringList());
    ladder_->set_menus(menus_[QStringLiteral("Step")], menus_[QStringLiteral("Coat")]);
    dials_->set_dial_menu(menus_[QStringLiteral("Dial")]);
    auto* ground_menu = new QMenu(this);
    for (const char* id : {"ground_page", "replace_ground", "delete_ground", "add_sprite_part", "find_missing"})
        ground_menu->addAction(actions_[id]);
    shelf_->set_menu(ground_menu);
    refresh_words();
    ladder_->setFocus();
}

namespace {

// Whether an action works on something that only the bench shows.
bool is_on_the_bench(const ActionRow& row) {
    const std::string_view menu = row.menu;
    const std::string_view id = row.id;
    if (menu == "Step" || menu == "Coat") return true;
    for (const std::string_view own :
         {"cut", "copy", "paste", "mend", "ground_shelf", "ground_page", "replace_ground", "delete_ground",
          "add_gradient", "add_curve", "add_marks", "focus_ladder", "focus_dials"}) {
        if (id == own) return true;
    }
    return menu == "Dial" && id != "add_response" && id != "response_page" && id != "let_go" && id != "take_shared";
}

}  // namespace

QMenu* MainWindow::menu_of(const QString& title) {
    QMenu*& menu = menus_[title];
    if (menu == nullptr) {
        menu = new QMenu(title, this);
        menu->setToolTipsVisible(true);
        top_bar_->add_menu(with_mnemonic(title, mnemonics_[{}]), title, menu);
    }
    return menu;
}

void MainWindow::build_actions() {
    const QHash<QString, std::function<void()>> all = handlers();
    // Alt and a letter opens a menu where no action has it.
    for (const ActionRow& row : action_rows()) {
        const QString keys = QString::fromLatin1(row.shortcut);
        if (keys.startsWith(QStringLiteral("Alt+")) && keys.size() == 5) mnemonics_[{}].insert(keys.back().toLower());
    }
    for (const ActionRow& row : action_rows()) {
        QMenu* menu = menu_of(tr(row.menu));
        const QString id = QString::fromLatin1(row.id);
        if (id.isEmpty()) {
            menu->addSeparator();
            continue;
        }
        auto* action = new QAction(with_mnemonic(tr(row.words), mnemonics_[QString::fromLatin1(row.menu)]), this);
        action->setIconText(tr(row.words));
        action->setObjectName(id);
        const QKeySequence keys = QKeySequence(QString::fromLatin1(row.shortcut));
        action->setShortcut(keys);
        // A cue that is held down is one cue.
        action->setAutoRepeat(!id.startsWith(QStringLiteral("cue_")) && id != QStringLiteral("play"));
        action->setToolTip(keys.isEmpty() ? tr(row.tip)
                                          : tr("%1 (%2)").arg(tr(row.tip), keys.toString(QKeySequence::NativeText)));
        Q_ASSERT(all.contains(id));
        // What is done to what is not in sight would only puzzle.
        connect(action, &QAction::triggered, this, [this, row, action, work = all.value(id)] {
            if (rehearses() && is_on_the_bench(row))
                return document_.say(tr("%1 is done on the bench (Ctrl+1)").arg(action->iconText()));
            work();
        });
        addAction(action);
        menu->addAction(action);
        actions_[id] = action;
    }
}

QWidget* MainWindow::ladder_side() {
    auto* side = new QWidget(this);
    side->setMinimumWidth(320);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(side, row);
    step_words_ = quiet_label(head);
    row->addWidget(step_words_, 1);
    filter_ = new LineEditor(head);
    filter_->setObjectName(QStringLiteral("filter"));
    filter_->setPlaceholderText(tr("name, formula, note or coat"));
    filter_->setAccessibleName(tr("Filter"));
    filter_->hide();
    row->addWidget(filter_, 2);
    row->addWidget(panel_button(head, actions_["filter_steps"], tr("Filter  /")));
    row->addWidget(panel_button(head, actions_["try_on"], tr("Try on  T")));
    row->addWidget(panel_button(head, actions_["add_step"], tr("+ Step  A")));
    column->addWidget(head);
    column->addWidget(ladder_, 1);
    return side;
}

QWidget* MainWindow::dials_side() {
    auto* side = new QWidget(this);
    side->setMinimumHeight(120);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(side, row);
    dial_words_ = quiet_label(head);
    row->addWidget(dial_words_, 1);
    row->addWidget(panel_button(head, actions_["response_page"], tr("Responses  Shift+R")));
    row->addWidget(panel_button(head, actions_["add_dial"], tr("+ Dial  D")));
    auto* list = new QWidget(side);
    auto* list_column = new QVBoxLayout(list);
    list_column->setContentsMargins(0, 0, 0, 0);
    list_column->setSpacing(0);
    list_column->addWidget(head);
    list_column->addWidget(dials_, 1);
    dial_pages_ = new QStackedWidget(side);
    dial_pages_->addWidget(list);
    dial_pages_->addWidget(form_);
    dial_pages_->addWidget(shelf_side());
    column->addWidget(dial_pages_);
    return side;
}

QWidget* MainWindow::foot() {
    auto* bar = new QWidget(this);
    bar->setAutoFillBackground(true);
    QPalette palette = bar->palette();
    palette.setColor(QPalette::Window, theme::black);
    bar->setPalette(palette);
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(12, 0, 6, 0);
    row->setSpacing(0);
    play_button_ = panel_button(bar, actions_["play"], {});
    play_button_->setFixedWidth(104);
    row->addWidget(play_button_);
    row->addWidget(time_rule_, 1);
    row->addWidget(cue_pads_);
    return bar;
}

void MainWindow::refresh_words() {
    const Finish& finish = document_.finish();
    const QString bold = QStringLiteral("<b style='color:%1'>%2</b>&nbsp;&nbsp;");
    step_words_->setText(bold.arg(theme::text.name(), tr("Steps")) +
                         tr("%1 in %2").arg(step_count(finish)).arg(qs(counted(finish.coats.size(), "coat"))));
    QString dials = bold.arg(theme::text.name(), tr("Dials")) + QString::number(finish.dials.size());
    if (!document_.selected().empty() && !finish.dials.empty()) {
        dials += tr(" · those that reach <b style='color:%1'>%2</b> first")
                     .arg(theme::gold.name(), qs(shown_name(document_.selected())));
    }
    if (!document_.checked().faults.empty()) {
        dials += tr(" · <span style='color:%1'>%2</span>")
                     .arg(theme::vermilion_text.name(), qs(document_.checked().faults.front().message).toHtmlEscaped());
    }
    dial_words_->setText(dials);
    refresh_shelf_words();
    actions_["bench"]->setChecked(!rehearses());
    actions_["rehearse"]->setChecked(rehearses());
    play_button_->setText(playing_.playing() ? tr("Pause  Space") : tr("Play  Space"));
    actions_["undo"]->setEnabled(document_.history().can_undo());
    actions_["redo"]->setEnabled(document_.history().can_redo());
    // What was done may have an & in its name.
    const auto plain = [](const std::string& words) {
        return qs(words).replace(QLatin1Char('&'), QStringLiteral("&&"));
    };
    actions_["undo"]->setText(
        document_.history().can_undo() ? tr("&Undo: %1").arg(plain(document_.history().undo_words())) : tr("&Undo"));
    actions_["redo"]->setText(
        document_.history().can_redo() ? tr("&Redo: %1").arg(plain(document_.history().redo_words())) : tr("&Redo"));
    setWindowTitle(tr("%1%2 - Lacquer").arg(qs(finish.name), document_.edited() ? tr(" (edited)") : QString()));
}

// All that is to be painted in a drag waits for the stage's picture, so that it comes first and nothing is painted
// twice.
bool MainWindow::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        // On a button with the focus it presses that button.
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool button = qobject_cast<QAbstractButton*>(QApplication::focusWidget()) != nullptr;
        if (button && key->key() == Qt::Key_Space && key->modifiers() == Qt::NoModifier) {
            event->accept();
            return true;
        }
    }
    if (event->type() != QEvent::UpdateRequest || !drawing_.stage_is_coming()) return QWidget::event(event);
    paint_is_due_ = true;
    return true;
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!document_.may_leave()) return event->ignore();
    document_.drop_autosave();
    playing_.set_playing(false);
    settings_.setValue("window/geometry", saveGeometry());
    settings_.setValue("window/ladder_width", columns_->sizes().value(0));
    settings_.setValue("window/dials_height", rows_->sizes().value(1));
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    for (const QUrl& url : event->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        if (path.endsWith(QStringLiteral(".lacquer"))) {
            if (document_.may_leave()) document_.open(path);
            return;
        }
        if (!path.isEmpty()) lacquer::add_picture(document_, path);
    }
}

}  // namespace lacquer
