// Everything that waits for the user outside the window, behind one seam so that tests can answer.
#pragma once

#include <QString>
#include <functional>

namespace lacquer {

/// What to do with changes that are not saved yet.
enum class Unsaved { save, discard, stay };

/// What to do where the file has been changed by somebody else since it was opened or saved here.
enum class ChangedOnDisk { replace, save_elsewhere, stay };

/// Empty paths mean that the user changed their mind.
struct Prompts {
    std::function<QString(const QString& folder)> finish_to_open;
    std::function<QString(const QString& proposed)> finish_to_save;
    std::function<QString(const QString& folder)> folder_to_collect;
    /// A folder for a set: empty, new, or one that holds a set already.
    std::function<QString(const QString& folder)> folder_to_ship;
    std::function<QString(const QString& folder)> picture_to_add;
    std::function<QString(const QString& folder)> shader_to_open;
    std::function<QString(const QString& proposed)> picture_to_save;
    std::function<QString(const QString& folder)> tape_to_open;
    std::function<QString(const QString& proposed)> tape_to_save;
    /// A file of shared dials that is there, or a new one.
    std::function<QString(const QString& proposed)> shared_dials_file;
    std::function<Unsaved(const QString& name)> unsaved_changes;
    std::function<ChangedOnDisk(const QString& file)> changed_on_disk;
    /// Whether a file may be replaced that was not chosen as it is called: its ending was added to what was typed.
    std::function<bool(const QString& path)> may_replace;
    /// Whether a file of shared dials that a finish names, outside that finish's folder, may be written.
    std::function<bool(const QString& path)> may_write_shared;
};

}  // namespace lacquer
