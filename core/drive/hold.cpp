#include "core/drive/response.h"

namespace lacquer {

ResponseKind hold_kind() {
    ResponseKind kind;
    kind.name = "hold";
    kind.words = "stays where it is";
    kind.arguments = {{"value", 0, 0, 1, "", "where it stays"}};
    kind.value = [](const Arguments& args, const Moment&) { return args.number("value"); };
    return kind;
}

}  // namespace lacquer
