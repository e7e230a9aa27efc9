#include "desktop/shell/main_window.h"

#include <QAbstractButton>
#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QCoreApplication>
#include <QDropEvent>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QScreen>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <array>
#include <utility>

#include "desktop/code/code_side.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/colour_editor.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/pages/forms.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/signal_faders.h"
#include "desktop/rehearse/time_rule.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/help_card.h"
#include "desktop/shell/key_editor.h"
#include "desktop/shell/notice_bar.h"
#include "desktop/shell/settings.h"
#include "desktop/shell/top_bar.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/tryon/try_on_sheet.h"

namespace lacquer {

MainWindow::MainWindow(Models& models, Settings& settings, QWidget* parent)
    : QWidget(parent),
      models_(models),
      document_(models.document),
      playing_(models.playing),
      link_(models.link),
      drawing_(models.drawing),
      settings_(settings),
      keys_(settings),
      top_bar_(new TopBar(models.document, this)),
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
      help_card_(new HelpCard(this)),
      key_editor_(new KeyEditor(this)),
      notice_bar_(new NoticeBar(models, this)) {
    setObjectName(QStringLiteral("main_window"));
    setAcceptDrops(true);
    play_form_->setObjectName(QStringLiteral("play_form"));
    settings_.write_by(document_.disk());
    build_actions();
    build_menus();
    for (const char* screen : {"bench", "rehearse", "sweep", "ship"}) top_bar_->add_tab(actions_[screen]);
    build_screens();
    restore_layout();
    connect_views();
    connect_rehearse();
    connect_sweep();
    connect_ship();
    give_menus();
    stage_->start_list().set_recent(settings_.value("file/recent").toStringList());
    take_settings();
    refresh_words();
    ladder_->setFocus();
    if (const auto& fault = settings_.fault()) document_.say(core_words(fault->message), Tone::failed);
}

void MainWindow::build_screens() {
    columns_ = new QSplitter(Qt::Horizontal, this);
    columns_->setHandleWidth(1);
    columns_->setChildrenCollapsible(false);
    ladder_side_ = side_pages_ = new QStackedWidget(columns_);
    code_ = new CodeSide(models_, actions_, this);
    side_pages_->addWidget(ladder_side());
    side_pages_->addWidget(code_);
    columns_->addWidget(side_pages_);
    rows_ = new QSplitter(Qt::Vertical, columns_);
    rows_->setHandleWidth(1);
    rows_->setChildrenCollapsible(false);
    rows_->addWidget(stage_);
    dials_side_ = dials_side();
    rows_->addWidget(dials_side_);
    rows_->setStretchFactor(0, 1);
    auto* right = new QWidget(columns_);
    auto* right_column = new QVBoxLayout(right);
    right_column->setContentsMargins(0, 0, 0, 0);
    right_column->setSpacing(0);
    right_column->addWidget(rows_, 1);
    foot_ = foot();
    right_column->addWidget(foot_);
    columns_->addWidget(right);
    columns_->setStretchFactor(1, 1);
    screens_ = new QStackedWidget(this);
    screens_->addWidget(columns_);
    rehearse_ = new RehearseScreen(models_, actions_, play_form_, this);
    screens_->addWidget(rehearse_);
    sweep_ = new SweepScreen(models_, actions_, *chooser_, this);
    screens_->addWidget(sweep_);
    ship_ = new ShipScreen(models_, actions_, this);
    screens_->addWidget(ship_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(top_bar_);
    column->addWidget(screens_, 1);
    column->addWidget(notice_bar_);
}

void MainWindow::connect_views() {
    connect(&document_, &Document::finish_changed, this, &MainWindow::refresh_words);
    // What is being typed somewhere belongs to the finish that is left, and is part of the work on it.
    connect(&document_, &Document::going_to_leave, this, [this] {
        auto* line = qobject_cast<QLineEdit*>(focusWidget());
        const std::array<QWidget*, 4> of_the_finish = {dials_, &form(), rehearse_, sweep_};
        const auto holds_it = [&](const QWidget* view) { return view->isAncestorOf(line); };
        if (line != nullptr && std::any_of(of_the_finish.begin(), of_the_finish.end(), holds_it)) line->clearFocus();
    });
    // What is listed is of the finish as it was.
    connect(&document_, &Document::finish_changed, chooser_, &Chooser::leave);
    connect(&document_, &Document::selection_changed, this, &MainWindow::refresh_words);
    connect(&document_, &Document::finish_changed, this, &MainWindow::note_recent);
    connect(&document_, &Document::missing_changed, this, &MainWindow::refresh_words);
    connect(ladder_, &LadderView::kept_coats_changed, this, &MainWindow::refresh_words);
    connect(&playing_, &Playing::playing_changed, this, &MainWindow::refresh_words);
    connect(&drawing_, &Drawing::look_changed, this, &MainWindow::refresh_checks);
    connect(&link_, &GameLink::changed, this, &MainWindow::refresh_checks);
    connect(dials_, &DialsView::wants_form, this, [this](const QString& dial) {
        show_dial_form(form(), models_, dial.toStdString());
        show_form();
    });
    connect(cue_pads_, &CuePads::wants_cue, this, &MainWindow::add_cue);
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
    connect(shelf_, &GroundShelf::wants_page, this, &MainWindow::show_ground_page);
    connect(shelf_, &GroundShelf::sizes_changed, this, &MainWindow::refresh_shelf_words);
    connect(&drawing_, &Drawing::stage_changed, this, &MainWindow::refresh_shelf_words);
    connect(code_, &CodeSide::left, this, &MainWindow::hide_code);
    connect(notice_bar_, &NoticeBar::wants_list, this, &MainWindow::show_notices);
    connect(&drawing_, &Drawing::stage_came, this, [this] {
        if (std::exchange(paint_is_due_, false))
            QCoreApplication::postEvent(this, new QEvent(QEvent::UpdateRequest), Qt::LowEventPriority);
    });
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
    row->addWidget(panel_button(head, actions_["filter_steps"], tr("Filter")));
    row->addWidget(panel_button(head, actions_["try_on"], tr("Try on")));
    row->addWidget(panel_button(head, actions_["add_step"], tr("+ Step")));
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
    row->addWidget(panel_button(head, actions_["response_page"], tr("Responses")));
    row->addWidget(panel_button(head, actions_["add_dial"], tr("+ Dial")));
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

// What is being typed is taken while all that takes it is there.
MainWindow::~MainWindow() { hide(); }

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
    hide_code();
    if (!document_.may_leave()) return event->ignore();
    document_.drop_autosave();
    playing_.set_playing(false);
    keep_layout();
    event->accept();
}

void MainWindow::changeEvent(QEvent* event) {
    QWidget::changeEvent(event);
    if (event->type() == QEvent::WindowStateChange) drawing_.set_hidden(isMinimized() || !isVisible());
}

void MainWindow::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    drawing_.set_hidden(isMinimized());
}

void MainWindow::hideEvent(QHideEvent* event) {
    QWidget::hideEvent(event);
    drawing_.set_hidden(true);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) { take_dropped(*event->mimeData()); }

}  // namespace lacquer
