#include "core/render/frame_run.h"

#include <algorithm>
#include <bit>
#include <chrono>
#include <map>
#include <utility>

#include "core/finish/file.h"
#include "core/finish/stops_table.h"
#include "core/lang/past.h"
#include "core/picture/line_grid.h"
#include "core/render/flow_store.h"
#include "core/render/layer_view.h"

namespace lacquer {

namespace {

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

double milliseconds_since(std::chrono::steady_clock::time_point begin) {
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - begin).count();
}

// The pass knows which step is meant where a broken one has the same name.
Type type_in(const Pass& pass, const std::string& name) {
    const auto drawn =
        std::find_if(pass.steps.begin(), pass.steps.end(), [&](const PassStep& step) { return step.name == name; });
    return drawn != pass.steps.end() ? drawn->typed->type : resource_of(pass, name).type;
}

}  // namespace

Plan plan_for(const CheckedFinish& checked, const std::vector<std::string>& steps) {
    const std::vector<std::string> names = names_of(checked, steps);
    // Nothing to draw, not even a picture.
    if (names.size() == 1 && names.front().empty()) return {};
    return plan_passes(checked, names);
}

FrameSize frame_size(const RenderRequest& request) {
    const Finish& finish = *request.checked->finish;
    const int frame_width = request.frame_width > 0 ? request.frame_width : finish.frame_width;
    const int frame_height = request.frame_height > 0 ? request.frame_height : finish.frame_height;
    return {request.width > 0 ? request.width : frame_width, request.height > 0 ? request.height : frame_height,
            frame_width, frame_height};
}

Fault lost_with_driver() {
    return {"gpu.lost", "the driver has lost a picture", "draw it once more", {}, Severity::fault};
}

std::optional<Fault> fault_of_size(const RenderRequest& request, const FrameSize& size) {
    if (!is_drawable_size(size.width, size.height) || !is_drawable_size(size.frame_width, size.frame_height)) {
        return Fault{"render.size",
                     "a picture of this size cannot be drawn",
                     "use at most 64 million pixels",
                     {},
                     Severity::fault};
    }
    const auto inside = [&](const PixelPoint& point) {
        return point.x >= 0 && point.y >= 0 && point.x < size.width && point.y < size.height;
    };
    if (std::all_of(request.points.begin(), request.points.end(), inside)) return std::nullopt;
    return Fault{"render.point", "a point lies beyond the frame", "point into the picture", {}, Severity::fault};
}

FrameRun::FrameRun(const FrameTools& tools, const RenderRequest& request, const FrameSize& size, DriveValues values,
                   const Cancel& cancel)
    : tools_(tools),
      request_(request),
      size_(size),
      cancel_(cancel),
      pictures_(tools.stores.pictures, cancel),
      drawn_here_(tools.stores.pictures, true) {
    frame_.values = std::move(values);
}

void FrameRun::find_layers(const Plan& plan) {
    const Finish& finish = *request_.checked->finish;
    for (const Pass& pass : plan.passes) {
        for (const std::string& name : pass.grounds) {
            const auto named = find_ground_picture(finish, name);
            if (!named) continue;
            const auto of_drops = drop_layer(named->picture.layer);
            if (named->ground->as<DropletsGround>() != nullptr && of_drops) {
                drop_layers_[named->ground->name][*of_drops] = true;
            } else {
                add_layer(scene_layers_, named->picture.layer);
            }
        }
    }
}

Result<Frame> FrameRun::drawn(const Plan& plan) {
    const auto begin = std::chrono::steady_clock::now();
    find_layers(plan);
    find_native(plan);
    if (auto fault = claim(plan, true)) return *fault;
    frame_.passes = plan.passes.size();
    const std::vector<std::vector<std::string>> done_with = read_last_by(plan);
    for (std::size_t i = 0; i < plan.passes.size(); ++i) {
        if (!draw(plan.passes[i], i + 1 == plan.passes.size())) return cancelled_fault();
        for (const std::string& name : done_with[i]) pictures_.release(name);
    }
    if (lost_) return lost_with_driver();
    frame_.milliseconds = milliseconds_since(begin);
    return std::move(frame_);
}

Result<FlowPictures> FrameRun::drawn_tick(const Plan& plan, const std::vector<std::string>& steps) {
    find_layers(plan);
    find_native(plan);
    if (auto fault = claim(plan, false)) return *fault;
    for (const Pass& pass : plan.passes) {
        if (!draw(pass, false)) return cancelled_fault();
    }
    FlowPictures drawn;
    for (const std::string& name : steps) {
        FlowPicture left = pictures_.take(name);
        lost_ = lost_ || (left.here == nullptr && left.with_driver == nullptr);
        drawn[name] = std::move(left);
    }
    if (lost_) return lost_with_driver();
    return drawn;
}

void FrameRun::put_ground(const std::string& name) {
    if (pictures_.has(name)) return;
    const FlowPicture* left = tick_left(name);
    // Single points and small pictures are drawn by this processor.
    const bool stays = left != nullptr && left->with_driver != nullptr && draws_by_shaders() && request_.points.empty();
    if (stays) return pictures_.store(name, left->with_driver);
    lost_ = lost_ || (left != nullptr && left->here == nullptr && left->with_driver != nullptr);
    pictures_.put_ground(name, ground_picture(name));
}

// False if the frame was called off.
bool FrameRun::draw(const Pass& pass, bool is_last) {
    const std::shared_ptr<void> noted = tools_.stores.watch ? tools_.stores.watch(request_, pass) : nullptr;
    if (is_spared(pass)) {
        frame_.pass_milliseconds.push_back(0);
        return true;
    }
    for (const std::string& name : pass.grounds) put_ground(name);
    tools_.ticks.keep_within_memory();
    if (!whole_) return false;
    const auto begin = std::chrono::steady_clock::now();
    const auto took = [&] { frame_.pass_milliseconds.push_back(milliseconds_since(begin)); };
    if (store_natively(pass)) {
        took();
        return whole_;
    }
    if (!is_last && draws_by_shaders() && store_by_shaders(pass, key_of(pass))) {
        took();
        return whole_;
    }
    if (is_last && is_seen_by_rows(pass)) {
        draw_seen(pass);
        took();
        return whole_;
    }
    const bool at_points = is_last && !request_.points.empty();
    const int width = at_points ? static_cast<int>(request_.points.size()) : scaled_side(size_.width, pass.scale);
    const int height = at_points ? 1 : scaled_side(size_.height, pass.scale);
    std::vector<Picture> outputs;
    for (const std::string& name : pass.outputs)
        outputs.push_back(pictures_.blank(width, height, resource_of(pass, name).channels));
    draw_pass(pass, outputs, at_points);
    took();
    if (!whole_) return false;
    for (std::size_t k = 0; k < outputs.size(); ++k) {
        const std::string& name = pass.outputs[k];
        if (is_last) {
            hand_out(pass, name, std::move(outputs[k]));
        } else {
            pictures_.store(name, std::move(outputs[k]));
        }
    }
    return true;
}

void FrameRun::draw_pass(const Pass& pass, std::vector<Picture>& outputs, bool at_points) {
    const StructuralHash key = key_of(pass);
    if (draws_by_shaders() && !at_points && !is_refused(key)) {
        const Result<Done> done = draw_by_shaders(pass, key, outputs);
        if (done) return;
        give_up_shader(pass, key, done.fault());
    }
    const Prepared ready = prepared(pass, key);
    const RunInputs inputs = ready.inputs();
    if (at_points) return run_at(*ready.program, inputs, request_.points, outputs);
    whole_ = run(*ready.program, inputs, outputs, tools_.pool, cancel_) && whole_;
}

FrameRun::Prepared FrameRun::prepared(const Pass& pass, const StructuralHash& key) {
    Prepared ready;
    ready.program = tools_.stores.programs.program(pass, key, tools_.kernels);
    ready.size = size_;
    ready.width = scaled_side(size_.width, pass.scale);
    ready.height = scaled_side(size_.height, pass.scale);
    for (const UniformSlot& slot : ready.program->uniform_slots)
        ready.uniforms.push_back(uniform_bits(uniform_value(slot.name), slot.part));
    for (const PictureUse& use : ready.program->pictures)
        ready.pictures.push_back(pictures_.view(pass, use.name, use.weighed, tools_.shaders.runner.get()));
    return ready;
}

RunInputs FrameRun::Prepared::inputs() const {
    RunInputs inputs;
    inputs.width = width;
    inputs.height = height;
    inputs.frame_width = static_cast<float>(size.frame_width);
    inputs.frame_height = static_cast<float>(size.frame_height);
    inputs.uniforms = uniforms;
    inputs.pictures = pictures;
    return inputs;
}

// Layers that are shown in colours of their own are looked at whole; what shaders draw comes whole.
bool FrameRun::is_seen_by_rows(const Pass& pass) const {
    return request_.seen && request_.points.empty() && !draws_by_shaders() &&
           std::none_of(pass.outputs.begin(), pass.outputs.end(), [&](const std::string& name) {
               return layer_to_view(*request_.checked->finish, name).has_value();
           });
}

// Rows become bytes while they are still in the cache.
void FrameRun::draw_seen(const Pass& pass) {
    const Prepared ready = prepared(pass, key_of(pass));
    std::vector<Image8> images;
    images.reserve(pass.outputs.size());
    std::vector<RowTaker> takers;
    for (const std::string& name : pass.outputs) {
        Image8& image = images.emplace_back(blank_image(ready.width, ready.height));
        const int channels = resource_of(pass, name).channels;
        takers.push_back({channels, [&image, channels, type = type_in(pass, name), this](int y, const float* row) {
                              show_row(row, channels, type, *request_.seen, y, image.width, row_of(image, y));
                          }});
    }
    whole_ = run_by_rows(*ready.program, ready.inputs(), takers, tools_.pool, cancel_) && whole_;
    if (!whole_) return;
    for (std::size_t k = 0; k < images.size(); ++k)
        frame_.steps.push_back({pass.outputs[k], type_in(pass, pass.outputs[k]), {}, std::move(images[k])});
}

void FrameRun::hand_out(const Pass& pass, const std::string& name, Picture values) {
    DrawnStep drawn{name, type_in(pass, name), std::move(values)};
    if (request_.seen && request_.points.empty()) {
        const std::optional<GroundLayer> layer = layer_to_view(*request_.checked->finish, name);
        drawn.image = layer ? to_image(layer_view(drawn.picture, *layer), Type::vec3, tools_.pool)
                            : to_image(drawn.picture, drawn.type, tools_.pool, *request_.seen);
        drawn.picture = {};
    }
    frame_.steps.push_back(std::move(drawn));
}

Value FrameRun::uniform_value(const std::string& name) const {
    const auto width = static_cast<float>(size_.frame_width);
    const auto height = static_cast<float>(size_.frame_height);
    if (name == "time") return make_number(static_cast<float>(request_.time));
    if (name == "frame_size") return make_vec2(width, height);
    if (name == "pixel_size") return make_vec2(1.0F / width, 1.0F / height);
    if (name == "aspect") return make_number(width / height);
    if (name == "tick") return make_number(static_cast<float>(ticks_.tick));
    if (name == "tick_length") return make_number(static_cast<float>(ticks_.length));
    if (name == "tick_part") return make_number(static_cast<float>(ticks_.part));
    const auto found = frame_.values.find(name);
    return found != frame_.values.end() ? found->second : Value{};
}

const FlowPicture* FrameRun::tick_left(const std::string& name) const {
    const auto found = ticks_.pictures.find(name);
    return found != ticks_.pictures.end() ? &found->second : nullptr;
}

// Clear where there was nothing yet.
PicturePtr FrameRun::tick_picture(const std::string& name) const {
    const FlowPicture* left = tick_left(name);
    if (left == nullptr || left->here == nullptr) return std::make_shared<const Picture>(clear_pixel());
    const Picture& whole = *left->here;
    const bool small = request_.small_grounds && (whole.width > size_.width || whole.height > size_.height);
    return small ? std::make_shared<const Picture>(shrink_to(whole, size_.width, size_.height)) : left->here;
}

PicturePtr FrameRun::ground_picture(const std::string& name) {
    if (step_of_tick_picture(name)) return tick_picture(name);
    const Finish& finish = *request_.checked->finish;
    const std::optional<NamedPicture> named = find_ground_picture(finish, name);
    if (!named) {
        const Ground* ground = find_ground(finish, name);
        const Stops* stops = ground != nullptr ? stops_of(*ground) : nullptr;
        return stops != nullptr ? std::make_shared<const Picture>(stops_table(*stops)) : PicturePtr();
    }
    if (request_.line_grid && named->picture.layer == GroundLayer::colour) {
        return std::make_shared<const Picture>(request_.small_grounds
                                                   ? line_grid(size_.width, size_.height)
                                                   : line_grid(size_.frame_width, size_.frame_height));
    }
    const GroundUse use{&finish,       request_.finish_path, request_.time,
                        size_.width,   size_.height,         request_.small_grounds,
                        scene_layers_, tools_.play,          drop_layers_};
    Result<PicturePtr> picture = tools_.grounds.picture(*named, use, cancel_);
    for (Fault& notice : tools_.grounds.take_notices()) frame_.notices.push_back(std::move(notice));
    if (picture) return *picture;
    if (!cancel_.requested()) return without_ground(*named, picture.fault());
    whole_ = false;
    return {};
}

// A sprite is clear where it is not; of its parts the file that is missing is named.
PicturePtr FrameRun::without_ground(const NamedPicture& named, Fault notice) {
    const Ground& ground = *named.ground;
    const bool sprite = ground.as<SpriteGround>() != nullptr;
    const std::string* own = path_of(ground);
    const std::string path = sprite           ? notice.place.where
                             : own != nullptr ? picture_path(request_.finish_path, *own)
                                              : "";
    notice.place.where = ground.name;
    notice.message = "'" + named.picture.name + "' shows as " + (sprite ? "clear: " : "black: ") + notice.message +
                     (path.empty() ? "" : " at " + path);
    notice.severity = Severity::warning;
    frame_.notices.push_back(std::move(notice));
    return sprite ? std::make_shared<const Picture>(clear_pixel()) : PicturePtr();
}

}  // namespace lacquer
