// When an action can be used, and when its mark is set.
#include <QAction>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>

#include "core/base/text.h"
#include "desktop/code/code_side.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/playing/game_link.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/main_window.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"

namespace lacquer {

QString MainWindow::why_not(const ActionRow& row) const {
    // What is done to what is not in sight would only puzzle.
    if (row.where == Where::bench && screen_shown() != Where::bench)
        return tr("%1 is done on the bench (%2)").arg(tr(row.words), key_of("bench"));
    if (row.where == Where::rehearse && !rehearses())
        return tr("%1 is done in rehearsal (%2)").arg(tr(row.words), key_of("rehearse"));
    if (row.where == Where::sweep && screen_shown() != Where::sweep)
        return tr("%1 is done on the sweep screen (%2)").arg(tr(row.words), key_of("sweep"));
    if (row.where == Where::ship && screen_shown() != Where::ship)
        return tr("%1 is done on the ship screen (%2)").arg(tr(row.words), key_of("ship"));
    return what_is_missing(row.when);
}

QString MainWindow::what_is_missing(When when) const {
    const Finish& finish = document_.finish();
    const auto unless = [](bool there, const QString& words) { return there ? QString() : words; };
    switch (when) {
        case When::always:
            return {};
        case When::can_undo:
            return unless(document_.history().can_undo(), tr("Nothing to undo"));
        case When::can_redo:
            return unless(document_.history().can_redo(), tr("Nothing to redo"));
        case When::step:
            return unless(find_step(finish, document_.selected()) != nullptr,
                          tr("There is no step yet: add one (%1)").arg(key_of("add_step")));
        case When::coat:
            return unless(!finish.coats.empty(), tr("There is no coat yet: add one (%1)").arg(key_of("add_coat")));
        case When::dial:
            return unless(find_dial(finish, dials_->chosen()) != nullptr,
                          tr("There is no dial yet: add one (%1)").arg(key_of("add_dial")));
        case When::colour_dial: {
            const Dial* dial = find_dial(finish, dials_->chosen());
            return unless(dial != nullptr && dial->kind == DialKind::colour, tr("Choose a colour dial first"));
        }
        case When::ground:
            return unless(find_ground(finish, shelf_->chosen()) != nullptr,
                          tr("Choose a ground on the shelf first (%1)").arg(key_of("ground_shelf")));
        case When::picture:
            return unless(!drawing_.stage().image.isNull(), tr("There is no picture on the stage"));
        case When::scene:
            return unless(
                stage_->stand_in_scene() != nullptr,
                tr("There is no stand-in scene whose camera could move: add one (%1)").arg(key_of("add_scene")));
        case When::layers:
            return unless(first_scene(finish) != nullptr,
                          tr("Marks choose objects of a scene: add one first (%1)").arg(key_of("add_scene")));
        case When::cue:
        case When::cues:
            return unless(!finish.cues.empty(), tr("No cues yet: add one (%1)").arg(key_of("add_cue")));
        case When::signal:
            return unless(!finish.signals.empty(), tr("No signals yet: add one (%1)").arg(key_of("add_signal")));
        case When::response:
            return unless(!finish.responses.empty(), tr("No responses yet: add one (%1)").arg(key_of("add_response")));
        case When::events:
            return unless(!finish.tape.empty(), tr("There is nothing on the tape"));
        case When::chosen_events:
            return unless(rehearse_->lanes().has_choice(), tr("Choose a cue or a change first"));
        case When::live:
            return unless(playing_.has_live(), tr("Nothing was played live in this round"));
        case When::missing:
            return unless(!document_.missing().empty(), tr("Nothing is missing"));
        case When::cells:
            return unless(sweep_->sheet().cell_count() > 0, tr("There is no cell on the sheet"));
        case When::variant:
            return unless(!finish.variant.empty(), tr("No variant is on: make one (%1)").arg(key_of("add_variant")));
        case When::look:
            return unless(look_at_hand() >= 0,
                          tr("No look is at hand: show those that were set aside (%1)").arg(key_of("sheet_looks")));
        case When::code:
            return unless(shows_code(), tr("No code is open: open a step's (%1)").arg(key_of("code_editor")));
        case When::kept_coat:
            return unless(ladder_->any_kept_coats(),
                          tr("No coats are kept yet: keep one (%1)").arg(key_of("keep_coat")));
    }
    return {};
}

bool MainWindow::holds(Checked what) const {
    const Look& look = drawing_.look();
    switch (what) {
        case Checked::never:
            return false;
        case Checked::bench:
            return screen_shown() == Where::bench;
        case Checked::rehearse:
            return rehearses();
        case Checked::sweep:
            return screen_shown() == Where::sweep;
        case Checked::ship:
            return screen_shown() == Where::ship;
        case Checked::keep_shipped:
            return ship_->shipping().choices().keeps;
        case Checked::native_reading:
            return ship_->shipping().choices().native;
        case Checked::sheet_sweep:
            return sweep_->sweeping().mode() == SheetMode::sweep;
        case Checked::sheet_looks:
            return sweep_->sweeping().mode() == SheetMode::set_aside;
        case Checked::sheet_lots:
            return sweep_->sweeping().mode() == SheetMode::lots;
        case Checked::comparing:
            return sweep_->sweeping().comparing();
        case Checked::playing:
            return playing_.playing();
        case Checked::recording:
            return playing_.recording();
        case Checked::looping:
            return playing_.looping();
        case Checked::slow:
            return playing_.speed() != 1;
        case Checked::listening:
            return link_.receiver() != nullptr;
        case Checked::curtain:
            return look.curtain;
        case Checked::pinned:
            return !look.pinned.empty();
        case Checked::core_sample:
            return stage_->samples();
        case Checked::transect:
            return stage_->transect().isVisibleTo(stage_);
        case Checked::detail:
            return stage_->shows_detail();
        case Checked::camera:
            return stage_->moves_camera();
        case Checked::pointing:
            return !stage_->pointing_marks().empty();
        case Checked::safe_area:
            return look.safe_area;
        case Checked::line_grid:
            return look.line_grid;
        case Checked::false_colours:
            return look.style.false_colour;
        case Checked::mark_range:
            return look.style.mark_range;
        case Checked::shelf:
            return dial_pages_->currentIndex() == shelf_page;
        case Checked::large_ladder:
            return !columns_before_.isEmpty();
        case Checked::large_dials:
            return !rows_before_.isEmpty();
        case Checked::stage_alone:
            return stage_alone_;
        case Checked::code:
            return shows_code();
        case Checked::variable:
            return code_->sees();
    }
    return false;
}

void MainWindow::refresh_checks() {
    for (const ActionRow& row : action_rows()) {
        if (row.checked != Checked::never) actions_[QString::fromLatin1(row.id)]->setChecked(holds(row.checked));
    }
}

void MainWindow::refresh_words() {
    const Finish& finish = document_.finish();
    const QString bold = QStringLiteral("<b style='color:%1'>%2</b>&nbsp;&nbsp;");
    const std::size_t several = document_.selection().size();
    step_words_->setText(bold.arg(theme::text.name(), tr("Steps")) +
                         (several > 1 ? tr("%1 selected").arg(several)
                                      : tr("%1 in %2")
                                            .arg(step_count(finish))
                                            .arg(tr("%n coat(s)", nullptr, static_cast<int>(finish.coats.size())))));
    QString dials = bold.arg(theme::text.name(), tr("Dials")) + QString::number(finish.dials.size());
    if (!document_.selected().empty() && !finish.dials.empty()) {
        dials += tr(" · those that reach <b style='color:%1'>%2</b> first")
                     .arg(theme::gold.name(), qs(shown_name(document_.selected())));
    }
    if (!document_.checked().faults.empty()) {
        dials += tr(" · <span style='color:%1'>%2</span>")
                     .arg(theme::vermilion_text.name(),
                          core_words(document_.checked().faults.front().message).toHtmlEscaped());
    }
    dial_words_->setText(dials);
    refresh_shelf_words();
    refresh_checks();
    set_button_words(play_button_, playing_.playing() ? tr("Pause") : tr("Play"));
    // What was done may have an & in its name.
    const auto plain = [](const std::string& words) {
        return qs(words).replace(QLatin1Char('&'), QStringLiteral("&&"));
    };
    const History& history = document_.history();
    actions_["undo"]->setText(history.can_undo() ? tr("&Undo: %1").arg(plain(history.undo_words())) : tr("&Undo"));
    actions_["redo"]->setText(history.can_redo() ? tr("&Redo: %1").arg(plain(history.redo_words())) : tr("&Redo"));
    setWindowTitle(tr("%1%2 - Lacquer").arg(qs(finish.name), document_.edited() ? tr(" (edited)") : QString()));
}

}  // namespace lacquer
