#include "desktop/kit/core_words.h"
#include "desktop/pages/grounds/ground_pages.h"

#include "core/finish/kinds.h"
#include "core/finish/stop_presets.h"
#include "core/finish/stops_text.h"
#include "desktop/pages/form_changes.h"

namespace lacquer {

using namespace forms;

namespace {

// What stands in a choice of ready ones while the stops are one's own.
QString own_stops() { return tr("custom"); }

Field preset_field(StopValues values, const Stops& stops) {
    QStringList names{own_stops()};
    QString now = own_stops();
    for (const StopPreset& preset : stop_presets(values)) {
        names.append(sv(preset.name));
        if (preset.stops == stops) now = sv(preset.name);
    }
    return {"preset", tr("Presets"), now, tr("take one, then change it"), names};
}

std::vector<Field> stops_fields(StopValues values, const Stops& stops) {
    const bool curve = values == StopValues::heights;
    return {
        preset_field(values, stops),
        {"stops", tr("Stops"), qs(stops_text(values, stops.list)),
         curve ? tr("places and heights: 0 0, 0.5 1 ease_in, 1 0")
               : tr("places and colours: 0 #101820 opacity 0, 1 #FFCC88 x 2")},
        {"between", tr("Between stops"), sv(stop_mix_name(stops.between)),
         curve ? tr("straight lines, gentle at each stop, or staying until the next")
               : tr("evenly in linear light, in display values, or to the eye (Oklab); gently; or staying"),
         curve ? QStringList{"linear", "smooth", "stay"} : QStringList{"linear", "srgb", "oklab", "smooth", "stay"}}};
}

QString stops_changed(StopValues values, Stops& stops, const QString& key, const QString& text) {
    const std::string typed = text.toStdString();
    if (const StopPreset* preset = key == "preset" ? find_stop_preset(values, typed) : nullptr) stops = preset->stops;
    if (key == "between") stops.between = stop_mix_named(typed).value_or(stops.between);
    if (key != "stops") return {};
    Result<std::vector<Stop>> read = parse_stops(values, typed);
    if (!read) return fault_words(read.fault());
    stops.list = std::move(*read);
    return {};
}

}  // namespace

QString kind_words(const GradientGround&) { return tr("gradient"); }

QString facts_of(const GradientGround& ground) { return kind_words(ground); }

std::vector<Field> fields_of(const GradientGround& ground, const Finish&) {
    return stops_fields(ground.values, ground.stops);
}

QString change_field(GradientGround& ground, const QString& key, const QString& text) {
    return stops_changed(ground.values, ground.stops, key, text);
}

QString kind_words(const CurveGround&) { return tr("curve"); }

QString facts_of(const CurveGround& ground) { return kind_words(ground); }

std::vector<Field> fields_of(const CurveGround& ground, const Finish&) {
    return stops_fields(ground.values, ground.stops);
}

QString change_field(CurveGround& ground, const QString& key, const QString& text) {
    return stops_changed(ground.values, ground.stops, key, text);
}

}  // namespace lacquer
