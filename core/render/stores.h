// What all that draw have in common.
#pragma once

#include <functional>
#include <memory>
#include <utility>

#include "core/render/frame.h"
#include "core/render/picture_store.h"
#include "core/render/program_store.h"

namespace lacquer {

/// Is told of each pass before it is drawn, on the thread that draws it; what it gives is held until that is done.
using PassWatch = std::function<std::shared_ptr<void>(const RenderRequest& request, const Pass& pass)>;

/// Shared by stage, small pictures and whatever else draws in one process. Safe from any thread.
struct RenderStores {
    explicit RenderStores(const PictureLimits& limits = {}, PassWatch told = nullptr)
        : pictures(limits), watch(std::move(told)) {}

    ProgramStore programs;
    PictureStore pictures;
    const PassWatch watch;  ///< may be empty
};

}  // namespace lacquer
