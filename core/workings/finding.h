#pragma once

#include "workings/record.h"

namespace echappe {

/// A judgement of a topic on the job. Its id says the topic, the kind and the ids of what it is about, never words: it stays when
/// sentences are reworded and arbors renamed, for what the craftsman decided hangs on it.
struct Finding {
    std::string id;        ///< "train.strain:centre_distance_mm:centre-third"
    std::string severity;  ///< "note", "caution", "fault"
    std::string sentence;
    std::string reason;
    std::string arbor;      ///< where to look
    std::string verdict;    ///< "", "accepted", "overruled"
    std::string part = {};  ///< what it is about, where that is more than an arbor: "centre.front"
    static const Record& record();
    /// Whether it is of this topic and kind: "pivots.push".
    bool is(std::string_view kind) const { return id.starts_with(kind) && (id.size() == kind.size() || id[kind.size()] == ':'); }
};

}  // namespace echappe
