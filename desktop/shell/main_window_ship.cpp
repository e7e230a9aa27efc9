// The ship screen within the window, and its actions.
#include <QApplication>
#include <QClipboard>

#include "desktop/document/document.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "desktop/ship/ship_screen.h"

namespace lacquer {

namespace {

// A finish that has no file has no choices of its own.
QString key_of_choices(const Document& document) { return qs(document.path()); }

QVariantMap kept(const ShipChoices& choices) {
    return {{QStringLiteral("folder"), choices.folder},
            {QStringLiteral("turned"), choices.turned},
            {QStringLiteral("native"), choices.native},
            {QStringLiteral("keeps"), choices.keeps}};
}

ShipChoices choices_from(const QVariantMap& kept) {
    return {kept[QStringLiteral("folder")].toString(), kept[QStringLiteral("turned")].toStringList(),
            kept[QStringLiteral("native")].toBool(), kept[QStringLiteral("keeps")].toBool()};
}

}  // namespace

MainWindow::Handlers MainWindow::ship_handlers() {
    return {
        {"ship", [this] { show_screen(Where::ship); }},
        {"ship_to", [this] { ship_to(); }},
        {"ship_again", [this] { ship_->shipping().choices().folder.isEmpty() ? ship_to() : ship_->shipping().ship(); }},
        {"verify_set", [this] { ship_->shipping().verify(); }},
        {"keep_shipped",
         [this] {
             ShipChoices choices = ship_->shipping().choices();
             choices.keeps = !choices.keeps;
             ship_->shipping().set_choices(choices);
             document_.say(choices.keeps ? tr("Ships again at every save") : tr("Ships only when it is told to"));
             if (choices.keeps && choices.folder.isEmpty()) ship_to();
         }},
        {"native_reading",
         [this] {
             ShipChoices choices = ship_->shipping().choices();
             choices.native = !choices.native;
             ship_->shipping().set_choices(choices);
             document_.say(choices.native ? tr("Pictures are read by the sampler's own filtering")
                                          : tr("Pictures are read exactly as here"));
         }},
        {"copy_checklist",
         [this] {
             QApplication::clipboard()->setText(ship_->checklist());
             document_.say(tr("Copied what the host supplies"));
         }},
    };
}

void MainWindow::connect_ship() {
    connect(&ship_->shipping(), &Shipping::choices_changed, this, [this] {
        if (!document_.path().empty()) {
            QVariantMap all = settings_.value("ship/choices").toMap();
            all[key_of_choices(document_)] = kept(ship_->shipping().choices());
            settings_.set_value("ship/choices", all);
        }
        refresh_checks();
    });
    const auto take = [this] {
        const QString key = key_of_choices(document_);
        if (key == shipped_key_) return;
        shipped_key_ = key;
        ship_->shipping().set_choices(choices_from(settings_.value("ship/choices").toMap()[key].toMap()));
    };
    connect(&document_, &Document::finish_changed, this, take);
    take();
}

void MainWindow::ship_to() {
    ShipChoices choices = ship_->shipping().choices();
    const QString folder = document_.prompts().folder_to_ship(choices.folder);
    if (folder.isEmpty()) return;
    choices.folder = folder;
    ship_->shipping().set_choices(choices);
    ship_->shipping().ship();
}

}  // namespace lacquer
