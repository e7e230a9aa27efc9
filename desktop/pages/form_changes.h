// What the forms of a finish's parts share: reading what was typed, and changing one part by its name.
#pragma once

#include <QObject>
#include <QString>
#include <memory>
#include <optional>
#include <string>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/dial_text.h"
#include "desktop/pages/field_form.h"

namespace lacquer::forms {

inline QString number_text(double number) { return qs(shortest_number(number)); }
inline QString tr(const char* text, const char* = nullptr, int n = -1) { return QObject::tr(text, nullptr, n); }

// The name that the form speaks of; it changes when the form renames it.
using Name = std::shared_ptr<std::string>;

// A number as typed, with or without its unit behind it.
inline std::optional<double> number_from(const QString& typed) {
    return parse_number(typed.trimmed().section(QLatin1Char(' '), 0, 0).toStdString());
}

// Calls `show` once the field that asks for it has done its work, unless the form was left meanwhile.
template <class Show>
void show_again(FieldForm& form, Show show) {
    const auto if_visible = [&form, show] {
        if (form.isVisible()) show();
    };
    QMetaObject::invokeMethod(&form, if_visible, Qt::QueuedConnection);
}

inline QString rename_to(Models& models, const Name& name, const QString& typed) {
    Result<Finish> renamed = rename(models.document.finish(), *name, typed.toStdString());
    if (!renamed) return fault_words(renamed.fault());
    const std::string from = *name;
    *name = identifier_from(typed.toStdString());
    models.document.edit(std::move(*renamed), tr("Renamed %1 to %2").arg(qs(shown_name(from)), qs(shown_name(*name))));
    return {};
}

// Changes one member of a list of the finish, found by name, and says what it did.
template <class Things, class Change>
QString change_named(Models& models, Things Finish::*list, const std::string& name, Change change) {
    Finish changed = models.document.finish();
    for (auto& thing : changed.*list) {
        if (thing.name != name) continue;
        QString wrong = change(thing);
        if (!wrong.isEmpty()) return wrong;
        models.document.edit(std::move(changed), tr("Changed %1").arg(qs(shown_name(name))));
        return {};
    }
    return tr("It is gone");
}

}  // namespace lacquer::forms
