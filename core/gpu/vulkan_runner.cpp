#include "core/gpu/vulkan_runner.h"

#define VK_NO_PROTOTYPES
#include <dlfcn.h>
#include <vulkan/vulkan.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <functional>

#include "core/base/guarded.h"

namespace lacquer {

// All functions that are used, by their names.
// clang-format off
#define LACQUER_VULKAN_FUNCTIONS(X) \
    X(vkAllocateCommandBuffers) X(vkAllocateDescriptorSets) X(vkAllocateMemory) X(vkBeginCommandBuffer) \
    X(vkBindBufferMemory) X(vkBindImageMemory) X(vkCmdBeginRenderPass) X(vkCmdBindDescriptorSets) \
    X(vkCmdBindPipeline) X(vkCmdCopyBufferToImage) X(vkCmdCopyImageToBuffer) X(vkCmdDraw) \
    X(vkCmdEndRenderPass) X(vkCmdPipelineBarrier) X(vkCreateBuffer) X(vkCreateCommandPool) \
    X(vkCreateDescriptorPool) X(vkCreateDescriptorSetLayout) X(vkCreateDevice) X(vkCreateFramebuffer) \
    X(vkCreateGraphicsPipelines) X(vkCreateImage) X(vkCreateImageView) X(vkCreatePipelineLayout) \
    X(vkCreateRenderPass) X(vkCreateSampler) X(vkCreateShaderModule) X(vkDestroyBuffer) \
    X(vkDestroyCommandPool) X(vkDestroyDescriptorPool) X(vkDestroyDescriptorSetLayout) X(vkDestroyDevice) \
    X(vkDestroyFramebuffer) X(vkDestroyImage) X(vkDestroyImageView) X(vkDestroyInstance) X(vkDestroyPipeline) \
    X(vkDestroyPipelineLayout) X(vkDestroyRenderPass) X(vkDestroySampler) X(vkDestroyShaderModule) \
    X(vkEndCommandBuffer) X(vkEnumeratePhysicalDevices) X(vkFreeMemory) X(vkGetBufferMemoryRequirements) \
    X(vkGetDeviceQueue) X(vkGetImageMemoryRequirements) X(vkGetPhysicalDeviceMemoryProperties) \
    X(vkGetPhysicalDeviceProperties) X(vkGetPhysicalDeviceQueueFamilyProperties) X(vkMapMemory) \
    X(vkQueueSubmit) X(vkQueueWaitIdle) X(vkResetCommandPool) X(vkUnmapMemory) X(vkUpdateDescriptorSets)
// clang-format on

struct VulkanFunctions {
#define LACQUER_VULKAN_POINTER(name) PFN_##name name = nullptr;
    LACQUER_VULKAN_FUNCTIONS(LACQUER_VULKAN_POINTER)
#undef LACQUER_VULKAN_POINTER
};

namespace {

Fault no_vulkan(const std::string& why) {
    return {"gpu.no-vulkan", "there is no Vulkan here: " + why, "install a Vulkan driver", {}, Severity::fault};
}

Fault vulkan_fault(const char* id, const std::string& what) {
    return {id, "the Vulkan driver refused " + what, "ship another target", {}, Severity::fault};
}

VkFormat format_of(int channels) {
    if (channels == 1) return VK_FORMAT_R32_SFLOAT;
    return channels == 2 ? VK_FORMAT_R32G32_SFLOAT : VK_FORMAT_R32G32B32A32_SFLOAT;
}

VkSamplerAddressMode address_of(Wrap wrap) {
    if (wrap == Wrap::repeat) return VK_SAMPLER_ADDRESS_MODE_REPEAT;
    return wrap == Wrap::mirror ? VK_SAMPLER_ADDRESS_MODE_MIRRORED_REPEAT : VK_SAMPLER_ADDRESS_MODE_CLAMP_TO_EDGE;
}

VkDescriptorType descriptor_of(BindingKind kind) {
    switch (kind) {
        case BindingKind::block:
            return VK_DESCRIPTOR_TYPE_UNIFORM_BUFFER;
        case BindingKind::picture_with_sampler:
            return VK_DESCRIPTOR_TYPE_COMBINED_IMAGE_SAMPLER;
        case BindingKind::picture:
            return VK_DESCRIPTOR_TYPE_SAMPLED_IMAGE;
        case BindingKind::sampler:
            break;
    }
    return VK_DESCRIPTOR_TYPE_SAMPLER;
}

template <class Info>
Info info(VkStructureType type) {
    Info made{};
    made.sType = type;
    return made;
}

}  // namespace

struct VulkanRunner::Device {
    void* library = nullptr;
    VulkanFunctions vk;
    VkInstance instance = VK_NULL_HANDLE;
    VkDevice device = VK_NULL_HANDLE;
    VkQueue queue = VK_NULL_HANDLE;
    VkCommandPool commands = VK_NULL_HANDLE;
    VkCommandBuffer recording = VK_NULL_HANDLE;
    VkPhysicalDeviceMemoryProperties memory{};
    std::string name;

    ~Device() {
        if (commands != VK_NULL_HANDLE) vk.vkDestroyCommandPool(device, commands, nullptr);
        if (device != VK_NULL_HANDLE) vk.vkDestroyDevice(device, nullptr);
        if (instance != VK_NULL_HANDLE && vk.vkDestroyInstance != nullptr) vk.vkDestroyInstance(instance, nullptr);
        // The library stays: drivers leave threads behind that would fall through the floor.
    }

    Result<Done> open();
    Result<Picture> draw(const SpirvDrawing& drawing);
};

Result<Done> VulkanRunner::Device::open() {
    library = dlopen("libvulkan.so.1", RTLD_NOW | RTLD_LOCAL);
    if (library == nullptr) return no_vulkan("its loader is not installed");
    const auto load = reinterpret_cast<PFN_vkGetInstanceProcAddr>(dlsym(library, "vkGetInstanceProcAddr"));
    if (load == nullptr) return no_vulkan("its loader is damaged");
    const auto create = reinterpret_cast<PFN_vkCreateInstance>(load(nullptr, "vkCreateInstance"));
    auto application = info<VkApplicationInfo>(VK_STRUCTURE_TYPE_APPLICATION_INFO);
    application.apiVersion = VK_API_VERSION_1_0;
    auto asked = info<VkInstanceCreateInfo>(VK_STRUCTURE_TYPE_INSTANCE_CREATE_INFO);
    asked.pApplicationInfo = &application;
    if (create == nullptr || create(&asked, nullptr, &instance) != VK_SUCCESS) return no_vulkan("it does not start");
    bool whole = true;
#define LACQUER_VULKAN_LOAD(function)                                          \
    vk.function = reinterpret_cast<PFN_##function>(load(instance, #function)); \
    whole = whole && vk.function != nullptr;
    LACQUER_VULKAN_FUNCTIONS(LACQUER_VULKAN_LOAD)
#undef LACQUER_VULKAN_LOAD
    if (!whole) return no_vulkan("its loader lacks functions of version 1.0");
    std::uint32_t count = 0;
    vk.vkEnumeratePhysicalDevices(instance, &count, nullptr);
    std::vector<VkPhysicalDevice> devices(count);
    if (count == 0 || vk.vkEnumeratePhysicalDevices(instance, &count, devices.data()) < VK_SUCCESS || count == 0)
        return no_vulkan("there is no device");
    VkPhysicalDeviceProperties properties{};
    vk.vkGetPhysicalDeviceProperties(devices[0], &properties);
    vk.vkGetPhysicalDeviceMemoryProperties(devices[0], &memory);
    name = properties.deviceName;
    std::uint32_t families = 0;
    vk.vkGetPhysicalDeviceQueueFamilyProperties(devices[0], &families, nullptr);
    std::vector<VkQueueFamilyProperties> queues(families);
    vk.vkGetPhysicalDeviceQueueFamilyProperties(devices[0], &families, queues.data());
    std::uint32_t family = 0;
    while (family < families && (queues[family].queueFlags & VK_QUEUE_GRAPHICS_BIT) == 0) ++family;
    if (family == families) return no_vulkan("the device does not draw");
    const float priority = 1;
    auto one_queue = info<VkDeviceQueueCreateInfo>(VK_STRUCTURE_TYPE_DEVICE_QUEUE_CREATE_INFO);
    one_queue.queueFamilyIndex = family;
    one_queue.queueCount = 1;
    one_queue.pQueuePriorities = &priority;
    auto made = info<VkDeviceCreateInfo>(VK_STRUCTURE_TYPE_DEVICE_CREATE_INFO);
    made.queueCreateInfoCount = 1;
    made.pQueueCreateInfos = &one_queue;
    if (vk.vkCreateDevice(devices[0], &made, nullptr, &device) != VK_SUCCESS)
        return no_vulkan("the device does not open");
    vk.vkGetDeviceQueue(device, family, 0, &queue);
    auto pool = info<VkCommandPoolCreateInfo>(VK_STRUCTURE_TYPE_COMMAND_POOL_CREATE_INFO);
    pool.queueFamilyIndex = family;
    if (vk.vkCreateCommandPool(device, &pool, nullptr, &commands) != VK_SUCCESS) return no_vulkan("it has no memory");
    auto allocate = info<VkCommandBufferAllocateInfo>(VK_STRUCTURE_TYPE_COMMAND_BUFFER_ALLOCATE_INFO);
    allocate.commandPool = commands;
    allocate.level = VK_COMMAND_BUFFER_LEVEL_PRIMARY;
    allocate.commandBufferCount = 1;
    if (vk.vkAllocateCommandBuffers(device, &allocate, &recording) != VK_SUCCESS) return no_vulkan("it has no memory");
    return Done{};
}

namespace {

struct Buffer {
    VkBuffer buffer = VK_NULL_HANDLE;
    VkDeviceMemory memory = VK_NULL_HANDLE;
};

struct Image {
    VkImage image = VK_NULL_HANDLE;
    VkDeviceMemory memory = VK_NULL_HANDLE;
    VkImageView view = VK_NULL_HANDLE;
};

// Everything of one drawing; let go of in the opposite order.
class Drawing {
public:
    Drawing(const VulkanFunctions& vk, VkDevice device, const VkPhysicalDeviceMemoryProperties& memory)
        : vk_(vk), device_(device), memory_(memory) {}
    ~Drawing() {
        while (!undo_.empty()) {
            undo_.back()();
            undo_.pop_back();
        }
    }
    Drawing(const Drawing&) = delete;
    Drawing& operator=(const Drawing&) = delete;

    bool ok() const { return ok_; }

    // Makes something by `create(device, info, nullptr, &made)`; it is let go of by `destroy`.
    template <class Made, class Create, class Destroy, class Info>
    Made make(Create create, Destroy destroy, const Info& asked) {
        Made made = VK_NULL_HANDLE;
        if (!ok_) return made;
        ok_ = create(device_, &asked, nullptr, &made) == VK_SUCCESS;
        if (ok_) undo_.emplace_back([this, destroy, made] { destroy(device_, made, nullptr); });
        return made;
    }

    Buffer buffer(std::size_t size, VkBufferUsageFlags usage) {
        Buffer made;
        auto asked = info<VkBufferCreateInfo>(VK_STRUCTURE_TYPE_BUFFER_CREATE_INFO);
        asked.size = std::max<std::size_t>(size, 16);
        asked.usage = usage;
        made.buffer = make<VkBuffer>(vk_.vkCreateBuffer, vk_.vkDestroyBuffer, asked);
        if (!ok_) return made;
        VkMemoryRequirements needs{};
        vk_.vkGetBufferMemoryRequirements(device_, made.buffer, &needs);
        made.memory = allocated(needs, VK_MEMORY_PROPERTY_HOST_VISIBLE_BIT | VK_MEMORY_PROPERTY_HOST_COHERENT_BIT);
        ok_ = ok_ && vk_.vkBindBufferMemory(device_, made.buffer, made.memory, 0) == VK_SUCCESS;
        return made;
    }

    Image image(std::uint32_t width, std::uint32_t height, std::uint32_t levels, VkFormat format,
                VkImageUsageFlags usage) {
        Image made;
        auto asked = info<VkImageCreateInfo>(VK_STRUCTURE_TYPE_IMAGE_CREATE_INFO);
        asked.imageType = VK_IMAGE_TYPE_2D;
        asked.format = format;
        asked.extent = {width, height, 1};
        asked.mipLevels = levels;
        asked.arrayLayers = 1;
        asked.samples = VK_SAMPLE_COUNT_1_BIT;
        asked.tiling = VK_IMAGE_TILING_OPTIMAL;
        asked.usage = usage;
        made.image = make<VkImage>(vk_.vkCreateImage, vk_.vkDestroyImage, asked);
        if (!ok_) return made;
        VkMemoryRequirements needs{};
        vk_.vkGetImageMemoryRequirements(device_, made.image, &needs);
        made.memory = allocated(needs, 0);
        ok_ = ok_ && vk_.vkBindImageMemory(device_, made.image, made.memory, 0) == VK_SUCCESS;
        auto seen = info<VkImageViewCreateInfo>(VK_STRUCTURE_TYPE_IMAGE_VIEW_CREATE_INFO);
        seen.image = made.image;
        seen.viewType = VK_IMAGE_VIEW_TYPE_2D;
        seen.format = format;
        seen.subresourceRange = {VK_IMAGE_ASPECT_COLOR_BIT, 0, levels, 0, 1};
        made.view = make<VkImageView>(vk_.vkCreateImageView, vk_.vkDestroyImageView, seen);
        return made;
    }

    bool write(const Buffer& to, const void* bytes, std::size_t size) {
        void* at = nullptr;
        ok_ = ok_ && vk_.vkMapMemory(device_, to.memory, 0, VK_WHOLE_SIZE, 0, &at) == VK_SUCCESS;
        if (!ok_) return false;
        if (size > 0) std::memcpy(at, bytes, size);
        vk_.vkUnmapMemory(device_, to.memory);
        return true;
    }

    bool read(const Buffer& from, void* bytes, std::size_t size) {
        void* at = nullptr;
        ok_ = ok_ && vk_.vkMapMemory(device_, from.memory, 0, VK_WHOLE_SIZE, 0, &at) == VK_SUCCESS;
        if (!ok_) return false;
        std::memcpy(bytes, at, size);
        vk_.vkUnmapMemory(device_, from.memory);
        return true;
    }

    void fail() { ok_ = false; }

private:
    VkDeviceMemory allocated(const VkMemoryRequirements& needs, VkMemoryPropertyFlags wanted) {
        auto asked = info<VkMemoryAllocateInfo>(VK_STRUCTURE_TYPE_MEMORY_ALLOCATE_INFO);
        asked.allocationSize = needs.size;
        std::uint32_t type = 0;
        const auto fits = [&](std::uint32_t k) {
            return (needs.memoryTypeBits & (1U << k)) != 0 && (memory_.memoryTypes[k].propertyFlags & wanted) == wanted;
        };
        while (type < memory_.memoryTypeCount && !fits(type)) ++type;
        ok_ = ok_ && type < memory_.memoryTypeCount;
        asked.memoryTypeIndex = type;
        return make<VkDeviceMemory>(vk_.vkAllocateMemory, vk_.vkFreeMemory, asked);
    }

    const VulkanFunctions& vk_;
    VkDevice device_;
    const VkPhysicalDeviceMemoryProperties& memory_;
    std::vector<std::function<void()>> undo_;
    bool ok_ = true;
};

VkImageMemoryBarrier change_of_layout(VkImage image, std::uint32_t levels, VkImageLayout from, VkImageLayout to) {
    auto barrier = info<VkImageMemoryBarrier>(VK_STRUCTURE_TYPE_IMAGE_MEMORY_BARRIER);
    barrier.oldLayout = from;
    barrier.newLayout = to;
    barrier.srcQueueFamilyIndex = barrier.dstQueueFamilyIndex = VK_QUEUE_FAMILY_IGNORED;
    barrier.image = image;
    barrier.subresourceRange = {VK_IMAGE_ASPECT_COLOR_BIT, 0, levels, 0, 1};
    barrier.srcAccessMask = VK_ACCESS_MEMORY_WRITE_BIT;
    barrier.dstAccessMask = VK_ACCESS_MEMORY_READ_BIT | VK_ACCESS_MEMORY_WRITE_BIT;
    return barrier;
}

VkShaderModule module_of(Drawing& all, const VulkanFunctions& vk, const std::string& spirv) {
    std::vector<std::uint32_t> words(spirv.size() / 4);
    if (!words.empty()) std::memcpy(words.data(), spirv.data(), words.size() * 4);
    auto asked = info<VkShaderModuleCreateInfo>(VK_STRUCTURE_TYPE_SHADER_MODULE_CREATE_INFO);
    asked.codeSize = words.size() * 4;
    asked.pCode = words.data();
    return all.make<VkShaderModule>(vk.vkCreateShaderModule, vk.vkDestroyShaderModule, asked);
}

VkRenderPass render_pass(Drawing& all, const VulkanFunctions& vk, VkFormat format) {
    VkAttachmentDescription target{};
    target.format = format;
    target.samples = VK_SAMPLE_COUNT_1_BIT;
    target.loadOp = VK_ATTACHMENT_LOAD_OP_DONT_CARE;
    target.storeOp = VK_ATTACHMENT_STORE_OP_STORE;
    target.finalLayout = VK_IMAGE_LAYOUT_TRANSFER_SRC_OPTIMAL;
    const VkAttachmentReference first{0, VK_IMAGE_LAYOUT_COLOR_ATTACHMENT_OPTIMAL};
    VkSubpassDescription drawing{};
    drawing.colorAttachmentCount = 1;
    drawing.pColorAttachments = &first;
    auto asked = info<VkRenderPassCreateInfo>(VK_STRUCTURE_TYPE_RENDER_PASS_CREATE_INFO);
    asked.attachmentCount = 1;
    asked.pAttachments = &target;
    asked.subpassCount = 1;
    asked.pSubpasses = &drawing;
    return all.make<VkRenderPass>(vk.vkCreateRenderPass, vk.vkDestroyRenderPass, asked);
}

// Of a fixed size and without blending.
VkPipeline pipeline(Drawing& all, const VulkanFunctions& vk, VkDevice device, const SpirvDrawing& drawing,
                    VkRenderPass pass, VkPipelineLayout layout) {
    std::array<VkPipelineShaderStageCreateInfo, 2> stages{};
    for (VkPipelineShaderStageCreateInfo& stage : stages) {
        stage.sType = VK_STRUCTURE_TYPE_PIPELINE_SHADER_STAGE_CREATE_INFO;
        stage.pName = "main";
    }
    stages[0].stage = VK_SHADER_STAGE_VERTEX_BIT;
    stages[0].module = module_of(all, vk, drawing.vertex);
    stages[1].stage = VK_SHADER_STAGE_FRAGMENT_BIT;
    stages[1].module = module_of(all, vk, drawing.fragment);
    const auto corners =
        info<VkPipelineVertexInputStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_VERTEX_INPUT_STATE_CREATE_INFO);
    auto assembly =
        info<VkPipelineInputAssemblyStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_INPUT_ASSEMBLY_STATE_CREATE_INFO);
    assembly.topology = VK_PRIMITIVE_TOPOLOGY_TRIANGLE_LIST;
    const VkViewport view{0, 0, static_cast<float>(drawing.width), static_cast<float>(drawing.height), 0, 1};
    const VkRect2D area{{0, 0},
                        {static_cast<std::uint32_t>(drawing.width), static_cast<std::uint32_t>(drawing.height)}};
    auto viewport = info<VkPipelineViewportStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_VIEWPORT_STATE_CREATE_INFO);
    viewport.viewportCount = viewport.scissorCount = 1;
    viewport.pViewports = &view;
    viewport.pScissors = &area;
    auto raster =
        info<VkPipelineRasterizationStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_RASTERIZATION_STATE_CREATE_INFO);
    raster.lineWidth = 1;
    auto samples = info<VkPipelineMultisampleStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_MULTISAMPLE_STATE_CREATE_INFO);
    samples.rasterizationSamples = VK_SAMPLE_COUNT_1_BIT;
    VkPipelineColorBlendAttachmentState plain{};
    plain.colorWriteMask =
        VK_COLOR_COMPONENT_R_BIT | VK_COLOR_COMPONENT_G_BIT | VK_COLOR_COMPONENT_B_BIT | VK_COLOR_COMPONENT_A_BIT;
    auto blend = info<VkPipelineColorBlendStateCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_COLOR_BLEND_STATE_CREATE_INFO);
    blend.attachmentCount = 1;
    blend.pAttachments = &plain;
    auto asked = info<VkGraphicsPipelineCreateInfo>(VK_STRUCTURE_TYPE_GRAPHICS_PIPELINE_CREATE_INFO);
    asked.stageCount = 2;
    asked.pStages = stages.data();
    asked.pVertexInputState = &corners;
    asked.pInputAssemblyState = &assembly;
    asked.pViewportState = &viewport;
    asked.pRasterizationState = &raster;
    asked.pMultisampleState = &samples;
    asked.pColorBlendState = &blend;
    asked.layout = layout;
    asked.renderPass = pass;
    const auto create = [&vk](VkDevice on, const VkGraphicsPipelineCreateInfo* one, const VkAllocationCallbacks*,
                              VkPipeline* made) {
        return vk.vkCreateGraphicsPipelines(on, VK_NULL_HANDLE, 1, one, nullptr, made);
    };
    return device != VK_NULL_HANDLE ? all.make<VkPipeline>(create, vk.vkDestroyPipeline, asked) : VK_NULL_HANDLE;
}

std::vector<PictureView> levels_of(const PictureView& picture) {
    std::vector<PictureView> levels = {picture};
    levels.insert(levels.end(), picture.smaller.begin(), picture.smaller.end());
    return levels;
}

}  // namespace

Result<Picture> VulkanRunner::Device::draw(const SpirvDrawing& drawing) {
    Drawing all(vk, device, memory);
    const auto lost = [] { return vulkan_fault("gpu.lost", "to draw"); };
    vk.vkResetCommandPool(device, commands, 0);
    auto begin = info<VkCommandBufferBeginInfo>(VK_STRUCTURE_TYPE_COMMAND_BUFFER_BEGIN_INFO);
    begin.flags = VK_COMMAND_BUFFER_USAGE_ONE_TIME_SUBMIT_BIT;
    if (vk.vkBeginCommandBuffer(recording, &begin) != VK_SUCCESS) return lost();
    const auto to_layout = [&](VkImage image, std::uint32_t levels, VkImageLayout from, VkImageLayout to) {
        const VkImageMemoryBarrier barrier = change_of_layout(image, levels, from, to);
        vk.vkCmdPipelineBarrier(recording, VK_PIPELINE_STAGE_ALL_COMMANDS_BIT, VK_PIPELINE_STAGE_ALL_COMMANDS_BIT, 0, 0,
                                nullptr, 0, nullptr, 1, &barrier);
    };
    static constexpr std::array<float, 4> black = {0, 0, 0, 1};
    std::vector<Image> images;
    std::vector<VkSampler> samplers;
    for (PictureView picture : drawing.pictures) {
        if (picture.is_empty()) picture = PictureView{black.data(), 1, 1, picture.sampling, {}, 4};
        const std::vector<PictureView> levels = levels_of(picture);
        const auto count = static_cast<std::uint32_t>(levels.size());
        images.push_back(all.image(static_cast<std::uint32_t>(picture.width),
                                   static_cast<std::uint32_t>(picture.height), count, format_of(picture.channels),
                                   VK_IMAGE_USAGE_SAMPLED_BIT | VK_IMAGE_USAGE_TRANSFER_DST_BIT));
        if (!all.ok()) return lost();
        to_layout(images.back().image, count, VK_IMAGE_LAYOUT_UNDEFINED, VK_IMAGE_LAYOUT_TRANSFER_DST_OPTIMAL);
        for (std::uint32_t k = 0; k < count; ++k) {
            const PictureView& level = levels[k];
            const std::size_t bytes = static_cast<std::size_t>(level.width) * static_cast<std::size_t>(level.height) *
                                      static_cast<std::size_t>(level.channels) * sizeof(float);
            const Buffer sent = all.buffer(bytes, VK_BUFFER_USAGE_TRANSFER_SRC_BIT);
            if (!all.write(sent, level.data, bytes)) return lost();
            VkBufferImageCopy copy{};
            copy.imageSubresource = {VK_IMAGE_ASPECT_COLOR_BIT, k, 0, 1};
            copy.imageExtent = {static_cast<std::uint32_t>(level.width), static_cast<std::uint32_t>(level.height), 1};
            vk.vkCmdCopyBufferToImage(recording, sent.buffer, images.back().image, VK_IMAGE_LAYOUT_TRANSFER_DST_OPTIMAL,
                                      1, &copy);
        }
        to_layout(images.back().image, count, VK_IMAGE_LAYOUT_TRANSFER_DST_OPTIMAL,
                  VK_IMAGE_LAYOUT_SHADER_READ_ONLY_OPTIMAL);
        auto asked = info<VkSamplerCreateInfo>(VK_STRUCTURE_TYPE_SAMPLER_CREATE_INFO);
        const bool linear = drawing.filters && picture.sampling.filter == Filter::linear;
        asked.magFilter = asked.minFilter = linear ? VK_FILTER_LINEAR : VK_FILTER_NEAREST;
        asked.mipmapMode = drawing.filters ? VK_SAMPLER_MIPMAP_MODE_LINEAR : VK_SAMPLER_MIPMAP_MODE_NEAREST;
        const Wrap wrap = drawing.filters ? picture.sampling.wrap : Wrap::clamp;
        asked.addressModeU = asked.addressModeV = asked.addressModeW = address_of(wrap);
        asked.maxLod = static_cast<float>(count);
        samplers.push_back(all.make<VkSampler>(vk.vkCreateSampler, vk.vkDestroySampler, asked));
    }
    const Buffer block = all.buffer(drawing.block.size(), VK_BUFFER_USAGE_UNIFORM_BUFFER_BIT);
    if (!all.ok() || !all.write(block, drawing.block.data(), drawing.block.size())) return lost();

    std::vector<VkDescriptorSetLayoutBinding> places;
    std::vector<VkDescriptorPoolSize> sizes;
    for (const ShaderBinding& binding : drawing.bindings) {
        places.push_back({binding.binding, descriptor_of(binding.kind), 1, VK_SHADER_STAGE_FRAGMENT_BIT, nullptr});
        sizes.push_back({descriptor_of(binding.kind), 1});
    }
    if (sizes.empty()) sizes.push_back({VK_DESCRIPTOR_TYPE_UNIFORM_BUFFER, 1});
    auto set_asked = info<VkDescriptorSetLayoutCreateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_SET_LAYOUT_CREATE_INFO);
    set_asked.bindingCount = static_cast<std::uint32_t>(places.size());
    set_asked.pBindings = places.data();
    const auto set_layout =
        all.make<VkDescriptorSetLayout>(vk.vkCreateDescriptorSetLayout, vk.vkDestroyDescriptorSetLayout, set_asked);
    auto pool_asked = info<VkDescriptorPoolCreateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_POOL_CREATE_INFO);
    pool_asked.maxSets = 1;
    pool_asked.poolSizeCount = static_cast<std::uint32_t>(sizes.size());
    pool_asked.pPoolSizes = sizes.data();
    const auto pool = all.make<VkDescriptorPool>(vk.vkCreateDescriptorPool, vk.vkDestroyDescriptorPool, pool_asked);
    if (!all.ok()) return lost();
    auto set_from = info<VkDescriptorSetAllocateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_SET_ALLOCATE_INFO);
    set_from.descriptorPool = pool;
    set_from.descriptorSetCount = 1;
    set_from.pSetLayouts = &set_layout;
    VkDescriptorSet set = VK_NULL_HANDLE;
    if (vk.vkAllocateDescriptorSets(device, &set_from, &set) != VK_SUCCESS) return lost();
    for (const ShaderBinding& binding : drawing.bindings) {
        const VkDescriptorBufferInfo bytes{block.buffer, 0, VK_WHOLE_SIZE};
        VkDescriptorImageInfo picture{};
        if (binding.kind != BindingKind::block) {
            picture = {samplers[binding.picture], images[binding.picture].view,
                       VK_IMAGE_LAYOUT_SHADER_READ_ONLY_OPTIMAL};
        }
        auto put = info<VkWriteDescriptorSet>(VK_STRUCTURE_TYPE_WRITE_DESCRIPTOR_SET);
        put.dstSet = set;
        put.dstBinding = binding.binding;
        put.descriptorCount = 1;
        put.descriptorType = descriptor_of(binding.kind);
        put.pBufferInfo = &bytes;
        put.pImageInfo = &picture;
        vk.vkUpdateDescriptorSets(device, 1, &put, 0, nullptr);
    }
    auto layout_asked = info<VkPipelineLayoutCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_LAYOUT_CREATE_INFO);
    layout_asked.setLayoutCount = 1;
    layout_asked.pSetLayouts = &set_layout;
    const auto layout = all.make<VkPipelineLayout>(vk.vkCreatePipelineLayout, vk.vkDestroyPipelineLayout, layout_asked);

    const VkFormat format = format_of(4);
    const auto width = static_cast<std::uint32_t>(drawing.width);
    const auto height = static_cast<std::uint32_t>(drawing.height);
    const Image target =
        all.image(width, height, 1, format, VK_IMAGE_USAGE_COLOR_ATTACHMENT_BIT | VK_IMAGE_USAGE_TRANSFER_SRC_BIT);
    const VkRenderPass pass = render_pass(all, vk, format);
    auto frame_asked = info<VkFramebufferCreateInfo>(VK_STRUCTURE_TYPE_FRAMEBUFFER_CREATE_INFO);
    frame_asked.renderPass = pass;
    frame_asked.attachmentCount = 1;
    frame_asked.pAttachments = &target.view;
    frame_asked.width = width;
    frame_asked.height = height;
    frame_asked.layers = 1;
    const auto frame = all.make<VkFramebuffer>(vk.vkCreateFramebuffer, vk.vkDestroyFramebuffer, frame_asked);
    if (!all.ok()) return lost();
    const VkPipeline drawn_by = pipeline(all, vk, device, drawing, pass, layout);
    if (!all.ok()) return vulkan_fault("gpu.shader", "a shader");
    Picture made(drawing.width, drawing.height, 4);
    const std::size_t bytes = made.data.size() * sizeof(float);
    const Buffer fetched = all.buffer(bytes, VK_BUFFER_USAGE_TRANSFER_DST_BIT);
    if (!all.ok()) return lost();

    auto into = info<VkRenderPassBeginInfo>(VK_STRUCTURE_TYPE_RENDER_PASS_BEGIN_INFO);
    into.renderPass = pass;
    into.framebuffer = frame;
    into.renderArea = {{0, 0}, {width, height}};
    vk.vkCmdBeginRenderPass(recording, &into, VK_SUBPASS_CONTENTS_INLINE);
    vk.vkCmdBindPipeline(recording, VK_PIPELINE_BIND_POINT_GRAPHICS, drawn_by);
    vk.vkCmdBindDescriptorSets(recording, VK_PIPELINE_BIND_POINT_GRAPHICS, layout, 0, 1, &set, 0, nullptr);
    vk.vkCmdDraw(recording, 3, 1, 0, 0);
    vk.vkCmdEndRenderPass(recording);
    to_layout(target.image, 1, VK_IMAGE_LAYOUT_TRANSFER_SRC_OPTIMAL, VK_IMAGE_LAYOUT_TRANSFER_SRC_OPTIMAL);
    VkBufferImageCopy copy{};
    copy.imageSubresource = {VK_IMAGE_ASPECT_COLOR_BIT, 0, 0, 1};
    copy.imageExtent = {width, height, 1};
    vk.vkCmdCopyImageToBuffer(recording, target.image, VK_IMAGE_LAYOUT_TRANSFER_SRC_OPTIMAL, fetched.buffer, 1, &copy);
    if (vk.vkEndCommandBuffer(recording) != VK_SUCCESS) return lost();
    auto submit = info<VkSubmitInfo>(VK_STRUCTURE_TYPE_SUBMIT_INFO);
    submit.commandBufferCount = 1;
    submit.pCommandBuffers = &recording;
    if (vk.vkQueueSubmit(queue, 1, &submit, VK_NULL_HANDLE) != VK_SUCCESS || vk.vkQueueWaitIdle(queue) != VK_SUCCESS)
        return lost();
    if (!all.read(fetched, made.data.data(), bytes)) return lost();
    return made;
}

VulkanRunner::VulkanRunner(std::unique_ptr<Device> device) : device_(std::move(device)) {}
VulkanRunner::~VulkanRunner() = default;

Result<std::unique_ptr<VulkanRunner>> VulkanRunner::open() {
    return guarded([]() -> Result<std::unique_ptr<VulkanRunner>> {
        auto device = std::make_unique<Device>();
        if (const Result<Done> opened = device->open(); !opened) return opened.fault();
        return std::unique_ptr<VulkanRunner>(new VulkanRunner(std::move(device)));
    });
}

const std::string& VulkanRunner::name() const { return device_->name; }

Result<Picture> VulkanRunner::draw(const SpirvDrawing& drawing) {
    return guarded([&] { return device_->draw(drawing); });
}

}  // namespace lacquer
