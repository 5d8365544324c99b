#pragma once

#include <QStringList>

namespace echappe {

/// An entry in which something may stand that was typed and not kept. The window asks before it is dropped.
class Unkept {
public:
    /// Each with what for.
    virtual QStringList unkept() const = 0;
    virtual void forget_unkept() = 0;

protected:
    ~Unkept() = default;
};

}  // namespace echappe
