#pragma once

#include <any>
#include <map>
#include <string>

#include "workings/record.h"

namespace echappe {

/// A value of a declared struct held without its type: what a topic keeps where the house has no member for it.
class Part {
public:
    template <class T>
    static Part of(T value = {}) {
        Part part;
        part.m_value = std::move(value);
        part.m_record = &T::record();
        part.m_object = [](std::any& any) -> void* { return std::any_cast<T>(&any); };
        return part;
    }
    /// nullptr when it is of another type.
    template <class T>
    T* as() {
        return std::any_cast<T>(&m_value);
    }
    template <class T>
    const T* as() const {
        return std::any_cast<T>(&m_value);
    }
    const Record& record() const { return *m_record; }
    void* object() { return m_object(m_value); }
    bool operator==(const Part& other) const;

private:
    std::any m_value;
    const Record* m_record = nullptr;
    void* (*m_object)(std::any&) = nullptr;
};

/// By the ids of their topics.
struct Parts {
    std::map<std::string, Part> all;

    /// The part of this type; nullptr without one.
    template <class T>
    const T* find() const {
        for (const auto& [id, part] : all)
            if (const T* found = part.template as<T>()) return found;
        return nullptr;
    }
    bool operator==(const Parts&) const = default;
};

/// A field of this name that holds such a part; `empty` is what it begins with.
Field field_of_part(const std::string& name, const std::string& meaning, size_t offset_of_parts, Part empty);

}  // namespace echappe
