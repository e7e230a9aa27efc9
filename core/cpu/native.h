// Stages that this processor has a way of its own for, beside the text that every driver runs: what the text does by
// many rounds or long loops, done in one go. An operation's file names the way (docs/operations.md); both give the same
// numbers.
#pragma once

#include <string_view>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/cpu/kernels.h"
#include "core/picture/picture.h"
#include "core/picture/sample.h"

namespace lacquer {

/// What a stage is made of.
struct NativeInputs {
    PictureView from;        ///< the stored stage that it reads, of the drawn size
    float argument = 0;      ///< a number that is the same for all pixels; its meaning is the way's
    float frame_width = 1;   ///< the finish's own frame, pixels
    float frame_height = 1;  ///< the same
    float stage_width = 1;   ///< what is stored, in pixels, where the frame is drawn at its own size
    float stage_height = 1;  ///< the same
};

/// Fills `to`, which has the size of what is read but for ways that resize. False if it was called off: then `to` is
/// unfinished.
using NativeRun = bool (*)(const NativeInputs& inputs, const KernelSet& kernels, Picture& to, WorkerPool& pool,
                           const Cancel& cancel);

struct NativeWay {
    std::string_view name;
    int reads = 0;          ///< channels of what it reads; 0 for any
    int stores = 0;         ///< channels of what it stores; 0 for as many as it reads
    int working_bytes = 0;  ///< besides, a pixel
    int column_bytes = 0;   ///< besides, a column, of each thread
    NativeRun run = nullptr;
    bool resizes = false;  ///< whether it stores at another size than that of what it reads
    bool rests = false;    ///< whether an argument that is not above 0 stores nothing but 0
};

/// The way of this name; null if there is none, then the text is run.
const NativeWay* native_way(std::string_view name);

// The ways, each in a file of its own: kernels_nearest.cpp, native_gaussian.cpp, native_discs.cpp, native_quarter.cpp.

/// The nearest pixels of two kinds. Reads 0 where a pixel is of a kind, else 1e6, in one channel for each kind; stores
/// for each kind how far to the right and down the nearest is, in drawn pixels, and 0, 1e6 where none is nearer than
/// `argument` + 1. Of several, one in the same column counts first, then the nearest column, right before left; below
/// before above. After T. Saito and J. Toriwaki, "New algorithms for Euclidean distance transformation", Pattern
/// Recognition 27(11), 1994.
NativeWay nearest_places_way();

/// A Gaussian along one axis: the mean of the pixels at whole distances, in pixels of the stage at its own size, up to
/// four times the standard deviation `argument` in such pixels, held at the borders. What is 0 or below stores 0.
NativeWay gaussian_across_way();
NativeWay gaussian_down_way();

/// A copy at a quarter of the frame's size, with four pixels of it to spare on every side, made by a Gaussian whose
/// standard deviation is `argument` pixels of the copy, up to 8, and that reaches three times as far. 0 stores 0.
NativeWay gaussian_quarter_way();

/// Such a copy at the frame's size again, by a cubic B-spline through its pixels. An `argument` of 0 stores 0.
NativeWay spline_from_quarter_way();

/// The greatest, or least, of a disc's pixels, in each channel by itself; its radius is `argument` in pixels of the
/// frame, up to 63, or that of a square where it is below 0; held at the borders. Parts of a pixel count. 0 stores 0.
NativeWay greatest_over_disc_way();
NativeWay least_over_disc_way();

}  // namespace lacquer
