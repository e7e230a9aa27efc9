// Every layer of a captured file as a small picture, to be told what it holds.
#pragma once

#include <QImage>
#include <QStringList>
#include <QWidget>
#include <atomic>
#include <string>
#include <thread>
#include <vector>

#include "core/scene/capture.h"

namespace lacquer {

/// Reads the file on a thread of its own, so that nothing waits for it. A click on a picture, or Enter, offers what the
/// layer may stand for.
class LayerPictures : public QWidget {
    Q_OBJECT

public:
    LayerPictures(const std::string& path, const CaptureLayers& chosen, QWidget* parent = nullptr);
    ~LayerPictures() override;
    QSize sizeHint() const override;
    /// Empty until they are found.
    const std::vector<PictureLayer>& layers() const { return layers_; }
    const CaptureLayers& found() const { return found_; }
    /// Why there are none.
    const QString& fault() const { return fault_; }
    /// Layers whose pictures are there; for tests.
    int drawn() const;
    QRect picture_area(int layer) const;

Q_SIGNALS:
    /// The file's layers are known; what each stands for is found with what was chosen.
    void layers_found();
    /// "colour", "depth", "normal", "position" or "id" is to be this layer.
    void wants(const QString& role, const QString& layer);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void read(const std::string& path, const CaptureLayers& chosen);
    void take_layers(std::vector<PictureLayer> layers, const QString& fault);
    void take_picture(std::size_t layer, const QImage& image);
    QString role_of(const std::string& layer) const;
    void offer(int layer);

    std::vector<PictureLayer> layers_;
    std::vector<QImage> images_;
    CaptureLayers chosen_;
    CaptureLayers found_;
    QString fault_;
    int current_ = 0;
    std::atomic<bool> stopping_ = false;
    std::thread reader_;
};

}  // namespace lacquer
