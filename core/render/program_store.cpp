#include "core/render/program_store.h"

#include <algorithm>

#include "core/cpu/lower.h"

namespace lacquer {

namespace {

std::vector<Shader> shaders_of(const Pass& pass) {
    std::vector<Shader> shaders;
    for (std::size_t first = 0; first < pass.outputs.size(); first += max_shader_outputs) {
        const std::size_t count = std::min(max_shader_outputs, pass.outputs.size() - first);
        Pass part = pass;
        part.outputs.assign(pass.outputs.begin() + static_cast<std::ptrdiff_t>(first),
                            pass.outputs.begin() + static_cast<std::ptrdiff_t>(first + count));
        shaders.push_back(emit_glsl(part, Dialect::desktop_330));
    }
    return shaders;
}

// Made without the lock: two threads may make the same, which costs less than waiting for one another.
template <class Key, class Value, class Make>
std::shared_ptr<const Value> kept(std::mutex& mutex, RecentlyUsed<Key, std::shared_ptr<const Value>>& table,
                                  const Key& key, const Make& make) {
    {
        const std::lock_guard lock(mutex);
        if (const auto* found = table.find(key)) return *found;
    }
    auto made = std::make_shared<const Value>(make());
    const std::lock_guard lock(mutex);
    return table.put(key, std::move(made), 1);
}

}  // namespace

std::shared_ptr<const Program> ProgramStore::program(const Pass& pass, const StructuralHash& key,
                                                     const KernelSet& kernels) {
    return kept(mutex_, programs_, ProgramKey(key, kernels.name),
                [&] { return lay_out(optimised(lower(pass)), kernels); });
}

std::shared_ptr<const std::vector<Shader>> ProgramStore::shaders(const Pass& pass, const StructuralHash& key) {
    return kept(mutex_, shaders_, key, [&] { return shaders_of(pass); });
}

}  // namespace lacquer
