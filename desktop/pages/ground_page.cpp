// The page of a ground, whatever its kind.
#include <algorithm>

#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/kinds.h"
#include "desktop/pages/drop_plot.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/forms.h"
#include "desktop/pages/grounds/capture_page.h"
#include "desktop/pages/grounds/ground_pages.h"
#include "desktop/pages/layer_pictures.h"
#include "desktop/pages/stops_editor.h"

namespace lacquer {

using namespace forms;

namespace {

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

// In the order of FileOpacity.
QStringList opacity_words() { return {tr("as usual"), tr("multiplied"), tr("straight")}; }

QString title_of(const Ground& ground) {
    QString words = std::visit([](const auto& kind) { return kind_words(kind); }, ground.kind);
    words[0] = words[0].toUpper();
    return QStringLiteral("%1 %2").arg(words, qs(shown_name(ground.name)));
}

std::vector<Field> ground_fields(const Ground& ground, const Models& models) {
    std::vector<Field> fields{
        {"name", tr("Name"), qs(shown_name(ground.name)),
         stops_of(ground) != nullptr ? tr("read by at(%1, t), t from 0 to 1").arg(qs(ground.name)) : QString()}};
    // What all grounds have stands with the last group, where there are some.
    const auto add = [&](std::vector<Field> more) {
        const QString group = fields.back().group;
        for (Field& field : more) field.group = field.group.isEmpty() ? group : field.group;
        fields.insert(fields.end(), more.begin(), more.end());
    };
    if (const std::string* path = path_of(ground))
        add({{"path", tr("File"), qs(*path), tr("as seen from the finish's own file")}});
    add(std::visit([&](const auto& kind) { return fields_of(kind, models.document.finish()); }, ground.kind));
    if (const FileOpacity* opacity = opacity_of(ground); opacity != nullptr && !is_data(ground))
        add({{"opacity", tr("Opacity"), opacity_words().at(static_cast<int>(*opacity)),
              tr("as usual: OpenEXR has it multiplied into its colours unless it says otherwise, other files do not"),
              opacity_words()}});
    if (const Sampling* sampling = sampling_of(ground)) add(sampling_fields(*sampling));
    return fields;
}

QString ground_changed(Ground& ground, const QString& key, const QString& text) {
    const std::string typed = text.toStdString();
    if (std::string* path = key == "path" ? path_of(ground) : nullptr) *path = typed;
    if (FileOpacity* opacity = key == "opacity" ? opacity_of(ground) : nullptr)
        *opacity = static_cast<FileOpacity>(std::max<qsizetype>(0, opacity_words().indexOf(text)));
    if (Sampling* sampling = sampling_of(ground)) {
        if (key == "wrap") sampling->wrap = wrap_named(typed).value_or(sampling->wrap);
        if (key == "filter") sampling->filter = filter_named(typed).value_or(sampling->filter);
    }
    return std::visit([&](auto& kind) { return change_field(kind, key, text); }, ground.kind);
}

void show_layer_pictures(FieldForm& form, Models& models, std::size_t ground, const Name& name) {
    const auto* capture = models.document.finish().grounds[ground].as<CaptureGround>();
    if (capture == nullptr) return;
    auto* pictures = new LayerPictures(picture_path(models.document.path(), capture->path), capture->layers, &form);
    QObject::connect(pictures, &LayerPictures::layers_found, &form,
                     [&form, pictures] { show_layers(form, *pictures); });
    QObject::connect(pictures, &LayerPictures::wants, &form,
                     [&form, &models, ground, name](const QString& role, const QString& layer) {
                         change_named(models, &Finish::grounds, *name,
                                      [&](Ground& g) { return ground_changed(g, role, layer); });
                         show_again(form, [&form, &models, ground] { show_ground_form(form, models, ground); });
                     });
    form.set_top(pictures);
}

}  // namespace

QString ground_facts(const Ground& ground) {
    return std::visit([](const auto& kind) { return facts_of(kind); }, ground.kind);
}

void show_ground_form(FieldForm& form, Models& models, std::size_t ground) {
    if (ground >= models.document.finish().grounds.size()) return;
    const Ground& found = models.document.finish().grounds[ground];
    const Name name = std::make_shared<std::string>(found.name);
    form.show_fields(title_of(found), ground_fields(found, models),
                     [&models, &form, name, ground](const QString& key, const QString& text) {
                         if (key == "name") {
                             Look look = models.drawing.look();
                             const bool has_hands = look.droplets == *name;
                             QString complaint = rename_to(models, name, text);
                             if (!complaint.isEmpty()) return complaint;
                             // Its hands on the stage go by its name.
                             if (has_hands) {
                                 look.droplets = *name;
                                 models.drawing.set_look(std::move(look));
                             }
                             show_again(form, [&form, &models, ground] { show_ground_form(form, models, ground); });
                             return complaint;
                         }
                         QString complaint = change_named(models, &Finish::grounds, *name,
                                                          [&](Ground& g) { return ground_changed(g, key, text); });
                         // Another place has another view of its own, and a ready gradient other stops.
                         if (complaint.isEmpty() &&
                             (key == "place" || key == "preset" || key == "meaning" || key == "path" || key == "shape"))
                             show_again(form, [&form, &models, ground] { show_ground_form(form, models, ground); });
                         return complaint;
                     });
    if (found.as<DropletsGround>() != nullptr)
        form.set_beside([&models, name](QWidget* parent) { return new DropPlot(models, *name, parent); });
    form.follow([&models, name] {
        const Ground* now = find_ground(models.document.finish(), *name);
        return now != nullptr ? ground_fields(*now, models) : std::vector<Field>();
    });
    if (const auto values = stop_values(found)) {
        auto* stops = new StopsEditor(models, found.name, *values, &form);
        QObject::connect(stops, &StopsEditor::wants_colour, &form, &FieldForm::wants_stop_colour);
        form.set_top(stops);
    }
    show_layer_pictures(form, models, ground, name);
}

}  // namespace lacquer
