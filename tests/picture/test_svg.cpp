// Drawings that mean harm: they reach no other file, and are called off.
#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <chrono>

#include "core/picture/files.h"
#include "core/picture/reading.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

std::string svg(const std::string& inside) {
    return "<?xml version=\"1.0\"?><svg xmlns=\"http://www.w3.org/2000/svg\" "
           "xmlns:xi=\"http://www.w3.org/2001/XInclude\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"64\" "
           "height=\"64\">" +
           inside + "</svg>";
}

}  // namespace

TEST_CASE("a drawing that includes itself, a pipe or a text is drawn without them, or told") {
    const test::TemporaryFolder folder;
    REQUIRE(mkfifo(folder.file("pipe").c_str(), 0600) == 0);
    test::write_file(folder.file("secret.txt"), "a secret");
    const std::string pipe = folder.file("pipe");
    for (const std::string& inside :
         {std::string("<xi:include href=\"own.svg\"/>"), "<xi:include href=\"file://" + folder.file("own.svg") + "\"/>",
          std::string("<style>@import url(\"own.css\");</style>"), "<image xlink:href=\"file://" + pipe + "\"/>",
          "<xi:include href=\"" + pipe + "\" parse=\"text\"/>", "<style>@import url(\"file://" + pipe + "\");</style>",
          "<text><xi:include href=\"" + folder.file("secret.txt") + "\" parse=\"text\"/></text>"}) {
        INFO(inside);
        test::write_file(folder.file("own.css"), "@import url(\"own.css\");");
        test::write_file(folder.file("own.svg"), svg(inside));
        const auto begin = std::chrono::steady_clock::now();
        const auto read = read_picture(folder.file("own.svg"), PictureMeaning::colour);
        CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(10));
        if (!read) {
            CHECK(read.fault().id == "picture.unreadable");
            continue;
        }
        // Nothing of another file is to be seen.
        for (std::size_t i = 3; i < read->data.size(); i += 4) REQUIRE(read->data[i] == 0);
    }
}

TEST_CASE("a drawing that takes minutes is called off at once") {
    const test::TemporaryFolder folder;
    std::string filters = "<filter id=\"f\" x=\"0\" y=\"0\" width=\"1\" height=\"1\">";
    for (int i = 0; i < 40; ++i) filters += "<feTurbulence baseFrequency=\"0.7\" numOctaves=\"9\"/>";
    std::string slow = svg(filters + "</filter><rect width=\"64\" height=\"64\" filter=\"url(#f)\"/>");
    slow.replace(slow.find("width=\"64\" height=\"64\""), 22, "width=\"8192\" height=\"8192\" viewBox=\"0 0 64 64\"");
    test::write_file(folder.file("slow.svg"), slow);
    const auto begin = std::chrono::steady_clock::now();
    int asked = 0;
    const auto read =
        read_picture_watched(folder.file("slow.svg"), PictureMeaning::colour, 0, [&](double) { return ++asked < 10; });
    REQUIRE_FALSE(read);
    CHECK(read.fault().id == "picture.stopped");
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(5));
}
