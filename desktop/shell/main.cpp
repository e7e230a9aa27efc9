// lacquer: the window.
#include <QApplication>
#include <QFileDialog>
#include <QMessageBox>
#include <QPushButton>
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <filesystem>

#include "desktop/document/operations_folder.h"
#include "desktop/document/recovery.h"
#include "desktop/drawing/models.h"
#include "desktop/kit/plurals.h"
#include "desktop/kit/theme.h"
#include "desktop/shell/looking_after.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"

namespace {

using lacquer::Unsaved;

lacquer::Prompts real_prompts() {
    const QString finishes = QObject::tr("Finishes (*.lacquer)");
    lacquer::Prompts prompts;
    // Of a finish's own file, the folder that it lies in.
    const auto folder_of = [](const QString& path) {
        return path.isEmpty() || QFileInfo(path).isDir() ? path : QFileInfo(path).absolutePath();
    };
    prompts.finish_to_open = [finishes, folder_of](const QString& folder) {
        return QFileDialog::getOpenFileName(nullptr, QObject::tr("Open a finish"), folder_of(folder), finishes);
    };
    prompts.finish_to_save = [finishes](const QString& proposed) {
        return QFileDialog::getSaveFileName(nullptr, QObject::tr("Save the finish"), proposed, finishes);
    };
    prompts.folder_to_collect = [](const QString& folder) {
        return QFileDialog::getExistingDirectory(nullptr, QObject::tr("Collect the finish and its files in"), folder);
    };
    prompts.folder_to_ship = [](const QString& folder) {
        return QFileDialog::getExistingDirectory(nullptr, QObject::tr("Ship the finish to"), folder);
    };
    prompts.picture_to_add = [folder_of](const QString& folder) {
        return QFileDialog::getOpenFileName(
            nullptr, QObject::tr("Add a picture"), folder_of(folder),
            QObject::tr("Pictures (*.png *.jpg *.jpeg *.webp *.tif *.tiff *.exr *.hdr *.gif *.svg *.cube)"));
    };
    prompts.shader_to_open = [folder_of](const QString& folder) {
        return QFileDialog::getOpenFileName(nullptr, QObject::tr("Bring in a shader"), folder_of(folder),
                                            QObject::tr("Fragment shaders (*.frag *.glsl *.fs *.fsh)"));
    };
    prompts.picture_to_save = [](const QString& proposed) {
        return QFileDialog::getSaveFileName(nullptr, QObject::tr("Save the picture"), proposed,
                                            QObject::tr("Pictures (*.png *.exr *.tif *.webp *.jpg)"));
    };
    const QString tapes = QObject::tr("Tapes (*.tape)");
    prompts.tape_to_open = [tapes, folder_of](const QString& folder) {
        return QFileDialog::getOpenFileName(nullptr, QObject::tr("Open a tape"), folder_of(folder), tapes);
    };
    prompts.tape_to_save = [tapes](const QString& proposed) {
        return QFileDialog::getSaveFileName(nullptr, QObject::tr("Save the tape"), proposed, tapes);
    };
    prompts.shared_dials_file = [](const QString& proposed) {
        return QFileDialog::getSaveFileName(nullptr, QObject::tr("A file of shared dials, there or new"), proposed,
                                            QObject::tr("Shared dials (*.dials)"), nullptr,
                                            QFileDialog::DontConfirmOverwrite);
    };
    prompts.unsaved_changes = [](const QString& name) {
        const auto answer =
            QMessageBox::question(nullptr, QObject::tr("Lacquer"), QObject::tr("Save the changes to %1?").arg(name),
                                  QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
        if (answer == QMessageBox::Save) return Unsaved::save;
        return answer == QMessageBox::Discard ? Unsaved::discard : Unsaved::stay;
    };
    prompts.changed_on_disk = [](const QString& file) {
        QMessageBox box(QMessageBox::Question, QObject::tr("Lacquer"),
                        QObject::tr("%1 was changed by another program since it was opened here.").arg(file));
        box.setInformativeText(QObject::tr("Saving replaces what is there now."));
        const QAbstractButton* replace = box.addButton(QObject::tr("Replace it"), QMessageBox::DestructiveRole);
        const QAbstractButton* elsewhere =
            box.addButton(QObject::tr("Save under another name"), QMessageBox::AcceptRole);
        box.addButton(QMessageBox::Cancel);
        box.exec();
        if (box.clickedButton() == replace) return lacquer::ChangedOnDisk::replace;
        return box.clickedButton() == elsewhere ? lacquer::ChangedOnDisk::save_elsewhere : lacquer::ChangedOnDisk::stay;
    };
    prompts.may_replace = [](const QString& path) {
        return QMessageBox::question(nullptr, QObject::tr("Lacquer"),
                                     QObject::tr("%1 is there already. Replace it?").arg(QFileInfo(path).fileName()),
                                     QMessageBox::Yes | QMessageBox::No, QMessageBox::No) == QMessageBox::Yes;
    };
    prompts.may_write_shared = [](const QString& path) {
        return QMessageBox::question(nullptr, QObject::tr("Lacquer"),
                                     QObject::tr("The finish keeps shared dials in %1, outside its own folder. Write "
                                                 "that file?")
                                         .arg(path)) == QMessageBox::Yes;
    };
    return prompts;
}

double steady_seconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

// What the command line names, or work on it that a crash has left; such work on anything else is told of.
void open_first(lacquer::Document& document, const QString& path) {
    const std::vector<lacquer::KeptWork> kept =
        document.disk().wait(QObject::tr("looking for unsaved work"), [] { return lacquer::kept_work(); });
    std::error_code code;
    const std::string full = path.isEmpty()
                                 ? std::string()
                                 : std::filesystem::absolute(path.toStdString(), code).lexically_normal().string();
    const auto own = std::find_if(kept.begin(), kept.end(),
                                  [&](const lacquer::KeptWork& work) { return !full.empty() && work.path == full; });
    if (own != kept.end() && document.bring_back(*own)) return;
    if (!path.isEmpty()) document.open(path);
    if (kept.empty()) return;
    const QString name = lacquer::qs(kept.front().name);
    document.say(path.isEmpty() ? QObject::tr("Unsaved work on %1 was kept: it is the first card").arg(name)
                                : QObject::tr("Unsaved work on %1 was kept: Finish, New shows it").arg(name));
}

}  // namespace

int main(int argc, char** argv) {
    const double begin = steady_seconds();
    // No widget draws by GL, and Qt would load a driver for it.
    if (!qEnvironmentVariableIsSet("QT_XCB_GL_INTEGRATION")) qputenv("QT_XCB_GL_INTEGRATION", "none");
    lacquer::theme::prepare_fonts();
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("lacquer"));
    QApplication::setOrganizationName(QStringLiteral("lacquer"));
    lacquer::theme::apply(application);
    lacquer::EnglishPlurals plurals;
    QCoreApplication::installTranslator(&plurals);
    lacquer::Settings settings;
    lacquer::DrawingLimits limits;
    limits.threads = settings.value("draw/threads").toInt();
    limits.pictures.most = static_cast<std::size_t>(settings.value("draw/memory").toDouble()) * 1024 * 1024;
    limits.pictures.most_pixels = settings.value("draw/picture_pixels").toLongLong() * 1024 * 1024;
    limits.pictures.most_file_bytes = settings.value("draw/picture_file").toULongLong() * 1024 * 1024;
    lacquer::LookingAfter looking_after;
    limits.watch = looking_after.watch();
    lacquer::Models models(real_prompts(), steady_seconds, limits);
    lacquer::OperationsFolder operations(lacquer::user_operations_folder(), models.document.disk());
    if (const auto catalogue = operations.catalogue(); catalogue != lacquer::built_in_catalogue()) {
        models.document.use_catalogue(catalogue);
    }
    QObject::connect(&operations, &lacquer::OperationsFolder::changed, &models.document,
                     [&] { models.document.use_catalogue(operations.catalogue()); });
    lacquer::MainWindow window(models, settings);
    looking_after.follow(models, window);
    QStringList words = QApplication::arguments();
    if (const qsizetype at = words.indexOf(QStringLiteral("--backend")); at > 0) {
        const QString name = words.value(at + 1);
        const auto backend = lacquer::backend_named(name.toStdString());
        if (!backend) {
            std::fprintf(stderr, "lacquer: there is no backend '%s': cpu, gpu or auto\n", qPrintable(name));
            return 2;
        }
        models.drawing.use_backend(*backend);
        words.remove(at, 2);
    }
    if (words.removeOne(QStringLiteral("--time-first-picture"))) {
        QObject::connect(&models.drawing, &lacquer::Drawing::stage_changed, &models.drawing, [&models, begin] {
            if (models.drawing.stage().image.isNull()) return;
            std::printf("first picture after %.0f ms\n", (steady_seconds() - begin) * 1000);
            QApplication::exit(0);
        });
    }
    // Before the window shows itself: the first picture is read and drawn while Qt draws the rest.
    open_first(models.document, words.size() > 1 ? words[1] : QString());
    window.show();
    return QApplication::exec();
}
