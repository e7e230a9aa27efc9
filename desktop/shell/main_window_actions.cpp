// What each action of the table does.
#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QCursor>
#include <QImage>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QSplitter>
#include <QStackedWidget>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/line_editor.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/pages/forms.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/help_card.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/tryon/try_on_sheet.h"

namespace lacquer {

MainWindow::Handlers MainWindow::handlers() {
    Handlers all = file_handlers();
    for (const Handlers& some : {step_handlers(), look_handlers(), dial_handlers(), play_handlers(), sweep_handlers(),
                                 ship_handlers(), code_handlers()})
        all.insert(some);
    return all;
}

MainWindow::Handlers MainWindow::file_handlers() {
    return {
        {"new_finish", [this] { document_.start_new(); }},
        {"new_from_picture", [this] { new_from_picture(); }},
        {"bring_shader", [this] { bring_shader(); }},
        {"bring_copied_shader", [this] { bring_copied_shader(); }},
        {"open_finish", [this] { document_.open_asking(); }},
        {"open_recent", [this] { open_recent(); }},
        {"open_demo", [this] { open_demo(); }},
        {"save_finish", [this] { document_.save(); }},
        {"save_finish_as", [this] { document_.save_as(); }},
        {"save_copy", [this] { document_.save_copy(); }},
        {"collect", [this] { collect(); }},
        {"finish_page",
         [this] {
             show_finish_form(form(), models_);
             show_form();
         }},
        {"tick_page",
         [this] {
             show_tick_form(form(), models_, document_.selected());
             show_form();
         }},
        {"preferences", [this] { show_preferences(); }},
        {"change_key", [this] { change_key(); }},
        {"quit", [this] { close(); }},
        {"undo", [this] { document_.undo(); }},
        {"redo", [this] { document_.redo(); }},
        {"history", [this] { show_history(); }},
        {"copy", [this] { copy(); }},
        {"cut", [this] { cut(); }},
        {"paste", [this] { paste(); }},
        {"select_all", [this] { select_all(); }},
        {"mend", [this] { mend(); }},
        {"add_picture", [this] { add_picture_asking(document_); }},
        {"add_gradient", [this] { add_stops(StopValues::colours); }},
        {"add_droplets",
         [this] {
             lacquer::add_droplets(document_);
             show_ground_page(qs(document_.finish().grounds.back().name));
         }},
        {"add_curve", [this] { add_stops(StopValues::heights); }},
        {"add_scene", [this] { choose_scene(); }},
        {"add_marks", [this] { mark_objects(); }},
        {"add_sprite_part", [this] { add_sprite_part(); }},
        {"ground_shelf", [this] { toggle_shelf(); }},
        {"ground_page", [this] { show_ground_page({}); }},
        {"find_missing", [this] { find_missing(document_); }},
        {"replace_ground", [this] { replace_chosen_ground(); }},
        {"delete_ground", [this] { shelf_->delete_chosen(); }},
        {"camera", [this] { stage_->toggle_camera(); }},
        {"camera_key", [this] { put_camera_key(); }},
        {"camera_home", [this] { put_camera_home(); }},
        {"commands", [this] { show_commands(); }},
        {"notices", [this] { show_notices(); }},
        {"last_end", [this] { show_last_end(); }},
        {"help", [this] { show_help(); }},
        {"shortcuts", [this] { show_shortcuts(); }},
    };
}

MainWindow::Handlers MainWindow::step_handlers() {
    LadderView* l = ladder_;
    return {
        {"add_step", [l] { l->add_step(); }},
        {"add_step_above", [l] { l->add_step_above(); }},
        {"try_on", [this] { open_try_on(false); }},
        {"try_instead", [this] { open_try_on(true); }},
        {"edit_formula", [l] { l->edit_formula(); }},
        {"rename_step", [l] { l->edit_name(); }},
        {"note_step", [l] { l->edit_note(); }},
        {"toggle_step", [l] { l->toggle_step(); }},
        {"invert_step", [l] { l->invert_selected(); }},
        {"swap_parts", [l] { l->swap_selected(); }},
        {"extract_part", [this] { shows_code() ? code_->extract() : ladder_->extract_part(); }},
        {"inline_step", [l] { l->inline_selected(); }},
        {"duplicate_step", [l] { l->duplicate_selected(); }},
        {"stand_in", [l] { l->toggle_stand_in(); }},
        {"use_instead", [l] { l->replace_everywhere(); }},
        {"step_up", [l] { l->move_selected(-1); }},
        {"step_down", [l] { l->move_selected(1); }},
        {"group_steps", [l] { l->group_selected(); }},
        {"delete_step", [l] { l->delete_selected(); }},
        {"select_above", [l] { l->select_next(-1); }},
        {"select_below", [l] { l->select_next(1); }},
        {"to_source", [l] { l->walk_thread(-1); }},
        {"to_user", [l] { l->walk_thread(1); }},
        {"filter_steps", [this] { begin_filter(); }},
        {"add_coat", [l] { l->add_coat(); }},
        {"rename_coat", [l] { l->rename_coat(); }},
        {"fold_coat", [l] { l->fold_coat(); }},
        {"toggle_coat", [l] { l->toggle_coat(); }},
        {"note_coat", [l] { l->note_coat(); }},
        {"coat_up", [l] { l->move_coat(-1); }},
        {"coat_down", [l] { l->move_coat(1); }},
        {"copy_coat", [l] { l->copy_coat(); }},
        {"keep_coat", [l] { l->keep_coat(); }},
        {"insert_coat", [l] { l->insert_kept_coat(); }},
        {"delete_coat", [l] { l->delete_coat(); }},
    };
}

MainWindow::Handlers MainWindow::look_handlers() {
    StageView* t = stage_;
    return {
        {"show_selected", [this] { ladder_->show_selected(); }},
        {"show_finished", [t] { t->show_finished(); }},
        {"actual_size", [t] { t->toggle_actual_size(); }},
        {"zoom_in", [t] { t->zoom(1); }},
        {"zoom_out", [t] { t->zoom(-1); }},
        {"detail", [t] { t->toggle_detail(); }},
        {"curtain", [t] { t->toggle_curtain(); }},
        {"curtain_other", [this] { choose_curtain_other(); }},
        {"pin", [t] { t->toggle_pin(); }},
        {"core_sample", [t] { t->toggle_core_sample(); }},
        {"transect", [t] { t->toggle_transect(); }},
        {"pick_colour", [t] { t->pick_colour(); }},
        {"frame_shape", [this] { choose_frame_shape(); }},
        {"safe_area", [this] { flip_look(&Look::safe_area, tr("Safe area")); }},
        {"line_grid", [this] { flip_look(&Look::line_grid, tr("Line grid")); }},
        {"backdrop", [this] { next_backdrop(); }},
        {"backdrop_colour", [this] { choose_backdrop_colour(); }},
        {"false_colours", [this] { flip_style(&ViewStyle::false_colour, tr("False colours")); }},
        {"mark_range", [this] { flip_style(&ViewStyle::mark_range, tr("Marks outside 0..1")); }},
        {"brighter", [this] { change_look([](Look& look) { look.style.exposure += 0.5; }, tr("Looks brighter")); }},
        {"darker", [this] { change_look([](Look& look) { look.style.exposure -= 0.5; }, tr("Looks darker")); }},
        {"plain_look",
         [this] {
             change_look(
                 [](Look& look) {
                     const Look old = look;
                     look = Look();
                     look.curtain_at = old.curtain_at;
                     look.own_backdrop = old.own_backdrop;
                     look.decimals = old.decimals;
                 },
                 tr("Reset the view"));
         }},
        {"copy_picture", [t] { t->copy_picture(); }},
        {"save_picture",
         [this] {
             const QString proposed = qs(document_.finish().name) + QStringLiteral(".png");
             stage_->save_picture(document_.prompts().picture_to_save(proposed));
         }},
        {"focus_ladder", [this] { shows_code() ? code_->text().setFocus() : ladder_->setFocus(); }},
        {"focus_dials", [this] { dials_->setFocus(); }},
        {"focus_stage", [t] { t->setFocus(); }},
        {"large_ladder", [this] { toggle_large_ladder(); }},
        {"large_dials", [this] { toggle_large_dials(); }},
        {"stage_alone", [this] { set_stage_alone(!stage_alone_); }},
        {"bench", [this] { show_screen(Where::bench); }},
        {"rehearse", [this] { show_screen(Where::rehearse); }},
        {"sweep", [this] { show_screen(Where::sweep); }},
    };
}

MainWindow::Handlers MainWindow::dial_handlers() {
    DialsView* d = dials_;
    return {
        {"add_dial", [this] { make_dial(); }},
        {"dial_everywhere", [this] { ladder_->make_dial(true); }},
        {"dial_page",
         [this] {
             show_dial_form(form(), models_, dials_->chosen());
             show_form();
         }},
        {"type_value", [d] { d->edit_value(); }},
        {"reset_dial", [d] { d->reset_chosen(); }},
        {"dial_colour",
         [this] { edit_dial_colour(qs(dials_->chosen()), QRect(dials_->mapTo(this, QPoint(12, 0)), QSize(1, 1))); }},
        {"dial_use", [d] { d->go_to_use(); }},
        {"dial_up", [d] { d->move_chosen(-1); }},
        {"dial_down", [d] { d->move_chosen(1); }},
        {"take_shared", [this] { take_shared_dial(); }},
        {"value_as_default", [d] { d->value_as_default(); }},
        {"delete_dial", [d] { d->delete_chosen(); }},
        {"add_response", [this] { add_response(); }},
        {"response_page", [this] { choose_response_page(); }},
        {"delete_response", [this] { delete_response(); }},
        {"let_go", [this] { step_back(); }},
    };
}

void MainWindow::choose_page(const QStringList& names, const std::function<void(int)>& open, const QString& none) {
    if (names.isEmpty()) return document_.say(none);
    choose(names, [this, open](int i) {
        open(i);
        show_form();
    });
}

void MainWindow::choose(const QStringList& names, const std::function<void(int)>& take) {
    if (names.size() == 1) return take(0);
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("page_menu"));
    // What it lists is there no longer, or stands elsewhere.
    connect(&document_, &Document::finish_changed, menu, &QMenu::close);
    for (int i = 0; i < static_cast<int>(names.size()); ++i) menu->addAction(names[i], this, [take, i] { take(i); });
    menu->popup(QCursor::pos());
}

void MainWindow::add_dial() {
    Dial dial;
    dial.name = free_name(document_.finish(), "dial");
    dial.value = dial.default_value = {0.5, 0, 0};
    const std::string name = dial.name;
    if (!document_.edit(lacquer::add_dial(document_.finish(), std::move(dial)), tr("Added a dial"))) return;
    dials_->choose(name);
    show_dial_form(form(), models_, name);
    show_form();
}

void MainWindow::add_stops(StopValues values) {
    lacquer::add_stops(document_, values);
    show_ground_page(qs(document_.finish().grounds.back().name));
}

void MainWindow::open_try_on(bool replace) {
    const QRect ladder(ladder_->mapTo(this, QPoint(0, 0)), ladder_->size());
    // With the ladder's head: the sheet has its own.
    const QRect area = ladder.adjusted(0, -34, 0, 0);
    try_on_->open(area, replace ? TryOnUse::replace : TryOnUse::add_below);
}

void MainWindow::step_back() {
    if (document_.call_off()) return;
    if (help_card_->isVisible()) return help_card_->hide();
    if (document_.background().stop() || drawing_.stop_reading()) return;
    if (stage_->step_back()) return;
    if (stage_alone_) return set_stage_alone(false);
    if (filter_->isVisible()) return end_filter();
    if (screen_shown() == Where::bench && shows_code() && code_->step_back()) return;
    if (screen_shown() == Where::sweep) {
        if (sweep_->sweeping().comparing()) return sweep_->sweeping().end_comparing();
        return playing_.let_go_all();
    }
    if (screen_shown() == Where::ship) return playing_.let_go_all();
    if (rehearses() && rehearse_->shows_page()) return close_form();
    if (rehearses()) return playing_.let_go_all();
    if (dial_pages_->currentIndex() == form_page) return close_form();
    if (dial_pages_->currentIndex() == shelf_page) return toggle_shelf();
    playing_.let_go_all();
}

// The pads that have the focus, on either screen; null if none have.
CuePads* MainWindow::pads_in_use() const {
    for (CuePads* pads : {cue_pads_, &rehearse_->pads()}) {
        if (pads->hasFocus()) return pads;
    }
    return nullptr;
}

void MainWindow::copy() {
    if (types_code()) return code_->text().copy();
    if (CuePads* pads = pads_in_use()) return pads->copy_chosen();
    if (rehearses()) return rehearse_->lanes().copy_chosen();
    if (dials_->hasFocus()) return dials_->copy_chosen();
    if (shelf_->hasFocus()) return shelf_->copy_chosen();
    if (!stage_->samples()) return ladder_->copy_steps();
    QApplication::clipboard()->setText(stage_->values_text());
    document_.say(tr("Copied the core sample's numbers"));
}

void MainWindow::cut() {
    if (types_code()) return code_->text().cut();
    if (CuePads* pads = pads_in_use()) {
        pads->copy_chosen();
        return delete_cue();
    }
    if (dials_->hasFocus()) {
        dials_->copy_chosen();
        return dials_->delete_chosen();
    }
    if (shelf_->hasFocus()) {
        shelf_->copy_chosen();
        return shelf_->delete_chosen();
    }
    ladder_->cut_steps();
}

// A picture becomes a ground; all else is text: a value for a dial, or steps, dials and grounds.
void MainWindow::paste() {
    if (types_code()) return code_->text().paste();
    const QMimeData* pasted = QApplication::clipboard()->mimeData();
    if (pasted->hasImage() && !pasted->hasText()) {
        add_pasted_picture(document_, qvariant_cast<QImage>(pasted->imageData()));
        return;
    }
    if (dials_->hasFocus() && dials_->paste_value()) return;
    ladder_->paste_steps();
}

void MainWindow::select_all() {
    if (types_code()) return code_->text().selectAll();
    if (CuePads* pads = pads_in_use()) return pads->choose_all();
    if (rehearses()) return rehearse_->lanes().choose_all();
    if (dials_->hasFocus()) return dials_->choose_all();
    if (shelf_->hasFocus()) return shelf_->choose_all();
    ladder_->select_all();
}

void MainWindow::mend() {
    if (shelf_->hasFocus()) return shelf_->take_mend();
    dials_->hasFocus() ? dials_->take_mend() : ladder_->take_mend();
}

void MainWindow::make_dial() {
    const bool choosing = ladder_->choosing_value();
    if (!choosing && ladder_->hasFocus() && ladder_->has_value_at_hand()) return ladder_->make_dial(false);
    // First the numbers that could be one are shown; only who asks again wants one that nothing uses.
    if (!choosing && ladder_->choose_value()) return;
    ladder_->end_choosing_value();
    add_dial();
}

void MainWindow::show_help() {
    const QWidget* focus = QApplication::focusWidget();
    const bool dials = focus != nullptr && (focus == dials_ || dials_->isAncestorOf(focus));
    const bool stage = focus == stage_;
    const bool code = types_code();
    const QString explained = code ? code_->help() : QString();
    const std::string dial = dials ? dials_->chosen() : code ? std::string() : ladder_->dial_at_hand();
    const QString html = !explained.isEmpty()     ? explained
                         : dials || !dial.empty() ? dial_help(document_, dial)
                         : stage                  ? stage_help(document_)
                                                  : ladder_->help();
    const QWidget* beside = dials   ? static_cast<QWidget*>(dials_)
                            : stage ? static_cast<QWidget*>(stage_)
                                    : static_cast<QWidget*>(side_pages_);
    help_card_->show_beside(document_.keyed(html), QRect(beside->mapTo(this, QPoint(0, 0)), beside->size()));
}

void MainWindow::show_shortcuts() { help_card_->show_sheet(shortcut_sheet(actions_)); }

void MainWindow::flip_look(bool Look::*part, const QString& words) {
    const bool on = !(drawing_.look().*part);
    change_look([&](Look& look) { look.*part = on; }, on ? tr("%1 on").arg(words) : tr("%1 off").arg(words));
}

void MainWindow::flip_style(bool ViewStyle::*part, const QString& words) {
    const bool on = !(drawing_.look().style.*part);
    change_look([&](Look& look) { look.style.*part = on; }, on ? tr("%1 on").arg(words) : tr("%1 off").arg(words));
}

void MainWindow::change_look(const std::function<void(Look&)>& change, const QString& words) {
    Look look = drawing_.look();
    change(look);
    drawing_.set_look(std::move(look));
    document_.say(words);
}

void MainWindow::begin_filter() {
    filter_->show();
    step_words_->hide();
    filter_->setFocus();
    filter_->selectAll();
}

void MainWindow::end_filter() {
    filter_->clear();
    filter_->hide();
    step_words_->show();
    ladder_->setFocus();
}

}  // namespace lacquer
