#include "desktop/session/session.h"

#include <QFileInfo>
#include <QMetaObject>
#include <algorithm>
#include <cmath>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "desktop/session/recovery.h"

namespace lacquer {

namespace {

/// Drawn pixels of a thumbnail, twice its shown size, each way.
constexpr int thumbnail_width = 240;
constexpr int thumbnail_height = 136;
constexpr double frames_per_second = 60;

}  // namespace

Session::Session(Prompts prompts, Clock clock, QObject* parent)
    : QObject(parent), prompts_(std::move(prompts)), clock_(std::move(clock)), history_(empty_finish()) {
    saved_ = history_.now();
    render_ = std::make_unique<RenderThread>(
        [this](StagePicture done) {
            QMetaObject::invokeMethod(
                this,
                [this, done = std::move(done)] {
                    // A late answer about a step that is no longer shown would flash by.
                    if (done.step != shown_) return;
                    stage_ = done;
                    // Also beside a fault: then the last good picture is sharpened.
                    if (done.reduced && !interacting_ && !playing_) render_->ask_stage(stage_request_, false);
                    emit stage_changed();
                },
                Qt::QueuedConnection);
        },
        [this](Thumbnails done) {
            QMetaObject::invokeMethod(
                this,
                [this, done = std::move(done)] {
                    // Steps with a fault keep their last good picture.
                    for (const auto& [name, thumbnail] : done) thumbnails_[name] = thumbnail;
                    emit thumbnails_changed();
                },
                Qt::QueuedConnection);
        });
    play_timer_.setTimerType(Qt::PreciseTimer);
    play_timer_.setInterval(16);
    connect(&play_timer_, &QTimer::timeout, this, &Session::tick);
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(2000);
    connect(&autosave_timer_, &QTimer::timeout, this, &Session::autosave);
    finish_replaced();
}

Session::~Session() = default;

void Session::edit(Finish changed, const QString& what, const std::string& merge_key) {
    const auto before = history_.now();
    history_.record(std::move(changed), what.toStdString(), merge_key);
    if (history_.now() == before) return;
    finish_replaced();
    autosave_timer_.start();
    if (merge_key.empty()) say(what);
}

bool Session::edit(Result<Finish> changed, const QString& what) {
    if (!changed) {
        const Fault& fault = changed.fault();
        say(qs(fault.mend.empty() ? fault.message : fault.message + " - " + fault.mend));
        return false;
    }
    edit(std::move(*changed), what);
    return true;
}

void Session::undo() {
    if (!history_.can_undo()) return say(tr("Nothing to undo"));
    const QString what = qs(history_.undo_words());
    history_.undo();
    finish_replaced();
    autosave_timer_.start();
    say(tr("Undone: %1").arg(what));
}

void Session::redo() {
    if (!history_.can_redo()) return say(tr("Nothing to redo"));
    const QString what = qs(history_.redo_words());
    history_.redo();
    finish_replaced();
    autosave_timer_.start();
    say(tr("Done again: %1").arg(what));
}

void Session::finish_replaced() {
    checked_ = std::make_shared<const CheckedFinish>(check_finish(history_.now(), catalogue_, checked_.get()));
    if (!selected_.empty() && find_step(finish(), selected_) == nullptr) selected_.clear();
    if (selected_.empty() && !checked_->steps.empty()) selected_ = checked_->steps.back().name;
    if (!shown_.empty() && find_step(finish(), shown_) == nullptr) shown_.clear();
    time_ = std::min(time_, finish().length);
    for (auto held = held_.begin(); held != held_.end();) {
        held = find_dial(finish(), held->first) == nullptr ? held_.erase(held) : std::next(held);
    }
    for (auto old = thumbnails_.begin(); old != thumbnails_.end();) {
        old = find_step(finish(), old->first) == nullptr ? thumbnails_.erase(old) : std::next(old);
    }
    values_ = drive_values(*checked_, {time_, finish().tape}, held_);
    emit finish_changed();
    ask();
}

void Session::use_catalogue(std::shared_ptr<const Catalogue> catalogue) {
    catalogue_ = std::move(catalogue);
    finish_replaced();
    if (catalogue_->faults.empty()) {
        say(qs(counted(catalogue_->operations.size(), "operation")));
    } else {
        say(qs(to_text(catalogue_->faults.front())));
    }
}

void Session::adopt(Finish finish, const std::string& path, const Faults& notices) {
    set_playing(false);
    drop_autosave();
    history_ = History(std::move(finish));
    saved_ = history_.now();
    path_ = path;
    selected_.clear();
    shown_.clear();
    held_.clear();
    thumbnails_.clear();
    stage_ = StagePicture();
    time_ = 0;
    finish_replaced();
    emit selection_changed();
    emit time_changed();
    emit stage_changed();
    if (!notices.empty()) {
        say(tr("%1 (%2 in the file could not be used)")
                .arg(qs(to_text(notices.front())), qs(counted(notices.size(), "thing"))));
    }
}

bool Session::open(const QString& path) {
    const std::string name = path.toStdString();
    Result<OpenedFinish> opened = load_finish(name);
    if (!opened) {
        say(qs(to_text(opened.fault())));
        return false;
    }
    std::error_code code;
    const std::string full = std::filesystem::absolute(name, code).lexically_normal().string();
    say(tr("Opened %1").arg(QFileInfo(path).fileName()));
    adopt(std::move(opened->finish), full, opened->notices);
    return true;
}

bool Session::open_asking() {
    if (!may_leave()) return false;
    const QString path = prompts_.finish_to_open(qs(path_));
    return !path.isEmpty() && open(path);
}

bool Session::write_to(const std::string& path) {
    Finish moved = finish();
    if (path != path_) {
        for (Ground& ground : moved.grounds) {
            if (ground.kind == GroundKind::picture)
                ground.path = stored_picture_path(path, picture_path(path_, ground.path));
        }
    }
    if (Result<Done> done = save_finish(path, moved); !done) {
        say(qs(to_text(done.fault())));
        return false;
    }
    drop_autosave();
    path_ = path;
    if (moved != finish()) {
        history_.record(std::move(moved), tr("Saved elsewhere").toStdString());
        finish_replaced();
    }
    history_.seal();
    saved_ = history_.now();
    say(tr("Saved %1").arg(QFileInfo(qs(path)).fileName()));
    emit finish_changed();
    return true;
}

bool Session::save() { return path_.empty() ? save_as() : write_to(path_); }

bool Session::save_as() {
    const std::string proposed = path_.empty() ? identifier_from(finish().name) + ".lacquer" : path_;
    QString path = prompts_.finish_to_save(qs(proposed));
    if (path.isEmpty()) return false;
    if (!path.endsWith(QStringLiteral(".lacquer"))) path += QStringLiteral(".lacquer");
    std::error_code code;
    return write_to(std::filesystem::absolute(path.toStdString(), code).lexically_normal().string());
}

bool Session::start_new() {
    if (!may_leave()) return false;
    say(tr("A new finish"));
    adopt(empty_finish(), {}, {});
    return true;
}

bool Session::may_leave() {
    if (!edited()) return true;
    switch (prompts_.unsaved_changes(qs(finish().name))) {
        case Unsaved::save:
            return save();
        case Unsaved::discard:
            drop_autosave();
            return true;
        case Unsaved::stay:
            break;
    }
    return false;
}

bool Session::add_picture(const QString& path) {
    Finish changed = finish();
    const std::string stem = identifier_from(std::filesystem::path(path.toStdString()).stem().string());
    Ground ground;
    ground.name = free_name(changed, first_picture(changed) == nullptr ? "scene" : (stem.empty() ? "picture" : stem));
    ground.path = stored_picture_path(path_, path.toStdString());
    const std::string name = ground.name;
    changed.grounds.push_back(std::move(ground));
    edit(std::move(changed), tr("Added the picture %1").arg(qs(name)));
    return true;
}

void Session::add_stops(GroundKind kind) {
    Finish changed = finish();
    Ground ground;
    ground.kind = kind;
    ground.name = free_name(changed, kind == GroundKind::curve ? "shape" : "tones");
    const double low = kind == GroundKind::curve ? 0 : 0.01;
    ground.stops = {{0, {low, low, low, 1}}, {1, {1, 1, 1, 1}}};
    const std::string name = ground.name;
    changed.grounds.push_back(std::move(ground));
    edit(std::move(changed), tr("Added %1: read it by at(%1, t)").arg(qs(name)));
}

bool Session::add_picture_asking() {
    const QString path = prompts_.picture_to_add(qs(path_));
    return !path.isEmpty() && add_picture(path);
}

void Session::take_over(OpenedFinish recovered, const QString& path) {
    adopt(empty_finish(), path.toStdString(), recovered.notices);
    edit(std::move(recovered.finish), tr("Brought back unsaved work"));
}

void Session::select(const std::string& step) {
    if (selected_ == step) return;
    selected_ = step;
    history_.seal();
    emit selection_changed();
}

void Session::show_step(const std::string& step) {
    shown_ = step;
    const Fault* fault = stage_fault();
    if (fault == nullptr) ask();
    emit stage_changed();
    emit selection_changed();
}

const Fault* Session::stage_fault() const {
    const std::string name = shown_.empty() ? finished_step(*checked_) : shown_;
    const CheckedStep* step = find_step(*checked_, name);
    return step != nullptr && step->fault ? &*step->fault : nullptr;
}

bool Session::stage_is_stale() const { return stage_fault() != nullptr; }

bool Session::settled() const { return render_->idle(); }

void Session::set_time(double seconds) {
    time_ = std::clamp(seconds, 0.0, finish().length);
    last_tick_ = clock_();
    moment_changed();
}

void Session::moment_changed() {
    values_ = drive_values(*checked_, {time_, finish().tape}, held_);
    emit time_changed();
    ask();
}

void Session::set_playing(bool playing) {
    if (playing_ == playing) return;
    playing_ = playing;
    last_tick_ = clock_();
    if (playing) {
        if (time_ >= finish().length) time_ = 0;
        play_timer_.start();
    } else {
        play_timer_.stop();
        ask();
    }
    emit playing_changed();
}

void Session::tick() {
    const double now = clock_();
    time_ += now - last_tick_;
    last_tick_ = now;
    if (time_ >= finish().length) time_ = std::fmod(time_, finish().length);
    moment_changed();
}

void Session::step_frames(int frames) {
    set_playing(false);
    set_time((std::round(time_ * frames_per_second) + frames) / frames_per_second);
}

void Session::press_cue(const std::string& name, double strength) {
    Finish changed = finish();
    changed.tape.push_back({name, time_, strength});
    sort_cues(changed.tape);
    for (CueKind& cue : changed.cues) {
        if (cue.name == name) cue.strength = strength;
    }
    edit(std::move(changed),
         tr("Cue %1 %2 at %3 s").arg(qs(shown_name(name))).arg(strength, 0, 'f', 2).arg(time_, 0, 'f', 2));
}

void Session::clear_tape() {
    Finish changed = finish();
    changed.tape.clear();
    edit(std::move(changed), tr("Cleared the tape"));
}

void Session::set_dial(const std::string& name, const DialValue& value) {
    const Dial* dial = find_dial(finish(), name);
    if (dial == nullptr) return;
    if (!dial->formula.empty()) {
        held_[name] = value;
        moment_changed();
        return;
    }
    Finish changed = finish();
    for (Dial& d : changed.dials) {
        if (d.name == name) d.value = value;
    }
    edit(std::move(changed), tr("Set %1").arg(qs(shown_name(name))), "dial " + name);
}

void Session::let_go(const std::string& name) {
    if (held_.erase(name) == 0) return;
    moment_changed();
    say(tr("%1 is driven again").arg(qs(shown_name(name))));
}

void Session::let_go_all() {
    if (held_.empty()) return;
    held_.clear();
    moment_changed();
    say(tr("All dials are driven again"));
}

void Session::set_interacting(bool interacting) {
    const bool ends = interacting_ && !interacting;
    interacting_ = interacting;
    if (ends) {
        history_.seal();
        ask();  // a smaller frame may still be on its way
    }
}

void Session::say(const QString& words) { emit said(words); }

RenderRequest Session::request_for(std::vector<std::string> steps) const {
    RenderRequest request;
    request.checked = checked_;
    request.finish_path = path_;
    request.time = time_;
    request.cues = finish().tape;
    request.held = held_;
    request.steps = std::move(steps);
    return request;
}

void Session::ask() {
    if (stage_fault() == nullptr) {
        stage_request_ = request_for({shown_});
        render_->ask_stage(stage_request_, true);
    }
    std::vector<std::string> steps;
    for (const CheckedStep& step : checked_->steps) {
        // The stored parts of a step have no row.
        if (step.typed && find_step(finish(), step.name) != nullptr) steps.push_back(step.name);
    }
    if (steps.empty()) return;
    RenderRequest small = request_for(std::move(steps));
    const double aspect = static_cast<double>(finish().frame_width) / finish().frame_height;
    const double wide = static_cast<double>(thumbnail_width) / thumbnail_height;
    small.width = aspect >= wide ? thumbnail_width : std::max(2, static_cast<int>(thumbnail_height * aspect));
    small.height = aspect >= wide ? std::max(2, static_cast<int>(thumbnail_width / aspect)) : thumbnail_height;
    small.width += small.width % 2;
    small.height += small.height % 2;
    small.small_grounds = true;
    render_->ask_thumbnails(std::move(small));
}

void Session::autosave() {
    if (edited()) keep_for_recovery(path_, finish());
}

void Session::drop_autosave() {
    autosave_timer_.stop();
    drop_recovery(path_);
}

}  // namespace lacquer
