#include <algorithm>
#include <nlohmann/json.hpp>
#include <random>
#include <vector>

#include "fuzz.h"

// Changes a JSON text as a faulty program or a careless hand would: values of another size or kind, parts missing or doubled.
// Linked to the targets that take JSON; every third time the bytes themselves are changed.

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

namespace {

using Json = nlohmann::ordered_json;

void gather(Json& node, std::vector<Json*>& nodes) {
    nodes.push_back(&node);
    if (node.is_structured())
        for (Json& child : node) gather(child, nodes);
}

Json other_number(const Json& old, std::mt19937& random) {
    static const std::vector<double> sizes = {
        0,    1,    -1,  0.5, 2,   3,     4,      1e-9, 1e-300, 1e300, 1.7e308, 1e15, 9007199254740993.0,
        -1e9, 1000, 1e6, 200, 100, 0.001, 5e-324, 90,   359,    1e-3,  47,      -0.0, 2147483648.0};
    const double value = old.is_number() ? old.get<double>() : 1;
    switch (random() % 5) {
        case 0:
            return static_cast<long long>(random() % 2000) - 10;
        case 1:
            return value * (random() % 2 ? 10 : 0.1);
        case 2:
            return -value;
        case 3:
            return value + (random() % 2 ? 1 : -1);
        default:
            return sizes[random() % sizes.size()];
    }
}

void change(Json& whole, std::mt19937& random) {
    std::vector<Json*> nodes;
    gather(whole, nodes);
    Json& node = *nodes[random() % nodes.size()];
    const Json other = *nodes[random() % nodes.size()];
    if (node.is_array() && !node.empty()) {
        const auto at = static_cast<Json::difference_type>(random() % node.size());
        switch (random() % 4) {
            case 0:
                node.erase(node.begin() + at);
                return;
            case 1:
                node.push_back(node[static_cast<std::size_t>(at)]);
                return;
            case 2:
                node = Json::array();
                return;
            default:
                std::swap(node[0], node[static_cast<std::size_t>(at)]);
                return;
        }
    }
    if (node.is_object() && !node.empty()) {
        auto at = node.begin();
        std::advance(at, static_cast<long>(random() % node.size()));
        if (random() % 2) node.erase(at);
        else at.value() = other;
        return;
    }
    if (node.is_number()) node = other_number(node, random);
    else if (node.is_string() && random() % 3) node = other.is_string() ? other : Json("");
    else node = random() % 2 ? Json() : other;
}

}  // namespace

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    std::mt19937 random(seed);
    const auto text = echappe::fuzz::text_of(data, size);
    Json json = Json::parse(text, nullptr, false);
    if (json.is_discarded() || random() % 8 == 0) return LLVMFuzzerMutate(data, size, most);
    for (unsigned changes = 1 + random() % 3; changes > 0; --changes) change(json, random);
    const std::string out = json.dump(-1, ' ', false, Json::error_handler_t::replace);
    if (out.size() > most) return LLVMFuzzerMutate(data, size, most);
    std::copy(out.begin(), out.end(), data);
    return out.size();
}
