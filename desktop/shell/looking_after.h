// What is kept for the day on which something goes wrong: a log, and what the program is at.
#pragma once

#include <QObject>
#include <QString>
#include <filesystem>
#include <memory>

#include "core/render/stores.h"
#include "desktop/document/log_file.h"
#include "desktop/document/run_record.h"

namespace lacquer {

class MainWindow;
struct Models;

/// Where the window looks for what the last Lacquer was doing that ended without being asked to.
std::filesystem::path last_end_file();

class LookingAfter : public QObject {
    Q_OBJECT

public:
    LookingAfter();

    /// For whoever draws: notes each pass while it is drawn.
    PassWatch watch() const;

    /// Notes from here on what is said and done, and says so if a Lacquer before this one ended in the middle of it.
    void follow(Models& models, MainWindow& window);

private:
    void note(const QString& words);

    std::shared_ptr<RunRecord> record_;
    std::unique_ptr<LogFile> log_;
};

}  // namespace lacquer
