// The rehearse screen within the window, and the actions of play.
#include <QAction>
#include <QSplitter>
#include <QStackedWidget>

#include "core/base/text.h"
#include "core/finish/edits.h"
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
#include "desktop/stage/stage_view.h"

namespace lacquer {

QHash<QString, std::function<void()>> MainWindow::play_handlers() {
    QHash<QString, std::function<void()>> all = {
        {"bench", [this] { show_screen(false); }},
        {"rehearse", [this] { show_screen(true); }},
        {"record", [this] { playing_.set_recording(!playing_.recording()); }},
        {"keep_live", [this] { playing_.keep_live(); }},
        {"loop", [this] { playing_.set_looping(!playing_.looping()); }},
        {"slow_motion", [this] { next_speed(); }},
        {"all_time", [this] { rehearse_->lanes().show_all_time(); }},
        {"time_nearer", [this] { rehearse_->lanes().zoom_time(1); }},
        {"time_farther", [this] { rehearse_->lanes().zoom_time(-1); }},
        {"listen",
         [this] {
             if (link_.receiver() != nullptr) return link_.stop_listening();
             const bool everywhere = setting(settings_, "link/everywhere").toBool();
             link_.listen(setting(settings_, "link/port").toInt(), everywhere);
         }},
        {"check_rates", [this] { drawing_.check_rates(); }},
        {"add_signal", [this] { add_signal(); }},
        {"signal_page", [this] { choose_signal_page(); }},
        {"take_shared", [this] { take_shared_dial(); }},
        {"open_tape",
         [this] {
             const QString path = document_.prompts().tape_to_open(qs(document_.path()));
             if (!path.isEmpty()) playing_.open_tape(path);
         }},
        {"save_tape",
         [this] {
             const QString chosen =
                 document_.prompts().tape_to_save(qs(identifier_from(document_.finish().name) + ".tape"));
             const QString path = document_.with_ending(chosen, QStringLiteral(".tape"));
             if (!path.isEmpty()) playing_.save_tape(path);
         }},
    };
    for (int i = 0; i < 9; ++i) all[QStringLiteral("cue_%1").arg(i + 1)] = [this, i] { cue_pads_->press(i); };
    return all;
}

bool MainWindow::rehearses() const { return screens_ != nullptr && screens_->currentWidget() == rehearse_; }

void MainWindow::show_screen(bool rehearse) {
    if (rehearse == rehearses()) return refresh_words();
    // Set before the stage is asked to draw: it has another size there.
    if (rehearse) {
        rehearse_->take_stage(stage_);
    } else {
        rows_->insertWidget(0, stage_);
        rows_->setStretchFactor(0, 1);
    }
    stage_->show();
    stage_->set_rehearses(rehearse);
    screens_->setCurrentIndex(rehearse ? 1 : 0);
    if (rehearse) {
        rehearse_->lanes().setFocus();
    } else {
        ladder_->setFocus();
    }
    refresh_words();
}

void MainWindow::connect_rehearse() {
    for (FieldForm* page : {form_, play_form_}) {
        connect(page, &FieldForm::closed, this, &MainWindow::close_form);
        connect(page, &FieldForm::dragging, this, [this](bool on) { document_.set_interacting(on); });
        connect(page, &FieldForm::wants_stop_colour, this, &MainWindow::edit_stop_colour);
    }
    connect(&rehearse_->pads(), &CuePads::wants_cue, this, &MainWindow::add_cue);
    const auto signal_page = [this](const QString& signal) {
        show_signal_form(form(), models_, signal.toStdString());
        show_form();
    };
    const auto cue_page = [this](int cue) {
        show_cue_form(form(), models_, static_cast<std::size_t>(cue));
        show_form();
    };
    connect(&rehearse_->pads(), &CuePads::wants_form, this, cue_page);
    connect(&rehearse_->faders(), &SignalFaders::wants_form, this, signal_page);
    // From a lane, one wants to go on playing: the keys stay there.
    LanesView* lanes = &rehearse_->lanes();
    const auto beside = [this, lanes](const auto& show) {
        show();
        show_form();
        lanes->setFocus();
    };
    connect(lanes, &LanesView::wants_signal, this,
            [beside, signal_page](const QString& signal) { beside([&] { signal_page(signal); }); });
    connect(lanes, &LanesView::wants_cue, this, [beside, cue_page](int cue) { beside([&] { cue_page(cue); }); });
    connect(lanes, &LanesView::wants_response, this, [this, beside](const QString& response) {
        beside([&] { show_response_form(form(), models_, response.toStdString()); });
    });
    connect(lanes, &LanesView::wants_dial, this, [this, beside](const QString& dial) {
        beside([&] { show_dial_form(form(), models_, dial.toStdString()); });
    });
}

FieldForm& MainWindow::form() { return rehearses() ? *play_form_ : *form_; }

void MainWindow::show_form() {
    if (rehearses()) {
        rehearse_->show_page(true);
        return play_form_->focus_first();
    }
    if (dial_pages_->currentIndex() != form_page) page_before_form_ = dial_pages_->currentIndex();
    dial_pages_->setCurrentIndex(form_page);
}

void MainWindow::close_form() {
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

void MainWindow::choose_signal_page() {
    QStringList names;
    for (const Signal& signal : document_.finish().signals) names.append(qs(shown_name(signal.name)));
    choose_page(
        names,
        [this](int i) {
            show_signal_form(form(), models_, document_.finish().signals[static_cast<std::size_t>(i)].name);
        },
        tr("No signals yet: add one (Alt+W)"));
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
        return document_.say(document_.finish().shared_dials.empty()
                                 ? tr("No file of shared dials yet: share a dial on its page (Shift+D)")
                                 : tr("All dials of %1 are here").arg(qs(document_.finish().shared_dials)));
    choose(names, [this, names](int i) { document_.take_shared(names[i].toStdString()); });
}

}  // namespace lacquer
