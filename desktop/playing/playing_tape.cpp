// The tape: what is pressed and set goes on it, or is only played live.
#include <QFileInfo>
#include <algorithm>
#include <utility>

#include "core/base/text.h"
#include "core/finish/limits.h"
#include "core/finish/tape_file.h"
#include "desktop/playing/playing.h"

namespace lacquer {

namespace {

void add_all(Tape& tape, const Tape& events) {
    for (const Cue& cue : events.cues) add_to_tape(tape, cue);
    for (const Change& change : events.changes) add_to_tape(tape, change);
}

}  // namespace

void Playing::play_live(const Tape& events) {
    if (recording_) add_recorded(events);
    add_all(live_, events);
    prune_live();
    merge_live();
    replay();
    emit played_changed();
    moment_changed();
}

// As many as the tape has room for.
void Playing::add_recorded(const Tape& events) {
    const std::size_t room = room_on(document_.finish().tape);
    const auto taken = [this] { return recorded_.cues.size() + recorded_.changes.size(); };
    const bool was_full = taken() >= room;
    for (const Cue& cue : events.cues) {
        if (taken() < room) add_to_tape(recorded_, cue);
    }
    for (const Change& change : events.changes) {
        if (taken() < room) add_to_tape(recorded_, change);
    }
    if (!was_full && taken() >= room)
        document_.say(
            tr("The tape is full at %1 cues and changes; what follows is played, not recorded").arg(max_tape_events));
}

// What lies far back moves nothing any more, and a flood of it would only cost time.
void Playing::prune_live() {
    constexpr std::size_t most = 2'000;
    const auto prune = [](auto& events) {
        if (events.size() > most) events.erase(events.begin(), events.end() - most);
    };
    prune(live_.cues);
    prune(live_.changes);
}

void Playing::merge_live() {
    live_tape_.reset();
    if (live_.empty()) return;
    auto now = std::make_shared<Tape>(document_.finish().tape);
    add_all(*now, live_);
    live_tape_ = std::move(now);
}

void Playing::drop_live() {
    if (live_tape_ == nullptr) return;
    live_ = Tape();
    live_tape_.reset();
    replay();
    emit played_changed();
}

void Playing::set_recording(bool recording) {
    if (recording == recording_) return;
    if (recording) {
        drop_live();
        recording_ = true;
        set_playing(true);
        document_.say(tr("Recording: cues and signals go on the tape"));
    } else {
        end_recording();
    }
    emit playing_changed();
}

void Playing::end_recording() {
    recording_ = false;
    if (recorded_.empty()) {
        document_.say(tr("Nothing was recorded"));
        return;
    }
    live_ = Tape();
    const Tape recorded = std::exchange(recorded_, Tape());
    Finish changed = document_.finish();
    const std::size_t count = recorded.cues.size() + recorded.changes.size();
    add_all(changed.tape, recorded);
    document_.edit(std::move(changed), tr("Recorded %1").arg(tr("%n event(s)", nullptr, static_cast<int>(count))));
}

void Playing::keep_live() {
    if (live_.empty()) return document_.say(tr("Nothing was played live in this round"));
    Finish changed = document_.finish();
    add_all(changed.tape, live_);
    if (const Result<Done> fits = within_limits(changed); !fits) return document_.complain(fits.fault());
    live_ = Tape();
    document_.edit(std::move(changed), tr("Kept what was played live"));
    emit played_changed();
}

void Playing::press_cue(Cue cue) {
    if (is_live()) {
        play_live({{cue}, {}});
        return;
    }
    Finish changed = document_.finish();
    const QString words =
        tr("Cue %1 %2 at %3 s").arg(qs(shown_name(cue.name))).arg(cue.strength, 0, 'f', 2).arg(time_, 0, 'f', 2);
    add_to_tape(changed.tape, std::move(cue));
    document_.edit(std::move(changed), words);
}

void Playing::press_pad(const CueKind& cue) { press_pad(cue, time_, 0.5, 0.5, 0); }

void Playing::press_pad(const CueKind& cue, double at, double x, double y, int object) {
    const double strength =
        cue.weakest ? *cue.weakest + (cue.strength - *cue.weakest) * std::clamp(random_(), 0.0, 1.0) : cue.strength;
    press_cue({cue.name, at, strength, cue.direction, x, y, object});
}

std::array<double, 3> Playing::signal_now(const Signal& signal) const {
    const auto found = values_.find(signal.name);
    return found == values_.end() ? signal.value : setting_from(found->second);
}

void Playing::set_signal(const std::string& name, const std::array<double, 3>& value) {
    const Signal* signal = find_signal(document_.finish(), name);
    if (signal == nullptr) return;
    std::vector<Change> changes = {{name, time_, signal_value(*signal, value)}};
    const double aspect = static_cast<double>(document_.finish().frame_width) / document_.finish().frame_height;
    for (const Signal& zone : document_.finish().signals) {
        if (signal->kind != SignalKind::place || zone.zone.of != name) continue;
        const double within = is_within(zone.zone, changes[0].value[0], changes[0].value[1], aspect) ? 1 : 0;
        if (signal_now(zone)[0] != within) changes.push_back({zone.name, time_, {within, 0, 0}});
    }
    if (is_live()) {
        play_live({{}, changes});
        return;
    }
    Finish changed = document_.finish();
    for (const Change& change : changes) add_to_tape(changed.tape, change);
    document_.edit(std::move(changed), tr("Set %1 at %2 s").arg(qs(shown_name(name))).arg(time_, 0, 'f', 2),
                   "signal " + name);
}

void Playing::clear_tape() {
    Finish changed = document_.finish();
    changed.tape = Tape();
    document_.edit(std::move(changed), tr("Deleted everything on the tape"));
}

bool Playing::open_tape(const QString& path) {
    using Read = std::pair<Result<NamedTape>, Faults>;
    const auto load = [name = path.toStdString()] {
        Faults notices;
        Result<NamedTape> tape = load_tape(name, notices);
        return Read{std::move(tape), std::move(notices)};
    };
    std::optional<Read> given = document_.disk().read(tr("opening %1").arg(QFileInfo(path).fileName()), load);
    if (!given) {
        document_.say(tr("%1 was not opened").arg(QFileInfo(path).fileName()));
        return false;
    }
    auto& [read, notices] = *given;
    if (!read) {
        document_.complain(read.fault());
        return false;
    }
    Finish changed = document_.finish();
    changed.tape = std::move(read->tape);
    changed.length = std::min(std::max(read->length, end_of(changed.tape)), max_length);
    document_.edit(std::move(changed), notices.empty()
                                           ? tr("Opened the tape %1").arg(QFileInfo(path).fileName())
                                           : tr("Opened the tape %1, but for %2")
                                                 .arg(QFileInfo(path).fileName(),
                                                      tr("%n line(s)", nullptr, static_cast<int>(notices.size()))));
    return true;
}

bool Playing::save_tape(const QString& path) {
    const NamedTape tape{document_.finish().name, document_.finish().length, document_.finish().tape};
    const auto write = [name = path.toStdString(), tape] { return lacquer::save_tape(name, tape); };
    if (const Result<Done> done = document_.disk().wait(tr("saving %1").arg(QFileInfo(path).fileName()), write);
        !done) {
        document_.complain(done.fault());
        return false;
    }
    document_.say(tr("Saved the tape %1").arg(QFileInfo(path).fileName()));
    return true;
}

}  // namespace lacquer
