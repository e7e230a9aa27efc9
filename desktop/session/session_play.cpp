// The session's time, and how it plays.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/session/session.h"

namespace lacquer {

namespace {

constexpr double frames_per_second = 60;

}  // namespace

void Session::set_time(double seconds) {
    // What was played live before belongs to a run that is over now.
    if (!recording_) drop_live();
    time_ = std::clamp(seconds, 0.0, finish().length);
    last_tick_ = clock_();
    moment_changed();
}

void Session::moment_changed() {
    if (play_->held() != held_) replay();
    values_ = play_->values(time_);
    ask();
    emit time_changed();
}

void Session::replay() {
    play_ = std::make_shared<const Play>(checked_, played(), held_);
    values_ = play_->values(time_);
}

std::shared_ptr<const Play> Session::tape_play() const {
    return held_.empty() ? play_ : std::make_shared<const Play>(checked_, played());
}

double Session::loop_from() const { return loop_to_ > loop_from_ ? std::min(loop_from_, finish().length) : 0; }

double Session::loop_to() const {
    return loop_to_ > loop_from_ ? std::min(loop_to_, finish().length) : finish().length;
}

void Session::set_loop(double from, double to) {
    loop_from_ = std::max(from, 0.0);
    loop_to_ = to;
    emit playing_changed();
}

void Session::set_looping(bool looping) {
    looping_ = looping;
    emit playing_changed();
    say(looping ? tr("Plays again and again") : tr("Plays once"));
}

void Session::set_speed(double speed) {
    speed_ = speed;
    emit playing_changed();
    say(speed == 1 ? tr("Full speed") : tr("Slow motion: 1/%1").arg(std::lround(1 / speed)));
}

void Session::set_playing(bool playing) {
    if (playing_ == playing) return;
    if (!playing && recording_) end_recording();
    playing_ = playing;
    last_tick_ = clock_();
    if (playing) {
        stop_checking_rates();
        if (time_ >= loop_to()) time_ = loop_from();
        play_timer_.start();
    } else {
        play_timer_.stop();
        ask();
    }
    emit playing_changed();
}

void Session::tick() {
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

void Session::step_frames(int frames) {
    set_playing(false);
    set_time((std::round(time_ * frames_per_second) + frames) / frames_per_second);
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

}  // namespace lacquer
