// Which key triggers which action: those of the table, or those that the user has chosen instead.
#pragma once

#include <QKeySequence>
#include <QString>

namespace lacquer {

struct ActionRow;
class Settings;

class KeyBindings {
public:
    explicit KeyBindings(Settings& settings) : settings_(&settings) {}

    QKeySequence key_of(const ActionRow& row) const;
    /// The other action that has this key; null if it is free.
    const ActionRow* holder_of(const QKeySequence& key, const ActionRow& but) const;
    /// Gives the action this key, or none; whoever had it has none then.
    void set_key(const ActionRow& row, const QKeySequence& key);
    /// Back to the key of the table.
    void reset(const ActionRow& row);

private:
    Settings* settings_;
};

}  // namespace lacquer
