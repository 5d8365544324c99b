#pragma once

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QTabWidget>
#include <QTextBrowser>

namespace echappe {

/// The guide, its keys, the terms of the trade, what the figures are good for, and what Echappe is made of: to be read and searched
/// beside the work.
class HelpSheet : public QDialog {
    Q_OBJECT
public:
    enum class Page { guide, keys, terms, limits, about };
    HelpSheet(const QString& keys, QWidget* parent);
    void show_page(Page page);
    QLineEdit& search() { return *m_search; }
    QTextBrowser& page() const;
    QString said() const { return m_said->text(); }

private:
    void add(const QString& title, const QString& markdown);
    void find(bool back);

    QLineEdit* m_search;
    QTabWidget* m_pages;
    QLabel* m_said;
};

}  // namespace echappe
