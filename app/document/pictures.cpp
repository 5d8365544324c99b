#include "document/pictures.h"

#include <QDir>
#include <QFileInfo>
#include <QImageReader>

#include "document/folders.h"
#include "document/today.h"
#include "exchange/file_names.h"
#include "exchange/whole_file.h"
#include "job/pictures.h"
#include "number/input_error.h"

namespace echappe {
namespace {

constexpr std::uintmax_t largest_picture = 256u << 20;

}  // namespace

QString fresh_pictures_folder() { return state_folder() + "/pictures/" + QString::fromStdString(fresh_id()); }

QString keep_picture(const QString& folder, const QString& path, const QString& name) {
    if (QImageReader(path).size().isEmpty())
        throw InputError("photo", "\"" + path.toStdString() + "\", which is no picture", "a PNG or JPEG file");
    const std::string stem = file_name_of(QString(name).replace('.', '-').toStdString(), "picture");
    // Its ending is what it is and not what it was called.
    const QString kept = QString::fromStdString(stem + "-" + fresh_id()) + "." + QString::fromLatin1(QImageReader::imageFormat(path));
    QDir().mkpath(folder);
    save_text((folder + "/" + kept).toStdString(), read_text(path.toStdString(), largest_picture));
    return kept;
}

QStringList copy_pictures(const Job& job, const QString& from, const QString& to) {
    QStringList missing;
    for (const std::string& picture : pictures_named(job)) {
        const QString name = QString::fromStdString(picture);
        if (QFile::exists(to + "/" + name)) continue;
        if (!QFile::exists(from + "/" + name)) {
            missing << name;
            continue;
        }
        QDir().mkpath(to);
        save_text((to + "/" + name).toStdString(), read_text((from + "/" + name).toStdString(), largest_picture));
    }
    missing.removeDuplicates();
    return missing;
}

}  // namespace echappe
