// From a shader's syntax to the language's trees: every variable becomes as many as it has leaves, what changes
// something within an expression becomes a statement before it, and functions that give back more than one number or
// vector are written out where they are called. Its parts: expressions.cpp, operators.cpp, constructors.cpp, places.cpp
// (what can be set), calls.cpp, declarations.cpp, statements.cpp, bodies.cpp (of functions), functions.cpp,
// constants.cpp, leaves.cpp (what these share).
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/lang/checker.h"
#include "core/lang/typed.h"
#include "core/shader/shape.h"
#include "core/shader/syntax.h"

namespace lacquer {

/// What a value of a sampler's type reads.
struct PictureSource {
    std::string name;
    SymbolKind symbol = SymbolKind::ground;
    Type type = Type::vec4;
    bool weighed = false;
};

/// What an expression gives: a tree for each leaf of its shape.
struct ShaderValue {
    GlslShape shape;
    std::vector<Typed> leaves;
    Span span;
    bool constant = false;  ///< by GLSL ES 3.00, section 4.3.3
    std::optional<PictureSource> picture = {};
};

/// Where a leaf lies: a variable, or some of its parts.
struct LeafPlace {
    int variable = 0;
    Type type = Type::number;             ///< of what is set
    std::array<std::uint8_t, 4> parts{};  ///< of the variable
    int part_count = 0;                   ///< 0: all of it
};

/// What can be set: either its leaves, or one of several of which a whole number says the place.
struct ShaderPlace {
    GlslShape shape;
    Span span;
    std::vector<LeafPlace> leaves;
    std::optional<Typed> index;
    std::vector<ShaderPlace> options;
};

/// What a name stands for in a shader.
struct ShaderName {
    GlslShape shape;
    std::vector<int> variables;  ///< one for each leaf
    std::vector<Typed> fixed;    ///< in their place, of what never changes
    bool constant = false;
    bool writable = true;
    std::optional<PictureSource> picture = {};
    bool is_type = false;  ///< a struct's name
};

/// What a call hands over: values, and places of those arguments that were found in computing it.
struct GivenArguments {
    std::vector<ShaderValue> values;
    std::vector<std::optional<ShaderPlace>> places;
};

/// A function, as often as it is told of.
struct ShaderFunction {
    std::string name;
    GlslShape type;
    std::vector<GlslShape> shapes;
    std::vector<Direction> directions;
    std::vector<bool> constants;
    const ShaderFunctionSyntax* definition = nullptr;
    std::size_t known_from = 0;  ///< the item by which it is told of first
    std::size_t defined_at = 0;
    bool built_in = false;        ///< from the prelude
    bool in_place = false;        ///< written out where it is called
    bool changes_things = false;  ///< sets what lies outside, or gives back by its parameters
    bool is_under_way = false;
    bool was_run = false;
    std::shared_ptr<const TypedFunction> plain = {};
};

class ShaderTranslator {
public:
    ShaderTranslator(const Scope& scope, std::string_view text, Faults& notes);

    /// The value of a step. Throws a `Refusal`.
    Typed step(const ShaderSyntax& syntax);

private:
    using Names = std::map<std::string, ShaderName, std::less<>>;

    // A function of the language that is being made.
    struct Making {
        TypedFunction function;
    };
    // What lies round a statement, and how it is left.
    struct Around {
        enum class Kind { loop, body, choice, function };
        Kind kind = Kind::loop;
        int flag = -1;  ///< of a body: that the loop is left; of a choice: that the loop's turn is
    };
    // A body that is being run through.
    struct Run {
        const ShaderFunction* function = nullptr;  ///< null for the step's own statements
        GlslShape type;
        bool direct = true;       ///< what is given back ends the function of the language, too
        std::vector<int> result;  ///< variables, where it is not
        int gone = -1;            ///< true once it has given back within a loop
        std::vector<Around> around;
    };

    // functions.cpp
    void items_of(const ShaderSyntax& syntax, bool built_in);
    void add_function(const ShaderFunctionSyntax& syntax, std::size_t item, bool built_in);
    void find_changing(const ShaderSyntax& syntax);
    ShaderFunction* chosen(const std::string& name, const std::vector<ShaderValue>& args, bool built_in) const;
    std::shared_ptr<const TypedFunction> plain(ShaderFunction& function);
    ShaderValue run_in_place(ShaderFunction& function, const ShaderNode& node, const std::vector<ShaderValue>& args,
                             const std::vector<std::optional<ShaderPlace>>& places);
    ShaderValue called(ShaderFunction& function, const ShaderNode& node, GivenArguments given);
    void check_all_functions();
    Typed finished(Span span);
    void declare_outputs(const ShaderSyntax& syntax);

    // bodies.cpp
    void begin_run(const ShaderFunction& function, bool direct);
    void body_of(const ShaderFunction& function);
    void add_parameters(const ShaderFunction& function, const std::vector<ShaderValue>* args);
    Typed unified(Making& making, Span span);
    void complete_now(Making& making, Span span);

    // statements.cpp
    void statements(const std::vector<ShaderStatement>& list);
    void scoped(const std::vector<ShaderStatement>& list);
    void statement(const ShaderStatement& s);
    void branch(const ShaderStatement& s);
    void loop(const ShaderStatement& s);
    bool plain_loop(const ShaderStatement& s);
    void general_loop(const ShaderStatement& s);
    void choose(const ShaderStatement& s);
    void give_back(const ShaderStatement& s);
    void discard(const ShaderStatement& s);
    void leave_loop(Span span);
    void skip_turn(Span span);
    void go();
    void leave_if_gone();
    void once(Around around, Span span, const std::function<void()>& inside);
    std::vector<TypedStatement> inside(const std::function<void()>& work);
    void leave();
    void compute(const ShaderNode& node);
    Typed condition(const ShaderNode& node, const char* who);

    // declarations, statements.cpp
    void declare(const ShaderStatement& s);
    void declare_name(const ShaderStatement& s, const Declarator& name, const GlslShape& shape);
    void declare_uniform(const Declarator& name, const GlslShape& shape);
    void declare_input(const Declarator& name, const GlslShape& shape);
    GlslShape shape_of(const TypeSyntax& type);
    GlslShape sized(GlslShape element, bool is_array, const std::vector<ShaderNode>& size, Span span,
                    const GlslShape* of_value);
    GlslShape define(const StructSyntax& structure);
    void add_name(const std::string& name, Span span, ShaderName made);
    ShaderName new_variable(const std::string& name, const GlslShape& shape, Span span, const ShaderValue* value);

    // expressions.cpp
    ShaderValue value(const ShaderNode& node);
    std::vector<ShaderValue> values(const std::vector<ShaderNode>& nodes);
    GivenArguments given_to(const ShaderNode& call);
    bool is_settable(const ShaderNode& node) const;
    bool may_give_back(const ShaderNode& call, std::size_t argument) const;
    ShaderValue name(const ShaderNode& node);
    ShaderValue field(const ShaderNode& node);
    ShaderValue parts_of(ShaderValue whole, const ShaderNode& node);
    ShaderValue length(const ShaderNode& node);
    ShaderValue index(const ShaderNode& node);
    ShaderValue select(const ShaderNode& node);
    ShaderValue changed(const ShaderNode& node);
    ShaderValue logical(const ShaderNode& node);
    const ShaderName* find(std::string_view name) const;
    ShaderValue value_of(const ShaderName& name, Span span) const;
    bool has_effects(const ShaderNode& node) const;
    PartsOf swizzle(const ShaderNode& node, Type of) const;

    // operators.cpp
    ShaderValue operation(const std::string& mark, Span span, ShaderValue left, ShaderValue right);
    ShaderValue unary(const ShaderNode& node);
    ShaderValue equality(const std::string& mark, Span span, ShaderValue left, ShaderValue right);
    ShaderValue arithmetic(const std::string& mark, Span span, ShaderValue left, ShaderValue right);
    ShaderValue whole_operation(const std::string& mark, Span span, ShaderValue left, ShaderValue right);
    ShaderValue matrix_product(Span span, ShaderValue left, ShaderValue right);
    [[noreturn]] void no_operation(const std::string& mark, Span span, const ShaderValue& left,
                                   const ShaderValue& right) const;

    // constructors.cpp
    ShaderValue construct(const GlslShape& shape, Span span, std::vector<ShaderValue> args);
    ShaderValue construct_vector(Type type, Span span, std::vector<ShaderValue> args);
    ShaderValue construct_matrix(const GlslShape& shape, Span span, std::vector<ShaderValue> args);
    ShaderValue construct_array(const ShaderNode& node);
    std::vector<Typed> components(std::vector<ShaderValue> args, Scalar scalar);

    // places.cpp
    ShaderPlace place(const ShaderNode& node);
    ShaderPlace part(ShaderPlace whole, std::size_t first, std::size_t count, const GlslShape& shape) const;
    ShaderPlace indexed(ShaderPlace whole, const Typed& index, int count) const;
    ShaderPlace component(ShaderPlace whole, const PartsOf& parts, Span span) const;
    void store(const ShaderPlace& place, const std::vector<Typed>& leaves, const Typed* only_where);
    ShaderValue value_at(const ShaderPlace& place) const;
    Typed index_of(const ShaderNode& node, int count);
    std::vector<Typed> choice_of(const std::vector<std::vector<Typed>>& options, const Typed& index) const;

    // calls.cpp
    ShaderValue call(const ShaderNode& node);
    ShaderValue built_in(const ShaderNode& node, std::vector<ShaderValue> args);
    ShaderValue matrix_call(const ShaderNode& node, std::vector<ShaderValue>& args);
    ShaderValue read(const ShaderNode& node, Builtin builtin, std::vector<ShaderValue> args);
    Typed turned_over(Typed place, const PictureSource& source, Span span);
    ShaderValue gradient(const ShaderNode& node);
    ShaderValue previous(const ShaderNode& node);
    std::optional<ShaderValue> our_own(const ShaderNode& node, std::vector<ShaderValue>& args);
    [[noreturn]] void unknown_function(const ShaderNode& node, const std::vector<ShaderValue>& args) const;

    // constants.cpp
    ShaderValue folded(ShaderValue value) const;
    std::int64_t whole_constant(const ShaderNode& node, const char* what);

    // Small parts that all of these share.
    Span at(Span span) const { return elsewhere_ ? *elsewhere_ : span; }
    std::string quoted(Span span) const;
    void emit(TypedStatement statement);
    void assign(int variable, Typed value);
    int new_leaf(const std::string& name, Type type, Typed value);
    int new_flag(const std::string& name);
    ShaderValue bound(ShaderValue value);
    ShaderValue kept(ShaderValue value);
    Typed bound(Typed leaf);
    void count_work(Span span, std::size_t much = 1);
    void note(Span span, std::string message);
    std::string converted_text(Span span, const GlslShape& wanted) const;
    [[noreturn]] void does_not_fit(const ShaderValue& value, const GlslShape& wanted, const std::string& who) const;

    const Scope& scope_;
    std::string_view text_;
    Faults& notes_;
    std::vector<std::unique_ptr<ShaderFunction>> functions_;
    std::map<std::string, std::vector<ShaderFunction*>, std::less<>> overloads_;
    Names globals_;
    std::vector<Names> names_;                     // of the function at hand, innermost scope last
    std::set<std::string, std::less<>> changing_;  // functions that set something outside
    std::set<std::string, std::less<>> told_;
    Making main_;
    Making* making_ = &main_;
    std::vector<TypedStatement>* out_ = nullptr;
    Run run_;
    std::optional<Span> elsewhere_;  // where the prelude's words are taken to stand
    std::size_t item_ = 0;           // that is being translated
    std::size_t work_ = 0;
    int nesting_ = 0;
    bool upward_ = false;  // a whole shader: y counts from the bottom
    int discarded_ = -1;   // a variable of the step's
    std::vector<std::string> outputs_;
};

/// A tree of one node more.
Typed literal_leaf(Type type, double number, Span span);
Typed joined(Operator op, Typed left, Typed right, Type type);
/// Whether a function gives back within a loop or a switch.
bool returns_within_loop(const std::vector<ShaderStatement>& body);
/// A number in all parts of a vector.
Typed spread(Typed number, Type type);
Typed part_of(Typed vector, int part);
Typed variable_leaf(int number, const std::string& name, Type type, Span span);
Typed chosen_leaf(Typed condition, Typed yes, Typed no);

}  // namespace lacquer
