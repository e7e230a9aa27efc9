// A function explained: what it does, its arguments, and a picture.
#pragma once

#include <QString>
#include <string>

namespace lacquer {

/// As rich text, with a picture where one says more than words. Empty for what is no built-in function.
QString function_help(const std::string& name);

}  // namespace lacquer
