// Operations of the user's own, dropped into their folder while the window is open; code in a step.
#include <catch2/catch.hpp>
#include <filesystem>

#include "desktop/document/operations_folder.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("an operation dropped into the folder is there at once, and one with a mistake shows its fault") {
    BenchWindow bench(test::demo_path());
    const std::string folder = bench.folder().file("operations");
    OperationsFolder operations(folder, bench.document().disk());
    QObject::connect(&operations, &OperationsFolder::changed, &bench.document(),
                     [&] { bench.document().use_catalogue(operations.catalogue()); });
    bench.document().select("torn");
    bench.key(Qt::Key_E);
    bench.type("own(reach)");
    bench.key(Qt::Key_Return);
    const auto fault = [&] { return find_step(bench.document().checked(), "torn")->fault; };
    REQUIRE(fault());
    CHECK(fault()->id == "lang.unknown-function");

    const std::string head =
        "//! title Own\n//! group Own\n//! about Doubles.\n//! says own\n//! value x same number : what\n";
    test::write_file(folder + "/own.glsl", head + "same own(same x) { return x * 2; }\n");
    bench.wait_for([&] { return !fault(); });
    bench.settle();

    test::write_file(folder + "/own.glsl", head + "same own(same x) { return x * ; }\n");
    bench.wait_for([&] { return fault().has_value(); });
    CHECK(fault()->id == "finish.operation");
    CHECK(fault()->message.starts_with("'own' has a fault in line 6 of its file: "));
    CHECK(bench.last_said.contains(QStringLiteral("own.glsl")));

    std::filesystem::remove(folder + "/own.glsl");
    bench.wait_for([&] { return fault() && fault()->id == "lang.unknown-function"; });
}

TEST_CASE("a step may hold code, typed like any formula") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.key(Qt::Key_E);
    bench.type("float sum = 0.0; for (int i = 0; i < 4; i++) { sum += reach; } return sum / 4.0;");
    bench.key(Qt::Key_Return);
    bench.settle();
    const CheckedStep* step = find_step(bench.document().checked(), "torn");
    REQUIRE(step->typed);
    CHECK(step->typed->type == Type::number);
}
