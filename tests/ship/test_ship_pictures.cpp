// Pictures that are shipped: stills, sheets, moving pictures, tables of colours.
#include <webp/demux.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/json_tree.h"
#include "core/picture/cube.h"
#include "core/picture/files.h"
#include "core/picture/movie.h"
#include "core/ship/pictures/colour_table.h"
#include "core/ship/pictures/drawn_frames.h"
#include "core/ship/pictures/moving_png.h"
#include "core/ship/pictures/sprite_sheet.h"
#include "core/ship/set.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Image8 image_of(int width, int height) {
    Image8 image{width, height, {}};
    image.data.resize(4 * static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    std::fill(image.data.begin(), image.data.end(), std::uint8_t{0});
    return image;
}

std::uint8_t* pixel(Image8& image, int x, int y) { return image.data.data() + 4 * (y * image.width + x); }

ShippedFiles shipped(const ShipMaterial& material, const char* id) {
    Result<ShippedFiles> files = set_files(material, {find_ship_output(id)});
    if (!files) FAIL(to_text(files.fault()));
    return std::move(*files);
}

// A short finish of 40 x 24 that goes round once, clear but for a strip.
Finish turning() {
    Finish finish = test::finish_of({{"strip", "vec4(1, time, 0, abs(uv.x - 0.5) < 0.1 ? 1.0 : 0.0)"},
                                     {"turned", "vec4(strip.rgb * (0.5 + 0.5 * sin(time * 6.2831853)), strip.a)"}});
    finish.frame_width = 40;
    finish.frame_height = 24;
    finish.length = 1;
    return finish;
}

}  // namespace

TEST_CASE("what is not clear is trimmed, and all that is clear is one pixel") {
    Image8 image = image_of(9, 7);
    CHECK(trimmed(image) == SheetRectangle{0, 0, 1, 1, 0, 0});
    pixel(image, 3, 2)[3] = 1;
    CHECK(trimmed(image) == SheetRectangle{0, 0, 1, 1, 3, 2});
    pixel(image, 8, 6)[3] = 255;
    CHECK(trimmed(image) == SheetRectangle{0, 0, 6, 5, 3, 2});
}

TEST_CASE("a sheet's cells hold the frames, apart, with their edges beyond them, and sides are powers of two") {
    std::vector<Image8> frames;
    for (int k = 0; k < 7; ++k) {
        Image8 frame = image_of(12, 10);
        for (int y = 1; y < 5 + k % 3; ++y) {
            for (int x = 2; x < 9; ++x) {
                pixel(frame, x, y)[0] = static_cast<std::uint8_t>(20 * k + x);
                pixel(frame, x, y)[1] = static_cast<std::uint8_t>(10 * y);
                pixel(frame, x, y)[3] = 255;
            }
        }
        frames.push_back(std::move(frame));
    }
    SpriteSheet sheet = sprite_sheet(frames, 2);
    for (const int side : {sheet.image.width, sheet.image.height}) CHECK((side & (side - 1)) == 0);
    REQUIRE(sheet.rectangles.size() == frames.size());
    for (std::size_t k = 0; k < frames.size(); ++k) {
        const SheetRectangle& cell = sheet.rectangles[k];
        for (int y = -2; y < cell.height + 2; ++y) {
            for (int x = -2; x < cell.width + 2; ++x) {
                const std::uint8_t* wanted = pixel(frames[k], cell.left + std::clamp(x, 0, cell.width - 1),
                                                   cell.top + std::clamp(y, 0, cell.height - 1));
                REQUIRE(std::equal(wanted, wanted + 4, pixel(sheet.image, cell.x + x, cell.y + y)));
            }
        }
    }
}

TEST_CASE("a shipped sheet tells where and when its cells are, and whether it loops") {
    const ShippedFiles files = shipped(test::material_of(turning()), "sheet");
    REQUIRE(files.size() == 3);
    const Result<Json> json = json_from_text(files[1].bytes, "sheet");
    REQUIRE(json);
    CHECK(json->find("cells")->size() == 12);
    CHECK(json->find("cells")->list()[3].find("time")->number() == Approx(0.25));
    CHECK(json->find("cells")->list()[3].find("width")->number() == 8);
    CHECK_FALSE(json->find("loops")->flag());
    Finish round = turning();
    round.coats[0].steps.own()[0].formula = "vec4(1, 0.5, 0, 1)";
    const Result<Json> looped = json_from_text(shipped(test::material_of(round), "sheet")[1].bytes, "sheet");
    CHECK(looped->find("loops")->flag());
}

TEST_CASE("a moving PNG is read back by another library, frame by frame") {
    const test::TemporaryFolder folder;
    ShipMaterial material = test::material_of(turning());
    material.request.frame_rate = 8;
    const ShippedFiles files = shipped(material, "animation");
    const std::string path = folder.file("moving.png");
    test::write_file(path, files[0].bytes);
    // FFmpeg's libraries read it, of which nothing was used to write it.
    const Result<PictureFrames> frames = picture_frames(path);
    REQUIRE(frames);
    CHECK(frames->count == 8);
    REQUIRE(frames->ends.size() == 8);
    CHECK(frames->ends[3] == Approx(0.5));
    const Result<DrawnFrames> drawn = drawn_frames(material, 640, Cancel());
    REQUIRE(drawn);
    for (const int k : {0, 3, 7}) {
        const Result<Picture> picture = read_picture(path, PictureMeaning::data, k);
        REQUIRE(picture);
        const Image8& image = drawn->images[static_cast<std::size_t>(k)];
        for (std::size_t i = 0; i < image.data.size(); ++i) {
            // Colours of clear pixels are nobody's.
            if (image.data[i / 4 * 4 + 3] == 0) continue;
            REQUIRE(std::lround(picture->data[i] * 255.0F) == image.data[i]);
        }
    }
}

namespace {

// All frames of a movie, as another program reads it: rows of four numbers of 8 bits.
std::string frames_by(const std::string& command, const test::TemporaryFolder& folder) {
    const std::string to = folder.file("frames.rgba");
    const test::CommandResult run = test::run_command(command + " " + to);
    INFO(run.output);
    REQUIRE(run.code == 0);
    return test::read_file(to);
}

// By the format's own library (libwebp's WebPAnimDecoder).
std::string webp_frames(const std::string& bytes) {
    const WebPData data{reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()};
    WebPAnimDecoder* decoder = WebPAnimDecoderNew(&data, nullptr);
    REQUIRE(decoder != nullptr);
    WebPAnimInfo info;
    WebPAnimDecoderGetInfo(decoder, &info);
    std::string all;
    while (WebPAnimDecoderHasMoreFrames(decoder) != 0) {
        std::uint8_t* frame = nullptr;
        int until = 0;
        REQUIRE(WebPAnimDecoderGetNext(decoder, &frame, &until) != 0);
        all.append(reinterpret_cast<const char*>(frame), std::size_t{4} * info.canvas_width * info.canvas_height);
    }
    CHECK(info.loop_count == 0);
    WebPAnimDecoderDelete(decoder);
    return all;
}

struct Differences {
    double mean = 0;
    int largest = 0;
};

// Of colours as they lie on black, and of opacity where it is there.
Differences differences(const std::string& read, const std::vector<Image8>& frames, bool has_opacity) {
    Differences found;
    std::size_t count = 0;
    std::size_t at = 0;
    for (const Image8& frame : frames) {
        for (std::size_t i = 0; i < frame.data.size(); ++i, ++at) {
            const bool is_opacity = i % 4 == 3;
            const int alpha = frame.data[i / 4 * 4 + 3];
            const int read_alpha = has_opacity ? static_cast<unsigned char>(read[at / 4 * 4 + 3]) : 255;
            const int is = static_cast<unsigned char>(read[at]) * (is_opacity ? 255 : read_alpha) / 255;
            const int wanted = is_opacity ? (has_opacity ? alpha : 255) : frame.data[i] * alpha / 255;
            found.largest = std::max(found.largest, std::abs(is - wanted));
            found.mean += std::abs(is - wanted);
            ++count;
        }
    }
    found.mean /= static_cast<double>(count);
    return found;
}

// A soft disc that goes across a colour ramp, or across nothing.
std::vector<Image8> disc_frames(int width, int height, bool clear) {
    std::vector<Image8> frames;
    for (int k = 0; k < 9; ++k) {
        Image8 frame = image_of(width, height);
        for (int y = 0; y < height; ++y) {
            for (int x = 0; x < width; ++x) {
                const double near = std::hypot(x - 8 - 6 * k, y - height / 2.0);
                const double part = std::clamp((14 - near) / 3, 0.0, 1.0);
                std::uint8_t* at = pixel(frame, x, y);
                at[0] = static_cast<std::uint8_t>(std::lround(part * 220 + (1 - part) * (clear ? 220 : 2 * x)));
                at[1] = static_cast<std::uint8_t>(std::lround(part * 90 + (1 - part) * (clear ? 90 : 60)));
                at[2] = static_cast<std::uint8_t>(std::lround(part * 40 + (1 - part) * (clear ? 40 : 3 * y)));
                at[3] = static_cast<std::uint8_t>(clear ? std::lround(part * 255) : 255);
            }
        }
        frames.push_back(std::move(frame));
    }
    return frames;
}

}  // namespace

// Each is read by a program that had no part in writing it, but for VP9 with opacity, which has one reader.
TEST_CASE("movies are read back by other programs as the frames that went in") {
    const test::TemporaryFolder folder;
    const auto written = [&](MovieFormat format, const std::vector<Image8>& frames, double rate, const char* name) {
        const Result<std::string> bytes = movie_of(format, frames, rate, Cancel());
        if (!bytes) FAIL(to_text(bytes.fault()));
        test::write_file(folder.file(name), *bytes);
        return folder.file(name);
    };
    const bool clear = GENERATE(false, true);
    // Odd sides are nothing to those that halve the colours.
    const std::vector<Image8> frames = disc_frames(75, 41, clear);
    const std::size_t whole = frames.size() * frames[0].data.size();
    const auto read_by_ffmpeg = [&](const std::string& path, const char* reader) {
        return frames_by(
            std::string("ffmpeg -v error -y ") + reader + " -i " + path +
                " -vf format=rgba,crop=75:41:0:0 -sws_flags accurate_rnd+full_chroma_int -f rawvideo -pix_fmt rgba",
            folder);
    };
    SECTION("WebP is without loss") {
        const std::string path = written(MovieFormat::webp, frames, 12, "a.webp");
        const std::string read = webp_frames(test::read_file(path));
        REQUIRE(read.size() == whole);
        CHECK(differences(read, frames, true).largest <= 1);
    }
    SECTION("GIF has near colours, and opacity that is all or nothing") {
        const std::string path = written(MovieFormat::gif, frames, 10, "a.gif");
        const std::string read = frames_by("convert " + path + " -coalesce -depth 8", folder);
        REQUIRE(read.size() == whole);
        const Differences found = differences(read, frames, true);
        CHECK(found.mean < 4);
        if (!clear) CHECK(found.largest < 48);
        const Result<PictureFrames> times = picture_frames(path);
        REQUIRE(times);
        REQUIRE(times->ends.size() == frames.size());
        CHECK(times->ends.back() == Approx(0.9));
    }
    SECTION("WebM has opacity") {
        const std::string path = written(MovieFormat::webm, frames, 29.97, "a.webm");
        const std::string read = read_by_ffmpeg(path, "-c:v libvpx-vp9");
        REQUIRE(read.size() == whole);
        CHECK(differences(read, frames, true).mean < 3);
    }
    SECTION("MP4 lies on black, its sides even") {
        const std::string path = written(MovieFormat::mp4, frames, 24, "a.mp4");
        const test::CommandResult probed = test::run_command(
            "ffprobe -v error -show_entries stream=codec_name,width,height,avg_frame_rate -of csv=p=0 " + path);
        CHECK(probed.output.find("h264,76,42,24/1") == 0);
        const std::string read = read_by_ffmpeg(path, "");
        REQUIRE(read.size() == whole);
        CHECK(differences(read, frames, false).mean < 3);
    }
}

TEST_CASE("a movie that cannot be is refused in words") {
    const std::vector<Image8> frames = disc_frames(16, 16, false);
    CHECK(movie_of(MovieFormat::gif, {}, 12, Cancel()).fault().id == "picture.unwritable");
    CHECK(movie_of(MovieFormat::webm, frames, 0, Cancel()).fault().id == "picture.unwritable");
    CHECK(movie_of(MovieFormat::mp4, std::vector<Image8>{frames[0], image_of(8, 8)}, 12, Cancel()).fault().id ==
          "picture.unwritable");
    Cancel stopped;
    stopped.request();
    CHECK(movie_of(MovieFormat::webp, frames, 12, stopped).fault().id == "render.cancelled");
    // One pixel, and one frame, are movies, too.
    for (const MovieFormat format : {MovieFormat::gif, MovieFormat::webp, MovieFormat::webm, MovieFormat::mp4}) {
        const Result<std::string> bytes = movie_of(format, std::vector<Image8>{image_of(1, 1)}, 12, Cancel());
        CHECK((bytes || bytes.fault().id == "picture.unwritable"));
    }
}

TEST_CASE("a finish ships as movies") {
    const ShipMaterial material = test::material_of(turning());
    for (const auto& [id, begins] : std::vector<std::pair<const char*, std::string>>{
             {"gif", "GIF89a"}, {"webp", "RIFF"}, {"webm", "\x1A\x45\xDF\xA3"}, {"mp4", ""}}) {
        const ShippedFiles files = shipped(material, id);
        REQUIRE(files.size() == 2);
        CHECK(files[0].path.ends_with(std::string(".") + id));
        CHECK(files[0].bytes.starts_with(begins));
    }
}

TEST_CASE("a finish of colours alone becomes a table that looks up what it draws") {
    Finish grade =
        test::with_scene(test::finish_of({{"graded", "scene * vec4(0.9, 0.5, 0.7, 1) + vec4(0.05, 0, 0, 0)"}}));
    const ShipMaterial material = test::material_of(grade, test::demo_path());
    const Result<ColourTable> table = colour_table(material);
    REQUIRE(table);
    CHECK(table->largest < 1e-5);
    const Result<CubeTable> read = cube_from_text(table->text, "test");
    REQUIRE(read);
    CHECK(read->size == colour_table_side);
    // The last entry of red, the first of green and blue: 1 * 0.9 + 0.05.
    CHECK(read->picture.at(colour_table_side - 1, 0)[0] == Approx(0.95F));
    for (const auto& [formula, words] :
         std::vector<std::pair<std::string, std::string>>{{"scene * uv.x", "uv"},
                                                          {"scene * time", "time"},
                                                          {"texture(scene, uv + 0.1)", "other places"},
                                                          {"vec4(1)", "none"}}) {
        INFO(formula);
        const ShipMaterial none =
            test::material_of(test::with_scene(test::finish_of({{"graded", formula}})), test::demo_path());
        CHECK(why_no_table(none).find(words) != std::string::npos);
        const Result<ColourTable> refused = colour_table(none);
        REQUIRE_FALSE(refused);
        CHECK(refused.fault().id == "ship.table");
    }
}

TEST_CASE("too many frames are refused with a mend") {
    Finish finish = turning();
    finish.length = 60;
    const Result<DrawnFrames> frames = drawn_frames(test::material_of(finish), 64, Cancel());
    REQUIRE_FALSE(frames);
    CHECK(frames.fault().id == "ship.frames");
}

TEST_CASE("a still is the finished picture at the moment that is asked for") {
    ShipMaterial material = test::material_of(turning());
    material.request.at = 0.25;
    const test::TemporaryFolder folder;
    test::write_file(folder.file("still.png"), shipped(material, "still")[0].bytes);
    const Result<Picture> picture = read_picture(folder.file("still.png"), PictureMeaning::colour);
    REQUIRE(picture);
    CHECK(picture->width == 40);
    // sin of a quarter turn is 1: red in full.
    CHECK(picture->at(20, 12)[0] == Approx(1.0F));
    CHECK(picture->at(2, 12)[3] == 0.0F);
}

TEST_CASE("frames are the tape's, one file each, and read back as they were drawn") {
    Finish finish = turning();
    finish.length = 0.5;
    ShipMaterial material = test::material_of(finish);
    material.request.frame_rate = 12;
    const ShippedFiles files = shipped(material, "frames");
    // And the manifest.
    REQUIRE(files.size() == 7);
    const test::TemporaryFolder folder;
    for (std::size_t i = 0; i + 1 < files.size(); ++i) {
        INFO(files[i].path);
        CHECK(files[i].path == "pictures/" + material.stem + "_frames/000" + std::to_string(i) + ".png");
        test::write_file(folder.file("frame.png"), files[i].bytes);
        const Result<Picture> picture = read_picture(folder.file("frame.png"), PictureMeaning::colour);
        REQUIRE(picture);
        material.request.at = static_cast<double>(i) / 12;
        test::write_file(folder.file("still.png"), shipped(material, "still")[0].bytes);
        const Result<Picture> still = read_picture(folder.file("still.png"), PictureMeaning::colour);
        REQUIRE(still);
        CHECK(picture->data == still->data);
    }
}

TEST_CASE("drops ship as pictures over the tape, for a host that does not draw them") {
    Finish finish = test::demo_named("rain-on-the-pane");
    finish.frame_width = 160;
    finish.frame_height = 90;
    finish.length = 1;
    const Ground& rain = *std::find_if(finish.grounds.begin(), finish.grounds.end(),
                                       [](const Ground& ground) { return ground.as<DropletsGround>() != nullptr; });
    const std::string path = test::demo_path("rain-on-the-pane");
    const ShippedFiles files = shipped(test::material_of(finish, path), "drops");
    Result<Json> manifest = Result<Json>(Json());
    for (const ShippedFile& file : files) {
        if (file.path == "manifest.json") manifest = json_from_text(file.bytes, "manifest");
    }
    REQUIRE(manifest);
    // The same drops, drawn as the whole picture of a finish.
    const test::TemporaryFolder folder;
    Finish alone = finish;
    alone.coats.resize(1);
    int grounds = 0;
    for (const Json& ground : manifest->find("grounds")->list()) {
        const Json* frames = ground.find("frames");
        if (frames == nullptr) continue;
        ++grounds;
        const std::vector<Json>& paths = frames->find("files")->list();
        REQUIRE(paths.size() == 15);
        CHECK(frames->find("rate")->number() == 15);
        CHECK(frames->find("width")->number() == 160);
        if (ground.find("name")->text() != rain.name) continue;
        alone.coats[0].steps = {{"rained", "texture(" + rain.name + ", uv)"}};
        const ShipMaterial same = test::material_of(alone, path);
        for (const std::size_t k : {std::size_t{0}, std::size_t{7}, std::size_t{14}}) {
            const auto file = std::find_if(files.begin(), files.end(),
                                           [&](const ShippedFile& one) { return one.path == paths[k].text(); });
            REQUIRE(file != files.end());
            const Result<Image8> drawn = drawn_still(same, static_cast<double>(k) / 15, Cancel());
            REQUIRE(drawn);
            test::write_file(folder.file("drops.png"), file->bytes);
            const Result<Picture> read = read_picture(folder.file("drops.png"), PictureMeaning::data);
            REQUIRE(read);
            REQUIRE(read->data.size() == drawn->data.size());
            float off = 0;
            for (std::size_t i = 3; i < drawn->data.size(); i += 4)
                off = std::max(off, std::abs(read->data[i] * 255 - static_cast<float>(drawn->data[i])));
            CHECK(off < 1.01F);
        }
    }
    CHECK(grounds > 0);
    const ShipMaterial dry = test::material_of(turning());
    CHECK_FALSE(find_ship_output("drops")->unless(dry).empty());
}
