// The finishes that come along to start from.
#pragma once

#include <QList>
#include <QString>

namespace lacquer {

struct Demo {
    QString path;
    QString name;
    QString brief;
};

/// Where they lie: `demo/finishes`, beside the program or above it. Empty if there is no such folder.
QString demo_folder();

/// All finishes of a folder that can be read, in order of their names.
QList<Demo> demos_in(const QString& folder);

}  // namespace lacquer
