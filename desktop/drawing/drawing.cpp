#include "desktop/drawing/drawing.h"

#include <QFileInfo>
#include <QMetaObject>
#include <algorithm>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "desktop/document/ground_adding.h"

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

Drawing::Drawing(Document& document, Playing& playing, const DrawingLimits& limits, QObject* parent)
    : QObject(parent),
      document_(document),
      playing_(playing),
      stores_(std::make_shared<RenderStores>(limits.pictures, limits.watch)) {
    render_ = std::make_unique<RenderThread>(results(), stores_, limits.threads);
    thumbnails_timer_.setSingleShot(true);
    thumbnails_timer_.setInterval(thumbnails_lag_ms);
    connect(&thumbnails_timer_, &QTimer::timeout, this, &Drawing::ask_thumbnails);
    coming_timer_.setSingleShot(true);
    coming_timer_.setInterval(longest_wait_ms);
    connect(&coming_timer_, &QTimer::timeout, this, &Drawing::stage_came);
    inspect_timer_.setSingleShot(true);
    inspect_timer_.setInterval(rest_before_inspecting_ms);
    connect(&inspect_timer_, &QTimer::timeout, this, [this] {
        if (!hidden_) render_->ask_warnings(request_for({""}));
    });
    connect(&document_, &Document::finish_replaced, this, &Drawing::follow_finish);
    connect(&document_, &Document::left, this, &Drawing::leave);
    connect(&document_, &Document::files_changed, this, [this] {
        render_->forget_ticks();
        ask();
        inspect_timer_.start();
    });
    connect(&document_, &Document::interacting_changed, this, [this](bool interacting) {
        // A smaller frame may still be on its way.
        if (!interacting) ask();
    });
    connect(&playing_, &Playing::time_changed, this, &Drawing::ask);
    connect(&playing_, &Playing::playing_changed, this, [this] { playing_.playing() ? stop_checking_rates() : ask(); });
    follow_finish();
}

Drawing::~Drawing() = default;

void Drawing::follow_finish() {
    preview_.reset();
    const Finish& finish = document_.finish();
    if (seen_ && find_step(finish, seen_->step) == nullptr) seen_.reset();
    follow_seen();
    if (!can_be_shown(finish, shown_)) shown_.clear();
    // What is gone can be neither pinned nor compared with.
    if (find_step(finish, look_.pinned) == nullptr) look_.pinned.clear();
    if (find_step(finish, look_.curtain_other) == nullptr) look_.curtain_other.clear();
    if (find_ground(finish, look_.droplets) == nullptr) look_.droplets.clear();
    for (auto old = thumbnails_.begin(); old != thumbnails_.end();) {
        old = can_be_shown(finish, old->first) ? std::next(old) : thumbnails_.erase(old);
    }
    // What is told of things that are gone, or mended, must not stay.
    warnings_.clear();
    if (rates_) {
        rates_.reset();
        emit rates_changed();
    }
    inspect_timer_.start();
    // Drawing begins before anything else has its turn.
    ask();
}

void Drawing::leave() {
    shown_.clear();
    thumbnails_.clear();
    stage_ = StagePicture();
    stores_->pictures.try_again();
    emit stage_changed();
}

RenderResults Drawing::results() {
    // Each comes on the render thread and is taken up by ours.
    const auto here = [this](auto take) {
        return [this, take](auto done) {
            QMetaObject::invokeMethod(
                this, [take, done = std::move(done)]() mutable { take(std::move(done)); }, Qt::QueuedConnection);
        };
    };
    RenderResults results;
    results.stage = here([this](StagePicture done) { take_stage(std::move(done)); });
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
    results.ticking = here([this](double share) {
        if (share == ticks_share_) return;
        ticks_share_ = share;
        emit reading_changed();
    });
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

void Drawing::take_stage(StagePicture done) {
    // A late answer about a step that is no longer shown would flash by.
    if (last_stage_.request.steps.empty() || done.step != last_stage_.request.steps.front()) return;
    stage_ = std::move(done);
    // A frame is there, so whatever it waited for has been read, and its ticks are drawn or called off.
    if (!reading_.isEmpty() || ticks_share_ < 1) {
        reading_.clear();
        ticks_share_ = 1;
        emit reading_changed();
    }
    sharpen();
    emit stage_changed();
    if (stage_is_coming()) {
        coming_timer_.stop();
        emit stage_came();
    }
}

// What was drawn smaller to be in time is drawn once more at rest; beside a fault it is the last good picture.
void Drawing::sharpen() {
    if ((!stage_.reduced && !stage_.in_a_drag) || stage_.more_comes || document_.interacting() || playing_.playing())
        return;
    last_stage_.may_reduce = false;
    last_stage_.in_a_drag = last_stage_.request.in_a_drag = false;
    render_->ask_stage(last_stage_);
}

void Drawing::check_rates() {
    if (checking_rates_) {
        stop_checking_rates();
        return document_.say(tr("Stopped the check of frame rates"));
    }
    // Each picture of running time would call it off.
    playing_.set_playing(false);
    checking_rates_ = true;
    RenderRequest request = request_for({""});
    request.tape.reset();
    render_->ask_rates(std::move(request));
    emit rates_changed();
}

void Drawing::stop_checking_rates() {
    if (!checking_rates_) return;
    checking_rates_ = false;
    render_->ask_rates(std::nullopt);
    emit rates_changed();
}

void Drawing::show_step(const std::string& step) {
    shown_ = step;
    preview_.reset();
    if (seen_) seen_->on_stage = false;
    const Fault* fault = stage_fault();
    if (fault == nullptr) ask();
    emit stage_changed();
    emit shown_changed();
}

void Drawing::set_look(Look look) {
    if (look == look_) return;
    const bool redraws = look.style != look_.style || look.curtain != look_.curtain ||
                         look.curtain_other != look_.curtain_other || look.pinned != look_.pinned ||
                         look.frame != look_.frame || look.line_grid != look_.line_grid;
    look_ = std::move(look);
    if (redraws) ask();
    emit look_changed();
}

QSize Drawing::looked_frame() const {
    return look_.frame.isEmpty() ? QSize(document_.finish().frame_width, document_.finish().frame_height) : look_.frame;
}

void Drawing::set_rows_in_view(std::vector<std::string> steps) {
    if (steps == in_view_) return;
    in_view_ = std::move(steps);
    ask_thumbnails();
}

void Drawing::set_grounds_in_view(std::vector<std::string> pictures) {
    if (pictures == grounds_in_view_) return;
    grounds_in_view_ = std::move(pictures);
    ask_thumbnails();
}

void Drawing::set_probe_points(std::vector<PixelPoint> points) {
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

void Drawing::ask_candidates(const std::string& at, TryOnUse use, const std::vector<std::string>& formulas) {
    candidates_.clear();
    RenderRequest small = request_for({});
    small.checked = std::make_shared<const CheckedFinish>(candidates_on(document_.checked(), at, use, formulas));
    for (std::size_t i = 0; i < formulas.size(); ++i) small.steps.push_back(candidate_name(i));
    make_small(small);
    if (!small.steps.empty()) render_->ask_candidates(std::move(small));
}

void Drawing::show_candidate(const std::string& formula, TryOnUse use, const std::string& words) {
    candidate_words_ = words;
    preview_ =
        std::make_shared<const CheckedFinish>(candidates_on(document_.checked(), document_.selected(), use, {formula}));
    const CheckedStep* step = find_step(*preview_, candidate_name(0));
    if (step != nullptr && step->typed) ask();
}

void Drawing::put_candidate_away() {
    if (preview_ == nullptr || shows_variable()) return;
    preview_.reset();
    follow_seen();
    ask();
}

void Drawing::see(std::optional<Seen> seen) {
    if (!seen && !seen_) return;
    const bool was_shown = shows_variable();
    seen_ = std::move(seen);
    if (was_shown) preview_.reset();
    follow_seen();
    if (was_shown || shows_variable()) {
        ask();
        emit stage_changed();
    } else {
        ask_probe();
    }
}

void Drawing::follow_seen() {
    seen_checked_.reset();
    if (!seen_) return;
    auto checked = std::make_shared<const CheckedFinish>(with_seen(document_.checked(), seen_->step, seen_->variable));
    const CheckedStep* step = find_step(*checked, seen_step);
    if (step == nullptr || !step->typed) return;
    seen_checked_ = std::move(checked);
    if (!seen_->on_stage || preview_ != nullptr) return;
    preview_ = seen_checked_;
    candidate_words_ = seen_->variable.name;
}

const Fault* Drawing::stage_fault() const {
    const std::string name = shown_.empty() ? finished_step(document_.checked()) : shown_;
    const CheckedStep* step = find_step(document_.checked(), name);
    return step != nullptr && step->fault ? &*step->fault : nullptr;
}

bool Drawing::stop_reading() {
    if (reading_.isEmpty()) return false;
    render_->stop_reading();
    document_.say(tr("Stopped reading %1; it shows as black until it changes").arg(QFileInfo(reading_).fileName()));
    return true;
}

RenderRequest Drawing::request_for(std::vector<std::string> steps) const {
    RenderRequest request;
    request.checked = document_.shared_checked();
    request.finish_path = document_.path();
    request.time = playing_.time();
    request.tape = playing_.live_tape();
    request.held = playing_.held();
    request.steps = std::move(steps);
    request.frame_width = look_.frame.width();
    request.frame_height = look_.frame.height();
    request.line_grid = look_.line_grid;
    request.in_a_drag = document_.interacting();
    return request;
}

StageRequest Drawing::stage_request() const {
    const std::string step = shows_variable()      ? std::string(seen_step)
                             : preview_ != nullptr ? candidate_name(0)
                                                   : shown_;
    StageRequest stage{
        request_for({step}), look_.style, view_size_, true, document_.interacting() || playing_.playing(),
        values_wanted_};
    if (preview_ != nullptr) stage.request.checked = preview_;
    const Ground* first = first_picture(document_.finish());
    if (look_.curtain && !look_.curtain_other.empty()) stage.request.steps.push_back(look_.curtain_other);
    if (look_.curtain && look_.curtain_other.empty() && first != nullptr) stage.request.steps.push_back(first->name);
    if (!look_.pinned.empty()) stage.request.steps.push_back(look_.pinned);
    return stage;
}

void Drawing::make_small(RenderRequest& request) const {
    const QSize frame = looked_frame();
    const double aspect = static_cast<double>(frame.width()) / frame.height();
    const double wide = static_cast<double>(thumbnail_width) / thumbnail_height;
    request.width = aspect >= wide ? thumbnail_width : std::max(2, static_cast<int>(thumbnail_height * aspect));
    request.height = aspect >= wide ? std::max(2, static_cast<int>(thumbnail_width / aspect)) : thumbnail_height;
    request.width += request.width % 2;
    request.height += request.height % 2;
    request.small_grounds = true;
}

void Drawing::set_hidden(bool hidden) {
    if (hidden == hidden_) return;
    hidden_ = hidden;
    if (hidden_) return;
    inspect_timer_.start();
    ask();
}

void Drawing::ask() {
    if (hidden_) return;
    if (preview_ != nullptr || stage_fault() == nullptr) {
        last_stage_ = stage_request();
        // From the first move that waits: a steady drag must not put painting off for ever.
        if (document_.interacting() && !coming_timer_.isActive()) coming_timer_.start();
        render_->ask_stage(last_stage_);
    } else {
        sharpen();
    }
    if (!document_.interacting() && !playing_.playing()) {
        ask_thumbnails();
    } else if (!thumbnails_timer_.isActive()) {
        thumbnails_timer_.start();
    }
    ask_probe();
}

void Drawing::ask_thumbnails() {
    thumbnails_timer_.stop();
    if (hidden_) return;
    std::vector<std::string> steps;
    for (const std::string& name : in_view_) {
        const CheckedStep* step = find_step(document_.checked(), name);
        if (step != nullptr && step->typed) steps.push_back(name);
    }
    for (const std::string& name : grounds_in_view_) {
        if (find_ground_picture(document_.finish(), name)) steps.push_back(name);
    }
    if (steps.empty()) return;
    RenderRequest small = request_for(std::move(steps));
    make_small(small);
    render_->ask_thumbnails(std::move(small));
}

void Drawing::ask_probe() {
    if (hidden_) return;
    const QSize frame = looked_frame();
    if (probe_points_.empty()) {
        if (seen_checked_ == nullptr) return;
        RenderRequest request = request_for({std::string(seen_step)});
        request.checked = seen_checked_;
        request.points.push_back({frame.width() / 2, frame.height() / 2});
        return render_->ask_probe(std::move(request));
    }
    std::vector<std::string> steps;
    for (const CheckedStep& step : document_.checked().steps) {
        // The stored parts of a step have no row.
        if (step.typed && find_step(document_.finish(), step.name) != nullptr) steps.push_back(step.name);
    }
    if (const Ground* scene = first_scene(document_.finish())) {
        steps.push_back(scene->name + "_id");
        steps.push_back(scene->name + "_position");
    }
    if (seen_checked_ != nullptr) steps.emplace_back(seen_step);
    if (steps.empty()) return;
    RenderRequest request = request_for(std::move(steps));
    if (seen_checked_ != nullptr) request.checked = seen_checked_;
    // A smaller frame since: each stays the one it was, at the border.
    for (const PixelPoint& point : probe_points_) {
        request.points.push_back({std::min(point.x, frame.width() - 1), std::min(point.y, frame.height() - 1)});
    }
    render_->ask_probe(std::move(request));
}

}  // namespace lacquer
