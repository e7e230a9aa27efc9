// The session's files: opening, saving, pictures, and what is kept aside in case of a crash.
#include <QFileInfo>
#include <QImage>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "desktop/session/recovery.h"
#include "desktop/session/session.h"

namespace lacquer {

void Session::adopt(Finish finish, const std::string& path, const Faults& notices) {
    set_playing(false);
    drop_autosave();
    history_ = History(std::move(finish));
    saved_ = history_.now();
    path_ = path;
    selected_.clear();
    shown_.clear();
    held_.clear();
    thumbnails_.clear();
    stage_ = StagePicture();
    time_ = 0;
    finish_replaced();
    emit selection_changed();
    emit time_changed();
    emit stage_changed();
    if (!notices.empty()) {
        say(tr("%1 (%2 in the file could not be used)")
                .arg(qs(to_text(notices.front())), qs(counted(notices.size(), "thing"))));
    }
}

bool Session::open(const QString& path) {
    const std::string name = path.toStdString();
    Result<OpenedFinish> opened = load_finish(name);
    if (!opened) {
        say(qs(to_text(opened.fault())));
        return false;
    }
    std::error_code code;
    const std::string full = std::filesystem::absolute(name, code).lexically_normal().string();
    say(tr("Opened %1").arg(QFileInfo(path).fileName()));
    adopt(std::move(opened->finish), full, opened->notices);
    return true;
}

bool Session::open_asking() {
    if (!may_leave()) return false;
    const QString path = prompts_.finish_to_open(qs(path_));
    return !path.isEmpty() && open(path);
}

bool Session::write_to(const std::string& path) {
    Finish moved = finish();
    if (path != path_) {
        for (Ground& ground : moved.grounds) {
            if (ground.kind == GroundKind::picture)
                ground.path = stored_picture_path(path, picture_path(path_, ground.path));
        }
    }
    if (Result<Done> done = save_finish(path, moved); !done) {
        say(qs(to_text(done.fault())));
        return false;
    }
    drop_autosave();
    path_ = path;
    if (moved != finish()) {
        history_.record(std::move(moved), tr("Saved elsewhere").toStdString());
        finish_replaced();
    }
    history_.seal();
    saved_ = history_.now();
    say(tr("Saved %1").arg(QFileInfo(qs(path)).fileName()));
    emit finish_changed();
    return true;
}

bool Session::save() { return path_.empty() ? save_as() : write_to(path_); }

bool Session::save_as() {
    const std::string proposed = path_.empty() ? identifier_from(finish().name) + ".lacquer" : path_;
    QString path = prompts_.finish_to_save(qs(proposed));
    if (path.isEmpty()) return false;
    if (!path.endsWith(QStringLiteral(".lacquer"))) path += QStringLiteral(".lacquer");
    std::error_code code;
    return write_to(std::filesystem::absolute(path.toStdString(), code).lexically_normal().string());
}

bool Session::start_new() {
    if (!may_leave()) return false;
    say(tr("A new finish"));
    adopt(empty_finish(), {}, {});
    return true;
}

bool Session::may_leave() {
    if (!edited()) return true;
    switch (prompts_.unsaved_changes(qs(finish().name))) {
        case Unsaved::save:
            return save();
        case Unsaved::discard:
            drop_autosave();
            return true;
        case Unsaved::stay:
            break;
    }
    return false;
}

bool Session::add_picture(const QString& path) {
    Finish changed = finish();
    const std::string stem = identifier_from(std::filesystem::path(path.toStdString()).stem().string());
    Ground ground;
    ground.name = free_name(changed, first_picture(changed) == nullptr ? "scene" : (stem.empty() ? "picture" : stem));
    ground.path = stored_picture_path(path_, path.toStdString());
    const std::string name = ground.name;
    changed.grounds.push_back(std::move(ground));
    edit(std::move(changed), tr("Added the picture %1").arg(qs(name)));
    return true;
}

void Session::add_stops(GroundKind kind) {
    Finish changed = finish();
    Ground ground;
    ground.kind = kind;
    ground.name = free_name(changed, kind == GroundKind::curve ? "shape" : "tones");
    const double low = kind == GroundKind::curve ? 0 : 0.01;
    ground.stops = {{0, {low, low, low, 1}}, {1, {1, 1, 1, 1}}};
    const std::string name = ground.name;
    changed.grounds.push_back(std::move(ground));
    edit(std::move(changed), tr("Added %1: read it by at(%1, t)").arg(qs(name)));
}

bool Session::add_picture_asking() {
    const QString path = prompts_.picture_to_add(qs(path_));
    return !path.isEmpty() && add_picture(path);
}

bool Session::start_from_picture(const QString& path) {
    if (!start_new() || !add_picture(path)) return false;
    const QImage picture(path);
    Finish changed = finish();
    changed.name = QFileInfo(path).completeBaseName().toStdString();
    // As large as the picture, but no larger than a large screen.
    const QSize size = picture.isNull()
                           ? QSize(changed.frame_width, changed.frame_height)
                           : picture.size().boundedTo(picture.size().scaled(2560, 2560, Qt::KeepAspectRatio));
    changed.frame_width = size.width();
    changed.frame_height = size.height();
    edit(std::move(changed), tr("A new finish on %1").arg(QFileInfo(path).fileName()));
    return true;
}

void Session::take_over(OpenedFinish recovered, const QString& path) {
    adopt(empty_finish(), path.toStdString(), recovered.notices);
    edit(std::move(recovered.finish), tr("Brought back unsaved work"));
}

void Session::keep_soon() {
    // Not later for every further change: a long drag is kept, too.
    if (!autosave_timer_.isActive()) autosave_timer_.start();
}

void Session::autosave() {
    if (edited()) keep_for_recovery(path_, finish());
}

void Session::drop_autosave() {
    autosave_timer_.stop();
    drop_recovery(path_);
}

}  // namespace lacquer
