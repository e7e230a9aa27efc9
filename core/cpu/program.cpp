#include "core/cpu/program.h"

#include <fmt/core.h>
#include <hwy/aligned_allocator.h>

#include <algorithm>
#include <atomic>
#include <bit>
#include <cstring>

namespace lacquer {

namespace {

constexpr std::size_t of(Rate rate) { return static_cast<std::size_t>(rate); }

// Hands out strips and takes them back after their last use.
class StripStore {
public:
    int take() {
        if (free_.empty()) return count_++;
        const int strip = free_.back();
        free_.pop_back();
        return strip;
    }
    void give_back(int strip) { free_.push_back(strip); }
    int count() const { return count_; }

private:
    std::vector<int> free_;
    int count_ = 0;
};

// Where each value is needed last. What is known before a loop and needed in it is needed until the loop's end.
std::vector<std::size_t> last_uses(const Ir& ir) {
    const std::size_t none = ir.code.size();
    std::vector<std::size_t> loop_of(ir.code.size() + 1,
                                     none);  // the innermost loop around an instruction, by its start
    std::vector<std::size_t> end_of(ir.code.size() + 1, none);  // by a loop's start
    std::vector<std::size_t> open;
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        if (!open.empty()) loop_of[n] = open.back();
        if (ir.code[n].op == Op::loop_begin) open.push_back(n);
        if (ir.code[n].op == Op::loop_end) {
            end_of[open.back()] = n;
            open.pop_back();
        }
    }
    std::vector<std::size_t> first(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<std::size_t> last(static_cast<std::size_t>(ir.value_count), 0);
    const auto use = [&](int value, std::size_t n) {
        const auto v = static_cast<std::size_t>(value);
        std::size_t until = n;
        for (std::size_t loop = loop_of[n]; loop != none && first[v] < loop; loop = loop_of[loop]) until = end_of[loop];
        last[v] = std::max(last[v], until);
    };
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        for (int k = 0; k < op_info(i.op).outputs; ++k) {
            first[static_cast<std::size_t>(i.first_out + k)] = n;
            use(i.first_out + k, n);
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k) use(i.in[k], n);
    }
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) last[static_cast<std::size_t>(value)] = ir.code.size();
    }
    return last;
}

// Kernels that are known to have read a pixel's inputs before they write its output.
bool reads_before_it_writes(Op op) {
    constexpr std::array ops = {Op::add, Op::subtract, Op::multiply,     Op::divide,
                                Op::min, Op::max,      Op::multiply_add, Op::select};
    return std::find(ops.begin(), ops.end(), op) != ops.end();
}

// For each value that a cell becomes at the end of a turn, and that can be made where the cell lies from the start, the
// cell; -1 for others. Both stand in what comes last in the turn, where nothing steers any more; nothing reads what the
// cell was before once the value is made, and nothing reads the value beyond the turn.
std::vector<int> cells_of_values(const Ir& ir) {
    const auto values = static_cast<std::size_t>(ir.value_count);
    std::vector<int> cells(values, -1);
    std::vector<std::size_t> made(values, 0);
    std::vector<std::size_t> reads_ended(values, 0);  // behind the last instruction that reads it
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        for (int k = 0; k < op_info(i.op).outputs; ++k) made[static_cast<std::size_t>(i.first_out + k)] = n;
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k)
            reads_ended[static_cast<std::size_t>(i.in[k])] = n + 1;
    }
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) reads_ended[static_cast<std::size_t>(value)] = ir.code.size() + 1;
    }
    std::vector<std::size_t> read_last(values, 0);
    std::vector<int> assignments(values, 0);
    for (std::size_t end = 0; end < ir.code.size(); ++end) {
        if (ir.code[end].op != Op::loop_end) continue;
        std::size_t first = end;
        while (first > 0 && !is_control(ir.code[first - 1].op)) --first;
        for (std::size_t n = first; n < end; ++n) {
            if (ir.code[n].op == Op::assign) ++assignments[static_cast<std::size_t>(ir.code[n].in[0])];
        }
        for (std::size_t n = first; n < end; ++n) {
            const Instruction& i = ir.code[n];
            if (i.op == Op::assign) {
                const auto cell = static_cast<std::size_t>(i.in[0]);
                const auto value = static_cast<std::size_t>(i.in[1]);
                const Instruction& maker = ir.code[made[value]];
                const bool alike = maker.rate == Rate::pixel && ir.code[made[cell]].rate == Rate::pixel;
                const bool within = made[value] >= first && reads_ended[value] <= end;
                const bool old_is_done = read_last[cell] <= made[value] && assignments[cell] == 1;
                if (reads_before_it_writes(maker.op) && alike && within && old_is_done && cells[value] < 0)
                    cells[value] = i.in[0];
            }
            const std::size_t first_read = i.op == Op::assign ? 1 : 0;
            for (std::size_t k = first_read; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k)
                read_last[static_cast<std::size_t>(i.in[k])] = n;
        }
    }
    return cells;
}

std::string text_of(Ref ref) { return fmt::format("{}{}", "uycp"[of(ref.rate)], ref.index); }

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

}  // namespace

namespace {

// Lets the two ends of a loop or skip know each other. `open` holds the lines whose other end is still to come.
void connect(std::vector<Line>& lines, Line& line, std::vector<std::size_t>& open) {
    const std::size_t here = lines.size();
    if (line.op == Op::loop_begin || line.op == Op::skip_begin || line.op == Op::loop_exit) open.push_back(here);
    if (line.op == Op::skip_end) {
        lines[open.back()].jump = here;
        open.pop_back();
    }
    if (line.op == Op::loop_end) {
        lines[open.back()].jump = here;  // the exit
        open.pop_back();
        line.jump = open.back();
        open.pop_back();
    }
}

}  // namespace

Program lay_out(const Ir& ir, const KernelSet& kernels) {
    Program program;
    program.quads = ir.quads;
    program.kernels = kernels.name;
    program.join_pixels = kernels.join_pixels;
    program.uniform_slots = ir.uniforms;
    program.pictures = ir.pictures;
    const std::vector<std::size_t> last = last_uses(ir);
    const std::vector<int> cells = cells_of_values(ir);
    const auto lies_in_cell = [&](int value) { return cells[static_cast<std::size_t>(value)] >= 0; };
    std::vector<Ref> refs(static_cast<std::size_t>(ir.value_count));
    StripStore strips;
    std::vector<std::size_t> open;
    // Values by their last use, in one row; those of an instruction begin at its place in `ends`.
    std::vector<std::size_t> ends(ir.code.size() + 2, 0);
    for (const std::size_t use : last) ++ends[use + 1];
    for (std::size_t n = 1; n < ends.size(); ++n) ends[n] += ends[n - 1];
    std::vector<std::size_t> ending(last.size());
    std::vector<std::size_t> filled = ends;
    for (std::size_t v = 0; v < last.size(); ++v) ending[filled[last[v]]++] = v;
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        const OpInfo& info = op_info(i.op);
        Line line;
        line.op = i.op;
        line.kernel = kernels.kernels[static_cast<std::size_t>(i.op == Op::assign ? Op::copy : i.op)];
        line.slot = i.bits;
        line.is_odd = i.op == Op::assign || i.op == Op::derivative_y || reads_picture(i.op);
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k)
            line.reads_columns = line.reads_columns || refs[static_cast<std::size_t>(i.in[k])].rate == Rate::column;
        // What runs at each turn but is the same along the strip lives where rows' values do.
        line.narrow = i.timed && i.rate != Rate::pixel;
        const Rate store = line.narrow ? Rate::row : i.rate;
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
            line.in[k] = refs[static_cast<std::size_t>(i.in[k])];
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
            const int value = i.first_out + static_cast<int>(k);
            Ref& ref = refs[static_cast<std::size_t>(value)];
            if (lies_in_cell(value)) {
                ref = refs[static_cast<std::size_t>(cells[static_cast<std::size_t>(value)])];
            } else {
                ref = {store, store == Rate::pixel ? strips.take() : program.stores[of(store)]++};
            }
            line.out[k] = ref;
        }
        if (i.op == Op::assign) {
            line.out[0] = refs[static_cast<std::size_t>(i.in[0])];
            line.narrow = line.out[0].rate != Rate::pixel;
        }
        if (i.op == Op::constant) {
            program.constants.emplace_back(line.out[0].index, i.bits);
        } else if (i.op == Op::uniform) {
            program.uniforms.emplace_back(line.out[0].index, i.bits);
        } else if (i.op != Op::cell && !(i.op == Op::assign && cells[static_cast<std::size_t>(i.in[1])] == i.in[0])) {
            const bool with_pixels = i.timed || i.op == Op::assign || is_control(i.op);
            std::vector<Line>& lines = program.lines[of(with_pixels ? Rate::pixel : i.rate)];
            connect(lines, line, open);
            lines.push_back(line);
        }
        // Outputs were placed first: no kernel may write over what it still reads.
        for (std::size_t k = ends[n]; k < ends[n + 1]; ++k) {
            const Ref ref = refs[ending[k]];
            if (ref.rate == Rate::pixel && !lies_in_cell(static_cast<int>(ending[k]))) strips.give_back(ref.index);
        }
    }
    program.stores[of(Rate::pixel)] = strips.count();
    program.strip_length = strips.count() <= 12 ? 512 : 256;
    for (const IrOutput& output : ir.outputs) {
        program.output_names.push_back(output.name);
        std::vector<Ref> parts;
        for (const int value : output.values) parts.push_back(refs[static_cast<std::size_t>(value)]);
        program.outputs.push_back(std::move(parts));
    }
    return program;
}

namespace {

std::string text_of(const Line& line, const Program& program) {
    const OpInfo& info = op_info(line.op);
    if (line.op == Op::assign) return fmt::format("{} to {}", text_of(line.in[1]), text_of(line.out[0]));
    std::string text;
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) text += text_of(line.out[k]) + " ";
    text += fmt::format("{}{}", info.outputs > 0 ? "= " : "", info.name);
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) text += " " + text_of(line.in[k]);
    if (reads_picture(line.op)) text += " " + program.pictures[line.slot].name;
    return text;
}

}  // namespace

std::string to_text(const Program& program) {
    constexpr std::array<std::string_view, 4> headings = {"once", "each row", "each column", "each pixel"};
    std::string text =
        fmt::format("kernels {}, strips of {} pixels, {} at a time{}\n", program.kernels, program.strip_length,
                    program.stores[of(Rate::pixel)], program.quads ? ", two rows together" : "");
    for (std::size_t rate = 0; rate < 4; ++rate) {
        if (!program.lines[rate].empty()) text += fmt::format("{}\n", headings[rate]);
        std::size_t margin = 2;
        for (const Line& line : program.lines[rate]) {
            if (line.op == Op::loop_end || line.op == Op::skip_end) margin -= 2;
            text += std::string(margin, ' ') + text_of(line, program) + "\n";
            if (line.op == Op::loop_begin || line.op == Op::skip_begin) margin += 2;
        }
    }
    return text;
}

namespace {

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
