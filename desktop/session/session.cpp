#include "desktop/session/session.h"

#include <QFileInfo>
#include <QMetaObject>
#include <algorithm>
#include <random>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/limits.h"

namespace lacquer {

namespace {

/// Drawn pixels of a thumbnail, twice its shown size, each way.
constexpr int thumbnail_width = 240;
constexpr int thumbnail_height = 136;
/// Until then somebody may still be typing or dragging.
constexpr int rest_before_inspecting_ms = 350;
constexpr int thumbnails_lag_ms = 70;
/// Longer than this the window does not wait for the stage's picture.
constexpr int longest_wait_ms = 40;

// A step or a ground's picture.
bool can_be_shown(const Finish& finish, const std::string& name) {
    return find_step(finish, name) != nullptr || find_ground_picture(finish, name).has_value();
}

}  // namespace

Session::Session(Prompts prompts, Clock clock, QObject* parent)
    : QObject(parent), prompts_(std::move(prompts)), clock_(std::move(clock)), history_(empty_finish()) {
    saved_ = history_.now();
    render_ = std::make_unique<RenderThread>(results(), stores_);
    play_timer_.setTimerType(Qt::PreciseTimer);
    play_timer_.setInterval(16);
    connect(&play_timer_, &QTimer::timeout, this, &Session::tick);
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(2000);
    connect(&autosave_timer_, &QTimer::timeout, this, &Session::autosave);
    thumbnails_timer_.setSingleShot(true);
    thumbnails_timer_.setInterval(thumbnails_lag_ms);
    coming_timer_.setSingleShot(true);
    coming_timer_.setInterval(longest_wait_ms);
    connect(&coming_timer_, &QTimer::timeout, this, &Session::stage_came);
    connect(&thumbnails_timer_, &QTimer::timeout, this, &Session::ask_thumbnails);
    inspect_timer_.setSingleShot(true);
    inspect_timer_.setInterval(rest_before_inspecting_ms);
    connect(&inspect_timer_, &QTimer::timeout, this, [this] { render_->ask_warnings(request_for({""})); });
    link_timer_.setInterval(16);
    connect(&link_timer_, &QTimer::timeout, this, &Session::take_arrivals);
    files_timer_.setSingleShot(true);
    files_timer_.setInterval(150);
    const auto soon = [this] { files_timer_.start(); };
    connect(&files_, &QFileSystemWatcher::fileChanged, this, soon);
    connect(&files_, &QFileSystemWatcher::directoryChanged, this, soon);
    connect(&files_timer_, &QTimer::timeout, this, [this] {
        // A file that was replaced is no longer watched until it is named again.
        watch_files();
        reread_shared();
        ask();
        inspect_timer_.start();
    });
    random_ = [engine = std::mt19937(std::random_device()())]() mutable {
        return std::uniform_real_distribution<double>(0, 1)(engine);
    };
    finish_replaced();
}

RenderResults Session::results() {
    // Each comes on the render thread and is taken up by ours.
    const auto here = [this](auto take) {
        return [this, take](auto done) {
            QMetaObject::invokeMethod(
                this, [take, done = std::move(done)]() mutable { take(std::move(done)); }, Qt::QueuedConnection);
        };
    };
    RenderResults results;
    results.stage = here([this](StagePicture done) {
        // A late answer about a step that is no longer shown would flash by.
        if (done.step != stage_request().request.steps.front()) return;
        stage_ = std::move(done);
        // A frame is there, so whatever it waited for has been read.
        if (!reading_.isEmpty()) {
            reading_.clear();
            emit reading_changed();
        }
        // Also beside a fault: then the last good picture is sharpened.
        if ((stage_.reduced || stage_.in_a_drag) && !interacting_ && !playing_) {
            last_stage_.may_reduce = false;
            last_stage_.in_a_drag = false;
            render_->ask_stage(last_stage_);
        }
        emit stage_changed();
        if (stage_is_coming()) {
            coming_timer_.stop();
            emit stage_came();
        }
    });
    results.thumbnails = here([this](Thumbnails done) {
        // Steps with a fault keep their last good picture.
        for (auto& [name, thumbnail] : done) thumbnails_[name] = std::move(thumbnail);
        emit thumbnails_changed();
    });
    results.reading = [this](const QString& path, double share) {
        const auto take = [this, path, share] {
            reading_ = path;
            reading_share_ = share;
            emit reading_changed();
        };
        QMetaObject::invokeMethod(this, take, Qt::QueuedConnection);
    };
    results.probe = here([this](Probe done) {
        probe_ = std::move(done);
        emit probe_changed();
    });
    results.candidates = here([this](Thumbnails done) {
        for (auto& [name, thumbnail] : done) candidates_[name] = std::move(thumbnail);
        emit candidates_changed();
    });
    results.rates = here([this](RateReport done) {
        if (!checking_rates_) return;
        rates_ = std::move(done);
        checking_rates_ = false;
        emit rates_changed();
    });
    results.warnings = here([this](Warnings done) {
        warnings_ = std::move(done);
        emit warnings_changed();
    });
    return results;
}

Session::~Session() = default;

void Session::edit(Finish changed, const QString& what, const std::string& merge_key) {
    // What was opened beyond them may still be worked on, and made smaller.
    if (const Result<Done> fits = within_limits(changed); !fits && within_limits(finish())) {
        return say(qs(to_text(fits.fault())));
    }
    const auto before = history_.now();
    // One drag is one change.
    const std::string key = merge_key.empty() && interacting_ ? "drag " + what.toStdString() : merge_key;
    history_.record(std::move(changed), what.toStdString(), key);
    if (history_.now() == before) return;
    finish_replaced();
    keep_soon();
    if (key.empty()) say(what);
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
    keep_soon();
    say(tr("Undone: %1").arg(what));
}

void Session::redo() {
    if (!history_.can_redo()) return say(tr("Nothing to redo"));
    const QString what = qs(history_.redo_words());
    history_.redo();
    finish_replaced();
    keep_soon();
    say(tr("Done again: %1").arg(what));
}

void Session::go_to(std::size_t entry) {
    const QString what = qs(history_.words(entry));
    history_.go_to(entry);
    finish_replaced();
    keep_soon();
    say(what.isEmpty() ? tr("Back at the beginning") : tr("Back at: %1").arg(what));
}

void Session::finish_replaced() {
    preview_.reset();
    checked_ = std::make_shared<const CheckedFinish>(check_finish(history_.now(), catalogue_, checked_.get()));
    if (!selected_.empty() && find_step(finish(), selected_) == nullptr) selected_.clear();
    if (selected_.empty() && !checked_->steps.empty()) selected_ = checked_->steps.back().name;
    if (!can_be_shown(finish(), shown_)) shown_.clear();
    if (find_cue(finish(), chosen_cue_) == nullptr) chosen_cue_.clear();
    // What is gone can be neither pinned nor compared with.
    if (find_step(finish(), look_.pinned) == nullptr) look_.pinned.clear();
    if (find_step(finish(), look_.curtain_other) == nullptr) look_.curtain_other.clear();
    time_ = std::min(time_, finish().length);
    for (auto held = held_.begin(); held != held_.end();) {
        held = find_dial(finish(), held->first) == nullptr ? held_.erase(held) : std::next(held);
    }
    for (auto old = thumbnails_.begin(); old != thumbnails_.end();) {
        old = can_be_shown(finish(), old->first) ? std::next(old) : thumbnails_.erase(old);
    }
    merge_live();
    tell_link_names();
    replay();
    // What is told of things that are gone, or mended, must not stay.
    warnings_.clear();
    if (rates_) {
        rates_.reset();
        emit rates_changed();
    }
    inspect_timer_.start();
    if (!interacting_) watch_files();
    // Drawing begins before anything else has its turn.
    ask();
    emit finish_changed();
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

void Session::check_rates() {
    if (checking_rates_) {
        stop_checking_rates();
        return say(tr("Stopped the check of frame rates"));
    }
    // Each picture of running time would call it off.
    set_playing(false);
    checking_rates_ = true;
    RenderRequest request = request_for({""});
    request.tape.reset();
    render_->ask_rates(std::move(request));
    emit rates_changed();
}

void Session::stop_checking_rates() {
    if (!checking_rates_) return;
    checking_rates_ = false;
    render_->ask_rates(std::nullopt);
    emit rates_changed();
}

void Session::select(const std::string& step) {
    if (selected_ == step) return;
    selected_ = step;
    history_.seal();
    emit selection_changed();
}

void Session::show_step(const std::string& step) {
    shown_ = step;
    preview_.reset();
    const Fault* fault = stage_fault();
    if (fault == nullptr) ask();
    emit stage_changed();
    emit selection_changed();
}

void Session::set_look(Look look) {
    if (look == look_) return;
    const bool redraws = look.style != look_.style || look.curtain != look_.curtain ||
                         look.curtain_other != look_.curtain_other || look.pinned != look_.pinned ||
                         look.frame != look_.frame || look.line_grid != look_.line_grid;
    look_ = std::move(look);
    if (redraws) ask();
    emit look_changed();
}

QSize Session::looked_frame() const {
    return look_.frame.isEmpty() ? QSize(finish().frame_width, finish().frame_height) : look_.frame;
}

void Session::set_rows_in_view(std::vector<std::string> steps) {
    if (steps == in_view_) return;
    in_view_ = std::move(steps);
    ask_thumbnails();
}

void Session::set_probe_points(std::vector<PixelPoint> points) {
    const QSize frame = looked_frame();
    std::erase_if(points, [&](const PixelPoint& p) {
        return p.x < 0 || p.y < 0 || p.x >= frame.width() || p.y >= frame.height();
    });
    probe_points_ = std::move(points);
    if (probe_points_.empty()) {
        probe_ = Probe();
        emit probe_changed();
    }
    ask_probe();
}

void Session::ask_candidates(const std::string& at, TryOnUse use, const std::vector<std::string>& formulas) {
    candidates_.clear();
    RenderRequest small = request_for({});
    small.checked = std::make_shared<const CheckedFinish>(candidates_on(*checked_, at, use, formulas));
    for (std::size_t i = 0; i < formulas.size(); ++i) small.steps.push_back(candidate_name(i));
    make_small(small);
    if (!small.steps.empty()) render_->ask_candidates(std::move(small));
}

void Session::show_candidate(const std::string& formula, TryOnUse use, const std::string& words) {
    candidate_words_ = words;
    preview_ = std::make_shared<const CheckedFinish>(candidates_on(*checked_, selected_, use, {formula}));
    const CheckedStep* step = find_step(*preview_, candidate_name(0));
    if (step != nullptr && step->typed) ask();
}

void Session::put_candidate_away() {
    if (preview_ == nullptr) return;
    preview_.reset();
    ask();
}

const Fault* Session::stage_fault() const {
    const std::string name = shown_.empty() ? finished_step(*checked_) : shown_;
    const CheckedStep* step = find_step(*checked_, name);
    return step != nullptr && step->fault ? &*step->fault : nullptr;
}

bool Session::stage_is_stale() const { return stage_fault() != nullptr; }

bool Session::stop_reading() {
    if (reading_.isEmpty()) return false;
    render_->stop_reading();
    say(tr("Stopped reading %1; it shows as black until it changes").arg(QFileInfo(reading_).fileName()));
    return true;
}

bool Session::settled() const { return render_->idle(); }

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
    request.tape = live_tape_;
    request.held = held_;
    request.steps = std::move(steps);
    request.frame_width = look_.frame.width();
    request.frame_height = look_.frame.height();
    request.line_grid = look_.line_grid;
    return request;
}

StageRequest Session::stage_request() const {
    StageRequest stage{request_for({preview_ != nullptr ? candidate_name(0) : shown_}), look_.style, view_size_, true,
                       interacting_ || playing_};
    if (preview_ != nullptr) stage.request.checked = preview_;
    const Ground* first = first_picture(finish());
    if (look_.curtain && !look_.curtain_other.empty()) stage.request.steps.push_back(look_.curtain_other);
    if (look_.curtain && look_.curtain_other.empty() && first != nullptr) stage.request.steps.push_back(first->name);
    if (!look_.pinned.empty()) stage.request.steps.push_back(look_.pinned);
    return stage;
}

void Session::make_small(RenderRequest& request) const {
    const QSize frame = looked_frame();
    const double aspect = static_cast<double>(frame.width()) / frame.height();
    const double wide = static_cast<double>(thumbnail_width) / thumbnail_height;
    request.width = aspect >= wide ? thumbnail_width : std::max(2, static_cast<int>(thumbnail_height * aspect));
    request.height = aspect >= wide ? std::max(2, static_cast<int>(thumbnail_width / aspect)) : thumbnail_height;
    request.width += request.width % 2;
    request.height += request.height % 2;
    request.small_grounds = true;
}

void Session::ask() {
    if (preview_ != nullptr || stage_fault() == nullptr) {
        last_stage_ = stage_request();
        // From the first move that waits: a steady drag must not put painting off for ever.
        if (interacting_ && !coming_timer_.isActive()) coming_timer_.start();
        render_->ask_stage(last_stage_);
    }
    if (!interacting_ && !playing_) {
        ask_thumbnails();
    } else if (!thumbnails_timer_.isActive()) {
        thumbnails_timer_.start();
    }
    ask_probe();
}

void Session::ask_thumbnails() {
    thumbnails_timer_.stop();
    std::vector<std::string> steps;
    for (const std::string& name : in_view_) {
        const CheckedStep* step = find_step(*checked_, name);
        if (step != nullptr && step->typed) steps.push_back(name);
    }
    for (const std::string& name : grounds_in_view_) {
        if (find_ground_picture(finish(), name)) steps.push_back(name);
    }
    if (steps.empty()) return;
    RenderRequest small = request_for(std::move(steps));
    make_small(small);
    render_->ask_thumbnails(std::move(small));
}

void Session::ask_probe() {
    if (probe_points_.empty()) return;
    std::vector<std::string> steps;
    for (const CheckedStep& step : checked_->steps) {
        // The stored parts of a step have no row.
        if (step.typed && find_step(finish(), step.name) != nullptr) steps.push_back(step.name);
    }
    if (const Ground* scene = first_scene()) {
        steps.push_back(scene->name + "_id");
        steps.push_back(scene->name + "_position");
    }
    if (steps.empty()) return;
    RenderRequest request = request_for(std::move(steps));
    // A smaller frame since: each stays the one it was, at the border.
    const QSize frame = looked_frame();
    for (const PixelPoint& point : probe_points_) {
        request.points.push_back({std::min(point.x, frame.width() - 1), std::min(point.y, frame.height() - 1)});
    }
    render_->ask_probe(std::move(request));
}

}  // namespace lacquer
