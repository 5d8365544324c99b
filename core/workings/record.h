#pragma once

#include <array>
#include <bit>
#include <concepts>
#include <cstddef>
#include <initializer_list>
#include <limits>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <tuple>
#include <variant>
#include <vector>

#include "number/count.h"
#include "number/rational.h"

namespace echappe {

class MemberType;
class Record;
struct Field;

/// No figure of a clock, in any unit, is larger or, where it must be above 0, smaller.
constexpr double largest_ordinary = 1e30;
constexpr double smallest_ordinary = 1e-30;

/// What a number may be. `sentence()` is what an error says it takes.
struct Range {
    double min = -std::numeric_limits<double>::infinity();
    double max = std::numeric_limits<double>::infinity();
    bool above_min = false;  ///< min itself is excluded

    bool holds(double value) const;  ///< false for NaN and for what is not of ordinary size
    /// `number`: what it is called, "a number" or "a whole number".
    std::string sentence(const std::string& number = "a number") const;
};
inline Range any_number() { return {}; }
inline Range between(double min, double max) { return {min, max, false}; }
inline Range above(double min, double max = std::numeric_limits<double>::infinity()) { return {min, max, true}; }

/// A nested record, or a list of them, seen without its type.
struct NestedSlot {
    const Record* record;
    void* object;  ///< nullptr for an optional that is empty
    const MemberType* type;
    void* member;
    void* make() const;
};
struct ListSlot {
    const Record* record;
    std::vector<void*> items;
    const MemberType* type;
    void* member;
    std::string* file = nullptr;  ///< where the list may be given as the path of a file instead
    void* add() const;
};

/// The kinds that a variant may be of, seen without their types.
struct Kinds {
    std::vector<const Record*> records;
    std::vector<void*> fresh;  ///< one of each, as it begins
    size_t (*now)(const void* variant);
    void* (*held)(void* variant);
    void (*become)(void* variant, size_t kind);
};
/// Which kind a variant is of: its word is the field's choice at that place.
struct KindSlot {
    const Kinds* kinds;
    void* variant;
};
/// A field of another kind than the one that is held: there is no such value.
struct OtherKindSlot {
    const Field* field;
    void* fresh;  ///< an object that has it, as it begins
};

/// Where a field's value lives.
using Slot =
    std::variant<double*, std::optional<double>*, long long*, std::optional<long long>*, bool*, std::string*, std::optional<std::string>*,
                 Count*, Rational*, std::vector<double>*, std::vector<long long>*, std::vector<std::vector<long long>>*,
                 std::vector<std::string>*, std::optional<std::vector<std::string>>*, std::optional<std::vector<double>>*,
                 std::vector<std::array<double, 2>>*, std::vector<std::vector<std::array<double, 2>>>*, std::map<std::string, long long>*,
                 std::map<std::string, double>*, NestedSlot, ListSlot, KindSlot, OtherKindSlot>;

/// How members of one type are reached and compared: made once for each type, whatever struct the member is in.
class MemberType {
public:
    virtual Slot slot(void* member) const = 0;
    virtual bool same(const void* a, const void* b) const = 0;
    /// Makes the record that is not there yet, or the next one of a list, and tells where it is.
    virtual void* grow(void* member) const { return member; }

protected:
    ~MemberType() = default;
};
inline void* NestedSlot::make() const { return type->grow(member); }
inline void* ListSlot::add() const { return type->grow(member); }

struct Field {
    std::string name;  ///< carries its unit: "centre_distance_mm"
    std::string unit;
    std::string meaning;
    Range range;
    std::vector<std::string> choices;  ///< for words; empty: any
    bool required = false;
    size_t offset = 0;  ///< of the member in its struct
    const MemberType* type = nullptr;
    std::optional<size_t> file_offset = std::nullopt;  ///< of the path that may stand for the list
    std::shared_ptr<const void> owned = nullptr;       ///< the type, where it was made for this field alone
    bool tells_kind = false;                           ///< read before the fields that depend on it
    std::string because = {};                          ///< why it is what it is until somebody says otherwise
    std::string label = {};                            ///< as one writes it beside the dimension on a sketch; empty: its name

    Slot slot(void* object) const;
    /// Of two objects: straight from the members, for it is asked at every edit.
    bool same(const void* a, const void* b) const;
};

/// The declaration of a plain struct's fields, made once beside the struct. Parsing, printing, help,
/// range errors and labels all come from it.
class Record {
public:
    explicit Record(std::vector<Field> fields) : m_fields(std::move(fields)) {}
    const std::vector<Field>& fields() const { return m_fields; }
    const Field* find(std::string_view name) const;
    /// The field whose name takes the fewest changes of a letter to reach.
    std::string nearest(const std::string& name) const;
    /// Adds a field to a declaration that grows with the topics.
    void append(Field field) { m_fields.push_back(std::move(field)); }

private:
    std::vector<Field> m_fields;
};

/// Field by field, nested ones too; `but` names a field of the outermost record that may differ.
bool same(const Record& record, const void* a, const void* b, const std::string& but = {});

/// The member type of plain values, those that a slot points to.
template <class M>
const MemberType& plain_member();

template <class M>
const MemberType& member_type();

template <class M>
struct DeclaredMember final : MemberType {
    Slot slot(void* member) const override { return NestedSlot{&M::record(), member, this, member}; }
    bool same(const void* a, const void* b) const override {
        if constexpr (std::equality_comparable<M>) return *static_cast<const M*>(a) == *static_cast<const M*>(b);
        else return echappe::same(M::record(), a, b);
    }
};

template <class M>
struct ListMember final : MemberType {
    using Item = typename M::value_type;
    Slot slot(void* member) const override {
        auto& list = *static_cast<M*>(member);
        ListSlot slot{&Item::record(), {}, this, member};
        for (Item& item : list) slot.items.push_back(&item);
        return slot;
    }
    void* grow(void* member) const override { return &static_cast<M*>(member)->emplace_back(); }
    bool same(const void* a, const void* b) const override {
        const auto& one = *static_cast<const M*>(a);
        const auto& other = *static_cast<const M*>(b);
        if (one.size() != other.size()) return false;
        for (size_t i = 0; i < one.size(); ++i)
            if (!member_type<Item>().same(&one[i], &other[i])) return false;
        return true;
    }
};

template <class M>
struct OptionalMember final : MemberType {
    using Item = typename M::value_type;
    Slot slot(void* member) const override {
        auto& item = *static_cast<M*>(member);
        return NestedSlot{&Item::record(), item ? &*item : nullptr, this, member};
    }
    void* grow(void* member) const override { return &static_cast<M*>(member)->emplace(); }
    bool same(const void* a, const void* b) const override {
        const auto& one = *static_cast<const M*>(a);
        const auto& other = *static_cast<const M*>(b);
        return one.has_value() == other.has_value() && (!one || member_type<Item>().same(&*one, &*other));
    }
};

template <class M>
const MemberType& member_type() {
    if constexpr (requires { M::record(); }) {
        static const DeclaredMember<M> type;
        return type;
    } else if constexpr (requires(M & list) { M::value_type::record(), list.push_back({}); }) {
        static const ListMember<M> type;
        return type;
    } else if constexpr (requires { M::value_type::record(); }) {
        static const OptionalMember<M> type;
        return type;
    } else {
        return plain_member<M>();
    }
}

template <class V>
struct KindsOf;
template <class... K>
struct KindsOf<std::variant<K...>> {
    using V = std::variant<K...>;
    static const Kinds& all() {
        static std::tuple<K...> fresh;
        static const Kinds kinds{
            {&K::record()...},
            {&std::get<K>(fresh)...},
            [](const void* variant) { return static_cast<const V*>(variant)->index(); },
            [](void* variant) { return std::visit([](auto& held) -> void* { return &held; }, *static_cast<V*>(variant)); },
            [](void* variant, size_t kind) {
                size_t at = 0;
                ((at++ == kind ? void(*static_cast<V*>(variant) = K()) : void()), ...);
            }};
        return kinds;
    }
};

/// Builds the declaration of a struct; `Fields` adds what depends on its type. Nothing here is compiled anew for each struct.
class FieldList {
protected:
    void append(std::string_view name, size_t offset, const MemberType& type, std::string_view unit, std::string_view meaning, Range range);
    void append_all(const Record& record, size_t offset, const std::string& prefix);
    void append_kind(std::string_view name, size_t offset, const Kinds& kinds, std::string_view meaning,
                     std::initializer_list<const char*> words);
    void append_fields_of(const Kinds& kinds, size_t offset);
    Field& last() { return m_fields.back(); }
    std::vector<Field> m_fields;
};

/// Builds the declaration of T. Struct members of other declared structs (and vectors of them) nest.
template <class T>
class Fields : FieldList {
public:
    template <class M>
    Fields& add(std::string_view name, M T::*member, std::string_view unit, std::string_view meaning, Range range = {}) {
        append(name, offset_of(member), member_type<M>(), unit, meaning, range);
        return *this;
    }
    /// The fields of a declared member, as if they were T's own, their names behind `prefix`.
    template <class M>
    Fields& include(M T::*member, const std::string& prefix = {}) {
        append_all(M::record(), offset_of(member), prefix);
        return *this;
    }
    /// Which kind a member of several is of, told by a word for each, in their order. Comes before `fields_of_kinds`.
    template <class... K>
    Fields& kind(std::string_view name, std::variant<K...> T::*member, std::string_view meaning, std::initializer_list<const char*> words) {
        append_kind(name, offset_of(member), KindsOf<std::variant<K...>>::all(), meaning, words);
        return *this;
    }
    /// The fields of all its kinds, as if they were T's own; one that several kinds have is one field.
    template <class... K>
    Fields& fields_of_kinds(std::variant<K...> T::*member) {
        append_fields_of(KindsOf<std::variant<K...>>::all(), offset_of(member));
        return *this;
    }
    Fields& required() {
        last().required = true;
        return *this;
    }
    /// Why the value it begins with is a usual one.
    Fields& because(const char* reason) {
        last().because = reason;
        return *this;
    }
    /// As one writes it beside the dimension on a sketch, where the name would be too short to be understood.
    Fields& label(const char* words) {
        last().label = words;
        return *this;
    }
    /// The list just added may also be given as the path of a file, which goes here.
    Fields& or_file(std::string T::*path) {
        last().file_offset = offset_of(path);
        return *this;
    }
    Fields& choices(std::initializer_list<const char*> words) {
        last().choices.assign(words.begin(), words.end());
        return *this;
    }
    Fields& choices(std::vector<std::string> words) {
        last().choices = std::move(words);
        return *this;
    }
    operator Record() { return Record(std::move(m_fields)); }
    /// A pointer to a member is its distance from the beginning (Itanium C++ ABI, 2.3), which all Linux compilers keep to.
    template <class M>
    static size_t offset_of(M T::*member) {
        return static_cast<size_t>(std::bit_cast<std::ptrdiff_t>(member));
    }
};

}  // namespace echappe
