// Another language, and what is counted in words.
#include <QAction>
#include <QApplication>
#include <QLabel>
#include <QPushButton>
#include <QTranslator>

#include "core/finish/edits.h"
#include "desktop/kit/core_words.h"
#include "desktop/shell/actions.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// Every text in marks, so that what was not translated stands out.
class Marks : public QTranslator {
public:
    QString translate(const char*, const char* text, const char*, int) const override {
        return QStringLiteral("⟦%1⟧").arg(QString::fromUtf8(text));
    }
    bool isEmpty() const override { return false; }
};

}  // namespace

TEST_CASE("another language reaches every menu, button, tip and label") {
    Marks marks;
    QCoreApplication::installTranslator(&marks);
    {
        BenchWindow bench(test::demo_path());
        const auto is_marked = [](const QString& text) { return text.contains(QStringLiteral("⟦")); };
        for (const ActionRow& row : action_rows()) {
            if (*row.id == '\0') continue;
            INFO(row.id);
            const auto* action = bench.find<QAction>(row.id);
            CHECK(is_marked(action->text()));
            CHECK(is_marked(action->toolTip()));
        }
        for (const auto* button : bench.window().findChildren<QPushButton*>()) {
            INFO(button->objectName().toStdString());
            if (!button->text().isEmpty()) CHECK(is_marked(button->text()));
        }
        for (const auto* label : bench.window().findChildren<QLabel*>()) {
            INFO(label->text().toStdString());
            if (label->text().contains(QRegularExpression(QStringLiteral("[A-Za-z]")))) CHECK(is_marked(label->text()));
        }
        for (const auto* widget : bench.window().findChildren<QWidget*>()) {
            INFO(widget->objectName().toStdString());
            if (!widget->accessibleName().isEmpty()) CHECK(is_marked(widget->accessibleName()));
            if (!widget->toolTip().isEmpty()) CHECK(is_marked(widget->toolTip()));
        }
        bench.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(is_marked(bench.last_said));
    }
    QCoreApplication::removeTranslator(&marks);
}

TEST_CASE("another language reaches what the core says, with the names and numbers where it has them") {
    const CoreSentence sentence = core_sentence(QStringLiteral("'torn' isn't read before row 3 of 'a 2' or -0.5, v2"));
    CHECK(sentence.words == QStringLiteral("%1 isn't read before row %2 of %3 or %4, v2"));
    CHECK(sentence.taken == QStringList({QStringLiteral("'torn'"), QStringLiteral("3"), QStringLiteral("'a 2'"),
                                         QStringLiteral("-0.5")}));
    CHECK(core_words("'torn' isn't") == QStringLiteral("'torn' isn't"));
    Marks marks;
    QCoreApplication::installTranslator(&marks);
    CHECK(core_words("row 3 reads '%1'") == QStringLiteral("⟦row 3 reads '%1'⟧"));
    {
        BenchWindow bench;
        bench.document().edit(test::finish_of({{"a", "uv.x + nothing_like_it"}}), QStringLiteral("broken"));
        const CheckedStep* step = find_step(bench.document().checked(), "a");
        REQUIRE(step->fault);
        CHECK(fault_words(*step->fault).startsWith(QStringLiteral("⟦")));
    }
    QCoreApplication::removeTranslator(&marks);
}

TEST_CASE("what is counted is one thing or several, in words") {
    CHECK(QObject::tr("%n step(s)", nullptr, 1) == QStringLiteral("1 step"));
    CHECK(QObject::tr("%n step(s)", nullptr, 0) == QStringLiteral("0 steps"));
    CHECK(QObject::tr("%n pass(es)", nullptr, 2) == QStringLiteral("2 passes"));
    CHECK(QObject::tr("so it stays (s)") == QStringLiteral("so it stays (s)"));
}
