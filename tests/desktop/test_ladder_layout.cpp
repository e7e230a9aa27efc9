// Where rows stand, and how formulas are coloured.
#include <catch2/catch.hpp>

#include "desktop/formulas/formula_text.h"
#include "desktop/kit/theme.h"
#include "desktop/ladder/ladder_layout.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("forty steps at 460 pixels: closed rows are 32 high, the selected one is open, all in order") {
    Finish finish = test::finish_of({});
    for (int i = 0; i < 40; ++i)
        finish.coats[0].steps.push_back(Step{"s" + std::to_string(i), "1", "", true, false, {}});
    LadderMetrics metrics;
    metrics.formula_height = 34;
    const std::vector<LadderRow> rows = ladder_rows(finish, "s7", metrics);
    REQUIRE(rows.size() == 41);
    CHECK(rows[0].kind == LadderRowKind::coat);
    CHECK(rows[0].area.height() == coat_row_height);
    for (std::size_t i = 1; i < rows.size(); ++i) {
        CHECK(rows[i].area.top() == rows[i - 1].area.bottom() + 1);
        if (rows[i].name != "s7") CHECK(rows[i].area.height() == step_row_height);
        CHECK(rows[i].area.contains(rows[i].thumbnail));
        CHECK(rows[i].area.contains(rows[i].formula_area));
        CHECK_FALSE(rows[i].thumbnail.intersects(rows[i].name_area));
        CHECK_FALSE(rows[i].name_area.intersects(rows[i].formula_area));
    }
    const LadderRow* open = find_row(rows, "s7");
    REQUIRE(open != nullptr);
    CHECK(open->area.height() > 2 * step_row_height);
    CHECK(open->thumbnail.width() == 120);
    CHECK(find_row(rows, "none") == nullptr);
}

TEST_CASE("an open row grows with its formula, its fault and its note; a folded coat has no rows") {
    Finish finish = test::finish_of({{"a", "1"}, {"b", "2"}});
    LadderMetrics metrics;
    metrics.formula_height = 60;
    const int plain = find_row(ladder_rows(finish, "a", metrics), "a")->area.height();
    metrics.lines = 3;
    CHECK(find_row(ladder_rows(finish, "a", metrics), "a")->area.height() == plain + 2 * row_line_height);
    finish.coats[0].folded = true;
    CHECK(ladder_rows(finish, "a", metrics).size() == 1);
}

TEST_CASE("words of a formula have the colour of what they name") {
    Finish finish = test::demo_finish();
    const std::string formula = "mix(soft_view, tint, 0.5) + uv.x";
    const auto ranges = formula_formats(formula, finish);
    const auto colour_of = [&](const std::string& word) {
        const auto at = static_cast<int>(formula.find(word));
        for (const auto& range : ranges) {
            if (range.start == at) return range.format.foreground().color();
        }
        return QColor();
    };
    CHECK(colour_of("soft_view") == theme::gold);
    CHECK(colour_of("tint") == theme::vermilion_text);
    CHECK(colour_of("mix") == theme::quiet);
    CHECK(colour_of("uv") == theme::text);
    CHECK(formula_formats("rim $ 2", finish).isEmpty());
}

TEST_CASE("places in a formula are right after letters of several bytes") {
    const std::string formula = "/* \xC3\xA9\xE2\x80\x93 */ rim";
    const auto byte = static_cast<std::uint32_t>(formula.find("rim"));
    CHECK(QString::fromStdString(formula).mid(text_index(formula, byte)) == QStringLiteral("rim"));
    CHECK(text_index(formula, 9999) == QString::fromStdString(formula).size());
}

TEST_CASE("text has enough contrast on its ground") {
    // Source: W3C WCAG 2.1, relative luminance and contrast ratio, from memory; 4.5 is its level AA for text.
    const auto luminance = [](const QColor& colour) {
        const auto part = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
        return 0.2126 * part(colour.redF()) + 0.7152 * part(colour.greenF()) + 0.0722 * part(colour.blueF());
    };
    const auto contrast = [&](const QColor& a, const QColor& b) {
        const double x = luminance(a);
        const double y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    };
    for (const QColor& ground : {theme::black, theme::panel, theme::raised}) {
        for (const QColor& words : {theme::text, theme::quiet, theme::vermilion_text, theme::gold, theme::celadon}) {
            INFO(ground.name().toStdString() << " " << words.name().toStdString());
            CHECK(contrast(ground, words) >= 4.5);
        }
    }
}
