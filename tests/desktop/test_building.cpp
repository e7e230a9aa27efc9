// Finishes built from nothing in the real window: by keys alone, and by clicks.
#include <QApplication>
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "desktop/dials/dials_view.h"
#include "desktop/kit/choice_list.h"
#include "desktop/kit/chooser.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/stage/stage_view.h"
#include "desktop/tryon/try_on_sheet.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// Keys as a person counts them: one for each chord, one for each word typed.
class Hands {
public:
    explicit Hands(BenchWindow& bench) : bench_(bench) {}
    void press(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        ++chords_;
        bench_.key(key, modifiers);
    }
    void say(const std::string& words) {
        chords_ += 1 + static_cast<int>(std::count(words.begin(), words.end(), ' '));
        bench_.type(words);
    }
    /// A step below the selected one: its name, its formula.
    void step(const std::string& name, const std::string& formula) {
        press(Qt::Key_A);
        say(name);
        press(Qt::Key_Return);
        say(formula);
        press(Qt::Key_Return);
    }
    /// The number that is the word-th of the selected step's becomes a dial of this name.
    void dial(int word, const std::string& name) {
        for (int i = 0; i < word; ++i) press(Qt::Key_Right);
        press(Qt::Key_D);
        press(Qt::Key_D, Qt::ShiftModifier);
        say(name);
        press(Qt::Key_Return);
        press(Qt::Key_Escape);
        press(Qt::Key_F6);
    }
    int chords() const { return chords_; }

private:
    BenchWindow& bench_;
    int chords_ = 0;
};

double largest_difference(const QImage& a, const QImage& b) {
    REQUIRE(a.size() == b.size());
    int most = 0;
    for (int y = 0; y < a.height(); ++y) {
        for (int x = 0; x < a.width(); ++x) {
            const QRgb p = a.pixel(x, y);
            const QRgb q = b.pixel(x, y);
            most = std::max(
                {most, std::abs(qRed(p) - qRed(q)), std::abs(qGreen(p) - qGreen(q)), std::abs(qBlue(p) - qBlue(q))});
        }
    }
    return most;
}

QImage reference(const Finish& finish, const std::string& path) {
    const DrawnStep drawn = [&] {
        WorkerPool pool(2);
        Renderer renderer(pool);
        RenderRequest request;
        request.checked = test::checked(finish);
        request.finish_path = path;
        request.steps = {""};
        request.time = 0.25;
        Result<Frame> frame = renderer.render(request, Cancel());
        REQUIRE(frame);
        return std::move(frame->steps.front());
    }();
    WorkerPool pool(1);
    return to_qimage(to_image(drawn.picture, drawn.type, pool));
}

}  // namespace

TEST_CASE("the strike vignette is built from an empty finish by keys alone, in under 120 chords") {
    BenchWindow bench;
    Hands hands(bench);
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/lighthouse-storm.png");
    hands.press(Qt::Key_G);
    hands.step("reach", "length(centred(0))");
    hands.step("spray",
               "gradient_noise(vec3(centred() * 5, time * 0.7 + 51)) * 0.65 + "
               "gradient_noise(vec3(centred() * 13.5, time * 1.3)) * 0.35");
    hands.step("torn", "reach + (spray - 0.5) * 0.4");
    // A cue, a strike that answers it, and two dials that follow the strike.
    hands.press(Qt::Key_Q, Qt::AltModifier);
    hands.press(Qt::Key_Escape);
    hands.press(Qt::Key_R);
    hands.say("blow");
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_Escape);
    const auto driven = [&](const std::string& name, const std::string& formula, bool wide) {
        // Not one of the step's numbers, but a dial of its own.
        hands.press(Qt::Key_D);
        hands.press(Qt::Key_D);
        hands.say(name);
        hands.press(Qt::Key_Tab);
        hands.press(Qt::Key_Tab);
        hands.press(Qt::Key_Tab);
        hands.say(formula);
        hands.press(Qt::Key_Return);
        if (wide) {
            const auto at_most = [] {
                return QApplication::focusWidget()->objectName() == QStringLiteral("field_most");
            };
            for (int i = 0; i < 12 && !at_most(); ++i) hands.press(Qt::Key_Tab);
            hands.say("2");
            hands.press(Qt::Key_Return);
        }
        hands.press(Qt::Key_Escape);
    };
    driven("radius", "1.4 - 1.05 * blow", true);
    driven("presence", "blow.presence", false);
    hands.press(Qt::Key_F6);
    hands.step("rim", "smoothstep(radius, radius + 0.45, torn) * presence");
    hands.step("soft view", "blur_by_mask(scene, rim, 14)");
    hands.step("stained",
               "mix(soft_view, vec4(1.3, 0.09, 0.045, 1) * (0.25 + luminance(soft_view) * 1.5), rim * 0.92)");
    INFO(hands.chords() << " chords");
    CHECK(hands.chords() < 120);
    for (const CheckedStep& step : bench.document().checked().steps) {
        INFO(step.name);
        if (step.fault) FAIL(to_text(*step.fault));
    }
    // At rest the picture is untouched, to the last bit.
    bench.settle();
    const QImage scene = QImage(bench.to_add).convertToFormat(QImage::Format_RGBA8888);
    CHECK(largest_difference(bench.drawing().stage().image, scene.scaled(1280, 720)) <= 1);
    hands.press(Qt::Key_1);
    bench.playing().set_time(0.25);
    bench.settle();
    const QImage struck = bench.drawing().stage().image;
    CHECK(qRed(struck.pixel(4, 4)) > qRed(scene.pixel(4, 4)) + 40);
    // The same as the file that it is saved to, drawn without a window.
    bench.to_save = qs(bench.folder().file("vignette.lacquer"));
    hands.press(Qt::Key_S, Qt::ControlModifier);
    const auto saved = load_finish(bench.to_save.toStdString());
    REQUIRE(saved);
    CHECK(largest_difference(struck, reference(saved->finish, bench.to_save.toStdString())) <= 1);
}

TEST_CASE("a finish is built from empty to its reference picture by clicks") {
    BenchWindow bench;
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/lighthouse-storm.png");
    bench.action("add_picture");
    const auto button = [&](const char* action) {
        auto* found = bench.find<QWidget>((std::string("button_") + action).c_str());
        bench.click(found, found->rect().center());
    };
    // From the sheet: a vignette, then a picture softened by it.
    const auto take = [&](const std::string& operation) {
        button("try_on");
        TryOnSheet& sheet = bench.window().try_on();
        REQUIRE(sheet.isVisible());
        int wanted = -1;
        for (std::size_t i = 0; i < sheet.candidates().size(); ++i) {
            if (sheet.candidates()[i].operation == operation) wanted = static_cast<int>(i);
        }
        REQUIRE(wanted >= 0);
        const auto inside = [&] { return sheet.grid_viewport()->rect().contains(sheet.candidate_area(wanted)); };
        for (int i = 0; i < 200 && !inside(); ++i) {
            const QPoint middle = sheet.grid_viewport()->rect().center();
            QWheelEvent turn(middle, sheet.grid_viewport()->mapToGlobal(middle), {}, {0, -120}, Qt::NoButton,
                             Qt::NoModifier, Qt::NoScrollPhase, false);
            QCoreApplication::sendEvent(sheet.grid_viewport(), &turn);
        }
        REQUIRE(inside());
        bench.click(sheet.grid_viewport(), sheet.candidate_area(wanted).center());
        bench.click(sheet.grid_viewport(), sheet.candidate_area(wanted).center());
        REQUIRE_FALSE(sheet.isVisible());
    };
    take("vignette");
    CHECK(bench.document().selected() == "vignette");
    take("blur_by_mask");
    const std::string blurred = bench.document().selected();
    CHECK(bench.formula_of(blurred) == "blur_by_mask(scene, vignette)");
    // Another mask is chosen by its word, and taken back.
    LadderView& ladder = bench.window().ladder();
    bench.click(bench.ladder_view(), ladder.word_area(blurred, "vignette").center());
    REQUIRE(bench.window().chooser().isVisible());
    ChoiceList& list = bench.window().chooser().list();
    bench.click(list.viewport(), list.choice_area(0).center());
    CHECK(bench.formula_of(blurred) != "blur_by_mask(scene, vignette)");
    bench.action("undo");
    CHECK(bench.formula_of(blurred) == "blur_by_mask(scene, vignette)");
    const Finish built = bench.document().finish();
    CHECK_FALSE(find_step(bench.document().checked(), blurred)->fault);
    bench.playing().set_time(0.25);
    bench.settle();
    CHECK(largest_difference(bench.drawing().stage().image, reference(built, "")) <= 1);
}
