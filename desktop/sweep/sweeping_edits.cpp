// What the sweep screen changes in the finish: promises, mends, and cells that are taken.
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "desktop/kit/core_words.h"
#include "desktop/sweep/sweeping.h"

namespace lacquer {

void Sweeping::toggle_promise(const std::string& id) {
    const Dial* swept = swept_dial();
    const Measure* measure = find_measure(id);
    if (swept == nullptr || measure == nullptr) return;
    Finish changed = document_.finish();
    bool promised = false;
    for (Dial& dial : changed.dials) {
        if (dial.name != swept->name) continue;
        promised = std::erase(dial.promises, id) == 0;
        if (promised) dial.promises.push_back(id);
    }
    const QString title = core_words(measure->title);
    document_.edit(std::move(changed), promised ? tr("%1 must pass: %2").arg(qs(shown_name(swept->name)), title)
                                                : tr("%1 need not pass: %2").arg(qs(shown_name(swept->name)), title));
}

void Sweeping::take_mend(const std::string& id, std::size_t mend) {
    for (const Measured& one : measured_) {
        if (one.id != id || mend >= one.mends.size()) continue;
        const Mend taken = one.mends[mend];
        const std::string dial = spec_.along.dial;
        if (!document_.edit(taken.apply(document_.finish()), tr("Mended: %1").arg(core_words(taken.words)))) return;
        // A range that was cut is swept as it is now.
        if (const Dial* changed = find_dial(document_.finish(), dial)) {
            SheetSpec spec = spec_;
            spec.along = axis_of(*changed, spec.along.count);
            set_spec(std::move(spec));
        }
        return;
    }
}

void Sweeping::take(int cell) {
    if (cell < 0 || cell >= static_cast<int>(cells_.size())) return;
    const SheetCell taken = cells_[static_cast<std::size_t>(cell)];
    if (const SetAside* look = look_of(cell)) {
        const QString words = qs(look->words);
        const double time = look->time;
        const HeldDials held = look->held;
        QStringList missing;
        for (const OverlayEntry& entry : entries_of(look->overlay, document_.finish())) {
            if (entry.missing) missing.append(qs(shown_name(entry.name)));
        }
        document_.edit(with_whole(document_.finish(), look->overlay), tr("Took up the look %1").arg(words));
        playing_.let_go_all();
        for (const auto& [dial, value] : held) {
            if (find_dial(document_.finish(), dial) != nullptr) playing_.set_dial(dial, value);
        }
        document_.seal_edit();
        playing_.set_time(time);
        document_.say(tr("Took up the look %1").arg(words));
        if (!missing.isEmpty())
            document_.say(tr("Took up %1, but for %2, which the finish no longer has")
                              .arg(words, missing.join(QStringLiteral(", "))));
        return;
    }
    if (mode_ == SheetMode::set_aside) return;
    if (mode_ == SheetMode::lots) {
        document_.edit(with_values(document_.finish(), taken.held), tr("Took %1").arg(taken.words));
        // What something drives has its value only as long as it is held.
        for (const auto& [name, value] : taken.held) {
            const Dial* dial = find_dial(document_.finish(), name);
            if (dial != nullptr && !dial->formula.empty()) playing_.set_dial(name, value);
        }
        return;
    }
    if (taken.variant && *taken.variant != document_.finish().variant) {
        const QString name = taken.variant->empty() ? tr("none") : qs(shown_name(*taken.variant));
        document_.edit(switch_variant(document_.finish(), *taken.variant), tr("Variant: %1").arg(name));
    }
    for (const auto& [dial, value] : taken.held) playing_.set_dial(dial, value);
    document_.seal_edit();
    if (taken.time) playing_.set_time(*taken.time);
    document_.say(tr("The stage shows %1").arg(taken.words));
}

}  // namespace lacquer
