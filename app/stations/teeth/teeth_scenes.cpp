#include "stations/teeth/teeth_station.h"
#include "teeth/edits.h"

namespace echappe {

// Its pictures of the tour.
std::vector<Scene> TeethStation::scenes() {
    const auto looked = [this] { return !m_trial.looking(); };
    const auto lantern = [this] {
        show_blank(false);
        if (const DerivedMesh* shown = mesh())
            m_document.edit(echappe::set_form(shown->wheel_of, shown->pinion_of, shown->geometry(), {"lantern"}));
    };
    const auto tried = [this] {
        select_part(false);
        other_mesh();
        grab();
        m_trial.set_depth(-0.3);
    };
    const auto damp = [this] {
        using Wood = std::optional<WoodRecord>;
        m_document.edit(Edit<Wood>{"Reading: moisture of the wood", [](Wood& wood) { type_into_part(wood, "now_moisture", "13.6"); }});
        show_wood(true);
    };
    return {{"teeth-wheel", {}, {}, looked},
            {"teeth-blank", {}, [this] { show_blank(true); }},
            {"teeth-lantern", {}, lantern, looked, [this] { m_document.undo_stack()->undo(); }},
            {"teeth-pinion", {}, tried, looked},
            {"teeth-wood", "granary", damp, {}, [this] { show_wood(false); }}};
}

}  // namespace echappe
