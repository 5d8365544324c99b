#include <BRepBuilderAPI_MakeEdge.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakeWire.hxx>
#include <BRepCheck_Analyzer.hxx>
#include <BRepGProp.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <GC_MakeArcOfCircle.hxx>
#include <GProp_GProps.hxx>
#include <GeomAPI_PointsToBSpline.hxx>
#include <Geom_BSplineCurve.hxx>
#include <Interface_Static.hxx>
#include <Message.hxx>
#include <Message_PrinterOStream.hxx>
#include <STEPControl_Reader.hxx>
#include <STEPControl_Writer.hxx>
#include <Standard_Failure.hxx>
#include <TColgp_Array1OfPnt.hxx>
#include <TopTools_ListOfShape.hxx>
#include <TopoDS.hxx>
#include <algorithm>
#include <cmath>
#include <gp_Ax1.hxx>
#include <gp_Ax2.hxx>
#include <gp_Circ.hxx>

#include "exchange/arcs.h"
#include "exchange/step.h"
#include "exchange/step_module.h"

namespace {

using echappe::FlatPart;
using echappe::Point;
using echappe::TurnedSolid;

constexpr double corner_rad = 0.26;      ///< a sharper turn ends a spline
constexpr double longest_to_next = 3.0;  ///< a segment so much longer than its neighbour is a line of its own
constexpr double spline_tolerance_mm = 1e-4;

gp_Pnt at(const Point& p) { return {p[0], p[1], 0}; }

double length(const Point& a, const Point& b) { return std::hypot(b[0] - a[0], b[1] - a[1]); }

/// Whether a spline must not run through this point.
bool is_break(const Point& before, const Point& here, const Point& after) {
    const double in = length(before, here);
    const double out = length(here, after);
    if (in > longest_to_next * out || out > longest_to_next * in) return true;
    const double turn = std::atan2(after[1] - here[1], after[0] - here[0]) - std::atan2(here[1] - before[1], here[0] - before[0]);
    return std::abs(std::remainder(turn, 2 * M_PI)) > corner_rad;
}

/// All of it on one circle, and less than a whole turn.
bool is_arc(const std::vector<Point>& run) {
    if (run.size() < 4) return false;
    const auto circle = echappe::circle_through(run.front(), run[run.size() / 2], run.back());
    return circle && std::all_of(run.begin(), run.end(), [&](const Point& p) {
               return std::abs(length(p, circle->centre) - circle->radius_mm) < spline_tolerance_mm;
           });
}

TopoDS_Edge edge_of(const std::vector<Point>& run) {
    if (run.size() == 2) return BRepBuilderAPI_MakeEdge(at(run[0]), at(run[1]));
    if (is_arc(run)) return BRepBuilderAPI_MakeEdge(GC_MakeArcOfCircle(at(run.front()), at(run[run.size() / 2]), at(run.back())).Value());
    TColgp_Array1OfPnt points(1, static_cast<int>(run.size()));
    for (size_t i = 0; i < run.size(); ++i) points.SetValue(static_cast<int>(i) + 1, at(run[i]));
    return BRepBuilderAPI_MakeEdge(GeomAPI_PointsToBSpline(points, 3, 8, GeomAbs_C2, spline_tolerance_mm).Curve());
}

/// An arc that begins or ends with a piece of the line it meets is told from that.
void add_run(const std::vector<Point>& run, TopTools_ListOfShape& edges) {
    for (const std::ptrdiff_t before : {0, 1})
        for (const std::ptrdiff_t after : {0, 1}) {
            if (run.size() < 6) continue;
            const std::vector<Point> arc(run.begin() + before, run.end() - after);
            if (!is_arc(arc)) continue;
            if (before) edges.Append(edge_of({run[0], run[1]}));
            edges.Append(edge_of(arc));
            if (after) edges.Append(edge_of({run[run.size() - 2], run.back()}));
            return;
        }
    edges.Append(edge_of(run));
}

TopoDS_Wire wire_of(const std::vector<Point>& outline) {
    const size_t n = outline.size();
    std::vector<size_t> breaks;
    for (size_t i = 0; i < n; ++i)
        if (is_break(outline[(i + n - 1) % n], outline[i], outline[(i + 1) % n])) breaks.push_back(i);
    // A smooth ring is opened somewhere.
    if (breaks.size() < 2) breaks = {0, n / 2};
    TopTools_ListOfShape edges;
    for (size_t b = 0; b < breaks.size(); ++b) {
        std::vector<Point> run;
        const size_t end = breaks[(b + 1) % breaks.size()];
        for (size_t i = breaks[b];; i = (i + 1) % n) {
            run.push_back(outline[i]);
            if (i == end && run.size() > 1) break;
        }
        add_run(run, edges);
    }
    BRepBuilderAPI_MakeWire wire;
    wire.Add(edges);
    return wire.Wire();
}

TopoDS_Shape solid_of(const FlatPart& part) {
    BRepBuilderAPI_MakeFace face(wire_of(part.outline));
    const auto cut = [&](TopoDS_Wire wire) {
        wire.Reverse();
        face.Add(wire);
    };
    for (const auto& opening : part.openings) cut(wire_of(opening));
    for (const auto& hole : part.holes) {
        const gp_Circ circle(gp_Ax2(at(hole.centre), gp_Dir(0, 0, 1)), hole.radius_mm);
        cut(BRepBuilderAPI_MakeWire(BRepBuilderAPI_MakeEdge(circle)));
    }
    return BRepPrimAPI_MakePrism(face.Face(), gp_Vec(0, 0, part.thickness_mm)).Shape();
}

/// Round the x axis; straight lines only.
TopoDS_Shape solid_of(const TurnedSolid& part) {
    BRepBuilderAPI_MakeWire wire;
    for (size_t i = 0; i < part.half.size(); ++i)
        wire.Add(BRepBuilderAPI_MakeEdge(at(part.half[i]), at(part.half[(i + 1) % part.half.size()])));
    const BRepBuilderAPI_MakeFace face(wire.Wire());
    return BRepPrimAPI_MakeRevol(face.Face(), gp_Ax1(gp_Pnt(0, 0, 0), gp_Dir(1, 0, 0))).Shape();
}

void be_quiet() { Message::DefaultMessenger()->RemovePrinters(STANDARD_TYPE(Message_PrinterOStream)); }

/// The sentence of a fault, empty when it was written.
template <class Part>
std::string write_solid(const Part& part, const std::string& path) {
    be_quiet();
    try {
        const TopoDS_Shape solid = solid_of(part);
        if (!BRepCheck_Analyzer(solid).IsValid()) return "the outline does not make a sound solid";
        STEPControl_Writer writer;
        Interface_Static::SetCVal("write.step.unit", "MM");
        Interface_Static::SetCVal("write.step.product.name", part.title.c_str());
        if (writer.Transfer(solid, STEPControl_AsIs) != IFSelect_RetDone || writer.Write(path.c_str()) != IFSelect_RetDone)
            return "the file could not be written";
        return {};
    } catch (const Standard_Failure& failure) {
        return std::string("the solid modeller gave up: ") + failure.GetMessageString();
    }
}

}  // namespace

extern "C" __attribute__((visibility("default"))) void echappe_step_write(const FlatPart& part, const std::string& path,
                                                                          std::string& fault) {
    fault = write_solid(part, path);
}

extern "C" __attribute__((visibility("default"))) void echappe_step_turn(const TurnedSolid& part, const std::string& path,
                                                                         std::string& fault) {
    fault = write_solid(part, path);
}

extern "C" __attribute__((visibility("default"))) double echappe_step_volume(const std::string& path) {
    be_quiet();
    try {
        STEPControl_Reader reader;
        if (reader.ReadFile(path.c_str()) != IFSelect_RetDone || reader.TransferRoots() < 1) return 0;
        GProp_GProps properties;
        BRepGProp::VolumeProperties(reader.OneShape(), properties);
        return properties.Mass();
    } catch (const Standard_Failure&) {
        return 0;
    }
}
