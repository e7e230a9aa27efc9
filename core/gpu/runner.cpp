#include "core/gpu/runner.h"

#include <epoxy/egl.h>
#include <epoxy/gl.h>

#include <algorithm>
#include <array>
#include <condition_variable>
#include <functional>
#include <map>
#include <mutex>
#include <optional>
#include <thread>
#include <utility>

#include "core/base/guarded.h"
#include "core/picture/coded.h"

namespace lacquer {

struct GpuPicture::Bin {
    std::mutex mutex;
    std::vector<unsigned> textures;
};

GpuPicture::~GpuPicture() {
    const std::lock_guard lock(bin_->mutex);
    bin_->textures.push_back(texture_);
}

namespace {

constexpr std::size_t most_programs = 64;
constexpr GLuint64 patience = 10'000'000'000;  // nanoseconds that a drawing may take

constexpr std::array<GLenum, 5> layouts = {GL_RED, GL_RED, GL_RG, GL_RGB, GL_RGBA};  // by channels

// Each pixel the mean of those that it covers, whatever the two sizes.
constexpr const char* averaging_shader = R"(#version 330 core
uniform sampler2D lq_larger;
uniform ivec2 lq_from;
uniform ivec2 lq_to;
out vec4 lq_mean;

void main() {
    ivec2 pixel = ivec2(gl_FragCoord.xy);
    ivec2 begin = pixel * lq_from / lq_to;
    ivec2 end = max(begin + 1, (pixel + 1) * lq_from / lq_to);
    vec4 sum = vec4(0.0);
    for (int y = begin.y; y < end.y; y++) {
        for (int x = begin.x; x < end.x; x++) sum += texelFetch(lq_larger, ivec2(x, y), 0);
    }
    lq_mean = sum / float((end.x - begin.x) * (end.y - begin.y));
}
)";

Fault gpu_fault(const char* id, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {}, Severity::fault};
}

// Everything that belongs to the context; lives and dies in its thread.
class Context {
public:
    ~Context() {
        if (display_ == EGL_NO_DISPLAY) return;
        if (drawing_ != nullptr) glDeleteSync(drawing_);
        eglMakeCurrent(display_, EGL_NO_SURFACE, EGL_NO_SURFACE, EGL_NO_CONTEXT);
        // The display belongs to the whole process: ending it would take it from other runners too.
        if (context_ != EGL_NO_CONTEXT) eglDestroyContext(display_, context_);
    }
    Context() = default;
    Context(const Context&) = delete;
    Context& operator=(const Context&) = delete;

    Result<std::string> open() {
        const Fault none = gpu_fault("gpu.none", "there is no GL that draws without a window",
                                     "install the Mesa drivers, or draw with --backend cpu");
        if (!epoxy_has_egl()) return none;
        if (epoxy_has_egl_extension(EGL_NO_DISPLAY, "EGL_MESA_platform_surfaceless")) {
            display_ = eglGetPlatformDisplayEXT(EGL_PLATFORM_SURFACELESS_MESA, EGL_DEFAULT_DISPLAY, nullptr);
        } else {
            display_ = eglGetDisplay(EGL_DEFAULT_DISPLAY);
        }
        if (display_ == EGL_NO_DISPLAY || eglInitialize(display_, nullptr, nullptr) == EGL_FALSE) {
            display_ = EGL_NO_DISPLAY;
            return none;
        }
        eglBindAPI(EGL_OPENGL_API);
        const std::array<EGLint, 7> wanted = {
            EGL_CONTEXT_MAJOR_VERSION,           3,       EGL_CONTEXT_MINOR_VERSION, 3, EGL_CONTEXT_OPENGL_PROFILE_MASK,
            EGL_CONTEXT_OPENGL_CORE_PROFILE_BIT, EGL_NONE};
        context_ = eglCreateContext(display_, EGL_NO_CONFIG_KHR, EGL_NO_CONTEXT, wanted.data());
        if (context_ == EGL_NO_CONTEXT ||
            eglMakeCurrent(display_, EGL_NO_SURFACE, EGL_NO_SURFACE, context_) == EGL_FALSE) {
            return none;
        }
        glGenVertexArrays(1, &corners_);
        glGenFramebuffers(1, &frame_);
        glGetIntegerv(GL_MAX_TEXTURE_SIZE, &largest_side_);
        return std::string(reinterpret_cast<const char*>(glGetString(GL_RENDERER)));
    }

    Result<Done> draw(const Shader& shader, const ShaderInputs& inputs, std::span<Picture> outputs) {
        if (const auto fault = fault_of_sizes(inputs)) return *fault;
        Result<GLuint> program = program_for(shader.text);
        if (!program) return program.fault();
        glUseProgram(*program);
        set_uniforms(*program, shader, inputs);
        forget_pictures();
        const std::vector<int> channels(shader.outputs.size(), 4);
        const std::vector<GLuint> targets = bind_targets(inputs, channels);
        const std::vector<GLuint> passing = bind_pictures(*program, shader, inputs);
        Result<Done> done = run(inputs.width, inputs.height);
        if (done) done = settle();
        if (done) done = read_targets(inputs, outputs);
        glDeleteTextures(static_cast<GLsizei>(passing.size()), passing.data());
        glDeleteTextures(static_cast<GLsizei>(targets.size()), targets.data());
        return done;
    }

    Result<std::vector<GpuPicturePtr>> draw_and_keep(const Shader& shader, const ShaderInputs& inputs,
                                                     const std::vector<int>& channels) {
        if (const auto fault = fault_of_sizes(inputs)) return *fault;
        Result<GLuint> program = program_for(shader.text);
        if (!program) return program.fault();
        glUseProgram(*program);
        set_uniforms(*program, shader, inputs);
        forget_pictures();
        const std::vector<GLuint> targets = bind_targets(inputs, channels);
        const std::vector<GLuint> passing = bind_pictures(*program, shader, inputs);
        const Result<Done> done = run(inputs.width, inputs.height);
        glDeleteTextures(static_cast<GLsizei>(passing.size()), passing.data());
        if (!done) {
            glDeleteTextures(static_cast<GLsizei>(targets.size()), targets.data());
            return done.fault();
        }
        std::vector<GpuPicturePtr> kept;
        for (std::size_t k = 0; k < targets.size(); ++k)
            kept.push_back(
                std::make_shared<const GpuPicture>(targets[k], inputs.width, inputs.height, channels[k], bin_));
        return kept;
    }

    Result<Done> add_smaller_copies(const GpuPicture& picture) {
        const Result<GLuint> program = program_for(averaging_shader);
        if (!program) return program.fault();
        glUseProgram(*program);
        glUniform1i(glGetUniformLocation(*program, "lq_larger"), 0);
        glBindFramebuffer(GL_FRAMEBUFFER, frame_);
        for (std::size_t k = 1; k < max_shader_outputs; ++k)
            glFramebufferTexture2D(GL_FRAMEBUFFER, GL_COLOR_ATTACHMENT0 + static_cast<GLenum>(k), GL_TEXTURE_2D, 0, 0);
        const GLenum attachment = GL_COLOR_ATTACHMENT0;
        glDrawBuffers(1, &attachment);
        glActiveTexture(GL_TEXTURE0);
        glBindTexture(GL_TEXTURE_2D, picture.texture());
        const auto [inside, outside] = formats_of(picture.channels());
        Result<Done> done = Done{};
        GLint level = 0;
        for (int width = picture.width(), height = picture.height(); done && (width > 1 || height > 1);) {
            const std::array<int, 2> from = {width, height};
            width = std::max(1, width / 2);
            height = std::max(1, height / 2);
            // Only the level that is read, so that none is read and written at once.
            glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_BASE_LEVEL, level);
            glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, level);
            glTexImage2D(GL_TEXTURE_2D, ++level, inside, width, height, 0, outside, GL_FLOAT, nullptr);
            glFramebufferTexture2D(GL_FRAMEBUFFER, attachment, GL_TEXTURE_2D, picture.texture(), level);
            glUniform2i(glGetUniformLocation(*program, "lq_from"), from[0], from[1]);
            glUniform2i(glGetUniformLocation(*program, "lq_to"), width, height);
            done = run(width, height);
        }
        glFramebufferTexture2D(GL_FRAMEBUFFER, attachment, GL_TEXTURE_2D, 0, 0);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_BASE_LEVEL, 0);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, level);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, level > 0 ? GL_NEAREST_MIPMAP_NEAREST : GL_NEAREST);
        return done;
    }

    Result<Picture> fetch(const GpuPicture& picture) {
        if (const Result<Done> done = settle(); !done) return done.fault();
        Picture made(picture.width(), picture.height(), picture.channels());
        glActiveTexture(GL_TEXTURE0);
        glBindTexture(GL_TEXTURE_2D, picture.texture());
        glPixelStorei(GL_PACK_ALIGNMENT, 4);
        glGetTexImage(GL_TEXTURE_2D, 0, layouts[static_cast<std::size_t>(picture.channels())], GL_FLOAT,
                      made.data.data());
        if (glGetError() != GL_NO_ERROR)
            return gpu_fault("gpu.lost", "the graphics processor did not hand out a picture",
                             "draw with --backend cpu");
        traffic_.bytes_down += static_cast<std::int64_t>(made.data.size() * sizeof(float));
        return made;
    }

    const DriverTraffic& traffic() const { return traffic_; }

private:
    // What is wider or higher than the driver takes.
    std::optional<Fault> fault_of_sizes(const ShaderInputs& inputs) const {
        const auto too_large = [&](int width, int height) { return std::max(width, height) > largest_side_; };
        bool large = too_large(inputs.width, inputs.height);
        for (const PictureView& picture : inputs.pictures) large = large || too_large(picture.width, picture.height);
        if (!large) return std::nullopt;
        return gpu_fault("gpu.size", "a side of more than " + std::to_string(largest_side_) + " pixels",
                         "draw with --backend cpu");
    }

    static Result<GLuint> compiled(GLenum kind, const std::string& text) {
        const GLuint shader = glCreateShader(kind);
        const char* source = text.c_str();
        glShaderSource(shader, 1, &source, nullptr);
        glCompileShader(shader);
        GLint good = 0;
        glGetShaderiv(shader, GL_COMPILE_STATUS, &good);
        if (good != 0) return shader;
        std::string words(2048, '\0');
        GLsizei length = 0;
        glGetShaderInfoLog(shader, static_cast<GLsizei>(words.size()), &length, words.data());
        words.resize(static_cast<std::size_t>(length));
        glDeleteShader(shader);
        return gpu_fault("gpu.shader", "the driver refused a shader: " + words, "draw with --backend cpu");
    }

    Result<GLuint> program_for(const std::string& text) {
        if (const auto found = programs_.find(text); found != programs_.end()) return found->second;
        // One triangle that covers everything.
        const std::string version = text.substr(0, text.find('\n') + 1);
        const std::string vertices =
            version +
            "void main() { gl_Position = vec4(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0, 0.0, 1.0); "
            "}\n";
        Result<GLuint> vertex = compiled(GL_VERTEX_SHADER, vertices);
        if (!vertex) return vertex;
        Result<GLuint> fragment = compiled(GL_FRAGMENT_SHADER, text);
        if (!fragment) return fragment;
        const GLuint program = glCreateProgram();
        glAttachShader(program, *vertex);
        glAttachShader(program, *fragment);
        glLinkProgram(program);
        glDeleteShader(*vertex);
        glDeleteShader(*fragment);
        GLint good = 0;
        glGetProgramiv(program, GL_LINK_STATUS, &good);
        if (good == 0) {
            glDeleteProgram(program);
            return gpu_fault("gpu.shader", "the driver could not link a shader", "draw with --backend cpu");
        }
        if (programs_.size() >= most_programs) {
            for (const auto& [key, old] : programs_) glDeleteProgram(old);
            programs_.clear();
        }
        programs_[text] = program;
        return program;
    }

    static void set_uniforms(GLuint program, const Shader& shader, const ShaderInputs& inputs) {
        for (std::size_t k = 0; k < shader.uniforms.size(); ++k) {
            const GLint at = glGetUniformLocation(program, shader.uniforms[k].name.c_str());
            const Value& value = inputs.uniforms[k];
            switch (shader.uniforms[k].type) {
                case Type::vec2:
                    glUniform2fv(at, 1, value.parts.data());
                    break;
                case Type::vec3:
                    glUniform3fv(at, 1, value.parts.data());
                    break;
                case Type::vec4:
                    glUniform4fv(at, 1, value.parts.data());
                    break;
                case Type::number:
                    glUniform1f(at, value.parts[0]);
                    break;
                default:
                    glUniform1i(at, value.wholes[0]);
                    break;
            }
        }
    }

    // Lets go of the pictures that nobody else holds any more.
    void forget_pictures() {
        {
            const std::lock_guard lock(bin_->mutex);
            glDeleteTextures(static_cast<GLsizei>(bin_->textures.size()), bin_->textures.data());
            bin_->textures.clear();
        }
        std::erase_if(lasting_, [](const auto& each) {
            if (each.first.first.use_count() > 1) return false;
            glDeleteTextures(1, &each.second);
            return true;
        });
    }

    // The driver's own format, and the layout of what is handed over.
    static std::pair<GLint, GLenum> formats_of(int channels) {
        if (channels == 1) return {GL_R32F, GL_RED};
        return channels == 2 ? std::pair<GLint, GLenum>(GL_RG32F, GL_RG)
                             : std::pair<GLint, GLenum>(GL_RGBA32F, GL_RGBA);
    }

    // Numbers of a few rows at a time, so that not all of them are in memory twice.
    static void upload_bytes(const PictureView& picture) {
        constexpr int at_once = 64;
        const auto width = static_cast<std::size_t>(picture.width);
        std::vector<float> rows(width * at_once * 4);
        for (int y = 0; y < picture.height; y += at_once) {
            const int count = std::min(at_once, picture.height - y);
            decode_pixels(picture.bytes + static_cast<std::size_t>(y) * width * 4, picture.coding, rows.data(),
                          width * static_cast<std::size_t>(count));
            glTexSubImage2D(GL_TEXTURE_2D, 0, 0, y, picture.width, count, GL_RGBA, GL_FLOAT, rows.data());
        }
    }

    void upload(const PictureView& picture) {
        static constexpr std::array<float, 4> black = {0, 0, 0, 1};
        const bool empty = picture.is_empty();
        const auto [inside, outside] = formats_of(empty ? 4 : picture.channels);
        glTexImage2D(GL_TEXTURE_2D, 0, inside, empty ? 1 : picture.width, empty ? 1 : picture.height, 0, outside,
                     GL_FLOAT, empty ? black.data() : picture.data);
        if (picture.bytes != nullptr) upload_bytes(picture);
        const auto bytes_of = [](const PictureView& view) {
            return static_cast<std::int64_t>(sizeof(float)) * view.width * view.height * view.channels;
        };
        ++traffic_.uploads;
        traffic_.bytes_up += bytes_of(picture);
        for (const PictureView& copy : picture.smaller) traffic_.bytes_up += bytes_of(copy);
        GLint level = 0;
        for (const PictureView& copy : picture.smaller) {
            glTexImage2D(GL_TEXTURE_2D, ++level, inside, copy.width, copy.height, 0, outside, GL_FLOAT, copy.data);
        }
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, level);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, level > 0 ? GL_NEAREST_MIPMAP_NEAREST : GL_NEAREST);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_NEAREST);
    }

    static void filter_as(const Sampling& sampling, bool has_copies) {
        const bool linear = sampling.filter == Filter::linear;
        const GLint wrap = sampling.wrap == Wrap::clamp    ? GL_CLAMP_TO_EDGE
                           : sampling.wrap == Wrap::repeat ? GL_REPEAT
                                                           : GL_MIRRORED_REPEAT;
        const GLint smaller = linear ? GL_LINEAR_MIPMAP_LINEAR : GL_NEAREST_MIPMAP_LINEAR;
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, linear ? GL_LINEAR : GL_NEAREST);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, has_copies ? smaller : linear ? GL_LINEAR : GL_NEAREST);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_WRAP_S, wrap);
        glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_WRAP_T, wrap);
    }

    // Binds all pictures, uploading those that are not there yet. Gives back the textures that are for this drawing
    // only.
    std::vector<GLuint> bind_pictures(GLuint program, const Shader& shader, const ShaderInputs& inputs) {
        std::vector<GLuint> passing;
        for (std::size_t k = 0; k < shader.pictures.size(); ++k) {
            glActiveTexture(GL_TEXTURE0 + static_cast<GLenum>(k));
            if (k < inputs.kept.size() && inputs.kept[k] != nullptr) {
                glBindTexture(GL_TEXTURE_2D, inputs.kept[k]->texture());
                glUniform1i(glGetUniformLocation(program, shader.pictures[k].name.c_str()), static_cast<GLint>(k));
                continue;
            }
            const PictureView& picture = inputs.pictures[k];
            const PicturePtr lasting = k < inputs.lasting.size() ? inputs.lasting[k] : PicturePtr();
            const auto found = lasting_.find({lasting, !picture.smaller.empty()});
            if (lasting != nullptr && found != lasting_.end()) {
                glBindTexture(GL_TEXTURE_2D, found->second);
            } else {
                GLuint texture = 0;
                glGenTextures(1, &texture);
                glBindTexture(GL_TEXTURE_2D, texture);
                upload(picture);
                if (lasting != nullptr) {
                    lasting_[{lasting, !picture.smaller.empty()}] = texture;
                } else {
                    passing.push_back(texture);
                }
            }
            if (inputs.filters) filter_as(picture.sampling, !picture.smaller.empty());
            glUniform1i(glGetUniformLocation(program, shader.pictures[k].name.c_str()), static_cast<GLint>(k));
        }
        return passing;
    }

    std::vector<GLuint> bind_targets(const ShaderInputs& inputs, const std::vector<int>& channels) const {
        const std::size_t count = channels.size();
        std::vector<GLuint> targets(count);
        std::vector<GLenum> attachments;
        glGenTextures(static_cast<GLsizei>(count), targets.data());
        glBindFramebuffer(GL_FRAMEBUFFER, frame_);
        glActiveTexture(GL_TEXTURE0 + 15);
        for (std::size_t k = 0; k < max_shader_outputs; ++k) {
            const GLenum attachment = GL_COLOR_ATTACHMENT0 + static_cast<GLenum>(k);
            if (k < count) {
                glBindTexture(GL_TEXTURE_2D, targets[k]);
                const auto [inside, outside] = formats_of(channels[k]);
                glTexImage2D(GL_TEXTURE_2D, 0, inside, inputs.width, inputs.height, 0, outside, GL_FLOAT, nullptr);
                glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, 0);
                glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_NEAREST);
                glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_NEAREST);
                attachments.push_back(attachment);
            }
            glFramebufferTexture2D(GL_FRAMEBUFFER, attachment, GL_TEXTURE_2D, k < count ? targets[k] : 0, 0);
        }
        glDrawBuffers(static_cast<GLsizei>(count), attachments.data());
        return targets;
    }

    // Hands it to the driver, and waits for the drawing before: there is always one for it to go on with, and never
    // more than two to be waited for.
    Result<Done> run(int width, int height) {
        if (glCheckFramebufferStatus(GL_FRAMEBUFFER) != GL_FRAMEBUFFER_COMPLETE) return lost();
        glViewport(0, 0, width, height);
        glBindVertexArray(corners_);
        glDrawArrays(GL_TRIANGLES, 0, 3);
        ++traffic_.drawings;
        const GLsync before = std::exchange(drawing_, glFenceSync(GL_SYNC_GPU_COMMANDS_COMPLETE, 0));
        glFlush();
        Result<Done> done = waited_for(before);
        if (done && glGetError() != GL_NO_ERROR) done = lost();
        return done;
    }

    // All that was handed to the driver is done.
    Result<Done> settle() {
        if (drawing_ != nullptr) ++traffic_.waits;
        return waited_for(std::exchange(drawing_, nullptr));
    }

    static Result<Done> waited_for(GLsync fence) {
        if (fence == nullptr) return Done{};
        const GLenum waited = glClientWaitSync(fence, GL_SYNC_FLUSH_COMMANDS_BIT, patience);
        glDeleteSync(fence);
        if (waited == GL_TIMEOUT_EXPIRED || waited == GL_WAIT_FAILED) return lost();
        return Done{};
    }

    static Fault lost() {
        return gpu_fault("gpu.lost", "the graphics processor did not finish the drawing", "draw with --backend cpu");
    }

    Result<Done> read_targets(const ShaderInputs& inputs, std::span<Picture> outputs) {
        glPixelStorei(GL_PACK_ALIGNMENT, 4);
        for (std::size_t k = 0; k < outputs.size(); ++k) {
            glReadBuffer(GL_COLOR_ATTACHMENT0 + static_cast<GLenum>(k));
            glReadPixels(0, 0, inputs.width, inputs.height, layouts[static_cast<std::size_t>(outputs[k].channels)],
                         GL_FLOAT, outputs[k].data.data());
            traffic_.bytes_down += static_cast<std::int64_t>(outputs[k].data.size() * sizeof(float));
        }
        if (glGetError() != GL_NO_ERROR)
            return gpu_fault("gpu.lost", "the graphics processor did not hand out a picture",
                             "draw with --backend cpu");
        return Done{};
    }

    EGLDisplay display_ = EGL_NO_DISPLAY;
    EGLContext context_ = EGL_NO_CONTEXT;
    GLuint corners_ = 0;
    GLuint frame_ = 0;
    GLint largest_side_ = 0;
    GLsync drawing_ = nullptr;  // signalled once what was handed over last is drawn
    DriverTraffic traffic_;
    std::map<std::string, GLuint> programs_;
    std::shared_ptr<GpuPicture::Bin> bin_ = std::make_shared<GpuPicture::Bin>();
    std::map<std::pair<PicturePtr, bool>, GLuint> lasting_;  // by picture and whether smaller copies came along
};

}  // namespace

// Runs what it is handed, one job at a time, where the context is current.
struct ShaderRunner::Thread {
    std::mutex mutex;
    std::condition_variable changed;
    std::function<void(Context&)> job;
    bool done = false;
    bool ends = false;
    std::string name;
    std::thread thread;

    void run(std::function<void(Context&)> work) {
        std::unique_lock lock(mutex);
        job = std::move(work);
        done = false;
        changed.notify_all();
        changed.wait(lock, [this] { return done; });
    }

    void loop(Context& context) {
        std::unique_lock lock(mutex);
        for (;;) {
            changed.wait(lock, [this] { return ends || job != nullptr; });
            if (ends) return;
            const std::function<void(Context&)> work = std::exchange(job, nullptr);
            // The driver has locks of its own; none of ours is held while it works.
            lock.unlock();
            work(context);
            lock.lock();
            done = true;
            changed.notify_all();
        }
    }
};

ShaderRunner::ShaderRunner(std::unique_ptr<Thread> thread) : thread_(std::move(thread)) {}

ShaderRunner::~ShaderRunner() {
    {
        const std::lock_guard lock(thread_->mutex);
        thread_->ends = true;
        thread_->changed.notify_all();
    }
    thread_->thread.join();
}

Result<std::unique_ptr<ShaderRunner>> ShaderRunner::open() {
    auto thread = std::make_unique<Thread>();
    std::optional<Result<std::string>> opened;
    thread->thread = std::thread([owner = thread.get(), &opened] {
        Context context;
        Result<std::string> result = context.open();
        {
            const std::lock_guard lock(owner->mutex);
            opened = std::move(result);
            owner->ends = !*opened;
            owner->changed.notify_all();
        }
        owner->loop(context);
    });
    {
        std::unique_lock lock(thread->mutex);
        thread->changed.wait(lock, [&] { return opened.has_value(); });
    }
    std::unique_ptr<ShaderRunner> runner(new ShaderRunner(std::move(thread)));
    if (!*opened) return opened->fault();
    runner->thread_->name = **opened;
    return runner;
}

const std::string& ShaderRunner::name() const { return thread_->name; }

bool ShaderRunner::is_hardware() const {
    for (const char* pretender : {"llvmpipe", "softpipe", "swrast", "SwiftShader"}) {
        if (thread_->name.find(pretender) != std::string::npos) return false;
    }
    return true;
}

Result<Done> ShaderRunner::draw(const Shader& shader, const ShaderInputs& inputs, std::span<Picture> outputs) {
    Result<Done> done = Done{};
    thread_->run([&](Context& context) { done = guarded([&] { return context.draw(shader, inputs, outputs); }); });
    return done;
}

Result<std::vector<GpuPicturePtr>> ShaderRunner::draw_and_keep(const Shader& shader, const ShaderInputs& inputs,
                                                               const std::vector<int>& channels) {
    Result<std::vector<GpuPicturePtr>> kept = std::vector<GpuPicturePtr>();
    thread_->run(
        [&](Context& context) { kept = guarded([&] { return context.draw_and_keep(shader, inputs, channels); }); });
    return kept;
}

Result<Done> ShaderRunner::add_smaller_copies(const GpuPicture& picture) {
    Result<Done> done = Done{};
    thread_->run([&](Context& context) { done = guarded([&] { return context.add_smaller_copies(picture); }); });
    return done;
}

Result<Picture> ShaderRunner::fetch(const GpuPicture& picture) {
    Result<Picture> fetched = Picture();
    thread_->run([&](Context& context) { fetched = guarded([&] { return context.fetch(picture); }); });
    return fetched;
}

DriverTraffic ShaderRunner::traffic() const {
    DriverTraffic traffic;
    thread_->run([&](Context& context) { traffic = context.traffic(); });
    return traffic;
}

}  // namespace lacquer
