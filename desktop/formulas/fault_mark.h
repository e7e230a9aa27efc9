// The mark under words at fault in a text that is being typed.
#pragma once

class QPlainTextEdit;

namespace lacquer {

/// Paints it under the characters [first, last) of the editor; an empty range at the end of the text marks its end.
/// Words that wrap are marked to the end of their first line.
void paint_fault_mark(QPlainTextEdit& editor, int first, int last);

}  // namespace lacquer
