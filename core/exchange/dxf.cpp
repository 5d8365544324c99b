#include <dxflib/dl_dxf.h>
#include <sys/mman.h>
#include <unistd.h>

#include <boost/locale/utf.hpp>
#include <iomanip>
#include <memory>
#include <sstream>
#include <stdexcept>

#include "exchange/arcs.h"
#include "number/input_error.h"

namespace echappe {
namespace {

/// A file that lives in memory only: the library writes to a path, and nothing should be left on disk.
class MemoryFile {
public:
    MemoryFile() : m_fd(memfd_create("drawing", 0)) {
        if (m_fd < 0) throw std::runtime_error("no memory for the drawing");
    }
    ~MemoryFile() { close(m_fd); }
    MemoryFile(const MemoryFile&) = delete;
    MemoryFile& operator=(const MemoryFile&) = delete;

    std::string path() const { return "/proc/self/fd/" + std::to_string(m_fd); }
    std::string text() const {
        std::string out(static_cast<size_t>(lseek(m_fd, 0, SEEK_END)), '\0');
        const bool read = pread(m_fd, out.data(), out.size(), 0) == static_cast<ssize_t>(out.size());
        // The library does not say when there was no room.
        if (!read || out.find("EOF", out.size() < 8 ? 0 : out.size() - 8) == std::string::npos)
            throw InputError("drawing", "no room to write it whole", "more memory, or a smaller part");
        return out;
    }

private:
    int m_fd;
};

const DL_Attributes continuous("", 256, 0, -1, "BYLAYER");

DL_Attributes on_layer(const std::string& name) {
    DL_Attributes attributes = continuous;
    attributes.setLayer(name);
    return attributes;
}

/// AutoCAD's colour index: black or white, blue, grey.
int colour_of_layer(DrawingLayer::Of of) { return of == DrawingLayer::Of::cut ? 7 : of == DrawingLayer::Of::mark ? 5 : 8; }

void write_header(DL_Dxf& dxf, DL_WriterA& out, const Drawing& drawing) {
    dxf.writeHeader(out);
    out.dxfString(9, "$INSUNITS");
    out.dxfInt(70, 4);  // millimetres
    out.sectionEnd();
    out.sectionTables();
    dxf.writeVPort(out);
    out.tableLinetypes(2);
    dxf.writeLinetype(out, DL_LinetypeData("BYLAYER", "BYLAYER", 0, 0, 0));
    dxf.writeLinetype(out, DL_LinetypeData("CONTINUOUS", "Continuous", 0, 0, 0));
    out.tableEnd();
    out.tableLayers(static_cast<int>(drawing.layers.size()) + 1);
    dxf.writeLayer(out, DL_LayerData("0", 0), DL_Attributes("", 7, 0, 25, "CONTINUOUS"));
    for (const DrawingLayer& layer : drawing.layers)
        dxf.writeLayer(out, DL_LayerData(layer.name, 0), DL_Attributes("", colour_of_layer(layer.of), 0, 25, "CONTINUOUS"));
    out.tableEnd();
    out.tableStyle(1);
    dxf.writeStyle(out, DL_StyleData("Standard", 0, 2.5, 1.0, 0.0, 0, 2.5, "txt", ""));
    out.tableEnd();
    dxf.writeView(out);
    dxf.writeUcs(out);
    out.tableAppid(1);
    dxf.writeAppid(out, "ACAD");
    out.tableEnd();
    dxf.writeDimStyle(out, 1, 1, 1, 1, 1);
    dxf.writeBlockRecord(out);
    out.tableEnd();
    out.sectionEnd();
    out.sectionBlocks();
    for (const char* space : {"*Model_Space", "*Paper_Space", "*Paper_Space0"}) {
        dxf.writeBlock(out, DL_BlockData(space, 0, 0, 0, 0));
        dxf.writeEndBlock(out, space);
    }
    out.sectionEnd();
}

/// What is no plain letter by its number, as every reader takes it: "Ø" is \U+00D8.
std::string plain(const std::string& words) {
    using Letters = boost::locale::utf::utf_traits<char>;
    constexpr boost::locale::utf::code_point last_plain = 0x7F;
    std::ostringstream out;
    out << std::hex << std::uppercase << std::setfill('0');
    for (auto at = words.begin(); at != words.end();) {
        const auto letter = Letters::decode(at, words.end());
        if (!boost::locale::utf::is_valid_codepoint(letter)) continue;
        if (letter <= last_plain) out << static_cast<char>(letter);
        else out << "\\U+" << std::setw(4) << letter;
    }
    return out.str();
}

void write_layer(DL_Dxf& dxf, DL_WriterA& out, const DrawingLayer& layer) {
    const DL_Attributes attributes = on_layer(layer.name);
    for (const auto& outline : layer.outlines) {
        if (const auto circle = whole_circle(outline)) {
            dxf.writeCircle(out, DL_CircleData(circle->centre[0], circle->centre[1], 0, circle->radius_mm), attributes);
            continue;
        }
        constexpr int closed = 1;
        const std::vector<Bend> bends = with_arcs(outline);
        dxf.writePolyline(out, DL_PolylineData(static_cast<int>(bends.size()), 0, 0, closed), attributes);
        for (const Bend& bend : bends) dxf.writeVertex(out, DL_VertexData(bend.at[0], bend.at[1], 0, bend.bulge));
        dxf.writePolylineEnd(out);
    }
    for (const auto& circle : layer.circles)
        dxf.writeCircle(out, DL_CircleData(circle.centre[0], circle.centre[1], 0, circle.radius_mm), attributes);
    for (const Point& p : layer.marks) {
        dxf.writeLine(out, DL_LineData(p[0] - mark_mm, p[1], 0, p[0] + mark_mm, p[1], 0), attributes);
        dxf.writeLine(out, DL_LineData(p[0], p[1] - mark_mm, 0, p[0], p[1] + mark_mm, 0), attributes);
    }
    constexpr int in_the_middle = 1, half_way_up = 2;
    for (const auto& note : layer.notes)
        dxf.writeText(out,
                      DL_TextData(note.at[0], note.at[1], 0, note.at[0], note.at[1], 0, note.high_mm, 1, 0, in_the_middle, half_way_up,
                                  plain(note.words), "Standard", 0),
                      attributes);
}

}  // namespace

std::string to_dxf(const Drawing& mixed) {
    const Drawing drawing = separated(mixed);
    const MemoryFile file;
    DL_Dxf dxf;
    {
        const std::unique_ptr<DL_WriterA> out(dxf.out(file.path().c_str(), DL_VERSION_2000));
        if (!out) throw std::runtime_error("the drawing could not be written");
        write_header(dxf, *out, drawing);
        out->sectionEntities();
        for (const DrawingLayer& layer : drawing.layers) write_layer(dxf, *out, layer);
        out->sectionEnd();
        dxf.writeObjects(*out);
        dxf.writeObjectsEnd(*out);
        out->dxfEOF();
        out->close();
    }
    return file.text();
}

}  // namespace echappe
