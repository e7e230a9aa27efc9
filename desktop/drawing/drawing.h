// What is drawn of the open finish: the stage, small pictures, values at points, what inspections tell.
#pragma once

#include <QObject>
#include <QSize>
#include <QString>
#include <QTimer>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/finish/seen_variable.h"
#include "core/finish/try_on.h"
#include "desktop/drawing/look.h"
#include "desktop/drawing/render_thread.h"
#include "desktop/playing/playing.h"

namespace lacquer {

/// What drawing may use of the machine.
struct DrawingLimits {
    int threads = 0;  ///< 0 is one for each processor
    PictureLimits pictures = {};
    PassWatch watch = nullptr;  ///< is told of all that is drawn
};

class Drawing : public QObject {
    Q_OBJECT

public:
    Drawing(Document& document, Playing& playing, const DrawingLimits& limits = {}, QObject* parent = nullptr);
    ~Drawing() override;

    /// Programs and pictures, for whoever else draws. Safe from any thread.
    const std::shared_ptr<RenderStores>& stores() const { return stores_; }
    /// While nobody can see the window nothing is drawn; what was wanted meanwhile is drawn when it is seen again.
    void set_hidden(bool hidden);
    /// Chooses what draws the stage from the next picture on.
    void use_backend(Backend backend) { render_->use_backend(backend); }

    /// The step on the stage; empty for the finished picture.
    const std::string& shown() const { return shown_; }
    void show_step(const std::string& step);
    const StagePicture& stage() const { return stage_; }
    /// Whether pictures in a drag and in play are to bring their numbers along, as those at rest always do.
    void want_values(bool wanted) { values_wanted_ = wanted; }
    /// True while the stage keeps an older picture because the one wanted has a fault.
    bool stage_is_stale() const { return stage_fault() != nullptr; }
    /// The fault that keeps the wanted picture from being drawn, if any.
    const Fault* stage_fault() const;
    /// True in a drag from a change until its picture is there, or until that has taken too long to be waited for: the
    /// window is painted once, with number and picture together, and not in between.
    bool stage_is_coming() const { return coming_timer_.isActive(); }
    /// Up to date and at rest: nothing is being drawn.
    bool settled() const { return render_->idle(); }

    /// How it is looked at: another look draws anew.
    const Look& look() const { return look_; }
    void set_look(Look look);
    /// The frame that is looked at, in pixels.
    QSize looked_frame() const;
    /// The size at which the stage shows whole pictures, in screen pixels; empty if it does not.
    void set_view_size(QSize size) { view_size_ = size; }

    const Thumbnails& thumbnails() const { return thumbnails_; }
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

    /// A variable of a step's code that is looked at. Its value at the first of the probe's points, else in the middle
    /// of the frame, comes with the probe as the step `seen_step`; on the stage it is the picture, too.
    struct Seen {
        std::string step;
        SeenVariable variable;
        bool on_stage = false;
    };
    /// Nothing ends that.
    void see(std::optional<Seen> seen);
    const std::optional<Seen>& seen() const { return seen_; }
    bool shows_variable() const { return preview_ != nullptr && preview_ == seen_checked_; }

    /// A file that is being read for longer than a moment, and how far that has come; empty if there is none.
    const QString& reading() const { return reading_; }
    double reading_share() const { return reading_share_; }
    /// How far ticks have come that take long, 0..1; 1 where there are none on the way.
    double ticks_share() const { return ticks_share_; }
    /// Stops that reading; the picture shows as black. False if nothing is being read.
    bool stop_reading();

Q_SIGNALS:
    void shown_changed();
    void stage_changed();
    void stage_came();  ///< what `stage_is_coming` told of is over
    void thumbnails_changed();
    void look_changed();
    void probe_changed();
    void candidates_changed();
    void warnings_changed();
    void rates_changed();
    void reading_changed();

private:
    void follow_finish();
    void leave();
    void follow_seen();
    void ask();
    void ask_thumbnails();
    void ask_probe();
    void stop_checking_rates();
    void take_stage(StagePicture done);
    void sharpen();
    StageRequest stage_request() const;
    RenderRequest request_for(std::vector<std::string> steps) const;
    void make_small(RenderRequest& request) const;
    RenderResults results();

    Document& document_;
    Playing& playing_;
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
    bool hidden_ = false;
    bool values_wanted_ = false;
    Thumbnails candidates_;
    std::shared_ptr<const CheckedFinish> preview_;
    std::string candidate_words_;
    std::optional<Seen> seen_;
    std::shared_ptr<const CheckedFinish> seen_checked_;  ///< with the variable as a step; null if it has a fault
    QString reading_;
    double reading_share_ = 0;
    double ticks_share_ = 1;
    QTimer thumbnails_timer_;  ///< in a drag and in play they follow a little later, so that the stage goes first
    QTimer coming_timer_;      ///< how long the window waits for the stage's picture
    QTimer inspect_timer_;     ///< inspections begin when nothing has changed for a while
    std::shared_ptr<RenderStores> stores_;
    std::unique_ptr<RenderThread> render_;
};

}  // namespace lacquer
