#include "core/shader/shape.h"

#include <fmt/core.h>

#include <algorithm>

namespace lacquer {

bool operator==(const GlslShape& a, const GlslShape& b) {
    if (a.kind != b.kind) return false;
    switch (a.kind) {
        case GlslShape::Kind::leaf:
            return a.leaf == b.leaf;
        case GlslShape::Kind::matrix:
            return a.columns == b.columns && a.rows == b.rows;
        case GlslShape::Kind::structure:
            return a.structure == b.structure;
        case GlslShape::Kind::array:
            return a.count == b.count && *a.element == *b.element;
        case GlslShape::Kind::nothing:
        case GlslShape::Kind::picture:
            break;
    }
    return true;
}

GlslShape leaf_shape(Type type) {
    GlslShape shape;
    shape.kind = GlslShape::Kind::leaf;
    shape.leaf = type;
    return shape;
}

GlslShape matrix_shape(int columns, int rows) {
    GlslShape shape;
    shape.kind = GlslShape::Kind::matrix;
    shape.columns = columns;
    shape.rows = rows;
    return shape;
}

GlslShape array_shape(GlslShape element, int count) {
    GlslShape shape;
    shape.kind = GlslShape::Kind::array;
    shape.count = count;
    shape.element = std::make_shared<const GlslShape>(std::move(element));
    return shape;
}

GlslShape shape_named(std::string_view word) {
    if (word.starts_with("mat")) {
        const int columns = word.size() > 3 ? word[3] - '0' : 0;
        const bool is_square = word.size() == 4;
        const int rows = is_square ? columns : word.size() == 6 ? word[5] - '0' : 0;
        const auto is_side = [](int side) { return side >= 2 && side <= 4; };
        return is_side(columns) && is_side(rows) ? matrix_shape(columns, rows) : GlslShape{};
    }
    if (word == "sampler2D") {
        GlslShape shape;
        shape.kind = GlslShape::Kind::picture;
        return shape;
    }
    const std::optional<Type> type = type_named(word);
    return type ? leaf_shape(*type) : GlslShape{};
}

namespace {

void add_leaves(const GlslShape& shape, std::vector<Type>& leaves) {
    switch (shape.kind) {
        case GlslShape::Kind::leaf:
            leaves.push_back(shape.leaf);
            return;
        case GlslShape::Kind::matrix:
            for (int c = 0; c < shape.columns; ++c) leaves.push_back(float_type(shape.rows));
            return;
        case GlslShape::Kind::structure:
            for (const auto& [name, part] : shape.structure->parts) add_leaves(part, leaves);
            return;
        case GlslShape::Kind::array:
            for (int k = 0; k < shape.count; ++k) add_leaves(*shape.element, leaves);
            return;
        case GlslShape::Kind::nothing:
        case GlslShape::Kind::picture:
            return;
    }
}

}  // namespace

std::vector<Type> leaves_of(const GlslShape& shape) {
    std::vector<Type> leaves;
    add_leaves(shape, leaves);
    return leaves;
}

std::size_t leaf_count(const GlslShape& shape) {
    switch (shape.kind) {
        case GlslShape::Kind::leaf:
            return 1;
        case GlslShape::Kind::matrix:
            return static_cast<std::size_t>(shape.columns);
        case GlslShape::Kind::structure: {
            std::size_t count = 0;
            for (const auto& [name, part] : shape.structure->parts) count += leaf_count(part);
            return count;
        }
        case GlslShape::Kind::array:
            return static_cast<std::size_t>(shape.count) * leaf_count(*shape.element);
        case GlslShape::Kind::nothing:
        case GlslShape::Kind::picture:
            break;
    }
    return 0;
}

int place_count(const GlslShape& shape) {
    switch (shape.kind) {
        case GlslShape::Kind::leaf:
            return width_of(shape.leaf) > 1 ? width_of(shape.leaf) : 0;
        case GlslShape::Kind::matrix:
            return shape.columns;
        case GlslShape::Kind::array:
            return shape.count;
        case GlslShape::Kind::nothing:
        case GlslShape::Kind::structure:
        case GlslShape::Kind::picture:
            break;
    }
    return 0;
}

GlslShape place_shape(const GlslShape& shape) {
    if (shape.is(GlslShape::Kind::array)) return *shape.element;
    if (shape.is(GlslShape::Kind::matrix)) return leaf_shape(float_type(shape.rows));
    return leaf_shape(make_type(scalar_of(shape.leaf), 1));
}

namespace {

template <class Test>
bool holds(const GlslShape& shape, const Test& test) {
    if (test(shape)) return true;
    if (shape.is(GlslShape::Kind::array)) return holds(*shape.element, test);
    return shape.is(GlslShape::Kind::structure) &&
           std::any_of(shape.structure->parts.begin(), shape.structure->parts.end(),
                       [&](const auto& part) { return holds(part.second, test); });
}

}  // namespace

bool holds_picture(const GlslShape& shape) {
    return holds(shape, [](const GlslShape& part) { return part.is(GlslShape::Kind::picture); });
}

bool holds_array(const GlslShape& shape) {
    return holds(shape, [](const GlslShape& part) { return part.is(GlslShape::Kind::array); });
}

std::string shape_text(const GlslShape& shape) {
    switch (shape.kind) {
        case GlslShape::Kind::nothing:
            return "void";
        case GlslShape::Kind::leaf:
            return std::string(glsl_name(shape.leaf));
        case GlslShape::Kind::matrix:
            return shape.columns == shape.rows ? fmt::format("mat{}", shape.columns)
                                               : fmt::format("mat{}x{}", shape.columns, shape.rows);
        case GlslShape::Kind::structure:
            return shape.structure->name.empty() ? "a struct" : shape.structure->name;
        case GlslShape::Kind::array:
            return fmt::format("{}[{}]", shape_text(*shape.element), shape.count);
        case GlslShape::Kind::picture:
            break;
    }
    return "sampler2D";
}

}  // namespace lacquer
