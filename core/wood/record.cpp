#include "wood/record.h"

namespace echappe {

bool WoodRecord::operator==(const WoodRecord& other) const { return same(record(), this, &other); }

const Record& WoodRecord::record() {
    using In = WoodRecord;
    static const Record record = [] {
        std::vector<std::string> kinds;
        for (const WoodKind& kind : wood_kinds()) kinds.push_back(kind.id);
        const auto moisture = between(0, 200), humidity = between(0, 99), celsius = between(-1, 55);
        return Record(Fields<In>()
                          .add("wheel_wood", &In::wheel_wood, "", "of the wheels")
                          .choices(kinds)
                          .because("wheels are of fruit wood")
                          .add("plate_wood", &In::plate_wood, "", "of the plates")
                          .choices(kinds)
                          .because("plates are of oak")
                          .add("rings", &In::rings, "", "across the grain in a wheel's plane; end: sawn across the log")
                          .choices({"radial", "tangential", "end"})
                          .because("quarter-sawn stands best")
                          .add("plates", &In::plates, "", "the plates' grain along the line of centres or across it")
                          .choices({"across", "along"})
                          .because("the worse of the two")
                          .add("plate_rings", &In::plate_rings, "", "of the plates, across their grain")
                          .label("rings of the plates")
                          .choices({"radial", "tangential"})
                          .because("quarter-sawn stands best")
                          .add("made_moisture", &In::made_moisture, "%", "when the wheels were round", moisture)
                          .label("moisture when cut")
                          .add("made_humidity", &In::made_humidity, "%", "of the room then", humidity)
                          .label("humidity when cut")
                          .add("made_celsius", &In::made_celsius, "°C", "of the room then", celsius)
                          .label("warmth when cut")
                          .add("now_moisture", &In::now_moisture, "%", "as the meter reads it", moisture)
                          .label("moisture now")
                          .add("now_humidity", &In::now_humidity, "%", "of the room", humidity)
                          .label("humidity now")
                          .add("now_celsius", &In::now_celsius, "°C", "of the room", celsius)
                          .label("warmth now"));
    }();
    return record;
}

Edit<std::optional<WoodRecord>> begin_wood() {
    return {"wood", [](std::optional<WoodRecord>& record) {
                if (!record) record.emplace();
            }};
}

}  // namespace echappe
