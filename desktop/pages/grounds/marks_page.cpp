#include "desktop/pages/grounds/ground_pages.h"

#include <QRegularExpression>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "desktop/pages/form_changes.h"

namespace lacquer {

using namespace forms;

namespace {

QString ids_text(const std::vector<int>& ids) {
    QStringList words;
    for (const int id : ids) words.append(QString::number(id));
    return words.join(QLatin1Char(' '));
}

QString ids_changed(std::vector<int>& ids, const QString& text) {
    std::vector<int> read;
    for (const QString& part : text.split(QRegularExpression(QStringLiteral("[,;\\s]+")), Qt::SkipEmptyParts)) {
        bool good = false;
        const int id = part.toInt(&good);
        if (!good || id < 0) return tr("Write whole numbers, such as 3 4 12");
        read.push_back(id);
    }
    std::sort(read.begin(), read.end());
    read.erase(std::unique(read.begin(), read.end()), read.end());
    ids = std::move(read);
    return {};
}

}  // namespace

QString kind_words(const MarksGround&) { return tr("marks"); }

QString facts_of(const MarksGround& ground) {
    return QStringLiteral("%1 · %2").arg(kind_words(ground),
                                         tr("%n object(s)", nullptr, static_cast<int>(ground.ids.size())));
}

std::vector<Field> fields_of(const MarksGround& ground, const Finish& finish) {
    QStringList scenes;
    for (const Ground& each : finish.grounds) {
        if (has_layers(each)) scenes.append(qs(each.name));
    }
    QStringList names;
    const Ground* of = find_ground(finish, ground.of);
    for (const int id : ground.ids) names.append(of != nullptr ? qs(object_name(*of, id)) : QString::number(id));
    return {{"of", tr("Objects of"), qs(ground.of), tr("the scene or capture"), scenes},
            {"ids", tr("Chosen"), ids_text(ground.ids),
             names.isEmpty() ? tr("numbers of objects; or point at them with Mark objects")
                             : names.join(QStringLiteral(", "))}};
}

QString change_field(MarksGround& ground, const QString& key, const QString& text) {
    if (key == "of") ground.of = text.toStdString();
    return key == "ids" ? ids_changed(ground.ids, text) : QString();
}

}  // namespace lacquer
