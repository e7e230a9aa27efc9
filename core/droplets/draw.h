// Drops as pictures.
#pragma once

#include <vector>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/droplets/emitter.h"
#include "core/picture/picture.h"

namespace lacquer {

/// What can be drawn of drops.
enum class DropLayer { colour, age, seed, place, push };
inline constexpr int drop_layer_count = 5;

/// Which of them are wanted.
struct DropLayers {
    bool wanted[drop_layer_count] = {};
    bool& operator[](DropLayer layer) { return wanted[static_cast<int>(layer)]; }
    bool operator[](DropLayer layer) const { return wanted[static_cast<int>(layer)]; }
};

/// What the drops of shape `picture` look like: the picture and its smaller copies, each half the size of the one
/// before.
struct DropSprite {
    std::vector<PicturePtr> levels;  ///< 4 channels; empty for the ready shapes
};

/// One picture for each wanted layer, the others empty. Colours of 4 channels, with straight opacity, clear where no
/// drop is; the share of life or end that is over, the mean by opacity; the number of the most opaque drop; its own
/// coordinates, -1..1; and the slope of all heights, pointing down, in heights per half size.
struct DropPictures {
    Picture layers[drop_layer_count];
    Picture& operator[](DropLayer layer) { return layers[static_cast<int>(layer)]; }
};

/// Draws what lives. The same bits for any number of threads: a tile draws its drops in the order of their births, or
/// against it. Where it is called off, the rest is not drawn. Pictures of `old` that have the right size are written
/// over.
DropPictures draw_drops(const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite, int width,
                        int height, const DropLayers& layers, WorkerPool& pool, const Cancel& cancel,
                        DropPictures old = {});

}  // namespace lacquer
