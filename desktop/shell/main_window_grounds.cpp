// What the window does with grounds: the shelf, scenes, marks, the camera.
#include <QAction>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/pages/forms.h"
#include "desktop/playing/playing.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/main_window.h"
#include "desktop/stage/stage_view.h"

namespace lacquer {

QWidget* MainWindow::shelf_side() {
    auto* side = new QWidget(this);
    auto* column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    QHBoxLayout* row = nullptr;
    QWidget* head = panel_header(side, row);
    shelf_words_ = quiet_label(head);
    shelf_words_->setObjectName(QStringLiteral("shelf_words"));
    row->addWidget(shelf_words_, 1);
    row->addWidget(panel_button(head, actions_["add_picture"], tr("+ Picture")));
    row->addWidget(panel_button(head, actions_["add_scene"], tr("+ Scene")));
    row->addWidget(panel_button(head, actions_["add_marks"], tr("Mark")));
    row->addWidget(panel_button(head, actions_["ground_shelf"], tr("Dials")));
    column->addWidget(head);
    column->addWidget(shelf_, 1);
    return side;
}

void MainWindow::refresh_shelf_words() {
    if (!shelf_->isVisible()) return;
    const QString bold = QStringLiteral("<b style='color:%1'>%2</b>&nbsp;&nbsp;");
    const std::size_t count = document_.finish().grounds.size();
    QString words = bold.arg(theme::text.name(), tr("Grounds")) + QString::number(count);
    if (count > 0) words += tr(" · %1 MB").arg(shelf_->bytes() / (1024 * 1024), 0, 'f', 1);
    // What is held at this moment, of what may be.
    const PictureStore& kept = drawing_.stores()->pictures;
    const auto megabytes = [](std::size_t bytes) { return static_cast<double>(bytes) / (1024 * 1024); };
    words += tr(" · %1 of %2 MB in memory")
                 .arg(megabytes(kept.bytes()), 0, 'f', 0)
                 .arg(megabytes(kept.limits().most), 0, 'f', 0);
    if (words != shelf_words_->text()) shelf_words_->setText(words);
}

void MainWindow::toggle_shelf() {
    const bool open = dial_pages_->currentIndex() != shelf_page;
    dial_pages_->setCurrentIndex(open ? shelf_page : dials_page);
    if (open) {
        shelf_->setFocus();
        refresh_shelf_words();
    } else {
        ladder_->setFocus();
    }
}

void MainWindow::choose_scene() {
    struct Option {
        const ScenePlace* place;
        Hour hour;
    };
    std::vector<Option> options;
    Chooser::Offer offer;
    offer.title = tr("A stand-in scene");
    for (const ScenePlace& place : scene_places()) {
        for (const Hour hour : {Hour::storm, Hour::dusk, Hour::day}) {
            options.push_back({&place, hour});
            const auto text = [](std::string_view view) {
                return QString::fromUtf8(view.data(), qsizetype(view.size()));
            };
            offer.choices.push_back(
                {.name = tr("%1, %2").arg(qs(shown_name(std::string(place.name))), text(name_of(hour))),
                 .words = core_words(place.words)});
        }
    }
    offer.taken = [this, options](int index) {
        const Option& taken = options.at(static_cast<std::size_t>(index));
        lacquer::add_scene(document_, *taken.place, taken.hour);
        shelf_->choose(document_.finish().grounds.back().name);
    };
    chooser_->open(stage_->mapTo(this, QPoint(24, 24)), std::move(offer));
}

void MainWindow::add_sprite_part() {
    const QString path = document_.prompts().picture_to_add(qs(document_.path()));
    if (path.isEmpty()) return;
    const std::size_t before = document_.finish().grounds.size();
    lacquer::add_sprite_part(document_, shelf_->chosen(), path);
    if (document_.finish().grounds.size() > before) shelf_->choose(document_.finish().grounds.back().name);
}

void MainWindow::mark_objects() {
    if (!stage_->pointing_marks().empty()) return stage_->point_at_objects({});
    // Those of the shelf, else the only ones, else new ones.
    const Ground* chosen = find_ground(document_.finish(), shelf_->isVisible() ? shelf_->chosen() : std::string());
    if (chosen == nullptr || chosen->as<MarksGround>() == nullptr) {
        chosen = nullptr;
        for (const Ground& ground : document_.finish().grounds) {
            if (ground.as<MarksGround>() != nullptr && chosen == nullptr) chosen = &ground;
        }
    }
    if (chosen == nullptr) {
        if (!lacquer::add_marks(document_)) return;
        chosen = &document_.finish().grounds.back();
    }
    shelf_->choose(chosen->name);
    stage_->point_at_objects(chosen->name);
}

void MainWindow::show_ground_page(const QString& ground) {
    const auto& grounds = document_.finish().grounds;
    const auto open = [this](std::size_t index) {
        show_ground_form(form(), models_, index);
        show_form();
        show_droplets(document_.finish().grounds[index]);
    };
    const std::string name = ground.isEmpty() && shelf_->isVisible() ? shelf_->chosen() : ground.toStdString();
    for (std::size_t i = 0; i < grounds.size(); ++i) {
        if (grounds[i].name == name) return open(i);
    }
    QStringList names;
    for (const Ground& each : grounds) names.append(qs(shown_name(each.name)));
    choose_page(
        names, [open](int i) { open(static_cast<std::size_t>(i)); },
        tr("Nothing to read yet: add a picture (%1), a scene (%2), a gradient or a curve")
            .arg(key_of("add_picture"), key_of("add_scene")));
}

void MainWindow::replace_chosen_ground() {
    const Ground* chosen = find_ground(document_.finish(), shelf_->chosen());
    if (chosen == nullptr) return;
    const std::string name = chosen->name;
    const QString path = document_.prompts().picture_to_add(qs(document_.path()));
    if (path.isEmpty()) return;
    lacquer::replace_ground(document_, name, path);
}

void MainWindow::put_camera_key() {
    const Ground* scene = stage_->stand_in_scene();
    if (scene == nullptr) return document_.say(tr("There is no stand-in scene whose camera could move"));
    document_.edit(lacquer::put_camera_key(document_.finish(), scene->name, playing_.time()),
                   tr("Put a stop of the camera at %1 s").arg(playing_.time(), 0, 'f', 2));
}

void MainWindow::put_camera_home() {
    const Ground* scene = stage_->stand_in_scene();
    const ScenePlace* place = scene != nullptr ? find_place(scene->as<SceneGround>()->view.place) : nullptr;
    if (place == nullptr) return document_.say(tr("There is no stand-in scene whose camera could move"));
    Ground home = *scene;
    SceneView& view = home.as<SceneGround>()->view;
    view.camera = place->camera;
    view.path.clear();
    document_.edit(lacquer::replace_ground(document_.finish(), scene->name, home),
                   tr("Reset the camera of %1").arg(qs(shown_name(scene->name))));
}

}  // namespace lacquer
