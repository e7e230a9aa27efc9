#include "desktop/dials/forms.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/drive/response.h"
#include "core/finish/edits.h"
#include "core/finish/kinds.h"
#include "core/picture/picture.h"
#include "desktop/dials/dial_text.h"
#include "desktop/dials/form_changes.h"

namespace lacquer {

using namespace forms;

namespace {

QString dial_changed(Dial& dial, const QString& key, const QString& text) {
    const auto number = number_from(text);
    const auto no_number = [&] { return tr("'%1' is no number").arg(text); };
    if (key == "code_name") {
        if (!is_identifier(text.toStdString()))
            return tr("A code name has up to 24 lower-case letters, digits and underscores");
        dial.code_name = text.toStdString();
    } else if (key == "kind") {
        dial.kind = dial_kind_named(text.toStdString()).value_or(dial.kind);
        if (dial.kind == DialKind::colour && dial.value[1] == 0 && dial.value[2] == 0) {
            dial.value.fill(dial.value[0]);
            dial.default_value.fill(dial.default_value[0]);
        }
        if (dial.kind == DialKind::toggle) dial.value[0] = dial.value[0] != 0 ? 1 : 0;
    } else if (key == "default") {
        const auto value = dial_value_from(dial, text);
        if (!value) return tr("'%1' is no value for this dial").arg(text);
        dial.default_value = *value;
    } else if (key == "least" || key == "most") {
        if (!number) return no_number();
        (key == "least" ? dial.least : dial.most) = *number;
        if (dial.least >= dial.most) return tr("The range must rise");
    } else if (key == "increment") {
        if (!number) return no_number();
        if (*number <= 0) return tr("The increment must be more than 0");
        dial.increment = *number;
    } else if (key == "unit") {
        dial.unit = text.toStdString();
    } else if (key == "note") {
        dial.note = text.toStdString();
    } else if (key == "group") {
        dial.group = text.trimmed().toStdString();
    } else if (key == "formula") {
        dial.formula = text.trimmed().toStdString();
    }
    return {};
}

QString fault_of_dial(const Session& session, const std::string& name) {
    for (const CheckedDial& dial : session.checked().dials) {
        if (dial.name == name && dial.fault) return qs(dial.fault->message + " - " + dial.fault->mend);
    }
    return {};
}

std::vector<Field> response_fields(const Session& session, const Response& response) {
    QStringList kinds;
    for (const ResponseKind& kind : response_kinds()) kinds.append(sv(kind.name));
    const ResponseKind* kind = find_response_kind(response.kind);
    std::vector<Field> fields = {
        {"name", tr("Name"), qs(shown_name(response.name)), {}},
        {"kind", tr("Kind"), qs(response.kind), kind != nullptr ? sv(kind->words) : QString(), kinds}};
    if (kind == nullptr) return fields;
    if (kind->listens_to_cue) {
        QStringList cues{tr("at 0 s")};
        for (const CueKind& cue : session.finish().cues) cues.append(qs(cue.name));
        fields.push_back({"cue", tr("Starts at"), response.cue.empty() ? cues.first() : qs(response.cue), {}, cues});
    }
    for (const ArgumentSpec& spec : kind->arguments) {
        QStringList choices;
        for (const std::string& choice : spec.choices) choices.append(qs(shown_name(choice)));
        const Arguments arguments(response, kind->arguments);
        QString value = choices.isEmpty() ? number_text(arguments.number(spec.name))
                                          : qs(shown_name(std::string(arguments.word(spec.name))));
        if (choices.isEmpty() && !spec.unit.empty()) value += QLatin1Char(' ') + sv(spec.unit);
        QString label = qs(shown_name(spec.name));
        label[0] = label[0].toUpper();
        fields.push_back({sv(spec.name), label, value, sv(spec.words), choices});
    }
    return fields;
}

}  // namespace

void show_dial_form(FieldForm& form, Session& session, const std::string& dial) {
    const Dial* found = find_dial(session.finish(), dial);
    if (found == nullptr) return;
    const QStringList kinds{"number", "integer", "switch", "colour"};
    const std::vector<Field> fields = {{"name", tr("Name"), qs(shown_name(found->name)), tr("as formulas use it")},
                                       {"code_name", tr("Code name"), qs(found->code_name),
                                        tr("as the game calls it; it stays when the name changes")},
                                       {"kind", tr("Kind"), sv(dial_kind_name(found->kind)), {}, kinds},
                                       {"formula", tr("Driven by"), qs(found->formula),
                                        tr("a formula over responses, dials and time; empty stands still")},
                                       {"note", tr("Note"), qs(found->note), {}},
                                       {"group", tr("Group"), qs(found->group), tr("a heading to stand under")},
                                       {"default", tr("Default"), dial_value_text(*found, found->default_value), {}},
                                       {"least", tr("Range from"), number_text(found->least), {}},
                                       {"most", tr("Range to"), number_text(found->most), {}},
                                       {"increment", tr("Increment"), number_text(found->increment), {}},
                                       {"unit", tr("Unit"), qs(found->unit), tr("such as px, s or %")}};
    const Name name = std::make_shared<std::string>(dial);
    form.show_fields(tr("Dial %1").arg(qs(shown_name(dial))), fields,
                     [&session, &form, name](const QString& key, const QString& text) {
                         if (key == "name") {
                             const QString complaint = rename_to(session, name, text);
                             if (complaint.isEmpty())
                                 show_again(form, [&form, &session, name] { show_dial_form(form, session, *name); });
                             return complaint;
                         }
                         const QString wrong = change_named(session, &Finish::dials, *name,
                                                            [&](Dial& d) { return dial_changed(d, key, text); });
                         return !wrong.isEmpty() || key != "formula" ? wrong : fault_of_dial(session, *name);
                     });
}

void show_response_form(FieldForm& form, Session& session, const std::string& response) {
    const auto& list = session.finish().responses;
    const auto found = std::find_if(list.begin(), list.end(), [&](const Response& r) { return r.name == response; });
    if (found == list.end()) return;
    const Name name = std::make_shared<std::string>(response);
    form.show_fields(
        tr("Response %1").arg(qs(shown_name(response))), response_fields(session, *found),
        [&session, &form, name](const QString& key, const QString& text) -> QString {
            if (key == "name") {
                const QString complaint = rename_to(session, name, text);
                if (complaint.isEmpty())
                    show_again(form, [&form, &session, name] { show_response_form(form, session, *name); });
                return complaint;
            }
            const QString wrong = change_named(session, &Finish::responses, *name, [&](Response& r) -> QString {
                if (key == "kind") {
                    r.kind = text.toStdString();
                    r.settings.clear();
                    return {};
                }
                if (key == "cue") {
                    r.cue = text == tr("at 0 s") ? std::string() : text.toStdString();
                    return {};
                }
                const ResponseKind* kind = find_response_kind(r.kind);
                for (const ArgumentSpec& spec : kind->arguments) {
                    if (spec.name != key.toStdString()) continue;
                    for (const std::string& choice : spec.choices) {
                        if (qs(shown_name(choice)) == text) r.settings[key.toStdString()] = choice;
                    }
                    if (!spec.choices.empty()) return {};
                    const auto number = number_from(text);
                    if (!number) return tr("'%1' is no number").arg(text);
                    r.settings[key.toStdString()] = *number;
                }
                return {};
            });
            // Another kind has other arguments.
            if (key == "kind") show_again(form, [&form, &session, name] { show_response_form(form, session, *name); });
            return wrong;
        });
}

void show_cue_form(FieldForm& form, Session& session, std::size_t cue) {
    if (cue >= session.finish().cues.size()) return;
    const CueKind& found = session.finish().cues[cue];
    const std::vector<Field> fields = {{"name", tr("Name"), qs(found.name), {}},
                                       {"strength", tr("Strength"), number_text(found.strength), tr("0 to 1")}};
    form.show_fields(tr("Cue %1").arg(qs(shown_name(found.name))), fields,
                     [&session, cue](const QString& key, const QString& text) -> QString {
                         Finish changed = session.finish();
                         CueKind& kind = changed.cues[cue];
                         if (key == "name") {
                             const std::string from = kind.name;
                             const std::string to = identifier_from(text.toStdString());
                             if (to.empty()) return tr("A name needs a letter first");
                             for (const CueKind& other : changed.cues) {
                                 if (other.name == to && to != from) return tr("There is a cue %1 already").arg(qs(to));
                             }
                             kind.name = to;
                             for (Response& response : changed.responses) {
                                 if (response.cue == from) response.cue = to;
                             }
                             for (Cue& pressed : changed.tape) {
                                 if (pressed.name == from) pressed.name = to;
                             }
                         } else {
                             const auto strength = parse_number(text.toStdString());
                             if (!strength || *strength < 0 || *strength > 1) return tr("A strength is 0 to 1");
                             kind.strength = *strength;
                         }
                         session.edit(std::move(changed), tr("Changed a cue"));
                         return {};
                     });
}

void show_finish_form(FieldForm& form, Session& session) {
    const Finish& finish = session.finish();
    const std::vector<Field> fields = {
        {"name", tr("Name"), qs(finish.name), {}},
        {"brief", tr("Brief"), qs(finish.brief), tr("what the effect must do, in a few plain lines")},
        {"width", tr("Frame width"), tr("%1 px").arg(finish.frame_width), {}},
        {"height", tr("Frame height"), tr("%1 px").arg(finish.frame_height), {}},
        {"length", tr("Length"), tr("%1 s").arg(number_text(finish.length)), tr("of the time rule")}};
    form.show_fields(tr("This finish"), fields, [&session](const QString& key, const QString& text) -> QString {
        Finish changed = session.finish();
        const auto number = number_from(text);
        if (key == "name") {
            if (text.trimmed().isEmpty()) return tr("A finish needs a name");
            changed.name = text.trimmed().toStdString();
        } else if (key == "brief") {
            changed.brief = text.toStdString();
        } else if (key == "length") {
            if (!number || *number <= 0 || *number > 3600) return tr("A length is up to 3600 seconds");
            changed.length = *number;
        } else {
            if (!number || *number < 1 || *number > max_picture_side)
                return tr("A side is 1 to %1 pixels").arg(max_picture_side);
            (key == "width" ? changed.frame_width : changed.frame_height) = static_cast<int>(*number);
            if (!is_drawable_size(changed.frame_width, changed.frame_height))
                return tr("A frame has at most 64 million pixels");
        }
        session.edit(std::move(changed), tr("Changed the finish"));
        return {};
    });
}

}  // namespace lacquer
