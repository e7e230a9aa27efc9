// A pass laid out for the strip machine, and running it.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/cpu/ir.h"
#include "core/cpu/kernels.h"
#include "core/picture/picture.h"

namespace lacquer {

/// Where a value lives while the program runs: which kind of store, and its index there.
struct Ref {
    Rate rate = Rate::uniform;
    int index = 0;
};

/// One instruction, ready to run.
struct Line {
    Op op = Op::constant;
    Kernel kernel = nullptr;
    std::array<Ref, max_inputs> in{};
    std::array<Ref, 4> out{};
    std::uint32_t slot = 0;
    /// Computed once along the strip though it runs with the pixels.
    bool narrow = false;
    /// Some of its inputs lie where they do by the column at which a strip begins.
    bool reads_columns = false;
    /// Is handed something else than the values of its inputs.
    bool is_odd = false;
    /// For an instruction that steers: the line of its other end.
    std::size_t jump = 0;
};

/// The laid-out program: what is computed once, once a row, once a column, and at each pixel.
struct Program {
    std::string kernels;  ///< name of the instruction set
    JoinPixels join_pixels = nullptr;
    std::array<std::vector<Line>, 4> lines;                ///< by rate
    std::array<int, 4> stores{};                           ///< how many values each store holds; for pixels, strips
    std::vector<std::pair<int, std::uint32_t>> constants;  ///< uniform index, bits
    std::vector<std::pair<int, std::uint32_t>> uniforms;   ///< uniform index, slot
    std::vector<UniformSlot> uniform_slots;
    std::vector<PictureUse> pictures;
    std::vector<std::string> output_names;
    std::vector<std::vector<Ref>> outputs;
    int strip_length = 512;  ///< pixels; what a strip needs stays in the first-level cache
    /// Drawn two rows at a time, so that each pixel's neighbours in its 2 x 2 block are at hand; a strip holds the
    /// upper row's pixels, then the lower's.
    bool quads = false;
};

/// Lays an IR out for a set of kernels.
Program lay_out(const Ir& ir, const KernelSet& kernels);

/// The layout as text.
std::string to_text(const Program& program);

/// What a run works on. `uniforms` holds the 32 bits of each slot; `pictures` one view a slot.
struct RunInputs {
    int width = 1;  ///< drawn grid, pixels
    int height = 1;
    float frame_width = 1;  ///< the finish's own frame
    float frame_height = 1;
    std::span<const float> uniforms;
    std::span<const PictureView> pictures;
    int tile_rows = 16;  ///< pixels' rows a worker takes at a time; does not change the result
};

/// A pixel of the drawn grid, from the top left.
struct PixelPoint {
    int x = 0;
    int y = 0;
    friend bool operator==(const PixelPoint&, const PixelPoint&) = default;
};

/// Runs the program at these pixels only, which lie in the grid. Output k goes to `outputs[k]`, one row with a pixel
/// for each point. The values are those that `run` has there.
void run_at(const Program& program, const RunInputs& inputs, std::span<const PixelPoint> points,
            std::span<Picture> outputs);

/// Gets the rows of an output, `channels` numbers a pixel, as soon as each is there: in any order and from any of the
/// threads. The numbers are gone afterwards.
struct RowTaker {
    int channels = 4;
    std::function<void(int y, const float* row)> take;
};

/// As below, but nothing is kept: output k goes to `takers[k]`, row by row.
bool run_by_rows(const Program& program, const RunInputs& inputs, std::span<const RowTaker> takers, WorkerPool& pool,
                 const Cancel& cancel);

/// Runs the program on the whole grid. Output k goes to `outputs[k]`, of the grid's size; missing channels are filled
/// with 0. False if it was called off: then the outputs are unfinished.
bool run(const Program& program, const RunInputs& inputs, std::span<Picture> outputs, WorkerPool& pool,
         const Cancel& cancel);

}  // namespace lacquer
