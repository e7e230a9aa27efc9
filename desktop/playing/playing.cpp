#include "desktop/playing/playing.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "core/base/text.h"

namespace lacquer {

namespace {

constexpr double frames_per_second = 60;
constexpr int tick_ms = 16;

}  // namespace

std::vector<std::string> names_of_cues(const Finish& finish) {
    std::vector<std::string> names;
    for (const CueKind& cue : finish.cues) names.push_back(cue.name);
    return names;
}

Playing::Playing(Document& document, Clock clock, QObject* parent)
    : QObject(parent), document_(document), clock_(std::move(clock)) {
    play_timer_.setTimerType(Qt::PreciseTimer);
    play_timer_.setInterval(tick_ms);
    connect(&play_timer_, &QTimer::timeout, this, &Playing::tick);
    random_ = [engine = std::mt19937(std::random_device()())]() mutable {
        return std::uniform_real_distribution<double>(0, 1)(engine);
    };
    connect(&document_, &Document::finish_replaced, this, &Playing::follow_finish);
    connect(&document_, &Document::left, this, &Playing::leave);
    // What is being recorded is unsaved work, too.
    connect(&document_, &Document::going_to_leave, this, [this] { set_recording(false); });
    connect(&document_, &Document::interacting_changed, this, [this](bool interacting) {
        if (!interacting) return;
        held_before_ = held_;
        time_before_ = time_;
    });
    connect(&document_, &Document::called_off, this, [this] {
        held_ = held_before_;
        set_time(time_before_);
    });
    follow_finish();
}

Playing::~Playing() = default;

// What is gone can be neither held nor played.
void Playing::follow_finish() {
    const std::vector<std::string> cues = names_of_cues(document_.finish());
    const bool some_are_left =
        std::any_of(cues.begin(), cues.end(), [this](const std::string& name) { return chosen_cues_.holds(name); });
    if (some_are_left) {
        chosen_cues_.keep_among(cues);
    } else {
        chosen_cues_.choose({});
    }
    time_ = std::min(time_, document_.finish().length);
    for (auto held = held_.begin(); held != held_.end();) {
        held = find_dial(document_.finish(), held->first) == nullptr ? held_.erase(held) : std::next(held);
    }
    merge_live();
    replay();
}

void Playing::choose_cues(ChosenNames chosen) {
    chosen_cues_ = std::move(chosen);
    emit played_changed();
}

void Playing::leave() {
    set_playing(false);
    held_.clear();
    recording_ = false;
    live_ = recorded_ = Tape();
    time_ = 0;
}

void Playing::set_time(double seconds) {
    // What was played live before belongs to a run that is over now.
    if (!recording_) drop_live();
    time_ = std::clamp(seconds, 0.0, document_.finish().length);
    last_tick_ = clock_();
    moment_changed();
}

double Playing::moment_of(double clock_seconds) const {
    return playing_ ? std::max(0.0, time_ + (clock_seconds - last_tick_) * speed_) : time_;
}

void Playing::moment_changed() {
    if (play_->held() != held_) replay();
    values_ = play_->values(time_);
    emit time_changed();
}

void Playing::replay() {
    play_ = std::make_shared<const Play>(document_.shared_checked(), played(), held_);
    values_ = play_->values(time_);
}

std::shared_ptr<const Play> Playing::tape_play() const {
    return held_.empty() ? play_ : std::make_shared<const Play>(document_.shared_checked(), played());
}

double Playing::loop_from() const {
    return loop_to_ > loop_from_ ? std::min(loop_from_, document_.finish().length) : 0;
}

double Playing::loop_to() const {
    return loop_to_ > loop_from_ ? std::min(loop_to_, document_.finish().length) : document_.finish().length;
}

void Playing::set_loop(double from, double to) {
    loop_from_ = std::max(from, 0.0);
    loop_to_ = to;
    emit playing_changed();
}

void Playing::set_looping(bool looping) {
    looping_ = looping;
    emit playing_changed();
    document_.say(looping ? tr("Plays in a loop") : tr("Plays once"));
}

void Playing::set_speed(double speed) {
    speed_ = speed;
    emit playing_changed();
    document_.say(speed == 1 ? tr("Full speed") : tr("Slow motion: 1/%1").arg(std::lround(1 / speed)));
}

void Playing::set_playing(bool playing) {
    if (playing_ == playing) return;
    if (!playing && recording_) end_recording();
    playing_ = playing;
    last_tick_ = clock_();
    if (playing) {
        if (time_ >= loop_to()) time_ = loop_from();
        play_timer_.start();
    } else {
        play_timer_.stop();
    }
    emit playing_changed();
}

void Playing::tick() {
    const double now = clock_();
    time_ += (now - last_tick_) * speed_;
    last_tick_ = now;
    const double end = loop_to();
    if (time_ >= end) {
        const double span = end - loop_from();
        if (!looping_) {
            time_ = end;
            moment_changed();
            return set_playing(false);
        }
        // Again from the tape's beginning: what was only live is over, what is recorded sounds again.
        if (recording_) {
            live_ = recorded_;
            merge_live();
            replay();
        } else {
            drop_live();
        }
        time_ = span > 0 ? loop_from() + std::fmod(time_ - loop_from(), span) : loop_from();
    }
    moment_changed();
}

void Playing::step_frames(int frames) {
    set_playing(false);
    set_time((std::round(time_ * frames_per_second) + frames) / frames_per_second);
}

void Playing::set_dial(const std::string& name, const DialValue& value) {
    const Dial* dial = find_dial(document_.finish(), name);
    if (dial == nullptr) return;
    if (!dial->formula.empty()) {
        held_[name] = value;
        moment_changed();
        return;
    }
    Finish changed = document_.finish();
    for (Dial& d : changed.dials) {
        if (d.name == name) d.value = value;
    }
    document_.edit(std::move(changed), tr("Set %1").arg(qs(shown_name(name))), "dial " + name);
}

void Playing::let_go(const std::string& name) {
    if (held_.erase(name) == 0) return;
    moment_changed();
    document_.say(tr("%1 is driven again").arg(qs(shown_name(name))));
}

void Playing::let_go_all() {
    if (held_.empty()) return;
    held_.clear();
    moment_changed();
    document_.say(tr("All dials are driven again"));
}

}  // namespace lacquer
