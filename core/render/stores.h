// What all that draw have in common.
#pragma once

#include "core/render/picture_store.h"
#include "core/render/program_store.h"

namespace lacquer {

/// Shared by stage, small pictures and whatever else draws in one process. Safe from any thread.
struct RenderStores {
    /// `picture_bytes` is what pictures of files may hold together.
    explicit RenderStores(std::size_t picture_bytes = PictureStore::usual_budget) : pictures(picture_bytes) {}

    ProgramStore programs;
    PictureStore pictures;
};

}  // namespace lacquer
