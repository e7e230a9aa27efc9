// Functions and statements as instructions. Functions are written out where they are called. A statement is meant for
// some of the pixels (`Active`); what it sets is picked for those by `select`, and since nothing else follows from
// running it, the others may run it too.
#include <algorithm>
#include <utility>

#include "core/cpu/lowering.h"

namespace lacquer {

namespace {

constexpr int most_unrolled_turns = 64;
constexpr std::size_t most_unrolled_nodes = 6000;
constexpr std::size_t worth_skipping = 24;  // as `work_of` counts

std::size_t size_of(std::span<const TypedStatement> statements) {
    std::size_t size = 0;
    const auto count = [&](const Typed&) { ++size; };
    visit_nodes(statements, count);
    return size;
}

// About how many instructions of the plainest kind a node takes by itself.
std::size_t work_of(const Typed& node) {
    if (node.is<PictureReading>()) return 12;
    const auto* call = node.as<BuiltinCall>();
    const bool noise =
        call != nullptr && call->builtin >= Builtin::value_noise_2 && call->builtin <= Builtin::fractal_cellular_3;
    return noise ? worth_skipping : 1;
}

std::size_t work_of(std::span<const TypedStatement> statements) {
    std::size_t work = 0;
    const auto count = [&](const Typed& node) { work += work_of(node); };
    visit_nodes(statements, count);
    return work;
}

void find_assigned(const std::vector<TypedStatement>& statements, std::vector<int>& variables, bool& gives_back) {
    for (const TypedStatement& s : statements) {
        if (s.kind == StatementKind::assign) variables.push_back(s.variable);
        if (s.kind == StatementKind::give_back) gives_back = true;
        find_assigned(s.body, variables, gives_back);
        find_assigned(s.otherwise, variables, gives_back);
        find_assigned(s.first, variables, gives_back);
        find_assigned(s.last, variables, gives_back);
    }
}

bool has_loop_with_result(const std::vector<TypedStatement>& statements, bool in_loop) {
    return std::any_of(statements.begin(), statements.end(), [&](const TypedStatement& s) {
        if (s.kind == StatementKind::give_back) return in_loop;
        const bool inside = in_loop || s.kind == StatementKind::loop;
        return has_loop_with_result(s.body, inside) || has_loop_with_result(s.otherwise, inside);
    });
}

}  // namespace

Parts Lowering::run_function(const TypedFunction& function, std::vector<Parts> args) {
    Frame frame;
    frame.function = &function;
    frame.entry = calling_;
    frame.variables = std::move(args);
    for (std::size_t i = frame.variables.size(); i < function.variables.size(); ++i)
        frame.variables.push_back(Parts(static_cast<std::size_t>(width_of(function.variables[i].type)), constant(0)));
    if (has_loop_with_result(frame.function->body, false)) frame.gone = constant(0);
    Frame* const outside = std::exchange(frame_, &frame);
    statements(frame.function->body, {});
    frame_ = outside;
    calling_ = frame.entry;
    return *frame.result;
}

int Lowering::mask_of(Active active) {
    if (active.kind == Active::Kind::some) return active.mask;
    return constant_bits(active.kind == Active::Kind::all ? 0xFFFFFFFFU : 0U);
}

Lowering::Active Lowering::both(Active a, Active b) {
    if (a.kind == Active::Kind::none || b.kind == Active::Kind::all || a == b) return a;
    if (b.kind == Active::Kind::none || a.kind == Active::Kind::all) return b;
    return {Active::Kind::some, emit(Op::bit_and, {a.mask, b.mask})};
}

Lowering::Active Lowering::either(Active a, Active b) {
    if (a.kind == Active::Kind::all || b.kind == Active::Kind::none || a == b) return a;
    if (b.kind == Active::Kind::all || a.kind == Active::Kind::none) return b;
    return {Active::Kind::some, emit(Op::bit_or, {a.mask, b.mask})};
}

Lowering::Active Lowering::without(Active a, int mask) {
    return both(a, {Active::Kind::some, emit(Op::bit_not, {mask})});
}

Parts Lowering::chosen(Active active, const Parts& fresh, const Parts& old) {
    if (active.kind == Active::Kind::all) return fresh;
    return each(fresh.size(), [&](std::size_t k) { return emit(Op::select, {active.mask, fresh[k], old[k]}); });
}

Lowering::Active Lowering::statements(std::span<const TypedStatement> list, Active active) {
    for (std::size_t n = 0; n < list.size(); ++n) {
        if (active.kind == Active::Kind::none) break;
        const Active before = active;
        active = statement(list[n], active);
        // Some have left: where all have, what follows need not be run.
        const std::span<const TypedStatement> rest = list.subspan(n + 1);
        if (!(active == before) && active.kind == Active::Kind::some && is_worth_skipping(rest))
            return skippable(rest, active);
    }
    return active;
}

bool Lowering::is_worth_skipping(std::span<const TypedStatement> list) const {
    return unrolling_ == Unrolling::yes && work_of(list) >= worth_skipping;
}

Lowering::Active Lowering::statement(const TypedStatement& s, Active active) {
    calling_ = both(frame_->entry, active);
    constexpr Active nobody{Active::Kind::none, -1};
    switch (s.kind) {
        case StatementKind::declare:
        case StatementKind::assign:
            set(s, active);
            return active;
        case StatementKind::branch:
            return branch(s, active);
        case StatementKind::loop:
            return loop(s, active);
        case StatementKind::leave:
            frame_->loops.back().left = either(frame_->loops.back().left, active);
            return nobody;
        case StatementKind::skip:
            frame_->loops.back().skipped = either(frame_->loops.back().skipped, active);
            return nobody;
        case StatementKind::give_back:
            give_back(s, active);
            return nobody;
        case StatementKind::block:
            break;
    }
    return statements(s.body, active);
}

void Lowering::set(const TypedStatement& s, Active active) {
    const auto index = static_cast<std::size_t>(s.variable);
    if (s.kind == StatementKind::declare) {
        // Nobody has seen it yet, so it may be set for all.
        const auto width = static_cast<std::size_t>(width_of(frame_->function->variables[index].type));
        frame_->variables[index] = s.values.empty() ? Parts(width, constant(0)) : value(s.values[0]);
        return;
    }
    const Parts fresh = value(s.values[0]);
    Parts& variable = frame_->variables[index];
    if (s.part_count == 0) {
        variable = chosen(active, fresh, variable);
        return;
    }
    Parts all = variable;
    for (std::size_t k = 0; k < fresh.size(); ++k) all[s.parts[k]] = fresh[k];
    const Parts old = variable;
    for (std::size_t k = 0; k < fresh.size(); ++k) {
        const std::size_t at = s.parts[k];
        variable[at] = chosen(active, {all[at]}, {old[at]})[0];
    }
}

void Lowering::give_back(const TypedStatement& s, Active active) {
    const Parts fresh = value(s.values[0]);
    // The first may be set for all: those that are still on their way overwrite it.
    frame_->result = frame_->result ? chosen(active, fresh, *frame_->result) : fresh;
    if (frame_->gone) frame_->gone = emit(Op::bit_or, {*frame_->gone, mask_of(active)});
}

Lowering::Active Lowering::branch(const TypedStatement& s, Active active) {
    const int condition = value(s.values[0])[0];
    const Active yes = both(active, {Active::Kind::some, condition});
    const auto arm = [&](const std::vector<TypedStatement>& body, Active meant) {
        return is_worth_skipping(body) ? skippable(body, meant) : statements(body, meant);
    };
    const Active after_yes = arm(s.body, yes);
    const Active no = without(active, condition);
    const Active after_no = s.otherwise.empty() ? no : arm(s.otherwise, no);
    return after_yes == yes && after_no == no ? active : either(after_yes, after_no);
}

// Where nobody is meant, none of this is run, and what it would have set is worth nothing: each is picked again
// outside.
Lowering::Active Lowering::skippable(std::span<const TypedStatement> body, Active meant) {
    const std::vector<Parts> variables = frame_->variables;
    const std::optional<Parts> result = frame_->result;
    const std::optional<int> gone = frame_->gone;
    const std::optional<int> turns = turns_;
    const Loop outside = frame_->loops.empty() ? Loop{} : std::exchange(frame_->loops.back(), Loop{});
    emit(Op::skip_begin, {meant.mask});
    const Active onward = statements(body, meant);
    emit(Op::skip_end, {});
    const auto pick = [&](int inside, int before) {
        return inside == before ? before : emit(Op::select, {meant.mask, inside, before});
    };
    for (std::size_t v = 0; v < variables.size(); ++v) {
        for (std::size_t k = 0; k < variables[v].size(); ++k) {
            frame_->variables[v][k] = pick(frame_->variables[v][k], variables[v][k]);
        }
    }
    if (result) {
        for (std::size_t k = 0; k < result->size(); ++k)
            (*frame_->result)[k] = pick((*frame_->result)[k], (*result)[k]);
    }
    if (gone) frame_->gone = pick(*frame_->gone, *gone);
    if (turns) turns_ = pick(*turns_, *turns);
    if (!frame_->loops.empty()) {
        Loop& loop = frame_->loops.back();
        loop.left = either(outside.left, both(loop.left, meant));
        loop.skipped = either(outside.skipped, both(loop.skipped, meant));
    }
    return onward == meant ? meant : both(onward, meant);
}

Lowering::Active Lowering::loop(const TypedStatement& s, Active active) {
    const bool short_enough = s.turns && *s.turns <= most_unrolled_turns &&
                              static_cast<std::size_t>(*s.turns) * size_of(s.body) <= most_unrolled_nodes;
    return unrolling_ == Unrolling::yes && short_enough && !turns_ ? unrolled(s, active) : turning(s, active);
}

Lowering::Active Lowering::unrolled(const TypedStatement& s, Active active) {
    statements(s.first, active);
    frame_->loops.emplace_back();
    Active running = active;
    for (int turn = 0; turn < *s.turns; ++turn) {
        if (running.kind == Active::Kind::none) break;
        frame_->loops.back().skipped = {Active::Kind::none, -1};
        const Active onward = statements(s.body, running);
        running = either(onward, frame_->loops.back().skipped);
        // The counter may be set for all: nobody who has left looks at it again.
        calling_ = both(frame_->entry, running);
        statements(s.last, {});
    }
    const Active left = frame_->loops.back().left;
    frame_->loops.pop_back();
    return either(running, left);
}

Lowering::Active Lowering::turning(const TypedStatement& s, Active active) {
    statements(s.first, active);
    std::vector<int> assigned;
    bool gives_back = false;
    find_assigned(s.body, assigned, gives_back);
    find_assigned(s.last, assigned, gives_back);
    std::sort(assigned.begin(), assigned.end());
    assigned.erase(std::unique(assigned.begin(), assigned.end()), assigned.end());

    // Everything that changes from turn to turn lives in cells: read as they are at the turn's beginning, set at its
    // end.
    const auto new_cell = [&](int value) {
        const int cell = emit(Op::cell, {});
        emit(Op::assign, {cell, value});
        return cell;
    };
    const int running_cell = new_cell(mask_of(both(frame_->entry, active)));
    if (gives_back && !frame_->result) {
        frame_->result = Parts(static_cast<std::size_t>(width_of(frame_->function->type)), constant(0));
    }
    std::vector<Changing> changing;
    for (const int variable : assigned)
        add_changing(changing, frame_->variables[static_cast<std::size_t>(variable)], variable);
    if (gives_back) {
        add_changing(changing, *frame_->result, Changing::result);
        changing.push_back({Changing::gone, 0, 0});
    }
    if (turns_) changing.push_back({Changing::turns, 0, 0});
    for (Changing& c : changing) place(c) = c.cell = new_cell(place(c));

    emit(Op::loop_begin, {});
    frame_->loops.emplace_back();
    calling_ = {Active::Kind::some, running_cell};
    int running = emit(Op::bit_and, {running_cell, value(s.values[0])[0]});
    if (turns_) {
        running = emit(Op::bit_and, {running, emit(Op::less_int, {*turns_, constant_bits(max_turns)})});
        turns_ = emit(Op::select, {running, emit(Op::add_int, {*turns_, constant_bits(1)}), *turns_});
    }
    emit(Op::loop_exit, {running});
    Active onward = statements(s.body, {Active::Kind::some, running});
    onward = either(onward, frame_->loops.back().skipped);
    if (onward.kind != Active::Kind::none) statements(s.last, onward);
    frame_->loops.pop_back();

    std::vector<std::pair<int, int>> settings = {{running_cell, mask_of(onward)}};
    for (const Changing& c : changing) settings.emplace_back(c.cell, place(c));
    // All are set at once: what moves from one cell to another is put by first.
    for (auto& [cell, fresh] : settings) {
        const bool moves = fresh != cell && std::any_of(settings.begin(), settings.end(),
                                                        [&, v = fresh](const auto& other) { return other.first == v; });
        if (moves) fresh = emit(Op::copy, {fresh});
    }
    for (const auto& [cell, fresh] : settings) {
        if (fresh != cell) emit(Op::assign, {cell, fresh});
    }
    emit(Op::loop_end, {});
    for (const Changing& c : changing) place(c) = c.cell;
    return gives_back ? without(active, *frame_->gone) : active;
}

void Lowering::add_changing(std::vector<Changing>& changing, const Parts& parts, int variable) {
    for (std::size_t k = 0; k < parts.size(); ++k) changing.push_back({variable, k, 0});
}

int& Lowering::place(const Changing& changing) {
    switch (changing.variable) {
        case Changing::result:
            return (*frame_->result)[changing.part];
        case Changing::gone:
            return *frame_->gone;
        case Changing::turns:
            return *turns_;
        default:
            return frame_->variables[static_cast<std::size_t>(changing.variable)][changing.part];
    }
}

}  // namespace lacquer
