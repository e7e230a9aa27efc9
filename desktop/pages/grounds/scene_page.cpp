#include "desktop/pages/grounds/ground_pages.h"

#include "core/base/text.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/grounds/typed_numbers.h"

namespace lacquer {

using namespace forms;

namespace {

QString point_text(Vec3 point) {
    return QStringLiteral("%1, %2, %3")
        .arg(qs(plain_number(point.x, 4)), qs(plain_number(point.y, 4)), qs(plain_number(point.z, 4)));
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

}  // namespace

QString kind_words(const SceneGround&) { return tr("stand-in scene"); }

QString facts_of(const SceneGround& ground) {
    return QStringLiteral("%1 · %2").arg(qs(shown_name(ground.view.place)), sv(name_of(ground.view.hour)));
}

std::vector<Field> fields_of(const SceneGround& ground, const Finish& finish) {
    const SceneView& scene = ground.view;
    QStringList leaders{tr("its own")};
    for (const Ground& each : finish.grounds) {
        const auto* other = each.as<SceneGround>();
        if (other != nullptr && other != &ground) leaders.append(qs(each.name));
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
            {"path", tr("Path"),
             scene.path.empty() ? tr("stands still") : tr("%n stop(s)", nullptr, static_cast<int>(scene.path.size())),
             tr("put stops with Camera stop here; clear this field to let it stand still")}};
}

QString change_field(SceneGround& ground, const QString& key, const QString& text) {
    if (key == "camera_of") ground.of = text == tr("its own") ? std::string() : text.toStdString();
    return scene_changed(ground.view, key, text);
}

}  // namespace lacquer
