#include "cli/shown_operations.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <set>
#include <vector>

#include "cli/lettering.h"
#include "core/base/text.h"
#include "core/catalogue/samples.h"
#include "core/cpu/cost.h"
#include "core/cpu/lower.h"
#include "core/finish/shown.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer::cli {

namespace {

constexpr int picture_width = 240;
constexpr int picture_height = 135;
constexpr int gap = 12;
constexpr int label_height = 22;
constexpr int heading_height = 34;
constexpr int columns = 8;

std::shared_ptr<const CheckedFinish> checked_on_samples(const std::shared_ptr<const Catalogue>& catalogue,
                                                        const std::string& formula) {
    return std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(finish_on_samples(formula)), catalogue));
}

Result<Image8> drawn(const Operation& operation, const std::shared_ptr<const Catalogue>& catalogue, Renderer& renderer,
                     WorkerPool& pool) {
    RenderRequest request;
    request.checked = checked_on_samples(catalogue, operation.shown);
    const CheckedStep& shown = request.checked->steps.back();
    if (shown.fault) {
        Fault fault = *shown.fault;
        fault.place = {operation.file, {}, 1, 0};
        return fault;
    }
    request.width = picture_width;
    request.height = picture_height;
    request.time = 0.4;
    request.steps = {"shown"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) return frame.fault();
    Image8 image = to_image(frame->steps[0].picture, frame->steps[0].type, pool);
    // What is clear shows a quiet pattern of squares.
    for (int y = 0; y < image.height; ++y) {
        for (int x = 0; x < image.width; ++x) {
            std::uint8_t* pixel = image.data.data() + (static_cast<std::ptrdiff_t>(y) * image.width + x) * 4;
            const int under = (x / 9 + y / 9) % 2 == 0 ? 92 : 116;
            for (int c = 0; c < 3; ++c)
                pixel[c] = static_cast<std::uint8_t>((pixel[c] * pixel[3] + under * (255 - pixel[3])) / 255);
            pixel[3] = 255;
        }
    }
    return image;
}

void paste(Image8& onto, const Image8& image, int x, int y) {
    for (int row = 0; row < image.height; ++row) {
        std::copy_n(image.data.data() + static_cast<std::ptrdiff_t>(row) * image.width * 4, image.width * 4,
                    onto.data.data() + (static_cast<std::ptrdiff_t>(y + row) * onto.width + x) * 4);
    }
}

struct Total {
    double instructions = 0;
    double reads = 0;
    int passes = 0;
    bool loops = false;
};

// Smaller passes count by their share of the frame.
Total total_of(const Plan& plan) {
    Total total;
    for (const Pass& pass : plan.passes) {
        const PassCost cost = cost_of(optimised(lower(pass)));
        total.instructions += cost.pixel * pass.scale * pass.scale;
        total.reads += cost.reads * pass.scale * pass.scale;
        total.passes += 1;
        total.loops = total.loops || cost.loops;
    }
    return total;
}

}  // namespace

Result<std::map<std::string, Image8>> shown_operations(const std::shared_ptr<const Catalogue>& catalogue,
                                                       WorkerPool& pool) {
    std::map<std::string, Image8> pictures;
    Renderer renderer(pool);
    for (const auto& [name, operation] : catalogue->operations) {
        if (operation.shown.empty()) continue;
        Result<Image8> image = drawn(operation, catalogue, renderer, pool);
        if (!image) return image.fault();
        pictures[name] = std::move(*image);
    }
    return pictures;
}

Result<Image8> sheet_of(const Catalogue& catalogue, const std::map<std::string, Image8>& pictures) {
    std::map<std::string, std::vector<const Operation*>> groups;
    for (const auto& [name, image] : pictures) {
        const Operation& operation = catalogue.operations.at(name);
        groups[operation.group].push_back(&operation);
    }
    constexpr int cell_width = picture_width + gap;
    constexpr int cell_height = picture_height + label_height + gap;
    int height = gap;
    for (const auto& [group, members] : groups) {
        height += heading_height + (static_cast<int>(members.size()) + columns - 1) / columns * cell_height;
    }
    Image8 sheet;
    sheet.width = columns * cell_width + gap;
    sheet.height = height;
    sheet.data.resize(static_cast<std::size_t>(sheet.width) * static_cast<std::size_t>(sheet.height) * 4);
    for (std::size_t i = 0; i < sheet.data.size(); ++i) sheet.data[i] = i % 4 == 3 ? 255 : 30;
    int y = gap;
    for (const auto& [group, members] : groups) {
        if (auto done = write_words(sheet, group, gap, y + 20, 20, 235); !done) return done.fault();
        y += heading_height;
        for (std::size_t i = 0; i < members.size(); ++i) {
            const int column = static_cast<int>(i) % columns;
            const int x = gap + column * cell_width;
            paste(sheet, pictures.at(members[i]->name), x, y);
            if (auto done = write_words(sheet, members[i]->title, x, y + picture_height + 16, 14, 190); !done)
                return done.fault();
            if (column == columns - 1 || i + 1 == members.size()) y += cell_height;
        }
    }
    return sheet;
}

std::string cost_as_shown(const std::shared_ptr<const Catalogue>& catalogue, const Operation& operation) {
    if (operation.shown.empty()) return "";
    const auto checked = checked_on_samples(catalogue, operation.shown);
    if (checked->steps.back().fault) return "";
    const Plan plan = plan_for(*checked, {"shown"});
    Total total = total_of(plan);
    std::set<std::string> samples;
    for (const OperationFile& sample : sample_files()) samples.insert(sample.name);
    for (const Pass& pass : plan.passes) {
        for (const PassStep& step : pass.steps) {
            if (!samples.contains(step.name)) continue;
            const Total sample = total_of(plan_for(*checked, {step.name}));
            total.instructions -= sample.instructions;
            total.reads -= sample.reads;
            // One that is read elsewhere is stored by a pass of its own.
            total.passes -= pass.outputs == std::vector<std::string>{step.name} ? 1 : 0;
        }
    }
    const auto rounded = [](double count) { return static_cast<std::size_t>(std::max(0.0, std::round(count))); };
    return fmt::format("Cost as shown, a pixel: {}, {}, {}{}.",
                       counted(static_cast<std::size_t>(total.passes), "pass", "passes"),
                       counted(rounded(total.reads), "reading"), counted(rounded(total.instructions), "instruction"),
                       total.loops ? " (each turn of a loop adds its own)" : "");
}

}  // namespace lacquer::cli
