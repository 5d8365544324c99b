#include <QDir>
#include <QProcess>
#include <QTemporaryDir>
#include <QThread>
#include <catch2/catch.hpp>
#include <map>
#include <random>

#include "document/journal.h"
#include "job/file.h"
#include "support/demo.h"

using namespace echappe;

namespace {

/// One of the jobs that the killed window works on: how far it was told to be, and how far its file has been.
struct Followed {
    int confirmed = 0;
    int on_file = 0;
};

int count_of(const Job& job) { return QString::fromStdString(job.note).toInt(); }

/// Whole lines only: the last one may have been cut by the kill.
void follow(const QByteArray& said, std::map<std::string, Followed>& jobs) {
    for (const QByteArray& line : said.left(said.lastIndexOf('\n') + 1).split('\n')) {
        const auto words = line.split(' ');
        if (words.size() == 3) jobs.at(words[1].toStdString()).confirmed = words[2].toInt();
    }
}

/// How far each job can be brought again: by its file or by what was left of it.
int within_reach(const QString& path, const std::vector<Journal::Entry>& left, const Job& saved) {
    int most = count_of(saved);
    for (const Journal::Entry& entry : left)
        if (entry.about.job_path == path) most = std::max(most, count_of(job_from_text(entry.job_text.toStdString()).job));
    return most;
}

}  // namespace

// A few here; all of them by ECHAPPE_KILLS=1000 build/app-tests "*random moments*".
TEST_CASE("nothing confirmed is lost and nothing newer replaced by older in kills at random moments") {
    bool given = false;
    const int asked = qEnvironmentVariableIntValue("ECHAPPE_KILLS", &given);
    const int kills = given ? asked : 24;
    const QTemporaryDir state, folder;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("ECHAPPE_STATE", state.path());
    environment.insert("XDG_CONFIG_HOME", state.path());
    environment.insert("QT_QPA_PLATFORM", "offscreen");
    const QByteArray state_before = qgetenv("ECHAPPE_STATE");
    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    std::map<std::string, Followed> jobs;
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        const std::string name = std::string(demo) + ".json";
        jobs[name];
        Job job = job_from_text(demo::text(std::string(demo) + ".echappe.json")).job;
        job.note = "0";
        save_job(folder.filePath(QString::fromStdString(name)).toStdString(), job);
    }
    std::mt19937 random(1868);
    std::uniform_int_distribution<unsigned> moment_us(0, 150000), early_us(0, 500000);
    int lost = 0, older = 0, unreadable = 0, confirmed = 0;
    for (int i = 0; i < kills; ++i) {
        QProcess working;
        working.setProcessEnvironment(environment);
        working.start(REHEARSAL, {folder.path(), QString::number(i)});
        REQUIRE(working.waitForStarted());
        // One in four while it starts and takes up what was left, the others while it works.
        if (i % 4 != 3) {
            REQUIRE(working.waitForReadyRead(60000));
            QThread::usleep(moment_us(random));
        } else {
            QThread::usleep(early_us(random));
        }
        working.kill();  // SIGKILL
        working.waitForFinished();
        follow(working.readAllStandardOutput(), jobs);
        INFO("kill " << i << ": " << working.readAllStandardError().toStdString());
        const auto left = Journal::left_behind();
        for (const Journal::Entry& entry : left) unreadable += !entry.fault.isEmpty();
        for (auto& [name, followed] : jobs) {
            const QString path = folder.filePath(QString::fromStdString(name));
            const LoadedJob saved = load_job(path.toStdString());
            CHECK(saved.faults.empty());
            CHECK(within_reach(path, left, saved.job) >= followed.confirmed);
            lost += within_reach(path, left, saved.job) < followed.confirmed;
            older += count_of(saved.job) < followed.on_file;
            followed.on_file = count_of(saved.job);
        }
    }
    for (const auto& [name, followed] : jobs) confirmed += followed.confirmed;
    qputenv("ECHAPPE_STATE", state_before);
    WARN(kills << " kills, " << confirmed << " edits confirmed");
    CHECK(lost == 0);
    CHECK(older == 0);
    CHECK(unreadable == 0);
    CHECK(confirmed > kills / 2);
}
