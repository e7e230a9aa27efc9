// An operation's file as it is typed: its head is checked when typing rests, and the file is written once it makes
// sense.
#include <QLabel>
#include <filesystem>
#include <utility>

#include "core/base/file.h"
#include "core/base/text.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/document/document.h"
#include "desktop/kit/core_words.h"

namespace lacquer {

namespace {

QString header_words(const std::optional<Operation>& read) {
    if (!read) return CodeSide::tr("Shared text, used by other operations");
    QStringList arguments;
    for (const OperationArgument& argument : read->arguments) arguments.append(qs(argument.name));
    return CodeSide::tr("<b>%1</b> in %2, called <code>%3(%4)</code>")
        .arg(qs(read->title).toHtmlEscaped(), qs(read->group).toHtmlEscaped(), qs(read->name).toHtmlEscaped(),
             arguments.join(QStringLiteral(", ")).toHtmlEscaped());
}

// Where the line and column of a fault stand in a text.
int index_of(const QString& text, int line, int column) {
    qsizetype at = 0;
    for (int k = 1; k < line; ++k) {
        const qsizetype next = text.indexOf(u'\n', at);
        if (next < 0) return static_cast<int>(text.size());
        at = next + 1;
    }
    return static_cast<int>(std::min(at + std::max(0, column - 1), text.size()));
}

}  // namespace

void CodeSide::open_operation(const std::string& folder, const std::string& name) {
    OperationFile file;
    file.name = name;
    file.path = (std::filesystem::path(folder) / (name + ".glsl")).string();
    auto read = document_.disk().read(tr("opening %1").arg(qs(name)),
                                      [path = file.path] { return read_whole_file(path, max_operation_file); });
    if (!read) return;
    const bool is_new = !*read && read->fault().id == "file.missing";
    if (!*read && !is_new) return document_.complain(read->fault());
    file.text = is_new ? operation_template(name) : std::move(**read);
    leave();
    operation_ = OpenOperation{folder, std::move(file), !is_new, {}, {}};
    filling_ = true;
    text_->setPlainText(qs(operation_->file.text));
    text_->document()->clearUndoRedoStacks();
    text_->set_fault(std::nullopt);
    filling_ = false;
    follow_finish();
    tell();
    check_operation();
    text_->setFocus();
}

void CodeSide::operation_typed() {
    operation_->file.text = text_->toPlainText().toStdString();
    operation_->is_written = false;
    typing_timer_.start();
}

void CodeSide::check_operation() {
    if (!operation_) return;
    ++writing_;
    document_.disk().then(
        this,
        [folder = operation_->folder, file = operation_->file] {
            return std::pair(file.text, operation_as_typed(folder, file));
        },
        [this](std::pair<std::string, Result<std::optional<Operation>>> read) {
            --writing_;
            take_operation_check(read.first, std::move(read.second));
        });
}

void CodeSide::take_operation_check(const std::string& text, Result<std::optional<Operation>> read) {
    // It may have been typed on, or left.
    if (!operation_ || operation_->file.text != text) return;
    operation_->fault.reset();
    std::optional<std::pair<int, int>> marked;
    if (read) {
        operation_->header = header_words(*read);
        if (!operation_->is_written) write_operation();
    } else {
        operation_->fault = read.fault();
        const QString shown = text_->toPlainText();
        const int begin = index_of(shown, read.fault().place.line, read.fault().place.column);
        qsizetype end = begin;
        while (end < shown.size() && (shown[end].isLetterOrNumber() || shown[end] == u'_')) ++end;
        if (end == begin) end = std::max<qsizetype>(begin, shown.indexOf(u'\n', begin));
        marked = {begin, static_cast<int>(end)};
    }
    text_->set_fault(marked);
    tell();
}

void CodeSide::write_operation() {
    operation_->is_written = true;
    ++writing_;
    document_.disk().then(
        this,
        [folder = operation_->folder, file = operation_->file] {
            std::error_code code;
            std::filesystem::create_directories(folder, code);
            return write_whole_file(file.path, file.text);
        },
        [this](const Result<Done>& done) {
            --writing_;
            if (!done) document_.complain(done.fault());
        });
}

// Even with a fault nothing that was typed is lost.
void CodeSide::leave_operation() {
    typing_timer_.stop();
    if (!operation_->is_written) write_operation();
    operation_.reset();
    text_->set_fault(std::nullopt);
}

}  // namespace lacquer
