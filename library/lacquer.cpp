// The C interface of library/lacquer.h on the core.
#include "library/lacquer.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <list>
#include <memory>
#include <mutex>
#include <string>
#include <string_view>

#include "core/base/guarded.h"
#include "core/base/version.h"
#include "core/catalogue/catalogue.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/kinds.h"
#include "core/finish/play.h"
#include "core/finish/played_finish.h"
#include "core/render/played_request.h"
#include "core/render/view.h"

using namespace lacquer;

// An open finish, and what is played on it.
struct lacquer_finish {
    std::mutex mutex;
    PlayedFinish played;
    WorkerPool pool;
    Renderer renderer{pool};
    std::list<std::string> texts;  ///< that were handed out

    const Finish& finish() const { return played.finish(); }
    // The same text each time, at the same place.
    const char* kept(std::string_view text) {
        const auto found = std::find(texts.begin(), texts.end(), text);
        return found != texts.end() ? found->c_str() : texts.emplace_back(text).c_str();
    }
};

namespace {

template <std::size_t size>
void copy_text(char (&to)[size], std::string_view from) {
    const std::size_t length = std::min(from.size(), size - 1);
    std::memcpy(to, from.data(), length);
    to[length] = '\0';
}

void tell(lacquer_fault* to, const Fault& fault) {
    if (to == nullptr) return;
    copy_text(to->id, fault.id);
    copy_text(to->message, fault.place.where.empty() ? fault.message : fault.place.where + ": " + fault.message);
    copy_text(to->mend, fault.mend);
}

Fault library_fault(const char* id, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {}, Severity::fault};
}

Fault unknown(const char* what, std::string_view name) {
    return library_fault("library.unknown", "there is no " + std::string(what) + " '" + std::string(name) + "'",
                         "ask for the names that there are");
}

// Runs with the finish to itself; gives 1, or 0 with the fault told.
template <class Work>
int call(lacquer_finish* finish, lacquer_fault* fault, const Work& work) {
    const Result<Done> done = guarded([&]() -> Result<Done> {
        if (finish == nullptr) return library_fault("library.null", "no finish was handed in", "open one first");
        const std::lock_guard lock(finish->mutex);
        return work();
    });
    if (done) return 1;
    tell(fault, done.fault());
    return 0;
}

lacquer_finish* opened(Result<OpenedFinish> read, const char* path, lacquer_fault* fault) {
    if (!read) {
        tell(fault, read.fault());
        return nullptr;
    }
    auto made = std::make_unique<lacquer_finish>();
    made->played = play_finish(std::move(read->finish), path, catalogue_with_folder(user_operations_folder()));
    return made.release();
}

template <class Open>
lacquer_finish* open_guarded(lacquer_fault* fault, const Open& open) {
    lacquer_finish* made = nullptr;
    const Result<Done> done = guarded([&]() -> Result<Done> {
        made = open();
        return Done{};
    });
    if (!done) tell(fault, done.fault());
    return made;
}

template <class Things>
const char* name_of(lacquer_finish* finish, int index, const Things& things_of) {
    const char* name = nullptr;
    call(finish, nullptr, [&]() -> Result<Done> {
        const auto& things = things_of(finish->finish());
        if (index >= 0 && static_cast<std::size_t>(index) < things.size())
            name = finish->kept(things[static_cast<std::size_t>(index)].name);
        return Done{};
    });
    return name;
}

Result<DialValue> value_from(const double* value, int count) {
    DialValue made{};
    if (value == nullptr || count < 1 || count > static_cast<int>(made.size()))
        return library_fault("library.value", "a value has one to three numbers", "hand in as many as the dial has");
    std::copy_n(value, count, made.begin());
    return made;
}

void copy_floats(const Picture& picture, void* memory, std::size_t stride) {
    for (int y = 0; y < picture.height; ++y) {
        auto* row = reinterpret_cast<float*>(static_cast<char*>(memory) + stride * static_cast<std::size_t>(y));
        for (int x = 0; x < picture.width; ++x) {
            std::array<float, 4> pixel{0, 0, 0, 1};
            std::copy_n(picture.at(x, y), std::min(picture.channels, 4), pixel.begin());
            std::copy(pixel.begin(), pixel.end(), row + static_cast<std::ptrdiff_t>(x) * 4);
        }
    }
}

Result<Done> draw(lacquer_finish& finish, const char* step, double seconds, int width, int height,
                  lacquer_format format, void* memory, std::size_t stride) {
    const std::size_t bytes = format == LACQUER_RGBA8 ? 4 : format == LACQUER_RGBA_FLOAT ? 16 : 0;
    if (bytes == 0) return library_fault("library.format", "there is no such format", "take one of lacquer_format");
    if (!is_drawable_size(width, height))
        return library_fault("library.size", "a picture cannot have this size",
                             "take sides from 1 to " + std::to_string(max_picture_side));
    if (memory == nullptr || stride < bytes * static_cast<std::size_t>(width))
        return library_fault("library.memory", "the memory is too small for the picture",
                             "a row needs " + std::to_string(bytes) + " bytes a pixel");
    RenderRequest request = request_of(finish.played, seconds);
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {step == nullptr ? "" : step};
    const std::string name = request.steps[0].empty() ? finished_step(*request.checked) : request.steps[0];
    const CheckedStep* checked = find_step(*request.checked, name);
    if (checked != nullptr && checked->fault) return *checked->fault;
    if (format == LACQUER_RGBA8) request.seen = ViewStyle();
    Result<Frame> frame = finish.renderer.render(request, Cancel());
    if (!frame) return frame.fault();
    if (frame->steps.empty()) return unknown("step", request.steps[0]);
    const DrawnStep& drawn = frame->steps.front();
    if (format == LACQUER_RGBA_FLOAT) {
        copy_floats(drawn.picture, memory, stride);
        return Done{};
    }
    const Image8& image = drawn.image;
    const std::size_t row = static_cast<std::size_t>(width) * 4;
    for (int y = 0; y < height; ++y)
        std::memcpy(static_cast<char*>(memory) + stride * static_cast<std::size_t>(y),
                    image.data.data() + row * static_cast<std::size_t>(y), row);
    return Done{};
}

}  // namespace

extern "C" {

const char* lacquer_version(void) { return program_version().data(); }

lacquer_finish* lacquer_open(const char* path, lacquer_fault* fault) {
    return open_guarded(fault, [&] {
        const char* there = path == nullptr ? "" : path;
        return opened(load_finish(there), there, fault);
    });
}

lacquer_finish* lacquer_open_text(const char* text, size_t length, const char* path, lacquer_fault* fault) {
    return open_guarded(fault, [&] {
        const char* there = path == nullptr ? "" : path;
        const std::string_view all = text == nullptr ? std::string_view() : std::string_view(text, length);
        return opened(finish_from_text(all, there), there, fault);
    });
}

void lacquer_close(lacquer_finish* finish) { delete finish; }

void lacquer_frame(lacquer_finish* finish, int* width, int* height, double* length) {
    call(finish, nullptr, [&]() -> Result<Done> {
        if (width != nullptr) *width = finish->finish().frame_width;
        if (height != nullptr) *height = finish->finish().frame_height;
        if (length != nullptr) *length = finish->finish().length;
        return Done{};
    });
}

int lacquer_dial_count(lacquer_finish* finish) {
    int count = 0;
    call(finish, nullptr, [&]() -> Result<Done> {
        count = static_cast<int>(finish->finish().dials.size());
        return Done{};
    });
    return count;
}

int lacquer_dial(lacquer_finish* finish, int index, lacquer_dial_info* info) {
    return call(finish, nullptr, [&]() -> Result<Done> {
        const auto& dials = finish->finish().dials;
        if (info == nullptr || index < 0 || static_cast<std::size_t>(index) >= dials.size())
            return unknown("dial", std::to_string(index));
        const Dial& dial = dials[static_cast<std::size_t>(index)];
        info->name = finish->kept(dial.name);
        info->kind = finish->kept(dial_kind_name(dial.kind));
        info->numbers = dial.kind == DialKind::colour ? 3 : 1;
        std::copy(dial.value.begin(), dial.value.end(), info->value);
        info->least = dial.least;
        info->most = dial.most;
        info->unit = finish->kept(dial.unit);
        info->driven = dial.formula.empty() ? 0 : 1;
        return Done{};
    });
}

const char* lacquer_cue_name(lacquer_finish* finish, int index) {
    return name_of(
        finish, index, [](const Finish& f) -> const auto& { return f.cues; });
}

const char* lacquer_signal_name(lacquer_finish* finish, int index) {
    return name_of(
        finish, index, [](const Finish& f) -> const auto& { return f.signals; });
}

const char* lacquer_variant_name(lacquer_finish* finish, int index) {
    return name_of(
        finish, index, [](const Finish& f) -> const auto& { return f.variants; });
}

const char* lacquer_step_name(lacquer_finish* finish, int index) {
    const char* name = nullptr;
    call(finish, nullptr, [&]() -> Result<Done> {
        int nth = 0;
        for_each_step(finish->finish(), [&](const Coat&, const Step& step) {
            if (nth++ == index) name = finish->kept(step.name);
        });
        return Done{};
    });
    return name;
}

int lacquer_use_variant(lacquer_finish* finish, const char* name, lacquer_fault* fault) {
    return call(finish, fault, [&] { return use_variant(finish->played, name == nullptr ? "" : name); });
}

int lacquer_hold(lacquer_finish* finish, const char* dial, const double* value, int count, lacquer_fault* fault) {
    return call(finish, fault, [&]() -> Result<Done> {
        const Result<DialValue> held = value_from(value, count);
        if (!held) return held.fault();
        return hold_dial(finish->played, dial == nullptr ? "" : dial, *held);
    });
}

int lacquer_let_go(lacquer_finish* finish, const char* dial, lacquer_fault* fault) {
    return call(finish, fault, [&] { return let_go_of_dial(finish->played, dial == nullptr ? "" : dial); });
}

int lacquer_clear_tape(lacquer_finish* finish) {
    return call(finish, nullptr, [&]() -> Result<Done> {
        finish->played.tape.tape = Tape();
        return Done{};
    });
}

int lacquer_use_tape(lacquer_finish* finish, const char* path, lacquer_fault* fault) {
    return call(finish, fault, [&]() -> Result<Done> {
        Faults notices;
        return use_tape(finish->played, path == nullptr ? "" : path, notices);
    });
}

int lacquer_cue_at(lacquer_finish* finish, const char* name, double at, double strength, double direction, double x,
                   double y, int object, lacquer_fault* fault) {
    return call(finish, fault, [&] {
        return press_cue(finish->played, {name == nullptr ? "" : name, at, strength, direction, x, y, object});
    });
}

int lacquer_cue(lacquer_finish* finish, const char* name, double at, double strength, lacquer_fault* fault) {
    return lacquer_cue_at(finish, name, at, strength, 0, 0.5, 0.5, 0, fault);
}

int lacquer_set(lacquer_finish* finish, const char* name, double at, const double* value, int count,
                lacquer_fault* fault) {
    return call(finish, fault, [&]() -> Result<Done> {
        const Result<DialValue> to = value_from(value, count);
        if (!to) return to.fault();
        return change_at(finish->played, {name == nullptr ? "" : name, at, *to});
    });
}

int lacquer_value(lacquer_finish* finish, const char* name, double seconds, double* value, lacquer_fault* fault) {
    int numbers = 0;
    call(finish, fault, [&]() -> Result<Done> {
        const std::string wanted = name == nullptr ? "" : name;
        const DriveValues now =
            drive_values(*finish->played.checked, seconds, finish->played.tape.tape, finish->played.held);
        const auto found = now.find(wanted);
        if (found == now.end() || value == nullptr) return unknown("value", wanted);
        const DialValue made = setting_from(found->second);
        numbers = std::min(3, width_of(found->second.type));
        std::copy_n(made.begin(), numbers, value);
        return Done{};
    });
    return numbers;
}

int lacquer_draw(lacquer_finish* finish, const char* step, double seconds, int width, int height, lacquer_format format,
                 void* memory, size_t stride, lacquer_fault* fault) {
    return call(finish, fault, [&] { return draw(*finish, step, seconds, width, height, format, memory, stride); });
}

}  // extern "C"
