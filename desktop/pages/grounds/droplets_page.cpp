#include <QRegularExpression>
#include <algorithm>

#include "core/base/text.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/grounds/ground_pages.h"
#include "desktop/pages/grounds/typed_numbers.h"

namespace lacquer {

using namespace forms;

namespace {

const QString number_key = QStringLiteral("number_");

QString group_words(std::string_view group) {
    if (group == "birth") return tr("Birth");
    if (group == "place") return tr("Place");
    if (group == "motion") return tr("Motion");
    return group == "end" ? tr("End") : tr("Look");
}

QString label_of(const DropNumberSpec& spec) {
    QString label = qs(shown_name(std::string(spec.key)));
    label[0] = label[0].toUpper();
    return label;
}

QString with_unit(double number, std::string_view unit) {
    return unit.empty() ? number_text(number) : QStringLiteral("%1 %2").arg(number_text(number), sv(unit));
}

QString number_words(const DropNumber& number, const DropNumberSpec& spec) {
    if (!number.formula.empty()) return qs(number.formula);
    if (number.from == number.to) return with_unit(number.from, spec.unit);
    return tr("%1 to %2").arg(number_text(number.from), with_unit(number.to, spec.unit));
}

Field number_field(const Droplets& drops, const DropNumberSpec& spec) {
    const DropNumber& number = drops.number(spec.id);
    Field field{number_key + sv(spec.key), label_of(spec), number_words(number, spec),
                core_words(spec.words) +
                    (spec.spreads ? tr("; one number, two (2 to 4), or a formula") : tr("; a number, or a formula"))};
    if (spec.id == DropNumberId::rate && number.formula.empty() && drops.number(DropNumberId::life).formula.empty()) {
        const DropNumber& life = drops.number(DropNumberId::life);
        field.hint += tr("; in the long run %1 live")
                          .arg(number_text(std::min(number.from * (life.from + life.to) / 2, most_drops * 1.0)));
    }
    field.group = group_words(spec.group);
    if (spec.spreads && number.formula.empty())
        field.span = {spec.group == "place" ? 0 : std::max(spec.least, -spec.handle_most), spec.handle_most,
                      number.from, number.to};
    return field;
}

// Numbers with their unit, parted by "to", or a formula.
QString number_changed(DropNumber& number, const DropNumberSpec& spec, const QString& text) {
    static const QRegularExpression numbers(
        QStringLiteral("^\\s*(-?[0-9.]+(?:e[-+]?[0-9]+)?)(?:\\s+to\\s+(-?[0-9.]+(?:e[-+]?[0-9]+)?))?\\s*(\\S*)\\s*$"));
    const QRegularExpressionMatch match = numbers.match(text);
    const bool has_unit = match.captured(3).isEmpty() || match.captured(3) == sv(spec.unit);
    if (!match.hasMatch() || !has_unit) {
        number.formula = text.trimmed().toStdString();
        return number.formula.empty() ? tr("Write a number or a formula") : QString();
    }
    const auto from = parse_number(match.captured(1).toStdString());
    const auto to = match.captured(2).isEmpty() ? from : parse_number(match.captured(2).toStdString());
    const auto fits = [&](const std::optional<double>& value) {
        return value && *value >= spec.least && *value <= spec.most;
    };
    if (!fits(from) || !fits(to))
        return tr("Between %1 and %2").arg(number_text(spec.least), with_unit(spec.most, spec.unit));
    if (*from != *to && !spec.spreads) return tr("This is the same for all drops: write one number");
    number = {*from, *to, {}};
    return {};
}

// A choice between the words of a kind, shown as they are in the file.
template <class Kind, std::size_t count>
Field word_field(const char* key, const QString& label, const std::array<std::string_view, count>& words, Kind now,
                 const QString& hint, const QString& group) {
    Field field{QString::fromLatin1(key), label, core_words(words[static_cast<std::size_t>(now)]), hint};
    for (const std::string_view word : words) field.choices.append(core_words(word));
    field.group = group;
    return field;
}

template <class Kind, std::size_t count>
void word_changed(const std::array<std::string_view, count>& words, Kind& kind, const QString& text) {
    for (std::size_t i = 0; i < count; ++i) {
        if (core_words(words[i]) == text) kind = static_cast<Kind>(i);
    }
}

Field yes_no(const char* key, const QString& label, bool now, const QString& hint, const QString& group) {
    Field field{QString::fromLatin1(key), label, now ? tr("yes") : tr("no"), hint, {tr("yes"), tr("no")}};
    field.group = group;
    return field;
}

// A thing of the finish by its name, or none.
Field name_field(const char* key, const QString& label, const std::string& now, QStringList names, const QString& hint,
                 const QString& group) {
    names.prepend(tr("none"));
    Field field{QString::fromLatin1(key), label, now.empty() ? names.front() : qs(now), hint, names};
    field.group = group;
    return field;
}

template <class Kind>
QStringList grounds_of(const Finish& finish) {
    QStringList names;
    for (const Ground& ground : finish.grounds) {
        if (ground.as<Kind>() != nullptr) names.append(qs(ground.name));
    }
    return names;
}

void add_numbers(std::vector<Field>& fields, const Droplets& drops, std::string_view group) {
    for (const DropNumberSpec& spec : drop_numbers()) {
        if (spec.group == group) fields.push_back(number_field(drops, spec));
    }
}

}  // namespace

QString kind_words(const DropletsGround&) { return tr("droplets"); }

QString facts_of(const DropletsGround& ground) {
    return QStringLiteral("%1 · %2").arg(kind_words(ground),
                                         core_words(drop_shape_words[static_cast<std::size_t>(ground.drops.shape)]));
}

std::vector<Field> fields_of(const DropletsGround& ground, const Finish& finish) {
    const Droplets& drops = ground.drops;
    QStringList cues;
    for (const CueKind& cue : finish.cues) cues.append(qs(cue.name));
    QStringList places;
    for (const Signal& signal : finish.signals) {
        if (signal.kind == SignalKind::place) places.append(qs(signal.name));
    }
    const QStringList curves = grounds_of<CurveGround>(finish);
    std::vector<Field> fields;
    const QString birth = group_words("birth");
    add_numbers(fields, drops, "birth");
    Field condition{"born_while", tr("Only while"), qs(drops.born_while),
                    tr("a switch, a zone, or a formula that says yes or no; empty is always")};
    condition.group = birth;
    fields.push_back(condition);
    fields.push_back(name_field("cue", tr("Bursts at"), drops.cue, cues, tr("the cue that brings a burst"), birth));
    fields.push_back(
        yes_no("by_strength", tr("By strength"), drops.by_strength, tr("a weaker cue brings fewer"), birth));
    fields.push_back(yes_no("at_cue", tr("At the cue"), drops.at_cue,
                            tr("a burst is centred on the cue's place, and its directions count from the cue's"),
                            birth));
    fields.push_back(
        yes_no("new_each_cue", tr("New each time"), drops.new_each_cue, tr("bursts differ from one another"), birth));
    fields.push_back(
        yes_no("settled", tr("Settled"), drops.settled, tr("from the start as if it had gone on for ever"), birth));
    Field seed{"seed", tr("Seed"), QString::number(drops.seed), tr("another number, other drops")};
    seed.group = birth;
    fields.push_back(seed);

    const QString place = group_words("place");
    fields.push_back(word_field("place", tr("Born"), drop_place_words, drops.place,
                                tr("at a point, in a disc, on a line, on the frame's border, anywhere in it"), place));
    fields.push_back(word_field("field", tr("Fixed field"), drop_field_words, drops.field,
                                tr("drops that are there from the start, and stay until they are ended"), place));
    fields.push_back(word_field("leaves", tr("At the border"), drop_leaves_words, drops.leaves,
                                tr("what leaves the frame goes, comes in again on the other side, or sticks"), place));
    add_numbers(fields, drops, "place");

    const QString motion = group_words("motion");
    add_numbers(fields, drops, "motion");
    fields.push_back(word_field("facing", tr("Stands"), drop_facing_words, drops.facing,
                                tr("upright, turned by its spin, or along its motion, which can stretch it"), motion));

    const QString end = group_words("end");
    add_numbers(fields, drops, "end");
    fields.push_back(
        name_field("ends_at", tr("Ended by"), drops.ends_at, cues, tr("the cue that ends all that live"), end));
    fields.push_back(name_field("ends_near", tr("Ended near"), drops.ends_near, places,
                                tr("the place in play that ends those within its reach, each by its own clock"), end));
    fields.push_back(name_field("ending_curve", tr("Opacity over its end"), drops.ending_curve, curves,
                                tr("a curve; without one it goes evenly"), end));

    const QString look = group_words("look");
    fields.push_back(word_field("shape", tr("Shape"), drop_shape_words, drops.shape,
                                tr("a ready shape, computed at any size, or a picture"), look));
    if (drops.shape == DropShape::picture) {
        Field file{"picture", tr("File"), qs(ground.picture), tr("as seen from the finish's own file")};
        file.group = look;
        fields.push_back(file);
        Field cells{
            "cells", tr("Cells"),
            QStringLiteral("%1 x %2, %3/s").arg(drops.columns).arg(drops.rows).arg(number_text(drops.cell_rate)),
            tr("of a sheet: columns x rows, and how many a second; at 0/s each drop has one of its own")};
        cells.group = look;
        fields.push_back(cells);
    }
    add_numbers(fields, drops, "look");
    fields.push_back(name_field("size_curve", tr("Size over its life"), drops.size_curve, curves, tr("a curve"), look));
    fields.push_back(
        name_field("opacity_curve", tr("Opacity over its life"), drops.opacity_curve, curves, tr("a curve"), look));
    fields.push_back(name_field("tint", tr("Tint over its life"), drops.tint, grounds_of<GradientGround>(finish),
                                tr("a gradient"), look));
    fields.push_back(word_field("blend", tr("Together"), drop_blend_words, drops.blend,
                                tr("their sum, one over another, or the more opaque"), look));
    if (drops.blend == DropBlend::over)
        fields.push_back(yes_no("oldest_on_top", tr("Oldest on top"), drops.oldest_on_top,
                                tr("else the youngest lies over the others"), look));
    return fields;
}

QString change_field(DropletsGround& ground, const QString& key, const QString& text) {
    Droplets& drops = ground.drops;
    if (key.startsWith(number_key)) {
        for (const DropNumberSpec& spec : drop_numbers()) {
            if (key == number_key + sv(spec.key)) return number_changed(drops.number(spec.id), spec, text);
        }
    }
    const bool yes = text == tr("yes");
    const std::string name = text == tr("none") ? std::string() : text.toStdString();
    if (key == "born_while") drops.born_while = text.trimmed().toStdString();
    if (key == "cue") drops.cue = name;
    if (key == "by_strength") drops.by_strength = yes;
    if (key == "at_cue") drops.at_cue = yes;
    if (key == "new_each_cue") drops.new_each_cue = yes;
    if (key == "settled") drops.settled = yes;
    if (key == "oldest_on_top") drops.oldest_on_top = yes;
    if (key == "place") word_changed(drop_place_words, drops.place, text);
    if (key == "field") word_changed(drop_field_words, drops.field, text);
    if (key == "leaves") word_changed(drop_leaves_words, drops.leaves, text);
    if (key == "facing") word_changed(drop_facing_words, drops.facing, text);
    if (key == "blend") word_changed(drop_blend_words, drops.blend, text);
    if (key == "shape") word_changed(drop_shape_words, drops.shape, text);
    if (key == "ends_at") drops.ends_at = name;
    if (key == "ends_near") drops.ends_near = name;
    if (key == "ending_curve") drops.ending_curve = name;
    if (key == "size_curve") drops.size_curve = name;
    if (key == "opacity_curve") drops.opacity_curve = name;
    if (key == "tint") drops.tint = name;
    if (key == "picture") ground.picture = text.toStdString();
    if (key == "seed") {
        const auto seed = number_from(text);
        if (!seed || *seed < 0 || *seed > 1e9) return tr("A whole number from 0 on");
        drops.seed = static_cast<int>(*seed);
    }
    if (key == "cells") {
        const std::vector<double> numbers = numbers_in(text);
        const bool good = numbers.size() == 3 && numbers[0] >= 1 && numbers[1] >= 1 &&
                          numbers[0] * numbers[1] <= 4096 && numbers[2] >= 0;
        if (!good) return tr("Write it as 4 x 2, 12/s");
        drops.columns = static_cast<int>(numbers[0]);
        drops.rows = static_cast<int>(numbers[1]);
        drops.cell_rate = numbers[2];
    }
    return {};
}

}  // namespace lacquer
