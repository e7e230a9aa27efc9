#include "core/render/renderer.h"

#include "core/base/guarded.h"
#include "core/finish/file.h"
#include "core/render/renderer_ticks.h"

namespace lacquer {

namespace {

std::shared_ptr<RenderStores> own_or(std::shared_ptr<RenderStores> stores) {
    return stores != nullptr ? std::move(stores) : std::make_shared<RenderStores>();
}

}  // namespace

RenderRequest::RenderRequest() = default;
RenderRequest::RenderRequest(const RenderRequest&) = default;
RenderRequest::RenderRequest(RenderRequest&&) noexcept = default;
RenderRequest& RenderRequest::operator=(const RenderRequest&) = default;
RenderRequest& RenderRequest::operator=(RenderRequest&&) noexcept = default;
RenderRequest::~RenderRequest() = default;

Renderer::Renderer(WorkerPool& pool, std::optional<KernelSet> kernels, std::shared_ptr<RenderStores> stores)
    : pool_(pool),
      kernels_(kernels ? std::move(*kernels) : best_kernels()),
      stores_(own_or(std::move(stores))),
      grounds_(pool, std::shared_ptr<PictureStore>(stores_, &stores_->pictures)),
      flows_(stores_->pictures) {}
Renderer::~Renderer() = default;

std::optional<Backend> backend_named(std::string_view name) {
    if (name == "cpu") return Backend::cpu;
    if (name == "gpu") return Backend::gpu;
    return name == "auto" ? std::optional<Backend>(Backend::automatic) : std::nullopt;
}

std::optional<Fault> Renderer::use(Backend backend) {
    shaders_ = {};
    flows_.forget_with_driver();
    if (backend == Backend::cpu) return std::nullopt;
    Result<std::unique_ptr<ShaderRunner>> opened = ShaderRunner::open();
    if (!opened) {
        Fault notice = opened.fault();
        notice.severity = Severity::warning;
        // Nobody asked for it in particular, so nobody need hear.
        return backend == Backend::automatic ? std::nullopt : std::optional<Fault>(std::move(notice));
    }
    if (backend == Backend::gpu || (*opened)->is_hardware()) shaders_.runner = std::move(*opened);
    return std::nullopt;
}

DriverTraffic Renderer::driver_traffic() const {
    return shaders_.runner != nullptr ? shaders_.runner->traffic() : DriverTraffic();
}

std::string Renderer::drawn_by() const { return shaders_.runner != nullptr ? shaders_.runner->name() : kernels_.name; }

DriveValues Renderer::values_of(const RenderRequest& request) {
    const bool known = play_.play != nullptr && play_.checked == request.checked && play_.tape == request.tape &&
                       play_.play->held() == request.held;
    if (!known) {
        const Tape& tape = request.tape != nullptr ? *request.tape : request.checked->finish->tape;
        play_ = {request.checked, request.tape, std::make_shared<const Play>(request.checked, tape, request.held)};
    }
    return play_.play->values(request.time);
}

std::optional<std::pair<int, int>> Renderer::size_of(const Ground& ground, const std::string& finish_path) {
    if (const auto* sprite = ground.as<SpriteGround>()) return std::pair(sprite->width, sprite->height);
    const auto* picture = ground.as<PictureGround>();
    if (picture == nullptr) return std::nullopt;
    const Result<PicturePtr> whole = grounds_.file(picture_path(finish_path, picture->path), meaning_of(ground));
    if (!whole) return std::nullopt;
    return std::pair((*whole)->width / picture->cells.columns, (*whole)->height / picture->cells.rows);
}

Result<Frame> Renderer::render(const RenderRequest& request, const Cancel& cancel) {
    return guarded([&]() -> Result<Frame> {
        const FrameSize size = frame_size(request);
        if (const auto fault = fault_of_size(request, size)) return *fault;
        Result<Frame> frame = drawn(request, cancel);
        const bool is_lost = !frame && frame.fault().id == "gpu.lost" && shaders_.runner == nullptr;
        if (!is_lost) return frame;
        frame = drawn(request, cancel);
        if (frame) {
            frame->notices.push_back({"gpu.lost",
                                      "the driver has lost what it had drawn; this processor draws from here on",
                                      {},
                                      {},
                                      Severity::warning});
        }
        return frame;
    });
}

Result<Frame> Renderer::drawn(const RenderRequest& request, const Cancel& cancel) {
    const FrameSize size = frame_size(request);
    const Plan plan = plan_for(*request.checked, request.steps);
    Ticked ticks;
    if (reads_ticks(plan)) {
        Result<Ticked> found = ticked(request, size, cancel);
        if (!found) return found.fault();
        ticks = std::move(*found);
    } else {
        ticks.left.length = 1 / request.checked->finish->ticks.rate;
    }
    DriveValues values = values_of(request);
    FrameRun run({pool_, kernels_, *stores_, grounds_, shaders_, flows_, play_.play}, request, size, std::move(values),
                 cancel);
    run.set_ticks(std::move(ticks.left));
    Result<Frame> frame = run.drawn(plan);
    if (!frame) return frame;
    frame->ticks = ticks.drawn;
    frame->tick_milliseconds = ticks.milliseconds;
    frame->ticks_are_rough = ticks.are_rough;
    frame->notices.insert(frame->notices.begin(), ticks.notices.begin(), ticks.notices.end());
    return frame;
}

}  // namespace lacquer
