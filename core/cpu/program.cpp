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

std::vector<std::size_t> last_uses(const Ir& ir) {
    std::vector<std::size_t> last(static_cast<std::size_t>(ir.value_count), 0);
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        for (int k = 0; k < op_info(i.op).outputs; ++k) last[static_cast<std::size_t>(i.first_out + k)] = n;
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k) {
            last[static_cast<std::size_t>(i.in[k])] = n;
        }
    }
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) last[static_cast<std::size_t>(value)] = ir.code.size();
    }
    return last;
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

// Runs lines with the addresses that belong to one place in the grid.
class Machine {
public:
    Machine(const Program& program, const RunInputs& inputs, Shared& shared)
        : program_(program),
          inputs_(inputs),
          shared_(shared),
          rows_(zeroed(static_cast<std::size_t>(program.stores[of(Rate::row)]) * lane_block)),
          strips_(zeroed(static_cast<std::size_t>(program.stores[of(Rate::pixel)]) * strip_length())) {}

    void run_lines(Rate rate, int x, int y, std::size_t count) {
        KernelArgs args;
        args.count = count;
        args.x = x;
        args.y = y;
        args.grid_width = inputs_.width;
        args.grid_height = inputs_.height;
        args.frame_width = inputs_.frame_width;
        args.frame_height = inputs_.frame_height;
        for (const Line& line : program_.lines[of(rate)]) {
            const OpInfo& info = op_info(line.op);
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
                args.in[k] = address(line.in[k], x);
                args.stride[k] = line.in[k].rate == Rate::uniform || line.in[k].rate == Rate::row ? 0 : 1;
            }
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k)
                args.out[k] = address(line.out[k], x);
            if (line.op == Op::read_here || line.op == Op::sample) args.picture = &inputs_.pictures[line.slot];
            line.kernel(args);
        }
    }

    // Hands the strip at (x, y) out to interleaved channels.
    void store(const std::vector<Ref>& parts, Picture& picture, int x, int y, std::size_t count) {
        const auto channels = static_cast<std::size_t>(picture.channels);
        float* to = picture.at(x, y);
        if (parts.size() == 4 && channels == 4) {
            const std::size_t blocks = count / lane_block * lane_block;
            std::array<const float*, 4> from{};
            std::array<std::size_t, 4> strides{};
            for (std::size_t c = 0; c < 4; ++c) {
                from[c] = address(parts[c], x);
                strides[c] = parts[c].rate == Rate::uniform || parts[c].rate == Rate::row ? 0 : 1;
            }
            program_.join_pixels(from, strides, to, blocks);
            for (std::size_t i = blocks; i < count; ++i) {
                for (std::size_t c = 0; c < 4; ++c) to[i * 4 + c] = from[c][i * strides[c]];
            }
            return;
        }
        for (std::size_t c = parts.size(); c < channels; ++c) {
            for (std::size_t i = 0; i < count; ++i) to[i * channels + c] = 0.0F;
        }
        for (std::size_t c = 0; c < channels && c < parts.size(); ++c) {
            const float* from = address(parts[c], x);
            const bool one_value = parts[c].rate == Rate::uniform || parts[c].rate == Rate::row;
            const std::size_t stride = one_value ? 0 : 1;
            for (std::size_t i = 0; i < count; ++i) to[i * channels + c] = from[i * stride];
        }
    }

private:
    std::size_t strip_length() const { return static_cast<std::size_t>(program_.strip_length); }
    float* address(Ref ref, int x) const {
        const auto index = static_cast<std::size_t>(ref.index);
        switch (ref.rate) {
            case Rate::uniform:
                return shared_.uniforms.get() + index * lane_block;
            case Rate::row:
                return rows_.get() + index * lane_block;
            case Rate::column:
                return shared_.columns.get() + index * shared_.column_length + static_cast<std::size_t>(x);
            case Rate::pixel:
                break;
        }
        return strips_.get() + index * strip_length();
    }

    const Program& program_;
    const RunInputs& inputs_;
    Shared& shared_;
    hwy::AlignedFreeUniquePtr<float[]> rows_;
    hwy::AlignedFreeUniquePtr<float[]> strips_;
};

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

Program lay_out(const Ir& ir, const KernelSet& kernels) {
    Program program;
    program.kernels = kernels.name;
    program.join_pixels = kernels.join_pixels;
    program.uniform_slots = ir.uniforms;
    program.pictures = ir.pictures;
    const std::vector<std::size_t> last = last_uses(ir);
    std::vector<Ref> refs(static_cast<std::size_t>(ir.value_count));
    StripStore strips;
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        const OpInfo& info = op_info(i.op);
        Line line;
        line.op = i.op;
        line.kernel = kernels.kernels[static_cast<std::size_t>(i.op)];
        line.slot = i.bits;
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
            line.in[k] = refs[static_cast<std::size_t>(i.in[k])];
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
            Ref& ref = refs[static_cast<std::size_t>(i.first_out) + k];
            ref = {i.rate, i.rate == Rate::pixel ? strips.take() : program.stores[of(i.rate)]++};
            line.out[k] = ref;
        }
        if (i.op == Op::constant) {
            program.constants.emplace_back(line.out[0].index, i.bits);
        } else if (i.op == Op::uniform) {
            program.uniforms.emplace_back(line.out[0].index, i.bits);
        } else {
            program.lines[of(i.rate)].push_back(line);
        }
        // Outputs were placed first: no kernel may write over what it still reads.
        std::vector<int> ended(i.in.begin(), i.in.begin() + info.inputs);
        for (int k = 0; k < info.outputs; ++k) ended.push_back(i.first_out + k);
        std::sort(ended.begin(), ended.end());
        ended.erase(std::unique(ended.begin(), ended.end()), ended.end());
        for (const int value : ended) {
            const Ref ref = refs[static_cast<std::size_t>(value)];
            if (ref.rate == Rate::pixel && last[static_cast<std::size_t>(value)] == n) strips.give_back(ref.index);
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

std::string to_text(const Program& program) {
    constexpr std::array<std::string_view, 4> headings = {"once", "each row", "each column", "each pixel"};
    std::string text = fmt::format("kernels {}, strips of {} pixels, {} at a time\n", program.kernels,
                                   program.strip_length, program.stores[of(Rate::pixel)]);
    for (std::size_t rate = 0; rate < 4; ++rate) {
        if (!program.lines[rate].empty()) text += fmt::format("{}\n", headings[rate]);
        for (const Line& line : program.lines[rate]) {
            const OpInfo& info = op_info(line.op);
            text += " ";
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) text += " " + text_of(line.out[k]);
            text += fmt::format(" = {}", info.name);
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) text += " " + text_of(line.in[k]);
            if (line.op == Op::read_here || line.op == Op::sample) text += " " + program.pictures[line.slot];
            text += "\n";
        }
    }
    return text;
}

bool run(const Program& program, const RunInputs& inputs, std::span<Picture> outputs, WorkerPool& pool,
         const Cancel& cancel) {
    Shared shared = prepare(program, inputs);
    {
        Machine machine(program, inputs, shared);
        machine.run_lines(Rate::uniform, 0, 0, lane_block);
        for (int x = 0; x < inputs.width; x += program.strip_length) {
            const int count = std::min(program.strip_length, inputs.width - x);
            machine.run_lines(Rate::column, x, 0, static_cast<std::size_t>(count));
        }
    }
    std::atomic<bool> whole{true};
    const int tiles = (inputs.height + inputs.tile_rows - 1) / inputs.tile_rows;
    pool.run(tiles, [&](int tile) {
        if (cancel.requested()) {
            whole = false;
            return;
        }
        Machine machine(program, inputs, shared);
        const int bottom = std::min(inputs.height, (tile + 1) * inputs.tile_rows);
        for (int y = tile * inputs.tile_rows; y < bottom; ++y) {
            if (cancel.requested()) {
                whole = false;
                return;
            }
            machine.run_lines(Rate::row, 0, y, lane_block);
            for (int x = 0; x < inputs.width; x += program.strip_length) {
                const auto count = static_cast<std::size_t>(std::min(program.strip_length, inputs.width - x));
                machine.run_lines(Rate::pixel, x, y, count);
                for (std::size_t k = 0; k < program.outputs.size(); ++k) {
                    machine.store(program.outputs[k], outputs[k], x, y, count);
                }
            }
        }
    });
    return whole;
}

}  // namespace lacquer
