#include "core/ship/checklist.h"

#include <fmt/core.h>

#include <set>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/kinds.h"
#include "core/ship/play/play_names.h"
#include "core/ship/set_cost.h"

namespace lacquer {

namespace {

std::string with_note(const std::string& note) { return note.empty() ? "" : ", " + comment_text(note); }

std::string range_of(double least, double most, const std::string& unit) {
    return plain_number(least, 4) + " to " + plain_number(most, 4) + (unit.empty() ? "" : " " + comment_text(unit));
}

// A picture is what the artist worked on: in a game, mostly what was drawn before.
std::string spoken(const NamedPicture& named) {
    const bool plain = named.ground->as<PictureGround>() != nullptr && named.picture.layer == GroundLayer::colour;
    return plain ? "colours, such as what was drawn before" : std::string(named.picture.words);
}

std::string pictures_text(const ShipMaterial& material) {
    std::set<std::string> seen;
    std::string text;
    for (const ShippedPass& shipped : material.passes) {
        for (const std::string& name : shipped.pass.grounds) {
            const auto named = find_ground_picture(material.finish(), name);
            const Ground* table = find_ground(material.finish(), name);
            const bool is_table = !named && table != nullptr && stops_of(*table) != nullptr;
            if ((!named && !is_table) || !seen.insert(name).second) continue;
            text += fmt::format("[ ] {}: {}\n", name, is_table ? "the table that lies in grounds/" : spoken(*named));
        }
    }
    return text;
}

}  // namespace

std::string host_checklist(const ShipMaterial& material) {
    const Finish& finish = material.finish();
    const PlayNames names = play_names(finish);
    std::string text = fmt::format("{}: what the game supplies\n\n", comment_text(finish.name));
    if (const std::string pictures = pictures_text(material); !pictures.empty()) text += "Pictures\n" + pictures + "\n";
    std::string cues;
    for (const CueKind& cue : finish.cues)
        cues += fmt::format("[ ] {}_cue_{}(...) when '{}' happens\n", material.stem, names.cues.at(cue.name), cue.name);
    if (!cues.empty()) text += "Cues\n" + cues + "\n";
    std::string signals;
    for (const Signal& signal : finish.signals) {
        const bool ranged = signal.kind == SignalKind::number || signal.kind == SignalKind::integer;
        signals += fmt::format(
            "[ ] {}_set_{}(...) whenever it changes: {}{}\n", material.stem, names.fields.at(signal.name).name,
            ranged ? range_of(signal.least, signal.most, signal.unit) : std::string(signal_kind_name(signal.kind)),
            with_note(signal.note));
    }
    if (!signals.empty()) text += "Signals\n" + signals + "\n";
    std::string dials;
    for (const Dial& dial : finish.dials) {
        if (!dial.formula.empty()) continue;
        const bool ranged = dial.kind == DialKind::number || dial.kind == DialKind::integer;
        dials +=
            fmt::format("[ ] {}: {}{}\n", names.fields.at(dial.name).name,
                        ranged ? range_of(dial.least, dial.most, dial.unit) : std::string(dial_kind_name(dial.kind)),
                        with_note(dial.note));
    }
    if (!dials.empty()) text += "Dials that stay as they are unless the game sets them\n" + dials + "\n";
    text += fmt::format(
        "Each frame\n[ ] {0}_at(&state, seconds, &values), then the passes of the manifest in their order\n",
        material.stem);
    const SetCost frame = set_cost(material, PassMoment::frame);
    text +=
        fmt::format("    {}, {} readings a pixel, {} MB of stored pictures at {} x {}\n",
                    counted(static_cast<std::size_t>(frame.passes), "pass", "passes"), plain_number(frame.reads, 1),
                    plain_number(static_cast<double>(frame.bytes) / 1e6, 1), finish.frame_width, finish.frame_height);
    if (!material.request.checked->ticked.empty()) {
        text += fmt::format("\nTicks\n[ ] {} times a second, however many frames are shown: the passes of a tick\n",
                            plain_number(finish.ticks.rate, 2));
        if (!finish.ticks.reset.empty()) text += fmt::format("[ ] all begins anew at '{}'\n", finish.ticks.reset);
    }
    if (!material.limits.empty()) text += "\nTo know before\n";
    for (const ShipLimit& limit : material.limits) text += "- " + to_text(limit.fault) + "\n";
    return text;
}

}  // namespace lacquer
