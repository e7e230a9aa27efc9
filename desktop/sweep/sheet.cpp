#include "desktop/sweep/sheet.h"

#include <QCoreApplication>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/kit/text.h"

namespace lacquer {

namespace {

QString tr(const char* words) { return QCoreApplication::translate("lacquer::SweepScreen", words); }

bool is_whole(const SheetAxis& axis, const Finish& finish) {
    const Dial* dial = axis.kind == AxisKind::dial ? find_dial(finish, axis.dial) : nullptr;
    return dial != nullptr && (dial->kind == DialKind::integer || dial->kind == DialKind::toggle);
}

std::string variant_on(const Finish& finish, int place) {
    return place == 0 ? std::string() : finish.variants[static_cast<std::size_t>(place) - 1].name;
}

void put(const SheetAxis& axis, const Finish& finish, int place, SheetCell& cell) {
    switch (axis.kind) {
        case AxisKind::nothing:
            return;
        case AxisKind::dial: {
            const double value = value_on(axis, finish, place);
            const Dial* dial = find_dial(finish, axis.dial);
            const bool is_colour = dial != nullptr && dial->kind == DialKind::colour;
            cell.held[axis.dial] = is_colour ? DialValue{value, value, value} : DialValue{value, 0, 0};
            break;
        }
        case AxisKind::time:
            cell.time = value_on(axis, finish, place);
            break;
        case AxisKind::variants:
            cell.variant = variant_on(finish, place);
            break;
    }
}

}  // namespace

SheetAxis axis_of(const Dial& dial, int count) {
    SheetAxis axis{AxisKind::dial, dial.name, dial.least, dial.most, count};
    if (dial.kind == DialKind::toggle) return {AxisKind::dial, dial.name, 0, 1, 2};
    if (dial.kind == DialKind::integer)
        axis.count = static_cast<int>(std::min(count + 0.0, std::floor(dial.most - dial.least) + 1));
    return axis;
}

SheetAxis axis_of_time(const Finish& finish, int count) { return {AxisKind::time, {}, 0, finish.length, count}; }

std::optional<SheetAxis> axis_of_run(const Play& play, const std::string& response, int count) {
    constexpr int moments = 600;
    constexpr double same = 1e-6;
    const double length = play.checked().finish->length;
    const Answer rest = Play(play.shared_checked(), Tape()).answer(response, 0);
    const auto runs = [&](int moment) {
        const Answer now = play.answer(response, length * moment / moments);
        return std::fabs(now.value[0] - rest.value[0]) + std::fabs(now.value[1] - rest.value[1]) > same;
    };
    int begin = 0;
    while (begin <= moments && !runs(begin)) ++begin;
    if (begin > moments) return std::nullopt;
    int end = begin;
    while (end < moments && runs(end)) ++end;
    const auto at = [&](int moment) { return std::round(length * moment / moments * 100) / 100; };
    return SheetAxis{AxisKind::time, {}, at(std::max(0, begin - 1)), at(end), count};
}

double value_on(const SheetAxis& axis, const Finish& finish, int place) {
    const int last = std::max(1, axis.count - 1);
    const double value = axis.from + (axis.to - axis.from) * place / last;
    return is_whole(axis, finish) ? std::round(value) : value;
}

QString words_on(const SheetAxis& axis, const Finish& finish, int place) {
    switch (axis.kind) {
        case AxisKind::nothing:
            break;
        case AxisKind::dial: {
            const Dial* dial = find_dial(finish, axis.dial);
            const double span = std::fabs(axis.to - axis.from);
            const int decimals = is_whole(axis, finish) ? 0 : span >= 100 ? 1 : 2;
            QString words = qs(plain_number(value_on(axis, finish, place), decimals));
            if (dial != nullptr && !dial->unit.empty()) words += QLatin1Char(' ') + qs(dial->unit);
            return words;
        }
        case AxisKind::time:
            return qs(plain_number(value_on(axis, finish, place), 2)) + QStringLiteral(" s");
        case AxisKind::variants:
            return place == 0 ? tr("base") : qs(shown_name(variant_on(finish, place)));
    }
    return {};
}

int places_on(const SheetAxis& axis, const Finish& finish) {
    if (axis.kind == AxisKind::nothing) return 1;
    if (axis.kind == AxisKind::variants)
        return std::min(most_cells_a_side, static_cast<int>(finish.variants.size()) + 1);
    return std::clamp(axis.count, 1, most_cells_a_side);
}

std::vector<SheetCell> cells_of(const SheetSpec& spec, const Finish& finish) {
    std::vector<SheetCell> cells;
    for (int row = 0; row < places_on(spec.against, finish); ++row) {
        for (int place = 0; place < places_on(spec.along, finish); ++place) {
            SheetCell cell;
            put(spec.along, finish, place, cell);
            put(spec.against, finish, row, cell);
            cell.along = words_on(spec.along, finish, place);
            cell.row = words_on(spec.against, finish, row);
            cell.words = cell.row.isEmpty() ? cell.along : QStringLiteral("%1 · %2").arg(cell.along, cell.row);
            cells.push_back(std::move(cell));
        }
    }
    return cells;
}

bool is_table(const SheetSpec& spec) { return spec.against.kind != AxisKind::nothing; }

SheetSpec held_to(SheetSpec spec, const Finish& finish) {
    if (!spec.step.empty() && find_step(finish, spec.step) == nullptr) spec.step.clear();
    const auto is_gone = [&](const SheetAxis& axis) {
        return axis.kind == AxisKind::dial && find_dial(finish, axis.dial) == nullptr;
    };
    if (is_gone(spec.against)) spec.against = {};
    if (!is_gone(spec.along) && spec.along.kind != AxisKind::nothing) return spec;
    // Of what is driven one wants to know most.
    const Dial* wanted = nullptr;
    for (const Dial& dial : finish.dials) {
        if (wanted == nullptr || (wanted->formula.empty() && !dial.formula.empty())) wanted = &dial;
    }
    spec.along = wanted != nullptr ? axis_of(*wanted, 12) : axis_of_time(finish, 12);
    return spec;
}

}  // namespace lacquer
