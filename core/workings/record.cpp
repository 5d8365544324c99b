#include "workings/record.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "number/units.h"

namespace echappe {
namespace {

/// Levenshtein distance.
size_t letters_changed(const std::string& a, const std::string& b) {
    std::vector<size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), size_t{0});
    for (size_t i = 0; i < a.size(); ++i) {
        size_t diagonal = row[0];
        row[0] = i + 1;
        for (size_t j = 0; j < b.size(); ++j) {
            const size_t kept = diagonal + (a[i] == b[j] ? 0 : 1);
            diagonal = row[j + 1];
            row[j + 1] = std::min({row[j] + 1, row[j + 1] + 1, kept});
        }
    }
    return row.back();
}

}  // namespace

namespace {

/// A hyphen for the minus sign: errors are read by scripts as well.
std::string plain(double value) { return (value < 0 ? "-" : "") + print_short(std::abs(value), 9); }

}  // namespace

bool Range::holds(double value) const {
    // What is divided by must not vanish in double precision, nor a product of a few figures overflow.
    const double least = above_min && min == 0 ? smallest_ordinary : min;
    return std::abs(value) <= largest_ordinary && (above_min && min != 0 ? value > min : value >= least) && value <= max;
}

std::string Range::sentence(const std::string& number) const {
    const bool floor = std::isfinite(min);
    const bool ceiling = std::isfinite(max);
    if (floor && ceiling) return (above_min ? "more than " : "") + plain(min) + " to " + plain(max);
    if (floor) return above_min ? number + " above " + plain(min) : number + " from " + plain(min) + " up";
    if (ceiling) return number + " up to " + plain(max);
    return number;
}

Slot Field::slot(void* object) const {
    Slot slot = type->slot(static_cast<char*>(object) + offset);
    if (file_offset) std::get<ListSlot>(slot).file = reinterpret_cast<std::string*>(static_cast<char*>(object) + *file_offset);
    return slot;
}

bool Field::same(const void* a, const void* b) const {
    const auto at = [](const void* object, size_t place) -> const void* { return static_cast<const char*>(object) + place; };
    const auto path = [&](const void* object) { return *static_cast<const std::string*>(at(object, *file_offset)); };
    return type->same(at(a, offset), at(b, offset)) && (!file_offset || path(a) == path(b));
}

namespace {

template <class M>
struct PlainMember final : MemberType {
    Slot slot(void* member) const override { return static_cast<M*>(member); }
    bool same(const void* a, const void* b) const override { return *static_cast<const M*>(a) == *static_cast<const M*>(b); }
};

}  // namespace

template <class M>
const MemberType& plain_member() {
    static const PlainMember<M> type;
    return type;
}
template const MemberType& plain_member<double>();
template const MemberType& plain_member<std::optional<double>>();
template const MemberType& plain_member<long long>();
template const MemberType& plain_member<std::optional<long long>>();
template const MemberType& plain_member<bool>();
template const MemberType& plain_member<std::string>();
template const MemberType& plain_member<std::optional<std::string>>();
template const MemberType& plain_member<Count>();
template const MemberType& plain_member<Rational>();
template const MemberType& plain_member<std::vector<double>>();
template const MemberType& plain_member<std::optional<std::vector<double>>>();
template const MemberType& plain_member<std::vector<long long>>();
template const MemberType& plain_member<std::vector<std::vector<long long>>>();
template const MemberType& plain_member<std::vector<std::string>>();
template const MemberType& plain_member<std::optional<std::vector<std::string>>>();
template const MemberType& plain_member<std::vector<std::array<double, 2>>>();
template const MemberType& plain_member<std::vector<std::vector<std::array<double, 2>>>>();
template const MemberType& plain_member<std::map<std::string, long long>>();
template const MemberType& plain_member<std::map<std::string, double>>();

void FieldList::append(std::string_view name, size_t offset, const MemberType& type, std::string_view unit, std::string_view meaning,
                       Range range) {
    Field& field = m_fields.emplace_back();
    field.name = name;
    field.unit = unit;
    field.meaning = meaning;
    field.range = range;
    field.offset = offset;
    field.type = &type;
}

void FieldList::append_all(const Record& record, size_t offset, const std::string& prefix) {
    for (Field field : record.fields()) {
        field.name = prefix + field.name;
        field.offset += offset;
        if (field.file_offset) *field.file_offset += offset;
        m_fields.push_back(std::move(field));
    }
}

namespace {

struct KindMember final : MemberType {
    explicit KindMember(const Kinds& of) : kinds(of) {}
    Slot slot(void* variant) const override { return KindSlot{&kinds, variant}; }
    bool same(const void* a, const void* b) const override { return kinds.now(a) == kinds.now(b); }
    const Kinds& kinds;
};

/// A field of some of the kinds.
struct FieldOfKinds final : MemberType {
    FieldOfKinds(const Kinds& of, const std::string& name) : kinds(of) {
        for (const Record* record : kinds.records) fields.push_back(record->find(name));
    }
    const Field* of(const void* variant) const { return fields[kinds.now(variant)]; }
    Slot slot(void* variant) const override {
        if (const Field* field = of(variant)) return field->slot(kinds.held(variant));
        const auto has = std::find_if(fields.begin(), fields.end(), [](const Field* field) { return field != nullptr; });
        return OtherKindSlot{*has, kinds.fresh[static_cast<size_t>(has - fields.begin())]};
    }
    bool same(const void* a, const void* b) const override {
        const Field* one = of(a);
        const Field* other = of(b);
        if (!one || !other) return one == other;
        const auto held = [&](const void* variant) { return kinds.held(const_cast<void*>(variant)); };
        // Of two kinds: told anew, for one member type cannot compare two places.
        return one == other && one->same(held(a), held(b));
    }
    const Kinds& kinds;
    std::vector<const Field*> fields;
};

template <class M>
void reach_by(Field& field, std::shared_ptr<const M> type) {
    field.type = type.get();
    field.owned = std::move(type);
}

}  // namespace

void FieldList::append_kind(std::string_view name, size_t offset, const Kinds& kinds, std::string_view meaning,
                            std::initializer_list<const char*> words) {
    const auto type = std::make_shared<const KindMember>(kinds);
    append(name, offset, *type, "", meaning, {});
    reach_by(last(), type);
    last().choices.assign(words.begin(), words.end());
    last().tells_kind = true;
}

void FieldList::append_fields_of(const Kinds& kinds, size_t offset) {
    const size_t own = m_fields.size();
    for (const Record* record : kinds.records)
        for (Field field : record->fields()) {
            const auto there = std::find_if(m_fields.begin() + static_cast<std::ptrdiff_t>(own), m_fields.end(),
                                            [&](const Field& other) { return other.name == field.name; });
            if (there != m_fields.end()) continue;
            reach_by(field, std::make_shared<const FieldOfKinds>(kinds, field.name));
            field.offset = offset;
            m_fields.push_back(std::move(field));
        }
}

const Field* Record::find(std::string_view name) const {
    const auto at = std::find_if(m_fields.begin(), m_fields.end(), [&](const Field& field) { return field.name == name; });
    return at == m_fields.end() ? nullptr : &*at;
}

std::string Record::nearest(const std::string& name) const {
    const auto best = std::min_element(m_fields.begin(), m_fields.end(), [&](const Field& a, const Field& b) {
        return letters_changed(name, a.name) < letters_changed(name, b.name);
    });
    return best == m_fields.end() ? "" : best->name;
}

bool same(const Record& record, const void* a, const void* b, const std::string& but) {
    return std::all_of(record.fields().begin(), record.fields().end(),
                       [&](const Field& field) { return field.name == but || field.same(a, b); });
}

}  // namespace echappe
