// The page of a ground, whatever its kind.
#include <QRegularExpression>
#include <algorithm>
#include <array>

#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/kinds.h"
#include "core/finish/stop_presets.h"
#include "core/finish/stops_text.h"
#include "desktop/dials/form_changes.h"
#include "desktop/dials/forms.h"
#include "desktop/dials/stops_editor.h"
#include "desktop/grounds/layer_pictures.h"

namespace lacquer {

using namespace forms;

namespace {

QString part_key(std::size_t part) { return QStringLiteral("part_%1").arg(part + 1); }

// The layer without a name holds the colours of plain files.
QString layer_words(const std::string& layer) {
    return layer == no_layer ? QStringLiteral("none") : layer.empty() ? QStringLiteral("main") : qs(layer);
}
std::string layer_from(const QString& words) {
    return words == QStringLiteral("none") ? no_layer : words == QStringLiteral("main") ? "" : words.toStdString();
}

// What stands in a choice of ready ones while the stops are one's own.
QString own_stops() { return tr("own"); }

Field preset_field(const Ground& ground) {
    QStringList names{own_stops()};
    QString now = own_stops();
    for (const StopPreset& preset : stop_presets(ground.kind)) {
        names.append(sv(preset.name));
        if (preset.stops == ground.stops && preset.between == ground.between) now = sv(preset.name);
    }
    return {"preset", tr("Ready ones"), now, tr("take one, then change it"), names};
}

std::vector<Field> stops_fields(const Ground& ground) {
    const bool curve = ground.kind == GroundKind::curve;
    return {
        preset_field(ground),
        {"stops", tr("Stops"), qs(stops_text(ground.kind, ground.stops)),
         curve ? tr("places and heights: 0 0, 0.5 1 ease_in, 1 0")
               : tr("places and colours: 0 #101820 opacity 0, 1 #FFCC88 x 2")},
        {"between", tr("Between stops"), sv(stop_mix_name(ground.between)),
         curve ? tr("straight lines, gentle at each stop, or held until the next")
               : tr("evenly in linear light, in display values, or to the eye (Oklab); gently; or held"),
         curve ? QStringList{"linear", "smooth", "hold"} : QStringList{"linear", "srgb", "oklab", "smooth", "hold"}}};
}

std::vector<Field> sampling_fields(const Sampling& sampling) {
    return {{"wrap",
             tr("Beyond its borders"),
             sv(wrap_name(sampling.wrap)),
             tr("the outermost pixels, the picture again, or its mirror image"),
             {"clamp", "repeat", "mirror"}},
            {"filter",
             tr("Between pixels"),
             sv(filter_name(sampling.filter)),
             tr("mixed, or the nearest one"),
             {"linear", "nearest"}}};
}

QString point_text(Vec3 point) {
    return QStringLiteral("%1, %2, %3")
        .arg(qs(plain_number(point.x, 4)), qs(plain_number(point.y, 4)), qs(plain_number(point.z, 4)));
}

std::vector<Field> scene_fields(const Ground& ground, const Finish& finish) {
    const SceneView& scene = ground.scene;
    QStringList leaders{tr("its own")};
    for (const Ground& each : finish.grounds) {
        if (each.kind == GroundKind::scene && each.name != ground.name) leaders.append(qs(each.name));
    }
    QStringList places;
    for (const ScenePlace& place : scene_places()) places.append(sv(place.name));
    return {{"place", tr("Place"), qs(scene.place), tr("what there is to see"), places},
            {"hour", tr("Hour"), sv(name_of(scene.hour)), tr("light, sea and sky"), {"storm", "dusk", "day"}},
            {"camera_of", tr("Camera"), ground.of.empty() ? leaders.front() : qs(ground.of),
             tr("its own, or that of another scene, which it follows"), leaders},
            {"eye", tr("Camera at"), point_text(scene.camera.eye), tr("metres: to the right, up, towards you")},
            {"target", tr("Looks at"), point_text(scene.camera.target), tr("what the camera turns about")},
            {"field", tr("Field of view"), tr("%1°").arg(number_text(scene.camera.field)),
             tr("degrees from the lower border to the upper")},
            {"path", tr("Path"), scene.path.empty() ? tr("stands still") : qs(counted(scene.path.size(), "key")),
             tr("put keys with Shift+Y; clear this field to let it stand still")}};
}

// What a capture's layers can stand for.
struct LayerField {
    const char* key;
    const char* label;
    std::string CaptureLayers::*layer;
    const char* hint;
};
constexpr std::array layer_fields{
    LayerField{"colour", "Colours", &CaptureLayers::colour, "linear light, with opacity if there is one"},
    LayerField{"depth", "Depth", &CaptureLayers::depth, "metres from the camera, along the view"},
    LayerField{"normal", "Normals", &CaptureLayers::normal, "which way surfaces face in the world"},
    LayerField{"position", "Positions", &CaptureLayers::position, "where in the world, metres"},
    LayerField{"id", "Objects", &CaptureLayers::id, "a whole number for each object"}};

// Each can be chosen from the file's layers, once they are known.
std::vector<Field> capture_fields(const Ground& ground) {
    std::vector<Field> fields;
    for (const LayerField& field : layer_fields) {
        const std::string& chosen = ground.layers.*field.layer;
        const QString now = chosen.empty() ? tr("found by itself") : layer_words(chosen);
        fields.push_back({QString::fromLatin1(field.key), tr(field.label), now, tr(field.hint), {now}});
    }
    return fields;
}

void show_layers(FieldForm& form, const LayerPictures& pictures) {
    QStringList names{layer_words(no_layer)};
    for (const PictureLayer& layer : pictures.layers()) names.append(layer_words(layer.name));
    for (const LayerField& field : layer_fields) {
        const QString now = layer_words(pictures.found().*field.layer);
        QStringList choices = names;
        if (!choices.contains(now)) choices.append(now);
        form.set_choices(QString::fromLatin1(field.key), choices, now);
    }
}

QString ids_text(const std::vector<int>& ids) {
    QStringList words;
    for (const int id : ids) words.append(QString::number(id));
    return words.join(QLatin1Char(' '));
}

std::vector<Field> marks_fields(const Ground& ground, const Finish& finish) {
    QStringList scenes;
    for (const Ground& each : finish.grounds) {
        if (has_layers(each.kind)) scenes.append(qs(each.name));
    }
    QStringList names;
    const Ground* of = find_ground(finish, ground.of);
    for (const int id : ground.ids) names.append(of != nullptr ? qs(object_name(*of, id)) : QString::number(id));
    return {
        {"of", tr("Objects of"), qs(ground.of), tr("the scene or capture"), scenes},
        {"ids", tr("Chosen"), ids_text(ground.ids),
         names.isEmpty() ? tr("numbers of objects; or point at them with Alt+M") : names.join(QStringLiteral(", "))}};
}

// A line for each part: its place, size and share.
std::vector<Field> sprite_fields(const Sprite& sprite) {
    std::vector<Field> fields{{"sprite_size", tr("Size"),
                               QStringLiteral("%1 x %2").arg(sprite.width).arg(sprite.height),
                               tr("pixels: across and down")}};
    for (std::size_t i = 0; i < sprite.parts.size(); ++i) {
        const SpritePart& part = sprite.parts[i];
        const auto number = [](double v) { return qs(plain_number(v, 4)); };
        fields.push_back(
            {part_key(i), qs(part.name.empty() ? "part " + std::to_string(i + 1) : part.name),
             QStringLiteral("%1, %2 x %3 share %4")
                     .arg(number(part.x), number(part.y), number(part.scale), number(part.share)) +
                 (part.turn != 0 ? QStringLiteral(" turn %1").arg(number(part.turn)) : QString()) +
                 (part.mirrored ? QStringLiteral(" mirrored") : QString()),
             tr("its middle in pixels, how many times as large, its share; also degrees clockwise, and left "
                "for right: 360, 240 x 1 share 0.8 turn 30 mirrored")});
    }
    return fields;
}

std::vector<Field> cells_fields(const SheetCells& cells) {
    return {{"cells", tr("Cells"),
             cells == SheetCells() ? tr("whole")
                                   : QStringLiteral("%1 x %2, %3 of them, %4/s")
                                         .arg(cells.columns)
                                         .arg(cells.rows)
                                         .arg(cells.count)
                                         .arg(number_text(cells.rate)),
             tr("of a sheet: columns x rows, how many, how many a second: 4 x 2, 7 of them, 12/s; or whole")}};
}

// In the order of FileOpacity.
QStringList opacity_words() { return {tr("as usual"), tr("multiplied"), tr("straight")}; }

std::vector<Field> ground_fields(const Ground& ground, const Session& session) {
    const bool stops = ground.kind == GroundKind::gradient || ground.kind == GroundKind::curve;
    std::vector<Field> fields{{"name", tr("Name"), qs(shown_name(ground.name)),
                               stops ? tr("read by at(%1, t), t from 0 to 1").arg(qs(ground.name)) : QString()}};
    const auto add = [&](std::vector<Field> more) { fields.insert(fields.end(), more.begin(), more.end()); };
    if (has_file(ground.kind)) add({{"path", tr("File"), qs(ground.path), tr("as seen from the finish's own file")}});
    if (stops) add(stops_fields(ground));
    if (ground.kind == GroundKind::picture)
        add({{"meaning",
              tr("Holds"),
              ground.data ? "data" : "colour",
              tr("data is taken as it is, colour is turned into linear light"),
              {"colour", "data"}}});
    if ((ground.kind == GroundKind::picture && !ground.data) || ground.kind == GroundKind::sprite ||
        ground.kind == GroundKind::capture)
        add({{"opacity", tr("Opacity"), opacity_words().at(static_cast<int>(ground.opacity)),
              tr("as usual: OpenEXR has it multiplied into its colours unless it says otherwise, other files do not"),
              opacity_words()}});
    if (ground.kind == GroundKind::picture) add(cells_fields(ground.cells));
    if (ground.kind == GroundKind::sprite) add(sprite_fields(ground.sprite));
    if (ground.kind == GroundKind::scene) add(scene_fields(ground, session.finish()));
    if (ground.kind == GroundKind::capture) add(capture_fields(ground));
    if (ground.kind == GroundKind::marks) add(marks_fields(ground, session.finish()));
    if (is_view(ground.kind)) add(sampling_fields(ground.sampling));
    return fields;
}

// All numbers in a text, whatever stands between them.
std::vector<double> numbers_in(const QString& text) {
    static const QRegularExpression pattern(QStringLiteral("-?\\d+(\\.\\d+)?"));
    std::vector<double> numbers;
    for (auto match = pattern.globalMatch(text); match.hasNext();)
        numbers.push_back(match.next().captured().toDouble());
    return numbers;
}

QString part_changed(Sprite& sprite, const QString& key, const QString& text) {
    const std::vector<double> numbers = numbers_in(text);
    if (key == "sprite_size") {
        if (numbers.size() != 2 ||
            !is_drawable_size(static_cast<std::int64_t>(numbers[0]), static_cast<std::int64_t>(numbers[1])))
            return tr("Write two whole numbers, such as 512 x 512");
        sprite.width = static_cast<int>(numbers[0]);
        sprite.height = static_cast<int>(numbers[1]);
    }
    for (std::size_t i = 0; i < sprite.parts.size(); ++i) {
        if (key != part_key(i)) continue;
        const bool turned = text.contains(QStringLiteral("turn"));
        if (numbers.size() != (turned ? 5 : 4) || !(numbers[2] > 0 && numbers[2] <= largest_part_scale))
            return tr("Write it as 360, 240 x 1 share 0.8 turn 30 mirrored");
        SpritePart& part = sprite.parts[i];
        part.x = numbers[0];
        part.y = numbers[1];
        part.scale = numbers[2];
        part.share = numbers[3];
        part.turn = turned ? numbers[4] : 0;
        part.mirrored = text.contains(QStringLiteral("mirrored"));
    }
    return {};
}

QString cells_changed(SheetCells& cells, const QString& text) {
    const std::vector<double> numbers = numbers_in(text);
    if (numbers.empty()) {
        cells = SheetCells();
        return {};
    }
    const bool good = numbers.size() == 4 && numbers[0] >= 1 && numbers[1] >= 1 && numbers[2] >= 1 &&
                      numbers[0] * numbers[1] <= 4096 && numbers[3] >= 0;
    if (!good) return tr("Write it as 4 x 2, 7 of them, 12/s");
    cells = {static_cast<int>(numbers[0]), static_cast<int>(numbers[1]), static_cast<int>(numbers[2]), numbers[3]};
    return {};
}

// Three numbers, however they are parted.
std::optional<Vec3> point_from(const QString& text) {
    const QStringList parts = text.split(QRegularExpression(QStringLiteral("[,;\\s]+")), Qt::SkipEmptyParts);
    std::vector<double> numbers;
    for (const QString& part : parts) {
        if (const auto number = parse_number(part.toStdString())) numbers.push_back(*number);
    }
    if (numbers.size() != 3 || parts.size() != 3) return std::nullopt;
    return Vec3{numbers[0], numbers[1], numbers[2]};
}

QString scene_changed(SceneView& scene, const QString& key, const QString& text) {
    const std::string typed = text.toStdString();
    if (key == "place" && find_place(typed) != nullptr) scene = view_of_place(*find_place(typed), scene.hour);
    if (key == "hour") scene.hour = hour_named(typed).value_or(scene.hour);
    if (key == "eye" || key == "target") {
        const auto point = point_from(text);
        if (!point) return tr("Write three numbers, such as 4, 2, 10");
        (key == "eye" ? scene.camera.eye : scene.camera.target) = *point;
    }
    if (key == "field") {
        QString digits = text;
        const auto degrees = number_from(digits.remove(QChar(0x00B0)));
        if (!degrees || *degrees < 1 || *degrees > 150) return tr("Between 1 and 150 degrees");
        scene.camera.field = *degrees;
    }
    if (key == "path" && text.trimmed().isEmpty()) scene.path.clear();
    return {};
}

void layers_changed(CaptureLayers& layers, const QString& key, const QString& text) {
    for (const LayerField& field : layer_fields) {
        if (key == QLatin1String(field.key)) layers.*field.layer = layer_from(text);
    }
}

QString ids_changed(std::vector<int>& ids, const QString& text) {
    std::vector<int> read;
    for (const QString& part : text.split(QRegularExpression(QStringLiteral("[,;\\s]+")), Qt::SkipEmptyParts)) {
        bool good = false;
        const int id = part.toInt(&good);
        if (!good || id < 0) return tr("Write whole numbers, such as 3 4 12");
        read.push_back(id);
    }
    std::sort(read.begin(), read.end());
    read.erase(std::unique(read.begin(), read.end()), read.end());
    ids = std::move(read);
    return {};
}

QString ground_changed(Ground& ground, const QString& key, const QString& text) {
    const std::string typed = text.toStdString();
    if (key == "path" && has_file(ground.kind)) ground.path = typed;
    if (key == "meaning") ground.data = typed == "data";
    if (key == "opacity")
        ground.opacity = static_cast<FileOpacity>(std::max<qsizetype>(0, opacity_words().indexOf(text)));
    if (const StopPreset* preset = key == "preset" ? find_stop_preset(ground.kind, typed) : nullptr) {
        ground.stops = preset->stops;
        ground.between = preset->between;
    }
    if (key == "wrap") ground.sampling.wrap = wrap_named(typed).value_or(ground.sampling.wrap);
    if (key == "filter") ground.sampling.filter = filter_named(typed).value_or(ground.sampling.filter);
    if (key == "of") ground.of = typed;
    if (key == "camera_of") ground.of = text == tr("its own") ? std::string() : typed;
    if (key == "between") ground.between = stop_mix_named(typed).value_or(ground.between);
    if (key == "ids") return ids_changed(ground.ids, text);
    if (key == "cells") return cells_changed(ground.cells, text);
    if (ground.kind == GroundKind::sprite) return part_changed(ground.sprite, key, text);
    if (key == "stops") {
        Result<std::vector<Stop>> stops = parse_stops(ground.kind, typed);
        if (!stops) return qs(stops.fault().message + " - " + stops.fault().mend);
        ground.stops = std::move(*stops);
    }
    if (ground.kind == GroundKind::capture) layers_changed(ground.layers, key, text);
    return ground.kind == GroundKind::scene ? scene_changed(ground.scene, key, text) : QString();
}

QString title_of(GroundKind kind) {
    switch (kind) {
        case GroundKind::picture:
            return tr("Picture %1");
        case GroundKind::gradient:
            return tr("Gradient %1");
        case GroundKind::curve:
            return tr("Curve %1");
        case GroundKind::scene:
            return tr("Stand-in scene %1");
        case GroundKind::capture:
            return tr("Capture %1");
        case GroundKind::marks:
            return tr("Marks %1");
        case GroundKind::sprite:
            return tr("Sprite %1");
        case GroundKind::table:
            return tr("Table %1");
    }
    return {};
}

}  // namespace

namespace {

void show_layer_pictures(FieldForm& form, Session& session, std::size_t ground, const Name& name) {
    const Ground& capture = session.finish().grounds[ground];
    auto* pictures = new LayerPictures(picture_path(session.path(), capture.path), capture.layers, &form);
    QObject::connect(pictures, &LayerPictures::layers_found, &form,
                     [&form, pictures] { show_layers(form, *pictures); });
    QObject::connect(pictures, &LayerPictures::wants, &form,
                     [&form, &session, ground, name](const QString& role, const QString& layer) {
                         change_named(session, &Finish::grounds, *name,
                                      [&](Ground& g) { return ground_changed(g, role, layer); });
                         show_again(form, [&form, &session, ground] { show_ground_form(form, session, ground); });
                     });
    form.set_top(pictures);
}

}  // namespace

void show_ground_form(FieldForm& form, Session& session, std::size_t ground) {
    if (ground >= session.finish().grounds.size()) return;
    const Ground& found = session.finish().grounds[ground];
    const Name name = std::make_shared<std::string>(found.name);
    form.show_fields(
        title_of(found.kind).arg(qs(shown_name(found.name))), ground_fields(found, session),
        [&session, &form, name, ground](const QString& key, const QString& text) {
            if (key == "name") {
                QString complaint = rename_to(session, name, text);
                if (complaint.isEmpty())
                    show_again(form, [&form, &session, ground] { show_ground_form(form, session, ground); });
                return complaint;
            }
            QString complaint =
                change_named(session, &Finish::grounds, *name, [&](Ground& g) { return ground_changed(g, key, text); });
            // Another place has another view of its own, and a ready gradient other stops.
            if (complaint.isEmpty() && (key == "place" || key == "preset" || key == "meaning" || key == "path"))
                show_again(form, [&form, &session, ground] { show_ground_form(form, session, ground); });
            return complaint;
        });
    if (found.kind == GroundKind::gradient || found.kind == GroundKind::curve) {
        auto* stops = new StopsEditor(session, found.name, &form);
        QObject::connect(stops, &StopsEditor::wants_colour, &form, &FieldForm::wants_stop_colour);
        form.set_top(stops);
    }
    if (found.kind == GroundKind::capture) show_layer_pictures(form, session, ground, name);
}

}  // namespace lacquer
