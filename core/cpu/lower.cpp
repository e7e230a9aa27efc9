#include <algorithm>
#include <bit>

#include "core/cpu/lowering.h"
#include "core/lang/known_names.h"
#include "core/picture/table.h"

namespace lacquer {

Ir Lowering::run() {
    for (const PassStep& step : pass_.steps) {
        // Turns of loops are counted for each step by itself.
        turns_.reset();
        if (counts_turns(*step.typed)) turns_ = constant(0);
        steps_[step.name] = value(*step.typed);
        types_[step.name] = step.typed->type;
    }
    for (const std::string& name : pass_.outputs) {
        const bool computed = steps_.contains(name);
        Parts parts = computed ? steps_[name] : read_here(name, width_of(resource_of(pass_, name).type));
        // What was stored is floats already.
        const Scalar scalar = computed ? scalar_of(types_[name]) : Scalar::real;
        if (scalar != Scalar::real) parts = {convert_part(scalar, Scalar::real, parts[0])};
        ir_.outputs.push_back({name, {parts.begin(), parts.end()}});
    }
    return std::move(ir_);
}

int Lowering::emit(Op op, std::span<const int> in, std::uint32_t bits) {
    Instruction i;
    i.op = op;
    i.bits = bits;
    // As they come, all values are computed at each pixel; with_rates finds better.
    const bool leaf = op == Op::constant || op == Op::uniform || op == Op::picture_size;
    i.rate = leaf                                  ? Rate::uniform
             : op == Op::uv_x || op == Op::pixel_x ? Rate::column
             : op == Op::uv_y || op == Op::pixel_y ? Rate::row
                                                   : Rate::pixel;
    std::copy(in.begin(), in.end(), i.in.begin());
    i.first_out = ir_.value_count;
    ir_.value_count += op_info(op).outputs;
    ir_.code.push_back(i);
    return i.first_out;
}

int Lowering::constant(float x) { return constant_bits(std::bit_cast<std::uint32_t>(x)); }

std::uint32_t Lowering::picture_slot(const std::string& name, bool weighed) {
    const PictureUse use{name, weighed};
    const auto found = std::find(ir_.pictures.begin(), ir_.pictures.end(), use);
    if (found != ir_.pictures.end()) return static_cast<std::uint32_t>(found - ir_.pictures.begin());
    ir_.pictures.push_back(use);
    return static_cast<std::uint32_t>(ir_.pictures.size() - 1);
}

int Lowering::uniform(const std::string& name, int part) {
    const UniformSlot slot{name, part};
    const auto found = std::find(ir_.uniforms.begin(), ir_.uniforms.end(), slot);
    const auto index = static_cast<std::uint32_t>(found - ir_.uniforms.begin());
    if (found == ir_.uniforms.end()) ir_.uniforms.push_back(slot);
    return emit(Op::uniform, {}, index);
}

Parts Lowering::read_here(const std::string& name, int width) {
    return row(emit(Op::read_here, {}, picture_slot(name)), width);
}

Parts Lowering::symbol(Type type, const NameHere& here) {
    const auto width = width_of(type);
    if (here.symbol == SymbolKind::step) {
        const auto known_step = steps_.find(here.name);
        if (known_step != steps_.end()) return known_step->second;
        Parts parts = read_here(here.name, width);
        // A stored step is floats; what else it was comes back from them.
        if (scalar_of(type) != Scalar::real) parts = {convert_part(Scalar::real, scalar_of(type), parts[0])};
        return parts;
    }
    if (here.symbol == SymbolKind::ground) return read_here(here.name, width);
    const KnownName* known = here.symbol == SymbolKind::known ? find_known(here.name) : nullptr;
    if (known != nullptr && known->id == Known::uv) return {emit(Op::uv_x, {}), emit(Op::uv_y, {})};
    if (known != nullptr && known->id == Known::pixel) return {emit(Op::pixel_x, {}), emit(Op::pixel_y, {})};
    return each(static_cast<std::size_t>(width),
                [&](std::size_t k) { return uniform(here.name, static_cast<int>(k)); });
}

// core/picture/table.h, step by step the same.
int Lowering::table_place(int t) {
    const int along = emit(Op::multiply, {t, constant(table_cells)});
    const int begun = emit(Op::floor, {emit(Op::add, {along, constant(table_slack)})});
    const int cell = emit(Op::min, {emit(Op::max, {begun, constant(0)}), constant(table_cells)});
    const int middle = emit(Op::add, {emit(Op::add, {cell, along}), constant(0.5F)});
    return emit(Op::multiply, {middle, constant(1.0F / static_cast<float>(table_width))});
}

Parts Lowering::read(const Typed& t, const PictureReading& reading) {
    const std::uint32_t slot = picture_slot(reading.name, reading.weighed);
    const int width = width_of(t.type);
    const Parts where = t.args.empty() ? Parts{} : value(t.args[0]);
    switch (reading.builtin) {
        case Builtin::texture_size:
            return row(emit(Op::picture_size, {}, slot), 2);
        case Builtin::texture_lod:
            return row(emit(Op::sample_level, {where[0], where[1], value(t.args[1])[0]}, slot), width);
        case Builtin::texel_fetch:
            return row(emit(Op::fetch, {where[0], where[1]}, slot), width);
        case Builtin::at:
            return row(emit(Op::sample, {table_place(where[0]), constant(0.5F)}, slot), width);
        default:
            return row(emit(Op::sample, {where[0], where[1]}, slot), width);
    }
}

Ir lower(const Pass& pass, Unrolling unrolling) { return Lowering(pass, unrolling).run(); }

}  // namespace lacquer
