#pragma once

#include <QDropEvent>
#include <QImage>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QTemporaryDir>

#include "app/bench.h"
#include "job/file.h"
#include "job/new_job.h"

inline echappe::Job own_job(const std::string& title, const std::string& train = "96, 8/84, 7/78, 7/30; 8022.86 beats") {
    echappe::Job job = echappe::new_job(train);
    job.title = title;
    return job;
}

/// A window on a movement that stands in no demo, saved, and a second job beside it.
struct OwnBench {
    QTemporaryDir folder;
    echappe::MainWindow window;
    QString path = folder.filePath("sluice clock no. 3.echappe.json");
    QString other = folder.filePath("sluice clock no. 4.echappe.json");
    OwnBench() {
        echappe::save_job(path.toStdString(), own_job("Sluice clock No. 3"));
        echappe::save_job(other.toStdString(), own_job("Sluice clock No. 4", "84, 8/75, ?/?, 8/30"));
        window.resize(1280, 800);
        window.show();
        window.open_file(path);
        Bench::settle();
    }
    ~OwnBench() { window.document().undo_stack()->setClean(); }
    echappe::Document& document() { return window.document(); }
    const echappe::Job& job() { return window.document().job(); }
    QString said() { return window.calliper().message(); }
    void read(const QString& text) {
        QTest::keyClicks(&window.calliper().line(), text);
        QTest::keyClick(&window.calliper().line(), Qt::Key_Return);
        Bench::settle();
    }
    QPlainTextEdit& paper() {
        for (QPlainTextEdit* text : window.findChildren<QPlainTextEdit*>())
            if (text->accessibleName() == "the train, written down") return *text;
        throw std::logic_error("no sheet to write on");
    }
    QString picture(const QString& name) {
        QImage image(40, 30, QImage::Format_RGB32);
        image.fill(Qt::gray);
        image.save(folder.filePath(name));
        return folder.filePath(name);
    }
    void drop(const QStringList& paths) {
        QMimeData data;
        QList<QUrl> urls;
        for (const QString& one : paths) urls << QUrl::fromLocalFile(one);
        data.setUrls(urls);
        // As the system does it: first over the window, then let go.
        QDragEnterEvent over(QPoint(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &over);
        QDropEvent dropped(QPointF(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &dropped);
        Bench::settle();
    }
};

inline std::string text_of(const echappe::Job& job) { return echappe::job_to_text(job); }
