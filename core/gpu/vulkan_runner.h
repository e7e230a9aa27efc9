// Drawing SPIR-V without a window, to see that it draws what it should.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/gpu/runner.h"

namespace lacquer {

/// What a shader's bindings in set 0 are.
enum class BindingKind { block, picture_with_sampler, picture, sampler };
struct ShaderBinding {
    BindingKind kind = BindingKind::block;
    std::uint32_t binding = 0;
    std::size_t picture = 0;  ///< which of the pictures, for all but the block
};

/// A fragment shader and what it is drawn with.
struct SpirvDrawing {
    std::string vertex;    ///< SPIR-V that covers all with three corners
    std::string fragment;  ///< SPIR-V with the entry point main
    std::vector<ShaderBinding> bindings;
    std::vector<std::uint8_t> block;    ///< bytes of the block of uniforms, may be empty
    std::vector<PictureView> pictures;  ///< views of pictures of 1, 2 or 4 channels
    bool filters = false;               ///< samplers filter and wrap as the views say; else they take the nearest
    int width = 1;
    int height = 1;
};

/// A Vulkan device, looked for when this is opened; nothing of it is needed to build or start Lacquer. To be used from
/// one thread at a time.
class VulkanRunner {
public:
    /// Faults: `gpu.no-vulkan` where there is no loader, device or memory for it.
    static Result<std::unique_ptr<VulkanRunner>> open();
    ~VulkanRunner();
    VulkanRunner(const VulkanRunner&) = delete;
    VulkanRunner& operator=(const VulkanRunner&) = delete;

    /// The device, in the driver's words.
    const std::string& name() const;
    /// What is drawn to the first output: 4 channels. Faults: `gpu.shader` for what the driver refuses, `gpu.lost`.
    Result<Picture> draw(const SpirvDrawing& drawing);

private:
    struct Device;
    explicit VulkanRunner(std::unique_ptr<Device> device);
    std::unique_ptr<Device> device_;
};

}  // namespace lacquer
