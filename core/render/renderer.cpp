#include "core/render/renderer.h"

#include <algorithm>
#include <bit>
#include <chrono>

#include "core/base/guarded.h"
#include "core/cpu/lower.h"
#include "core/cpu/program.h"
#include "core/finish/file.h"
#include "core/finish/stops_table.h"
#include "core/gpu/runner.h"
#include "core/picture/line_grid.h"

namespace lacquer {

namespace {

constexpr std::size_t most_programs = 128;
/// Stands behind a ground's name where its small picture is meant; no name holds it.
constexpr const char* small_mark = "/small";
/// The same for what is read by its opacity.
constexpr const char* weighed_mark = "/weighed";

float uniform_bits(const Value& value, int part) {
    if (value.type == Type::boolean) return std::bit_cast<float>(value.wholes[0] != 0 ? 0xFFFFFFFFU : 0U);
    if (scalar_of(value.type) != Scalar::real)
        return std::bit_cast<float>(value.wholes[static_cast<std::size_t>(part)]);
    return value.parts[static_cast<std::size_t>(part)];
}

Picture clear_pixel() {
    Picture clear(1, 1, 4);
    std::fill(clear.data.begin(), clear.data.end(), 0.0F);
    return clear;
}

Fault cancelled() { return {"render.cancelled", "the drawing was called off", "", {}, Severity::warning}; }

std::vector<std::string> names_of(const CheckedFinish& checked, const std::vector<std::string>& steps) {
    std::vector<std::string> names;
    for (const std::string& step : steps) {
        std::string name = step.empty() ? finished_step(checked) : step;
        // A finish without steps shows its first picture.
        const Ground* first = first_picture(*checked.finish);
        if (name.empty() && first != nullptr) name = first->name;
        if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(std::move(name));
    }
    return names;
}

}  // namespace

// A picture with its smaller copies, where they are wanted.
struct Renderer::Copies {
    std::shared_ptr<const std::vector<Picture>> pictures;
    std::vector<PictureView> views;
};

// What one frame gathers on its way.
struct Renderer::Run {
    const RenderRequest& request;
    const Cancel& cancel;
    int width;
    int height;
    float frame_width;
    float frame_height;
    std::map<std::string, Picture, std::less<>> stored;
    std::map<std::string, GpuPicturePtr, std::less<>> kept;  ///< stored steps that lie with the graphics driver
    std::map<std::string, PicturePtr, std::less<>> grounds;
    std::map<std::string, Copies, std::less<>> copies;
    std::vector<Picture> spare;  ///< of stored steps that nothing reads any more, to be drawn on again
    Frame frame;
    bool whole = true;
    SceneLayerSet scene_layers;                                ///< all that is read of scenes
    std::map<std::string, bool, std::less<>> all_opaque = {};  ///< stored steps of which that has been asked

    Picture blank(int wide, int high, int channels) {
        const auto fits = [&](const Picture& picture) {
            return picture.width == wide && picture.height == high && picture.channels == channels;
        };
        const auto found = std::find_if(spare.begin(), spare.end(), fits);
        if (found == spare.end()) return {wide, high, channels};
        Picture taken = std::move(*found);
        spare.erase(found);
        return taken;
    }
    void release(const std::string& name) {
        kept.erase(name);
        const auto found = stored.find(name);
        if (found == stored.end()) return;
        spare.push_back(std::move(found->second));
        stored.erase(found);
        copies.erase(name);
        copies.erase(name + weighed_mark);
        all_opaque.erase(name);
    }
};

namespace {

double milliseconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
}

// For each pass, the stored steps that it is the last to read.
std::vector<std::vector<std::string>> read_last_by(const Plan& plan) {
    std::map<std::string, std::size_t> last;
    for (std::size_t i = 0; i < plan.passes.size(); ++i) {
        for (const std::string& name : plan.passes[i].stored) last[name] = i;
    }
    std::vector<std::vector<std::string>> names(plan.passes.size());
    for (const auto& [name, pass] : last) names[pass].push_back(name);
    return names;
}

// The plan knows which step is meant where a broken one has the same name.
Type type_in(const Plan& plan, const std::string& name) {
    for (const Pass& pass : plan.passes) {
        const auto drawn =
            std::find_if(pass.steps.begin(), pass.steps.end(), [&](const PassStep& step) { return step.name == name; });
        if (drawn != pass.steps.end()) return drawn->typed->type;
    }
    return Type::vec4;
}

}  // namespace

Renderer::Renderer(WorkerPool& pool, std::optional<KernelSet> kernels)
    : pool_(pool), kernels_(kernels ? std::move(*kernels) : best_kernels()), grounds_(pool) {}

Renderer::~Renderer() = default;

std::optional<Backend> backend_named(std::string_view name) {
    if (name == "cpu") return Backend::cpu;
    if (name == "gpu") return Backend::gpu;
    return name == "auto" ? std::optional<Backend>(Backend::automatic) : std::nullopt;
}

std::optional<Fault> Renderer::use(Backend backend) {
    shaders_.reset();
    if (backend == Backend::cpu) return std::nullopt;
    Result<std::unique_ptr<ShaderRunner>> opened = ShaderRunner::open();
    if (!opened) {
        Fault notice = opened.fault();
        notice.severity = Severity::warning;
        // Nobody asked for it in particular, so nobody need hear.
        return backend == Backend::automatic ? std::nullopt : std::optional<Fault>(std::move(notice));
    }
    if (backend == Backend::gpu || (*opened)->is_hardware()) shaders_ = std::move(*opened);
    return std::nullopt;
}

std::string Renderer::drawn_by() const { return shaders_ != nullptr ? shaders_->name() : kernels_.name; }

Plan plan_for(const CheckedFinish& checked, const std::vector<std::string>& steps) {
    const std::vector<std::string> names = names_of(checked, steps);
    // Nothing to draw, not even a picture.
    if (names.size() == 1 && names.front().empty()) return {};
    return plan_passes(checked, names);
}

std::shared_ptr<const Program> Renderer::program_for(const Pass& pass) {
    const StructuralHash key = key_of(pass);
    const auto found = programs_.find(key);
    if (found != programs_.end()) return found->second;
    if (programs_.size() >= most_programs) programs_.clear();
    auto program = std::make_shared<const Program>(lay_out(optimised(lower(pass)), kernels_));
    programs_[key] = program;
    return program;
}

DriveValues Renderer::values_of(const RenderRequest& request) {
    const bool known = play_.play != nullptr && play_.checked == request.checked && play_.tape == request.tape &&
                       play_.play->held() == request.held;
    if (!known) {
        const Tape& tape = request.tape != nullptr ? *request.tape : request.checked->finish->tape;
        play_ = {request.checked, request.tape, std::make_shared<const Play>(request.checked, tape, request.held)};
    }
    return play_.play->values(request.time);
}

Value Renderer::uniform_value(const Run& run, const std::string& name) {
    if (name == "time") return make_number(static_cast<float>(run.request.time));
    if (name == "frame_size") return make_vec2(run.frame_width, run.frame_height);
    if (name == "pixel_size") return make_vec2(1.0F / run.frame_width, 1.0F / run.frame_height);
    if (name == "aspect") return make_number(run.frame_width / run.frame_height);
    const auto found = run.frame.values.find(name);
    return found != run.frame.values.end() ? found->second : Value{};
}

// A ground's stay as long as it is the same picture: they take longer than many a frame.
std::shared_ptr<const std::vector<Picture>> Renderer::copies_of_ground(const std::string& name,
                                                                       const PicturePtr& picture, bool weighed) {
    KeptCopies& kept = ground_copies_[weighed ? name + weighed_mark : name];
    if (kept.of != picture)
        kept = {picture, std::make_shared<const std::vector<Picture>>(smaller_copies(*picture, weighed))};
    return kept.smaller;
}

bool Renderer::opaque(const std::string& name, const PicturePtr& picture) {
    auto& [of, is] = opaque_[name];
    if (of != picture) {
        of = picture;
        is = is_opaque(*picture);
    }
    return is;
}

PictureView Renderer::picture_view(Run& run, const Pass& pass, const std::string& name, bool weighed) {
    // One that the driver keeps comes back where this processor has to read it.
    if (const auto there = run.kept.find(name); there != run.kept.end() && !run.stored.contains(name)) {
        Result<Picture> fetched =
            shaders_ != nullptr ? shaders_->fetch(*there->second) : Result<Picture>(Picture(1, 1, 4));
        if (fetched) run.stored[name] = std::move(*fetched);
    }
    const auto stored = run.stored.find(name);
    const Picture* picture = stored != run.stored.end() ? &stored->second : run.grounds[name].get();
    if (picture == nullptr) return {};
    const auto sampling = pass.samplings.find(name);
    Sampling read_as = sampling != pass.samplings.end() ? sampling->second : Sampling{};
    read_as.weighed = (read_as.weighed || weighed) && picture->channels == 4;
    const std::string kept_as = run.request.small_grounds ? name + small_mark : name;
    // Where all of it is opaque, its opacity need not be looked at.
    if (read_as.weighed && stored == run.stored.end()) {
        read_as.weighed = !opaque(kept_as, run.grounds[name]);
    } else if (read_as.weighed) {
        const auto [known, is_new] = run.all_opaque.try_emplace(name);
        if (is_new) known->second = is_opaque(*picture);
        read_as.weighed = !known->second;
    }
    PictureView view = view_of(*picture, read_as);
    if (std::find(pass.pyramids.begin(), pass.pyramids.end(), name) == pass.pyramids.end()) return view;
    Copies& copies = run.copies[read_as.weighed ? name + weighed_mark : name];
    if (copies.pictures == nullptr) {
        copies.pictures = stored != run.stored.end()
                              ? std::make_shared<const std::vector<Picture>>(smaller_copies(*picture, read_as.weighed))
                              : copies_of_ground(kept_as, run.grounds[name], read_as.weighed);
        for (const Picture& copy : *copies.pictures) copies.views.push_back(view_of(copy, read_as));
    }
    view.smaller = copies.views;
    return view;
}

void Renderer::draw_pass(Run& run, const Pass& pass, std::vector<Picture>& outputs, bool at_points) {
    // Small pictures of many steps would be many shaders, each drawn once.
    const bool by_shaders = shaders_ != nullptr && !run.request.small_grounds && !at_points;
    const StructuralHash key = by_shaders ? key_of(pass) : StructuralHash();
    if (by_shaders && !refused_.contains(key)) {
        const Result<Done> done = draw_by_shaders(run, pass, key, outputs);
        if (done) return;
        give_up_shader(run, pass, key, done.fault());
    }
    const std::shared_ptr<const Program> program = program_for(pass);
    std::vector<float> uniforms;
    for (const UniformSlot& slot : program->uniform_slots) {
        uniforms.push_back(uniform_bits(uniform_value(run, slot.name), slot.part));
    }
    std::vector<PictureView> pictures;
    for (const PictureUse& use : program->pictures) pictures.push_back(picture_view(run, pass, use.name, use.weighed));
    RunInputs inputs;
    inputs.width = scaled_side(run.width, pass.scale);
    inputs.height = scaled_side(run.height, pass.scale);
    inputs.frame_width = run.frame_width;
    inputs.frame_height = run.frame_height;
    inputs.uniforms = uniforms;
    inputs.pictures = pictures;
    if (at_points) return run_at(*program, inputs, run.request.points, outputs);
    run.whole = lacquer::run(*program, inputs, outputs, pool_, run.cancel) && run.whole;
}

// A shader has few outputs, so many are drawn in several goes.
const std::vector<Shader>& Renderer::shaders_for(const Pass& pass, const StructuralHash& key) {
    const auto found = emitted_.find(key);
    if (found != emitted_.end()) return found->second;
    if (emitted_.size() >= most_programs) emitted_.clear();
    std::vector<Shader>& shaders = emitted_[key];
    for (std::size_t first = 0; first < pass.outputs.size(); first += max_shader_outputs) {
        const std::size_t count = std::min(max_shader_outputs, pass.outputs.size() - first);
        Pass part = pass;
        part.outputs.assign(pass.outputs.begin() + static_cast<std::ptrdiff_t>(first),
                            pass.outputs.begin() + static_cast<std::ptrdiff_t>(first + count));
        shaders.push_back(emit_glsl(part, Dialect::desktop_330));
    }
    return shaders;
}

Result<Done> Renderer::draw_by_shaders(Run& run, const Pass& pass, const StructuralHash& key,
                                       std::vector<Picture>& outputs) {
    std::size_t first = 0;
    for (const Shader& shader : shaders_for(pass, key)) {
        const std::size_t count = shader.outputs.size();
        const ShaderInputs inputs = shader_inputs(run, pass, shader);
        if (auto done = shaders_->draw(shader, inputs, std::span(outputs).subspan(first, count)); !done) return done;
        first += count;
        if (run.cancel.requested()) {
            run.whole = false;
            return Done{};
        }
    }
    return Done{};
}

ShaderInputs Renderer::shader_inputs(Run& run, const Pass& pass, const Shader& shader) {
    ShaderInputs inputs;
    inputs.width = scaled_side(run.width, pass.scale);
    inputs.height = scaled_side(run.height, pass.scale);
    for (const ShaderUniform& uniform : shader.uniforms) {
        const bool size = uniform.source == "lq_drawn_size";
        inputs.uniforms.push_back(size ? make_vec2(static_cast<float>(inputs.width), static_cast<float>(inputs.height))
                                       : uniform_value(run, uniform.source));
    }
    for (const ShaderPicture& picture : shader.pictures) {
        const auto kept = run.kept.find(picture.source);
        const bool wants_copies =
            std::find(pass.pyramids.begin(), pass.pyramids.end(), picture.source) != pass.pyramids.end();
        const bool stays = kept != run.kept.end() && !wants_copies;
        inputs.kept.push_back(stays ? kept->second : GpuPicturePtr());
        inputs.pictures.push_back(stays ? PictureView() : picture_view(run, pass, picture.source, false));
        const auto ground = run.grounds.find(picture.source);
        inputs.lasting.push_back(ground != run.grounds.end() ? ground->second : PicturePtr());
    }
    return inputs;
}

// What a pass stores, left with the driver. False where this processor has to draw it.
bool Renderer::store_by_shaders(Run& run, const Pass& pass) {
    if (shaders_ == nullptr || run.request.small_grounds) return false;
    const StructuralHash key = key_of(pass);
    if (refused_.contains(key)) return false;
    const std::vector<Shader>& shaders = shaders_for(pass, key);
    if (shaders.size() != 1) return false;
    std::vector<int> channels;
    for (const std::string& name : pass.outputs) channels.push_back(resource_of(pass, name).channels);
    Result<std::vector<GpuPicturePtr>> kept =
        shaders_->draw_and_keep(shaders.front(), shader_inputs(run, pass, shaders.front()), channels);
    if (!kept) {
        give_up_shader(run, pass, key, kept.fault());
        return false;
    }
    for (std::size_t k = 0; k < pass.outputs.size(); ++k) run.kept[pass.outputs[k]] = (*kept)[k];
    run.whole = run.whole && !run.cancel.requested();
    return true;
}

void Renderer::give_up_shader(Run& run, const Pass& pass, const StructuralHash& key, Fault notice) {
    if (notice.id == "gpu.shader") {
        // One that the driver does not take says nothing of the others.
        refused_.insert(key);
        notice.message += "; this processor draws '" + pass.name + "'";
    } else {
        // What it keeps is lost with it, so it is taken over first where that can still be.
        for (const auto& [name, picture] : run.kept) {
            if (Result<Picture> fetched = shaders_->fetch(*picture)) run.stored[name] = std::move(*fetched);
        }
        run.kept.clear();
        shaders_.reset();
        notice.message += "; this processor draws from here on";
    }
    notice.severity = Severity::warning;
    run.frame.notices.push_back(std::move(notice));
}

PicturePtr Renderer::ground_picture(Run& run, const std::string& name) {
    const RenderRequest& request = run.request;
    const Finish& finish = *request.checked->finish;
    const std::optional<NamedPicture> named = find_ground_picture(finish, name);
    if (!named) {
        const Ground* stops = find_ground(finish, name);
        return stops != nullptr ? std::make_shared<const Picture>(stops_table(*stops)) : PicturePtr();
    }
    if (request.line_grid && named->picture.layer == GroundLayer::colour) {
        return std::make_shared<const Picture>(
            request.small_grounds ? line_grid(run.width, run.height)
                                  : line_grid(static_cast<int>(run.frame_width), static_cast<int>(run.frame_height)));
    }
    const GroundUse use{&finish,    request.finish_path,   request.time,    run.width,
                        run.height, request.small_grounds, run.scene_layers};
    Result<PicturePtr> picture = grounds_.picture(*named, use, run.cancel);
    if (picture) return *picture;
    if (run.cancel.requested()) {
        run.whole = false;
        return {};
    }
    // A sprite is clear where it is not; of its parts the file that is missing is named.
    const bool sprite = named->ground->kind == GroundKind::sprite;
    Fault notice = picture.fault();
    const std::string path = sprite                          ? notice.place.where
                             : has_file(named->ground->kind) ? picture_path(request.finish_path, named->ground->path)
                                                             : "";
    notice.place.where = named->ground->name;
    notice.message = "'" + name + "' shows as " + (sprite ? "clear: " : "black: ") + notice.message +
                     (path.empty() ? "" : " at " + path);
    notice.severity = Severity::warning;
    run.frame.notices.push_back(std::move(notice));
    return sprite ? std::make_shared<const Picture>(clear_pixel()) : PicturePtr();
}

std::optional<std::pair<int, int>> Renderer::size_of(const Ground& ground, const std::string& finish_path) {
    if (ground.kind == GroundKind::sprite) return std::pair(ground.sprite.width, ground.sprite.height);
    if (ground.kind != GroundKind::picture) return std::nullopt;
    const Result<PicturePtr> whole = grounds_.file(picture_path(finish_path, ground.path), meaning_of(ground));
    if (!whole) return std::nullopt;
    return std::pair((*whole)->width / ground.cells.columns, (*whole)->height / ground.cells.rows);
}

// All that will be asked of scenes, so that each is cast once.
SceneLayerSet Renderer::scene_layers_of(const Finish& finish, const Plan& plan) {
    SceneLayerSet set;
    for (const Pass& pass : plan.passes) {
        for (const std::string& name : pass.grounds) {
            if (const auto named = find_ground_picture(finish, name)) add_layer(set, named->picture.layer);
        }
    }
    return set;
}

Result<Frame> Renderer::render(const RenderRequest& request, const Cancel& cancel) {
    return guarded([&] { return drawn(request, cancel); });
}

Result<Frame> Renderer::drawn(const RenderRequest& request, const Cancel& cancel) {
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
            {},
            {},
            {},
            true,
            {}};
    if (!is_drawable_size(run.width, run.height) || !is_drawable_size(frame_width, frame_height)) {
        return Fault{"render.size",
                     "a picture of this size cannot be drawn",
                     "use at most 64 million pixels",
                     {},
                     Severity::fault};
    }
    for (const PixelPoint& point : request.points) {
        if (point.x >= 0 && point.y >= 0 && point.x < run.width && point.y < run.height) continue;
        return Fault{"render.point", "a point lies beyond the frame", "point into the picture", {}, Severity::fault};
    }
    run.frame.values = values_of(request);
    const Plan plan = plan_for(checked, request.steps);
    run.scene_layers = scene_layers_of(finish, plan);
    const auto gone = [&](const auto& kept) {
        return !find_ground_picture(finish, kept.first.substr(0, kept.first.find('/')));
    };
    std::erase_if(ground_copies_, gone);
    std::erase_if(opaque_, gone);
    run.frame.passes = plan.passes.size();

    const std::vector<std::vector<std::string>> done_with = read_last_by(plan);
    for (const Pass& pass : plan.passes) {
        for (const std::string& name : pass.grounds) {
            if (run.grounds.contains(name)) continue;
            run.grounds[name] = ground_picture(run, name);
        }
        if (!run.whole) return cancelled();
        const bool stores = &pass != &plan.passes.back();
        const auto index = static_cast<std::size_t>(&pass - plan.passes.data());
        const auto stored_begin = std::chrono::steady_clock::now();
        if (stores && store_by_shaders(run, pass)) {
            run.frame.pass_milliseconds.push_back(milliseconds_since(stored_begin));
            if (!run.whole) return cancelled();
            for (const std::string& name : done_with[index]) run.release(name);
            continue;
        }
        std::vector<Picture> outputs;
        std::vector<Type> types;
        for (const std::string& name : pass.outputs) {
            types.push_back(type_in(plan, name));
            const bool row = !stores && !request.points.empty();
            outputs.push_back(
                run.blank(row ? static_cast<int>(request.points.size()) : scaled_side(run.width, pass.scale),
                          row ? 1 : scaled_side(run.height, pass.scale), resource_of(pass, name).channels));
        }
        const auto pass_begin = std::chrono::steady_clock::now();
        draw_pass(run, pass, outputs, !stores && !request.points.empty());
        run.frame.pass_milliseconds.push_back(milliseconds_since(pass_begin));
        if (!run.whole) return cancelled();
        for (std::size_t k = 0; k < outputs.size(); ++k) {
            if (stores) {
                run.stored[pass.outputs[k]] = std::move(outputs[k]);
            } else {
                run.frame.steps.push_back({pass.outputs[k], types[k], std::move(outputs[k])});
            }
        }
        for (const std::string& name : done_with[index]) run.release(name);
    }
    run.frame.milliseconds = milliseconds_since(begin);
    return std::move(run.frame);
}

}  // namespace lacquer
