#include "workings/record_json.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>
#include <stdexcept>

#include "number/units.h"

namespace echappe {
namespace {

using Json = nlohmann::ordered_json;
/// Whole numbers up to here are the same as integer and as double.
constexpr double exact_integers = 9007199254740992.0;
/// Deeper nesting than any document of ours: refused before it can cost stack.
constexpr int deepest = 40;

std::string told(const Json& value) {
    if (value.is_object()) return "an object";
    if (value.is_array()) return "a list";
    std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace);
    return text.size() > 60 ? text.substr(0, 57) + "…" : text;
}

class Reader {
public:
    std::vector<InputError> faults;

    void object(const Json& json, const Record& record, void* target, const std::string& place) {
        if (!json.is_object()) return fault(place.empty() ? "input" : place, told(json), "an object");
        for (const Field& field : record.fields())
            if (field.tells_kind && json.contains(field.name))
                one(json[field.name], field, target, place.empty() ? field.name : place + "." + field.name);
        for (const auto& [key, value] : json.items()) {
            const std::string here = place.empty() ? key : place + "." + key;
            if (const Field* field = record.find(key)) {
                if (!field->tells_kind) one(value, *field, target, here);
            } else {
                fault(here, "a field it does not know", "\"" + record.nearest(key) + "\" (the nearest known name)");
            }
        }
        for (const Field& field : record.fields())
            if (field.required && !json.contains(field.name))
                fault(place.empty() ? field.name : place + "." + field.name, "nothing", takes(field));
    }

    void one(const Json& json, const Field& field, void* target, const std::string& place) {
        std::visit([&](auto slot) { value(json, field, slot, place); }, field.slot(target));
    }

private:
    void fault(const std::string& place, const std::string& got, const std::string& accepts) { faults.emplace_back(place, got, accepts); }

    static std::string takes(const Field& field) {
        std::string words;
        for (const std::string& choice : field.choices) words += (words.empty() ? "\"" : ", \"") + choice + "\"";
        if (!words.empty()) return words;
        if (std::isfinite(field.range.min) || std::isfinite(field.range.max)) return field.range.sentence();
        return field.meaning;
    }

    bool number(const Json& json, const Field& field, const std::string& place, double& out) {
        if (json.is_number() && field.range.holds(json.get<double>()) && std::isfinite(json.get<double>())) {
            out = json.get<double>();
            return true;
        }
        fault(place, told(json), field.range.sentence());
        return false;
    }
    bool whole(const Json& json, const Field& field, const std::string& place, long long& out) {
        const double number = json.is_number() ? json.get<double>() : NAN;
        if (field.range.holds(number) && std::abs(number) <= exact_integers && number == std::floor(number)) {
            out = static_cast<long long>(number);
            return true;
        }
        fault(place, told(json), field.range.sentence("a whole number"));
        return false;
    }
    bool words(const Json& json, const std::string& place, std::vector<std::string>& out) {
        out.clear();
        if (!json.is_array()) return fault(place, told(json), "a list of words"), false;
        for (size_t i = 0; i < json.size(); ++i) {
            if (!json[i].is_string()) return fault(place + "[" + std::to_string(i) + "]", told(json[i]), "a word"), false;
            out.push_back(json[i].get<std::string>());
        }
        return true;
    }

    void value(const Json& json, const Field& field, double* out, const std::string& place) { number(json, field, place, *out); }
    void value(const Json& json, const Field& field, std::optional<double>* out, const std::string& place) {
        double read = 0;
        if (!json.is_null() && number(json, field, place, read)) *out = read;
    }
    void value(const Json& json, const Field& field, long long* out, const std::string& place) { whole(json, field, place, *out); }
    void value(const Json& json, const Field& field, std::optional<long long>* out, const std::string& place) {
        long long read = 0;
        if (!json.is_null() && whole(json, field, place, read)) *out = read;
    }
    void value(const Json& json, const Field&, bool* out, const std::string& place) {
        if (json.is_boolean()) *out = json.get<bool>();
        else fault(place, told(json), "true or false");
    }
    void value(const Json& json, const Field& field, std::string* out, const std::string& place) {
        const bool known =
            json.is_string() && (field.choices.empty() || std::count(field.choices.begin(), field.choices.end(), json.get<std::string>()));
        if (known) *out = json.get<std::string>();
        else fault(place, told(json), field.choices.empty() ? "a text" : takes(field));
    }
    void value(const Json& json, const Field& field, std::optional<std::string>* out, const std::string& place) {
        std::string read;
        if (json.is_null()) return;
        const size_t before = faults.size();
        value(json, field, &read, place);
        if (faults.size() == before) *out = read;
    }
    void value(const Json& json, const Field& field, Count* out, const std::string& place) {
        long long read = 0;
        if (json.is_null()) *out = Count::lost();
        else if (whole(json, field, place, read)) *out = Count(read);
    }
    void value(const Json& json, const Field& field, Rational* out, const std::string& place) {
        try {
            if (!json.is_number() && !json.is_string()) throw InputError(place, told(json), "a number or \"num/den\"");
            const Rational read = json.is_string() ? Rational::parse(json.get<std::string>(), place) : Rational::parse(json.dump(), place);
            if (!field.range.holds(read.to_double())) throw InputError(place, told(json), field.range.sentence());
            *out = read;
        } catch (const InputError& error) {
            faults.push_back(error);
        }
    }
    void value(const Json& json, const Field& field, std::vector<double>* out, const std::string& place) {
        out->clear();
        if (!json.is_array()) return fault(place, told(json), "a list of numbers");
        for (size_t i = 0; i < json.size(); ++i) {
            double read = 0;
            if (number(json[i], field, place + "[" + std::to_string(i) + "]", read)) out->push_back(read);
        }
    }
    void value(const Json& json, const Field& field, std::vector<long long>* out, const std::string& place) {
        out->clear();
        if (!json.is_array()) return fault(place, told(json), "a list of whole numbers");
        for (size_t i = 0; i < json.size(); ++i) {
            long long read = 0;
            if (whole(json[i], field, place + "[" + std::to_string(i) + "]", read)) out->push_back(read);
        }
    }
    void value(const Json& json, const Field& field, std::vector<std::vector<long long>>* out, const std::string& place) {
        out->clear();
        if (!json.is_array()) return fault(place, told(json), "a list of lists of whole numbers");
        for (size_t i = 0; i < json.size(); ++i) value(json[i], field, &out->emplace_back(), place + "[" + std::to_string(i) + "]");
    }
    void value(const Json& json, const Field&, std::vector<std::string>* out, const std::string& place) { words(json, place, *out); }
    void value(const Json& json, const Field&, std::optional<std::vector<std::string>>* out, const std::string& place) {
        std::vector<std::string> read;
        if (!json.is_null() && words(json, place, read)) *out = read;
    }
    void value(const Json& json, const Field& field, std::optional<std::vector<double>>* out, const std::string& place) {
        if (!json.is_null()) value(json, field, &out->emplace(), place);
    }
    void value(const Json& json, const Field& field, std::vector<std::vector<std::array<double, 2>>>* out, const std::string& place) {
        out->clear();
        if (!json.is_array()) return fault(place, told(json), "a list of outlines");
        for (size_t i = 0; i < json.size(); ++i) value(json[i], field, &out->emplace_back(), place + "[" + std::to_string(i) + "]");
    }
    void value(const Json& json, const Field& field, std::vector<std::array<double, 2>>* out, const std::string& place) {
        out->clear();
        if (!json.is_array()) return fault(place, told(json), "a list of points [x, y]");
        for (size_t i = 0; i < json.size(); ++i) {
            const std::string here = place + "[" + std::to_string(i) + "]";
            std::array<double, 2> point{};
            if (!json[i].is_array() || json[i].size() != 2) fault(here, told(json[i]), "a point [x, y]");
            else if (number(json[i][0], field, here + "[0]", point[0]) && number(json[i][1], field, here + "[1]", point[1]))
                out->push_back(point);
        }
    }
    template <class V>
    void map(const Json& json, const Field& field, std::map<std::string, V>* out, const std::string& place) {
        if (!json.is_object()) return fault(place, told(json), "an object of names and numbers");
        for (const auto& [key, item] : json.items()) {
            V read{};
            const size_t before = faults.size();
            value(item, field, &read, place + "." + key);
            if (faults.size() == before) (*out)[key] = read;
        }
    }
    void value(const Json& json, const Field& field, std::map<std::string, long long>* out, const std::string& place) {
        map(json, field, out, place);
    }
    void value(const Json& json, const Field& field, std::map<std::string, double>* out, const std::string& place) {
        map(json, field, out, place);
    }
    void value(const Json& json, const Field&, const NestedSlot& slot, const std::string& place) {
        if (!json.is_null()) object(json, *slot.record, slot.make(), place);
    }
    void value(const Json& json, const Field&, const ListSlot& slot, const std::string& place) {
        if (slot.file && json.is_string()) {
            *slot.file = json.get<std::string>();
            return;
        }
        if (!json.is_array()) return fault(place, told(json), slot.file ? "a list, or the path of a CSV file" : "a list");
        for (size_t i = 0; i < json.size(); ++i) object(json[i], *slot.record, slot.add(), place + "[" + std::to_string(i) + "]");
    }
    void value(const Json& json, const Field& field, const KindSlot& slot, const std::string& place) {
        const auto at =
            json.is_string() ? std::find(field.choices.begin(), field.choices.end(), json.get<std::string>()) : field.choices.end();
        if (at == field.choices.end()) return fault(place, told(json), takes(field));
        const auto kind = static_cast<size_t>(at - field.choices.begin());
        if (slot.kinds->now(slot.variant) != kind) slot.kinds->become(slot.variant, kind);
    }
    /// Earlier files hold what every kind begins with, whatever kind they are of.
    void value(const Json& json, const Field&, const OtherKindSlot& slot, const std::string& place);
};

/// Parses strictly: no duplicate keys, no bottomless nesting.
Json parse(std::string_view text) {
    std::vector<std::set<std::string>> keys;
    const auto watch = [&](int depth, Json::parse_event_t event, Json& parsed) {
        if (depth > deepest) throw InputError("input", "nesting deeper than " + std::to_string(deepest), "a flatter document");
        if (event == Json::parse_event_t::object_start) keys.emplace_back();
        if (event == Json::parse_event_t::object_end) keys.pop_back();
        if (event == Json::parse_event_t::key && !keys.back().insert(parsed.get<std::string>()).second)
            throw InputError(parsed.get<std::string>(), "the same name twice in one object", "it once");
        return true;
    };
    return Json::parse(text, watch);
}

/// Discarded where it is not JSON. Each kind of text that the library is handed would make its parser once more: this takes them all.
Json parse_if_json(std::string_view text) { return Json::parse(text, nullptr, false); }

std::string place_of_byte(std::string_view text, size_t byte) {
    const size_t at = std::min(byte == 0 ? 0 : byte - 1, text.size());
    const auto line = std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(at), '\n') + 1;
    const auto start = text.substr(0, at).rfind('\n');
    const size_t column = at - (start == std::string_view::npos ? 0 : start + 1) + 1;
    return "line " + std::to_string(line) + ", column " + std::to_string(column);
}

/// A fault of ours, named by its field: no such number may leave the core.
struct NotFinite : std::logic_error {
    explicit NotFinite(const std::string& where) : std::logic_error(where + " is not a finite number"), place(where) {}
    std::string place;
};

class Writer {
public:
    explicit Writer(Empty empty) : m_empty(empty) {}

    Json object(const Record& record, void* source) const {
        Json json = Json::object();
        for (const Field& field : record.fields()) put(field, source, json);
        return json;
    }

    void put(const Field& field, void* source, Json& into) const {
        bool there = true;
        Json value;
        try {
            value = std::visit([&](auto slot) { return write(field, slot, there); }, field.slot(source));
        } catch (const NotFinite& fault) {
            throw NotFinite(fault.place.empty() ? field.name : field.name + "." + fault.place);
        }
        if (there) into[field.name] = std::move(value);
    }

    template <class S>
    Json write(const Field& field, const S& slot, bool& there) const {
        if constexpr (std::is_same_v<S, KindSlot>) return field.choices[slot.kinds->now(slot.variant)];
        else if constexpr (std::is_same_v<S, OtherKindSlot>) return there = false, nullptr;
        else return write(slot, there);
    }

private:
    Empty m_empty;

    static Json write(double* value, bool&) {
        if (!std::isfinite(*value)) throw NotFinite({});
        // A whole double is written as 96 and not 96.0: the same number to every reader.
        if (*value == std::floor(*value) && std::abs(*value) < exact_integers) return static_cast<long long>(*value);
        return *value;
    }
    static Json write(long long* value, bool&) { return *value; }
    static Json write(bool* value, bool&) { return *value; }
    static Json write(std::string* value, bool&) { return *value; }
    static Json write(Count* value, bool& there) {
        there = value->present();
        return value->known() ? Json(value->value) : Json(nullptr);
    }
    static Json write(Rational* value, bool& there) {
        double nearest = value->to_double();
        if (Rational::from_decimal(nearest) == *value) return write(&nearest, there);
        return value->to_string();
    }
    template <class T>
    Json write(std::optional<T>* value, bool& there) const {
        if (*value) return write(&**value, there);
        there = m_empty == Empty::null;
        return nullptr;
    }
    static Json write(std::vector<double>* values, bool& there) {
        Json list = Json::array();
        for (double& value : *values) list.push_back(write(&value, there));
        return list;
    }
    static Json write(std::vector<long long>* values, bool&) { return *values; }
    static Json write(std::vector<std::vector<long long>>* values, bool&) { return *values; }
    static Json write(std::vector<std::string>* values, bool&) { return *values; }
    static Json write(std::vector<std::array<double, 2>>* values, bool&) { return *values; }
    static Json write(std::vector<std::vector<std::array<double, 2>>>* values, bool&) { return *values; }
    static Json write(std::map<std::string, long long>* values, bool&) { return *values; }
    static Json write(std::map<std::string, double>* values, bool&) { return *values; }
    Json write(const NestedSlot& slot, bool& there) const {
        if (slot.object) return object(*slot.record, slot.object);
        there = m_empty == Empty::null;
        return nullptr;
    }
    Json write(const ListSlot& slot, bool&) const {
        if (slot.file && slot.items.empty() && !slot.file->empty()) return *slot.file;
        Json list = Json::array();
        for (void* item : slot.items) list.push_back(object(*slot.record, item));
        return list;
    }
};

void Reader::value(const Json& json, const Field&, const OtherKindSlot& slot, const std::string& place) {
    bool there = true;
    const Json begins =
        std::visit([&](auto of) { return Writer(Empty::null).write(*slot.field, of, there); }, slot.field->slot(slot.fresh));
    if (!json.is_null() && json != begins) fault(place, told(json), "nothing here: a thing of this kind has no such figure");
}

}  // namespace

std::vector<InputError> read_json(std::string_view text, const Record& record, void* object) {
    Reader reader;
    try {
        reader.object(parse(text), record, object, "");
    } catch (const Json::parse_error& error) {
        reader.faults.emplace_back("input", "text that stops being JSON at " + place_of_byte(text, error.byte), "a complete JSON object");
    } catch (const Json::out_of_range&) {
        reader.faults.emplace_back("input", "a number too large to hold", "numbers up to about 1e308");
    } catch (const InputError& error) {
        reader.faults.push_back(error);
    }
    return std::move(reader.faults);
}

std::string write_json(const Record& record, const void* object, Empty empty) {
    // The slots are shared with reading; writing changes nothing through them.
    const Json json = Writer(empty).object(record, const_cast<void*>(object));
    return json.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

namespace {

/// What changed between two objects of one record, as operations on its JSON (RFC 6902). What is the same is not even written: an edit
/// changes one part or two, and of a list of hundreds one.
class Changes {
public:
    void object(const Record& record, void* before, void* after, const std::string& place) {
        for (const Field& field : record.fields()) {
            if (field.same(before, after)) continue;
            const Slot was = field.slot(before), is = field.slot(after);
            const auto *nested_was = std::get_if<NestedSlot>(&was), *nested_is = std::get_if<NestedSlot>(&is);
            const auto *list_was = std::get_if<ListSlot>(&was), *list_is = std::get_if<ListSlot>(&is);
            const std::string here = place + "/" + field.name;
            if (nested_was && nested_is && nested_was->object && nested_is->object)
                object(*nested_was->record, nested_was->object, nested_is->object, here);
            else if (list_was && list_is && !list_was->file && !list_is->file) list(*list_was, *list_is, here);
            else whole(field, before, after, place);
        }
    }
    const Json& patch() const { return m_patch; }

private:
    void list(const ListSlot& was, const ListSlot& is, const std::string& place) {
        const size_t both = std::min(was.items.size(), is.items.size());
        for (size_t i = 0; i < both; ++i) object(*was.record, was.items[i], is.items[i], place + "/" + std::to_string(i));
        for (size_t i = was.items.size(); i > both; --i)
            m_patch.push_back({{"op", "remove"}, {"path", place + "/" + std::to_string(i - 1)}});
        for (size_t i = both; i < is.items.size(); ++i)
            m_patch.push_back({{"op", "add"}, {"path", place + "/-"}, {"value", m_writer.object(*is.record, is.items[i])}});
    }
    /// A value that has no parts, or that comes or goes.
    void whole(const Field& field, void* before, void* after, const std::string& place) {
        Json was = Json::object(), is = Json::object();
        m_writer.put(field, before, was);
        m_writer.put(field, after, is);
        for (Json change : Json::diff(was, is)) {
            change["path"] = place + change["path"].get<std::string>();
            m_patch.push_back(std::move(change));
        }
    }
    const Writer m_writer{Empty::left_out};
    Json m_patch = Json::array();
};

}  // namespace

std::string patch_between(const Record& record, const void* before, const void* after) {
    // The slots are shared with reading; comparing changes nothing through them.
    Changes changes;
    changes.object(record, const_cast<void*>(before), const_cast<void*>(after), "");
    return changes.patch().empty() ? std::string() : changes.patch().dump(-1, ' ', false, Json::error_handler_t::replace);
}

size_t places_changed(const std::string& patch) {
    const Json all = parse_if_json(patch);
    return all.is_array() ? all.size() : 0;
}

namespace {

/// As a line of a journal was before it was a patch: {"at": place, "is": value}; without "is" the field goes.
void apply_earlier_line(Json& json, const Json& line) {
    const Json::json_pointer at(line["at"].get<std::string>());
    if (line.contains("is")) json[at] = line["is"];
    else if (json.contains(at)) json.at(at.parent_pointer()).erase(at.back());
}

}  // namespace

std::string with_patches(const std::string& document, const std::vector<std::string>& patches) {
    Json json = parse_if_json(document);
    if (json.is_discarded()) throw InputError("document", "text that is not JSON", "a whole document");
    for (size_t i = 0; i < patches.size(); ++i) {
        const Json patch = parse_if_json(patches[i]);
        const std::string place = "line " + std::to_string(i + 1);
        const bool earlier = patch.is_object() && patch.contains("at");
        if (!earlier && !patch.is_array()) {
            if (i + 1 == patches.size()) break;
            throw InputError(place, "text that is not a change", "a JSON patch (RFC 6902)");
        }
        try {
            if (earlier) apply_earlier_line(json, patch);
            else json = json.patch(patch);
        } catch (const Json::exception& error) {
            throw InputError(place, error.what(), "a place in the document");
        }
    }
    return json.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

void read_number(const Field& field, double value, void* object) {
    Reader reader;
    reader.one(Json(value), field, object, field.name);
    if (!reader.faults.empty()) throw reader.faults.front();
}

void read_word(const Field& field, std::string_view word, void* object) {
    const Slot slot = field.slot(object);
    Json json = std::string(word);
    if (std::holds_alternative<double*>(slot) || std::holds_alternative<std::optional<double>*>(slot)) {
        json = parse_reading(word, base_unit(dimension_of(field.unit)), field.name).value;
    } else if (!std::holds_alternative<std::string*>(slot) && !std::holds_alternative<std::optional<std::string>*>(slot) &&
               !std::holds_alternative<Rational*>(slot)) {
        json = parse_if_json(word);
        if (json.is_discarded()) json = std::string(word);
    }
    Reader reader;
    reader.one(json, field, object, field.name);
    if (!reader.faults.empty()) throw reader.faults.front();
}

}  // namespace echappe
