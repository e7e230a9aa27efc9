// The session's play link: what a game sends is played live, and recorded like what is pressed.
#include <algorithm>
#include <map>

#include "core/base/text.h"
#include "desktop/session/session.h"

namespace lacquer {

namespace {

// Of a signal that is sent many times between two frames, the last value is the one that is seen.
void keep_last_of_each(Changes& changes) {
    std::map<std::string, std::size_t> last;
    for (std::size_t i = 0; i < changes.size(); ++i) last[changes[i].name] = i;
    Changes kept;
    for (std::size_t i = 0; i < changes.size(); ++i) {
        if (last[changes[i].name] == i) kept.push_back(std::move(changes[i]));
    }
    changes = std::move(kept);
}

}  // namespace

bool Session::listen(int port, bool everywhere) {
    stop_listening();
    auto opened = LinkReceiver::open(port, everywhere, clock_);
    if (!opened) {
        say(qs(opened.fault().message + " - " + opened.fault().mend));
        return false;
    }
    link_ = std::move(*opened);
    tell_link_names();
    link_timer_.start();
    say(tr("Listening to a game at port %1%2")
            .arg(link_->port())
            .arg(everywhere ? tr(", from any machine") : QString()));
    emit link_changed();
    return true;
}

void Session::stop_listening() {
    if (link_ == nullptr) return;
    link_timer_.stop();
    link_.reset();
    say(tr("No longer listening to a game"));
    emit link_changed();
}

void Session::tell_link_names() {
    if (link_ == nullptr) return;
    LinkNames names;
    for (const CueKind& cue : finish().cues) names.cues.push_back(cue.name);
    names.signals = finish().signals;
    for (const Dial& dial : finish().dials) names.dials.push_back({dial.code_name, dial.name});
    link_->set_names(std::move(names));
}

// Each cue plays at the time at which it came, not at that of the next frame.
void Session::take_arrivals() {
    LinkArrivals came = link_->fetch();
    for (const LinkUnknown& unknown : came.unknown) {
        say(unknown.nearest.empty()
                ? tr("The game sends %1, which nobody here knows").arg(qs(unknown.address))
                : tr("The game sends %1, which nobody here knows: %2?").arg(qs(unknown.address), qs(unknown.nearest)));
    }
    Tape& events = came.events;
    if (events.empty()) {
        if (!came.unknown.empty()) emit link_changed();
        return;
    }
    keep_last_of_each(events.changes);
    const auto when = [this](double arrived) {
        return playing_ ? std::max(0.0, time_ + (arrived - last_tick_) * speed_) : time_;
    };
    for (Cue& cue : events.cues) cue.at = when(cue.at);
    for (Change& change : events.changes) change.at = when(change.at);
    add_live(events);
    emit link_changed();
}

}  // namespace lacquer
