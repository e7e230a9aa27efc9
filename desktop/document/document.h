// The open finish: what it is, how it came about, where it lies. Views watch it and give it changed finishes.
#pragma once

#include <QObject>
#include <QString>
#include <QTimer>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/file.h"
#include "core/finish/checked.h"
#include "core/finish/file.h"
#include "core/finish/history.h"
#include "desktop/document/background.h"
#include "desktop/document/disk.h"
#include "desktop/document/notices.h"
#include "desktop/document/prompts.h"
#include "desktop/document/recovery.h"
#include "desktop/document/watched_files.h"
#include "desktop/kit/key_names.h"
#include "desktop/kit/text.h"

namespace lacquer {

/// The one door to the open finish: what others do with it goes through here, so it has more functions than others.
class Document : public QObject {
    Q_OBJECT

public:
    explicit Document(Prompts prompts, QObject* parent = nullptr);
    ~Document() override;

    const Finish& finish() const { return *history_.now(); }
    const CheckedFinish& checked() const { return *checked_; }
    /// The same, to be kept for as long as somebody draws it.
    const std::shared_ptr<const CheckedFinish>& shared_checked() const { return checked_; }
    const std::string& path() const { return path_; }
    bool edited() const { return history_.now() != saved_ && finish() != *saved_; }
    const History& history() const { return history_; }

    /// Operations to use from here on; the finish is understood anew.
    void use_catalogue(std::shared_ptr<const Catalogue> catalogue);

    /// Records a changed finish. `what` says it in the user's words ("moved rim up"); changes with one `merge_key` in a
    /// row are undone as one.
    /// While a variant is on, what was changed goes into it; see `into_variant`.
    /// Where it would hold more than a file can, says so and leaves all as it was.
    void edit(Finish changed, const QString& what, const std::string& merge_key = {});
    /// The same for a change that concerns the finish and all of its variants, whichever is on.
    void edit_all(Finish changed, const QString& what, const std::string& merge_key = {});
    /// Records the changed finish, or shows why there is none. True if there is one.
    bool edit(Result<Finish> changed, const QString& what);
    void seal_edit() { history_.seal(); }
    void undo();
    void redo();
    /// Goes to an entry of the history, however far.
    void go_to(std::size_t entry);
    /// While the user drags: all changes of one kind are one, and files are looked at afterwards.
    void set_interacting(bool interacting);
    bool interacting() const { return interacting_; }
    /// Calls off what is being dragged: all is as it was before. False if nothing is.
    bool call_off();

    /// The step that commands work on.
    const std::string& selected() const { return selected_; }
    void select(const std::string& step);
    /// All steps that are selected, in the ladder's order; the one above is among them.
    const std::vector<std::string>& selection() const { return selection_; }
    /// From the step that was selected by itself last to this one.
    void select_to(const std::string& step);
    /// Puts a step into the selection, or takes it out again.
    void toggle_selected(const std::string& step);
    void select_all();

    // Files. Each says what it did or why it could not; false if nothing came of it.
    bool open(const QString& path);
    bool open_asking();
    bool save();
    bool save_as();
    /// A copy elsewhere; the finish stays where it is.
    bool save_copy();
    /// Opens a finish as one that was never saved: a demo is a beginning.
    bool open_copy(const QString& path);
    /// How long after a change unsaved work is kept aside, in seconds.
    void set_autosave(double seconds) { autosave_timer_.setInterval(static_cast<int>(seconds * 1000)); }
    /// A path with the ending that such files have. If it had none and a file of that name is there, asks whether that
    /// may be replaced; empty if it may not.
    QString with_ending(const QString& path, const QString& ending);
    bool start_new();
    /// Asks about unsaved changes; true if it is all right to go on.
    bool may_leave();
    /// What is kept for a crash goes: the work is saved or given up.
    void drop_autosave();
    /// Takes over what was kept aside by a Lacquer that ended before it was saved.
    bool bring_back(const KeptWork& kept);

    /// Puts a dial among the shared ones, in the finish's file of them (asks for one if there is none), or takes it out
    /// again. Says what was wrong.
    QString share_dial(const std::string& name, bool shared);
    /// Takes a shared dial of that file into the finish.
    bool take_shared(const std::string& name);
    /// The shared dials in the finish's file of them; empty if there is none.
    std::vector<Dial> shared_dials();

    /// The keys that hints name; see `with_keys`.
    void set_key_names(KeyNames keys) { key_names_ = std::move(keys); }
    /// Words of a hint, with the keys as they are now.
    QString keyed(const QString& words) const { return with_keys(words, key_names_); }

    /// Shows a line about what was done, or why nothing was; `{action}` in it becomes that action's key.
    void say(const QString& words, Tone tone = Tone::done);
    /// Shows what went wrong; it stays until it is seen.
    void complain(const Fault& fault);
    const Notices& notices() const { return notices_; }
    /// Failures that stay are seen now.
    void see_notices();
    const Prompts& prompts() const { return prompts_; }
    /// Long work on files, beside what goes on in the window.
    Background& background() { return background_; }
    Disk& disk() { return disk_; }
    /// The files that its grounds read and that weren't there when it was looked last.
    const std::vector<std::string>& missing() const { return missing_; }
    /// Whether changes of its files are noticed by now.
    bool watching() const { return files_.watching(); }

Q_SIGNALS:
    void finish_replaced();  ///< for the models that follow it; views watch the next, which comes after
    void finish_changed();
    void selection_changed();
    void was_saved();        ///< its file was written
    void going_to_leave();   ///< it is about to be asked whether there are unsaved changes
    void left();             ///< another finish comes in its place, or the same one read again
    void missing_changed();  ///< files that its grounds read have come or gone
    void files_changed();    ///< something that the finish reads was changed by another program
    void interacting_changed(bool interacting);
    void called_off();  ///< whatever is dragged is let go of
    void said(const QString& words);
    void notices_seen();

private:
    void replaced();
    void set_selection(std::vector<std::string> names);
    void watch_files();
    void adopt(Finish finish, const std::string& path, const Faults& notices);
    Finish moved_to(const std::string& path) const;
    void move_to(const std::string& path);
    bool read(const QString& path, bool as_copy);
    std::string asked_place();
    bool write_to(const std::string& path);
    bool saved(const QString& file, const std::optional<Fault>& not_shared);
    std::string shared_path() const;
    std::optional<Fault> write_shared();
    bool may_write_shared(const std::string& path) const;
    void look_for_missing();
    void reread_shared();
    void take_over(const std::vector<Dial>& shared);
    void keep_soon();
    void autosave();

    Prompts prompts_;
    Notices notices_;
    KeyNames key_names_;
    History history_;
    std::shared_ptr<const Finish> saved_;
    std::shared_ptr<const CheckedFinish> checked_;
    std::shared_ptr<const Catalogue> catalogue_ = built_in_catalogue();
    std::string path_;
    std::optional<FileStamp> on_disk_;     ///< of the file when it was opened or saved last
    std::set<std::string> chosen_shared_;  ///< files of shared dials that the user chose or allowed
    std::vector<Dial> known_shared_;       ///< as they were last read from their file, or written there
    std::string selected_;
    std::string anchor_;  ///< from which a selection is stretched
    std::vector<std::string> selection_;
    bool interacting_ = false;
    std::size_t entry_before_ = 0;  ///< of the history, when the hand began
    QStringList watched_;
    WatchedFiles files_;
    std::vector<std::string> missing_;
    Background background_;
    QTimer autosave_timer_;
    bool autosave_failed_ = false;
    Disk disk_;
};

}  // namespace lacquer
