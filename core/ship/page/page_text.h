// The page's own texts.
#pragma once

#include <string_view>

namespace lacquer {

/// The page with places for what a finish brings: @TITLE@, @DATA@, @PLAY@, @SCRIPT@.
std::string_view page_html();
/// What draws and plays it.
std::string_view page_script();

}  // namespace lacquer
