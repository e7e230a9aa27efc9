#include "desktop/rehearse/rehearse_screen.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/game_link.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rates_view.h"
#include "desktop/rehearse/signal_faders.h"

#include "desktop/drawing/models.h"

namespace lacquer {

namespace {

constexpr int side_width = 400;
constexpr int hands_page = 0;
constexpr int other_page = 1;

QLabel* title(QWidget* parent, const QString& words, const QString& beside) {
    QLabel* label = quiet_label(parent);
    label->setText(QStringLiteral("<b style='color:%1'>%2</b>&nbsp;&nbsp;%3").arg(theme::text.name(), words, beside));
    return label;
}

}  // namespace

RehearseScreen::RehearseScreen(Models& models, const QHash<QString, QAction*>& actions, QWidget* page, QWidget* parent)
    : QWidget(parent),
      document_(models.document),
      playing_(models.playing),
      link_(models.link),
      actions_(actions),
      pads_(new CuePads(models, CuePads::Shape::grid, this)),
      faders_(new SignalFaders(models, this)),
      lanes_(new LanesView(models, this)),
      rates_(new RatesView(models, this)),
      columns_(new QSplitter(Qt::Horizontal, this)),
      rows_(new QSplitter(Qt::Vertical, this)),
      side_(new QStackedWidget(this)) {
    setObjectName(QStringLiteral("rehearse"));
    rows_->setHandleWidth(1);
    rows_->setChildrenCollapsible(false);
    columns_->setHandleWidth(1);
    columns_->setChildrenCollapsible(false);
    side_->addWidget(hands());
    auto* scroll = new QScrollArea(side_);
    scroll->setWidget(page);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    side_->addWidget(scroll);
    side_->setMinimumWidth(300);
    columns_->addWidget(side_);
    rows_->addWidget(columns_);
    below_ = below();
    rows_->addWidget(below_);
    rows_->setStretchFactor(0, 1);
    rows_->setSizes({440, 320});
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(rows_);
    connect(&playing_, &Playing::playing_changed, this, &RehearseScreen::refresh_words);
    connect(&document_, &Document::finish_changed, this, &RehearseScreen::refresh_words);
    connect(&playing_, &Playing::played_changed, this, &RehearseScreen::refresh_words);
    connect(&link_, &GameLink::changed, this, &RehearseScreen::refresh_link);
    refresh_link();
    refresh_words();
}

void RehearseScreen::take_stage(QWidget* stage) {
    columns_->insertWidget(0, stage);
    columns_->setStretchFactor(0, 1);
    columns_->setSizes(wanted_columns_.size() == 2 ? wanted_columns_
                                                   : QList<int>{std::max(320, width() - side_width), side_width});
    wanted_columns_.clear();
}

QList<int> RehearseScreen::column_sizes() const { return columns_->count() == 2 ? columns_->sizes() : wanted_columns_; }

QList<int> RehearseScreen::row_sizes() const { return rows_->sizes(); }

void RehearseScreen::set_sizes(const QList<int>& columns, const QList<int>& rows) {
    wanted_columns_ = columns;
    if (rows.size() == 2) rows_->setSizes(rows);
}

void RehearseScreen::set_stage_alone(bool alone) {
    side_->setVisible(!alone);
    below_->setVisible(!alone);
}

QWidget* RehearseScreen::hands() {
    auto* page = new QWidget(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(8);
    column->addWidget(title(page, tr("Cues"), tr("press, or click in the picture")));
    column->addWidget(pads_);
    column->addSpacing(4);
    auto* signals_row = new QHBoxLayout;
    signals_row->addWidget(title(page, tr("Signals"), {}), 1);
    signals_row->addWidget(panel_button(page, actions_["add_signal"], tr("+ Signal")));
    column->addLayout(signals_row);
    column->addWidget(faders_);
    column->addSpacing(4);
    auto* rates_row = new QHBoxLayout;
    rates_row->addWidget(title(page, tr("Frame-rate check"), {}), 1);
    rates_row->addWidget(panel_button(page, actions_["check_rates"], tr("Check")));
    column->addLayout(rates_row);
    column->addWidget(rates_);
    column->addSpacing(4);
    auto* link_row = new QHBoxLayout;
    link_row->addWidget(title(page, tr("Play link"), {}), 1);
    listen_ = panel_button(page, actions_["listen"], {});
    link_row->addWidget(listen_);
    column->addLayout(link_row);
    link_words_ = quiet_label(page);
    link_words_->setObjectName(QStringLiteral("link_words"));
    link_words_->setWordWrap(true);
    column->addWidget(link_words_);
    column->addStretch(1);
    auto* scroll = new QScrollArea(side_);
    scroll->setWidget(page);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    return scroll;
}

QWidget* RehearseScreen::below() {
    auto* below = new QWidget(this);
    auto* column = new QVBoxLayout(below);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(below, row);
    play_ = panel_button(head, actions_["play"], {});
    play_->setObjectName(QStringLiteral("rehearse_play"));
    play_->setFixedWidth(116);
    row->addWidget(play_);
    record_ = panel_button(head, actions_["record"], {});
    row->addWidget(record_);
    keep_ = panel_button(head, actions_["keep_live"], tr("Keep what was live"));
    row->addWidget(keep_);
    loop_ = panel_button(head, actions_["loop"], {});
    row->addWidget(loop_);
    slow_ = panel_button(head, actions_["slow_motion"], {});
    row->addWidget(slow_);
    time_words_ = quiet_label(head);
    row->addWidget(time_words_, 1);
    row->addWidget(panel_button(head, actions_["response_page"], tr("Responses")));
    row->addWidget(panel_button(head, actions_["open_tape"], tr("Open a tape…")));
    row->addWidget(panel_button(head, actions_["save_tape"], tr("Save the tape…")));
    column->addWidget(head);
    column->addWidget(lanes_, 1);
    below->setMinimumHeight(140);
    return below;
}

void RehearseScreen::refresh_words() {
    set_button_words(play_, playing_.playing() ? tr("Pause") : tr("Play"));
    set_button_words(record_, playing_.recording() ? tr("● Recording") : tr("Record"));
    set_button_words(loop_, playing_.looping() ? tr("Loop on") : tr("Loop off"));
    set_button_words(
        slow_, playing_.speed() == 1 ? tr("Full speed") : tr("1/%1 speed").arg(std::lround(1 / playing_.speed())));
    keep_->setVisible(playing_.has_live() && !playing_.recording());
    const Tape& tape = document_.finish().tape;
    const QString cues = tr("%n cue(s)", nullptr, static_cast<int>(tape.cues.size()));
    const QString changes = tr("%n change(s)", nullptr, static_cast<int>(tape.changes.size()));
    QString words = tape.changes.empty() ? cues : tape.cues.empty() ? changes : tr("%1 and %2").arg(cues, changes);
    words += tr(" on the tape");
    if (playing_.playing() && !playing_.recording()) words += tr(" · pads play live");
    time_words_->setText(words);
}

void RehearseScreen::refresh_link() {
    const LinkReceiver* link = link_.receiver();
    set_button_words(listen_, link != nullptr ? tr("Stop listening") : tr("Listen to a game"));
    if (link == nullptr) {
        link_words_->setText(tr("a game can send cues, signals and dials as Open Sound Control"));
        return;
    }
    const LinkCounts counts = link->counts();
    QString words =
        tr("port %1 · %2").arg(link->port()).arg(tr("%n message(s)", nullptr, static_cast<int>(counts.messages)));
    const auto add = [&](std::uint64_t count, const QString& what) {
        if (count > 0) words += tr(" · %1 %2").arg(count).arg(what);
    };
    add(counts.lost, tr("packets lost"));
    add(counts.unknown, tr("unknown"));
    add(counts.junk, tr("unreadable"));
    add(counts.dropped, tr("too many"));
    link_words_->setText(words);
}

void RehearseScreen::show_page(bool shown) { side_->setCurrentIndex(shown ? other_page : hands_page); }

bool RehearseScreen::shows_page() const { return side_->currentIndex() == other_page; }

}  // namespace lacquer
