#include "core/shader/shape.h"

#include <fmt/core.h>

#include <algorithm>

namespace lacquer {

bool operator==(const Shape& a, const Shape& b) {
    if (a.kind != b.kind) return false;
    switch (a.kind) {
        case Shape::Kind::leaf:
            return a.leaf == b.leaf;
        case Shape::Kind::matrix:
            return a.columns == b.columns && a.rows == b.rows;
        case Shape::Kind::structure:
            return a.structure == b.structure;
        case Shape::Kind::array:
            return a.count == b.count && *a.element == *b.element;
        case Shape::Kind::nothing:
        case Shape::Kind::picture:
            break;
    }
    return true;
}

Shape leaf_shape(Type type) {
    Shape shape;
    shape.kind = Shape::Kind::leaf;
    shape.leaf = type;
    return shape;
}

Shape matrix_shape(int columns, int rows) {
    Shape shape;
    shape.kind = Shape::Kind::matrix;
    shape.columns = columns;
    shape.rows = rows;
    return shape;
}

Shape array_shape(Shape element, int count) {
    Shape shape;
    shape.kind = Shape::Kind::array;
    shape.count = count;
    shape.element = std::make_shared<const Shape>(std::move(element));
    return shape;
}

Shape shape_named(std::string_view word) {
    if (word.starts_with("mat")) {
        const int columns = word.size() > 3 ? word[3] - '0' : 0;
        const bool is_square = word.size() == 4;
        const int rows = is_square ? columns : word.size() == 6 ? word[5] - '0' : 0;
        const auto is_side = [](int side) { return side >= 2 && side <= 4; };
        return is_side(columns) && is_side(rows) ? matrix_shape(columns, rows) : Shape{};
    }
    if (word == "sampler2D") {
        Shape shape;
        shape.kind = Shape::Kind::picture;
        return shape;
    }
    const std::optional<Type> type = type_named(word);
    return type ? leaf_shape(*type) : Shape{};
}

namespace {

void add_leaves(const Shape& shape, std::vector<Type>& leaves) {
    switch (shape.kind) {
        case Shape::Kind::leaf:
            leaves.push_back(shape.leaf);
            return;
        case Shape::Kind::matrix:
            for (int c = 0; c < shape.columns; ++c) leaves.push_back(float_type(shape.rows));
            return;
        case Shape::Kind::structure:
            for (const auto& [name, part] : shape.structure->parts) add_leaves(part, leaves);
            return;
        case Shape::Kind::array:
            for (int k = 0; k < shape.count; ++k) add_leaves(*shape.element, leaves);
            return;
        case Shape::Kind::nothing:
        case Shape::Kind::picture:
            return;
    }
}

}  // namespace

std::vector<Type> leaves_of(const Shape& shape) {
    std::vector<Type> leaves;
    add_leaves(shape, leaves);
    return leaves;
}

std::size_t leaf_count(const Shape& shape) {
    switch (shape.kind) {
        case Shape::Kind::leaf:
            return 1;
        case Shape::Kind::matrix:
            return static_cast<std::size_t>(shape.columns);
        case Shape::Kind::structure: {
            std::size_t count = 0;
            for (const auto& [name, part] : shape.structure->parts) count += leaf_count(part);
            return count;
        }
        case Shape::Kind::array:
            return static_cast<std::size_t>(shape.count) * leaf_count(*shape.element);
        case Shape::Kind::nothing:
        case Shape::Kind::picture:
            break;
    }
    return 0;
}

namespace {

template <class Test>
bool holds(const Shape& shape, const Test& test) {
    if (test(shape)) return true;
    if (shape.is(Shape::Kind::array)) return holds(*shape.element, test);
    return shape.is(Shape::Kind::structure) && std::any_of(shape.structure->parts.begin(), shape.structure->parts.end(),
                                                           [&](const auto& part) { return holds(part.second, test); });
}

}  // namespace

bool holds_picture(const Shape& shape) {
    return holds(shape, [](const Shape& part) { return part.is(Shape::Kind::picture); });
}

bool holds_array(const Shape& shape) {
    return holds(shape, [](const Shape& part) { return part.is(Shape::Kind::array); });
}

std::string shape_text(const Shape& shape) {
    switch (shape.kind) {
        case Shape::Kind::nothing:
            return "void";
        case Shape::Kind::leaf:
            return std::string(glsl_name(shape.leaf));
        case Shape::Kind::matrix:
            return shape.columns == shape.rows ? fmt::format("mat{}", shape.columns)
                                               : fmt::format("mat{}x{}", shape.columns, shape.rows);
        case Shape::Kind::structure:
            return shape.structure->name.empty() ? "a struct" : shape.structure->name;
        case Shape::Kind::array:
            return fmt::format("{}[{}]", shape_text(*shape.element), shape.count);
        case Shape::Kind::picture:
            break;
    }
    return "sampler2D";
}

}  // namespace lacquer
