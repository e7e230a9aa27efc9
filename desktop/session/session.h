// The open finish and all that the views show of it. Views watch it and send it edits; they never know each other.
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QSize>
#include <QString>
#include <QTimer>
#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/file.h"
#include "core/finish/checked.h"
#include "core/finish/file.h"
#include "core/finish/history.h"
#include "core/finish/play.h"
#include "core/finish/try_on.h"
#include "core/link/receiver.h"
#include "desktop/session/look.h"
#include "desktop/session/prompts.h"
#include "desktop/session/recovery.h"
#include "desktop/session/render_thread.h"

namespace lacquer {

/// Seconds of some steady clock; tests bring their own.
using Clock = std::function<double()>;

class Session : public QObject {
    Q_OBJECT

public:
    Session(Prompts prompts, Clock clock, QObject* parent = nullptr);
    ~Session() override;

    /// Operations to use from here on; the finish is understood anew.
    void use_catalogue(std::shared_ptr<const Catalogue> catalogue);

    /// Programs and pictures, for whoever else draws. Safe from any thread.
    const std::shared_ptr<RenderStores>& stores() const { return stores_; }

    /// Chooses what draws the stage from the next picture on.
    void use_backend(Backend backend) { render_->use_backend(backend); }

    // The document.
    const Finish& finish() const { return *history_.now(); }
    const CheckedFinish& checked() const { return *checked_; }
    const std::string& path() const { return path_; }
    bool edited() const { return history_.now() != saved_ && finish() != *saved_; }
    const History& history() const { return history_; }

    /// Records a changed finish. `what` says it in the user's words ("moved rim up"); changes with one `merge_key` in a
    /// row are undone as one.
    /// Where it would hold more than a file can, says so and leaves all as it was.
    void edit(Finish changed, const QString& what, const std::string& merge_key = {});
    /// Records the changed finish, or shows why there is none. True if there is one.
    bool edit(Result<Finish> changed, const QString& what);
    void seal_edit() { history_.seal(); }
    void undo();
    void redo();
    /// Goes to an entry of the history, however far.
    void go_to(std::size_t entry);

    // Files. Each says what it did or why it could not; false if nothing came of it.
    bool open(const QString& path);
    bool open_asking();
    bool save();
    bool save_as();
    /// A path with the ending that such files have. If it had none and a file of that name is there, asks whether that
    /// may be replaced; empty if it may not.
    QString with_ending(const QString& path, const QString& ending);
    bool start_new();
    /// Asks about unsaved changes; true if it is all right to go on.
    bool may_leave();
    /// What is kept for a crash goes: the work is saved or given up.
    void drop_autosave();
    bool add_picture(const QString& path);
    bool add_picture_asking();
    /// A new finish of this picture's size that works on it.
    bool start_from_picture(const QString& path);
    /// Adds a gradient or a curve with two stops.
    void add_stops(StopValues values);
    /// A file in a ground's place; all that reads it follows.
    void replace_ground(const std::string& name, const QString& path);
    /// Adds a part to a sprite, in its middle and on top; a new sprite of the picture's size if there is none of the
    /// name.
    void add_sprite_part(const std::string& sprite, const QString& path);
    /// Asks for the first file that is missing, and takes all others from about there that have their names.
    void find_missing();
    void add_scene(const ScenePlace& place, Hour hour);
    /// Marks for objects of the first scene; false if there is none.
    bool add_marks();
    /// The first ground with objects to point at; null if there is none.
    const Ground* first_scene() const;
    /// From where a stand-in scene is looked at now.
    Camera camera_of(const Ground& scene) const;
    void set_camera(const std::string& scene, const Camera& camera);
    /// Takes over what was kept aside by a Lacquer that ended before it was saved.
    bool bring_back(const KeptWork& kept);

    // What is looked at.
    const std::string& selected() const { return selected_; }
    void select(const std::string& step);
    /// The step on the stage; empty for the finished picture.
    const std::string& shown() const { return shown_; }
    void show_step(const std::string& step);
    const StagePicture& stage() const { return stage_; }
    /// True while the stage keeps an older picture because the one wanted has a fault.
    bool stage_is_stale() const;
    /// The fault that keeps the wanted picture from being drawn, if any.
    const Fault* stage_fault() const;
    const Thumbnails& thumbnails() const { return thumbnails_; }
    /// Up to date and at rest: nothing is being drawn.
    bool settled() const;
    /// How it is looked at: another look draws anew.
    const Look& look() const { return look_; }
    void set_look(Look look);
    /// The frame that is looked at, in pixels.
    QSize looked_frame() const;
    /// The size at which the stage shows whole pictures, in screen pixels; empty if it does not.
    void set_view_size(QSize size) { view_size_ = size; }
    /// The rows in view; only they get new thumbnails.
    void set_rows_in_view(std::vector<std::string> steps);
    /// The same for pictures of grounds.
    void set_grounds_in_view(std::vector<std::string> pictures);
    /// Pixels of the frame whose values all steps are asked for, again at each change; none stops that.
    void set_probe_points(std::vector<PixelPoint> points);
    const Probe& probe() const { return probe_; }
    /// What inspections tell, of late.
    const Warnings& warnings() const { return warnings_; }
    bool inspected() const { return render_->inspected() && !inspect_timer_.isActive(); }

    /// Plays the tape at several frame rates; the report comes with `rates_changed`. Time stands meanwhile. Once more,
    /// and the check is stopped.
    void check_rates();
    /// The last report, if nothing has changed since; null otherwise.
    const RateReport* rates() const { return rates_ ? &*rates_ : nullptr; }
    bool checking_rates() const { return checking_rates_; }

    // Candidates: formulas that might stand at a place.
    /// Asks for small pictures of formulas below a step or in its place; they come under `candidate_name(index)`.
    void ask_candidates(const std::string& at, TryOnUse use, const std::vector<std::string>& formulas);
    const Thumbnails& candidates() const { return candidates_; }
    /// Shows a candidate on the stage until it is put away or something is changed.
    void show_candidate(const std::string& formula, TryOnUse use, const std::string& words = {});
    /// What the shown candidate is called.
    const std::string& candidate_words() const { return candidate_words_; }
    void put_candidate_away();
    bool shows_candidate() const { return preview_ != nullptr; }

    // Time and play.
    double time() const { return time_; }
    void set_time(double seconds);
    bool playing() const { return playing_; }
    void set_playing(bool playing);
    void step_frames(int frames);
    /// How fast time runs: 1, or less for slow motion.
    double speed() const { return speed_; }
    void set_speed(double speed);
    /// The part that is played again and again, in seconds; the whole length where `to` is not above `from`.
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
    /// The cue that a click in the picture plays; empty for the first.
    const std::string& chosen_cue() const { return chosen_cue_; }
    void choose_cue(const std::string& cue) { chosen_cue_ = cue; }
    /// Sets a signal now. A place also turns the switches of the zones that it enters or leaves.
    void set_signal(const std::string& name, const std::array<double, 3>& value);
    // The play link: a game that plays along.
    /// Listens at a port, to this machine only unless `everywhere`. False, with the reason said, if that cannot be.
    bool listen(int port, bool everywhere = false);
    void stop_listening();
    /// Null while nothing is listened to.
    const LinkReceiver* link() const { return link_.get(); }
    /// True if something was played live that is on no tape; `keep_live` puts it there.
    bool has_live() const { return !live_.empty(); }
    void keep_live();
    /// A signal's value now.
    std::array<double, 3> signal_now(const Signal& signal) const;
    void clear_tape();
    bool open_tape(const QString& path);
    bool save_tape(const QString& path);
    const DriveValues& values() const { return values_; }
    /// All that is played now: the tape, what is live, held dials.
    const Play& play() const { return *play_; }
    /// The tape and what is live, without held dials: what was and what will be.
    std::shared_ptr<const Play> tape_play() const;
    /// The tape with what is live or being recorded.
    const Tape& played() const { return live_tape_ != nullptr ? *live_tape_ : finish().tape; }
    /// Numbers in 0..1 for what is random in play; tests bring their own.
    void set_random(std::function<double()> random) { random_ = std::move(random); }

    // Dials.
    const HeldDials& held() const { return held_; }
    /// Sets a dial's working value; a driven one is held there instead, unsaved.
    void set_dial(const std::string& name, const DialValue& value);
    /// Puts a dial among the shared ones, in the finish's file of them (asks for one if there is none), or takes it out
    /// again. Says what was wrong.
    QString share_dial(const std::string& name, bool shared);
    /// Takes a shared dial of that file into the finish.
    bool take_shared(const std::string& name);
    /// The shared dials in the finish's file of them; empty if there is none.
    std::vector<Dial> shared_dials() const;
    void let_go(const std::string& name);
    void let_go_all();

    /// While the user drags, pictures that were drawn smaller to be in time are not sharpened yet.
    void set_interacting(bool interacting);
    /// True in a drag from a change until its picture is there, or until that has taken too long to be waited for: the
    /// window is painted once, with number and picture together, and not in between.
    bool stage_is_coming() const { return coming_timer_.isActive(); }

    /// A file that is being read for longer than a moment, and how far that has come; empty if there is none.
    const QString& reading() const { return reading_; }
    double reading_share() const { return reading_share_; }
    /// Stops that reading; the picture shows as black. False if nothing is being read.
    bool stop_reading();

    /// Shows a line about what was done or went wrong.
    void say(const QString& words);
    const Prompts& prompts() const { return prompts_; }

Q_SIGNALS:
    void finish_changed();
    void selection_changed();
    void time_changed();
    void playing_changed();
    void played_changed();  ///< what is played is another, or another finish
    void stage_changed();
    void stage_came();  ///< what `stage_is_coming` told of is over
    void thumbnails_changed();
    void look_changed();
    void probe_changed();
    void candidates_changed();
    void warnings_changed();
    void rates_changed();
    void link_changed();  ///< it listens or not, or something came
    void reading_changed();
    void said(const QString& words);

private:
    void finish_replaced();
    void add_ground(Ground ground, const QString& what);
    void watch_files();
    void adopt(Finish finish, const std::string& path, const Faults& notices);
    bool write_to(const std::string& path);
    std::string shared_path() const;
    std::optional<Fault> write_shared();
    bool may_write_shared(const std::string& path) const;
    void reread_shared();
    void moment_changed();
    void replay();
    void add_live(const Tape& events);
    void drop_live();
    void merge_live();
    void end_recording();
    void add_recorded(const Tape& events);
    void take_arrivals();
    void tell_link_names();
    void prune_live();
    bool is_live() const { return playing_ || recording_; }
    void ask();
    void ask_thumbnails();
    void ask_probe();
    StageRequest stage_request() const;
    RenderRequest request_for(std::vector<std::string> steps) const;
    void make_small(RenderRequest& request) const;
    RenderResults results();
    void tick();
    void keep_soon();
    void autosave();
    void stop_checking_rates();

    Prompts prompts_;
    Clock clock_;
    History history_;
    std::shared_ptr<const Finish> saved_;
    std::shared_ptr<const CheckedFinish> checked_;
    std::shared_ptr<const Catalogue> catalogue_ = built_in_catalogue();
    std::string path_;
    std::optional<FileStamp> on_disk_;     ///< of the file when it was opened or saved last
    std::set<std::string> chosen_shared_;  ///< files of shared dials that the user chose or allowed
    std::string selected_;
    std::string shown_;
    StagePicture stage_;
    StageRequest last_stage_;  ///< of the last good picture
    Thumbnails thumbnails_;
    Look look_;
    QSize view_size_;
    std::vector<std::string> in_view_;
    std::vector<std::string> grounds_in_view_;
    std::vector<PixelPoint> probe_points_;
    Probe probe_;
    Warnings warnings_;
    std::optional<RateReport> rates_;
    bool checking_rates_ = false;
    Thumbnails candidates_;
    std::shared_ptr<const CheckedFinish> preview_;
    std::string candidate_words_;
    double time_ = 0;
    bool playing_ = false;
    double last_tick_ = 0;
    double speed_ = 1;
    bool looping_ = true;
    double loop_from_ = 0;
    double loop_to_ = 0;
    bool recording_ = false;
    std::string chosen_cue_;
    HeldDials held_;
    DriveValues values_;
    std::shared_ptr<const Play> play_;
    std::shared_ptr<const Tape> live_tape_;  ///< the finish's with what is live; null where that is nothing
    Tape live_;                              ///< what is live, by itself, as far as it still matters
    Tape recorded_;                          ///< what was recorded since recording began
    std::unique_ptr<LinkReceiver> link_;
    QTimer link_timer_;  ///< fetches what came, also while nothing plays
    std::function<double()> random_;
    bool interacting_ = false;
    QString reading_;
    double reading_share_ = 0;
    QFileSystemWatcher files_;  ///< that grounds read: what is changed there is drawn anew
    QTimer files_timer_;        ///< a file is often written in several goes
    QTimer play_timer_;
    QTimer autosave_timer_;
    bool autosave_failed_ = false;
    QTimer thumbnails_timer_;  ///< in a drag and in play they follow a little later, so that the stage goes first
    QTimer coming_timer_;      ///< how long the window waits for the stage's picture
    QTimer inspect_timer_;     ///< inspections begin when nothing has changed for a while
    std::shared_ptr<RenderStores> stores_ = std::make_shared<RenderStores>();
    std::unique_ptr<RenderThread> render_;
};

inline QString qs(const std::string& text) { return QString::fromStdString(text); }

}  // namespace lacquer
