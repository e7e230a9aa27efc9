// How a step goes on from tick to tick, and how often the finish ticks.
#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/limits.h"
#include "core/picture/picture.h"
#include "desktop/kit/core_words.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/forms.h"

namespace lacquer {

using namespace forms;

namespace {

QString yes_or_no(bool yes) { return yes ? tr("yes") : tr("no"); }

QStringList share_words() { return {tr("as the frame"), tr("half of it"), tr("a quarter of it")}; }

constexpr std::array shares{1.0, 0.5, 0.25};

QString ticking_changed(Ticking& ticking, const QString& key, const QString& text) {
    if (key == "numbers") ticking.width = text.toInt();
    if (key == "starts") ticking.starts = text.trimmed().toStdString();
    if (key == "share")
        ticking.share = shares.at(static_cast<std::size_t>(std::max<qsizetype>(0, share_words().indexOf(text))));
    if (key == "smooth") ticking.smooth = text == tr("yes");
    if (key == "half") ticking.half = text == tr("yes");
    if (key != "pixels") return {};
    const auto number = text.trimmed().isEmpty() ? std::optional<double>(0) : number_from(text);
    if (!number || *number < 0 || *number > max_picture_side || *number != std::floor(*number))
        return tr("A width is 1 to %1 pixels, or empty").arg(max_picture_side);
    ticking.pixels = static_cast<int>(*number);
    return {};
}

QString ticks_changed(Ticks& ticks, const QString& key, const QString& text) {
    if (key == "reset") ticks.reset = text == tr("never") ? std::string() : text.toStdString();
    if (key != "rate") return {};
    const auto number = number_from(text);
    if (!number || *number < least_tick_rate || *number > most_tick_rate)
        return tr("There are %1 to %2 ticks a second").arg(least_tick_rate).arg(most_tick_rate);
    ticks.rate = *number;
    return {};
}

std::vector<Field> fields_of(const Step& step, const Finish& finish) {
    QStringList resets{tr("never")};
    for (const CueKind& cue : finish.cues) resets.append(qs(cue.name));
    for (const Signal& signal : finish.signals) resets.append(qs(signal.name));
    const auto share = std::find(shares.begin(), shares.end(), step.ticking.share);
    const QStringList words = share_words();
    const Ticking& own = step.ticking;
    return {
        {"numbers",
         tr("Numbers"),
         own.width > 0 ? QString::number(own.width) : tr("by its formula"),
         tr("set beforehand, so that previous can name it before it is worked out"),
         {tr("by its formula"), "1", "2", "3", "4"}},
        {"starts", tr("Starts as"), qs(own.starts), tr("a formula for before the first tick; empty is 0")},
        {"share", tr("Drawn"), words.value(share - shares.begin()), tr("its size"), words},
        {"pixels", tr("Or this wide"), own.pixels > 0 ? tr("%1 px").arg(own.pixels) : QString(),
         tr("in pixels, whatever the frame's size; empty goes by the frame")},
        {"smooth",
         tr("Smooth"),
         yes_or_no(own.smooth),
         tr("between ticks a blend of the last two, one tick late"),
         {tr("no"), tr("yes")}},
        {"half",
         tr("Halves"),
         yes_or_no(own.half),
         tr("kept in half the room, to about three digits"),
         {tr("no"), tr("yes")}},
        {"rate", tr("Ticks"), tr("%1 /s").arg(number_text(finish.ticks.rate)), tr("of the whole finish, 24 to 240")},
        {"reset", tr("Begins anew"), finish.ticks.reset.empty() ? tr("never") : qs(finish.ticks.reset),
         tr("at this cue, or as this signal rises; the whole finish"), resets}};
}

}  // namespace

void show_tick_form(FieldForm& form, Models& models, const std::string& step) {
    const Step* found = find_step(models.document.finish(), step);
    if (found == nullptr) return;
    const auto change = [&models, step](const QString& key, const QString& text) -> QString {
        Finish changed = models.document.finish();
        if (find_step(changed, step) == nullptr) return tr("It is gone");
        const StepPlace place = place_of(changed, step);
        Ticking& ticking = changed.coats[place.coat].steps[place.step].ticking;
        const bool of_finish = key == "rate" || key == "reset";
        const QString wrong = of_finish ? ticks_changed(changed.ticks, key, text) : ticking_changed(ticking, key, text);
        if (!wrong.isEmpty()) return wrong;
        models.document.edit(std::move(changed), tr("Changed how %1 goes on").arg(qs(shown_name(step))));
        const CheckedStep* checked = find_step(models.document.checked(), step);
        return checked != nullptr && checked->fault ? fault_words(*checked->fault) : QString();
    };
    form.show_fields(tr("%1 from tick to tick").arg(qs(shown_name(step))), fields_of(*found, models.document.finish()),
                     change);
}

}  // namespace lacquer
