// The session's time, cues and dials.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/session/session.h"

namespace lacquer {

namespace {

constexpr double frames_per_second = 60;

}  // namespace

void Session::set_time(double seconds) {
    time_ = std::clamp(seconds, 0.0, finish().length);
    last_tick_ = clock_();
    moment_changed();
}

void Session::moment_changed() {
    values_ = drive_values(*checked_, {time_, finish().tape}, held_);
    ask();
    emit time_changed();
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

}  // namespace lacquer
