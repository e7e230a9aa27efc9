// Pictures that the program writes, read back by other libraries.
#include <ImfArray.h>
#include <ImfChannelList.h>
#include <ImfFrameBuffer.h>
#include <ImfHeader.h>
#include <ImfInputFile.h>
#include <sys/stat.h>

#include <bit>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/file.h"
#include "core/picture/files.h"
#include "core/picture/transfer.h"
#include "core/picture/write_picture.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::CommandResult;
using test::run_cli;
using test::TemporaryFolder;

namespace {

// A finish with a step of each width, saved.
std::string saved_finish(const TemporaryFolder& folder) {
    Finish finish = test::finish_of({{"mask", "uv.x * 3 - 1"},
                                     {"place", "uv * 2"},
                                     {"light", "vec3(uv.x * 4, uv.y / 3, 0.25)"},
                                     {"glass", "vec4(uv.x * 4, uv.y / 3, 0.25, 0.1 + uv.x * 0.8)"}});
    finish.frame_width = 40;
    finish.frame_height = 24;
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
    return folder.file("f.lacquer");
}

// One channel of an OpenEXR file, by the format's own library.
std::vector<float> channel_of(const std::string& path, const std::string& name) {
    Imf::InputFile file(path.c_str());
    const auto window = file.header().dataWindow();
    const int width = window.max.x - window.min.x + 1;
    const int height = window.max.y - window.min.y + 1;
    REQUIRE(file.header().channels().findChannel(name.c_str()) != nullptr);
    std::vector<float> values(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    Imf::FrameBuffer frame;
    frame.insert(name.c_str(), Imf::Slice(Imf::FLOAT, reinterpret_cast<char*>(values.data()), sizeof(float),
                                          sizeof(float) * static_cast<std::size_t>(width)));
    file.setFrameBuffer(frame);
    file.readPixels(window.min.y, window.max.y);
    return values;
}

}  // namespace

TEST_CASE("floats of every width come back from OpenEXR bit for bit, several steps as layers of one file") {
    const TemporaryFolder folder;
    const std::string finish = saved_finish(folder);
    const CommandResult done = run_cli("render '" + finish +
                                       "' --step mask --step place --step light --step glass "
                                       "--opacity straight -o '" +
                                       folder.file("all.exr") + "'");
    INFO(done.output);
    REQUIRE(done.code == 0);
    const Finish same = load_finish(finish)->finish;
    for (const auto& [step, channels] : std::vector<std::pair<std::string, std::string>>{
             {"mask", "Y"}, {"place", "RG"}, {"light", "RGB"}, {"glass", "RGBA"}}) {
        const Picture drawn = test::draw(same, step, 40, 24).picture;
        for (std::size_t c = 0; c < channels.size(); ++c) {
            const std::vector<float> read = channel_of(folder.file("all.exr"), step + "." + channels[c]);
            for (std::size_t i = 0; i < read.size(); ++i) {
                REQUIRE(std::bit_cast<std::uint32_t>(read[i]) ==
                        std::bit_cast<std::uint32_t>(drawn.data[i * channels.size() + c]));
            }
        }
    }
    // One step, straight: our own reader takes it as it is; multiplied: it divides.
    const Picture glass = test::draw(same, "glass", 40, 24).picture;
    for (const char* opacity : {"straight", "multiplied"}) {
        REQUIRE(run_cli("render '" + finish + "' --step glass --opacity " + opacity + " -o '" + folder.file("one.exr") +
                        "'")
                    .code == 0);
        const auto read = read_picture(folder.file("one.exr"), PictureMeaning::colour);
        REQUIRE(read);
        for (std::size_t i = 0; i < glass.data.size(); ++i)
            REQUIRE(read->data[i] == Approx(glass.data[i]).epsilon(1e-6));
        const float first = channel_of(folder.file("one.exr"), "R")[30];
        CHECK(first == Approx(opacity[0] == 's' ? glass.data[120] : glass.data[120] * glass.data[123]));
    }
    REQUIRE(run_cli("render '" + finish + "' --step light --bits 16 -o '" + folder.file("half.exr") + "'").code == 0);
    CHECK(channel_of(folder.file("half.exr"), "R")[3] == Approx(3.5 / 40 * 4).epsilon(1e-3));
}

TEST_CASE("PNG of 8 and 16 bits, TIFF, WebP and JPEG hold what their names say, colours by the sRGB curve, data not") {
    // Source of the values: IEC 61966-2-1.
    const TemporaryFolder folder;
    const std::string finish = saved_finish(folder);
    const auto pixel = [&](const std::string& file, const std::string& options, int x, int y) {
        const std::string path = folder.file(file);
        const CommandResult done = run_cli("render '" + finish + "' " + options + " -o '" + path + "'");
        INFO(done.output);
        REQUIRE(done.code == 0);
        const auto read = read_picture(path, PictureMeaning::data);
        if (!read) FAIL(to_text(read.fault()));
        return std::vector<float>(read->at(x, y), read->at(x, y) + 4);
    };
    const double third = srgb_encode((12 + 0.5) / 24 / 3);
    for (const auto& [file, options, tolerance] :
         std::vector<std::tuple<std::string, std::string, double>>{{"a.png", "", 0.002},
                                                                   {"b.png", "--bits 16", 1e-5},
                                                                   {"c.tif", "", 0.002},
                                                                   {"d.tiff", "--bits 16", 1e-5},
                                                                   {"e.webp", "", 0.002},
                                                                   {"f.jpg", "", 0.03}}) {
        INFO(file);
        const auto read = pixel(file, "--step light " + options, 5, 12);
        CHECK(static_cast<double>(read[1]) == Approx(third).margin(tolerance));
        const auto data = pixel(file, "--data --step light " + options, 5, 12);
        CHECK(static_cast<double>(data[1]) == Approx((12 + 0.5) / 24 / 3).margin(tolerance));
        const auto number = pixel(file, "--step mask " + options, 20, 3);
        CHECK(static_cast<double>(number[0]) == Approx(20.5 / 40 * 3 - 1).margin(tolerance));
    }
    CHECK(static_cast<double>(pixel("g.tif", "--step light --bits 32", 35, 1)[0]) == Approx(35.5 / 40 * 4));
    const auto glass = pixel("h.png", "--step glass --bits 16", 10, 3);
    CHECK(static_cast<double>(glass[3]) == Approx(0.1 + 10.5 / 40 * 0.8).margin(1e-4));
    // The first bytes tell the kinds apart.
    CHECK(test::read_file(folder.file("e.webp")).substr(8, 4) == "WEBP");
    CHECK(test::read_file(folder.file("f.jpg")).substr(0, 2) == "\xff\xd8");
    CHECK(test::read_file(folder.file("a.png")).substr(1, 3) == "PNG");
}

TEST_CASE("what cannot be written is said before anything is drawn") {
    const TemporaryFolder folder;
    const std::string finish = "render '" + saved_finish(folder) + "' ";
    const auto refused = [&](const std::string& words, const std::string& says) {
        const CommandResult result = run_cli(finish + words);
        INFO(words << "\n" << result.output);
        CHECK(result.code == 1);
        CHECK(result.output.find(says) != std::string::npos);
    };
    refused("-o '" + folder.file("a.bmp") + "'", "does not end as a picture's does");
    refused("-o '" + folder.file("noending") + "'", "does not end as a picture's does");
    refused("-o '" + folder.file("a.png") + "' --bits 32", "it has 8, 16");
    refused("-o '" + folder.file("a.webp") + "' --bits 16", "it has 8");
    refused("-o '" + folder.file("a.png") + "' --step mask --step light", "only OpenEXR");
    refused("-o '" + folder.file("a.exr") + "' --opacity odd", "straight or multiplied");
    CHECK_FALSE(std::filesystem::exists(folder.file("a.png")));
    const Picture picture = test::test_picture(4, 4);
    const WrittenLayer layer{"a", &picture};
    CHECK(check_writing("a.bmp", 1, {}).fault().id == "picture.ending");
    CHECK(check_writing("a.jpg", 1, {16}).fault().id == "picture.bits");
    CHECK(check_writing("a.tif", 2, {}).fault().id == "picture.layers");
    CHECK(write_picture(folder.file("no/a.png"), {&layer, 1}, {}).fault().id == "file.unwritable");
}

TEST_CASE("codes tell how it ended: 0 as asked, 1 a fault, 3 with something missing; strictly that is a fault, too") {
    const TemporaryFolder folder;
    Finish finish = test::finish_of({{"a", "texture(scene, uv)"}});
    finish.frame_width = 32;
    finish.frame_height = 18;
    finish.grounds.push_back(test::picture_ground("scene", "gone.png"));
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
    const std::string words = "render '" + folder.file("f.lacquer") + "' -o '" + folder.file("a.png") + "'";
    const CommandResult missing = run_cli(words);
    CHECK(missing.code == 3);
    CHECK(missing.output.find("gone.png") != std::string::npos);
    CHECK(std::filesystem::exists(folder.file("a.png")));
    CHECK(run_cli(words + " --strict").code == 1);
    Image8 image{2, 2, {}};
    image.data.resize(16, 255);
    REQUIRE(write_png(folder.file("gone.png"), image));
    CHECK(run_cli(words).code == 0);
    CHECK(run_cli(words + " --strict").code == 0);
    finish.responses = {{"odd", "no_such_kind", "", {}}};
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
    CHECK(run_cli(words).code == 3);
    CHECK(run_cli(words + " --strict").code == 1);
}

TEST_CASE("a device and a pipe are written to, not replaced") {
    const TemporaryFolder folder;
    const std::string words = "render '" + saved_finish(folder) + "' --step mask -o ";
    CHECK(run_cli(words + "/dev/null").code == 0);
    CHECK(std::filesystem::is_character_file("/dev/null"));
    REQUIRE(mkfifo(folder.file("pipe.png").c_str(), 0600) == 0);
    const CommandResult piped = test::run_command("cat '" + folder.file("pipe.png") + "' > '" + folder.file("got.png") +
                                                  "' & '" + test::program_folder() + "/lacquer-cli' " + words + "'" +
                                                  folder.file("pipe.png") + "'; wait");
    INFO(piped.output);
    CHECK(std::filesystem::is_fifo(folder.file("pipe.png")));
    CHECK(read_picture(folder.file("got.png"), PictureMeaning::data));
}

TEST_CASE("a small finish with PNG in and out never loads the large picture library") {
    const TemporaryFolder folder;
    Image8 image{16, 16, {}};
    image.data.resize(16 * 16 * 4, 200);
    REQUIRE(write_png(folder.file("in.png"), image));
    Finish finish = test::finish_of({{"a", "texture(scene, uv) * 0.5"}});
    finish.frame_width = 64;
    finish.frame_height = 36;
    finish.grounds.push_back(test::picture_ground("scene", "in.png"));
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
    const CommandResult traced =
        test::run_command("LD_DEBUG=files '" + test::program_folder() + "/lacquer-cli' render '" +
                          folder.file("f.lacquer") + "' -o '" + folder.file("a.png") + "'");
    CHECK(traced.code == 0);
    CHECK(traced.output.find("lacquer-cli") != std::string::npos);
    CHECK(traced.output.find("OpenImageIO") == std::string::npos);
}

TEST_CASE("bash completes verbs and options from the same table") {
    const CommandResult script = run_cli("completion");
    REQUIRE(script.code == 0);
    const TemporaryFolder folder;
    test::write_file(folder.file("c.sh"),
                     script.output +
                         "COMP_WORDS=(lacquer-cli re) COMP_CWORD=1; _lacquer_cli; echo ${COMPREPLY[@]}\n"
                         "COMP_WORDS=(lacquer-cli render --str) COMP_CWORD=2; _lacquer_cli; echo ${COMPREPLY[@]}\n");
    const CommandResult completed = test::run_command("bash '" + folder.file("c.sh") + "'");
    CHECK(completed.output == "render responses\n--strict\n");
}

TEST_CASE("laced PNGs, and those of few bits, read as ImageMagick wrote them") {
    const TemporaryFolder folder;
    std::string plain = "P6 23 19 255\n";
    for (int i = 0; i < 23 * 19 * 3; ++i) plain += static_cast<char>(i * 7 % 256);
    test::write_file(folder.file("plain.ppm"), plain);
    const auto written = [&](const std::string& options, const std::string& name) {
        REQUIRE(
            test::run_command("convert " + folder.file("plain.ppm") + " " + options + " " + folder.file(name)).code ==
            0);
        const auto read = read_picture(folder.file(name), PictureMeaning::data);
        if (!read) FAIL(to_text(read.fault()));
        return *read;
    };
    const Picture straight = written("", "a.png");
    CHECK(straight.data == written("-interlace PNG", "b.png").data);
    CHECK(straight.data == written("-depth 16 -define png:bit-depth=16", "c.png").data);
    const Picture grey = written("-colorspace Gray -depth 2 -define png:bit-depth=2 -define png:color-type=0", "d.png");
    CHECK(grey.at(3, 3)[0] == grey.at(3, 3)[2]);
    CHECK(std::fmod(grey.at(3, 3)[0] * 3 + 0.001F, 1.0F) < 0.01F);
}

TEST_CASE("a PNG whose text would inflate to gigabytes is refused or read without it, in little memory") {
    const TemporaryFolder folder;
    // 2 GB of zeros as a compressed text chunk, written by another program.
    const std::string script =
        "import sys, zlib, struct\n"
        "def chunk(kind, data): return struct.pack('>I', len(data)) + kind + data + struct.pack('>I', zlib.crc32(kind "
        "+ data))\n"
        "packer = zlib.compressobj(9)\n"
        "text = b''.join(packer.compress(bytes(1 << 20)) for _ in range(512)) + packer.flush()\n"
        "pixels = zlib.compress(b'\\0\\x10\\x20\\x30' * 1)\n"
        "open(sys.argv[1], 'wb').write(b'\\x89PNG\\r\\n\\x1a\\n' + chunk(b'IHDR', struct.pack('>IIBBBBB', 1, 1, 8, 2, "
        "0, 0, 0))"
        " + chunk(b'zTXt', b'k\\0\\0' + text) + chunk(b'IDAT', pixels) + chunk(b'IEND', b''))\n";
    test::write_file(folder.file("make.py"), script);
    REQUIRE(test::run_command("python3 '" + folder.file("make.py") + "' '" + folder.file("bomb.png") + "'").code == 0);
    Finish finish = test::finish_of({{"a", "texture(scene, uv)"}});
    finish.frame_width = 8;
    finish.frame_height = 8;
    finish.grounds.push_back(test::picture_ground("scene", "bomb.png"));
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
#if !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
    const CommandResult limited =
        test::run_command("bash -c 'ulimit -v 1500000; \"" + test::program_folder() + "/lacquer-cli\" render \"" +
                          folder.file("f.lacquer") + "\" -o \"" + folder.file("a.png") + "\"'");
    INFO(limited.output);
    CHECK((limited.code == 0 || limited.code == 3));
#endif
}
