// The passes that make a program quicker and leave its bits alone.
#include <algorithm>
#include <bit>
#include <map>
#include <optional>
#include <span>

#include "core/cpu/ir.h"
#include "core/cpu/kernels.h"

namespace lacquer {

namespace {

// Rebuilds a program instruction by instruction, keeping track of where each old value went.
class Rebuild {
public:
    explicit Rebuild(const Ir& old) : old_(old), moved_(static_cast<std::size_t>(old.value_count), -1) {
        made_.uniforms = old.uniforms;
        made_.pictures = old.pictures;
        made_.quads = old.quads;
        made_.code.reserve(old.code.size());
    }

    Instruction with_moved_inputs(Instruction i) const {
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k) i.in[k] = now(i.in[k]);
        return i;
    }
    void keep(const Instruction& i, int old_first) { alias(old_first, add(i), op_info(i.op).outputs); }
    /// Adds an instruction that was not there before; gives its first value.
    int add(Instruction i) {
        i.first_out = made_.value_count;
        made_.value_count += op_info(i.op).outputs;
        made_.code.push_back(i);
        return i.first_out;
    }
    void alias(int old_first, int new_first, int count) {
        for (int k = 0; k < count; ++k) moved_[static_cast<std::size_t>(old_first + k)] = new_first + k;
    }
    Ir finish() {
        for (const IrOutput& output : old_.outputs) {
            IrOutput moved{output.name, {}};
            for (const int value : output.values) moved.values.push_back(now(value));
            made_.outputs.push_back(std::move(moved));
        }
        return std::move(made_);
    }

private:
    int now(int value) const { return moved_[static_cast<std::size_t>(value)]; }
    const Ir& old_;
    std::vector<int> moved_;
    Ir made_;
};

std::size_t inputs_of(const Instruction& i) { return static_cast<std::size_t>(op_info(i.op).inputs); }

bool opens(Op op) { return op == Op::loop_begin || op == Op::skip_begin; }
bool closes(Op op) { return op == Op::loop_end || op == Op::skip_end; }

// The form of a noise that is handed what `noise_place` made of its first coordinate; other instructions have none.
Op placed_form(Op op) {
    switch (op) {
        case Op::value_noise_2:
            return Op::value_placed_2;
        case Op::value_noise_3:
            return Op::value_placed_3;
        case Op::gradient_noise_2:
            return Op::gradient_placed_2;
        case Op::gradient_noise_3:
            return Op::gradient_placed_3;
        default:
            return op;
    }
}

// What may not be computed beforehand, or shared, or dropped for want of a reader.
bool stays(Op op) { return is_control(op) || op == Op::cell || op == Op::assign; }

// Three mixes in a row by one share, as of the parts of a colour, none of which reads another.
bool are_one_mix(std::span<const Instruction> three) {
    const Instruction& first = three[0];
    const auto is_alike = [&](const Instruction& i) {
        return i.op == Op::mix && i.in[2] == first.in[2] && i.rate == Rate::pixel && i.timed == first.timed;
    };
    const auto reads = [](const Instruction& i, int value) { return i.in[0] == value || i.in[1] == value; };
    return std::all_of(three.begin(), three.end(), is_alike) && !reads(three[1], first.first_out) &&
           !reads(three[2], first.first_out) && !reads(three[2], three[1].first_out);
}

Ir fuse_mixes(const Ir& ir) {
    Rebuild rebuild(ir);
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        if (n + 3 > ir.code.size() || !are_one_mix(std::span(ir.code).subspan(n, 3))) {
            rebuild.keep(rebuild.with_moved_inputs(ir.code[n]), ir.code[n].first_out);
            continue;
        }
        Instruction all = ir.code[n];
        all.op = Op::mix_3;
        for (std::size_t part = 0; part < 3; ++part) {
            all.in[part] = ir.code[n + part].in[0];
            all.in[part + 3] = ir.code[n + part].in[1];
        }
        all.in[6] = ir.code[n].in[2];
        const int first = rebuild.add(rebuild.with_moved_inputs(all));
        for (int part = 0; part < 3; ++part)
            rebuild.alias(ir.code[n + static_cast<std::size_t>(part)].first_out, first + part, 1);
        n += 2;
    }
    return rebuild.finish();
}

}  // namespace

Ir fold_constants(const Ir& ir) {
    const KernelSet kernels = best_kernels();
    Rebuild rebuild(ir);
    std::vector<std::uint8_t> known(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<float> numbers(static_cast<std::size_t>(ir.value_count), 0.0F);
    for (const Instruction& i : ir.code) {
        const OpInfo& info = op_info(i.op);
        const auto first = static_cast<std::size_t>(i.first_out);
        bool constant = i.op == Op::constant;
        if (constant) numbers[first] = std::bit_cast<float>(i.bits);
        if (info.inputs > 0 && !stays(i.op) && !reads_picture(i.op) && i.op != Op::derivative_x &&
            i.op != Op::derivative_y) {
            constant = true;
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
                constant = constant && known[static_cast<std::size_t>(i.in[k])] != 0;
            }
            if (constant) run_on_constants(kernels, i, numbers);
        }
        if (!constant || i.op == Op::constant) {
            if (constant) known[first] = 1;
            rebuild.keep(rebuild.with_moved_inputs(i), i.first_out);
            continue;
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
            known[first + k] = 1;
            Instruction folded;
            folded.bits = std::bit_cast<std::uint32_t>(numbers[first + k]);
            rebuild.keep(folded, i.first_out + static_cast<int>(k));
        }
    }
    return rebuild.finish();
}

Ir read_in_place(const Ir& ir) {
    Rebuild rebuild(ir);
    std::vector<Op> made_by(static_cast<std::size_t>(ir.value_count), Op::constant);
    for (const Instruction& old : ir.code) {
        Instruction i = old;
        for (int k = 0; k < op_info(i.op).outputs; ++k) made_by[static_cast<std::size_t>(i.first_out + k)] = i.op;
        const auto is_made_by = [&](std::size_t input, Op op) {
            return made_by[static_cast<std::size_t>(i.in[input])] == op;
        };
        if (i.op == Op::sample && is_made_by(0, Op::uv_x) && is_made_by(1, Op::uv_y)) {
            i.op = Op::read_here;
            i.in = {};
        }
        rebuild.keep(rebuild.with_moved_inputs(i), i.first_out);
    }
    return rebuild.finish();
}

namespace {

// Instructions that have been met, by what they compute. Those met within a loop or a part that may be skipped are
// forgotten when it ends: what they made is not there outside.
class Met {
public:
    explicit Met(std::size_t instructions) : slots_(std::bit_ceil(2 * instructions + 2)) {}

    /// The first value of an instruction that computes the same, or nothing: then this one is remembered with `first`.
    std::optional<int> find_or_add(const Instruction& i, int first) {
        std::size_t at = hash(i) & (slots_.size() - 1);
        while (slots_[at].used) {
            Slot& slot = slots_[at];
            if (slot.op == i.op && slot.bits == i.bits && slot.in == i.in) {
                if (ended_[slot.part] == 0) return slot.first;
                slot.part = open_.back();
                slot.first = first;
                return std::nullopt;
            }
            at = (at + 1) & (slots_.size() - 1);
        }
        slots_[at] = {true, i.op, i.bits, i.in, first, open_.back()};
        return std::nullopt;
    }
    void open() {
        open_.push_back(ended_.size());
        ended_.push_back(0);
    }
    void close() {
        ended_[open_.back()] = 1;
        open_.pop_back();
    }

private:
    struct Slot {
        bool used = false;
        Op op = Op::constant;
        std::uint32_t bits = 0;
        std::array<int, max_inputs> in{};
        int first = 0;
        std::size_t part = 0;
    };
    static std::size_t hash(const Instruction& i) {
        std::uint64_t word = i.bits * 0x9E3779B97F4A7C15ULL + static_cast<std::uint64_t>(i.op);
        for (const int value : i.in) word = (word ^ static_cast<std::uint32_t>(value)) * 0x9E3779B97F4A7C15ULL;
        return static_cast<std::size_t>(word >> 32U);
    }
    std::vector<Slot> slots_;
    std::vector<std::size_t> open_{0};
    std::vector<std::uint8_t> ended_{0};
};

}  // namespace

Ir share_common(const Ir& ir) {
    Rebuild rebuild(ir);
    Met met(ir.code.size());
    int next = 0;
    for (const Instruction& old : ir.code) {
        const Instruction i = rebuild.with_moved_inputs(old);
        const int outputs = op_info(i.op).outputs;
        if (opens(i.op)) met.open();
        if (closes(i.op)) met.close();
        const std::optional<int> known = stays(i.op) ? std::nullopt : met.find_or_add(i, next);
        if (known) {
            rebuild.alias(old.first_out, *known, outputs);
            continue;
        }
        rebuild.keep(i, old.first_out);
        next += outputs;
    }
    return rebuild.finish();
}

Ir drop_unused(const Ir& ir) {
    std::vector<std::size_t> definition(static_cast<std::size_t>(ir.value_count), 0);
    std::map<int, std::vector<std::size_t>> assignments;           // by cell
    std::vector<std::vector<std::size_t>> around(ir.code.size());  // the control instructions that each stands within
    std::vector<std::vector<std::size_t>> open;
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        for (int k = 0; k < op_info(i.op).outputs; ++k) definition[static_cast<std::size_t>(i.first_out + k)] = n;
        if (i.op == Op::assign) assignments[i.in[0]].push_back(n);
        if (opens(i.op)) open.emplace_back();
        if (is_control(i.op)) open.back().push_back(n);
        if (closes(i.op)) {
            // All of a loop's or skip's own instructions stand and fall together.
            for (const std::size_t own : open.back()) around[own] = open.back();
            open.pop_back();
        }
    }
    std::vector<std::size_t> stack;
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        if (opens(i.op)) stack.push_back(n);
        if (!stack.empty() && !is_control(i.op)) around[n] = {stack.back()};
        if (opens(i.op) && stack.size() > 1) around[n].push_back(stack[stack.size() - 2]);
        if (closes(i.op)) stack.pop_back();
    }
    std::vector<std::uint8_t> kept(ir.code.size(), 0);
    std::vector<std::size_t> todo;
    const auto need = [&](std::size_t n) {
        if (kept[n] != 0) return;
        kept[n] = 1;
        todo.push_back(n);
    };
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) need(definition[static_cast<std::size_t>(value)]);
    }
    while (!todo.empty()) {
        const std::size_t n = todo.back();
        todo.pop_back();
        const Instruction& i = ir.code[n];
        for (std::size_t k = 0; k < inputs_of(i); ++k) need(definition[static_cast<std::size_t>(i.in[k])]);
        if (i.op == Op::cell) {
            for (const std::size_t assignment : assignments[i.first_out]) need(assignment);
        }
        for (const std::size_t control : around[n]) need(control);
    }
    Rebuild rebuild(ir);
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        if (kept[n] != 0) rebuild.keep(rebuild.with_moved_inputs(ir.code[n]), ir.code[n].first_out);
    }
    return rebuild.finish();
}

Ir hoist_from_loops(const Ir& ir) {
    const bool loops =
        std::any_of(ir.code.begin(), ir.code.end(), [](const Instruction& i) { return i.op == Op::loop_begin; });
    if (!loops) return ir;
    // For each value, how many loops are around the place where it is first known.
    std::vector<int> depth_of(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<std::size_t> order;
    std::vector<std::size_t> loop_starts;  // where in `order` each open loop begins
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        const int depth = static_cast<int>(loop_starts.size());
        if (i.op == Op::loop_begin) loop_starts.push_back(order.size());
        int needs = 0;
        for (std::size_t k = 0; k < inputs_of(i); ++k)
            needs = std::max(needs, depth_of[static_cast<std::size_t>(i.in[k])]);
        const bool moves = !stays(i.op) && needs < depth;
        // A cell is known outside the loop that follows it, but worth something else at each of its turns.
        int own = moves ? needs : depth;
        if (i.op == Op::cell) own = depth + 1;
        for (int k = 0; k < op_info(i.op).outputs; ++k) depth_of[static_cast<std::size_t>(i.first_out + k)] = own;
        if (moves) {
            const std::size_t at = loop_starts[static_cast<std::size_t>(needs)];
            order.insert(order.begin() + static_cast<std::ptrdiff_t>(at), n);
            for (std::size_t d = static_cast<std::size_t>(needs); d < loop_starts.size(); ++d) ++loop_starts[d];
        } else {
            order.push_back(n);
        }
        if (i.op == Op::loop_end) loop_starts.pop_back();
    }
    Rebuild rebuild(ir);
    for (const std::size_t n : order) rebuild.keep(rebuild.with_moved_inputs(ir.code[n]), ir.code[n].first_out);
    return rebuild.finish();
}

Ir fuse(const Ir& ir) {
    std::vector<int> readers(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<std::size_t> definition(static_cast<std::size_t>(ir.value_count), 0);
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        const Instruction& i = ir.code[n];
        for (std::size_t k = 0; k < inputs_of(i); ++k) ++readers[static_cast<std::size_t>(i.in[k])];
        for (int k = 0; k < op_info(i.op).outputs; ++k) definition[static_cast<std::size_t>(i.first_out + k)] = n;
    }
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) ++readers[static_cast<std::size_t>(value)];
    }
    Rebuild rebuild(ir);
    for (const Instruction& old : ir.code) {
        Instruction i = rebuild.with_moved_inputs(old);
        for (std::size_t k = 0; k < 2 && old.op == Op::add; ++k) {
            const auto product = static_cast<std::size_t>(old.in[k]);
            const Instruction& made = ir.code[definition[product]];
            if (made.op != Op::multiply || readers[product] != 1 || made.rate != old.rate || made.timed != old.timed)
                continue;
            const Instruction factors = rebuild.with_moved_inputs(made);
            i.in = {factors.in[0], factors.in[1], i.in[1 - k]};
            i.op = Op::multiply_add;
            break;
        }
        rebuild.keep(i, old.first_out);
    }
    return fuse_mixes(drop_unused(rebuild.finish()));
}

Ir with_rates(Ir ir) {
    struct Kind {
        Rate rate = Rate::uniform;
        bool timed = false;
    };
    std::vector<Kind> kinds(static_cast<std::size_t>(ir.value_count));
    const auto base_rate = [](Op op) {
        if (op == Op::uv_x || op == Op::pixel_x) return Rate::column;
        if (op == Op::uv_y || op == Op::pixel_y) return Rate::row;
        const bool own = op == Op::read_here || op == Op::derivative_x || op == Op::derivative_y;
        return own ? Rate::pixel : Rate::uniform;
    };
    // Rates only ever rise, so this ends; one round does where there are no loops.
    for (bool changed = true; changed;) {
        changed = false;
        for (Instruction& i : ir.code) {
            Kind kind{base_rate(i.op), i.op == Op::cell};
            for (std::size_t k = 0; k < inputs_of(i); ++k) {
                const Kind& input = kinds[static_cast<std::size_t>(i.in[k])];
                kind.rate = join(kind.rate, input.rate);
                kind.timed = kind.timed || input.timed;
            }
            // Where only columns differ from turn to turn, each pixel is as good.
            if (kind.timed && kind.rate == Rate::column) kind.rate = Rate::pixel;
            const auto raise = [&](int value, Kind to) {
                Kind& old = kinds[static_cast<std::size_t>(value)];
                to.rate = join(to.rate, old.rate);
                if (to.timed && to.rate == Rate::column) to.rate = Rate::pixel;
                changed = changed || to.rate != old.rate || to.timed != old.timed;
                old = to;
                return to;
            };
            if (i.op == Op::assign) raise(i.in[0], {kind.rate, true});
            for (int k = 0; k < op_info(i.op).outputs; ++k) kind = raise(i.first_out + k, kind);
            i.rate = kind.rate;
            i.timed = kind.timed;
        }
    }
    return ir;
}

Ir drop_certain_choices(const Ir& ir) {
    std::vector<Rate> rates(static_cast<std::size_t>(ir.value_count), Rate::uniform);
    std::vector<std::uint8_t> is_cell(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<std::vector<int>> certain(1);  // by the loops and skips that are open, what is true there
    const auto is_one_truth = [&](int value) {
        const Rate rate = rates[static_cast<std::size_t>(value)];
        // Two rows that are drawn together may differ.
        return rate == Rate::uniform || (rate == Rate::row && !ir.quads);
    };
    const auto is_certain = [&](int value) {
        return std::any_of(certain.begin(), certain.end(), [&](const std::vector<int>& within) {
            return std::find(within.begin(), within.end(), value) != within.end();
        });
    };
    Rebuild rebuild(ir);
    for (const Instruction& old : ir.code) {
        for (int k = 0; k < op_info(old.op).outputs; ++k) rates[static_cast<std::size_t>(old.first_out + k)] = old.rate;
        const Instruction i = rebuild.with_moved_inputs(old);
        if (opens(old.op)) certain.emplace_back();
        if (closes(old.op)) certain.pop_back();
        if ((old.op == Op::loop_exit || old.op == Op::skip_begin) && is_one_truth(old.in[0]))
            certain.back().push_back(i.in[0]);
        if (old.op == Op::cell) is_cell[static_cast<std::size_t>(old.first_out)] = 1;
        if (old.op != Op::select || !is_certain(i.in[0])) {
            rebuild.keep(i, old.first_out);
        } else if (is_cell[static_cast<std::size_t>(old.in[1])] == 0) {
            rebuild.alias(old.first_out, i.in[1], 1);
        } else {
            // What it is worth now: where cells change at the turn's end, one may be assigned before another reads it.
            Instruction now = i;
            now.op = Op::copy;
            now.in = no_inputs;
            now.in[0] = i.in[1];
            rebuild.keep(now, old.first_out);
        }
    }
    return drop_unused(rebuild.finish());
}

Ir split_noise(const Ir& ir) {
    std::vector<Rate> rates(static_cast<std::size_t>(ir.value_count), Rate::uniform);
    Rebuild rebuild(ir);
    std::map<int, int> places;  // by coordinate
    for (const Instruction& old : ir.code) {
        for (int k = 0; k < op_info(old.op).outputs; ++k) rates[static_cast<std::size_t>(old.first_out + k)] = old.rate;
        Instruction i = rebuild.with_moved_inputs(old);
        const Op placed = placed_form(old.op);
        if (placed == old.op || rates[static_cast<std::size_t>(old.in[0])] != Rate::column) {
            rebuild.keep(i, old.first_out);
            continue;
        }
        const auto [found, fresh] = places.try_emplace(i.in[0], 0);
        if (fresh) {
            Instruction place;
            place.op = Op::noise_place;
            place.rate = Rate::column;
            place.in[0] = i.in[0];
            found->second = rebuild.add(place);
        }
        const int first = found->second;
        i.in = {first, first + 1, first + 2, i.in[1], i.in[2]};
        i.op = placed;
        rebuild.keep(i, old.first_out);
    }
    return rebuild.finish();
}

Ir optimised(const Ir& ir) {
    const Ir short_ir = drop_unused(hoist_from_loops(share_common(read_in_place(fold_constants(ir)))));
    return split_noise(fuse(drop_certain_choices(with_rates(short_ir))));
}

}  // namespace lacquer
