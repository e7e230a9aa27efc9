// The time of the open finish and what is played in it: its tape, what is pressed and set live, dials that are held.
#pragma once

#include <QObject>
#include <QString>
#include <QTimer>
#include <array>
#include <functional>
#include <memory>
#include <string>

#include "core/finish/play.h"
#include "desktop/document/document.h"
#include "desktop/kit/chosen_names.h"

namespace lacquer {

/// Seconds of some steady clock; tests bring their own.
using Clock = std::function<double()>;

/// The cues of a finish, in the order of their pads.
std::vector<std::string> names_of_cues(const Finish& finish);

class Playing : public QObject {
    Q_OBJECT

public:
    Playing(Document& document, Clock clock, QObject* parent = nullptr);
    ~Playing() override;

    // Time, in seconds from the finish's start.
    double time() const { return time_; }
    void set_time(double seconds);
    /// The moment that something happened at, by the clock, as it is played.
    double moment_of(double clock_seconds) const;
    bool playing() const { return playing_; }
    void set_playing(bool playing);
    void step_frames(int frames);
    /// How fast time runs: 1, or less for slow motion.
    double speed() const { return speed_; }
    void set_speed(double speed);
    /// The part that is played in a loop, in seconds; the whole length where `to` is not above `from`.
    double loop_from() const;
    double loop_to() const;
    void set_loop(double from, double to);
    /// Whether it begins again at its end; else it stops there.
    bool looping() const { return looping_; }
    void set_looping(bool looping);

    /// While it plays and nothing is recorded, cues and signals work live and leave the tape as it is. When it stands,
    /// they go on the tape at once. What is recorded goes there as one change, when recording ends.
    bool recording() const { return recording_; }
    void set_recording(bool recording);
    /// Plays a cue at its time.
    void press_cue(Cue cue);
    /// Plays a cue as its pad has it: with the pad's strength, or a random one in its range.
    void press_pad(const CueKind& cue);
    void press_pad(const CueKind& cue, double at, double x, double y, int object);
    /// The cues that are chosen on their pads. The one of them is that which a click in the picture plays; if there is
    /// none, the first does.
    const ChosenNames& chosen_cues() const { return chosen_cues_; }
    void choose_cues(ChosenNames chosen);
    /// Sets a signal now. A place also turns the switches of the zones that it enters or leaves.
    void set_signal(const std::string& name, const std::array<double, 3>& value);
    /// Plays these live, and records them if it records.
    void play_live(const Tape& events);
    /// True if something was played live that is on no tape; `keep_live` puts it there.
    bool has_live() const { return !live_.empty(); }
    void keep_live();
    void clear_tape();
    bool open_tape(const QString& path);
    bool save_tape(const QString& path);

    /// What everything is worth now.
    const DriveValues& values() const { return values_; }
    std::array<double, 3> signal_now(const Signal& signal) const;
    /// All that is played now: the tape, what is live, held dials.
    const Play& play() const { return *play_; }
    /// The tape and what is live, without held dials: what was and what will be.
    std::shared_ptr<const Play> tape_play() const;
    /// The tape with what is live or being recorded.
    const Tape& played() const { return live_tape_ != nullptr ? *live_tape_ : document_.finish().tape; }
    /// The same for whoever draws; null where nothing is live.
    const std::shared_ptr<const Tape>& live_tape() const { return live_tape_; }
    /// Numbers in 0..1 for what is random in play; tests bring their own.
    void set_random(std::function<double()> random) { random_ = std::move(random); }

    const HeldDials& held() const { return held_; }
    /// Sets a dial's working value; a driven one is held there instead, unsaved.
    void set_dial(const std::string& name, const DialValue& value);
    void let_go(const std::string& name);
    void let_go_all();

Q_SIGNALS:
    void time_changed();
    void playing_changed();
    void played_changed();  ///< what is played is another, or another finish

private:
    void follow_finish();
    void leave();
    void moment_changed();
    void replay();
    void drop_live();
    void merge_live();
    void end_recording();
    void add_recorded(const Tape& events);
    void prune_live();
    bool is_live() const { return playing_ || recording_; }
    void tick();

    Document& document_;
    Clock clock_;
    double time_ = 0;
    bool playing_ = false;
    double last_tick_ = 0;
    double speed_ = 1;
    bool looping_ = true;
    double loop_from_ = 0;
    double loop_to_ = 0;
    bool recording_ = false;
    ChosenNames chosen_cues_;
    HeldDials held_;
    HeldDials held_before_;  ///< when the hand began, to come back to
    double time_before_ = 0;
    DriveValues values_;
    std::shared_ptr<const Play> play_;
    std::shared_ptr<const Tape> live_tape_;  ///< the finish's with what is live; null where that is nothing
    Tape live_;                              ///< what is live, by itself, as far as it still matters
    Tape recorded_;                          ///< what was recorded since recording began
    std::function<double()> random_;
    QTimer play_timer_;
};

}  // namespace lacquer
