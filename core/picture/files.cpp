#include "core/picture/files.h"

#include <dlfcn.h>

#include <filesystem>
#include <system_error>

#include "core/base/file.h"
#include "core/picture/files_module.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

struct Module {
    ReadPictureFunction read = nullptr;
    EncodePngFunction encode = nullptr;
    std::string error;
};

Module load_module() {
    std::error_code code;
    const fs::path folder = fs::read_symlink("/proc/self/exe", code).parent_path();
    Module module;
    for (const fs::path& place : {folder, folder / "../lib/lacquer"}) {
        const std::string path = (place / picture_module_file).string();
        void* handle = dlopen(path.c_str(), RTLD_NOW | RTLD_LOCAL);
        if (handle == nullptr) {
            const char* why = dlerror();
            if (module.error.empty() && why != nullptr) module.error = why;
            continue;
        }
        module.read = reinterpret_cast<ReadPictureFunction>(dlsym(handle, "lacquer_read_picture"));
        module.encode = reinterpret_cast<EncodePngFunction>(dlsym(handle, "lacquer_encode_png"));
        if (module.read != nullptr && module.encode != nullptr) return module;
    }
    return module;
}

const Module& loaded_module() {
    static const Module module = load_module();
    return module;
}

Fault picture_fault(const char* id, const std::string& path, const std::string& message, const char* mend) {
    return Fault{id, message, mend, Place{path, {}, 0, 0}, Severity::fault};
}

Fault module_fault(const std::string& path) {
    return picture_fault("picture.module", path, "the part that reads pictures did not load: " + loaded_module().error,
                         "install Lacquer again");
}

}  // namespace

void prepare_picture_files() { (void)loaded_module(); }

Result<Picture> read_picture(const std::string& path, PictureMeaning meaning) {
    std::error_code code;
    if (!fs::exists(path, code)) {
        return picture_fault("picture.missing", path, "there is no such picture", "put it back, or choose another");
    }
    if (!fs::is_regular_file(path, code)) {
        return picture_fault("picture.unreadable", path, "it is not a file", "choose a picture file");
    }
    const Module& module = loaded_module();
    if (module.read == nullptr) return module_fault(path);
    Picture picture;
    std::string error;
    switch (module.read(path, meaning == PictureMeaning::colour, picture, error)) {
        case PictureRead::done:
            return picture;
        case PictureRead::too_large:
            return picture_fault("picture.too-large", path, "the picture is too large: " + error,
                                 "use one of at most 64 million pixels");
        case PictureRead::unreadable:
            break;
    }
    return picture_fault("picture.unreadable", path, "the picture cannot be read: " + error,
                         "save it again as PNG or OpenEXR");
}

Result<Done> write_png(const std::string& path, const Image8& image) {
    const Module& module = loaded_module();
    if (module.encode == nullptr) return module_fault(path);
    std::string bytes;
    std::string error;
    if (!module.encode(image, bytes, error)) {
        return picture_fault("picture.unwritable", path, "the picture cannot be written: " + error,
                             "try a smaller one");
    }
    // Not by the library itself: it does not notice when the last bytes no longer fit on the disk.
    return write_whole_file(path, bytes);
}

}  // namespace lacquer
