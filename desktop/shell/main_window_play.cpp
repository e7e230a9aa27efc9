// The rehearse screen within the window, and the actions of play.
#include <QAction>
#include <QSplitter>
#include <QStackedWidget>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/play_edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/pages/forms.h"
#include "desktop/playing/game_link.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/signal_faders.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/ship/target_cards.h"
#include "desktop/stage/stage_view.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"

namespace lacquer {

MainWindow::Handlers MainWindow::play_handlers() {
    Handlers all = {
        {"play", [this] { playing_.set_playing(!playing_.playing()); }},
        {"record", [this] { playing_.set_recording(!playing_.recording()); }},
        {"keep_live", [this] { playing_.keep_live(); }},
        {"loop", [this] { playing_.set_looping(!playing_.looping()); }},
        {"slow_motion", [this] { next_speed(); }},
        {"all_time", [this] { rehearse_->lanes().show_all_time(); }},
        {"time_nearer", [this] { rehearse_->lanes().zoom_time(1); }},
        {"time_farther", [this] { rehearse_->lanes().zoom_time(-1); }},
        {"frame_back", [this] { playing_.step_frames(-1); }},
        {"frame_on", [this] { playing_.step_frames(1); }},
        {"to_start", [this] { playing_.set_time(0); }},
        {"listen",
         [this] {
             if (link_.receiver() != nullptr) return link_.stop_listening();
             const bool everywhere = settings_.value("link/everywhere").toBool();
             link_.listen(settings_.value("link/port").toInt(), everywhere);
         }},
        {"check_rates", [this] { drawing_.check_rates(); }},
        {"open_tape",
         [this] {
             const QString path = document_.prompts().tape_to_open(qs(document_.path()));
             if (!path.isEmpty()) playing_.open_tape(path);
         }},
        {"save_tape",
         [this] {
             const QString proposed = qs(identifier_from(document_.finish().name) + ".tape");
             const QString path =
                 document_.with_ending(document_.prompts().tape_to_save(proposed), QStringLiteral(".tape"));
             if (!path.isEmpty()) playing_.save_tape(path);
         }},
        {"delete_events", [this] { rehearse_->lanes().delete_chosen(); }},
        {"clear_tape", [this] { playing_.clear_tape(); }},
        {"add_cue", [this] { add_cue(); }},
        {"cue_page", [this] { choose_cue_page(); }},
        {"delete_cue", [this] { delete_cue(); }},
        {"move_cue_earlier", [this] { cue_pads_->move_chosen(-1); }},
        {"move_cue_later", [this] { cue_pads_->move_chosen(1); }},
        {"add_signal", [this] { add_signal(); }},
        {"signal_page", [this] { choose_signal_page(); }},
        {"delete_signal", [this] { delete_signal(); }},
    };
    for (int i = 0; i < 9; ++i) all[QStringLiteral("cue_%1").arg(i + 1)] = [this, i] { press_cue(i); };
    return all;
}

void MainWindow::press_cue(int cue) {
    if (cue >= static_cast<int>(document_.finish().cues.size()))
        return document_.say(tr("There is no cue %1: add one (%2)").arg(cue + 1).arg(key_of("add_cue")));
    cue_pads_->press(cue);
}

Where MainWindow::screen_shown() const {
    if (screens_ == nullptr) return Where::bench;
    if (screens_->currentWidget() == rehearse_) return Where::rehearse;
    if (screens_->currentWidget() == ship_) return Where::ship;
    return screens_->currentWidget() == sweep_ ? Where::sweep : Where::bench;
}

void MainWindow::show_screen(Where screen) {
    if (screen == screen_shown()) return refresh_words();
    const bool rehearse = screen == Where::rehearse;
    // Set before the stage is asked to draw: it has another size there. The sweep screen has none.
    if (rehearse) {
        rehearse_->take_stage(stage_);
    } else if (rehearse_->isAncestorOf(stage_)) {
        rehearse_->set_sizes(rehearse_->column_sizes(), rehearse_->row_sizes());
        rows_->insertWidget(0, stage_);
        rows_->setStretchFactor(0, 1);
    }
    stage_->show();
    stage_->set_rehearses(rehearse);
    switch (screen) {
        case Where::rehearse:
            screens_->setCurrentWidget(rehearse_);
            rehearse_->lanes().setFocus();
            break;
        case Where::sweep:
            screens_->setCurrentWidget(sweep_);
            sweep_->sheet().setFocus();
            break;
        case Where::ship:
            screens_->setCurrentWidget(ship_);
            ship_->cards().setFocus();
            break;
        case Where::bench:
        case Where::everywhere:
            screens_->setCurrentWidget(columns_);
            ladder_->setFocus();
            break;
    }
    refresh_words();
}

void MainWindow::connect_rehearse() {
    for (FieldForm* page : {form_, play_form_}) {
        connect(page, &FieldForm::closed, this, &MainWindow::close_form);
        connect(page, &FieldForm::dragging, this, [this](bool on) { document_.set_interacting(on); });
        connect(&document_, &Document::finish_changed, page, &FieldForm::refresh);
        connect(page, &FieldForm::wants_stop_colour, this, &MainWindow::edit_stop_colour);
    }
    connect(&rehearse_->pads(), &CuePads::wants_cue, this, &MainWindow::add_cue);
    for (CuePads* pads : {cue_pads_, &rehearse_->pads()})
        connect(pads, &CuePads::wants_delete, this, &MainWindow::delete_cue);
    const auto signal_page = [this](const QString& signal) {
        show_signal_form(form(), models_, signal.toStdString());
        show_form();
    };
    connect(&rehearse_->faders(), &SignalFaders::wants_form, this, signal_page);
    const auto remember = [this](const QString& signal) { menu_signal_ = signal.toStdString(); };
    connect(&rehearse_->faders(), &SignalFaders::chosen_changed, this, remember);
    connect(&rehearse_->lanes(), &LanesView::signal_chosen, this, remember);
    // From a lane, one wants to go on playing: the keys stay there.
    LanesView* lanes = &rehearse_->lanes();
    const auto beside = [this, lanes](const auto& show) {
        show();
        show_form();
        lanes->setFocus();
    };
    connect(lanes, &LanesView::wants_response, this, [this, beside](const QString& response) {
        beside([&] { show_response_form(form(), models_, response.toStdString()); });
    });
    connect(lanes, &LanesView::wants_dial, this, [this, beside](const QString& dial) {
        beside([&] { show_dial_form(form(), models_, dial.toStdString()); });
    });
}

FieldForm& MainWindow::form() { return rehearses() ? *play_form_ : *form_; }

// Their hands are seen on the stage as long as their page is.
void MainWindow::show_droplets(const Ground& ground) {
    Look look = drawing_.look();
    look.droplets = ground.as<DropletsGround>() != nullptr ? ground.name : std::string();
    drawing_.set_look(std::move(look));
}

void MainWindow::show_form() {
    show_droplets({});
    // Pages of fields stand on the other two.
    if (screen_shown() == Where::sweep || screen_shown() == Where::ship) show_screen(Where::bench);
    if (rehearses()) {
        rehearse_->show_page(true);
        return play_form_->focus_first();
    }
    if (dial_pages_->currentIndex() != form_page) page_before_form_ = dial_pages_->currentIndex();
    dial_pages_->setCurrentIndex(form_page);
}

void MainWindow::close_form() {
    show_droplets({});
    if (rehearses()) {
        rehearse_->show_page(false);
        return rehearse_->lanes().setFocus();
    }
    dial_pages_->setCurrentIndex(page_before_form_);
    if (page_before_form_ == shelf_page) return shelf_->setFocus();
    dials_->setFocus();
}

void MainWindow::add_response() {
    Finish changed = document_.finish();
    Response response;
    response.name = free_name(changed, "strike");
    response.kind = "strike";
    if (!changed.cues.empty()) response.cue = changed.cues.front().name;
    const std::string name = response.name;
    changed.responses.push_back(std::move(response));
    document_.edit(std::move(changed), tr("Added the response %1; a dial follows it by its name").arg(qs(name)));
    show_response_form(form(), models_, name);
    show_form();
}

void MainWindow::add_cue() {
    Finish changed = document_.finish();
    CueKind cue;
    cue.name = changed.cues.empty() ? "hit" : "cue_" + std::to_string(changed.cues.size() + 1);
    changed.cues.push_back(std::move(cue));
    const std::size_t index = changed.cues.size() - 1;
    document_.edit(std::move(changed), tr("Added a cue"));
    show_cue_form(form(), models_, index);
    show_form();
}

void MainWindow::add_signal() {
    Finish changed = document_.finish();
    Signal signal;
    signal.name = free_name(changed, changed.signals.empty() ? "health" : "signal");
    signal.kind = SignalKind::integer;
    signal.most = 100;
    signal.value = {100, 0, 0};
    const std::string name = signal.name;
    changed.signals.push_back(std::move(signal));
    document_.edit(std::move(changed), tr("Added the signal %1").arg(qs(shown_name(name))));
    show_signal_form(form(), models_, name);
    show_form();
}

namespace {

template <class Things>
QStringList names_of(const Things& things) {
    QStringList names;
    for (const auto& thing : things) names.append(qs(shown_name(thing.name)));
    return names;
}

}  // namespace

// The page of the signal whose menu was opened last, else of the only one, else of one that is chosen.
void MainWindow::choose_signal_page() {
    const Finish& finish = document_.finish();
    if (find_signal(finish, menu_signal_) != nullptr) {
        show_signal_form(form(), models_, menu_signal_);
        return show_form();
    }
    choose_page(
        names_of(finish.signals),
        [this](int i) {
            show_signal_form(form(), models_, document_.finish().signals[static_cast<std::size_t>(i)].name);
        },
        tr("No signals yet: add one (%1)").arg(key_of("add_signal")));
}

// The page of the cue that was pressed or chosen last, else of one that is chosen.
void MainWindow::choose_cue_page() {
    const Finish& finish = document_.finish();
    for (std::size_t i = 0; i < finish.cues.size(); ++i) {
        if (finish.cues[i].name != playing_.chosen_cues().one()) continue;
        show_cue_form(form(), models_, i);
        return show_form();
    }
    choose_page(
        names_of(finish.cues), [this](int i) { show_cue_form(form(), models_, static_cast<std::size_t>(i)); },
        tr("No cues yet: add one (%1)").arg(key_of("add_cue")));
}

void MainWindow::choose_response_page() {
    QStringList names;
    for (const Response& response : document_.finish().responses)
        names.append(tr("%1 · %2").arg(qs(shown_name(response.name)), qs(response.kind)));
    choose_page(
        names,
        [this](int i) {
            show_response_form(form(), models_, document_.finish().responses[static_cast<std::size_t>(i)].name);
        },
        tr("No responses yet: add one (%1)").arg(key_of("add_response")));
}

void MainWindow::delete_cue() {
    const auto take = [this](const std::string& name) {
        document_.edit(without_cue(document_.finish(), name), tr("Deleted the cue %1").arg(qs(shown_name(name))));
    };
    if (playing_.chosen_cues().several()) {
        Finish changed = document_.finish();
        const std::vector<std::string> names = playing_.chosen_cues().all();
        for (const std::string& name : names) changed = without_cue(std::move(changed), name);
        document_.edit(std::move(changed),
                       tr("Deleted %1").arg(tr("%n cue(s)", nullptr, static_cast<int>(names.size()))));
        return;
    }
    if (find_cue(document_.finish(), playing_.chosen_cues().one()) != nullptr)
        return take(playing_.chosen_cues().one());
    choose(names_of(document_.finish().cues),
           [this, take](int i) { take(document_.finish().cues[static_cast<std::size_t>(i)].name); });
}

void MainWindow::delete_signal() {
    const auto take = [this](const std::string& name) {
        document_.edit(without_signal(document_.finish(), name), tr("Deleted the signal %1").arg(qs(shown_name(name))));
    };
    if (find_signal(document_.finish(), menu_signal_) != nullptr) return take(menu_signal_);
    choose(names_of(document_.finish().signals),
           [this, take](int i) { take(document_.finish().signals[static_cast<std::size_t>(i)].name); });
}

void MainWindow::delete_response() {
    choose(names_of(document_.finish().responses), [this](int i) {
        const std::string name = document_.finish().responses[static_cast<std::size_t>(i)].name;
        const std::vector<std::string> users = users_of(document_.finish(), name);
        QString what = tr("Deleted the response %1").arg(qs(shown_name(name)));
        if (!users.empty()) what += tr(", which %1 used").arg(qs(shown_name(users.front())));
        document_.edit(without_response(document_.finish(), name), what);
    });
}

void MainWindow::next_speed() {
    const double now = playing_.speed();
    playing_.set_speed(now == 1 ? 0.5 : now == 0.5 ? 0.25 : now == 0.25 ? 0.1 : 1);
}

void MainWindow::take_shared_dial() {
    const std::vector<Dial> shared = document_.shared_dials();
    QStringList names;
    for (const Dial& dial : shared) {
        if (find_dial(document_.finish(), dial.name) == nullptr) names.append(qs(dial.name));
    }
    if (names.isEmpty())
        return document_.say(
            document_.finish().shared_dials.empty()
                ? tr("No file of shared dials yet: share a dial on its page (%1)").arg(key_of("dial_page"))
                : tr("All dials of %1 are here").arg(qs(document_.finish().shared_dials)));
    choose(names, [this, names](int i) { document_.take_shared(names[i].toStdString()); });
}

}  // namespace lacquer
