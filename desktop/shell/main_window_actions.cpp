// What each action of the table does.
#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QCursor>
#include <QLabel>
#include <QMenu>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/demos.h"
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
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/help_card.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"
#include "desktop/tryon/try_on_sheet.h"

namespace lacquer {

QHash<QString, std::function<void()>> MainWindow::handlers() {
    LadderView* l = ladder_;
    DialsView* d = dials_;
    StageView* t = stage_;
    QHash<QString, std::function<void()>> all = {
        {"new_from_picture", [this] { new_from_picture(); }},
        {"history", [this] { show_history(); }},
        {"copy", [this] { copy(); }},
        {"cut", [l] { l->cut_steps(); }},
        {"paste", [this] { paste(); }},
        {"mend", [this] { mend(); }},
        {"add_step_above", [l] { l->add_step_above(); }},
        {"try_on", [this] { open_try_on(false); }},
        {"try_instead", [this] { open_try_on(true); }},
        {"invert_step", [l] { l->invert_selected(); }},
        {"swap_parts", [l] { l->swap_selected(); }},
        {"extract_part", [l] { l->extract_part(); }},
        {"inline_step", [l] { l->inline_selected(); }},
        {"duplicate_step", [l] { l->duplicate_selected(); }},
        {"stand_in", [l] { l->toggle_stand_in(); }},
        {"use_instead", [l] { l->replace_everywhere(); }},
        {"to_source", [l] { l->walk_thread(-1); }},
        {"to_user", [l] { l->walk_thread(1); }},
        {"filter_steps", [this] { begin_filter(); }},
        {"note_coat", [l] { l->note_coat(); }},
        {"coat_up", [l] { l->move_coat(-1); }},
        {"coat_down", [l] { l->move_coat(1); }},
        {"copy_coat", [l] { l->copy_coat(); }},
        {"keep_coat", [l] { l->keep_coat(); }},
        {"insert_coat", [l] { l->insert_kept_coat(); }},
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
        {"safe_area",
         [this] { change_look([](Look& look) { look.safe_area = !look.safe_area; }, tr("Safe area on or off")); }},
        {"line_grid",
         [this] { change_look([](Look& look) { look.line_grid = !look.line_grid; }, tr("Line grid on or off")); }},
        {"backdrop", [this] { next_backdrop(); }},
        {"backdrop_colour", [this] { choose_backdrop_colour(); }},
        {"false_colours",
         [this] {
             change_look([](Look& look) { look.style.false_colour = !look.style.false_colour; },
                         tr("False colours on or off"));
         }},
        {"mark_range",
         [this] {
             change_look([](Look& look) { look.style.mark_range = !look.style.mark_range; },
                         tr("Marks outside 0..1 on or off"));
         }},
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
                 },
                 tr("Looked at plainly"));
         }},
        {"copy_picture", [t] { t->copy_picture(); }},
        {"save_picture",
         [this] {
             stage_->save_picture(
                 document_.prompts().picture_to_save(qs(document_.finish().name) + QStringLiteral(".png")));
         }},
        {"dial_everywhere", [l] { l->make_dial(true); }},
        {"dial_colour",
         [this] { edit_dial_colour(qs(dials_->chosen()), QRect(dials_->mapTo(this, QPoint(12, 0)), QSize(1, 1))); }},
        {"dial_use", [d] { d->go_to_use(); }},
        {"dial_up", [d] { d->move_chosen(-1); }},
        {"dial_down", [d] { d->move_chosen(1); }},
        {"commands", [this] { show_commands(); }},
        {"help", [this] { show_help(); }},
        {"shortcuts", [this] { show_shortcuts(); }},
        {"new_finish", [this] { document_.start_new(); }},
        {"open_finish", [this] { document_.open_asking(); }},
        {"open_demo", [this] { open_demo(); }},
        {"save_finish", [this] { document_.save(); }},
        {"save_finish_as", [this] { document_.save_as(); }},
        {"finish_page",
         [this] {
             show_finish_form(form(), models_);
             show_form();
         }},
        {"add_picture", [this] { add_picture_asking(document_); }},
        {"add_gradient", [this] { add_stops(StopValues::colours); }},
        {"add_curve", [this] { add_stops(StopValues::heights); }},
        {"add_scene", [this] { choose_scene(); }},
        {"add_marks", [this] { mark_objects(); }},
        {"add_sprite_part", [this] { add_sprite_part(); }},
        {"ground_shelf", [this] { toggle_shelf(); }},
        {"ground_page", [this] { show_ground_page({}); }},
        {"find_missing", [this] { lacquer::find_missing(document_); }},
        {"replace_ground", [this] { replace_chosen_ground(); }},
        {"camera", [t] { t->toggle_camera(); }},
        {"camera_key", [this] { put_camera_key(); }},
        {"camera_home", [this] { put_camera_home(); }},
        {"quit", [this] { close(); }},
        {"undo", [this] { document_.undo(); }},
        {"redo", [this] { document_.redo(); }},
        {"add_step", [l] { l->add_step(); }},
        {"edit_formula", [l] { l->edit_formula(); }},
        {"rename_step", [l] { l->edit_name(); }},
        {"note_step", [l] { l->edit_note(); }},
        {"toggle_step", [l] { l->toggle_step(); }},
        {"step_up", [l] { l->move_selected(-1); }},
        {"step_down", [l] { l->move_selected(1); }},
        {"delete_step", [l] { l->delete_selected(); }},
        {"select_above", [l] { l->select_next(-1); }},
        {"select_below", [l] { l->select_next(1); }},
        {"add_coat", [l] { l->add_coat(); }},
        {"rename_coat", [l] { l->rename_coat(); }},
        {"fold_coat", [l] { l->fold_coat(); }},
        {"toggle_coat", [l] { l->toggle_coat(); }},
        {"delete_coat", [l] { l->delete_coat(); }},
        {"show_selected", [l] { l->show_selected(); }},
        {"show_finished", [this] { stage_->show_finished(); }},
        {"actual_size", [this] { stage_->toggle_actual_size(); }},
        {"focus_ladder", [l] { l->setFocus(); }},
        {"focus_dials", [d] { d->setFocus(); }},
        {"add_dial", [this] { make_dial(); }},
        {"dial_page",
         [this] {
             show_dial_form(form(), models_, dials_->chosen());
             show_form();
         }},
        {"type_value", [d] { d->edit_value(); }},
        {"reset_dial", [d] { d->reset_chosen(); }},
        {"value_as_default", [d] { d->value_as_default(); }},
        {"delete_ground", [this] { shelf_->delete_chosen(); }},
        {"delete_dial", [d] { d->delete_chosen(); }},
        {"add_response", [this] { add_response(); }},
        {"response_page",
         [this] {
             QStringList names;
             for (const Response& response : document_.finish().responses) {
                 names.append(tr("%1 · %2").arg(qs(shown_name(response.name)), qs(response.kind)));
             }
             choose_page(
                 names,
                 [this](int i) {
                     show_response_form(form(), models_,
                                        document_.finish().responses[static_cast<std::size_t>(i)].name);
                 },
                 tr("No responses yet: add one (R)"));
         }},
        {"let_go", [this] { step_back(); }},
        {"play", [this] { playing_.set_playing(!playing_.playing()); }},
        {"frame_back", [this] { playing_.step_frames(-1); }},
        {"frame_on", [this] { playing_.step_frames(1); }},
        {"to_start", [this] { playing_.set_time(0); }},
        {"add_cue", [this] { add_cue(); }},
        {"cue_page",
         [this] {
             QStringList names;
             for (const CueKind& cue : document_.finish().cues) names.append(qs(shown_name(cue.name)));
             choose_page(
                 names, [this](int i) { show_cue_form(form(), models_, static_cast<std::size_t>(i)); },
                 tr("No cues yet: add one (%1)")
                     .arg(actions_["add_cue"]->shortcut().toString(QKeySequence::NativeText)));
         }},
        {"clear_tape", [this] { playing_.clear_tape(); }},
    };
    all.insert(play_handlers());
    return all;
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
    for (int i = 0; i < static_cast<int>(names.size()); ++i) menu->addAction(names[i], this, [take, i] { take(i); });
    menu->popup(QCursor::pos());
}

void MainWindow::open_demo() {
    const QList<Demo> demos = demos_in(demo_folder());
    if (demos.isEmpty()) return document_.say(tr("No demos lie beside the program"));
    QStringList names;
    for (const Demo& demo : demos) names.append(demo.name);
    choose(names, [this, demos](int i) {
        if (document_.may_leave()) document_.open(demos[i].path);
    });
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

void MainWindow::new_from_picture() {
    const QString path = document_.prompts().picture_to_add(qs(document_.path()));
    if (!path.isEmpty()) start_from_picture(document_, path);
}

void MainWindow::open_try_on(bool replace) {
    const QRect ladder(ladder_->mapTo(this, QPoint(0, 0)), ladder_->size());
    // With the ladder's head: the sheet has its own.
    const QRect area = ladder.adjusted(0, -34, 0, 0);
    try_on_->open(area, replace ? TryOnUse::replace : TryOnUse::add_below);
}

void MainWindow::step_back() {
    if (help_card_->isVisible()) return help_card_->hide();
    if (drawing_.stop_reading()) return;
    if (stage_->step_back()) return;
    if (filter_->isVisible()) return end_filter();
    if (rehearses() && rehearse_->shows_page()) return close_form();
    if (rehearses()) return playing_.let_go_all();
    if (dial_pages_->currentIndex() == form_page) return close_form();
    if (dial_pages_->currentIndex() == shelf_page) return toggle_shelf();
    playing_.let_go_all();
}

void MainWindow::copy() {
    if (dials_->hasFocus()) return dials_->copy_value();
    if (!stage_->samples()) return ladder_->copy_steps();
    QApplication::clipboard()->setText(stage_->values_text());
    document_.say(tr("Copied the core sample's numbers"));
}

void MainWindow::paste() { dials_->hasFocus() ? dials_->paste_value() : ladder_->paste_steps(); }

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
    const std::string dial = dials ? dials_->chosen() : ladder_->dial_at_hand();
    const QString html = dials || !dial.empty() ? dial_help(document_, dial) : stage ? stage_help() : ladder_->help();
    const QWidget* beside = dials ? static_cast<QWidget*>(dials_) : stage ? static_cast<QWidget*>(stage_) : ladder_;
    help_card_->show_beside(html, QRect(beside->mapTo(this, QPoint(0, 0)), beside->size()));
}

void MainWindow::show_shortcuts() { help_card_->show_sheet(shortcut_sheet(actions_)); }

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

void MainWindow::note_recent() {
    if (document_.path().empty()) return;
    constexpr int most = 8;
    QStringList recent = setting(settings_, "file/recent").toStringList();
    const QString path = qs(document_.path());
    if (recent.value(0) == path) return;
    recent.removeAll(path);
    recent.prepend(path);
    settings_.setValue(QStringLiteral("file/recent"), recent.mid(0, most));
    stage_->start_list().set_recent(recent.mid(0, most));
}

}  // namespace lacquer
