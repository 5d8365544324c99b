#pragma once

#include <array>
#include <cmath>
#include <sstream>
#include <string>
#include <vector>

/// Corners of the polylines of a DXF's layer, read by its group codes alone; arcs are halved until their pieces are 0.02 mm.
class DxfCorners {
public:
    DxfCorners(const std::string& dxf, const std::string& layer) {
        std::istringstream lines(dxf);
        std::string code, value, own;
        bool vertex = false;
        while (std::getline(lines, code) && std::getline(lines, value)) {
            const int group = std::stoi(code);
            if (group == 0) {
                if (value.rfind("LWPOLYLINE", 0) == 0) close();
                vertex = value.rfind("VERTEX", 0) == 0 || value.rfind("LWPOLYLINE", 0) == 0;
            }
            if (group == 8) own = value.substr(0, value.find('\r'));
            if (!vertex || own != layer) continue;
            if (group == 10) m_line.push_back({std::stod(value), 0, 0});
            if (group == 20) m_line.back()[1] = std::stod(value);
            if (group == 42) m_line.back()[2] = std::stod(value);
        }
        close();
    }
    const std::vector<std::array<double, 2>>& corners() const { return m_corners; }

private:
    using Corner = std::array<double, 3>;
    void close() {
        for (size_t i = 0; i < m_line.size(); ++i) {
            m_corners.push_back({m_line[i][0], m_line[i][1]});
            halve(m_line[i], m_line[(i + 1) % m_line.size()], m_line[i][2]);
        }
        m_line.clear();
    }
    /// The middle of an arc stands off its chord's middle by the bulge's share of half the chord, to the right of the way for a left turn.
    void halve(const Corner& a, const Corner& b, double bulge) {
        const double dx = b[0] - a[0], dy = b[1] - a[1];
        if (bulge == 0 || std::hypot(dx, dy) < 0.02) return;
        const Corner middle{(a[0] + b[0]) / 2 + dy / 2 * bulge, (a[1] + b[1]) / 2 - dx / 2 * bulge, 0};
        const double half = std::tan(std::atan(bulge) / 2);
        halve(a, middle, half);
        m_corners.push_back({middle[0], middle[1]});
        halve(middle, b, half);
    }
    std::vector<Corner> m_line;
    std::vector<std::array<double, 2>> m_corners;
};
