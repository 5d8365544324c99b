#pragma once

#include <algorithm>
#include <array>
#include <functional>
#include <limits>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "number/count.h"
#include "number/rational.h"

namespace echappe {

class Record;

/// No figure of a clock, in any unit, is larger or, where it must be above 0, smaller.
constexpr double largest_ordinary = 1e30;
constexpr double smallest_ordinary = 1e-30;

/// What a number may be. `sentence()` is what an error says it takes.
struct Range {
    double min = -std::numeric_limits<double>::infinity();
    double max = std::numeric_limits<double>::infinity();
    bool above_min = false;  ///< min itself is excluded

    bool holds(double value) const;  ///< false for NaN and for what is not of ordinary size
    std::string sentence() const;
};
inline Range any_number() { return {}; }
inline Range between(double min, double max) { return {min, max, false}; }
inline Range above(double min, double max = std::numeric_limits<double>::infinity()) { return {min, max, true}; }

/// A nested record, or a list of them, seen without its type.
struct NestedSlot {
    const Record* record;
    void* object;  ///< nullptr for an optional that is empty
    std::function<void*()> make;
};
struct ListSlot {
    const Record* record;
    std::vector<void*> items;
    std::function<void*()> add;
    std::string* file = nullptr;  ///< where the list may be given as the path of a file instead
};

/// Where a field's value lives.
using Slot = std::variant<double*, std::optional<double>*, long long*, std::optional<long long>*, bool*, std::string*,
                          std::optional<std::string>*, Count*, Rational*, std::vector<double>*, std::vector<long long>*,
                          std::vector<std::vector<long long>>*, std::vector<std::string>*, std::optional<std::vector<std::string>>*,
                          std::vector<std::array<double, 2>>*, std::vector<std::vector<std::array<double, 2>>>*,
                          std::map<std::string, long long>*, std::map<std::string, double>*, NestedSlot, ListSlot>;

struct Field {
    std::string name;  ///< carries its unit: "centre_distance_mm"
    std::string unit;
    std::string meaning;
    Range range;
    std::vector<std::string> choices;  ///< for words; empty: any
    bool required = false;
    std::function<Slot(void*)> slot;
    std::function<bool(const void*, const void*)> same;  ///< of two objects: straight from the members, for it is asked at every edit
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

private:
    std::vector<Field> m_fields;
};

/// Field by field, nested ones too; `but` names a field of the outermost record that may differ.
bool same(const Record& record, const void* a, const void* b, const std::string& but = {});

/// Builds the declaration of T. Struct members of other declared structs (and vectors of them) nest.
template <class T>
class Fields {
public:
    template <class M>
    Fields& add(std::string name, M T::*member, std::string unit, std::string meaning, Range range = {}) {
        m_fields.push_back({std::move(name),
                            std::move(unit),
                            std::move(meaning),
                            range,
                            {},
                            false,
                            [member](void* object) { return slot_of(static_cast<T*>(object)->*member); },
                            [member](const void* a, const void* b) {
                                return same_member(static_cast<const T*>(a)->*member, static_cast<const T*>(b)->*member);
                            }});
        return *this;
    }
    /// The fields of a declared member, as if they were T's own.
    template <class M>
    Fields& include(M T::*member) {
        for (Field field : M::record().fields()) {
            field.slot = [member, inner = field.slot](void* object) { return inner(&(static_cast<T*>(object)->*member)); };
            field.same = [member, inner = field.same](const void* a, const void* b) {
                return inner(&(static_cast<const T*>(a)->*member), &(static_cast<const T*>(b)->*member));
            };
            m_fields.push_back(std::move(field));
        }
        return *this;
    }
    Fields& required() {
        m_fields.back().required = true;
        return *this;
    }
    /// The list just added may also be given as the path of a file, which goes here.
    Fields& or_file(std::string T::*path) {
        m_fields.back().slot = [path, inner = m_fields.back().slot](void* object) {
            Slot slot = inner(object);
            std::get<ListSlot>(slot).file = &(static_cast<T*>(object)->*path);
            return slot;
        };
        m_fields.back().same = [path, inner = m_fields.back().same](const void* a, const void* b) {
            return static_cast<const T*>(a)->*path == static_cast<const T*>(b)->*path && inner(a, b);
        };
        return *this;
    }
    Fields& choices(std::vector<std::string> words) {
        m_fields.back().choices = std::move(words);
        return *this;
    }
    operator Record() { return Record(std::move(m_fields)); }

private:
    template <class M>
    static bool same_member(const M& a, const M& b) {
        if constexpr (requires { M::record(); }) {
            if constexpr (requires { a == b; }) return a == b;
            else return same(M::record(), &a, &b);
        } else if constexpr (requires { M::value_type::record(); }) {
            if constexpr (requires { a.has_value(); }) return a.has_value() == b.has_value() && (!a || same_member(*a, *b));
            else return std::equal(a.begin(), a.end(), b.begin(), b.end(), &same_member<typename M::value_type>);
        } else {
            return a == b;
        }
    }
    template <class M>
    static Slot slot_of(M& member) {
        if constexpr (requires { M::record(); }) {
            return NestedSlot{&M::record(), &member, [&member]() -> void* { return &member; }};
        } else if constexpr (requires { M::value_type::record(); }) {
            using Item = typename M::value_type;
            if constexpr (requires { member.push_back(Item{}); }) {
                ListSlot list{&Item::record(), {}, [&member]() -> void* { return &member.emplace_back(); }};
                for (Item& item : member) list.items.push_back(&item);
                return list;
            } else {
                return NestedSlot{&Item::record(), member ? &*member : nullptr, [&member]() -> void* { return &member.emplace(); }};
            }
        } else {
            return &member;
        }
    }
    std::vector<Field> m_fields;
};

}  // namespace echappe
