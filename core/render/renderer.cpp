#include "core/render/renderer.h"

#include <algorithm>
#include <bit>
#include <chrono>

#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/finish/file.h"

namespace lacquer {

namespace {

constexpr std::size_t most_programs = 128;

// A finish without steps shows its first ground.
Plan ground_plan(const Finish& finish) {
    Plan plan;
    if (finish.grounds.empty()) return plan;
    const std::string& name = finish.grounds.front().name;
    Typed symbol;
    symbol.kind = TypedKind::symbol;
    symbol.type = Type::vec4;
    symbol.symbol = SymbolKind::ground;
    symbol.name = name;
    plan.passes.push_back({"draws", {{name, symbol}}, {}, {name}, {name}});
    return plan;
}

float uniform_bits(const Value& value, int part) {
    if (value.type == Type::boolean) return std::bit_cast<float>(value.wholes[0] != 0 ? 0xFFFFFFFFU : 0U);
    if (scalar_of(value.type) != Scalar::real)
        return std::bit_cast<float>(value.wholes[static_cast<std::size_t>(part)]);
    return value.parts[static_cast<std::size_t>(part)];
}

std::vector<std::string> names_of(const CheckedFinish& checked, const std::vector<std::string>& steps) {
    std::vector<std::string> names;
    for (const std::string& step : steps) {
        std::string name = step.empty() ? finished_step(checked) : step;
        if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(std::move(name));
    }
    return names;
}

}  // namespace

// What one frame gathers on its way.
struct Renderer::Run {
    const RenderRequest& request;
    const Cancel& cancel;
    int width;
    int height;
    float frame_width;
    float frame_height;
    std::map<std::string, Picture, std::less<>> stored;
    std::map<std::string, PicturePtr, std::less<>> grounds;
    Frame frame;
    bool whole = true;
};

Renderer::Renderer(WorkerPool& pool, std::optional<KernelSet> kernels)
    : pool_(pool), kernels_(kernels ? std::move(*kernels) : best_kernels()) {}

Plan plan_for(const CheckedFinish& checked, const std::vector<std::string>& steps) {
    const std::vector<std::string> names = names_of(checked, steps);
    if (names.size() == 1 && names.front().empty()) return ground_plan(*checked.finish);
    return plan_passes(checked, names);
}

std::shared_ptr<const Program> Renderer::program_for(const Pass& pass) {
    const std::string key = to_text(Plan{{pass}});
    const auto found = programs_.find(key);
    if (found != programs_.end()) return found->second;
    if (programs_.size() >= most_programs) programs_.clear();
    auto program = std::make_shared<const Program>(lay_out(optimised(lower(pass)), kernels_));
    programs_[key] = program;
    return program;
}

void Renderer::draw_pass(Run& run, const Pass& pass, std::vector<Picture>& outputs) {
    const std::shared_ptr<const Program> program = program_for(pass);
    std::vector<float> uniforms;
    for (const UniformSlot& slot : program->uniform_slots) {
        Value value;
        if (slot.name == "time") {
            value = make_number(static_cast<float>(run.request.time));
        } else if (slot.name == "frame_size") {
            value = make_vec2(run.frame_width, run.frame_height);
        } else if (slot.name == "pixel_size") {
            value = make_vec2(1.0F / run.frame_width, 1.0F / run.frame_height);
        } else if (slot.name == "aspect") {
            value = make_number(run.frame_width / run.frame_height);
        } else if (const auto found = run.frame.values.find(slot.name); found != run.frame.values.end()) {
            value = found->second;
        }
        uniforms.push_back(uniform_bits(value, slot.part));
    }
    std::vector<PictureView> pictures;
    for (const std::string& name : program->pictures) {
        const auto stored = run.stored.find(name);
        if (stored != run.stored.end()) {
            pictures.push_back(view_of(stored->second));
        } else if (const PicturePtr& ground = run.grounds[name]; ground != nullptr) {
            pictures.push_back(view_of(*ground));
        } else {
            pictures.push_back({});
        }
    }
    RunInputs inputs;
    inputs.width = run.width;
    inputs.height = run.height;
    inputs.frame_width = run.frame_width;
    inputs.frame_height = run.frame_height;
    inputs.uniforms = uniforms;
    inputs.pictures = pictures;
    run.whole = lacquer::run(*program, inputs, outputs, pool_, run.cancel) && run.whole;
}

Result<Frame> Renderer::render(const RenderRequest& request, const Cancel& cancel) {
    const auto begin = std::chrono::steady_clock::now();
    const CheckedFinish& checked = *request.checked;
    const Finish& finish = *checked.finish;
    const int frame_width = request.frame_width > 0 ? request.frame_width : finish.frame_width;
    const int frame_height = request.frame_height > 0 ? request.frame_height : finish.frame_height;
    Run run{request,
            cancel,
            request.width > 0 ? request.width : frame_width,
            request.height > 0 ? request.height : frame_height,
            static_cast<float>(frame_width),
            static_cast<float>(frame_height),
            {},
            {},
            {},
            true};
    if (!is_drawable_size(run.width, run.height) || !is_drawable_size(frame_width, frame_height)) {
        return Fault{"render.size",
                     "a picture of this size cannot be drawn",
                     "use at most 64 million pixels",
                     {},
                     Severity::fault};
    }
    run.frame.values = drive_values(checked, {request.time, request.cues}, request.held);
    const Plan plan = plan_for(checked, request.steps);
    run.frame.passes = plan.passes.size();

    for (const Pass& pass : plan.passes) {
        for (const std::string& name : pass.grounds) {
            if (run.grounds.contains(name)) continue;
            const auto ground = std::find_if(finish.grounds.begin(), finish.grounds.end(),
                                             [&](const Ground& g) { return g.name == name; });
            const std::string path = picture_path(request.finish_path, ground->path);
            const PictureMeaning meaning = ground->data ? PictureMeaning::data : PictureMeaning::colour;
            Result<PicturePtr> picture = request.small_grounds
                                             ? grounds_.small_picture(path, meaning, run.width, run.height)
                                             : grounds_.picture(path, meaning);
            if (!picture) {
                Fault notice = picture.fault();
                notice.place.where = name;
                notice.message = "'" + name + "' shows as black: " + notice.message + " at " + path;
                notice.severity = Severity::warning;
                run.frame.notices.push_back(std::move(notice));
            }
            run.grounds[name] = picture ? *picture : PicturePtr();
        }
        const bool stores = &pass != &plan.passes.back();
        std::vector<Picture> outputs;
        std::vector<Type> types;
        for (const std::string& name : pass.outputs) {
            const CheckedStep* step = find_step(checked, name);
            types.push_back(step != nullptr ? step->typed->type : Type::vec4);
            outputs.emplace_back(run.width, run.height, stores ? 4 : width_of(types.back()));
        }
        draw_pass(run, pass, outputs);
        if (!run.whole) return Fault{"render.cancelled", "the drawing was called off", "", {}, Severity::warning};
        for (std::size_t k = 0; k < outputs.size(); ++k) {
            if (stores) {
                run.stored[pass.outputs[k]] = std::move(outputs[k]);
            } else {
                run.frame.steps.push_back({pass.outputs[k], types[k], std::move(outputs[k])});
            }
        }
    }
    run.frame.milliseconds =
        std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
    return std::move(run.frame);
}

}  // namespace lacquer
