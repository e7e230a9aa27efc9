#include "core/cpu/lower.h"

#include <algorithm>
#include <bit>
#include <map>

namespace lacquer {

namespace {

using Parts = std::vector<int>;

class Lowering {
public:
    explicit Lowering(const Pass& pass) : pass_(pass) {}

    Ir run() {
        for (const PassStep& step : pass_.steps) {
            steps_[step.name] = value(step.typed);
            types_[step.name] = step.typed.type;
        }
        for (const std::string& name : pass_.outputs) {
            Parts parts = steps_.contains(name) ? steps_[name] : read_here(name, 4);
            if (types_[name] == Type::boolean) parts = {truth_as_number(parts[0])};
            if (types_[name] == Type::integer) parts = {emit(Op::from_int, {parts[0]})};
            ir_.outputs.push_back({name, std::move(parts)});
        }
        return std::move(ir_);
    }

private:
    int emit(Op op, std::initializer_list<int> in, std::uint32_t bits = 0) {
        Instruction i;
        i.op = op;
        i.bits = bits;
        i.rate = op == Op::uv_x || op == Op::pixel_x   ? Rate::column
                 : op == Op::uv_y || op == Op::pixel_y ? Rate::row
                 : op == Op::read_here                 ? Rate::pixel
                                                       : Rate::uniform;
        std::size_t k = 0;
        for (const int value : in) {
            i.in[k++] = value;
            i.rate = join(i.rate, rates_[static_cast<std::size_t>(value)]);
        }
        i.first_out = ir_.value_count;
        ir_.value_count += op_info(op).outputs;
        rates_.resize(static_cast<std::size_t>(ir_.value_count), i.rate);
        ir_.code.push_back(i);
        return i.first_out;
    }
    int constant(float x) { return emit(Op::constant, {}, std::bit_cast<std::uint32_t>(x)); }
    int truth_as_number(int truth) { return emit(Op::select, {truth, constant(1), constant(0)}); }

    std::uint32_t picture_slot(const std::string& name) {
        const auto found = std::find(ir_.pictures.begin(), ir_.pictures.end(), name);
        if (found != ir_.pictures.end()) return static_cast<std::uint32_t>(found - ir_.pictures.begin());
        ir_.pictures.push_back(name);
        return static_cast<std::uint32_t>(ir_.pictures.size() - 1);
    }
    int uniform(const std::string& name, int part) {
        const UniformSlot slot{name, part};
        const auto found = std::find(ir_.uniforms.begin(), ir_.uniforms.end(), slot);
        const auto index = static_cast<std::uint32_t>(found - ir_.uniforms.begin());
        if (found == ir_.uniforms.end()) ir_.uniforms.push_back(slot);
        return emit(Op::uniform, {}, index);
    }
    static Parts row(int first, int count) {
        Parts parts;
        for (int k = 0; k < count; ++k) parts.push_back(first + k);
        return parts;
    }
    Parts read_here(const std::string& name, int width) {
        return row(emit(Op::read_here, {}, picture_slot(name)), width);
    }

    Parts value(const Typed& t) {
        switch (t.kind) {
            case TypedKind::literal:
                return {literal(t)};
            case TypedKind::symbol:
                return symbol(t);
            case TypedKind::parts: {
                const Parts whole = value(t.args[0]);
                Parts taken;
                for (std::size_t k = 0; k < static_cast<std::size_t>(t.part_count); ++k)
                    taken.push_back(whole[t.parts[k]]);
                return taken;
            }
            case TypedKind::construct:
                return construct(t);
            case TypedKind::convert:
                return {convert(t)};
            case TypedKind::unary:
                return unary(t);
            case TypedKind::binary:
                return binary(t);
            case TypedKind::select:
                return select(t);
            case TypedKind::call:
                return call(t);
            case TypedKind::read: {
                const Parts where = value(t.args[0]);
                return row(emit(Op::sample, {where[0], where[1]}, picture_slot(t.name)), width_of(t.type));
            }
        }
        return {};
    }

    int literal(const Typed& t) {
        if (t.type == Type::number) return constant(static_cast<float>(t.number));
        if (t.type == Type::boolean) return emit(Op::constant, {}, t.number != 0 ? 0xFFFFFFFFU : 0U);
        return emit(Op::constant, {}, static_cast<std::uint32_t>(static_cast<std::int32_t>(t.number)));
    }

    Parts symbol(const Typed& t) {
        if (t.symbol == SymbolKind::step) {
            const auto here = steps_.find(t.name);
            return here != steps_.end() ? here->second : read_here(t.name, width_of(t.type));
        }
        if (t.symbol == SymbolKind::ground) return read_here(t.name, 4);
        if (t.name == "uv") return {emit(Op::uv_x, {}), emit(Op::uv_y, {})};
        if (t.name == "pixel") return {emit(Op::pixel_x, {}), emit(Op::pixel_y, {})};
        Parts parts;
        for (int k = 0; k < width_of(t.type); ++k) parts.push_back(uniform(t.name, k));
        return parts;
    }

    Parts construct(const Typed& t) {
        const auto width = static_cast<std::size_t>(width_of(t.type));
        Parts all;
        for (const Typed& arg : t.args) {
            for (const int part : value(arg)) all.push_back(part);
        }
        if (all.size() == 1) all.resize(width, all[0]);
        all.resize(width);
        return all;
    }

    int convert(const Typed& t) {
        const Type from = t.args[0].type;
        const int part = value(t.args[0])[0];
        if (t.type == Type::number) return from == Type::integer ? emit(Op::from_int, {part}) : truth_as_number(part);
        if (t.type == Type::boolean) {
            const int zero = constant(0);
            return emit(Op::bit_not, {emit(from == Type::integer ? Op::equal_int : Op::equal, {part, zero})});
        }
        return from == Type::number ? emit(Op::to_int, {part})
                                    : emit(Op::select, {part, emit(Op::constant, {}, 1), constant(0)});
    }

    Parts unary(const Typed& t) {
        Parts parts = value(t.args[0]);
        const Op op = t.op != Operator::negate ? Op::bit_not : t.type == Type::integer ? Op::negate_int : Op::negate;
        for (int& part : parts) part = emit(op, {part});
        return parts;
    }

    static Op float_op(Operator op) {
        switch (op) {
            case Operator::add:
                return Op::add;
            case Operator::subtract:
                return Op::subtract;
            case Operator::multiply:
                return Op::multiply;
            default:
                return Op::divide;
        }
    }
    static Op whole_op(Operator op) {
        switch (op) {
            case Operator::add:
                return Op::add_int;
            case Operator::subtract:
                return Op::subtract_int;
            case Operator::multiply:
                return Op::multiply_int;
            case Operator::divide:
                return Op::divide_int;
            case Operator::remainder:
                return Op::remainder_int;
            case Operator::shift_left:
                return Op::shift_left;
            case Operator::shift_right:
                return Op::shift_right;
            case Operator::bit_and:
                return Op::bit_and;
            case Operator::bit_or:
                return Op::bit_or;
            default:
                return Op::bit_xor;
        }
    }

    Parts binary(const Typed& t) {
        const Parts a = value(t.args[0]);
        const Parts b = value(t.args[1]);
        switch (t.op) {
            case Operator::both:
                return {emit(Op::bit_and, {a[0], b[0]})};
            case Operator::either:
                return {emit(Op::bit_or, {a[0], b[0]})};
            case Operator::either_one:
                return {emit(Op::bit_xor, {a[0], b[0]})};
            default:
                break;
        }
        if (t.type == Type::boolean) return {compare(t, a, b)};
        if (t.type == Type::integer) return {emit(whole_op(t.op), {a[0], b[0]})};
        Parts parts;
        const std::size_t width = t.opacity_of >= 0 ? 3 : static_cast<std::size_t>(width_of(t.type));
        for (std::size_t k = 0; k < width; ++k) parts.push_back(emit(float_op(t.op), {a[k], b[k]}));
        if (t.opacity_of >= 0) parts.push_back(t.opacity_of == 0 ? a[3] : b[3]);
        return parts;
    }

    int compare(const Typed& t, const Parts& a, const Parts& b) {
        const bool floats = is_float(t.args[0].type);
        const Op less = floats ? Op::less : Op::less_int;
        switch (t.op) {
            case Operator::less:
                return emit(less, {a[0], b[0]});
            case Operator::greater:
                return emit(less, {b[0], a[0]});
            case Operator::less_equal:
                return floats ? emit(Op::less_equal, {a[0], b[0]}) : emit(Op::bit_not, {emit(less, {b[0], a[0]})});
            case Operator::greater_equal:
                return floats ? emit(Op::less_equal, {b[0], a[0]}) : emit(Op::bit_not, {emit(less, {a[0], b[0]})});
            default:
                break;
        }
        const Op equal = floats ? Op::equal : Op::equal_int;
        int all = emit(equal, {a[0], b[0]});
        for (std::size_t k = 1; k < a.size(); ++k) all = emit(Op::bit_and, {all, emit(equal, {a[k], b[k]})});
        return t.op == Operator::equal ? all : emit(Op::bit_not, {all});
    }

    Parts select(const Typed& t) {
        const int which = value(t.args[0])[0];
        const Parts yes = value(t.args[1]);
        const Parts no = value(t.args[2]);
        Parts parts;
        for (std::size_t k = 0; k < yes.size(); ++k) parts.push_back(emit(Op::select, {which, yes[k], no[k]}));
        return parts;
    }

    int dot(const Parts& a, const Parts& b) {
        int sum = emit(Op::multiply, {a[0], b[0]});
        for (std::size_t k = 1; k < a.size(); ++k) sum = emit(Op::add, {sum, emit(Op::multiply, {a[k], b[k]})});
        return sum;
    }
    int length(const Parts& a) { return emit(Op::sqrt, {dot(a, a)}); }

    template <class Each>
    static Parts each(std::size_t width, Each make) {
        Parts parts;
        for (std::size_t k = 0; k < width; ++k) parts.push_back(make(k));
        return parts;
    }

    Parts call(const Typed& t) {
        std::array<Parts, 3> args;
        for (std::size_t k = 0; k < t.args.size(); ++k) args[k] = value(t.args[k]);
        const Parts& a = args[0];
        const Parts& b = args[1];
        const Parts& c = args[2];
        switch (t.builtin) {
            case Builtin::length:
                return {length(a)};
            case Builtin::distance:
                return {length(each(a.size(), [&](std::size_t k) { return emit(Op::subtract, {a[k], b[k]}); }))};
            case Builtin::dot:
                return {dot(a, b)};
            case Builtin::cross:
                return cross(a, b);
            case Builtin::normalize: {
                const int size = length(a);
                const int zero = constant(0);
                const int none = emit(Op::equal, {size, zero});
                return each(a.size(), [&](std::size_t k) {
                    return emit(Op::select, {none, zero, emit(Op::divide, {a[k], size})});
                });
            }
            case Builtin::faceforward: {
                const int facing = emit(Op::less, {dot(c, b), constant(0)});
                return each(a.size(), [&](std::size_t k) {
                    return emit(Op::select, {facing, a[k], emit(Op::negate, {a[k]})});
                });
            }
            case Builtin::reflect: {
                const int twice = emit(Op::multiply, {constant(2), dot(b, a)});
                return each(a.size(), [&](std::size_t k) {
                    return emit(Op::subtract, {a[k], emit(Op::multiply, {twice, b[k]})});
                });
            }
            case Builtin::refract:
                return refract(a, b, c[0]);
            case Builtin::mix_choice:
                return each(a.size(), [&](std::size_t k) { return emit(Op::select, {c[0], b[k], a[k]}); });
            case Builtin::hash3:
                return row(emit(Op::hash3, {a[0], a[1], a[2]}), 3);
            case Builtin::hash_2:
                return {emit(Op::hash_2, {a[0], a[1]})};
            case Builtin::value_noise_2:
                return {emit(Op::value_noise_2, {a[0], a[1]})};
            case Builtin::gradient_noise_2:
                return {emit(Op::gradient_noise_2, {a[0], a[1]})};
            case Builtin::hash_3:
                return {emit(Op::hash_3, {a[0], a[1], a[2]})};
            case Builtin::value_noise_3:
                return {emit(Op::value_noise_3, {a[0], a[1], a[2]})};
            case Builtin::gradient_noise_3:
                return {emit(Op::gradient_noise_3, {a[0], a[1], a[2]})};
            case Builtin::float_bits_to_int:
            case Builtin::int_bits_to_float:
                return a;
            default:
                return each(a.size(), [&](std::size_t k) { return part(t.builtin, args, k); });
        }
    }

    Parts cross(const Parts& a, const Parts& b) {
        const auto minor = [&](std::size_t i, std::size_t j) {
            return emit(Op::subtract, {emit(Op::multiply, {a[i], b[j]}), emit(Op::multiply, {a[j], b[i]})});
        };
        return {minor(1, 2), minor(2, 0), minor(0, 1)};
    }

    Parts refract(const Parts& incident, const Parts& normal, int eta) {
        const int one = constant(1);
        const int zero = constant(0);
        const int cosine = dot(normal, incident);
        const int rest = emit(Op::subtract, {one, emit(Op::multiply, {cosine, cosine})});
        const int k = emit(Op::subtract, {one, emit(Op::multiply, {emit(Op::multiply, {eta, eta}), rest})});
        const int along = emit(Op::add, {emit(Op::multiply, {eta, cosine}), emit(Op::sqrt, {k})});
        const int none = emit(Op::less, {k, zero});
        return each(incident.size(), [&](std::size_t i) {
            const int bent =
                emit(Op::subtract, {emit(Op::multiply, {eta, incident[i]}), emit(Op::multiply, {along, normal[i]})});
            return emit(Op::select, {none, zero, bent});
        });
    }

    // Functions that work on each part alone.
    int part(Builtin builtin, const std::array<Parts, 3>& args, std::size_t k) {
        const int a = args[0][k];
        const auto b = [&] { return args[1][k]; };
        const auto c = [&] { return args[2][k]; };
        switch (builtin) {
            case Builtin::radians:
                return emit(Op::multiply, {a, constant(0.017453292F)});
            case Builtin::degrees:
                return emit(Op::multiply, {a, constant(57.29578F)});
            case Builtin::sin:
                return emit(Op::sin, {a});
            case Builtin::cos:
                return emit(Op::cos, {a});
            case Builtin::tan:
                return emit(Op::tan, {a});
            case Builtin::asin:
                return emit(Op::asin, {a});
            case Builtin::acos:
                return emit(Op::acos, {a});
            case Builtin::atan:
                return emit(Op::atan, {a});
            case Builtin::atan2:
                return emit(Op::atan2, {a, b()});
            case Builtin::sinh:
                return emit(Op::sinh, {a});
            case Builtin::cosh:
                return emit(Op::cosh, {a});
            case Builtin::tanh:
                return emit(Op::tanh, {a});
            case Builtin::asinh:
                return emit(Op::asinh, {a});
            case Builtin::acosh:
                return emit(Op::acosh, {a});
            case Builtin::atanh:
                return emit(Op::atanh, {a});
            case Builtin::pow:
                return emit(Op::pow, {a, b()});
            case Builtin::exp:
                return emit(Op::exp, {a});
            case Builtin::log:
                return emit(Op::log, {a});
            case Builtin::exp2:
                return emit(Op::exp2, {a});
            case Builtin::log2:
                return emit(Op::log2, {a});
            case Builtin::sqrt:
                return emit(Op::sqrt, {a});
            case Builtin::inversesqrt:
                return emit(Op::inversesqrt, {a});
            case Builtin::abs:
                return emit(Op::absolute, {a});
            case Builtin::sign:
                return emit(Op::sign, {a});
            case Builtin::floor:
                return emit(Op::floor, {a});
            case Builtin::trunc:
                return emit(Op::trunc, {a});
            case Builtin::round:
            case Builtin::round_even:
                return emit(Op::round, {a});
            case Builtin::ceil:
                return emit(Op::ceil, {a});
            case Builtin::fract:
                return emit(Op::fract, {a});
            case Builtin::mod:
                return emit(Op::mod, {a, b()});
            case Builtin::min:
                return emit(Op::min, {a, b()});
            case Builtin::max:
                return emit(Op::max, {a, b()});
            case Builtin::clamp:
                return emit(Op::clamp, {a, b(), c()});
            case Builtin::mix:
                return emit(Op::mix, {a, b(), c()});
            case Builtin::step:
                return emit(Op::step, {a, b()});
            case Builtin::smoothstep:
                return emit(Op::smoothstep, {a, b(), c()});
            case Builtin::is_nan:
                return emit(Op::is_nan, {a});
            case Builtin::is_inf:
                return emit(Op::is_inf, {a});
            case Builtin::abs_int:
                return emit(Op::max_int, {a, emit(Op::negate_int, {a})});
            case Builtin::sign_int: {
                const int zero = constant(0);
                const int above = emit(Op::less_int, {zero, a});
                return emit(Op::subtract_int, {emit(Op::less_int, {a, zero}), above});
            }
            case Builtin::min_int:
                return emit(Op::min_int, {a, b()});
            case Builtin::max_int:
                return emit(Op::max_int, {a, b()});
            case Builtin::clamp_int:
                return emit(Op::min_int, {emit(Op::max_int, {a, b()}), c()});
            case Builtin::hash_1:
                return emit(Op::hash_1, {a});
            default:
                return a;
        }
    }

    const Pass& pass_;
    Ir ir_;
    std::vector<Rate> rates_;
    std::map<std::string, Parts, std::less<>> steps_;
    std::map<std::string, Type, std::less<>> types_;
};

}  // namespace

Ir lower(const Pass& pass) { return Lowering(pass).run(); }

}  // namespace lacquer
