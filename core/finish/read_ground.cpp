#include "core/finish/read_ground.h"

#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

// The kind whose key is there; a picture if none is.
template <class Kind, class... Others>
GroundKind kind_in(const Fields& fields) {
    if (fields.has(Kind::key)) return Kind{};
    if constexpr (sizeof...(Others) > 0) return kind_in<Others...>(fields);
    return PictureGround{};
}

template <class... Kinds>
GroundKind kind_in(const Fields& fields, const std::variant<PictureGround, Kinds...>*) {
    return kind_in<Kinds...>(fields);
}

}  // namespace

Ground read_ground(Fields& fields) {
    Ground ground;
    ground.name = fields.text("name");
    ground.kind = kind_in(fields, &ground.kind);
    std::visit([&](auto& kind) { read(fields, kind); }, ground.kind);
    ground.extra = fields.kept();
    return ground;
}

}  // namespace lacquer
