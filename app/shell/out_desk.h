#pragma once

#include <QObject>

#include "document/errand.h"
#include "shell/job_desk.h"
#include "shell/station.h"

namespace echappe {

/// What goes out of the window and comes into it besides the job: drawings, prints, solids, tables, pictures. The station that is
/// shown has the first word.
class OutDesk : public QObject {
    Q_OBJECT
public:
    OutDesk(const Workbench& bench, JobDesk& jobs) : m_bench(bench), m_jobs(jobs) {}
    void set_stations(const QList<Station*>& stations) { m_stations = stations; }
    void show_station(Station* station) { m_shown = station; }

    /// By the ending: .svg, .dxf, .pdf at once, .step beside the window. Throws InputError.
    void export_to(const QString& path);
    void ask_export(const QString& ending);
    /// On a printer, with a preview: what is shown, or the whole job.
    void print(bool whole_job);
    void ask_pdf(bool whole_job);
    /// As a PDF, under a name that is asked for.
    void write_pages(QString name, const std::vector<Printout>& parts);
    /// The picture that is shown, as PNG or SVG by its ending. Throws InputError.
    void write_picture(const QString& path);
    void ask_picture();
    void copy_picture();
    void write_csv(const QString& name, const std::string& csv);
    /// A table goes where its columns belong. Throws InputError.
    /// Throws InputError.
    void read_drawing(const QString& path);
    void import_readings(const QString& path);
    void ask_readings(QWidget* window);
    /// A file dropped on the window; a job is looked at before anything is asked. Throws InputError.
    void take_file(const QString& path);
    /// All of them: what cannot be taken is told, and does not keep the others out. One job opens here, others beside it.
    void take_files(const QStringList& paths);

signals:
    void solid_written();
    void station_wanted(Station* station);
    void window_wanted(const QString& path);

private:
    /// Among the stations that would take it, the one that is shown, else the one that is named in answer to a question; nullptr: none.
    Station* taker_of(const QString& path, QString (Station::*place)() const, const QString& question);
    void keep_from(const QString& path, const std::function<size_t(Job&)>& read);
    Station* writer(const QString& ending) const;
    std::vector<Printout> printouts(bool whole_job) const;
    void export_solid(const QString& path, const Station& station);

    Workbench m_bench;
    JobDesk& m_jobs;
    QList<Station*> m_stations;
    Station* m_shown = nullptr;
    Errand m_exporter;
};

}  // namespace echappe
