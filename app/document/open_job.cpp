#include "document/open_job.h"

#include <QFile>

#include "document/folders.h"
#include "document/pictures.h"
#include "drawing/words.h"
#include "job/file.h"
#include "job/pictures.h"
#include "number/numeral.h"

namespace echappe {
namespace {

QString resource_text(const QString& path) {
    QFile file(path);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

}  // namespace

OpenJob OpenJob::nameless(const Job& job) {
    OpenJob open;
    open.job = std::make_shared<Job>(job);
    open.pictures = fresh_pictures_folder();
    return open;
}

OpenJob OpenJob::of_file(const QString& path, const LoadedJob& loaded, const FileStamp& stamp) {
    OpenJob open;
    open.job = std::make_shared<Job>(loaded.job);
    open.pictures = QString::fromStdString(pictures_folder_of(path.toStdString()).string());
    if (loaded.damaged) {
        open.first_fault = loaded.faults.front().what();
    } else {
        open.path = path;
        open.stamp = stamp;
    }
    if (loaded.newer) open.read_only = words("A newer Echappe wrote this file: it is open for reading only.");
    return open;
}

OpenJob OpenJob::of_demo(const QString& name) {
    const QString text = resource_text(":/demo/" + name + ".echappe.json");
    if (text.isEmpty()) throw InputError("demo", in_quotes(name.toStdString()), "tide-house, waiting-room, watch or granary");
    OpenJob open = nameless(job_from_text(text.toStdString()).job);
    open.take_instruments(name);
    return open;
}

void OpenJob::take_instruments(const QString& demo_name) {
    const QString practice = resource_text(":/demo/" + demo_name + ".practice.json");
    if (practice.isEmpty()) return;
    demo = demo_name;
    calliper.emplace(practice_from_text(practice.toStdString()));
}

Journal::About OpenJob::about() const {
    const QString followed = path.isEmpty() ? path : QString::fromStdString(behind_links(path.toStdString()).string());
    return {followed, demo, pictures, stamp};
}

}  // namespace echappe
