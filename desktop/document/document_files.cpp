// Opening and saving, and what is kept aside in case of a crash.
#include <QFileInfo>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"
#include "core/finish/find_pictures.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/shared_dials.h"
#include "desktop/document/document.h"
#include "desktop/document/open_mark.h"
#include "desktop/document/recovery.h"

namespace lacquer {

namespace {

struct ReadFinish {
    Result<OpenedFinish> opened;
    FoundFiles found;
    std::optional<FileStamp> stamp;
};

// The finish is written, and then looked at as it lies there.
struct Written {
    Result<Done> done;
    std::optional<FileStamp> stamp;
};

}  // namespace

void Document::adopt(Finish finish, const std::string& path, const Faults& notices) {
    emit left();
    drop_autosave();
    history_ = History(std::move(finish));
    saved_ = history_.now();
    move_to(path);
    on_disk_.reset();
    chosen_shared_.clear();
    known_shared_ = shared_dials_of(this->finish(), {});
    selected_.clear();
    anchor_.clear();
    selection_.clear();
    replaced();
    emit selection_changed();
    if (!notices.empty()) {
        say(tr("%1 (%2 in the file could not be used)")
                .arg(qs(to_text(notices.front())), tr("%n thing(s)", nullptr, static_cast<int>(notices.size()))));
    }
}

// Whoever else has it open is told of.
void Document::move_to(const std::string& path) {
    disk_.then(
        this,
        [before = path_, path] {
            if (before != path) unmark_open(before);
            return mark_open(path);
        },
        [this, path](bool elsewhere) {
            if (!elsewhere || path != path_) return;
            say(tr("%1 is open in another Lacquer, too: whichever saves second is asked first")
                    .arg(QFileInfo(qs(path)).fileName()),
                Tone::failed);
        });
    path_ = path;
}

bool Document::open(const QString& path) { return read(path, false); }

bool Document::open_copy(const QString& path) { return read(path, true); }

bool Document::read(const QString& path, bool as_copy) {
    std::error_code code;
    const std::string full = std::filesystem::absolute(path.toStdString(), code).lexically_normal().string();
    auto read = disk_.read(tr("opening %1").arg(QFileInfo(path).fileName()), [name = path.toStdString(), full] {
        ReadFinish given{load_finish(name), {}, stamp_of(full)};
        // What was moved along with the finish is found again by name.
        if (given.opened) given.found = find_by_name(given.opened->finish, full, folder_of(full));
        return given;
    });
    if (!read) {
        say(tr("%1 was not opened").arg(QFileInfo(path).fileName()));
        return false;
    }
    if (!read->opened) {
        complain(read->opened.fault());
        return false;
    }
    auto& [opened, found, stamp] = *read;
    const QString file = as_copy ? tr("a copy of %1").arg(qs(opened->finish.name)) : QFileInfo(path).fileName();
    say(found.moved.empty() ? tr("Opened %1").arg(file)
                            : tr("Opened %1, and found %2 by name")
                                  .arg(file, tr("%n file(s)", nullptr, static_cast<int>(found.moved.size()))));
    if (as_copy) {
        // It has no place yet, so that its files are named in full.
        for (Finish* finish : {&opened->finish, &found.finish}) *finish = moved_paths(*finish, full, {});
    }
    adopt(std::move(opened->finish), as_copy ? std::string() : full, opened->notices);
    if (!as_copy) on_disk_ = stamp;
    if (!found.moved.empty())
        edit_all(std::move(found.finish), tr("Found %1 again").arg(qs(found.moved.front().second)));
    return true;
}

bool Document::open_asking() {
    if (!may_leave()) return false;
    const QString path = prompts_.finish_to_open(qs(path_));
    return !path.isEmpty() && open(path);
}

// As it is written to that file: its own files are named from there.
Finish Document::moved_to(const std::string& path) const {
    return path == path_ ? finish() : moved_paths(finish(), path_, path);
}

bool Document::write_to(const std::string& path) {
    const QString file = QFileInfo(qs(path)).fileName();
    const auto there = disk_.wait(tr("looking at %1").arg(file), [path] { return stamp_of(path); });
    if (path == path_ && there && there != on_disk_) {
        const auto answer = prompts_.changed_on_disk != nullptr ? prompts_.changed_on_disk(file) : ChangedOnDisk::stay;
        if (answer == ChangedOnDisk::save_elsewhere) {
            const std::string elsewhere = asked_place();
            if (elsewhere.empty()) return false;
            if (elsewhere != path) return write_to(elsewhere);
        }
        if (answer != ChangedOnDisk::replace) {
            say(tr("%1 was changed by another program; it is as it was, and so is your work").arg(file));
            return false;
        }
    }
    const std::optional<Fault> not_shared = write_shared();
    // Time goes on while it is written, and play may be recorded: what is saved is what was there now.
    const auto before = history_.now();
    Finish moved = moved_to(path);
    const Written written = disk_.wait(tr("saving %1").arg(file), [path, moved] {
        return Written{save_finish(path, moved), stamp_of(path)};
    });
    if (!written.done) {
        complain(written.done.fault());
        return false;
    }
    drop_autosave();
    const bool as_written = history_.now() == before;
    Finish here = moved_to(path);
    move_to(path);
    on_disk_ = written.stamp;
    if (here != finish()) {
        history_.record(std::move(here), tr("Saved elsewhere").toStdString());
        replaced();
    }
    history_.seal();
    saved_ = as_written ? history_.now() : std::make_shared<const Finish>(std::move(moved));
    if (!as_written) keep_soon();
    return saved(file, not_shared);
}

bool Document::saved(const QString& file, const std::optional<Fault>& not_shared) {
    const QString words = tr("Saved %1").arg(file);
    if (not_shared) {
        say(tr("%1, but not its shared dials: %2").arg(words, qs(to_text(*not_shared))), Tone::failed);
    } else {
        say(words);
    }
    emit finish_changed();
    emit was_saved();
    return true;
}

bool Document::save() { return path_.empty() ? save_as() : write_to(path_); }

bool Document::save_as() {
    const std::string path = asked_place();
    return !path.empty() && write_to(path);
}

// Where the user wants it to be, in full; empty if nowhere.
std::string Document::asked_place() {
    const std::string proposed = path_.empty() ? identifier_from(finish().name) + ".lacquer" : path_;
    const QString path = with_ending(prompts_.finish_to_save(qs(proposed)), QStringLiteral(".lacquer"));
    if (path.isEmpty()) return {};
    std::error_code code;
    return std::filesystem::absolute(path.toStdString(), code).lexically_normal().string();
}

bool Document::save_copy() {
    const std::string proposed = identifier_from(finish().name) + "-copy.lacquer";
    const QString chosen = with_ending(prompts_.finish_to_save(qs(proposed)), QStringLiteral(".lacquer"));
    if (chosen.isEmpty()) return false;
    std::error_code code;
    const std::string path = std::filesystem::absolute(chosen.toStdString(), code).lexically_normal().string();
    // A copy on itself is saving.
    if (path == path_) return save();
    const auto write = [path, moved = moved_to(path)] { return save_finish(path, moved); };
    if (const Result<Done> done = disk_.wait(tr("saving %1").arg(QFileInfo(qs(path)).fileName()), write); !done) {
        complain(done.fault());
        return false;
    }
    say(tr("Saved a copy as %1").arg(QFileInfo(qs(path)).fileName()));
    return true;
}

QString Document::with_ending(const QString& path, const QString& ending) {
    if (path.isEmpty() || path.endsWith(ending)) return path;
    const QString whole = path + ending;
    const bool there = disk_.wait(tr("looking at %1").arg(whole), [whole] { return QFileInfo::exists(whole); });
    if (there && (prompts_.may_replace == nullptr || !prompts_.may_replace(whole))) {
        say(tr("%1 stays as it is").arg(QFileInfo(whole).fileName()));
        return {};
    }
    return whole;
}

bool Document::start_new() {
    if (!may_leave()) return false;
    say(tr("A new finish"));
    adopt(empty_finish(), {}, {});
    return true;
}

bool Document::may_leave() {
    // What is being recorded is unsaved work, too.
    emit going_to_leave();
    if (!edited()) return true;
    switch (prompts_.unsaved_changes(qs(finish().name))) {
        case Unsaved::save:
            return save();
        // It is kept for a crash until something else is open: whoever changes their mind has it still.
        case Unsaved::discard:
            return true;
        case Unsaved::stay:
            break;
    }
    return false;
}

bool Document::bring_back(const KeptWork& kept) {
    std::optional<OpenedFinish> opened =
        disk_.wait(tr("opening %1").arg(qs(kept.name)), [kept] { return read_kept(kept); });
    if (!opened) {
        say(tr("What was kept of %1 is no longer there").arg(qs(kept.name)));
        return false;
    }
    adopt(empty_finish(), kept.path, opened->notices);
    on_disk_ = disk_.wait(tr("looking at %1").arg(qs(kept.name)), [path = kept.path] { return stamp_of(path); });
    edit(std::move(opened->finish), tr("Brought back unsaved work on %1").arg(qs(kept.name)));
    // First kept as our own, then dropped there: at no moment is it kept nowhere.
    autosave();
    disk_.later([kept] { drop_kept(kept); });
    return true;
}

void Document::keep_soon() {
    // Not later for every further change: a long drag is kept, too.
    if (!autosave_timer_.isActive()) autosave_timer_.start();
}

void Document::autosave() {
    if (!edited()) return;
    disk_.then(
        this, [path = path_, finish = history_.now()] { return keep_for_recovery(path, *finish); },
        [this](const Result<Done>& kept) {
            // Once, not every two seconds.
            if (!kept && !autosave_failed_)
                say(tr("Unsaved work cannot be kept for a crash: %1").arg(qs(to_text(kept.fault()))), Tone::failed);
            autosave_failed_ = !kept;
        });
}

void Document::drop_autosave() {
    autosave_timer_.stop();
    disk_.later([path = path_] { drop_recovery(path); });
}

}  // namespace lacquer
