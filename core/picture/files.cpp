#include "core/picture/files.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <optional>
#include <system_error>

#include "core/base/file.h"
#include "core/base/guarded.h"
#include "core/base/module.h"
#include "core/picture/coded.h"
#include "core/picture/moving_format.h"
#include "core/picture/png.h"
#include "core/picture/reader.h"
#include "core/picture/reading.h"
#include "core/picture/svg.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

// What writes files; whatever reads them does so elsewhere.
struct PictureModule {
    EncodePictureFunction encode = nullptr;
    EncodeExrFunction encode_exr = nullptr;
    std::string error;

    bool whole() const { return error.empty(); }
};

PictureModule load_module() {
    Module module(picture_module_file);
    PictureModule loaded;
    loaded.encode = module.function<EncodePictureFunction>("lacquer_encode_picture");
    loaded.encode_exr = module.function<EncodeExrFunction>("lacquer_encode_exr");
    loaded.error = module.error();
    return loaded;
}

const PictureModule& loaded_module() {
    static const PictureModule module = load_module();
    return module;
}

Fault picture_fault(const char* id, const std::string& path, const std::string& message, const char* mend) {
    return Fault{id, message, mend, Place{path, {}, 0, 0}, Severity::fault};
}

Fault module_fault(const std::string& path) {
    return picture_fault("picture.module", path, "the part that writes pictures did not load: " + loaded_module().error,
                         "install Lacquer again");
}

Fault unwritable_picture(const std::string& path, const std::string& error) {
    return picture_fault("picture.unwritable", path, "the picture cannot be written: " + error, "try a smaller one");
}

// Reads, after what can be said without it.
template <class Read>
std::optional<Fault> fault_of_reading(const std::string& path, const Read& read) {
    std::error_code code;
    if (!fs::exists(path, code)) {
        return picture_fault("picture.missing", path, "there is no such picture", "put it back, or choose another");
    }
    if (!fs::is_regular_file(path, code)) {
        return picture_fault("picture.unreadable", path, "it is not a file", "choose a picture file");
    }
    std::string error;
    const Result<PictureRead> done = guarded([&]() -> Result<PictureRead> { return read(error); });
    if (!done) error = done.fault().message;
    switch (done ? *done : PictureRead::unreadable) {
        case PictureRead::done:
            return std::nullopt;
        case PictureRead::too_large:
            return picture_fault("picture.too-large", path, "the picture is too large: " + error,
                                 "use one of at most 64 million pixels");
        case PictureRead::unreadable:
            break;
    }
    return picture_fault("picture.unreadable", path, "the picture cannot be read: " + error,
                         "save it again as PNG or OpenEXR");
}

bool never_stopped(double /*share*/) { return true; }

// The same of something that may take long, and may be stopped.
template <class Read>
Result<Picture> read_watched(const std::string& path, const ReadWatch& watch, const Read& read) {
    Picture picture;
    bool stopped = false;
    const auto goes_on = [&](bool on) {
        stopped = stopped || !on;
        return !stopped;
    };
    const ReadWatch watched(
        [&](double share) { return goes_on(watch(share)); },
        [&](int width, int height, int bytes) { return goes_on(watch.admits(width, height, bytes)); });
    std::optional<Fault> fault =
        fault_of_reading(path, [&](std::string& error) { return read(watched, picture, error); });
    if (stopped) return reading_stopped(path);
    if (fault) return *fault;
    return picture;
}

// Not by the library itself: it does not notice when the last bytes no longer fit on the disk.
template <class Encode>
Result<Done> write_by(const std::string& path, const Encode& encode) {
    const PictureModule& module = loaded_module();
    if (!module.whole()) return module_fault(path);
    std::string bytes;
    std::string error;
    if (!encode(module, bytes, error)) {
        return unwritable_picture(path, error);
    }
    return write_output(path, bytes);
}

}  // namespace

void prepare_picture_files() { prepare_reader(); }

Result<PictureFrames> picture_frames(const std::string& path) {
    PictureFrames frames;
    const auto read = [&](std::string& error) {
        return moving_format(path) == nullptr ? PictureRead::done : frames_apart(path, frames, error);
    };
    if (std::optional<Fault> fault = fault_of_reading(path, read)) return *fault;
    return frames;
}

int frame_at(const PictureFrames& frames, double seconds) {
    if (frames.count <= 1 || frames.ends.empty() || !(frames.ends.back() > 0)) return 0;
    const double now = std::fmod(std::max(0.0, seconds), frames.ends.back());
    const auto after = std::upper_bound(frames.ends.begin(), frames.ends.end(), now);
    return std::min(static_cast<int>(after - frames.ends.begin()), frames.count - 1);
}

Result<Picture> read_picture(const std::string& path, PictureMeaning meaning, int frame) {
    Result<Picture> read = read_picture_watched(path, meaning, frame, never_stopped);
    if (!read) return read;
    return decoded(std::move(*read));
}

Result<Picture> read_picture_watched(const std::string& path, PictureMeaning meaning, int frame,
                                     const ReadWatch& watch) {
    return read_watched(path, watch, [&](const ReadWatch& watched, Picture& picture, std::string& error) {
        // Drawn by a program of its own, which has walls around it, too.
        if (is_svg(path)) return read_svg(path, meaning, watched, picture, error);
        return read_apart(path, meaning, frame, watched, picture, error);
    });
}

Fault reading_stopped(const std::string& path) {
    return picture_fault("picture.stopped", path, "reading it was stopped", "change or replace it to read it again");
}

Result<std::shared_ptr<PictureSequence>> open_sequence(const std::string& path) {
    std::shared_ptr<PictureSequence> opened;
    const auto open = [&](std::string& error) { return open_sequence_apart(path, opened, error); };
    if (std::optional<Fault> fault = fault_of_reading(path, open)) return *fault;
    return opened;
}

Result<Picture> read_of_sequence(PictureSequence& sequence, const std::string& path, int frame, PictureMeaning meaning,
                                 const ReadWatch& watch) {
    return read_watched(path, watch, [&](const ReadWatch& watched, Picture& picture, std::string& error) {
        return sequence.read(frame, meaning, watched, picture, error);
    });
}

Result<std::vector<PictureLayer>> picture_layers(const std::string& path) {
    std::vector<PictureLayer> layers;
    const auto read = [&](std::string& error) { return layers_apart(path, layers, error); };
    if (std::optional<Fault> fault = fault_of_reading(path, read)) return *fault;
    return layers;
}

Result<Picture> read_layer(const std::string& path, const std::string& layer) {
    return read_layer_watched(path, layer, never_stopped);
}

Result<Picture> read_layer_watched(const std::string& path, const std::string& layer, const ReadWatch& watch,
                                   PictureMeaning meaning) {
    Result<Picture> read =
        read_watched(path, watch, [&](const ReadWatch& watched, Picture& picture, std::string& error) {
            return read_layer_apart(path, layer, meaning, watched, picture, error);
        });
    if (read && read->data.empty())
        return picture_fault("picture.layer", path, "it has no layer '" + layer + "'", "choose another of its layers");
    return read;
}

Result<Done> write_png(const std::string& path, const Image8& image) {
    bool opaque = true;
    for (std::size_t i = 3; i < image.data.size(); i += 4) opaque = opaque && image.data[i] == 255;
    PngShape shape{image.width, image.height, opaque ? 3 : 4, 8, true};
    std::string error;
    std::string bytes;
    if (opaque) {
        std::vector<std::uint8_t> colours;
        colours.reserve(image.data.size() / 4 * 3);
        for (std::size_t i = 0; i < image.data.size(); i += 4)
            colours.insert(colours.end(), image.data.begin() + static_cast<std::ptrdiff_t>(i),
                           image.data.begin() + static_cast<std::ptrdiff_t>(i + 3));
        bytes = png_of(shape, colours.data(), colours.size(), error);
    } else {
        bytes = png_of(shape, image.data.data(), image.data.size(), error);
    }
    if (bytes.empty()) return unwritable_picture(path, error);
    return write_output(path, bytes);
}

Result<Done> write_exr(const std::string& path, const std::vector<WrittenChannel>& channels, bool straight) {
    return write_by(path, [&](const PictureModule& module, std::string& bytes, std::string& error) {
        return module.encode_exr(channels, straight, bytes, error);
    });
}

Result<Done> write_encoded(const std::string& path, const EncodedPicture& picture) {
    return write_by(path, [&](const PictureModule& module, std::string& bytes, std::string& error) {
        return module.encode(picture, bytes, error);
    });
}

}  // namespace lacquer
