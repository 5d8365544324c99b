#include "workings/part.h"

#include <deque>

namespace echappe {
namespace {

class PartMember final : public MemberType {
public:
    PartMember(std::string name, Part empty) : m_name(std::move(name)), m_empty(std::move(empty)) {}

    Slot slot(void* member) const override {
        auto& parts = static_cast<Parts*>(member)->all;
        const auto at = parts.find(m_name);
        return NestedSlot{&m_empty.record(), at == parts.end() ? nullptr : at->second.object(), this, member};
    }
    void* grow(void* member) const override { return static_cast<Parts*>(member)->all.try_emplace(m_name, m_empty).first->second.object(); }
    bool same(const void* a, const void* b) const override {
        const auto& one = static_cast<const Parts*>(a)->all;
        const auto& other = static_cast<const Parts*>(b)->all;
        const auto in_one = one.find(m_name);
        const auto in_other = other.find(m_name);
        if (in_one == one.end() || in_other == other.end()) return in_one == one.end() && in_other == other.end();
        return in_one->second == in_other->second;
    }

private:
    std::string m_name;
    Part m_empty;
};

}  // namespace

bool Part::operator==(const Part& other) const {
    if (m_record != other.m_record) return false;
    if (!m_record) return true;
    // Comparing changes nothing through them.
    return same(*m_record, m_object(const_cast<std::any&>(m_value)), m_object(const_cast<std::any&>(other.m_value)));
}

Field field_of_part(const std::string& name, const std::string& meaning, size_t offset_of_parts, Part empty) {
    // Declared once for the whole run, and where they are: fields point to them.
    static std::deque<PartMember> members;
    Field field;
    field.name = name;
    field.meaning = meaning;
    field.offset = offset_of_parts;
    field.type = &members.emplace_back(name, std::move(empty));
    return field;
}

}  // namespace echappe
