#include "document/pictures.h"

#include <QDir>
#include <QFileInfo>
#include <QImageReader>

#include "document/folders.h"
#include "document/today.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"

namespace echappe {

QString pictures_folder(const QString& job_path) {
    if (job_path.isEmpty()) return state_folder() + "/pictures";
    const QFileInfo file(job_path);
    return file.absolutePath() + "/" + file.fileName().section('.', 0, 0) + ".pictures";
}

QString keep_picture(const QString& folder, const QString& path, const QString& name) {
    if (QImageReader(path).size().isEmpty())
        throw InputError("photo", "\"" + path.toStdString() + "\", which is no picture", "a PNG or JPEG file");
    const QString kept =
        QString(name).replace('.', '-') + "-" + QString::fromStdString(fresh_id()) + "." + QFileInfo(path).suffix().toLower();
    QDir().mkpath(folder);
    save_text((folder + "/" + kept).toStdString(), read_text(path.toStdString()));
    return kept;
}

void copy_pictures(const Job& job, const QString& from, const QString& to) {
    if (from == to) return;
    std::vector<std::string> pictures = {job.photo};
    for (const ConditionRecord& condition : job.survey.conditions) pictures.push_back(condition.photo);
    for (const DiaryLine& line : job.bench.diary) pictures.push_back(line.photo);
    for (const std::string& picture : pictures) {
        const QString name = QString::fromStdString(picture);
        // One that is gone already is nobody's fault now: the record still names it.
        if (name.isEmpty() || !QFile::exists(from + "/" + name) || QFile::exists(to + "/" + name)) continue;
        QDir().mkpath(to);
        save_text((to + "/" + name).toStdString(), read_text((from + "/" + name).toStdString()));
    }
}

}  // namespace echappe
