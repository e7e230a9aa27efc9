// The window and files: what was open last, copies, demos, preferences, what was said.
#include <QAction>
#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QLocale>
#include <QMimeData>
#include <QPushButton>
#include <QUrl>

#include "core/base/file.h"
#include "core/base/text.h"
#include "core/finish/collect.h"
#include "desktop/document/ground_adding.h"
#include "desktop/document/shader_bringing.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/panel.h"
#include "desktop/kit/theme.h"
#include "desktop/pages/field_form.h"
#include "desktop/playing/playing.h"
#include "desktop/shell/key_editor.h"
#include "desktop/shell/looking_after.h"
#include "desktop/shell/main_window.h"
#include "desktop/shell/settings.h"
#include "desktop/stage/gallery.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/start_list.h"

namespace lacquer {

namespace {

constexpr int most_recent = 8;
constexpr int list_width = 620;

QString value_words(const SettingRow& row, const QVariant& value) {
    if (row.choices.empty()) {
        const QString number = QString::number(value.toDouble(), 'g', 8);
        return *row.unit == '\0' ? number : QStringLiteral("%1 %2").arg(number, QLatin1String(row.unit));
    }
    if (value.typeId() == QMetaType::Bool) return QObject::tr(row.choices.at(value.toBool() ? 1 : 0));
    return value.toString();
}

}  // namespace

void MainWindow::note_recent() {
    if (document_.path().empty()) return;
    QStringList recent = settings_.value("file/recent").toStringList();
    const QString path = qs(document_.path());
    settings_.set_value("file/folder", QFileInfo(path).absolutePath());
    if (recent.value(0) == path) return;
    recent.removeAll(path);
    recent.prepend(path);
    settings_.set_value("file/recent", recent.mid(0, most_recent));
    stage_->start_list().set_recent(recent.mid(0, most_recent));
}

void MainWindow::open_recent() {
    QStringList recent;
    for (const QString& path : settings_.value("file/recent").toStringList()) {
        if (path != qs(document_.path())) recent.append(path);
    }
    if (recent.isEmpty()) return document_.say(tr("No other finish was opened yet"));
    Chooser::Offer offer;
    offer.title = tr("Open recent");
    offer.width = list_width;
    const auto look = [recent] {
        std::vector<bool> there;
        for (const QString& path : recent) there.push_back(QFileInfo::exists(path));
        return there;
    };
    const auto there = document_.disk().read(tr("looking for recent finishes"), look);
    if (!there) return;
    for (qsizetype i = 0; i < recent.size(); ++i) {
        const QFileInfo file(recent[i]);
        Choice choice{file.completeBaseName(), file.absolutePath()};
        choice.fits = (*there)[static_cast<std::size_t>(i)];
        if (!choice.fits) choice.key = tr("gone");
        offer.choices.push_back(std::move(choice));
    }
    offer.taken = [this, recent](int index) {
        if (document_.may_leave()) document_.open(recent.at(index));
    };
    chooser_->open(QPoint((width() - list_width) / 2, 48), std::move(offer));
}

void MainWindow::collect() {
    const QString folder = document_.prompts().folder_to_collect(settings_.value("file/folder").toString());
    if (folder.isEmpty()) return;
    using Given = Result<Collected>;
    const auto work = [finish = document_.finish(), path = document_.path(), folder](
                          const Cancel& cancel, const Background::Progress& progress) {
        return lacquer::collect(finish, path, folder.toStdString(), cancel, progress);
    };
    const auto done = [this](Given given) {
        if (!given) return document_.complain(given.fault());
        const QString where = QFileInfo(qs(given->path)).absolutePath();
        if (given->missing.empty())
            return document_.say(tr("Collected the finish and %1 in %2")
                                     .arg(tr("%n file(s)", nullptr, static_cast<int>(given->copied)), where));
        document_.say(
            tr("Collected the finish and %1 in %2, but not %3: it is missing")
                .arg(tr("%n file(s)", nullptr, static_cast<int>(given->copied)), where, qs(given->missing.front())),
            Tone::failed);
    };
    if (!document_.background().run<Given>(tr("collecting"), work, done))
        document_.say(tr("Something else is being done: wait, or stop it by Escape"));
}

void MainWindow::open_demo() {
    if (gallery_ == nullptr) gallery_ = new Gallery(models_, this);
    gallery_->open(rect());
}

void MainWindow::new_from_picture() {
    const QString path = document_.prompts().picture_to_add(qs(document_.path()));
    if (!path.isEmpty()) start_from_picture(document_, path);
}

void MainWindow::bring_shader() {
    const QString path = document_.prompts().shader_to_open(qs(document_.path()));
    if (!path.isEmpty()) start_from_shader(document_, path);
}

void MainWindow::bring_copied_shader() {
    start_from_shader_text(document_, QGuiApplication::clipboard()->text(), tr("Brought in"));
}

void MainWindow::show_preferences() {
    std::vector<Field> fields;
    for (const SettingRow& row : setting_rows()) {
        if (row.label == nullptr) continue;
        Field field{QString::fromLatin1(row.key).replace(QLatin1Char('/'), QLatin1Char('_')), tr(row.label),
                    value_words(row, settings_.value(row.key)), tr(row.words)};
        if (row.at_start) field.hint += tr("; from the next start on");
        for (const char* choice : row.choices) field.choices.append(tr(choice));
        fields.push_back(std::move(field));
    }
    form().show_fields(tr("Preferences"), fields,
                       [this](const QString& key, const QString& text) { return change_setting(key, text); });
    form().set_top(preferences_head());
    show_form();
}

QWidget* MainWindow::preferences_head() {
    auto* head = new QWidget(&form());
    auto* row = new QHBoxLayout(head);
    row->setContentsMargins(0, 0, 0, theme::gap);
    row->addWidget(panel_button(head, actions_[QStringLiteral("change_key")], tr("Change a key…")));
    row->addWidget(panel_button(head, actions_[QStringLiteral("shortcuts")], tr("All keys")));
    row->addStretch(1);
    return head;
}

QString MainWindow::change_setting(const QString& key, const QString& text) {
    for (const SettingRow& row : setting_rows()) {
        if (row.label == nullptr || QString::fromLatin1(row.key).replace(QLatin1Char('/'), QLatin1Char('_')) != key)
            continue;
        QVariant value = text;
        if (row.most > 0) {
            const auto number = parse_number(text.trimmed().section(QLatin1Char(' '), 0, 0).toStdString());
            if (!number || *number < row.least || *number > row.most)
                return tr("Between %1 and %2").arg(value_words(row, row.least), value_words(row, row.most));
            value = *number;
        } else if (row.otherwise.typeId() == QMetaType::Bool) {
            value = text == tr(row.choices.at(1));
        }
        settings_.set_value(row.key, value);
        take_settings();
        document_.say(tr("%1: %2").arg(tr(row.label), value_words(row, value)));
        return {};
    }
    return {};
}

void MainWindow::take_settings() {
    if (const auto backend = backend_named(settings_.value("draw/backend").toString().toStdString()))
        drawing_.use_backend(*backend);
    document_.set_autosave(settings_.value("file/autosave").toDouble());
    Look look = drawing_.look();
    look.decimals = settings_.value("draw/decimals").toInt();
    drawing_.set_look(std::move(look));
}

void MainWindow::change_key() {
    Chooser::Offer offer;
    offer.title = tr("Another key for");
    offer.width = list_width;
    std::vector<const ActionRow*> rows;
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0') continue;
        Choice choice{tr(row.words), tr(row.tip)};
        choice.key = key_of(row.id);
        offer.choices.push_back(std::move(choice));
        rows.push_back(&row);
    }
    offer.taken = [this, rows](int index) { ask_key(*rows.at(static_cast<std::size_t>(index))); };
    chooser_->open(QPoint((width() - list_width) / 2, 48), std::move(offer));
}

void MainWindow::ask_key(const ActionRow& row) {
    KeyEditor::Offer offer;
    offer.action = tr(row.words);
    offer.now = keys_.key_of(row);
    offer.told = [this, &row](const QKeySequence& key) {
        const ActionRow* holder = keys_.holder_of(key, row);
        return holder == nullptr ? QString() : tr("· now it is %1, which would have none").arg(tr(holder->words));
    };
    offer.taken = [this, &row](const QKeySequence& key) {
        const ActionRow* holder = keys_.holder_of(key, row);
        keys_.set_key(row, key);
        take_keys();
        const QString words = key.isEmpty() ? tr("no key") : key.toString(QKeySequence::NativeText);
        document_.say(holder == nullptr ? tr("%1: %2").arg(tr(row.words), words)
                                        : tr("%1: %2; %3 has none now").arg(tr(row.words), words, tr(holder->words)));
    };
    key_editor_->open(std::move(offer));
}

void MainWindow::show_notices() {
    Chooser::Offer offer;
    offer.title = tr("What was said");
    offer.width = list_width;
    for (const Notice& notice : document_.notices().all()) {
        Choice choice{notice.words};
        if (notice.times > 1) choice.name += tr(" (%1 times)").arg(notice.times);
        choice.key = QLocale().toString(notice.at.time(), QLocale::ShortFormat);
        choice.fits = notice.tone != Tone::failed;
        choice.failed = notice.tone == Tone::failed;
        offer.choices.push_back(std::move(choice));
    }
    if (offer.choices.empty()) return document_.say(tr("Nothing was said yet"));
    document_.see_notices();
    chooser_->open(QPoint((width() - list_width) / 2, height() / 4), std::move(offer));
}

// The record, line by line; whichever is chosen, all of it is copied.
void MainWindow::show_last_end() {
    constexpr std::size_t most = std::size_t{64} * 1024;
    const auto read = document_.disk().read(tr("reading what happened"),
                                            [] { return read_whole_file(last_end_file().string(), most); });
    if (!read) return;
    if (!*read) return document_.say(tr("Lacquer has not ended in the middle of anything"));
    const QString record = qs(**read);
    Chooser::Offer offer;
    offer.title = tr("When Lacquer last ended in the middle of something (Enter copies all of it)");
    offer.width = 900;
    for (const QString& line : record.split(QLatin1Char('\n'), Qt::SkipEmptyParts)) offer.choices.push_back({line});
    offer.taken = [this, record](int) {
        QGuiApplication::clipboard()->setText(record);
        document_.say(tr("Copied, for a report"));
    };
    chooser_->open(QPoint((width() - offer.width) / 2, height() / 4), std::move(offer));
}

// All pictures that are dropped are one change; a finish or a tape opens.
void MainWindow::take_dropped(const QMimeData& dropped) {
    QStringList pictures;
    for (const QUrl& url : dropped.urls()) {
        const QString path = url.toLocalFile();
        if (path.endsWith(QStringLiteral(".lacquer"))) {
            if (document_.may_leave()) document_.open(path);
            return;
        }
        if (path.endsWith(QStringLiteral(".frag")) || path.endsWith(QStringLiteral(".glsl"))) {
            start_from_shader(document_, path);
            return;
        }
        if (path.endsWith(QStringLiteral(".tape"))) {
            playing_.open_tape(path);
            return;
        }
        if (!path.isEmpty()) pictures.append(path);
    }
    if (!pictures.isEmpty()) add_pictures(document_, pictures);
}

}  // namespace lacquer
