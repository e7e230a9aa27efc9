#include "desktop/pages/grounds/ground_pages.h"

#include <array>

#include "desktop/pages/form_changes.h"
#include "desktop/pages/grounds/capture_page.h"
#include "desktop/pages/layer_pictures.h"

namespace lacquer {

using namespace forms;

namespace {

// The layer without a name holds the colours of plain files.
QString layer_words(const std::string& layer) {
    return layer == no_layer ? QStringLiteral("none") : layer.empty() ? QStringLiteral("main") : qs(layer);
}
std::string layer_from(const QString& words) {
    return words == QStringLiteral("none") ? no_layer : words == QStringLiteral("main") ? "" : words.toStdString();
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

}  // namespace

QString kind_words(const CaptureGround&) { return tr("capture"); }

QString facts_of(const CaptureGround& ground) { return kind_words(ground); }

// Each can be chosen from the file's layers, once they are known.
std::vector<Field> fields_of(const CaptureGround& ground, const Finish&) {
    std::vector<Field> fields;
    for (const LayerField& field : layer_fields) {
        const std::string& chosen = ground.layers.*field.layer;
        const QString now = chosen.empty() ? tr("automatic") : layer_words(chosen);
        fields.push_back({QString::fromLatin1(field.key), tr(field.label), now, tr(field.hint), {now}});
    }
    return fields;
}

QString change_field(CaptureGround& ground, const QString& key, const QString& text) {
    for (const LayerField& field : layer_fields) {
        if (key == QLatin1String(field.key)) ground.layers.*field.layer = layer_from(text);
    }
    return {};
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

}  // namespace lacquer
