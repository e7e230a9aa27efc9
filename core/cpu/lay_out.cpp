// From instructions to a program: where each value lives, and what runs how often.
#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/cpu/program.h"

namespace lacquer {

namespace {

constexpr std::size_t index_of(Rate rate) { return static_cast<std::size_t>(rate); }

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

std::string text_of(Ref ref) { return fmt::format("{}{}", "uycp"[index_of(ref.rate)], ref.index); }

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
                ref = {store, store == Rate::pixel ? strips.take() : program.stores[index_of(store)]++};
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
            std::vector<Line>& lines = program.lines[index_of(with_pixels ? Rate::pixel : i.rate)];
            connect(lines, line, open);
            lines.push_back(line);
        }
        // Outputs were placed first: no kernel may write over what it still reads.
        for (std::size_t k = ends[n]; k < ends[n + 1]; ++k) {
            const Ref ref = refs[ending[k]];
            if (ref.rate == Rate::pixel && !lies_in_cell(static_cast<int>(ending[k]))) strips.give_back(ref.index);
        }
    }
    program.stores[index_of(Rate::pixel)] = strips.count();
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
                    program.stores[index_of(Rate::pixel)], program.quads ? ", two rows together" : "");
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

}  // namespace lacquer
