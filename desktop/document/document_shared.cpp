// Dials that several finishes share, in a file of their own.
#include <algorithm>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/shared_dials.h"
#include "desktop/document/document.h"

namespace lacquer {

std::string Document::shared_path() const {
    return finish().shared_dials.empty() ? std::string() : picture_path(path_, finish().shared_dials);
}

std::vector<Dial> Document::shared_dials() {
    if (finish().shared_dials.empty()) return {};
    auto read = disk_.read(tr("reading the shared dials"), [path = shared_path()] { return load_shared_dials(path); });
    return read && *read ? std::move(**read) : std::vector<Dial>();
}

QString Document::share_dial(const std::string& name, bool shared) {
    Finish changed = finish();
    if (shared && changed.shared_dials.empty()) {
        QString path = prompts_.shared_dials_file(qs(path_.empty() ? "shared.dials" : path_));
        if (path.isEmpty()) return tr("It stays a dial of this finish alone");
        // A file that is there is read and added to, not replaced.
        if (!path.endsWith(QStringLiteral(".dials"))) path += QStringLiteral(".dials");
        chosen_shared_.insert(picture_path(path_, stored_picture_path(path_, path.toStdString())));
        changed.shared_dials = stored_picture_path(path_, path.toStdString());
    }
    for (Dial& dial : changed.dials) {
        if (dial.name == name) dial.shared = shared;
    }
    edit(std::move(changed),
         shared ? tr("%1 is shared; its value goes to the file when the finish is saved").arg(qs(shown_name(name)))
                : tr("%1 is a dial of this finish alone").arg(qs(shown_name(name))));
    return {};
}

bool Document::take_shared(const std::string& name) {
    return edit(take_shared_dial(finish(), shared_dials(), name),
                tr("Took the shared dial %1").arg(qs(shown_name(name))));
}

// In the finish's own folder, or where the user said so: a finish may have been sent by anybody.
bool Document::may_write_shared(const std::string& path) const {
    if (chosen_shared_.contains(path)) return true;
    const std::filesystem::path folder = std::filesystem::path(path_).parent_path();
    if (!path_.empty() && std::filesystem::path(path).parent_path() == folder) return true;
    return prompts_.may_write_shared != nullptr && prompts_.may_write_shared(qs(path));
}

// Nothing if all is well. What is in the file and cannot be read is not written over.
std::optional<Fault> Document::write_shared() {
    const bool any = std::any_of(finish().dials.begin(), finish().dials.end(), [](const Dial& d) { return d.shared; });
    if (!any || finish().shared_dials.empty()) return std::nullopt;
    const std::string path = shared_path();
    Result<std::vector<Dial>> there =
        disk_.wait(tr("reading the shared dials"), [path] { return load_shared_dials(path); });
    const bool is_new = !there && there.fault().id == "file.missing";
    if (!there && !is_new) return there.fault();
    const std::vector<Dial> before = is_new ? std::vector<Dial>() : std::move(*there);
    const std::vector<Dial> now = shared_dials_of(finish(), before);
    if (now == before) {
        known_shared_ = now;
        return std::nullopt;
    }
    if (!may_write_shared(path)) {
        return Fault{"file.unwritable", "the shared dials were not written", "they stay as this finish has them",
                     Place{path, {}, 0, 0}, Severity::warning};
    }
    chosen_shared_.insert(path);
    const Result<Done> done =
        disk_.wait(tr("saving the shared dials"), [path, now] { return save_shared_dials(path, now); });
    if (!done) return done.fault();
    known_shared_ = now;
    return std::nullopt;
}

void Document::reread_shared() {
    if (finish().shared_dials.empty()) return;
    disk_.then(
        this, [path = shared_path()] { return std::pair(path, load_shared_dials(path)); },
        [this](const std::pair<std::string, Result<std::vector<Dial>>>& read) {
            // Another finish may be open by then.
            if (!read.second || read.first != shared_path()) return;
            std::vector<Dial> news = changed_elsewhere(finish(), known_shared_, *read.second);
            known_shared_ = *read.second;
            take_over(news);
        });
}

void Document::take_over(const std::vector<Dial>& shared) {
    Faults notices;
    Finish changed = with_shared_dials(finish(), shared, notices);
    if (changed == finish()) return;
    // What is saved there is saved: it is no change of this finish's own.
    const bool was_edited = edited();
    edit_all(std::move(changed), tr("The shared dials were changed elsewhere"));
    if (!was_edited) saved_ = history_.now();
    emit finish_changed();
}

}  // namespace lacquer
