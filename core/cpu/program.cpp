#include "core/cpu/program.h"

#include <hwy/aligned_allocator.h>

#include <algorithm>
#include <atomic>
#include <bit>
#include <cstring>

namespace lacquer {

namespace {

constexpr std::size_t of(Rate rate) { return static_cast<std::size_t>(rate); }

// The stores of one run that all tiles share.
struct Shared {
    hwy::AlignedFreeUniquePtr<float[]> uniforms;
    hwy::AlignedFreeUniquePtr<float[]> columns;
    std::size_t column_length = 0;
};

hwy::AlignedFreeUniquePtr<float[]> zeroed(std::size_t floats) {
    auto memory = hwy::AllocateAligned<float>(std::max<std::size_t>(floats, lane_block));
    std::memset(memory.get(), 0, std::max<std::size_t>(floats, lane_block) * sizeof(float));
    return memory;
}

bool is_true(const float* lane) {
    std::uint32_t bits = 0;
    std::memcpy(&bits, lane, sizeof bits);
    return bits != 0;
}

// Runs lines with the addresses that belong to one place in the grid.
class Machine {
public:
    Machine(const Program& program, const RunInputs& inputs, Shared& shared, const Cancel& cancel)
        : program_(program),
          inputs_(inputs),
          cancel_(cancel),
          rows_(zeroed(2 * static_cast<std::size_t>(program.stores[of(Rate::row)]) * lane_block)),
          strips_(zeroed(static_cast<std::size_t>(program.stores[of(Rate::pixel)]) * strip_length())) {
        stores_[of(Rate::uniform)] = {shared.uniforms.get(), lane_block, 0, 0, 0};
        stores_[of(Rate::row)] = {rows_.get(), 2 * lane_block, 0, lane_block, 0};
        stores_[of(Rate::column)] = {shared.columns.get(), shared.column_length, 1, 0, 1};
        stores_[of(Rate::pixel)] = {strips_.get(), strip_length(), 0, strip_length() / 2, 1};
        args_.grid_width = inputs.width;
        args_.grid_height = inputs.height;
        args_.frame_width = inputs.frame_width;
        args_.frame_height = inputs.frame_height;
    }

    // Rows are 0 for the upper and 1 for the lower of a pair.
    void run_row_lines(int y, int row) {
        for (const Line& line : program_.lines[of(Rate::row)]) run_line(line, 0, y, row, lane_block);
    }
    void run_plain_lines(Rate rate, int x, std::size_t count) {
        for (const Line& line : program_.lines[of(rate)]) run_line(line, x, 0, 0, count);
    }

    // Computes the strip at (x, y), or the pair of strips there. False if it was called off within a loop.
    bool run_pixel_lines(int x, int y, std::size_t count) {
        const std::vector<Line>& lines = program_.lines[of(Rate::pixel)];
        const int rows = program_.quads ? 2 : 1;
        bind(x, y, count);
        for (std::size_t n = 0; n < lines.size(); ++n) {
            const Line& line = lines[n];
            if (line.kernel == nullptr) {
                if (line.op == Op::loop_end && cancel_.requested()) return false;
                const bool goes = line.op == Op::loop_end || ((line.op == Op::loop_exit || line.op == Op::skip_begin) &&
                                                              !wanted(line.in[0], x, y, count));
                if (goes) n = line.jump;
                continue;
            }
            for (int row = 0; row < rows; ++row) line.kernel(bound_[static_cast<std::size_t>(row)][n]);
        }
        return true;
    }

    // Hands the strip that begins at column x out to interleaved channels.
    void store(const std::vector<Ref>& parts, float* to, std::size_t channels, int x, int row, std::size_t count) {
        if (parts.size() >= 3 && channels == 4) {
            const std::size_t blocks = count / lane_block * lane_block;
            std::array<const float*, 4> from{};
            std::array<std::size_t, 4> strides{};
            for (std::size_t c = 0; c < 4; ++c) {
                const bool there = c < parts.size();
                from[c] = there ? address(parts[c], x, row) : nothing_.data();
                strides[c] = there ? stride(parts[c]) : 0;
            }
            program_.join_pixels(from, strides, to, blocks);
            for (std::size_t i = blocks; i < count; ++i) {
                for (std::size_t c = 0; c < 4; ++c) to[i * 4 + c] = from[c][i * strides[c]];
            }
            return;
        }
        if (channels == 1 && parts.size() == 1) {
            const float* from = address(parts[0], x, row);
            if (stride(parts[0]) == 0) {
                std::fill_n(to, count, *from);
            } else {
                std::copy_n(from, count, to);
            }
            return;
        }
        for (std::size_t c = parts.size(); c < channels; ++c) {
            for (std::size_t i = 0; i < count; ++i) to[i * channels + c] = 0.0F;
        }
        for (std::size_t c = 0; c < channels && c < parts.size(); ++c) {
            const float* from = address(parts[c], x, row);
            const std::size_t step = stride(parts[c]);
            for (std::size_t i = 0; i < count; ++i) to[i * channels + c] = from[i * step];
        }
    }

    // The value at pixel x of the strip that begins at `left`.
    float value_at(Ref ref, int left, int x, int row) const {
        return address(ref, left, row)[static_cast<std::size_t>(x - left) * stride(ref)];
    }

private:
    void run_line(const Line& line, int x, int y, int row, std::size_t count) {
        args_.count = count;
        args_.x = x;
        args_.y = y;
        set_places(args_, line, x, row);
        line.kernel(args_);
    }

    // Where a line finds its inputs, and where its outputs go.
    void set_places(KernelArgs& args, const Line& line, int x, int row) const {
        const OpInfo& info = op_info(line.op);
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
            args.in[k] = address(line.in[k], x, row);
            args.stride[k] = stride(line.in[k]);
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
            args.out[k] = address(line.out[k], x, row);
        }
        if (line.is_odd) set_odd_places(args, line, x, row);
    }

    // Of those that are handed something else than their inputs.
    void set_odd_places(KernelArgs& args, const Line& line, int x, int row) const {
        if (line.op == Op::assign) {
            args.in[0] = args.in[1];
            args.stride[0] = args.stride[1];
            args.out[0] = address(line.out[0], x, row);
        }
        if (line.op == Op::derivative_y) {
            args.in[0] = address(line.in[0], x, 0);
            args.in[1] = address(line.in[0], x, 1);
            args.stride[1] = args.stride[0];
        }
        if (reads_picture(line.op)) args.picture = &inputs_.pictures[line.slot];
    }

    // The lines that run with the pixels find all but columns' values at the same places in every strip, and a loop
    // runs them many times in each: so their arguments are made once, and only what differs is set for a strip.
    void bind(int x, int y, std::size_t count) {
        const std::vector<Line>& lines = program_.lines[of(Rate::pixel)];
        for (int row = 0; row < (program_.quads ? 2 : 1); ++row) {
            std::vector<KernelArgs>& bound = bound_[static_cast<std::size_t>(row)];
            const bool is_first = bound.empty();
            if (is_first) bound.assign(lines.size(), args_);
            for (std::size_t n = 0; n < lines.size(); ++n) {
                const Line& line = lines[n];
                if (line.kernel == nullptr) continue;
                KernelArgs& args = bound[n];
                args.count = line.narrow ? lane_block : count;
                args.x = x;
                args.y = y + row;
                if (is_first || line.reads_columns) set_places(args, line, x, row);
            }
        }
    }

    // Whether some pixel of the strip has a true value here.
    bool wanted(Ref ref, int x, int y, std::size_t count) const {
        const int rows = program_.quads && y + 1 < inputs_.height ? 2 : 1;
        const std::size_t inside = std::min(count, static_cast<std::size_t>(inputs_.width - x));
        for (int row = 0; row < rows; ++row) {
            const float* mask = address(ref, x, row);
            const std::size_t last = stride(ref) == 0 ? 1 : inside;
            for (std::size_t i = 0; i < last; ++i) {
                if (is_true(mask + i)) return true;
            }
        }
        return false;
    }

    std::size_t stride(Ref ref) const { return stores_[of(ref.rate)].stride; }
    std::size_t strip_length() const { return static_cast<std::size_t>(program_.strip_length); }
    float* address(Ref ref, int x, int row) const {
        const Store& store = stores_[of(ref.rate)];
        return store.first + static_cast<std::size_t>(ref.index) * store.per_index +
               static_cast<std::size_t>(x) * store.per_x + static_cast<std::size_t>(row) * store.per_row;
    }

    // Where the values of one rate lie, and how far apart in floats: from one value to the next, by where in the
    // picture's row the strip begins, from the upper row of a pair to the lower, from a pixel of the strip to the next.
    struct Store {
        float* first;
        std::size_t per_index;
        std::size_t per_x;
        std::size_t per_row;
        std::size_t stride;
    };

    alignas(64) std::array<float, lane_block> nothing_{};  // stands for a channel that a step does not have
    const Program& program_;
    const RunInputs& inputs_;
    const Cancel& cancel_;
    hwy::AlignedFreeUniquePtr<float[]> rows_;
    hwy::AlignedFreeUniquePtr<float[]> strips_;
    std::array<Store, 4> stores_{};
    KernelArgs args_;
    std::array<std::vector<KernelArgs>, 2> bound_;
};

// How many pixels a strip covers from left to right.
int strip_columns(const Program& program) { return program.quads ? program.strip_length / 2 : program.strip_length; }

// Pixels to compute from x on; whole blocks of two where neighbours matter.
std::size_t strip_count(const Program& program, int x, int width) {
    const int count = std::min(strip_columns(program), width - x);
    return static_cast<std::size_t>(program.quads ? count + count % 2 : count);
}

Shared prepare(const Program& program, const RunInputs& inputs) {
    Shared shared;
    const auto length = static_cast<std::size_t>(program.strip_length);
    shared.column_length = (static_cast<std::size_t>(inputs.width) + length - 1) / length * length;
    shared.uniforms = zeroed(static_cast<std::size_t>(program.stores[of(Rate::uniform)]) * lane_block);
    shared.columns = zeroed(static_cast<std::size_t>(program.stores[of(Rate::column)]) * shared.column_length);
    const auto fill = [&](int index, float value) {
        std::fill_n(shared.uniforms.get() + static_cast<std::size_t>(index) * lane_block, lane_block, value);
    };
    for (const auto& [index, bits] : program.constants) fill(index, std::bit_cast<float>(bits));
    for (const auto& [index, slot] : program.uniforms) fill(index, inputs.uniforms[slot]);
    return shared;
}

// Each tile has a sink of its own, which says where the strips of each output go, and is told of rows that are whole.
template <class MakeSink>
bool run_tiles(const Program& program, const RunInputs& inputs, WorkerPool& pool, const Cancel& cancel,
               const MakeSink& make_sink) {
    Shared shared = prepare(program, inputs);
    const int columns = strip_columns(program);
    const int rows = program.quads ? 2 : 1;
    {
        Machine machine(program, inputs, shared, cancel);
        machine.run_plain_lines(Rate::uniform, 0, lane_block);
        for (int x = 0; x < inputs.width; x += columns) {
            machine.run_plain_lines(Rate::column, x, strip_count(program, x, inputs.width));
        }
    }
    std::atomic<bool> whole{true};
    const int tile_rows = (inputs.tile_rows + rows - 1) / rows * rows;
    const int tiles = (inputs.height + tile_rows - 1) / tile_rows;
    pool.run(tiles, [&](int tile) {
        if (cancel.requested()) {
            whole = false;
            return;
        }
        Machine machine(program, inputs, shared, cancel);
        auto sink = make_sink();
        const int bottom = std::min(inputs.height, (tile + 1) * tile_rows);
        for (int y = tile * tile_rows; y < bottom; y += rows) {
            if (cancel.requested()) {
                whole = false;
                return;
            }
            for (int row = 0; row < rows; ++row) machine.run_row_lines(y + row, row);
            for (int x = 0; x < inputs.width; x += columns) {
                if (!machine.run_pixel_lines(x, y, strip_count(program, x, inputs.width))) {
                    whole = false;
                    return;
                }
                const auto count = static_cast<std::size_t>(std::min(columns, inputs.width - x));
                for (int row = 0; row < rows && y + row < bottom; ++row) {
                    for (std::size_t k = 0; k < program.outputs.size(); ++k)
                        machine.store(program.outputs[k], sink.at(k, x, y, row), sink.channels(k), x, row, count);
                }
            }
            for (int row = 0; row < rows && y + row < bottom; ++row) sink.end_row(y, row);
        }
    });
    return whole;
}

// Strips go straight to whole pictures.
struct PictureSink {
    std::span<Picture> pictures;
    float* at(std::size_t k, int x, int y, int row) const { return pictures[k].at(x, y + row); }
    std::size_t channels(std::size_t k) const { return static_cast<std::size_t>(pictures[k].channels); }
    void end_row(int, int) const {}
};

// Strips go to a row or two, which stay in the cache until they have been taken.
class RowSink {
public:
    RowSink(std::span<const RowTaker> takers, int width, int rows) : takers_(takers) {
        for (const RowTaker& taker : takers)
            for (int row = 0; row < rows; ++row)
                rows_[static_cast<std::size_t>(row)].emplace_back(width, 1, taker.channels);
    }
    float* at(std::size_t k, int x, int, int row) { return rows_[static_cast<std::size_t>(row)][k].at(x, 0); }
    std::size_t channels(std::size_t k) const { return static_cast<std::size_t>(takers_[k].channels); }
    void end_row(int y, int row) {
        for (std::size_t k = 0; k < takers_.size(); ++k)
            takers_[k].take(y + row, rows_[static_cast<std::size_t>(row)][k].data.data());
    }

private:
    std::span<const RowTaker> takers_;
    std::array<std::vector<Picture>, 2> rows_;
};

}  // namespace

bool run(const Program& program, const RunInputs& inputs, std::span<Picture> outputs, WorkerPool& pool,
         const Cancel& cancel) {
    return run_tiles(program, inputs, pool, cancel, [&] { return PictureSink{outputs}; });
}

bool run_by_rows(const Program& program, const RunInputs& inputs, std::span<const RowTaker> takers, WorkerPool& pool,
                 const Cancel& cancel) {
    const int rows = program.quads ? 2 : 1;
    return run_tiles(program, inputs, pool, cancel, [&] { return RowSink(takers, inputs.width, rows); });
}

void run_at(const Program& program, const RunInputs& inputs, std::span<const PixelPoint> points,
            std::span<Picture> outputs) {
    Shared shared = prepare(program, inputs);
    const Cancel never;
    Machine machine(program, inputs, shared, never);
    machine.run_plain_lines(Rate::uniform, 0, lane_block);
    const int columns = strip_columns(program);
    for (int x = 0; x < inputs.width; x += columns) {
        machine.run_plain_lines(Rate::column, x, strip_count(program, x, inputs.width));
    }
    constexpr int block = static_cast<int>(lane_block);
    for (std::size_t n = 0; n < points.size(); ++n) {
        const PixelPoint point = points[n];
        const int row = program.quads ? point.y % 2 : 0;
        const int top = point.y - row;
        const int left = point.x / block * block;
        for (int r = 0; r < (program.quads ? 2 : 1); ++r) machine.run_row_lines(top + r, r);
        const auto count = std::min<std::size_t>(strip_count(program, left, inputs.width), lane_block);
        machine.run_pixel_lines(left, top, count);
        for (std::size_t k = 0; k < program.outputs.size(); ++k) {
            const std::vector<Ref>& parts = program.outputs[k];
            float* to = outputs[k].at(static_cast<int>(n), 0);
            // What is handed out as it was stored has more parts than were asked for.
            const auto channels = static_cast<std::size_t>(outputs[k].channels);
            for (std::size_t c = 0; c < channels; ++c)
                to[c] = c < parts.size() ? machine.value_at(parts[c], left, point.x, row) : 0.0F;
        }
    }
}

}  // namespace lacquer
