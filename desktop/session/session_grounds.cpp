// What the finish reads: pictures, scenes, marks, gradients and curves, and how the camera of a scene is moved.
#include <QFileInfo>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/find_pictures.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "desktop/session/picture_size.h"
#include "desktop/session/session.h"

namespace lacquer {

namespace {

// A layered file with more than colours is a scene that was captured.
bool is_capture(const std::string& path) {
    const QString name = QString::fromStdString(path);
    if (!name.endsWith(QStringLiteral(".exr"), Qt::CaseInsensitive)) return false;
    // Layers under names that say nothing are told what they hold on the ground's page.
    const Result<std::vector<PictureLayer>> layers = picture_layers(path);
    return layers && (layers->size() > 1 || found_layers(*layers, {}).colour == no_layer);
}

}  // namespace

void Session::add_ground(Ground ground, const QString& what) {
    GroundEdit added = lacquer::add_ground(finish(), std::move(ground));
    edit(std::move(added.finish), what.arg(qs(shown_name(added.name))));
}

bool Session::add_picture(const QString& path) {
    const std::string stem = identifier_from(std::filesystem::path(path.toStdString()).stem().string());
    const std::string stored = stored_picture_path(path_, path.toStdString());
    const bool table = path.endsWith(QStringLiteral(".cube"), Qt::CaseInsensitive);
    const bool first = !table && first_picture(finish()) == nullptr;
    Ground ground{.name = first ? "scene" : stem.empty() ? "picture" : stem};
    if (table) {
        ground.kind = TableGround{stored};
        add_ground(std::move(ground), tr("Added the table %1: look_table(scene, %1)"));
    } else if (is_capture(path.toStdString())) {
        ground.kind = CaptureGround{stored};
        add_ground(std::move(ground), tr("Added the capture %1, with its layers as %1_depth and so on"));
    } else {
        ground.kind = PictureGround{stored};
        add_ground(std::move(ground), tr("Added the picture %1"));
    }
    return true;
}

bool Session::add_picture_asking() {
    const QString path = prompts_.picture_to_add(qs(path_));
    return !path.isEmpty() && add_picture(path);
}

bool Session::start_from_picture(const QString& path) {
    if (!start_new() || !add_picture(path)) return false;
    const QSize picture = picture_size(path.toStdString());
    Finish changed = finish();
    changed.name = QFileInfo(path).completeBaseName().toStdString();
    // As large as the picture, but no larger than a large screen.
    const QSize size = picture.isEmpty() ? QSize(changed.frame_width, changed.frame_height)
                                         : picture.boundedTo(picture.scaled(2560, 2560, Qt::KeepAspectRatio));
    changed.frame_width = size.width();
    changed.frame_height = size.height();
    edit(std::move(changed), tr("A new finish on %1").arg(QFileInfo(path).fileName()));
    return true;
}

void Session::add_stops(StopValues values) {
    const auto rising = [](double low) { return Stops{{{0, {low, low, low, 1}}, {1, {1, 1, 1, 1}}}}; };
    Ground ground = values == StopValues::heights ? Ground{"shape", CurveGround{rising(0)}}
                                                  : Ground{"tones", GradientGround{rising(0.01)}};
    add_ground(std::move(ground), tr("Added %1: read it by at(%1, t)"));
}

void Session::replace_ground(const std::string& name, const QString& path) {
    const Ground* old = find_ground(finish(), name);
    if (old == nullptr) return;
    const std::string stored = stored_picture_path(path_, path.toStdString());
    Ground by;
    // What reads the layers of a scene finds those of the file, or is told that there are none.
    if (is_capture(path.toStdString()) || has_layers(*old)) {
        by.kind = CaptureGround{stored};
    } else {
        by.kind = PictureGround{.path = stored, .data = is_data(*old)};
    }
    if (const Sampling* sampling = sampling_of(*old)) *sampling_of(by) = *sampling;
    edit(lacquer::replace_ground(finish(), name, std::move(by)),
         tr("%1 is %2 now").arg(qs(shown_name(name)), QFileInfo(path).fileName()));
}

void Session::add_sprite_part(const std::string& sprite, const QString& path) {
    SpritePart part;
    part.name = QFileInfo(path).completeBaseName().toStdString();
    part.path = stored_picture_path(path_, path.toStdString());
    Finish changed = finish();
    for (Ground& ground : changed.grounds) {
        auto* own = ground.name == sprite ? ground.as<SpriteGround>() : nullptr;
        if (own == nullptr) continue;
        part.x = own->width / 2.0;
        part.y = own->height / 2.0;
        own->parts.push_back(part);
        return edit(std::move(changed), tr("Added the part %1 to %2").arg(qs(part.name), qs(shown_name(sprite))));
    }
    SpriteGround fresh;
    if (const QSize size = picture_size(path.toStdString()); !size.isEmpty()) {
        fresh.width = size.width();
        fresh.height = size.height();
    }
    part.x = fresh.width / 2.0;
    part.y = fresh.height / 2.0;
    fresh.parts.push_back(std::move(part));
    add_ground({"sprite", std::move(fresh)}, tr("Added the sprite %1; add further parts to it"));
}

void Session::find_missing() {
    const std::vector<std::string> missing = missing_files(finish(), path_);
    if (missing.empty()) return say(tr("Nothing is missing"));
    const std::string name = std::filesystem::path(missing.front()).filename().string();
    say(tr("Where is %1?").arg(qs(name)));
    const QString chosen = prompts_.picture_to_add(qs(path_));
    if (chosen.isEmpty()) return;
    Finish changed = finish();
    const std::string there = stored_picture_path(path_, chosen.toStdString());
    for (Ground& ground : changed.grounds) {
        for (std::string* path : paths_of(ground)) {
            if (*path == missing.front()) *path = there;
        }
    }
    FoundFiles found = find_by_name(std::move(changed), path_, folder_of(chosen.toStdString()));
    edit(std::move(found.finish),
         found.moved.empty()
             ? tr("Found %1").arg(qs(name))
             : tr("Found %1, and %2 beside it").arg(qs(name), qs(counted(found.moved.size(), "other file"))));
}

// What lies in files may be changed by other programs. A folder is watched for what is missing in it.
void Session::watch_files() {
    QStringList wanted;
    for (const Ground& ground : finish().grounds) {
        for (const std::string& path : paths_of(ground)) {
            const QFileInfo file(qs(picture_path(path_, path)));
            const QString place = file.exists() ? file.absoluteFilePath() : file.absolutePath();
            if (QFileInfo::exists(place) && !wanted.contains(place)) wanted.append(place);
        }
    }
    if (const std::string shared = shared_path(); !shared.empty() && QFileInfo::exists(qs(shared)))
        wanted.append(QFileInfo(qs(shared)).absoluteFilePath());
    const QStringList watched = files_.files() + files_.directories();
    QStringList gone;
    for (const QString& path : watched) {
        if (!wanted.contains(path)) gone.append(path);
    }
    QStringList fresh;
    for (const QString& path : wanted) {
        if (!watched.contains(path)) fresh.append(path);
    }
    if (!gone.isEmpty()) files_.removePaths(gone);
    if (!fresh.isEmpty()) files_.addPaths(fresh);
}

void Session::add_scene(const ScenePlace& place, Hour hour) {
    const std::string name = first_picture(finish()) == nullptr ? "scene" : std::string(place.name);
    add_ground({name, SceneGround{view_of_place(place, hour)}},
               tr("Added the stand-in scene %1, with its layers as %1_depth and so on"));
}

bool Session::add_marks() {
    const Ground* scene = first_scene();
    if (scene == nullptr) {
        say(tr("Marks choose objects of a scene: add one first"));
        return false;
    }
    add_ground({"marked", MarksGround{scene->name}}, tr("Added %1: 1 on chosen objects, 0 elsewhere"));
    return true;
}

const Ground* Session::first_scene() const {
    for (const Ground& ground : finish().grounds) {
        if (has_layers(ground)) return &ground;
    }
    return nullptr;
}

Camera Session::camera_of(const Ground& scene) const {
    const SceneView& view = scene.as<SceneGround>()->view;
    return camera_at(view.camera, view.path, time_);
}

void Session::set_camera(const std::string& scene, const Camera& camera) {
    Result<Finish> changed = lacquer::set_camera(finish(), scene, camera, time_);
    if (changed) edit(std::move(*changed), tr("Moved the camera of %1").arg(qs(shown_name(scene))), "camera " + scene);
}

void Session::set_grounds_in_view(std::vector<std::string> pictures) {
    if (pictures == grounds_in_view_) return;
    grounds_in_view_ = std::move(pictures);
    ask_thumbnails();
}

}  // namespace lacquer
