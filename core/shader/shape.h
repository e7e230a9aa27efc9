// The types of GLSL ES 3.00. The language's own trees know numbers and vectors only: everything larger is a row of
// those, its leaves.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/lang/type.h"

namespace lacquer {

struct StructShape;

struct GlslShape {
    enum class Kind {
        nothing,    ///< void
        leaf,       ///< a number or a vector
        matrix,     ///< `columns` vectors of `rows` numbers
        structure,  ///< what its parts have, one after another
        array,      ///< `count` times what its element has
        picture     ///< a sampler: no leaves
    };
    Kind kind = Kind::nothing;
    Type leaf = Type::number;
    int columns = 0;
    int rows = 0;
    int count = 0;
    std::shared_ptr<const StructShape> structure = {};
    std::shared_ptr<const GlslShape> element = {};

    bool is(Kind wanted) const { return kind == wanted; }
    bool is(Type type) const { return kind == Kind::leaf && leaf == type; }
    /// A number, not a vector.
    bool is_scalar() const { return kind == Kind::leaf && width_of(leaf) == 1; }
    friend bool operator==(const GlslShape& a, const GlslShape& b);
};

struct StructShape {
    std::string name;
    std::vector<std::pair<std::string, GlslShape>> parts;
};

GlslShape leaf_shape(Type type);
GlslShape matrix_shape(int columns, int rows);
GlslShape array_shape(GlslShape element, int count);

/// The shape that GLSL names so: void, numbers, vectors, matrices, sampler2D; `nothing` for others.
GlslShape shape_named(std::string_view word);

/// The types of all leaves in a row.
std::vector<Type> leaves_of(const GlslShape& shape);
/// How many those are.
std::size_t leaf_count(const GlslShape& shape);

/// How many places there are in brackets behind it: numbers of a vector, columns of a matrix, places of an array; 0 for
/// what has none.
int place_count(const GlslShape& shape);
/// What stands at one of them; there must be some.
GlslShape place_shape(const GlslShape& shape);

/// Whether there is a picture in it.
bool holds_picture(const GlslShape& shape);
bool holds_array(const GlslShape& shape);

/// As it is written: "vec3", "float[4]", "Light".
std::string shape_text(const GlslShape& shape);

/// Most leaves of one array: more would be too slow to choose from.
inline constexpr int most_elements = 4096;

}  // namespace lacquer
