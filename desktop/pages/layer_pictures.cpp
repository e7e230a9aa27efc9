#include "desktop/pages/layer_pictures.h"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "core/base/worker_pool.h"
#include "core/picture/reading.h"
#include "core/picture/sample.h"
#include "core/render/layer_view.h"
#include "core/render/view.h"
#include "desktop/drawing/render_thread.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/thumbnail.h"

namespace lacquer {

namespace {

constexpr int picture_width = 120;
constexpr int picture_height = 68;
constexpr int gap = 8;
constexpr int words_height = 32;

struct Role {
    const char* key;
    const char* words;
    std::string CaptureLayers::*layer;
    GroundLayer shown;
};
constexpr std::array roles{Role{"colour", "colours", &CaptureLayers::colour, GroundLayer::colour},
                           Role{"depth", "depth", &CaptureLayers::depth, GroundLayer::depth},
                           Role{"normal", "normals", &CaptureLayers::normal, GroundLayer::normal},
                           Role{"position", "positions", &CaptureLayers::position, GroundLayer::position},
                           Role{"id", "objects", &CaptureLayers::id, GroundLayer::id}};

const Role* role_in(const CaptureLayers& layers, const std::string& layer) {
    const auto found =
        std::find_if(roles.begin(), roles.end(), [&](const Role& r) { return layers.*r.layer == layer; });
    return found != roles.end() ? &*found : nullptr;
}

// What nobody has said the meaning of: between black and its own brightest.
Picture stretched(Picture picture) {
    float most = 0;
    for (const float value : picture.data) most = std::isfinite(value) ? std::max(most, value) : most;
    for (std::size_t i = 0; most > 1 && i < picture.data.size(); ++i) {
        if (i % 4 != 3) picture.data[i] /= most;
    }
    return picture;
}

Image8 shown_as(const Picture& layer, const Role* role, WorkerPool& pool) {
    if (role == nullptr) return to_image(stretched(layer), Type::vec3, pool);
    if (needs_layer_view(role->shown)) return to_image(layer_view(layer, role->shown), Type::vec3, pool);
    return to_image(layer, Type::vec4, pool);
}

QString name_words(const std::string& layer) {
    return layer.empty() ? LayerPictures::tr("main") : QString::fromStdString(layer);
}

}  // namespace

LayerPictures::LayerPictures(const std::string& path, const CaptureLayers& chosen, QWidget* parent)
    : QWidget(parent), chosen_(chosen), found_(chosen) {
    setObjectName(QStringLiteral("layer_pictures"));
    setAccessibleName(tr("Layers"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(tr("Click on a layer, or press Enter, to say what it holds"));
    setFixedHeight(picture_height + words_height + 4);
    reader_ = std::thread([this, path, chosen] { read(path, chosen); });
}

LayerPictures::~LayerPictures() {
    stopping_ = true;
    reader_.join();
}

QSize LayerPictures::sizeHint() const { return {500, height()}; }

// On the thread; each answer is taken up by the interface's.
void LayerPictures::read(const std::string& path, const CaptureLayers& chosen) {
    const auto post = [this](auto take) { QMetaObject::invokeMethod(this, std::move(take), Qt::QueuedConnection); };
    Result<std::vector<PictureLayer>> layers = picture_layers(path);
    if (!layers) {
        const QString fault = core_words(layers.fault().message);
        return post([this, fault] { take_layers({}, fault); });
    }
    const std::vector<PictureLayer> all = std::move(*layers);
    post([this, all] { take_layers(all, {}); });
    const CaptureLayers found = found_layers(all, chosen);
    WorkerPool pool(1);
    for (std::size_t i = 0; i < all.size() && !stopping_; ++i) {
        const Result<Picture> layer =
            read_layer_watched(path, all[i].name, [this](double) { return !stopping_.load(); });
        if (!layer) continue;
        const int width = 2 * picture_width;
        const int height = std::max(1, width * layer->height / std::max(1, layer->width));
        const Image8 image = shown_as(thinned_to(*layer, width, height), role_in(found, all[i].name), pool);
        post([this, i, made = to_qimage(image)] { take_picture(i, made); });
    }
}

void LayerPictures::take_layers(std::vector<PictureLayer> layers, const QString& fault) {
    layers_ = std::move(layers);
    images_.resize(layers_.size());
    fault_ = fault;
    found_ = found_layers(layers_, chosen_);
    emit layers_found();
    update();
}

void LayerPictures::take_picture(std::size_t layer, const QImage& image) {
    images_[layer] = image;
    update();
}

int LayerPictures::drawn() const {
    return static_cast<int>(std::count_if(images_.begin(), images_.end(), [](const QImage& i) { return !i.isNull(); }));
}

QRect LayerPictures::picture_area(int layer) const {
    // As many as there is room for side by side; those chosen by keys come into view.
    const int fit = std::max(1, (width() + gap) / (picture_width + gap));
    const int first = std::max(0, current_ - fit + 1);
    return {(layer - first) * (picture_width + gap), 2, picture_width, picture_height};
}

QString LayerPictures::role_of(const std::string& layer) const {
    const Role* role = role_in(found_, layer);
    return role != nullptr ? tr(role->words) : tr("not used");
}

void LayerPictures::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    if (layers_.empty()) {
        return theme::paint_text(painter, rect(), fault_.isEmpty() ? tr("Reading the file's layers ...") : fault_,
                                 theme::words(theme::plain), theme::quiet);
    }
    for (int i = 0; i < static_cast<int>(layers_.size()); ++i) {
        const QRect area = picture_area(i);
        const auto layer = static_cast<std::size_t>(i);
        paint_thumbnail(painter, area, images_[layer]);
        if (i == current_ && hasFocus()) {
            painter.setPen(theme::gold);
            painter.drawRect(area.adjusted(0, 0, -1, -1));
        }
        const QRect words(area.left(), area.bottom() + 2, area.width(), words_height / 2);
        theme::paint_text(painter, words, name_words(layers_[layer].name), theme::figures(theme::plain), theme::text);
        theme::paint_text(painter, words.translated(0, words_height / 2 - 1), role_of(layers_[layer].name),
                          theme::words(theme::small), theme::quiet);
    }
}

void LayerPictures::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(layers_.size()); ++i) {
        if (!picture_area(i).adjusted(0, 0, 0, words_height).contains(event->pos())) continue;
        current_ = i;
        update();
        return offer(i);
    }
}

void LayerPictures::keyPressEvent(QKeyEvent* event) {
    const int last = static_cast<int>(layers_.size()) - 1;
    switch (event->key()) {
        case Qt::Key_Left:
        case Qt::Key_Right:
            current_ = std::clamp(current_ + (event->key() == Qt::Key_Right ? 1 : -1), 0, std::max(0, last));
            return update();
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (last >= 0) offer(current_);
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void LayerPictures::offer(int layer) {
    const std::string name = layers_[static_cast<std::size_t>(layer)].name;
    // Not on the stack: this page may go while it is open, and takes it along.
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("layer_roles"));
    for (const Role& role : roles) {
        QAction* action = menu->addAction(tr("Holds %1").arg(tr(role.words)));
        action->setCheckable(true);
        action->setChecked(found_.*role.layer == name);
        connect(action, &QAction::triggered, this,
                [this, key = role.key, name] { emit wants(QString::fromLatin1(key), name_words(name)); });
    }
    menu->popup(mapToGlobal(picture_area(layer).bottomLeft()));
}

}  // namespace lacquer
