#include "desktop/document/document.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/find_pictures.h"
#include "core/finish/limits.h"
#include "core/finish/variants.h"
#include "desktop/document/open_mark.h"
#include "desktop/kit/core_words.h"

namespace lacquer {

Document::Document(Prompts prompts, QObject* parent)
    : QObject(parent), prompts_(std::move(prompts)), history_(empty_finish()), saved_(history_.now()) {
    autosave_timer_.setSingleShot(true);
    autosave_timer_.setInterval(2000);
    connect(&autosave_timer_, &QTimer::timeout, this, &Document::autosave);
    connect(&files_, &WatchedFiles::changed, this, [this] {
        // A file that was replaced is no longer watched until it is named again.
        watched_.clear();
        watch_files();
        reread_shared();
        emit files_changed();
    });
    replaced();
}

Document::~Document() {
    disk_.later([path = path_] { unmark_open(path); });
}

void Document::say(const QString& words, Tone tone) {
    const QString told = keyed(words);
    notices_.add(told, tone);
    emit said(told);
}

void Document::complain(const Fault& fault) { say(qs(to_text(fault)), Tone::failed); }

void Document::see_notices() {
    notices_.see();
    emit notices_seen();
}

void Document::edit(Finish changed, const QString& what, const std::string& merge_key) {
    edit_all(into_variant(finish(), std::move(changed)), what, merge_key);
}

void Document::edit_all(Finish changed, const QString& what, const std::string& merge_key) {
    // What was opened beyond them may still be worked on, and made smaller.
    if (const Result<Done> fits = within_limits(changed); !fits && within_limits(finish())) {
        return say(qs(to_text(fits.fault())));
    }
    const auto before = history_.now();
    // One drag is one change.
    const std::string key = merge_key.empty() && interacting_ ? "drag " + what.toStdString() : merge_key;
    history_.record(std::move(changed), what.toStdString(), key);
    if (history_.now() == before) return;
    replaced();
    keep_soon();
    if (key.empty()) say(what);
}

bool Document::edit(Result<Finish> changed, const QString& what) {
    if (!changed) {
        say(fault_words(changed.fault()));
        return false;
    }
    edit(std::move(*changed), what);
    return true;
}

void Document::undo() {
    if (!history_.can_undo()) return say(tr("Nothing to undo"));
    const QString what = qs(history_.undo_words());
    history_.undo();
    replaced();
    keep_soon();
    say(tr("Undone: %1").arg(what));
}

void Document::redo() {
    if (!history_.can_redo()) return say(tr("Nothing to redo"));
    const QString what = qs(history_.redo_words());
    history_.redo();
    replaced();
    keep_soon();
    say(tr("Redone: %1").arg(what));
}

void Document::go_to(std::size_t entry) {
    if (entry >= history_.size()) return;
    const QString what = qs(history_.words(entry));
    history_.go_to(entry);
    replaced();
    keep_soon();
    say(what.isEmpty() ? tr("Back at the beginning") : tr("Back at: %1").arg(what));
}

void Document::replaced() {
    checked_ = std::make_shared<const CheckedFinish>(check_finish(history_.now(), catalogue_, checked_.get()));
    if (!selected_.empty() && find_step(finish(), selected_) == nullptr) selected_.clear();
    if (selected_.empty() && !checked_->steps.empty()) selected_ = checked_->steps.back().name;
    std::erase_if(selection_, [this](const std::string& name) { return find_step(finish(), name) == nullptr; });
    if (selection_.size() < 2 || std::find(selection_.begin(), selection_.end(), selected_) == selection_.end())
        set_selection({selected_});
    if (!interacting_) watch_files();
    emit finish_replaced();
    emit finish_changed();
}

void Document::use_catalogue(std::shared_ptr<const Catalogue> catalogue) {
    catalogue_ = std::move(catalogue);
    replaced();
    if (catalogue_->faults.empty()) {
        say(tr("%n operation(s)", nullptr, static_cast<int>(catalogue_->operations.size())));
    } else {
        complain(catalogue_->faults.front());
    }
}

// In the ladder's order, each once.
void Document::set_selection(std::vector<std::string> names) {
    selection_.clear();
    for_each_step(finish(), [&](const Coat&, const Step& step) {
        if (std::find(names.begin(), names.end(), step.name) != names.end()) selection_.push_back(step.name);
    });
}

void Document::select(const std::string& step) {
    anchor_ = step;
    if (selected_ == step && selection_.size() < 2) return;
    selected_ = step;
    set_selection({step});
    history_.seal();
    emit selection_changed();
}

void Document::select_to(const std::string& step) {
    std::vector<std::string> names;
    bool within = false;
    const std::string from = find_step(finish(), anchor_) != nullptr ? anchor_ : selected_;
    for_each_step(finish(), [&](const Coat&, const Step& each) {
        const bool end = each.name == from || each.name == step;
        if (end || within) names.push_back(each.name);
        if (end && from != step) within = !within;
    });
    selected_ = step;
    set_selection(std::move(names));
    history_.seal();
    emit selection_changed();
}

void Document::toggle_selected(const std::string& step) {
    std::vector<std::string> names = selection_;
    const auto found = std::find(names.begin(), names.end(), step);
    const bool was = found != names.end();
    if (was && names.size() == 1) return;
    if (was) {
        names.erase(found);
    } else {
        names.push_back(step);
    }
    selected_ = was ? names.front() : step;
    anchor_ = selected_;
    set_selection(std::move(names));
    history_.seal();
    emit selection_changed();
}

void Document::select_all() {
    std::vector<std::string> names;
    for_each_step(finish(), [&](const Coat&, const Step& step) { names.push_back(step.name); });
    set_selection(std::move(names));
    emit selection_changed();
}

bool Document::call_off() {
    if (!interacting_) return false;
    emit called_off();
    while (history_.at() > entry_before_) history_.undo();
    set_interacting(false);
    replaced();
    say(tr("Called off"));
    return true;
}

void Document::set_interacting(bool interacting) {
    const bool ends = interacting_ && !interacting;
    if (interacting && !interacting_) {
        // What was changed before is no part of what may be called off.
        history_.seal();
        entry_before_ = history_.at();
    }
    interacting_ = interacting;
    if (ends) history_.seal();
    emit interacting_changed(interacting);
}

// What lies in files may be changed by other programs.
void Document::watch_files() {
    QStringList paths;
    for (const Ground& ground : finish().grounds) {
        for (const std::string& path : paths_of(ground)) paths.append(qs(picture_path(path_, path)));
    }
    if (const std::string shared = shared_path(); !shared.empty()) paths.append(qs(shared));
    if (paths == watched_) return;
    watched_ = paths;
    files_.watch(paths);
    look_for_missing();
}

void Document::look_for_missing() {
    disk_.then(
        this, [finish = history_.now(), path = path_] { return missing_files(*finish, path); },
        [this](std::vector<std::string> missing) {
            if (missing == missing_) return;
            missing_ = std::move(missing);
            emit missing_changed();
        });
}

}  // namespace lacquer
