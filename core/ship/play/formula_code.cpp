#include "core/ship/play/formula_code.h"

#include <fmt/core.h>

#include <bit>
#include <cmath>
#include <map>
#include <set>

#include "core/base/text.h"
#include "core/cpu/lower.h"

namespace lacquer {

namespace {

// What a value's 32 bits stand for.
enum class Kind { open, number, whole };

Kind kind_of_inputs(Op op) {
    switch (op) {
        case Op::select:
        case Op::copy:
        case Op::cell:
        case Op::assign:
        case Op::constant:
        case Op::uniform:
            return Kind::open;
        case Op::add_int:
        case Op::subtract_int:
        case Op::multiply_int:
        case Op::divide_int:
        case Op::remainder_int:
        case Op::negate_int:
        case Op::min_int:
        case Op::max_int:
        case Op::less_int:
        case Op::equal_int:
        case Op::divide_uint:
        case Op::remainder_uint:
        case Op::min_uint:
        case Op::max_uint:
        case Op::less_uint:
        case Op::shift_right_uint:
        case Op::from_uint:
        case Op::shift_left:
        case Op::shift_right:
        case Op::bit_and:
        case Op::bit_or:
        case Op::bit_xor:
        case Op::bit_not:
        case Op::from_int:
        case Op::loop_exit:
        case Op::skip_begin:
            return Kind::whole;
        default:
            return Kind::number;
    }
}

Kind kind_of_output(Op op) {
    switch (op) {
        case Op::less:
        case Op::less_equal:
        case Op::equal:
        case Op::is_nan:
        case Op::is_inf:
        case Op::to_int:
        case Op::to_uint:
            return Kind::whole;
        case Op::from_int:
        case Op::from_uint:
            return Kind::number;
        default:
            return kind_of_inputs(op);
    }
}

bool looks_at_pixels(Op op) {
    return (op >= Op::uv_x && op <= Op::derivative_y) || op == Op::noise_place || op == Op::value_placed_2 ||
           op == Op::value_placed_3 || op == Op::gradient_placed_2 || op == Op::gradient_placed_3;
}

class FormulaWriter {
public:
    FormulaWriter(const Ir& ir, const CodeName& name_of, const std::string& margin)
        : ir_(ir), name_of_(name_of), margin_(margin), kinds_(static_cast<std::size_t>(ir.value_count), Kind::open) {}

    Result<FormulaCode> run(Type type) {
        find_kinds();
        for (const Instruction& line : ir_.code) {
            if (looks_at_pixels(line.op)) {
                return Fault{"ship.formula",
                             "a formula that looks at pixels has no value of its own",
                             "let a dial be driven by time, signals and responses only",
                             {},
                             Severity::fault};
            }
            write(line);
        }
        FormulaCode code;
        for (int part = 0; part < width_of(type); ++part) {
            const int value = ir_.outputs.front().values[static_cast<std::size_t>(part)];
            const Scalar scalar = scalar_of(type);
            const std::string text = as(value, scalar == Scalar::real ? Kind::number : Kind::whole);
            code.parts.push_back(scalar == Scalar::truth     ? "(" + text + " != 0 ? 1 : 0)"
                                 : scalar == Scalar::natural ? "lq_from_uint(" + text + ")"
                                                             : text);
        }
        code.statements = declarations_ + text_;
        return code;
    }

private:
    Kind& kind(int value) { return kinds_[static_cast<std::size_t>(value)]; }

    // Known from what makes a value, or else from what uses it; what is chosen is of the kind of the choice.
    void find_kinds() {
        for (const Instruction& line : ir_.code) {
            const OpInfo& info = op_info(line.op);
            for (int k = 0; k < info.outputs; ++k) kind(line.first_out + k) = kind_of_output(line.op);
            if (line.op == Op::constant) constants_[line.first_out] = line.bits;
            if (line.op == Op::uniform) kind(line.first_out) = named(line).is_truth ? Kind::whole : Kind::number;
        }
        for (bool changes = true; changes;) {
            changes = false;
            for (const Instruction& line : ir_.code) changes = spread(line) || changes;
        }
    }

    CodeValue named(const Instruction& line) const {
        const UniformSlot& slot = ir_.uniforms[line.bits];
        return name_of_(slot.name, slot.part);
    }

    bool settle(int value, Kind as_kind) {
        if (as_kind == Kind::open || kind(value) != Kind::open || constants_.contains(value)) return false;
        kind(value) = as_kind;
        return true;
    }

    bool spread(const Instruction& line) {
        const OpInfo& info = op_info(line.op);
        if (line.op == Op::select || line.op == Op::copy || line.op == Op::assign) {
            const std::size_t first = line.op == Op::select ? 1 : 0;
            const int made = line.op == Op::assign ? -1 : line.first_out;
            Kind found = made >= 0 ? kind(made) : Kind::open;
            for (std::size_t k = first; k < static_cast<std::size_t>(info.inputs); ++k) {
                if (found == Kind::open) found = kind(line.in[k]);
            }
            bool changes = made >= 0 && settle(made, found);
            for (std::size_t k = first; k < static_cast<std::size_t>(info.inputs); ++k)
                changes = settle(line.in[k], found) || changes;
            return (line.op == Op::select && settle(line.in[0], Kind::whole)) || changes;
        }
        bool changes = false;
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k)
            changes = settle(line.in[k], kind_of_inputs(line.op)) || changes;
        return changes;
    }

    // The value as it is wanted there; one that was made as the other kind changes its meaning, not its bits.
    std::string as(int value, Kind wanted) {
        if (const auto constant = constants_.find(value); constant != constants_.end()) {
            return wanted == Kind::whole ? fmt::format("{}", static_cast<std::int32_t>(constant->second))
                                         : code_number(static_cast<double>(std::bit_cast<float>(constant->second)));
        }
        std::string name = fmt::format("v{}", value);
        const bool is_whole = kind(value) == Kind::whole;
        if (is_whole == (wanted == Kind::whole)) return name;
        return (is_whole ? "lq_of_bits(" : "lq_bits_of(") + name + ")";
    }

    void put(int value, const std::string& text) {
        if (!cells_.contains(value)) declarations_ += margin_ + fmt::format("double v{} = 0;\n", value);
        text_ += margin_ + depth_ + fmt::format("v{} = {};\n", value, text);
    }

    std::string list(const Instruction& line, std::size_t count) {
        std::string text;
        for (std::size_t k = 0; k < count; ++k) text += (k == 0 ? "" : ", ") + as(line.in[k], kind_of_inputs(line.op));
        return text;
    }

    std::string infix(const Instruction& line, const char* mark) {
        return "lq_f(" + as(line.in[0], Kind::number) + mark + as(line.in[1], Kind::number) + ")";
    }

    std::string noise(const Instruction& line, const char* kind_name, std::size_t width, bool fractal) {
        std::string text = fractal ? "lq_fractal_noise(" : "lq_noise(";
        text += std::string(kind_name) + (width == 3 ? ", 1" : ", 0");
        for (std::size_t k = 0; k < width; ++k) text += ", " + as(line.in[k], Kind::number);
        if (width == 2) text += ", 0";
        return text + (fractal ? ", " + as(line.in[width], Kind::number) : "") + ")";
    }

    void write(const Instruction& line) {
        const OpInfo& info = op_info(line.op);
        const int out = line.first_out;
        const auto called = [&](const char* function) {
            put(out, std::string(function) + "(" + list(line, static_cast<std::size_t>(info.inputs)) + ")");
        };
        switch (line.op) {
            case Op::constant:
                return;
            case Op::uniform:
                return put(out, named(line).text);
            case Op::add:
                return put(out, infix(line, " + "));
            case Op::subtract:
                return put(out, infix(line, " - "));
            case Op::multiply:
                return put(out, infix(line, " * "));
            case Op::divide:
                return put(out, infix(line, " / "));
            case Op::copy:
                return put(out, as(line.in[0], kind(out)));
            case Op::select:
                return put(out, as(line.in[0], Kind::whole) + " != 0 ? " + as(line.in[1], kind(out)) + " : " +
                                    as(line.in[2], kind(out)));
            case Op::clamp:
                return called("lq_held");
            case Op::negate_int:
                return put(out, "lq_subtract_int(0, " + as(line.in[0], Kind::whole) + ")");
            case Op::min_int:
                return called("lq_min");
            case Op::max_int:
                return called("lq_max");
            case Op::less_int:
                return called("lq_less");
            case Op::equal_int:
                return called("lq_equal");
            case Op::from_int:
                return put(out, "lq_f(" + as(line.in[0], Kind::whole) + ")");
            case Op::hash3:
                for (int k = 0; k < 3; ++k) put(out + k, fmt::format("lq_hash3({}, {})", list(line, 3), k));
                return;
            case Op::value_noise_2:
                return put(out, noise(line, "LQ_VALUE_NOISE", 2, false));
            case Op::value_noise_3:
                return put(out, noise(line, "LQ_VALUE_NOISE", 3, false));
            case Op::gradient_noise_2:
                return put(out, noise(line, "LQ_GRADIENT_NOISE", 2, false));
            case Op::gradient_noise_3:
                return put(out, noise(line, "LQ_GRADIENT_NOISE", 3, false));
            case Op::cellular_noise_2:
                return put(out, noise(line, "LQ_CELLULAR_NOISE", 2, false));
            case Op::cellular_noise_3:
                return put(out, noise(line, "LQ_CELLULAR_NOISE", 3, false));
            case Op::fractal_value_2:
                return put(out, noise(line, "LQ_VALUE_NOISE", 2, true));
            case Op::fractal_value_3:
                return put(out, noise(line, "LQ_VALUE_NOISE", 3, true));
            case Op::fractal_gradient_2:
                return put(out, noise(line, "LQ_GRADIENT_NOISE", 2, true));
            case Op::fractal_gradient_3:
                return put(out, noise(line, "LQ_GRADIENT_NOISE", 3, true));
            case Op::fractal_cellular_2:
                return put(out, noise(line, "LQ_CELLULAR_NOISE", 2, true));
            case Op::fractal_cellular_3:
                return put(out, noise(line, "LQ_CELLULAR_NOISE", 3, true));
            case Op::cell:
                declarations_ += margin_ + fmt::format("double v{} = 0;\n", out);
                cells_.insert(out);
                return;
            case Op::assign:
                text_ += margin_ + depth_ + fmt::format("v{} = {};\n", line.in[0], as(line.in[1], kind(line.in[0])));
                return;
            case Op::loop_begin:
                text_ += margin_ + depth_ + "for (;;) {\n";
                depth_ += "    ";
                return;
            case Op::loop_exit:
                text_ += margin_ + depth_ + "if (" + as(line.in[0], Kind::whole) + " == 0) break;\n";
                return;
            case Op::skip_begin:
                text_ += margin_ + depth_ + "if (" + as(line.in[0], Kind::whole) + " != 0) {\n";
                depth_ += "    ";
                return;
            case Op::loop_end:
            case Op::skip_end:
                depth_.resize(depth_.size() - 4);
                text_ += margin_ + depth_ + "}\n";
                return;
            default:
                return called(("lq_" + std::string(info.name)).c_str());
        }
    }

    const Ir& ir_;
    const CodeName& name_of_;
    const std::string& margin_;
    std::vector<Kind> kinds_;
    std::map<int, std::uint32_t> constants_;
    std::set<int> cells_;
    std::string declarations_;
    std::string text_;
    std::string depth_;
};

}  // namespace

std::string code_number(double value) {
    if (std::isnan(value)) return "(INFINITY - INFINITY)";
    if (std::isinf(value)) return value > 0 ? "INFINITY" : "(-INFINITY)";
    std::string text = shortest_number(value);
    return value < 0 || std::signbit(value) ? "(" + text + ")" : text;
}

Result<FormulaCode> formula_code(const Typed& formula, const CodeName& name_of, const std::string& margin) {
    Pass pass;
    pass.name = "formula";
    pass.steps.push_back({"formula", std::make_shared<const Typed>(formula), {}});
    pass.outputs = {"formula"};
    pass.resources["formula"].type = formula.type;
    const Ir ir = drop_unused(share_common(fold_constants(lower(pass, Unrolling::yes))));
    return FormulaWriter(ir, name_of, margin).run(formula.type);
}

}  // namespace lacquer
