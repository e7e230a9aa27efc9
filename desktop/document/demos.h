// The finishes that come along to start from.
#pragma once

#include <QList>
#include <QString>

namespace lacquer {

/// What drives a demo, and so the group that it stands in.
enum class DrivenBy { by_cues, by_signals, by_time, by_hand };

/// The group's heading.
QString driven_words(DrivenBy by);

struct Demo {
    QString path;
    QString name;
    QString brief;
    DrivenBy by = DrivenBy::by_hand;
    friend bool operator==(const Demo&, const Demo&) = default;
};

/// Where they lie: `demo/finishes`, beside the program or above it. Empty if there is no such folder.
QString demo_folder();

/// All finishes of a folder that can be read, by group, in order of their names.
QList<Demo> demos_in(const QString& folder);

}  // namespace lacquer
