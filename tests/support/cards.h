#pragma once

#include <catch2/catch.hpp>

#include "job/derived.h"
#include "support/demo.h"
#include "topic.h"
#include "train/edits.h"

/// The regulator with its lost arbor decided: 90 and 12.
inline echappe::Job decided() {
    echappe::Job job = demo::measured_job();
    echappe::choose(echappe::derive(job).train, 0, "2026-11-30").change(job.train);
    return job;
}

inline const echappe::DerivedCard& card(const echappe::Derived& derived, const std::string& id) {
    const echappe::DerivedCard* found = derived.cards.card(id);
    INFO(id);
    REQUIRE(found);
    return *found;
}
