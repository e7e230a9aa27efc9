#include "desktop/document/ground_adding.h"

#include <QDir>
#include <QFileInfo>
#include <QImage>
#include <QStandardPaths>
#include <filesystem>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/find_pictures.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "desktop/document/document.h"
#include "desktop/document/picture_size.h"

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

QString tr(const char* words, const char* = nullptr, int n = -1) { return Document::tr(words, nullptr, n); }

// `what` has a place for the ground's name.
void add(Document& document, Ground ground, const QString& what) {
    GroundEdit added = add_ground(document.finish(), std::move(ground));
    document.edit(std::move(added.finish), what.arg(qs(shown_name(added.name))));
}

// Of each file. Nothing if it was called off.
std::optional<std::vector<bool>> which_are_captures(Document& document, const QStringList& paths) {
    const auto look = [paths] {
        std::vector<bool> captures;
        for (const QString& path : paths) captures.push_back(is_capture(path.toStdString()));
        return captures;
    };
    std::optional<std::vector<bool>> captures =
        document.disk().read(tr("reading %1").arg(paths.join(QLatin1String(", "))), look);
    if (!captures) document.say(tr("Nothing was added"));
    return captures;
}

QSize size_of_file(Document& document, const QString& path) {
    return document.disk()
        .read(tr("reading %1").arg(path), [name = path.toStdString()] { return picture_size(name); })
        .value_or(QSize());
}

struct NewGround {
    Ground ground;
    const char* words;  ///< with a place for its name
};

NewGround ground_of_file(const Finish& finish, const std::string& finish_path, const QString& path, bool capture) {
    const std::string stem = identifier_from(std::filesystem::path(path.toStdString()).stem().string());
    const std::string stored = stored_picture_path(finish_path, path.toStdString());
    const bool table = path.endsWith(QStringLiteral(".cube"), Qt::CaseInsensitive);
    const bool first = !table && first_picture(finish) == nullptr;
    Ground ground{.name = first ? "scene" : stem.empty() ? "picture" : stem};
    if (table) {
        ground.kind = TableGround{stored};
        return {std::move(ground), "Added the table %1: look_table(scene, %1)"};
    }
    if (capture) {
        ground.kind = CaptureGround{stored};
        return {std::move(ground), "Added the capture %1, with its layers as %1_depth and so on"};
    }
    ground.kind = PictureGround{stored};
    return {std::move(ground), "Added the picture %1"};
}

}  // namespace

void add_picture(Document& document, const QString& path) {
    const auto captures = which_are_captures(document, {path});
    if (!captures) return;
    NewGround fresh = ground_of_file(document.finish(), document.path(), path, captures->front());
    add(document, std::move(fresh.ground), tr(fresh.words));
}

void add_pictures(Document& document, const QStringList& paths) {
    if (paths.size() == 1) return add_picture(document, paths.front());
    const auto captures = which_are_captures(document, paths);
    if (!captures) return;
    Finish finish = document.finish();
    for (qsizetype i = 0; i < paths.size(); ++i) {
        const bool capture = (*captures)[static_cast<std::size_t>(i)];
        finish = add_ground(finish, ground_of_file(finish, document.path(), paths[i], capture).ground).finish;
    }
    document.edit(std::move(finish), tr("Added %1").arg(tr("%n file(s)", nullptr, static_cast<int>(paths.size()))));
}

void add_pasted_picture(Document& document, const QImage& image) {
    const std::string& own = document.path();
    const QDir folder(own.empty() ? QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) +
                                        QStringLiteral("/pasted")
                                  : QFileInfo(qs(own)).absolutePath());
    const auto keep = [folder, image] {
        QString path;
        for (int i = 1; path.isEmpty() || QFileInfo::exists(path); ++i)
            path = folder.filePath(QStringLiteral("pasted-%1.png").arg(i));
        const bool kept = !image.isNull() && folder.mkpath(QStringLiteral(".")) && image.save(path);
        return std::pair(path, kept);
    };
    const auto [path, kept] = document.disk().wait(tr("keeping the pasted picture"), keep);
    if (!kept) return document.say(tr("The picture could not be kept as %1").arg(path), Tone::failed);
    add_picture(document, path);
}

bool add_picture_asking(Document& document) {
    const QString path = document.prompts().picture_to_add(qs(document.path()));
    if (path.isEmpty()) return false;
    add_picture(document, path);
    return true;
}

bool start_from_picture(Document& document, const QString& path) {
    if (!document.start_new()) return false;
    add_picture(document, path);
    const QSize picture = size_of_file(document, path);
    Finish changed = document.finish();
    changed.name = QFileInfo(path).completeBaseName().toStdString();
    // As large as the picture, but no larger than a large screen.
    const QSize size = picture.isEmpty() ? QSize(changed.frame_width, changed.frame_height)
                                         : picture.boundedTo(picture.scaled(2560, 2560, Qt::KeepAspectRatio));
    changed.frame_width = size.width();
    changed.frame_height = size.height();
    document.edit(std::move(changed), tr("A new finish on %1").arg(QFileInfo(path).fileName()));
    return true;
}

void add_stops(Document& document, StopValues values) {
    const auto rising = [](double low) { return Stops{{{0, {low, low, low, 1}}, {1, {1, 1, 1, 1}}}}; };
    Ground ground = values == StopValues::heights ? Ground{"shape", CurveGround{rising(0)}}
                                                  : Ground{"tones", GradientGround{rising(0.01)}};
    add(document, std::move(ground), tr("Added %1: read it by at(%1, t)"));
}

void add_droplets(Document& document) {
    DropletsGround rain;
    rain.drops.number(DropNumberId::life) = {1, 2, {}};
    rain.drops.number(DropNumberId::size) = {0.01, 0.03, {}};
    rain.drops.number(DropNumberId::speed) = {0.1, 0.3, {}};
    add(document, Ground{"drops", std::move(rain)}, tr("Added %1: lay it over the picture, mix(scene, %1, %1.a)"));
}

void replace_ground(Document& document, const std::string& name, const QString& path) {
    const Ground* old = find_ground(document.finish(), name);
    if (old == nullptr) return;
    const auto captures = which_are_captures(document, {path});
    if (!captures) return;
    // The finish may be another one by now.
    old = find_ground(document.finish(), name);
    if (old == nullptr) return;
    const std::string stored = stored_picture_path(document.path(), path.toStdString());
    Ground by;
    // What reads the layers of a scene finds those of the file, or is told that there are none.
    if (captures->front() || has_layers(*old)) {
        by.kind = CaptureGround{stored};
    } else {
        by.kind = PictureGround{.path = stored, .data = is_data(*old)};
    }
    if (const Sampling* sampling = sampling_of(*old)) *sampling_of(by) = *sampling;
    document.edit(lacquer::replace_ground(document.finish(), name, std::move(by)),
                  tr("%1 is %2 now").arg(qs(shown_name(name)), QFileInfo(path).fileName()));
}

void add_sprite_part(Document& document, const std::string& sprite, const QString& path) {
    SpritePart part;
    part.name = QFileInfo(path).completeBaseName().toStdString();
    part.path = stored_picture_path(document.path(), path.toStdString());
    Finish changed = document.finish();
    for (Ground& ground : changed.grounds) {
        auto* own = ground.name == sprite ? ground.as<SpriteGround>() : nullptr;
        if (own == nullptr) continue;
        part.x = own->width / 2.0;
        part.y = own->height / 2.0;
        own->parts.push_back(part);
        return document.edit(std::move(changed),
                             tr("Added the part %1 to %2").arg(qs(part.name), qs(shown_name(sprite))));
    }
    SpriteGround fresh;
    if (const QSize size = size_of_file(document, path); !size.isEmpty()) {
        fresh.width = size.width();
        fresh.height = size.height();
    }
    part.x = fresh.width / 2.0;
    part.y = fresh.height / 2.0;
    fresh.parts.push_back(std::move(part));
    add(document, {"sprite", std::move(fresh)}, tr("Added the sprite %1; add further parts to it"));
}

void find_missing(Document& document) {
    const auto look = [finish = document.finish(), path = document.path()] { return missing_files(finish, path); };
    const std::vector<std::string> missing =
        document.disk().read(tr("looking for its files"), look).value_or(std::vector<std::string>());
    if (missing.empty()) return document.say(tr("Nothing is missing"));
    const std::string name = std::filesystem::path(missing.front()).filename().string();
    document.say(tr("Where is %1?").arg(qs(name)));
    const QString chosen = document.prompts().picture_to_add(qs(document.path()));
    if (chosen.isEmpty()) return;
    Finish changed = document.finish();
    const std::string there = stored_picture_path(document.path(), chosen.toStdString());
    for (Ground& ground : changed.grounds) {
        for (std::string* path : paths_of(ground)) {
            if (*path == missing.front()) *path = there;
        }
    }
    const auto search = [changed, path = document.path(), folder = folder_of(chosen.toStdString())] {
        return find_by_name(changed, path, folder);
    };
    auto searched = document.disk().read(tr("looking for its files"), search);
    FoundFiles found = searched ? std::move(*searched) : FoundFiles{std::move(changed), {}};
    document.edit(std::move(found.finish),
                  found.moved.empty()
                      ? tr("Found %1").arg(qs(name))
                      : tr("Found %1, and %2 beside it")
                            .arg(qs(name), tr("%n other file(s)", nullptr, static_cast<int>(found.moved.size()))));
}

void add_scene(Document& document, const ScenePlace& place, Hour hour) {
    const std::string name = first_picture(document.finish()) == nullptr ? "scene" : std::string(place.name);
    add(document, {name, SceneGround{view_of_place(place, hour)}},
        tr("Added the stand-in scene %1, with its layers as %1_depth and so on"));
}

bool add_marks(Document& document) {
    const Ground* scene = first_scene(document.finish());
    if (scene == nullptr) {
        document.say(tr("Marks choose objects of a scene: add one first"));
        return false;
    }
    add(document, {"marked", MarksGround{scene->name}}, tr("Added %1: 1 on chosen objects, 0 elsewhere"));
    return true;
}

const Ground* first_scene(const Finish& finish) {
    for (const Ground& ground : finish.grounds) {
        if (has_layers(ground)) return &ground;
    }
    return nullptr;
}

Camera camera_of(const Ground& scene, double time) {
    const SceneView& view = scene.as<SceneGround>()->view;
    return camera_at(view.camera, view.path, time);
}

void set_camera(Document& document, const std::string& scene, const Camera& camera, double time) {
    Result<Finish> changed = lacquer::set_camera(document.finish(), scene, camera, time);
    if (changed)
        document.edit(std::move(*changed), tr("Moved the camera of %1").arg(qs(shown_name(scene))), "camera " + scene);
}

}  // namespace lacquer
