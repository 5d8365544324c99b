// The tables of causes, symptoms and tests: read, checked, and read over each other.
#include <cmath>
#include <nlohmann/json.hpp>

#include "bench/diagnosis.h"
#include "bench/shipped_json.h"
#include "number/input_error.h"
#include "number/units.h"
#include "workings/found.h"

namespace echappe {
namespace {

using Json = nlohmann::json;

[[noreturn]] void refuse(const std::string& place, const std::string& got, const std::string& takes) {
    throw InputError(place, got, takes);
}

std::string word(const Json& row, const char* field, const std::string& place, bool needed = false) {
    if (!row.contains(field)) {
        if (needed) refuse(place + "." + field, "nothing", "a word");
        return {};
    }
    if (!row[field].is_string()) refuse(place + "." + field, row[field].dump(), "a word");
    return row[field].get<std::string>();
}

double number(const Json& row, const char* field, const std::string& place, double most) {
    if (!row.contains(field) || !row[field].is_number())
        refuse(place + "." + field, row.contains(field) ? row[field].dump() : "nothing", "a number");
    const double value = row[field].get<double>();
    if (!(value >= 0 && value <= most)) refuse(place + "." + field, print_short(value), "a number from 0 to " + print_short(most));
    return value;
}

std::map<std::string, double> chances(const Json& row, const std::string& place, const DiagnosisTables& tables) {
    std::map<std::string, double> out;
    if (!row.contains("given")) return out;
    if (!row["given"].is_object()) refuse(place + ".given", row["given"].dump().substr(0, 40), "causes with their chances");
    for (const auto& [cause, chance] : row["given"].items()) {
        if (!tables.cause(cause)) refuse(place + ".given", "\"" + cause + "\"", "a cause of the table");
        out[cause] = number(row["given"], cause.c_str(), place + ".given", 1);
    }
    return out;
}

template <class Row>
void put(std::vector<Row>& rows, Row row) {
    for (Row& one : rows)
        if (one.id == row.id) {
            one = std::move(row);
            return;
        }
    rows.push_back(std::move(row));
}

DiagnosisCause cause_of(const Json& row, const std::string& place) {
    DiagnosisCause out;
    out.id = word(row, "id", place, true), out.words = word(row, "words", place, true), out.prior = number(row, "prior", place, 1);
    out.station = word(row, "station", place), out.why = word(row, "why", place), out.mend = word(row, "mend", place);
    if (row.contains("undo")) {
        if (!row["undo"].is_boolean()) refuse(place + ".undo", row["undo"].dump(), "true or false");
        out.undo = row["undo"].get<bool>();
    }
    if (row.contains("only"))
        for (const auto& [key, values] : row["only"].items()) {
            if (!values.is_array()) refuse(place + ".only", values.dump(), "words in a list");
            for (const Json& value : values) out.only[key].push_back(value.get<std::string>());
        }
    return out;
}

DiagnosisTest test_of(const Json& row, const std::string& place, const DiagnosisTables& tables) {
    DiagnosisTest out;
    out.id = word(row, "id", place, true), out.words = word(row, "words", place, true), out.how = word(row, "how", place);
    out.minutes = number(row, "minutes", place, 1e5), out.station = word(row, "station", place);
    out.apart = word(row, "apart", place);
    if (!out.apart.empty() && out.apart != "hands" && out.apart != "pallets" && out.apart != "plates")
        refuse(place + ".apart", "\"" + out.apart + "\"", "hands, pallets or plates; nothing, where nothing must come apart");
    if (!row.contains("results") || !row["results"].is_array() || row["results"].size() < 2)
        refuse(place + ".results", "fewer than two", "what may come of it");
    for (const Json& one : row["results"]) {
        DiagnosisResult result;
        result.id = word(one, "id", place, true), result.words = word(one, "words", place),
        result.otherwise = number(one, "otherwise", place, 1);
        result.given = chances(one, place, tables);
        out.results.push_back(std::move(result));
    }
    const auto sums_to_one = [&](const std::string& cause) {
        double sum = 0;
        for (const DiagnosisResult& result : out.results) {
            const auto at = result.given.find(cause);
            sum += at == result.given.end() ? result.otherwise : at->second;
        }
        constexpr double written = 1e-3;
        if (std::abs(sum - 1) > written)
            refuse(place + ".results", "chances that add up to " + print_short(sum) + (cause.empty() ? "" : " for " + cause), "1 in all");
    };
    sums_to_one("");
    for (const DiagnosisCause& cause : tables.causes) sums_to_one(cause.id);
    return out;
}

void read_into(const Json& json, DiagnosisTables& out) {
    const auto rows = [&](const char* list, const auto& take) {
        if (!json.contains(list)) return;
        if (!json[list].is_array()) refuse(list, json[list].dump().substr(0, 40), "a list");
        for (size_t i = 0; i < json[list].size(); ++i) {
            const std::string place = std::string(list) + "[" + std::to_string(i) + "]";
            if (!json[list][i].is_object()) refuse(place, json[list][i].dump().substr(0, 40), "a row with its fields");
            take(json[list][i], place);
        }
    };
    rows("causes", [&](const Json& row, const std::string& place) { put(out.causes, cause_of(row, place)); });
    rows("symptoms", [&](const Json& row, const std::string& place) {
        put(out.symptoms, DiagnosisSymptom{word(row, "id", place, true), word(row, "words", place, true), chances(row, place, out),
                                           number(row, "otherwise", place, 1)});
    });
    rows("tests", [&](const Json& row, const std::string& place) { put(out.tests, test_of(row, place, out)); });
}

}  // namespace

const DiagnosisCause* DiagnosisTables::cause(const std::string& id) const {
    return found(causes, [&](const DiagnosisCause& one) { return one.id == id; });
}
const DiagnosisSymptom* DiagnosisTables::symptom(const std::string& id) const {
    return found(symptoms, [&](const DiagnosisSymptom& one) { return one.id == id; });
}
const DiagnosisTest* DiagnosisTables::test(const std::string& id) const {
    return found(tests, [&](const DiagnosisTest& one) { return one.id == id; });
}

DiagnosisTables diagnosis_from_json(const std::string& text, DiagnosisTables over) {
    try {
        read_into(Json::parse(std::string_view(text)), over);
    } catch (const Json::exception& error) {
        throw InputError("tables", error.what(), "JSON with causes, symptoms and tests");
    }
    return over;
}

const DiagnosisTables& shipped_diagnosis() {
    static const DiagnosisTables tables = diagnosis_from_json(diagnosis_json);
    return tables;
}

}  // namespace echappe
