// Turning typed trees into instructions; its parts: lower.cpp (passes, names), lower_values.cpp (operators),
// lower_builtins.cpp, lower_code.cpp (functions and statements).
#pragma once

#include <array>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/cpu/ir.h"
#include "core/cpu/lower.h"
#include "core/lang/compositions.h"

namespace lacquer {

/// The values of one thing's parts.
class Parts {
public:
    Parts() = default;
    Parts(std::initializer_list<int> values) {
        for (const int value : values) push_back(value);
    }
    Parts(std::size_t count, int value) {
        for (std::size_t k = 0; k < count; ++k) push_back(value);
    }
    void push_back(int value) { values_[size_++] = value; }
    /// Takes away all but the first `count`.
    void cut(std::size_t count) { size_ = count; }
    std::size_t size() const { return size_; }
    bool empty() const { return size_ == 0; }
    int operator[](std::size_t k) const { return values_[k]; }
    int& operator[](std::size_t k) { return values_[k]; }
    const int* begin() const { return values_.data(); }
    const int* end() const { return values_.data() + size_; }
    int* begin() { return values_.data(); }
    int* end() { return values_.data() + size_; }

private:
    // A 3 x 3 matrix made of ever so many vectors, the last of which sticks out.
    std::array<int, 12> values_{};
    std::size_t size_ = 0;
};

class Lowering {
public:
    Lowering(const Pass& pass, Unrolling unrolling) : pass_(pass), unrolling_(unrolling) {}
    Ir run();

private:
    // lower.cpp
    int emit(Op op, std::span<const int> in, std::uint32_t bits = 0);
    int emit(Op op, std::initializer_list<int> in, std::uint32_t bits = 0) {
        return emit(op, std::span(in.begin(), in.size()), bits);
    }
    int constant(float x);
    int constant_bits(std::uint32_t bits) { return emit(Op::constant, {}, bits); }
    int truth_as_number(int truth) { return emit(Op::select, {truth, constant(1), constant(0)}); }
    std::uint32_t picture_slot(const std::string& name, bool weighed = false);
    int uniform(const std::string& name, int part);
    int table_place(int t);
    Parts read_here(const std::string& name, int width);
    Parts symbol(Type type, const NameHere& here);
    Parts read(const Typed& t, const PictureReading& reading);

    // lower_values.cpp
    Parts value(const Typed& t);
    int literal(Type type, double number);
    Parts construct(const Typed& t);
    Parts diagonal(Type type, Type from, const Parts& parts);
    Parts convert(const Typed& t);
    int convert_part(Scalar from, Scalar to, int part);
    Parts unary(const Typed& t, Operator operation);
    Parts binary(const Typed& t, const BinaryOperation& operation);
    Parts matrix_product(const Typed& t, const Parts& a, const Parts& b);
    int compare(Operator op, Scalar scalar, const Parts& a, const Parts& b);
    int compare_part(Operator op, Scalar scalar, int a, int b);
    Parts select(const Typed& t);

    // lower_builtins.cpp
    Parts call(Builtin builtin, const Typed& t, std::vector<Parts> args);
    Parts composed(const Composition& composition, std::vector<Parts> args);
    int dot(const Parts& a, const Parts& b);

    // lower_code.cpp
    /// Which pixels a statement is meant for: all, none, or those where a value is true.
    struct Active {
        enum class Kind { all, none, some } kind = Kind::all;
        int mask = -1;
        friend bool operator==(const Active&, const Active&) = default;
    };
    struct Loop {
        Active skipped{Active::Kind::none, -1};  ///< went on to the next turn
        Active left{Active::Kind::none, -1};     ///< left the loop
    };
    /// A function that is being written out.
    struct Frame {
        const TypedFunction* function = nullptr;
        std::vector<Parts> variables;
        std::optional<Parts> result;
        Active entry;             ///< the pixels that called it
        std::optional<int> gone;  ///< those that have given back a value within a loop
        std::vector<Loop> loops;
    };
    Parts run_function(const TypedFunction& function, std::vector<Parts> args);
    Active statements(std::span<const TypedStatement> list, Active active);
    bool is_worth_skipping(std::span<const TypedStatement> list) const;
    Active statement(const TypedStatement& s, Active active);
    void set(const TypedStatement& s, Active active);
    void give_back(const TypedStatement& s, Active active);
    Active branch(const TypedStatement& s, Active active);
    Active skippable(std::span<const TypedStatement> body, Active meant);
    Active loop(const TypedStatement& s, Active active);
    Active unrolled(const TypedStatement& s, Active active);
    Active turning(const TypedStatement& s, Active active);
    /// A part of something that changes from turn to turn, and the cell that holds it.
    struct Changing {
        static constexpr int result = -1;
        static constexpr int gone = -2;
        static constexpr int turns = -3;
        int variable = 0;  ///< the function's variable, or one of these
        std::size_t part = 0;
        int cell = 0;
    };
    static void add_changing(std::vector<Changing>& changing, const Parts& parts, int variable);
    int& place(const Changing& changing);
    Active both(Active a, Active b);
    Active either(Active a, Active b);
    Active without(Active a, int mask);
    Parts chosen(Active active, const Parts& fresh, const Parts& old);
    int mask_of(Active active);

    const Pass& pass_;
    Unrolling unrolling_;
    Ir ir_;
    std::map<std::string, Parts, std::less<>> steps_;
    std::map<std::string, Type, std::less<>> types_;
    Frame* frame_ = nullptr;
    Active calling_;            ///< the pixels for which the statement at hand is meant
    std::optional<int> turns_;  ///< of all loops of the step so far, where they have to be counted
};

template <class Each>
Parts each(std::size_t width, Each make) {
    Parts parts;
    for (std::size_t k = 0; k < width; ++k) parts.push_back(make(k));
    return parts;
}

/// Values that one instruction gives, from the first on.
inline Parts row(int first, int count) {
    return each(static_cast<std::size_t>(count), [&](std::size_t k) { return first + static_cast<int>(k); });
}

}  // namespace lacquer
