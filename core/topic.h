#pragma once

#include <set>
#include <type_traits>

#include "job/derived.h"
#include "power/drive_pull.h"
#include "power/winding.h"
#include "stock/stock.h"

namespace echappe {

/// What may spare or add to the work of deriving; the result is the same for the same job and stock.
struct DeriveAids {
    const WeighedTrain* weighed = nullptr;  ///< an answer to a question too long for typing
    const Stock* stock = nullptr;           ///< the workshop's drawers: without them no bush is chosen
    const Job* job_before = nullptr;        ///< with what it gave
    Derived* before = nullptr;              ///< spent: what still holds is moved out of it
    bool same_stock = false;                ///< the drawers are those of before
};

/// One pass over the topics: gives each derivation the parameters that it names, and knows which of them still stand.
class Deriving {
public:
    Deriving(const Job& job, const DeriveAids& aids, Derived& out) : m_job(job), m_aids(aids), m_out(out) {}

    template <class P>
    decltype(auto) given();
    /// Whether a parameter of this type is what it was before.
    template <class P>
    bool stands();
    /// Where the derivation of this type is kept.
    template <class D>
    static D& kept(Derived& derived, const std::string& id);

    const Job& job() const { return m_job; }
    const DeriveAids& aids() const { return m_aids; }
    Derived& out() { return m_out; }
    void worked_anew(const void* derivation) { m_anew.insert(derivation); }

private:
    template <class P>
    const P& part(const Job& job) const;
    template <class P>
    bool same_part();

    const Job& m_job;
    const DeriveAids& m_aids;
    Derived& m_out;
    std::set<const void*> m_anew;
    std::map<std::pair<const void*, const MemberType*>, bool> m_same;  ///< parts of the job that were compared
};

/// What a topic offers, without its types.
struct Topic {
    std::string id;
    std::string words;  ///< "The … cannot be worked out."
    std::function<void(Deriving&, const std::string& id)> derive;
    std::function<std::vector<Finding>(Deriving&)> findings;
};

/// In the order in which they are derived.
const std::vector<Topic>& topics();
/// Adds a topic whose part of the job and of the derivation have no member: they are kept under its id, in the file and in the
/// report too.
template <class D, class R, class... P>
void register_topic(const std::string& id, const std::string& words, D (*derive)(const R&, P...),
                    std::function<std::vector<Finding>(Deriving&)> findings = {});

/// Derives what an edit touched anew and keeps the rest: what a topic reads is in the signature of its derivation. What throws in
/// one topic leaves the others derived.
Derived derive(const Job& job, const DeriveAids& aids = {});

// ---- below: how a row is made of a derivation ----

/// Where a part of the job, or a derivation, has a member of its own; else it is kept under the id of its topic.
template <class P>
inline constexpr std::nullptr_t member_of{};
template <>
inline constexpr auto member_of<TrainRecord> = &Job::train;
template <>
inline constexpr auto member_of<TeethRecord> = &Job::teeth;
template <>
inline constexpr auto member_of<MakingRecord> = &Job::making;
template <>
inline constexpr auto member_of<SurveyRecord> = &Job::survey;
template <>
inline constexpr auto member_of<PowerRecord> = &Job::power;
template <>
inline constexpr auto member_of<std::optional<OscillatorRecord>> = &Job::oscillator;
template <>
inline constexpr auto member_of<std::optional<PalletsRecord>> = &Job::pallets;
template <>
inline constexpr auto member_of<std::optional<StrikeRecord>> = &Job::strike;
template <>
inline constexpr auto member_of<DerivedStrike> = &Derived::strike;
template <>
inline constexpr auto member_of<std::optional<AlarmRecord>> = &Job::alarm;
template <>
inline constexpr auto member_of<DerivedStrikeTrain> = &Derived::strike_train;
template <>
inline constexpr auto member_of<DerivedAlarm> = &Derived::alarm;
template <>
inline constexpr auto member_of<std::optional<HandsRecord>> = &Job::hands;
template <>
inline constexpr auto member_of<DerivedHands> = &Derived::hands;
template <>
inline constexpr auto member_of<CardsRecord> = &Job::cards;
template <>
inline constexpr auto member_of<BenchRecord> = &Job::bench;
template <>
inline constexpr auto member_of<DerivedCards> = &Derived::cards;
template <>
inline constexpr auto member_of<std::optional<WoodRecord>> = &Job::wood;
template <>
inline constexpr auto member_of<DerivedWood> = &Derived::wood;
template <>
inline constexpr auto member_of<DerivedEscapement> = &Derived::escapement;
template <>
inline constexpr auto member_of<RateLog> = &Job::rate_log;
template <>
inline constexpr auto member_of<LengthUnit> = &Job::length;
template <>
inline constexpr auto member_of<DerivedTrain> = &Derived::train;
template <>
inline constexpr auto member_of<DerivedMaking> = &Derived::making;
template <>
inline constexpr auto member_of<DerivedOscillator> = &Derived::oscillator;
template <>
inline constexpr auto member_of<DerivedBeat> = &Derived::beat;
template <>
inline constexpr auto member_of<DerivedPivots> = &Derived::pivots;
template <>
inline constexpr auto member_of<DerivedPower> = &Derived::power;
template <>
inline constexpr auto member_of<DerivedSurvey> = &Derived::survey;

template <class P>
concept PartOfJob = requires(const Job& job) {
    job.*member_of<P>;
};
template <class P>
concept Derivation = requires(Derived& derived) {
    derived.*member_of<P>;
};

template <class P>
const P& Deriving::part(const Job& job) const {
    if constexpr (PartOfJob<P>) {
        return job.*member_of<P>;
    } else if constexpr (std::is_same_v<P, PivotsRecord>) {
        return job.survey.pivots;
    } else {
        static const P none;
        const P* found = job.others.find<P>();
        return found ? *found : none;
    }
}

template <class D>
D& Deriving::kept(Derived& derived, const std::string& id) {
    if constexpr (Derivation<D>) return derived.*member_of<D>;
    else return *derived.others.all.try_emplace(id, Part::of<D>()).first->second.template as<D>();
}

template <class P>
bool Deriving::same_part() {
    if (!m_aids.before || !m_aids.job_before) return false;
    const P& now = part<P>(m_job);
    const P& was = part<P>(*m_aids.job_before);
    const auto [at, fresh] = m_same.try_emplace({&now, &member_type<P>()}, false);
    if (fresh) at->second = member_type<P>().same(&now, &was);
    return at->second;
}

template <class T>
struct EarlierOf;
template <class T>
struct EarlierOf<Earlier<T>> {
    using type = T;
};

template <class P>
decltype(auto) Deriving::given() {
    if constexpr (Derivation<P>) {
        return static_cast<const P&>(kept<P>(m_out, {}));
    } else if constexpr (std::is_same_v<P, const WeighedTrain*>) {
        return m_aids.weighed;
    } else if constexpr (std::is_same_v<P, StrikingTrain>) {
        return striking_train(m_job.strike);
    } else if constexpr (std::is_same_v<P, BeatsWanted>) {
        return BeatsWanted{m_out.train.beats_per_hour};
    } else if constexpr (std::is_same_v<P, EscapeWheel>) {
        return escape_wheel_of(m_job.train, m_out.train);
    } else if constexpr (std::is_same_v<P, BushedBefore>) {
        return bushed_before(m_job.survey);
    } else if constexpr (std::is_same_v<P, DrivePulls>) {
        return drive_pulls(m_job.train, m_job.power);
    } else if constexpr (std::is_same_v<P, Windings>) {
        return windings(m_job.train, m_job.power);
    } else if constexpr (std::is_same_v<P, WorkshopHead>) {
        return WorkshopHead{m_aids.stock ? m_aids.stock->head() : std::nullopt};
    } else if constexpr (std::is_same_v<P, Stores>) {
        return m_aids.stock ? m_aids.stock->stores() : Stores();
    } else if constexpr (std::is_same_v<P, BushDrawer>) {
        return m_aids.stock ? BushDrawer{&m_aids.stock->bushes, m_aids.stock->reamer_sizes(), m_aids.same_stock}
                            : BushDrawer{{}, {}, m_aids.same_stock};
    } else if constexpr (requires { typename EarlierOf<P>::type; }) {
        using D = typename EarlierOf<P>::type;
        if (!m_aids.before) return P{};
        return P{&kept<D>(*m_aids.before, {}), stands<TrainRecord>() && stands<DerivedTrain>()};
    } else {
        return part<P>(m_job);
    }
}

template <class P>
bool Deriving::stands() {
    if constexpr (Derivation<P>) return m_aids.before && !m_anew.contains(&kept<P>(m_out, {}));
    else if constexpr (std::is_same_v<P, const WeighedTrain*>) return m_aids.before && !(m_aids.before->train.to_weigh && m_aids.weighed);
    else if constexpr (std::is_same_v<P, StrikingTrain>)
        return m_aids.job_before && striking_train(m_job.strike) == striking_train(m_aids.job_before->strike);
    else if constexpr (std::is_same_v<P, BeatsWanted>) return stands<DerivedTrain>();
    else if constexpr (std::is_same_v<P, EscapeWheel>) {
        if (!m_aids.before || !m_aids.job_before) return false;
        // Where the train stands, its derivation was moved out of what was before.
        if (stands<TrainRecord>() && stands<DerivedTrain>()) return true;
        return escape_wheel_of(m_job.train, m_out.train) == escape_wheel_of(m_aids.job_before->train, m_aids.before->train);
    } else if constexpr (std::is_same_v<P, BushedBefore>) return same_part<SurveyRecord>();
    else if constexpr (std::is_same_v<P, DrivePulls>) return same_part<TrainRecord>() && same_part<PowerRecord>();
    else if constexpr (std::is_same_v<P, Windings>)
        return m_aids.job_before && windings(m_job.train, m_job.power) == windings(m_aids.job_before->train, m_aids.job_before->power);
    else if constexpr (std::is_same_v<P, BushDrawer> || std::is_same_v<P, WorkshopHead> || std::is_same_v<P, Stores>)
        return m_aids.before && m_aids.same_stock;
    else if constexpr (requires { typename EarlierOf<P>::type; }) return m_aids.before != nullptr;
    else return same_part<P>();
}

/// A row: derived anew when one of the parameters does not stand, else kept with what was said of it.
template <class D, class... P>
std::function<void(Deriving&, const std::string&)> derived_by(D (*derive)(P...)) {
    return [derive](Deriving& pass, const std::string& id) {
        D& out = Deriving::kept<D>(pass.out(), id);
        if ((pass.stands<std::remove_cvref_t<P>>() && ...)) {
            D& before = Deriving::kept<D>(*pass.aids().before, id);
            out = std::move(before);
            for (const TopicFault& fault : pass.aids().before->faults)
                if (fault.topic == id) pass.out().faults.push_back(fault);
            return;
        }
        pass.worked_anew(&out);
        try {
            out = derive(pass.given<std::remove_cvref_t<P>>()...);
        } catch (const std::exception& error) {
            out = {};
            pass.out().faults.push_back({id, error.what()});
        }
    };
}

template <class... P>
std::function<std::vector<Finding>(Deriving&)> found_by(std::vector<Finding> (*findings)(P...)) {
    return [findings](Deriving& pass) { return findings(pass.given<std::remove_cvref_t<P>>()...); };
}

void add_topic(Topic topic, Part in_job, Part derived);

template <class D, class R, class... P>
void register_topic(const std::string& id, const std::string& words, D (*derive)(const R&, P...),
                    std::function<std::vector<Finding>(Deriving&)> findings) {
    add_topic({id, words, derived_by(derive), std::move(findings)}, Part::of<R>(), Part::of<D>());
}

}  // namespace echappe
