// Code beside the stage, by keys and mouse: typing, faults, values of variables, finding, operations of one's own.
#include <QAction>
#include <QApplication>
#include <QLabel>
#include <QLineEdit>
#include <QTest>
#include <QTextBlock>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/base/file.h"
#include "core/finish/edits.h"
#include "desktop/code/code_lines.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/code/find_bar.h"
#include "desktop/document/operations_folder.h"
#include "desktop/formulas/text_completion.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/line_editor.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shell/help_card.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

const std::string code =
    "float far = length(uv - vec2(0.5));\n"
    "float sum = 0.0;\n"
    "for (int i = 0; i < 4; i++) {\n"
    "    sum += far * float(i);\n"
    "}\n"
    "return sum / 6.0;\n";

// A window with one step of code, open in the editor.
class CodeWindow : public BenchWindow {
public:
    CodeWindow() {
        Finish finish = test::finish_of({{"plain", "uv.x"}, {"shown", code}});
        finish.coats[0].steps.own()[1].rules = CodeRules::glsl;
        finish.frame_width = 64;
        finish.frame_height = 64;
        REQUIRE(save_finish(folder().file("code.lacquer"), finish));
        REQUIRE(document().open(qs(folder().file("code.lacquer"))));
        document().select("shown");
        settle();
        key(Qt::Key_F9);
        settle();
    }

    CodeSide& side() { return window().code(); }
    CodeText& text() { return side().text(); }
    std::string formula() { return formula_of("shown"); }
    // The mark before a word, the nth of its kind.
    void mark(const char* word, int nth = 1) {
        int at = -1;
        for (int k = 0; k < nth; ++k) at = static_cast<int>(text().toPlainText().indexOf(QLatin1String(word), at + 1));
        REQUIRE(at >= 0);
        text().go_to(at);
        text().setFocus();
        settle();
    }
    const Fault* fault() {
        const CheckedStep* step = find_step(document().checked(), "shown");
        return step->fault ? &*step->fault : nullptr;
    }
};

}  // namespace

TEST_CASE("code opens beside the stage in the place of the steps, and closes again") {
    CodeWindow window;
    CHECK(window.text().isVisible());
    CHECK_FALSE(window.window().ladder().isVisible());
    CHECK(window.text().toPlainText().toStdString() == code);
    CHECK(QApplication::focusWidget() == &window.text());
    CHECK(window.find<QAction>("code_editor")->isChecked());
    CHECK(window.text().number_area(2).top() > window.text().number_area(1).top());
    window.key(Qt::Key_Escape);
    CHECK(window.window().ladder().isVisible());
    CHECK(QApplication::focusWidget() == &window.window().ladder());
    window.key(Qt::Key_F9);
    CHECK(window.text().isVisible());
    window.key(Qt::Key_F9);
    CHECK(window.window().ladder().isVisible());
    // Nothing was changed by looking.
    CHECK_FALSE(window.document().edited());
}

TEST_CASE("what is typed counts at once, and one undo takes it back after the editor is left") {
    CodeWindow window;
    const QRgb before = window.stage_pixel(2, 2);
    window.mark("6.0");
    window.key(Qt::Key_Right, Qt::ShiftModifier);
    window.type("1");
    window.settle();
    CHECK(window.formula().find("sum / 1.0") != std::string::npos);
    CHECK(window.stage_pixel(2, 2) != before);
    window.type("2");
    window.key(Qt::Key_Escape);
    window.document().undo();
    CHECK(window.formula() == code);
}

TEST_CASE("a fault is marked at its line while the last good picture stays") {
    CodeWindow window;
    const QRgb before = window.stage_pixel(2, 2);
    window.mark("sum += far");
    window.type("sun = 1.0; ");
    window.settle();
    REQUIRE(window.fault() != nullptr);
    REQUIRE(window.text().fault());
    const int at = window.text().fault()->first;
    CHECK(window.text().toPlainText().mid(at, 3) == QStringLiteral("sun"));
    CHECK(window.side().told_words().contains(QStringLiteral("line 4")));
    CHECK(window.side().told_words().contains(QStringLiteral("sun")));
    CHECK(window.stage_pixel(2, 2) == before);
    // The word of the line goes there.
    window.text().go_to(0);
    emit window.find<QLabel>("code_told")->linkActivated(QStringLiteral("fault"));
    CHECK(window.text().textCursor().selectedText() == QStringLiteral("sun"));
    window.type("sum");
    window.settle();
    CHECK(window.fault() == nullptr);
    CHECK_FALSE(window.text().fault());
    CHECK_FALSE(window.side().told_words().contains(QStringLiteral("line 4")));
}

// Values worked out by hand: at the middle pixel of 64, uv is 32.5/64, far is sqrt(2) * 0.5/64.
TEST_CASE("the variable at the mark tells its value at the held pixel, and is the picture where that is wanted") {
    CodeWindow window;
    const double far = std::sqrt(2.0) * 0.5 / 64;
    const auto value = [&] {
        const DrawnStep* drawn = window.drawing().probe().find(seen_step);
        REQUIRE(drawn != nullptr);
        return static_cast<double>(drawn->picture.at(0, 0)[0]);
    };
    window.mark("far =");
    CHECK(value() == Approx(far));
    CHECK(window.side().value_words().contains(QStringLiteral("far")));
    CHECK(window.side().value_words().contains(QStringLiteral("32, 32")));
    window.mark("sum +=");
    CHECK(value() == Approx(far * 6));
    window.mark("i < 4");
    CHECK(value() == 3);
    // At a pixel that is held.
    window.action("core_sample");
    window.click(&window.window().stage(), window.window().stage().screen_point({0, 32}));
    window.mark("far =");
    window.wait_for([&] { return window.side().value_words().contains(QStringLiteral("0, 32")); });
    CHECK(value() == Approx(std::hypot(0.5 / 64 - 0.5, 32.5 / 64 - 0.5)));
    window.action("core_sample");
    // On the stage.
    window.mark("far =");
    window.action("see_variable");
    window.settle();
    CHECK(window.drawing().shows_variable());
    CHECK(window.find<QAction>("see_variable")->isChecked());
    CHECK(static_cast<double>(window.drawing().stage().values->at(0, 32)[0]) ==
          Approx(std::hypot(0.5 / 64 - 0.5, 32.5 / 64 - 0.5)));
    // Another name, another picture; a word that is none leaves it.
    window.mark("i++");
    CHECK(window.drawing().stage().values->at(0, 32)[0] == 3);
    window.mark("return");
    CHECK(window.drawing().stage().values->at(0, 32)[0] == 3);
    // With a fault the last good one stays.
    window.mark("6.0");
    window.type("nothing ");
    window.settle();
    CHECK(window.fault() != nullptr);
    CHECK(window.drawing().shows_variable());
    window.key(Qt::Key_Escape);
    CHECK_FALSE(window.drawing().shows_variable());
    CHECK(window.text().isVisible());
    window.key(Qt::Key_Escape);
    CHECK_FALSE(window.text().isVisible());
    CHECK_FALSE(window.drawing().seen());
}

TEST_CASE("code is completed by what it declares, with signatures") {
    CodeWindow window;
    window.mark("return");
    window.type("float half_far = smoot");
    CHECK(window.side().completion().list().choices()[0].name.startsWith(QStringLiteral("smoothstep(")));
    window.key(Qt::Key_Tab);
    window.type("0.1, fa");
    REQUIRE(window.side().completion().list().isVisible());
    CHECK(window.side().completion().list().choices()[0].name == QStringLiteral("far"));
    window.key(Qt::Key_Tab);
    window.settle();
    CHECK(window.side().told_words().contains(QStringLiteral("<b>edge1</b>")) == (window.fault() == nullptr));
    window.type(", 1.0);");
    window.key(Qt::Key_Return);
    window.settle();
    CHECK(window.fault() == nullptr);
    CHECK(window.formula().find("float half_far = smoothstep(0.1, far, 1.0);\n") != std::string::npos);
    // A function is explained.
    window.mark("smoothstep");
    window.key(Qt::Key_F1);
    CHECK(window.window().help_card().isVisible());
    CHECK(window.side().help().contains(QStringLiteral("edge0")));
}

TEST_CASE("lines are moved, made remarks, and go on as far in as they should") {
    CodeWindow window;
    window.mark("sum +=");
    window.key(Qt::Key_Slash, Qt::ControlModifier);
    CHECK(window.formula().find("    // sum += far") != std::string::npos);
    window.key(Qt::Key_Slash, Qt::ControlModifier);
    CHECK(window.formula() == code);
    window.key(Qt::Key_BracketRight, Qt::ControlModifier);
    CHECK(window.formula().find("        sum += far") != std::string::npos);
    window.key(Qt::Key_BracketLeft, Qt::ControlModifier);
    CHECK(window.formula() == code);
    // Several at once, by Tab, as one change of the text.
    window.mark("float sum");
    for (int k = 0; k < 3; ++k) window.key(Qt::Key_Down, Qt::ShiftModifier);
    window.key(Qt::Key_Tab);
    CHECK(window.formula().find("    float sum = 0.0;\n    for (int i") != std::string::npos);
    CHECK(window.formula().find("        sum += far") != std::string::npos);
    window.key(Qt::Key_Backtab, Qt::ShiftModifier);
    CHECK(window.formula() == code);
    window.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(window.formula().find("    float sum = 0.0;\n    for (int i") != std::string::npos);
    window.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(window.formula() == code);
    // A new line behind an open bracket stands a step further in, what closes it further out.
    window.mark("return");
    window.type("if (far > 0.2) {");
    window.key(Qt::Key_Return);
    window.type("sum = 1.0;");
    window.key(Qt::Key_Return);
    window.type("}");
    window.key(Qt::Key_Return);
    CHECK(window.formula().find("if (far > 0.2) {\n    sum = 1.0;\n}\nreturn") != std::string::npos);
}

TEST_CASE("the bracket that belongs to the one at the mark is found") {
    CodeWindow window;
    window.mark("{");
    const auto pair = window.text().brackets();
    REQUIRE(pair);
    CHECK(window.text().toPlainText()[pair->second] == u'}');
    window.mark("float far");
    CHECK_FALSE(window.text().brackets());
    const auto other = [](const char* text, int at) { return matching_bracket(QString::fromUtf8(text), at); };
    CHECK(other("a(b[c], {})", 1) == 10);
    CHECK(other("a(b[c], {})", 10) == 1);
    CHECK(other("a(b[c], {})", 3) == 5);
    CHECK(other("( /* ) */ )", 0) == 10);
    CHECK(other("( // )\n)", 7) == 0);
    CHECK_FALSE(other("(]", 0));
    CHECK_FALSE(other("((", 0));
    CHECK_FALSE(other("// (\n)", 5));
    CHECK_FALSE(other("/* ( */ )", 3));
    CHECK_FALSE(other("x", 0));
    CHECK_FALSE(other("", 0));
    CHECK_FALSE(other("()", 2));
}

TEST_CASE("lines become remarks together, and code again together") {
    const QStringList some{QStringLiteral("    a;"), QString(), QStringLiteral("        b;"),
                           QStringLiteral("    // c")};
    const QStringList remarks = with_remarks_turned(some);
    CHECK(remarks == QStringList{QStringLiteral("    // a;"), QString(), QStringLiteral("    //     b;"),
                                 QStringLiteral("    // // c")});
    CHECK(with_remarks_turned(remarks) == some);
    CHECK(with_remarks_turned({QStringLiteral("//a")}) == QStringList{QStringLiteral("a")});
    CHECK(moved_in({QStringLiteral("  a"), QString()}, -1) == QStringList{QStringLiteral("a"), QString()});
    CHECK(moved_in({QStringLiteral("a")}, 2) == QStringList{QStringLiteral("        a")});
    CHECK(blanks_after(QStringLiteral("  f(a, {")) == QStringLiteral("      "));
    CHECK(blanks_after(QStringLiteral("  f(a); // {")) == QStringLiteral("  "));
}

TEST_CASE("words are found, and others put in their place") {
    CodeWindow window;
    window.text().go_to(0);
    window.key(Qt::Key_F, Qt::ControlModifier);
    FindBar& bar = window.side().find_bar();
    REQUIRE(bar.isVisible());
    CHECK(QApplication::focusWidget() == &bar.wanted());
    window.type("sum");
    window.key(Qt::Key_Return);
    CHECK(window.text().textCursor().block().blockNumber() == 1);
    window.key(Qt::Key_F3);
    CHECK(window.text().textCursor().block().blockNumber() == 3);
    window.key(Qt::Key_F3, Qt::ShiftModifier);
    CHECK(window.text().textCursor().block().blockNumber() == 1);
    window.key(Qt::Key_F3, Qt::ShiftModifier);
    CHECK(window.text().textCursor().block().blockNumber() == 5);
    CHECK(window.last_said.contains(QStringLiteral("From the end")));
    bar.other().setText(QStringLiteral("total"));
    bar.replace();
    CHECK(window.formula().find("return total / 6.0") != std::string::npos);
    bar.replace_all();
    window.settle();
    CHECK(window.formula().find("sum") == std::string::npos);
    CHECK(window.fault() == nullptr);
    bar.wanted().setFocus();
    bar.wanted().setText(QStringLiteral("nowhere"));
    window.key(Qt::Key_Return);
    CHECK(window.last_said.contains(QStringLiteral("nowhere")));
    window.key(Qt::Key_Escape);
    CHECK_FALSE(bar.isVisible());
    CHECK(QApplication::focusWidget() == &window.text());
}

TEST_CASE("the editor follows what changes elsewhere") {
    CodeWindow window;
    window.mark("6.0");
    window.type("1");
    window.document().undo();
    CHECK(window.text().toPlainText().toStdString() == code);
    window.document().select("plain");
    CHECK(window.text().toPlainText() == QStringLiteral("uv.x"));
    window.document().select("shown");
    CHECK(window.text().toPlainText().toStdString() == code);
    Finish gone = window.document().finish();
    gone.coats[0].steps.own().pop_back();
    window.document().edit(std::move(gone), QStringLiteral("gone"));
    CHECK_FALSE(window.text().isVisible());
    CHECK(window.window().ladder().isVisible());
}

TEST_CASE("a variable becomes a step from the editor") {
    CodeWindow window;
    window.mark("sum +=");
    window.key(Qt::Key_E, Qt::ControlModifier);
    window.settle();
    CHECK(find_step(window.document().finish(), "sum_2") != nullptr);
    CHECK(window.last_said.contains(QStringLiteral("step of its own")));
}

TEST_CASE("an operation of one's own is written in the same editor, with its head checked") {
    test::TemporaryFolder data;
    qputenv("XDG_DATA_HOME", QByteArray::fromStdString(data.path()));
    CodeWindow window;
    OperationsFolder operations(user_operations_folder(), window.document().disk());
    QObject::connect(&operations, &OperationsFolder::changed, &window.document(),
                     [&] { window.document().use_catalogue(operations.catalogue()); });
    window.action("edit_operation");
    REQUIRE(window.window().chooser().isVisible());
    window.type("lamp dim");
    window.key(Qt::Key_Return);
    REQUIRE(window.text().isVisible());
    CHECK(window.text().toPlainText().startsWith(QStringLiteral("//! title Lamp dim")));
    window.wait_for([&] { return window.side().told_words().contains(QStringLiteral("lamp_dim(what, much)")); });
    const std::string path = user_operations_folder() + "/lamp_dim.glsl";
    window.wait_for([&] { return std::filesystem::exists(path); });
    // A head that makes no sense is told of at its line, and not written.
    const QString good = window.text().toPlainText();
    window.mark("group");
    window.type("wat ");
    window.wait_for([&] { return window.side().told_words().contains(QStringLiteral("line 2")); });
    CHECK(window.side().settled());
    CHECK(qs(*read_whole_file(path, 65536)) == good);
    for (int k = 0; k < 4; ++k) window.key(Qt::Key_Backspace);
    window.mark("what * much");
    window.type("0.5 * ");
    window.wait_for(
        [&] { return read_whole_file(path, 65536)->find("return 0.5 * what * much;") != std::string::npos; });
    window.wait_for([&] { return window.side().settled(); });
    CHECK_FALSE(window.side().told_words().contains(QStringLiteral("line 2")));
    // It can be called.
    window.wait_for([&] { return window.document().checked().catalogue->operations.contains("lamp_dim"); });
    // Left with a fault, the text is there all the same.
    window.mark("return");
    window.type("oops ");
    window.key(Qt::Key_Escape);
    CHECK_FALSE(window.text().isVisible());
    window.wait_for([&] { return read_whole_file(path, 65536)->find("oops") != std::string::npos; });
    window.action("edit_operation");
    CHECK(window.window().chooser().list().choices()[0].name == QStringLiteral("lamp dim"));
    window.key(Qt::Key_Escape);
    qunsetenv("XDG_DATA_HOME");
}
