#include "stations/teeth/stock_sheet.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QMessageBox>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "drawing/words.h"
#include "number/constants.h"
#include "number/input_error.h"
#include "teeth/form.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr QSize icon_size(44, 30);
constexpr double px_per_mm = 12;

/// The table as the CSV it stands for: the list's own reader then finds every fault.
std::string csv_of(const QTableWidget& table) {
    const auto quoted = [](QString word) { return "\"" + word.replace("\"", "\"\"").replace("\n", " ").toStdString() + "\""; };
    std::string text;
    for (int c = 0; c < table.columnCount(); ++c)
        text += (c ? "," : "") + table.horizontalHeaderItem(c)->data(Qt::UserRole).toString().toStdString();
    for (int r = 0; r < table.rowCount(); ++r) {
        text += "\n";
        for (int c = 0; c < table.columnCount(); ++c)
            text += (c ? "," : "") + quoted(table.item(r, c) ? table.item(r, c)->text().trimmed() : QString());
    }
    return text + "\n";
}

/// The gap a cutter leaves, all to one scale.
QPixmap gap_of(const Cutter& cutter) {
    QPixmap picture(icon_size);
    picture.fill(Qt::transparent);
    const bool wheel = cutter.part == "wheel";
    const long long leaves = cutter.leaves_min.value_or(8);
    MeshForms forms;
    try {
        forms = mesh_forms({60, leaves, cutter.module_mm, {cutter.school}}, false, 12);
    } catch (const InputError&) {
        return picture;
    }
    const ToothForm& form = wheel ? forms.wheel : forms.pinion;
    if (form.half.empty()) return picture;
    const double half_pitch = pi / static_cast<double>(form.count);
    QPolygonF gap;
    for (const double side : {-1.0, 1.0}) {
        std::vector<QPointF> flank;
        constexpr int steps = 24;
        for (int i = 0; i <= steps; ++i) {
            const double r = form.root_radius() + (form.addendum + form.dedendum) * i / steps * 0.999;
            const double angle = side * (half_pitch - half_angle_at(form, r));
            flank.emplace_back(r * std::sin(angle), -(r * std::cos(angle) - form.root_radius()));
        }
        if (side > 0)
            for (auto& p : flank) gap << p;
        else
            for (auto p = flank.rbegin(); p != flank.rend(); ++p) gap << *p;
    }
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(icon_size.width() / 2.0, icon_size.height() - 3.0);
    const double scale = std::min(px_per_mm * cutter.module_mm, 9.0);
    painter.scale(scale, scale);
    QPen pen(wheel ? inks(painter).brass : inks(painter).steel, 1.2);
    pen.setCosmetic(true);
    painter.setPen(pen);
    painter.setBrush(wheel ? inks(painter).pale_brass : inks(painter).rule);
    painter.drawPolygon(gap);
    return picture;
}

/// A bush from its end, all to one scale.
QPixmap face_of(const Bush& bush) {
    QPixmap picture(icon_size);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    painter.setRenderHint(QPainter::Antialiasing);
    constexpr double px_a_mm = 4;
    const QPointF middle(icon_size.width() / 2.0, icon_size.height() / 2.0);
    painter.setPen(QPen(inks(painter).brass, 1));
    painter.setBrush(inks(painter).pale_brass);
    const double radius = std::min(bush.outside_mm / 2 * px_a_mm, icon_size.height() / 2.0 - 1);
    painter.drawEllipse(middle, radius, radius);
    painter.setBrush(inks(painter).sheet);
    painter.drawEllipse(middle, radius * bush.bore_mm / bush.outside_mm, radius * bush.bore_mm / bush.outside_mm);
    return picture;
}

/// A column's name in the file as it is said at the bench.
QString heading(QString column) {
    if (column.endsWith("_mm")) column = column.chopped(3) + ", mm";
    if (column.endsWith("_m")) column = column.chopped(2) + ", modules";
    if (column == "leaves_min") column = "from";
    if (column == "leaves_max") column = "to leaves";
    return column.replace('_', ' ');
}

QString text_of(const std::optional<long long>& n) { return n ? QString::number(*n) : QString(); }

void put_row(QTableWidget& table, int row, const QStringList& words) {
    for (int c = 0; c < words.size(); ++c) table.setItem(row, c, new QTableWidgetItem(words[c]));
}

}  // namespace

StockSheet::StockSheet(Workshop& workshop, QWidget* parent)
    : QDialog(parent),
      m_workshop(workshop),
      m_tabs(new QTabWidget),
      m_cutters(make_table(words("Cutters"), {"id", "part", "school", "module_mm", "leaves_min", "leaves_max", "quantity", "note"})),
      m_plates(make_table(words("Dividing plates"), {"id", "worm_ratio", "circles"})),
      m_leaves(make_table(words("Watch leaves"), {"id", "addendum_m", "thickness_m", "tip_radius_m", "note"})),
      m_bushes(make_table(words("Bushes"), {"id", "bore_mm", "outside_mm", "height_mm", "quantity"})),
      m_reamers(make_table(words("Reamers"), {"id", "diameter_mm"})),
      m_strips(make_table(words("Mainspring strip"), {"id", "width_mm", "thickness_mm", "length_mm", "end", "quantity"})),
      m_metal(make_table(words("Metal and wood"), {"id", "form", "material", "size_mm", "width_mm", "length_mm", "price"})),
      m_tools(make_table(words("Tools and supplies"), {"id", "kind", "size", "quantity", "price"})),
      m_said(new QLabel) {
    setWindowTitle(words("The workshop's drawers"));
    resize(820, 520);
    m_cutters->setIconSize(icon_size);
    m_bushes->setIconSize(icon_size);
    m_said->setWordWrap(true);
    m_said->setAccessibleName(words("what the list says"));
    auto* more = new QPushButton(words("One more row"));
    auto* less = new QPushButton(words("Take the row out"));
    auto* shipped = new QPushButton(words("Shipped bushes: fitted"));
    auto* numbered = new QPushButton(words("numbered"));
    for (auto* button : {more, less, shipped, numbered}) button->setAutoDefault(false);
    connect(shipped, &QPushButton::clicked, this, [this] { take_shipped_bushes(false); });
    connect(numbered, &QPushButton::clicked, this, [this] { take_shipped_bushes(true); });
    const auto of_bushes = [this, shipped, numbered] {
        for (auto* button : {shipped, numbered}) button->setVisible(m_tabs->currentWidget() == m_bushes);
    };
    connect(m_tabs, &QTabWidget::currentChanged, this, of_bushes);
    of_bushes();
    connect(more, &QPushButton::clicked, this, &StockSheet::add_row);
    connect(less, &QPushButton::clicked, this, &StockSheet::remove_row);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(m_said, 1);
    buttons->addWidget(shipped);
    buttons->addWidget(numbered);
    buttons->addWidget(more);
    buttons->addWidget(less);
    auto* all = new QVBoxLayout(this);
    all->addWidget(m_tabs);
    all->addLayout(buttons);
    fill();
    // Written by another window or an editor: what stands here is not old, and what is being typed stays.
    connect(&m_workshop, &Workshop::changed, this, [this] {
        if (!m_keeping && m_all_kept) fill();
    });
}

QTableWidget* StockSheet::make_table(const QString& name, const QStringList& columns) {
    auto* table = new QTableWidget(0, static_cast<int>(columns.size()));
    for (int c = 0; c < columns.size(); ++c) {
        auto* item = new QTableWidgetItem(heading(columns[c]));
        item->setData(Qt::UserRole, columns[c]);
        table->setHorizontalHeaderItem(c, item);
    }
    table->verticalHeader()->hide();
    table->verticalHeader()->setDefaultSectionSize(34);
    table->horizontalHeader()->setStretchLastSection(true);
    table->setShowGrid(false);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    table->setAccessibleName(name);
    m_tabs->addTab(table, name);
    connect(table, &QTableWidget::cellChanged, this, [this] { keep(); });
    return table;
}

void StockSheet::fill() {
    m_filling = true;
    m_shown = m_workshop.stock();
    const Stock& stock = m_shown;
    const auto figure = [](double x) { return QString::number(x, 'g', 8); };
    m_cutters->setRowCount(static_cast<int>(stock.cutters.size()));
    for (int r = 0; r < m_cutters->rowCount(); ++r) {
        const Cutter& c = stock.cutters[static_cast<size_t>(r)];
        put_row(*m_cutters, r,
                {QString::fromStdString(c.id), QString::fromStdString(c.part), QString::fromStdString(c.school), figure(c.module_mm),
                 text_of(c.leaves_min), text_of(c.leaves_max), QString::number(c.quantity), QString::fromStdString(c.note)});
        m_cutters->item(r, 0)->setIcon(gap_of(c));
    }
    m_plates->setRowCount(static_cast<int>(stock.plates.size()));
    for (int r = 0; r < m_plates->rowCount(); ++r) {
        const StockPlate& p = stock.plates[static_cast<size_t>(r)];
        QStringList circles;
        for (const long long circle : p.circles) circles << QString::number(circle);
        put_row(*m_plates, r, {QString::fromStdString(p.id), QString::number(p.worm_ratio), circles.join(' ')});
    }
    m_leaves->setRowCount(static_cast<int>(stock.leaves.size()));
    for (int r = 0; r < m_leaves->rowCount(); ++r) {
        const StockLeaf& l = stock.leaves[static_cast<size_t>(r)];
        put_row(*m_leaves, r,
                {QString::fromStdString(l.id), figure(l.shape.addendum_m), figure(l.shape.thickness_m), figure(l.shape.tip_radius_m),
                 QString::fromStdString(l.note)});
    }
    fill_pivot_drawers(stock);
    fill_stores(stock);
    m_cutters->resizeColumnsToContents();
    m_plates->resizeColumnsToContents();
    m_leaves->resizeColumnsToContents();
    m_filling = false;
    if (m_said->text().isEmpty()) m_said->setText(words("Kept in %1").arg(Workshop::folder()));
}

void StockSheet::fill_pivot_drawers(const Stock& stock) {
    const auto figure = [](double x) { return QString::number(x, 'g', 8); };
    m_bushes->setRowCount(static_cast<int>(stock.bushes.size()));
    for (int r = 0; r < m_bushes->rowCount(); ++r) {
        const Bush& b = stock.bushes[static_cast<size_t>(r)];
        put_row(*m_bushes, r,
                {QString::fromStdString(b.id), figure(b.bore_mm), figure(b.outside_mm), figure(b.height_mm), QString::number(b.quantity)});
        m_bushes->item(r, 0)->setIcon(face_of(b));
    }
    m_reamers->setRowCount(static_cast<int>(stock.reamers.size()));
    for (int r = 0; r < m_reamers->rowCount(); ++r) {
        const Reamer& reamer = stock.reamers[static_cast<size_t>(r)];
        put_row(*m_reamers, r, {QString::fromStdString(reamer.id), figure(reamer.diameter_mm)});
    }
    m_bushes->resizeColumnsToContents();
    m_strips->setRowCount(static_cast<int>(stock.strips.size()));
    for (int r = 0; r < m_strips->rowCount(); ++r) {
        const Strip& s = stock.strips[static_cast<size_t>(r)];
        put_row(*m_strips, r,
                {QString::fromStdString(s.id), figure(s.width_mm), figure(s.thickness_mm), figure(s.length_mm),
                 QString::fromStdString(s.end), QString::number(s.quantity)});
    }
}

void StockSheet::fill_stores(const Stock& stock) {
    const auto figure = [](double x) { return QString::number(x, 'g', 8); };
    const auto price = [&](const std::optional<double>& x) { return x ? figure(*x) : QString(); };
    m_metal->setRowCount(static_cast<int>(stock.metal.size()));
    for (int r = 0; r < m_metal->rowCount(); ++r) {
        const Bar& b = stock.metal[static_cast<size_t>(r)];
        put_row(*m_metal, r,
                {QString::fromStdString(b.id), QString::fromStdString(b.form), QString::fromStdString(b.material), figure(b.size_mm),
                 b.width_mm > 0 ? figure(b.width_mm) : QString(), figure(b.length_mm), price(b.price)});
    }
    m_tools->setRowCount(static_cast<int>(stock.tools.size()));
    for (int r = 0; r < m_tools->rowCount(); ++r) {
        const ToolInDrawer& t = stock.tools[static_cast<size_t>(r)];
        put_row(*m_tools, r,
                {QString::fromStdString(t.id), QString::fromStdString(t.kind), QString::fromStdString(t.size), QString::number(t.quantity),
                 price(t.price)});
    }
    m_metal->resizeColumnsToContents();
    m_tools->resizeColumnsToContents();
}

void StockSheet::take_shipped_bushes(bool numbered) {
    m_workshop.change([&](Stock& stock) { stock.bushes = Workshop::shipped_bushes(numbered); });
    fill();
}

void StockSheet::keep() {
    if (m_filling) return;
    try {
        const Stock typed{cutters_from_csv(csv_of(*m_cutters)), plates_from_csv(csv_of(*m_plates)),   leaves_from_csv(csv_of(*m_leaves)),
                          bushes_from_csv(csv_of(*m_bushes)),   reamers_from_csv(csv_of(*m_reamers)), strips_from_csv(csv_of(*m_strips)),
                          metal_from_csv(csv_of(*m_metal)),     tools_from_csv(csv_of(*m_tools)),     m_shown.times};
        m_keeping = true;
        m_workshop.change(m_shown, typed);
        m_keeping = false;
        m_said->setText(words("Kept in %1").arg(Workshop::folder()));
        m_said->setStyleSheet({});
        m_all_kept = true;
        fill();
    } catch (const StockClash& clash) {
        m_keeping = false;
        m_all_kept = true;
        fill();
        m_said->setText(words("Not kept. %1").arg(fault_in_words(clash)));
        m_said->setStyleSheet("color: " + theme().ruby.name());
    } catch (const InputError& error) {
        m_keeping = false;
        m_all_kept = false;
        m_said->setText(words("Not kept yet. %1").arg(fault_in_words(error)));
        m_said->setStyleSheet("color: " + theme().ruby.name());
    }
}

/// What is typed into the drawers and cannot be kept is not dropped without a word.
bool StockSheet::may_close() {
    if (m_all_kept) return true;
    QMessageBox box(QMessageBox::NoIcon, windowTitle(), m_said->text(), QMessageBox::NoButton, this);
    auto* back = box.addButton(words("Go back to it"), QMessageBox::ActionRole);
    auto* drop = box.addButton(words("Drop it"), QMessageBox::ActionRole);
    box.setDefaultButton(back);
    box.setEscapeButton(back);
    box.exec();
    return box.clickedButton() == drop;
}

void StockSheet::reject() {
    if (may_close()) QDialog::reject();
}

void StockSheet::add_row() {
    QTableWidget& table = front();
    const int last = table.rowCount() - 1;
    m_filling = true;
    table.insertRow(last + 1);
    for (int c = 0; c < table.columnCount(); ++c)
        table.setItem(last + 1, c, new QTableWidgetItem(last >= 0 && table.item(last, c) ? table.item(last, c)->text() : QString()));
    m_filling = false;
    table.setCurrentCell(last + 1, 0);
    if (last >= 0) keep();
}

void StockSheet::remove_row() {
    QTableWidget& table = front();
    if (table.currentRow() < 0) return;
    table.removeRow(table.currentRow());
    keep();
}

}  // namespace echappe
