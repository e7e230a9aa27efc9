// lacquer: the window.
#include <QApplication>
#include <QFileDialog>
#include <QMessageBox>
#include <QSettings>
#include <QTimer>
#include <chrono>

#include "desktop/session/recovery.h"
#include "desktop/session/session.h"
#include "desktop/shell/main_window.h"
#include "desktop/theme/theme.h"

namespace {

using lacquer::Unsaved;

lacquer::Prompts real_prompts() {
    const QString finishes = QObject::tr("Finishes (*.lacquer)");
    lacquer::Prompts prompts;
    prompts.finish_to_open = [finishes](const QString& folder) {
        return QFileDialog::getOpenFileName(nullptr, QObject::tr("Open a finish"), folder, finishes);
    };
    prompts.finish_to_save = [finishes](const QString& proposed) {
        return QFileDialog::getSaveFileName(nullptr, QObject::tr("Save the finish"), proposed, finishes);
    };
    prompts.picture_to_add = [](const QString& folder) {
        return QFileDialog::getOpenFileName(nullptr, QObject::tr("Add a picture"), folder,
                                            QObject::tr("Pictures (*.png *.jpg *.jpeg *.webp *.tif *.tiff *.exr *.hdr)"));
    };
    prompts.unsaved_changes = [](const QString& name) {
        const auto answer = QMessageBox::question(nullptr, QObject::tr("Lacquer"), QObject::tr("Save the changes to %1?").arg(name),
                                                  QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
        if (answer == QMessageBox::Save) return Unsaved::save;
        return answer == QMessageBox::Discard ? Unsaved::discard : Unsaved::stay;
    };
    return prompts;
}

double steady_seconds() {
    return std::chrono::duration<double>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("lacquer"));
    QApplication::setOrganizationName(QStringLiteral("lacquer"));
    lacquer::theme::apply(application);
    QSettings settings;
    lacquer::Session session(real_prompts(), steady_seconds);
    lacquer::MainWindow window(session, settings);
    window.show();
    const QStringList words = QApplication::arguments();
    QTimer::singleShot(0, &session, [&session, words] {
        if (auto recovered = lacquer::take_recovered()) {
            session.take_over(std::move(recovered->opened), lacquer::qs(recovered->path));
        } else if (words.size() > 1) {
            session.open(words[1]);
        }
    });
    return QApplication::exec();
}
