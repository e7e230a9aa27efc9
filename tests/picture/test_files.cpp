#include <algorithm>
#include <array>
#include <catch2/catch.hpp>

#include "core/picture/coded.h"
#include "core/picture/files.h"
#include "core/picture/reading.h"
#include "core/picture/transfer.h"
#include "tests/support/moving_png.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::TemporaryFolder;

namespace {

Image8 small_image(bool opaque) {
    Image8 image{3, 2, {}};
    for (int i = 0; i < 24; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 10));
    for (std::size_t i = 3; i < 24 && opaque; i += 4) image.data[i] = 255;
    return image;
}

}  // namespace

TEST_CASE("a PNG with opacity comes back in linear light, straight, to the bit") {
    const TemporaryFolder folder;
    for (const bool opaque : {true, false}) {
        const Image8 image = small_image(opaque);
        REQUIRE(write_png(folder.file("a.png"), image));
        const Result<Picture> read = read_picture(folder.file("a.png"), PictureMeaning::colour);
        REQUIRE(read);
        REQUIRE(read->width == 3);
        REQUIRE(read->height == 2);
        for (std::size_t i = 0; i < 24; ++i) {
            const float expected =
                i % 4 == 3 ? static_cast<float>(image.data[i]) / 255.0F : srgb_decode_table()[image.data[i]];
            CHECK(read->data[i] == expected);
        }
        const Result<Picture> data = read_picture(folder.file("a.png"), PictureMeaning::data);
        CHECK(data->data[4] == 40.0F / 255.0F);
    }
}

TEST_CASE("pictures that are missing or are none are told") {
    const TemporaryFolder folder;
    const auto id = [](const std::string& path) { return read_picture(path, PictureMeaning::colour).fault().id; };
    CHECK(id(folder.file("none.png")) == "picture.missing");
    CHECK(id(folder.path().string()) == "picture.unreadable");
    test::write_file(folder.file("text.png"), "this isn't a picture");
    CHECK(id(folder.file("text.png")) == "picture.unreadable");
    REQUIRE(write_png(folder.file("a.png"), small_image(false)));
    const std::string whole = test::read_file(folder.file("a.png"));
    test::write_file(folder.file("cut.png"), whole.substr(0, whole.size() / 2));
    CHECK(id(folder.file("cut.png")) == "picture.unreadable");
}

TEST_CASE("a picture that claims to be huge is refused before it is read") {
    const TemporaryFolder folder;
    // A Netpbm header is all that it takes to claim a size.
    test::write_file(folder.file("huge.ppm"), "P6 200000 200000 255\n");
    CHECK(read_picture(folder.file("huge.ppm"), PictureMeaning::colour).fault().id == "picture.too-large");
    CHECK_FALSE(is_drawable_size(32768, 32768));
    CHECK_FALSE(is_drawable_size(0, 5));
    CHECK(is_drawable_size(32768, 1));
}

TEST_CASE("a file that is shorter than its pixels is refused before room is made for them") {
    const TemporaryFolder folder;
    // TIFF 6.0, section 2: 8192 x 8192 grey bytes as they stand, of which there are none.
    std::string bytes("II*\0\x08\0\0\0\x09\0", 10);
    const auto put = [&](std::uint32_t value, int size) {
        for (int i = 0; i < size; ++i) bytes += static_cast<char>(value >> (8 * i) & 255U);
    };
    const std::array<std::array<std::uint32_t, 3>, 9> fields = {{{256, 4, 8192},
                                                                 {257, 4, 8192},
                                                                 {258, 3, 8},
                                                                 {259, 3, 1},
                                                                 {262, 3, 1},
                                                                 {273, 4, 8},
                                                                 {277, 3, 1},
                                                                 {278, 4, 8192},
                                                                 {279, 4, 67108864}}};
    for (const auto& [tag, type, value] : fields) put(tag, 2), put(type, 2), put(1, 4), put(value, 4);
    put(0, 4);
    test::write_file(folder.file("short.tif"), bytes);
    const Result<Picture> read = read_picture(folder.file("short.tif"), PictureMeaning::colour);
    REQUIRE_FALSE(read);
    CHECK(read.fault().message.find("cut short") != std::string::npos);
}

TEST_CASE("a picture that cannot be written leaves nothing behind") {
    const TemporaryFolder folder;
    const Result<Done> done = write_png(folder.file("no/a.png"), small_image(true));
    REQUIRE_FALSE(done);
    CHECK(done.fault().id == "file.unwritable");
    CHECK(std::filesystem::is_empty(folder.path()));
}

TEST_CASE("a drawing in SVG is drawn at its own size, straight, in linear light") {
    const TemporaryFolder folder;
    test::write_file(folder.file("a b.svg"),
                     R"(<svg xmlns="http://www.w3.org/2000/svg" width="8" height="4" viewBox="0 0 8 4">
                        <rect x="0" y="0" width="4" height="4" fill="#ff0000"/>
                        <rect x="4" y="0" width="4" height="2" fill="#808080" fill-opacity="0.5"/></svg>)");
    const auto read = read_picture(folder.file("a b.svg"), PictureMeaning::colour);
    REQUIRE(read);
    CHECK(read->width == 8);
    CHECK(read->height == 4);
    CHECK(read->at(1, 1)[0] == 1);
    CHECK(read->at(1, 1)[1] == 0);
    CHECK(read->at(1, 1)[3] == 1);
    // #808080 is 128/255, 0.215860500 in linear light (IEC 61966-2-1); premultiplied to 8 bits it loses a level.
    CHECK(read->at(6, 0)[1] == Approx(0.2158605).margin(0.004));
    CHECK(read->at(6, 0)[3] == Approx(0.5).margin(0.003));
    CHECK(read->at(6, 3)[3] == 0);
    const auto data = read_picture(folder.file("a b.svg"), PictureMeaning::data);
    CHECK(data->at(6, 0)[1] == Approx(128.0 / 255).margin(0.005));
}

TEST_CASE("a drawing without a size, a huge one and a broken one") {
    const TemporaryFolder folder;
    test::write_file(folder.file("plain.svg"),
                     R"(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 2 1"><rect width="2" height="1"/></svg>)");
    const auto plain = read_picture(folder.file("plain.svg"), PictureMeaning::colour);
    REQUIRE(plain);
    CHECK(plain->width >= 2);
    test::write_file(folder.file("huge.svg"),
                     R"(<svg xmlns="http://www.w3.org/2000/svg" width="1000000" height="10"/>)");
    const auto huge = read_picture(folder.file("huge.svg"), PictureMeaning::colour);
    REQUIRE(huge);
    CHECK(huge->width <= 8192);
    for (const char* text :
         {"", "<svg", "<svg xmlns='http://www.w3.org/2000/svg'><g></svg>", "GIF89a", "\xff\xfe\x01"}) {
        test::write_file(folder.file("broken.svg"), text);
        CHECK(read_picture(folder.file("broken.svg"), PictureMeaning::colour).fault().id == "picture.unreadable");
    }
}

TEST_CASE("a file is read by what it is, not by its name, and only by readers that are wanted") {
    const TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), small_image(true)));
    test::write_file(folder.file("named.jpg"), test::read_file(folder.file("a.png")));
    CHECK(read_picture(folder.file("named.jpg"), PictureMeaning::colour));
    // A bitmap of one pixel, which the library could read.
    const unsigned char bitmap[] = {'B', 'M', 58, 0, 0, 0, 0, 0, 0,  0, 54, 0, 0, 0, 40, 0, 0, 0, 1, 0,
                                    0,   0,   1,  0, 0, 0, 1, 0, 24, 0, 0,  0, 0, 0, 4,  0, 0, 0, 0, 0,
                                    0,   0,   0,  0, 0, 0, 0, 0, 0,  0, 0,  0, 0, 0, 9,  9, 9, 0};
    test::write_file(folder.file("b.bmp"), std::string(reinterpret_cast<const char*>(bitmap), sizeof bitmap));
    const auto refused = read_picture(folder.file("b.bmp"), PictureMeaning::colour);
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().message.find("none of PNG") != std::string::npos);
}

TEST_CASE("pictures that ImageMagick wrote hold its values, and cut or altered ones do no harm") {
    const TemporaryFolder folder;
    std::string plain = "P6 23 19 255\n";
    for (int y = 0; y < 19; ++y) {
        for (int x = 0; x < 23; ++x) {
            for (const int part : {x * 9, y * 11, x + y}) plain += static_cast<char>(part);
        }
    }
    test::write_file(folder.file("plain.ppm"), plain);
    for (const std::string name : {"a.png", "b.tiff", "c.webp", "d.jpg", "e.ppm", "f.hdr"}) {
        INFO(name);
        const std::string path = folder.file(name);
        const std::string options = " -quality 100 -define webp:lossless=true -sampling-factor 1x1 ";
        REQUIRE(test::run_command("convert " + folder.file("plain.ppm") + options + path).code == 0);
        const std::string whole = test::read_file(path);
        const auto read = read_picture(path, PictureMeaning::data);
        REQUIRE(read);
        REQUIRE(read->width == 23);
        REQUIRE(read->height == 19);
        const double margin = name == "d.jpg" ? 0.02 : name == "f.hdr" ? 0.005 : 0;
        CHECK(read->at(7, 12)[0] == Approx(63.0 / 255).margin(margin));
        CHECK(read->at(7, 12)[1] == Approx(132.0 / 255).margin(margin));
        // Cut at many places, and with bytes that lie: a fault or some picture, never worse.
        for (std::size_t i = 1; i < 24; ++i) {
            std::string broken = whole.substr(0, whole.size() * i / 24);
            test::write_file(path, broken);
            (void)read_picture(path, PictureMeaning::colour);
            broken = whole;
            char& lying = broken[broken.size() * i / 24];
            lying = static_cast<char>(lying ^ 0x55);
            test::write_file(path, broken);
            (void)read_picture(path, PictureMeaning::colour);
        }
    }
}

TEST_CASE("how large a picture is, is asked before it is decoded, and once more before it is taken") {
    const TemporaryFolder folder;
    Image8 image{40, 300, {}};
    image.data.resize(40 * 300 * 4, 77);
    REQUIRE(write_png(folder.file("a.png"), image));
    for (const int refused_at : {1, 2, 3}) {
        int told = 0;
        const ReadWatch watch([](double) { return true; },
                              [&](int width, int height, int bytes) {
                                  CHECK(bytes == 4);
                                  CHECK(width == 40);
                                  CHECK(height == 300);
                                  return ++told != refused_at;
                              });
        const auto read = read_picture_watched(folder.file("a.png"), PictureMeaning::data, 0, watch);
        CHECK(told == std::min(refused_at, 2));
        if (refused_at > 2) {
            CHECK(read);
        } else {
            REQUIRE_FALSE(read);
            CHECK(read.fault().id == "picture.stopped");
        }
    }
}

TEST_CASE("reading tells how far it has come, and stops when it is asked to") {
    const TemporaryFolder folder;
    Image8 image{40, 300, {}};
    image.data.resize(40 * 300 * 4, 77);
    REQUIRE(write_png(folder.file("a.png"), image));
    std::vector<double> shares;
    const auto whole = read_picture_watched(folder.file("a.png"), PictureMeaning::data, 0, [&](double share) {
        shares.push_back(share);
        return true;
    });
    REQUIRE(whole);
    CHECK(shares.size() > 2);
    CHECK(shares.front() < 1e-5);
    CHECK(std::is_sorted(shares.begin(), shares.end()));
    CHECK(decoded(*whole).at(39, 299)[1] == 77.0F / 255.0F);
    const auto stopped =
        read_picture_watched(folder.file("a.png"), PictureMeaning::data, 0, [](double share) { return share < 0.5; });
    CHECK(stopped.fault().id == "picture.stopped");
}

TEST_CASE("a GIF's pictures follow one another") {
    const TemporaryFolder folder;
    // Two pictures of one pixel, black and white, a tenth of a second each: GIF89a, written out by hand.
    const unsigned char bytes[] = {
        'G', 'I', 'F', '8', '9', 'a',  1,    0, 1, 0, 0x80, 0, 0, 0, 0, 0, 0xff, 0xff, 0xff, 0x21, 0xf9, 4,
        0,   10,  0,   0,   0,   0x2c, 0,    0, 0, 0, 1,    0, 1, 0, 0, 2, 2,    0x44, 1,    0,    0x21, 0xf9,
        4,   0,   10,  0,   0,   0,    0x2c, 0, 0, 0, 0,    1, 0, 1, 0, 0, 2,    2,    0x4c, 1,    0,    0x3b};
    test::write_file(folder.file("blink.gif"), std::string(reinterpret_cast<const char*>(bytes), sizeof bytes));
    const auto frames = picture_frames(folder.file("blink.gif"));
    REQUIRE(frames);
    CHECK(frames->count == 2);
    REQUIRE(frames->ends.size() == 2);
    CHECK(frames->ends[0] == Approx(0.1));
    CHECK(frames->ends[1] == Approx(0.2));
    CHECK(read_picture(folder.file("blink.gif"), PictureMeaning::colour, 0)->at(0, 0)[0] == 0);
    CHECK(read_picture(folder.file("blink.gif"), PictureMeaning::colour, 1)->at(0, 0)[0] == 1);
    REQUIRE(write_png(folder.file("a.png"), small_image(true)));
    CHECK(picture_frames(folder.file("a.png"))->count == 1);
    CHECK(picture_frames(folder.file("none.gif")).fault().id == "picture.missing");
}

TEST_CASE("an animated PNG: its times, and each picture laid over those before") {
    const TemporaryFolder folder;
    const std::string path = test::moving_png(folder, "moving.png");
    const auto frames = picture_frames(path);
    REQUIRE(frames);
    REQUIRE(frames->count == 3);
    CHECK(frames->ends[0] == Approx(0.25));
    CHECK(frames->ends[1] == Approx(0.75));
    CHECK(frames->ends[2] == Approx(0.85));
    CHECK(frame_at(*frames, 0.2) == 0);
    CHECK(frame_at(*frames, 0.25) == 1);
    CHECK(frame_at(*frames, 0.8) == 2);
    CHECK(frame_at(*frames, 0.85 + 0.3) == 1);
    CHECK(frame_at(*frames, -1) == 0);
    const auto red = [&](int frame, int x) { return read_picture(path, PictureMeaning::data, frame)->at(x, 0)[0]; };
    CHECK(red(0, 0) == 10.0F / 255);
    CHECK(red(0, 3) == 10.0F / 255);
    // The second is laid over the right half of the first; the third over what that left.
    CHECK(red(1, 0) == 10.0F / 255);
    CHECK(red(1, 2) == 200.0F / 255);
    CHECK(red(2, 0) == 90.0F / 255);
    CHECK(red(2, 3) == 200.0F / 255);
    CHECK(read_picture(path, PictureMeaning::data, 1)->at(2, 1)[3] == 1);
    CHECK(read_picture(path, PictureMeaning::data, 3).fault().id == "picture.unreadable");
    int asked = 0;
    const auto stopped = read_picture_watched(path, PictureMeaning::data, 2, [&](double) { return ++asked < 2; });
    CHECK(stopped.fault().id == "picture.stopped");
}

TEST_CASE("animations that are cut or altered do no harm") {
    const TemporaryFolder folder;
    const std::string whole = test::read_file(test::moving_png(folder, "moving.png"));
    for (std::size_t i = 0; i < whole.size(); i += 3) {
        std::string altered = whole;
        altered[i] = static_cast<char>(altered[i] ^ 0x55);
        test::write_file(folder.file("altered.png"), altered);
        test::write_file(folder.file("cut.png"), whole.substr(0, i));
        for (const char* name : {"altered.png", "cut.png"}) {
            const auto frames = picture_frames(folder.file(name));
            if (frames) CHECK(frames->count < 10000);
            const auto last = read_picture(folder.file(name), PictureMeaning::colour, 2);
            if (last) CHECK(last->data.size() == static_cast<std::size_t>(last->width) * last->height * 4);
        }
    }
}

TEST_CASE("opacity that was multiplied into colours is divided out again") {
    const TemporaryFolder folder;
    Image8 image{2, 1, {100, 50, 0, 128, 30, 30, 30, 0}};
    REQUIRE(write_png(folder.file("a.png"), image));
    const auto straight = read_picture(folder.file("a.png"), PictureMeaning::colour);
    const auto multiplied = read_picture(folder.file("a.png"), PictureMeaning::multiplied);
    REQUIRE(multiplied);
    CHECK(straight->at(0, 0)[0] == srgb_decode_table()[100]);
    // 100/255 over 128/255 is 0.78125 as a display value; the curve is that of IEC 61966-2-1.
    CHECK(multiplied->at(0, 0)[0] == Approx(srgb_decode(0.78125)));
    CHECK(multiplied->at(0, 0)[1] == Approx(srgb_decode(0.390625)));
    CHECK(multiplied->at(0, 0)[3] == 128.0F / 255);
    CHECK(multiplied->at(1, 0)[0] == straight->at(1, 0)[0]);
}

TEST_CASE("reading a layer tells how far it has come, and stops when it is asked to") {
    const TemporaryFolder folder;
    Picture depth(30, 200, 4);
    for (std::size_t i = 0; i < depth.data.size(); ++i) depth.data[i] = static_cast<float>(i);
    REQUIRE(write_exr(folder.file("a.exr"), {{"R", &depth, 0}, {"G", &depth, 1}, {"B", &depth, 2}, {"Z", &depth, 3}}));
    std::vector<double> shares;
    const auto whole = read_layer_watched(folder.file("a.exr"), "", [&](double share) {
        shares.push_back(share);
        return true;
    });
    REQUIRE(whole);
    CHECK(shares.size() > 6);
    CHECK(std::is_sorted(shares.begin(), shares.end()));
    CHECK(whole->at(29, 199)[2] == depth.at(29, 199)[2]);
    const auto stopped = read_layer_watched(folder.file("a.exr"), "Z", [](double share) { return share < 0.5; });
    CHECK(stopped.fault().id == "picture.stopped");
}

TEST_CASE("of floats the artist may know better than the file whether opacity is multiplied in") {
    const TemporaryFolder folder;
    Picture glass(1, 1, 4);
    glass.data = {0.5F, 0.25F, 1.0F, 0.5F};
    const std::vector<WrittenChannel> channels = {
        {"R", &glass, 0}, {"G", &glass, 1}, {"B", &glass, 2}, {"A", &glass, 3}};
    REQUIRE(write_exr(folder.file("usual.exr"), channels));
    REQUIRE(write_exr(folder.file("marked.exr"), channels, true));
    const auto red = [&](const char* file, PictureMeaning meaning) {
        const float whole = read_picture(folder.file(file), meaning)->data[0];
        const auto unwatched = [](double) { return true; };
        CHECK(read_layer_watched(folder.file(file), "", unwatched, meaning)->data[0] == whole);
        return whole;
    };
    // Source: OpenEXR's technical introduction, from memory: colours are stored multiplied by opacity.
    CHECK(red("usual.exr", PictureMeaning::colour) == 1.0F);
    CHECK(red("usual.exr", PictureMeaning::straight) == 0.5F);
    CHECK(red("marked.exr", PictureMeaning::colour) == 0.5F);
    CHECK(red("marked.exr", PictureMeaning::multiplied) == 1.0F);
}

TEST_CASE("opacity multiplied into 8 bits is taken out of the display values, before they are turned into light") {
    // Common practice, no source: programs multiply what they show, after the sRGB curve (IEC 61966-2-1).
    const TemporaryFolder folder;
    const Image8 image{1, 1, {64, 32, 128, 128}};
    REQUIRE(write_png(folder.file("a.png"), image));
    const auto read = read_picture(folder.file("a.png"), PictureMeaning::multiplied);
    REQUIRE(read);
    CHECK(read->data[0] == Approx(srgb_decode(64.0 / 128)).margin(1e-5));
    CHECK(read->data[1] == Approx(srgb_decode(32.0 / 128)).margin(1e-5));
    CHECK(read->data[2] == 1);
    CHECK(read->data[3] == Approx(128.0 / 255));
}
