#include "desktop/pages/forms.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/drive/response.h"
#include "core/finish/edits.h"
#include "core/finish/kinds.h"
#include "core/finish/limits.h"
#include "core/picture/picture.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/dial_text.h"
#include "desktop/pages/form_changes.h"

namespace lacquer {

using namespace forms;

namespace {

QString dial_changed(Dial& dial, const QString& key, const QString& text) {
    const auto number = number_from(text);
    const auto no_number = [&] { return tr("'%1' isn't a number").arg(text); };
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
        if (!value) return tr("'%1' isn't a value for this dial").arg(text);
        dial.default_value = *value;
    } else if (key == "least" || key == "most") {
        if (!number) return no_number();
        (key == "least" ? dial.least : dial.most) = *number;
        if (dial.least >= dial.most) return tr("The range's end must be above its start");
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

QString fault_of_dial(const Models& models, const std::string& name) {
    for (const CheckedDial& dial : models.document.checked().dials) {
        if (dial.name == name && dial.fault) return fault_words(*dial.fault);
    }
    return {};
}

}  // namespace

void show_dial_form(FieldForm& form, Models& models, const std::string& dial) {
    const Dial* found = find_dial(models.document.finish(), dial);
    if (found == nullptr) return;
    const QStringList kinds{"number", "integer", "switch", "colour"};
    const std::vector<Field> fields = {{"name", tr("Name"), qs(shown_name(found->name)), tr("as formulas use it")},
                                       {"code_name", tr("Code name"), qs(found->code_name),
                                        tr("as the game calls it; it stays when the name changes")},
                                       {"kind", tr("Kind"), sv(dial_kind_name(found->kind)), {}, kinds},
                                       {"formula", tr("Driven by"), qs(found->formula),
                                        tr("a formula over responses, signals, dials and time; empty stands still")},
                                       {"note", tr("Note"), qs(found->note), {}},
                                       {"group", tr("Group"), qs(found->group), tr("a heading to stand under")},
                                       {"default", tr("Default"), dial_value_text(*found, found->default_value), {}},
                                       {"least", tr("Range from"), number_text(found->least), {}},
                                       {"most", tr("Range to"), number_text(found->most), {}},
                                       {"increment", tr("Increment"), number_text(found->increment), {}},
                                       {"unit", tr("Unit"), qs(found->unit), tr("such as px, s or %")},
                                       {"shared",
                                        tr("Shared"),
                                        found->shared ? tr("yes") : tr("no"),
                                        tr("lives in a file that other finishes read, too"),
                                        {tr("no"), tr("yes")}}};
    const Name name = std::make_shared<std::string>(dial);
    form.show_fields(tr("Dial %1").arg(qs(shown_name(dial))), fields,
                     [&models, &form, name](const QString& key, const QString& text) {
                         if (key == "name") {
                             const QString complaint = rename_to(models, name, text);
                             if (complaint.isEmpty())
                                 show_again(form, [&form, &models, name] { show_dial_form(form, models, *name); });
                             return complaint;
                         }
                         if (key == "shared") return models.document.share_dial(*name, text == tr("yes"));
                         const QString wrong = change_named(models, &Finish::dials, *name,
                                                            [&](Dial& d) { return dial_changed(d, key, text); });
                         return !wrong.isEmpty() || key != "formula" ? wrong : fault_of_dial(models, *name);
                     });
}

void show_finish_form(FieldForm& form, Models& models) {
    const Finish& finish = models.document.finish();
    const std::vector<Field> fields = {
        {"name", tr("Name"), qs(finish.name), {}},
        {"brief", tr("Brief"), qs(finish.brief), tr("what the effect must do, in a few plain lines")},
        {"width", tr("Frame width"), tr("%1 px").arg(finish.frame_width), {}},
        {"height", tr("Frame height"), tr("%1 px").arg(finish.frame_height), {}},
        {"length", tr("Length"), tr("%1 s").arg(number_text(finish.length)), tr("of the time rule")}};
    form.show_fields(tr("This finish"), fields, [&models](const QString& key, const QString& text) -> QString {
        Finish changed = models.document.finish();
        const auto number = number_from(text);
        if (key == "name") {
            if (text.trimmed().isEmpty()) return tr("A finish needs a name");
            changed.name = text.trimmed().toStdString();
        } else if (key == "brief") {
            changed.brief = text.toStdString();
        } else if (key == "length") {
            if (!number || *number <= 0 || *number > max_length) return tr("A length is up to 3600 seconds");
            changed.length = *number;
        } else {
            if (!number || *number < 1 || *number > max_picture_side)
                return tr("A side is 1 to %1 pixels").arg(max_picture_side);
            (key == "width" ? changed.frame_width : changed.frame_height) = static_cast<int>(*number);
            if (!is_drawable_size(changed.frame_width, changed.frame_height))
                return tr("A frame has at most 64 million pixels");
        }
        models.document.edit(std::move(changed), tr("Changed the finish"));
        return {};
    });
}

}  // namespace lacquer
