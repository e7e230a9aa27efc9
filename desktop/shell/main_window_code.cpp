// Code beside the stage, in the place of the steps.
#include <QApplication>
#include <QSplitter>
#include <QStackedWidget>

#include "core/base/text.h"
#include "core/catalogue/catalogue.h"
#include "core/finish/edits.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/document/document.h"
#include "desktop/kit/chooser.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shell/main_window.h"

namespace lacquer {

namespace {

constexpr int least_code_width = 600;

}  // namespace

MainWindow::Handlers MainWindow::code_handlers() {
    return {
        {"code_editor",
         [this] {
             if (shows_code()) return hide_code();
             code_->open_step(document_.selected());
             show_code();
         }},
        {"edit_operation", [this] { choose_operation(); }},
        {"see_variable", [this] { code_->toggle_seen(); }},
        {"find_in_code", [this] { code_->find(); }},
        {"find_next", [this] { code_->find_next(false); }},
        {"find_before", [this] { code_->find_next(true); }},
        {"turn_remarks", [this] { code_->turn_remarks(); }},
        {"move_in", [this] { code_->move_in(1); }},
        {"move_out", [this] { code_->move_in(-1); }},
    };
}

bool MainWindow::shows_code() const { return side_pages_->currentWidget() == code_; }

bool MainWindow::types_code() const { return shows_code() && code_->text().hasFocus(); }

void MainWindow::show_code() {
    if (!code_->is_open()) return;
    if (!shows_code()) {
        side_pages_->setCurrentWidget(code_);
        const QList<int> sizes = columns_->sizes();
        const int all = sizes.value(0) + sizes.value(1);
        const int width = std::min(least_code_width, all * 3 / 5);
        if (sizes.value(0) < width) {
            columns_before_code_ = sizes;
            columns_->setSizes({width, all - width});
        }
    }
    code_->text().setFocus();
    refresh_checks();
}

void MainWindow::hide_code() {
    if (!shows_code()) return;
    code_->leave();
    side_pages_->setCurrentIndex(0);
    if (!columns_before_code_.isEmpty()) columns_->setSizes(std::exchange(columns_before_code_, {}));
    ladder_->setFocus();
    refresh_checks();
}

// Those of the user's folder, or a new one by a name that is typed.
void MainWindow::choose_operation() {
    const std::string folder = user_operations_folder();
    if (folder.empty()) return document_.say(tr("There is no folder for operations of your own: HOME is not set"));
    auto files = document_.disk().read(tr("reading your operations"), [folder] { return operation_files_in(folder); });
    if (!files) return;
    const auto open = [this, folder](const std::string& name) {
        code_->open_operation(folder, name);
        show_code();
    };
    Chooser::Offer offer;
    offer.title = tr("An operation of your own, or the name of a new one");
    std::vector<std::string> names;
    for (const OperationFile& file : *files) {
        Choice choice{qs(shown_name(file.name))};
        if (file.fault) choice.words = qs(file.fault->message);
        offer.choices.push_back(std::move(choice));
        names.push_back(file.name);
    }
    offer.taken = [open, names](int index) { open(names[static_cast<std::size_t>(index)]); };
    offer.typed = [this, open](const QString& typed) {
        const std::string name = identifier_from(typed.toStdString());
        if (name.empty()) return document_.say(tr("A name begins with a letter"));
        open(name);
    };
    chooser_->open(QPoint((width() - offer.width) / 2, 48), std::move(offer));
}

}  // namespace lacquer
