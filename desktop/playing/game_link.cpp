#include "desktop/playing/game_link.h"

#include <algorithm>
#include <map>

#include "core/base/text.h"
#include "core/finish/kinds.h"

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

constexpr int fetch_ms = 16;

}  // namespace

GameLink::GameLink(Document& document, Playing& playing, Clock clock, QObject* parent)
    : QObject(parent), document_(document), playing_(playing), clock_(std::move(clock)) {
    timer_.setInterval(fetch_ms);
    connect(&timer_, &QTimer::timeout, this, &GameLink::take_arrivals);
    connect(&document_, &Document::finish_replaced, this, &GameLink::tell_names);
}

GameLink::~GameLink() = default;

bool GameLink::listen(int port, bool everywhere) {
    stop_listening();
    auto opened = LinkReceiver::open(port, everywhere, clock_);
    if (!opened) {
        document_.complain(opened.fault());
        return false;
    }
    receiver_ = std::move(*opened);
    tell_names();
    timer_.start();
    document_.say(tr("Listening to a game at port %1%2")
                      .arg(receiver_->port())
                      .arg(everywhere ? tr(", from any machine") : QString()));
    emit changed();
    return true;
}

void GameLink::stop_listening() {
    if (receiver_ == nullptr) return;
    timer_.stop();
    receiver_.reset();
    document_.say(tr("No longer listening to a game"));
    emit changed();
}

void GameLink::tell_names() {
    if (receiver_ == nullptr) return;
    LinkNames names;
    for (const CueKind& cue : document_.finish().cues) names.cues.push_back(cue.name);
    names.signals = document_.finish().signals;
    for (const Dial& dial : document_.finish().dials) {
        names.dials.push_back(
            {dial.code_name, dial.name, std::string(dial_kind_name(dial.kind)), dial.least, dial.most, dial.unit});
    }
    names_ = names;
    receiver_->set_names(std::move(names));
}

void GameLink::answer(const std::vector<LinkArrivals::Asked>& questions) {
    const auto value_of = [this](const std::string& name) {
        const auto found = playing_.values().find(name);
        return found == playing_.values().end() ? std::array<double, 3>{} : setting_from(found->second);
    };
    for (const LinkArrivals::Asked& asked : questions) {
        receiver_->reply(asked,
                         answers_to(asked.question, names_, document_.finish().name, receiver_->port(), value_of));
    }
}

// Each cue plays at the time at which it came, not at that of the next frame.
void GameLink::take_arrivals() {
    LinkArrivals came = receiver_->fetch();
    answer(came.questions);
    for (const LinkUnknown& unknown : came.unknown) {
        document_.say(
            unknown.nearest.empty()
                ? tr("The game sends %1, which is unknown here").arg(qs(unknown.address))
                : tr("The game sends %1, which is unknown here: %2?").arg(qs(unknown.address), qs(unknown.nearest)));
    }
    Tape& events = came.events;
    if (events.empty()) {
        if (!came.unknown.empty()) emit changed();
        return;
    }
    keep_last_of_each(events.changes);
    for (Cue& cue : events.cues) cue.at = playing_.moment_of(cue.at);
    for (Change& change : events.changes) change.at = playing_.moment_of(change.at);
    playing_.play_live(events);
    emit changed();
}

}  // namespace lacquer
