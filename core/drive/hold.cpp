#include "core/drive/arguments.h"

namespace lacquer {

ResponseKind hold_kind() {
    ResponseKind kind;
    kind.name = "hold";
    kind.words = "stays where it is";
    kind.arguments = {number_argument("value", 0, 0, 1, "", "where it stays", Reads::any_time)};
    kind.answerer = [](const Arguments& args) -> Answerer {
        return [value = args.at_any_time("value")](double time) {
            Answer answer;
            answer.value[0] = value(time);
            return answer;
        };
    };
    return kind;
}

}  // namespace lacquer
