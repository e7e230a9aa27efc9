// The pages of what has to do with play: responses, cues, signals.
#include <algorithm>

#include "core/drive/response.h"
#include "desktop/kit/core_words.h"
#include "desktop/pages/form_changes.h"
#include "desktop/pages/forms.h"
#include "desktop/pages/path_editor.h"
#include "desktop/pages/response_plot.h"

namespace lacquer {

using namespace forms;

namespace {

QStringList cue_names(const Models& models, const QString& none) {
    QStringList names{none};
    for (const CueKind& cue : models.document.finish().cues) names.append(qs(cue.name));
    return names;
}

Field argument_field(const Models& models, const Response& response, const ArgumentSpec& spec) {
    QString label = qs(shown_name(std::string(spec.name)));
    label[0] = label[0].toUpper();
    const QString set = qs(setting_text(response, spec.name));
    Field field{sv(spec.name), label, set, core_words(spec.words)};
    switch (spec.kind) {
        case ArgumentKind::number:
            // A formula has the unit of what it says.
            if (number_of(response, spec.name) && !spec.unit.empty()) field.value += QLatin1Char(' ') + sv(spec.unit);
            field.hint += tr("; a number, or a formula over signals and dials");
            break;
        case ArgumentKind::word:
            for (const std::string& choice : spec.choices) field.choices.append(qs(shown_name(choice)));
            field.value = qs(shown_name(set.toStdString()));
            break;
        case ArgumentKind::easing:
            for (const std::string& name : easing_names()) field.choices.append(qs(name));
            field.typed_too = true;
            field.hint += tr("; a name, or cubic-bezier(...), steps(...), linear(...)");
            break;
        case ArgumentKind::cue:
            field.choices = cue_names(models, tr("none"));
            if (set.isEmpty()) field.value = field.choices.first();
            break;
        case ArgumentKind::condition:
        case ArgumentKind::keys:
            break;
    }
    return field;
}

std::vector<Field> response_fields(const Models& models, const Response& response) {
    QStringList kinds;
    for (const ResponseKind& kind : response_kinds()) kinds.append(sv(kind.name));
    const ResponseKind* kind = find_response_kind(response.kind);
    std::vector<Field> fields = {
        {"name", tr("Name"), qs(shown_name(response.name)),
         kind != nullptr ? tr("It %1").arg(core_words(kind->words)) : QString()},
        {"kind", tr("Kind"), qs(response.kind), kind != nullptr ? core_words(kind->words) : QString(), kinds}};
    if (kind == nullptr) return fields;
    if (kind->listens_to_cue) {
        const QStringList cues = cue_names(models, tr("at 0 s"));
        fields.push_back({"cue", tr("Starts at"), response.cue.empty() ? cues.first() : qs(response.cue), {}, cues});
    }
    for (const ArgumentSpec& spec : kind->arguments) {
        if (spec.kind != ArgumentKind::keys) fields.push_back(argument_field(models, response, spec));
    }
    return fields;
}

// Puts what was typed into a setting; says what is wrong with it.
QString set_argument(Response& response, const ArgumentSpec& spec, const QString& text) {
    Setting& setting = response.settings[std::string(spec.name)];
    const QString trimmed = text.trimmed();
    switch (spec.kind) {
        case ArgumentKind::number:
            if (const auto number = number_from(trimmed)) {
                setting = *number;
            } else if (trimmed.isEmpty()) {
                response.settings.erase(std::string(spec.name));
            } else {
                setting = trimmed.toStdString();
            }
            return {};
        case ArgumentKind::word:
            for (const std::string& choice : spec.choices) {
                if (qs(shown_name(choice)) == text) setting = choice;
            }
            return {};
        case ArgumentKind::easing: {
            const Result<Easing> easing = easing_from(trimmed.toStdString());
            if (!easing) return fault_words(easing.fault());
            setting = trimmed.toStdString();
            return {};
        }
        case ArgumentKind::cue:
        case ArgumentKind::condition:
            setting = trimmed == tr("none") ? std::string() : trimmed.toStdString();
            if (std::get<std::string>(setting).empty()) response.settings.erase(std::string(spec.name));
            return {};
        case ArgumentKind::keys:
            break;
    }
    return {};
}

QString fault_of_response(const CheckedFinish& checked, const std::string& name) {
    for (const Fault& fault : checked.faults) {
        if (fault.place.where == name) return fault_words(fault);
    }
    return {};
}

QString change_response(Models& models, const std::string& name, const QString& key, const QString& text) {
    const auto change = [&](Response& r) -> QString {
        if (key == "kind") {
            r.kind = text.toStdString();
            r.settings.clear();
        } else if (key == "cue") {
            r.cue = text == tr("at 0 s") ? std::string() : text.toStdString();
        } else if (const ResponseKind* kind = find_response_kind(r.kind)) {
            if (const ArgumentSpec* spec = find_argument(*kind, key.toStdString())) return set_argument(r, *spec, text);
        }
        return {};
    };
    // What cannot be understood is not taken, so that the effect goes on as it was.
    Finish tried = models.document.finish();
    for (Response& response : tried.responses) {
        if (response.name == name) (void)change(response);
    }
    const QString fault = fault_of_response(
        check_finish(std::make_shared<const Finish>(std::move(tried)), models.document.checked().catalogue), name);
    if (!fault.isEmpty() && fault_of_response(models.document.checked(), name).isEmpty()) return fault;
    return change_named(models, &Finish::responses, name, change);
}

QString change_cue(Models& models, const Name& name, const QString& key, const QString& text) {
    Finish changed = models.document.finish();
    if (key == "name") {
        const std::string to = identifier_from(text.toStdString());
        if (to.empty()) return tr("A name needs a letter first");
        if (to != *name && find_cue(changed, to) != nullptr) return tr("There is a cue %1 already").arg(qs(to));
        changed = rename_cue(std::move(changed), *name, to);
        *name = to;
        models.document.edit(std::move(changed), tr("Changed a cue"));
        return {};
    }
    return change_named(models, &Finish::cues, *name, [&](CueKind& cue) -> QString {
        if (key == "weakest" && text.trimmed().isEmpty()) {
            cue.weakest.reset();
            return {};
        }
        const auto number = number_from(text);
        if (!number) return tr("'%1' isn't a number").arg(text);
        if (key == "direction") {
            cue.direction = *number;
            return {};
        }
        if (*number < 0 || *number > 1) return tr("A strength is 0 to 1");
        if (key == "weakest") {
            cue.weakest = *number;
        } else {
            cue.strength = *number;
        }
        return {};
    });
}

std::vector<Field> signal_fields(const Models& models, const Signal& signal) {
    const QStringList kinds{"number", "integer", "switch", "place"};
    std::vector<Field> fields = {
        {"name", tr("Name"), qs(shown_name(signal.name)), tr("as formulas and the game use it")},
        {"kind", tr("Kind"), sv(signal_kind_name(signal.kind)), {}, kinds},
        {"note", tr("Note"), qs(signal.note), {}}};
    if (signal.kind == SignalKind::number || signal.kind == SignalKind::integer) {
        fields.push_back({"value", tr("Starts at"), number_text(signal.value[0]), {}});
        fields.push_back({"least", tr("Range from"), number_text(signal.least), {}});
        fields.push_back({"most", tr("Range to"), number_text(signal.most),
                          tr("its maximum; formulas read it as %1.most").arg(qs(signal.name))});
        fields.push_back({"unit", tr("Unit"), qs(signal.unit), {}});
    } else if (signal.kind == SignalKind::toggle) {
        QStringList places{tr("by hand")};
        for (const Signal& other : models.document.finish().signals) {
            if (other.kind == SignalKind::place) places.append(qs(other.name));
        }
        fields.push_back({"zone_of", tr("Zone of"), signal.zone.of.empty() ? places.first() : qs(signal.zone.of),
                          tr("on while this place is within the zone"), places});
        fields.push_back({"x", tr("Zone across"), number_text(signal.zone.x), tr("its middle, 0 to 1 of the frame")});
        fields.push_back({"y", tr("Zone down"), number_text(signal.zone.y), tr("its middle, 0 to 1 of the frame")});
        fields.push_back({"radius", tr("Zone radius"), number_text(signal.zone.radius), tr("in shorter sides")});
    } else {
        fields.push_back({"x", tr("Starts across"), number_text(signal.value[0]), tr("0 to 1 of the frame")});
        fields.push_back({"y", tr("Starts down"), number_text(signal.value[1]), tr("0 to 1 of the frame")});
    }
    return fields;
}

QString signal_changed(Signal& signal, const QString& key, const QString& text) {
    if (key == "kind") {
        signal.kind = signal_kind_named(text.toStdString()).value_or(signal.kind);
        signal.value = signal_value(signal, signal.value);
        return {};
    }
    if (key == "note" || key == "unit") {
        (key == "note" ? signal.note : signal.unit) = text.toStdString();
        return {};
    }
    if (key == "zone_of") {
        signal.zone.of = text == tr("by hand") ? std::string() : text.toStdString();
        return {};
    }
    const auto number = number_from(text);
    if (!number) return tr("'%1' isn't a number").arg(text);
    const bool is_place = signal.kind == SignalKind::place;
    if (key == "least") signal.least = *number;
    if (key == "most") signal.most = *number;
    if (key == "value") signal.value[0] = *number;
    if (key == "x") (is_place ? signal.value[0] : signal.zone.x) = *number;
    if (key == "y") (is_place ? signal.value[1] : signal.zone.y) = *number;
    if (key == "radius") signal.zone.radius = std::max(*number, 0.0);
    if (signal.least >= signal.most) return tr("The range's end must be above its start");
    signal.value = signal_value(signal, signal.value);
    return {};
}

}  // namespace

void show_response_form(FieldForm& form, Models& models, const std::string& response) {
    const Response* found = find_response(models.document.finish(), response);
    if (found == nullptr) return;
    const Name name = std::make_shared<std::string>(response);
    const auto again = [&form, &models, name] {
        show_again(form, [&form, &models, name] { show_response_form(form, models, *name); });
    };
    form.show_fields(tr("Response %1").arg(qs(shown_name(response))), response_fields(models, *found),
                     [&models, name, again](const QString& key, const QString& text) -> QString {
                         const QString complaint =
                             key == "name" ? rename_to(models, name, text) : change_response(models, *name, key, text);
                         // Another kind has other arguments.
                         if ((key == "name" && complaint.isEmpty()) || key == "kind") again();
                         return complaint;
                     });
    if (found->kind == "path") {
        form.set_top(new PathEditor(models, response, &form));
    } else {
        form.set_top(new ResponsePlot(models, response, &form));
    }
}

void show_cue_form(FieldForm& form, Models& models, std::size_t cue) {
    if (cue >= models.document.finish().cues.size()) return;
    const CueKind& found = models.document.finish().cues[cue];
    const std::vector<Field> fields = {
        {"name", tr("Name"), qs(found.name), tr("as the game calls it")},
        {"strength", tr("Strength"), number_text(found.strength), tr("0 to 1")},
        {"weakest", tr("Weakest"), found.weakest ? number_text(*found.weakest) : QString(),
         tr("each press is random between this and the strength; empty is never random")},
        {"direction", tr("Direction"), number_text(found.direction) + tr(" deg"),
         tr("degrees clockwise from the right of the picture")}};
    const Name name = std::make_shared<std::string>(found.name);
    form.show_fields(
        tr("Cue %1").arg(qs(shown_name(found.name))), fields,
        [&models, name](const QString& key, const QString& text) { return change_cue(models, name, key, text); });
}

void show_signal_form(FieldForm& form, Models& models, const std::string& signal) {
    const Signal* found = find_signal(models.document.finish(), signal);
    if (found == nullptr) return;
    const Name name = std::make_shared<std::string>(signal);
    form.show_fields(tr("Signal %1").arg(qs(shown_name(signal))), signal_fields(models, *found),
                     [&form, &models, name](const QString& key, const QString& text) -> QString {
                         const QString complaint =
                             key == "name" ? rename_to(models, name, text)
                                           : change_named(models, &Finish::signals, *name,
                                                          [&](Signal& s) { return signal_changed(s, key, text); });
                         if (complaint.isEmpty() && (key == "name" || key == "kind"))
                             show_again(form, [&form, &models, name] { show_signal_form(form, models, *name); });
                         return complaint;
                     });
}

}  // namespace lacquer
