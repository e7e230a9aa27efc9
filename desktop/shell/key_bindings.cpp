#include "desktop/shell/key_bindings.h"

#include <QVariantMap>

#include "desktop/shell/actions.h"
#include "desktop/shell/settings.h"

namespace lacquer {

namespace {

constexpr const char* setting_name = "keys";

}  // namespace

QKeySequence KeyBindings::key_of(const ActionRow& row) const {
    const QVariantMap chosen = settings_->value(setting_name).toMap();
    const auto own = chosen.constFind(QString::fromLatin1(row.id));
    return QKeySequence(own != chosen.constEnd() ? own->toString() : QString::fromLatin1(row.key),
                        QKeySequence::PortableText);
}

const ActionRow* KeyBindings::holder_of(const QKeySequence& key, const ActionRow& but) const {
    if (key.isEmpty()) return nullptr;
    for (const ActionRow& row : action_rows()) {
        if (*row.id != '\0' && &row != &but && key_of(row) == key) return &row;
    }
    return nullptr;
}

void KeyBindings::set_key(const ActionRow& row, const QKeySequence& key) {
    QVariantMap chosen = settings_->value(setting_name).toMap();
    if (const ActionRow* holder = holder_of(key, row)) chosen[QString::fromLatin1(holder->id)] = QString();
    chosen[QString::fromLatin1(row.id)] = key.toString(QKeySequence::PortableText);
    settings_->set_value(setting_name, chosen);
}

void KeyBindings::reset(const ActionRow& row) {
    QVariantMap chosen = settings_->value(setting_name).toMap();
    const QKeySequence usual(QString::fromLatin1(row.key), QKeySequence::PortableText);
    if (const ActionRow* holder = holder_of(usual, row)) chosen[QString::fromLatin1(holder->id)] = QString();
    chosen.remove(QString::fromLatin1(row.id));
    settings_->set_value(setting_name, chosen);
}

}  // namespace lacquer
