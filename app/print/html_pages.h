#pragma once

#include <QString>

namespace echappe {

/// A page of HTML as A4 pages, whole or not at all. Throws InputError when it cannot be written.
void write_html_pdf(const QString& path, const QString& html);

}  // namespace echappe
