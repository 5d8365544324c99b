#include "bench/cautions.h"

#include <nlohmann/json.hpp>

#include "bench/shipped_json.h"
#include "workings/found.h"

namespace echappe {

const std::vector<Caution>& cautions() {
    static const std::vector<Caution> all = [] {
        std::vector<Caution> out;
        const auto json = nlohmann::json::parse(cautions_json);
        for (const auto& row : json["cautions"]) out.push_back({row["id"], row["name"], row["why"], row["do"]});
        return out;
    }();
    return all;
}

const Caution* caution(const std::string& id) {
    return found(cautions(), [&](const Caution& one) { return one.id == id; });
}

}  // namespace echappe
