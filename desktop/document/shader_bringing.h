// Fragment shaders that become finishes.
#pragma once

#include <QString>

namespace lacquer {

class Document;

/// A new finish of the shader at `path`; what became of what it takes from outside is said. False where the open finish
/// must not be left, or the file cannot be read.
bool start_from_shader(Document& document, const QString& path);

/// The same of a shader's text.
bool start_from_shader_text(Document& document, const QString& text, const QString& name);

}  // namespace lacquer
