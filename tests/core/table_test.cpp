#include "exchange/table.h"

#include <rapidcheck/catch.h>
#include <catch2/catch.hpp>

#include "exchange/whole_file.h"
#include "stock/stock.h"
#include "support/files.h"

using namespace echappe;

namespace {

Table bushes() { return {{"id", "bore_mm", "quantity"}, {{"B10", "1.0", "4"}, {"B12", "1.2", "2"}, {"B15", "1.5", "0"}}, ','}; }

/// A drawer that has only bushes of these numbers.
Stock drawer(long long ten, long long twelve) {
    Stock stock;
    stock.bushes = {{"B10", 1.0, 3.0, 2.0, ten}, {"B12", 1.2, 3.2, 2.0, twelve}};
    return stock;
}

}  // namespace

TEST_CASE("a table is read as it was written, with commas, quotes, lines and signs in its words") {
    const Table table{{"id", "note"}, {{"a,b", "he said \"no\""}, {"", "ü"}, {"long", "a b"}}, ','};
    CHECK(table_from_csv(table_to_csv(table)) == table);
    CHECK(table_from_csv("id;note\nx;1,5\n").rows.front() == std::vector<std::string>{"x", "1,5"});
    CHECK(table_from_csv("id,note\nx\n").rows.front() == std::vector<std::string>{"x", ""});
    CHECK(table_from_csv("id,note\r\n\"two\r\nlines\",y\r\n").rows.front().back() == "y");
    const Table semicolon{{"id", "a;b"}, {{"x", "y"}}, ','};
    CHECK(table_from_csv(table_to_csv(semicolon)) == semicolon);
    CHECK_THROWS_WITH(table_from_csv(""), Catch::Contains("header"));
}

TEST_CASE("one cell changed here and another changed there are both changed") {
    Table mine = bushes(), theirs = bushes();
    mine.rows[0][2] = "3";
    theirs.rows[1][2] = "7";
    const CarriedOver out = carry_over(bushes(), mine, theirs);
    CHECK(out.clashes.empty());
    CHECK(out.table.rows[0][2] == "3");
    CHECK(out.table.rows[1][2] == "7");
}

TEST_CASE("a row that came there meanwhile stays when a cell is changed here, and so does one that went") {
    Table mine = bushes(), theirs = bushes();
    mine.rows[0][1] = "1.05";
    theirs.rows.insert(theirs.rows.begin(), {"B05", "0.5", "9"});
    theirs.rows.pop_back();
    const CarriedOver out = carry_over(bushes(), mine, theirs);
    CHECK(out.clashes.empty());
    REQUIRE(out.table.rows.size() == 3);
    CHECK(out.table.rows[0][0] == "B05");
    CHECK(out.table.rows[1] == std::vector<std::string>{"B10", "1.05", "4"});
}

TEST_CASE("the same cell changed here and there, in two ways, is told and nothing is done") {
    Table mine = bushes(), theirs = bushes();
    mine.rows[0][2] = "3";
    theirs.rows[0][2] = "9";
    CarriedOver out = carry_over(bushes(), mine, theirs);
    CHECK(out.clashes == std::vector<std::string>{"row B10: quantity is 9 there now"});
    CHECK(out.table == theirs);
    // In the same way it is no clash.
    theirs.rows[0][2] = "3";
    CHECK(carry_over(bushes(), mine, theirs).clashes.empty());
    // Taken out there and changed here is one.
    theirs.rows.erase(theirs.rows.begin());
    out = carry_over(bushes(), mine, theirs);
    CHECK(out.clashes == std::vector<std::string>{"row B10: it is not there any more"});
}

TEST_CASE("a row taken out here that was changed there is told") {
    Table mine = bushes(), theirs = bushes();
    mine.rows.erase(mine.rows.begin() + 1);
    theirs.rows[1][2] = "8";
    CHECK(carry_over(bushes(), mine, theirs).clashes == std::vector<std::string>{"row B12: it was changed there"});
    theirs.rows[1][2] = "2";
    CHECK(carry_over(bushes(), mine, theirs).table.rows.size() == 2);
}

TEST_CASE("columns that are not known here, and figures as they were written, stay") {
    Table theirs{{"id", "shelf", "bore_mm", "quantity"},
                 {{"B10", "left", "1.00", "4"}, {"B12", "right", "1.20", "2"}, {"B15", "", "1,5", "0"}},
                 ','};
    Table mine = bushes();
    mine.rows[1][2] = "1";
    const CarriedOver out = carry_over(bushes(), mine, theirs);
    CHECK(out.clashes.empty());
    CHECK(out.table.columns == theirs.columns);
    CHECK(out.table.rows[0] == theirs.rows[0]);
    CHECK(out.table.rows[1] == std::vector<std::string>{"B12", "right", "1.20", "1"});
}

TEST_CASE("rows that are alike are told apart: one of two is taken out") {
    Table two{{"id"}, {{"A"}, {"A"}}, ','}, one{{"id"}, {{"A"}}, ','};
    CHECK(carry_over(two, one, two).table == one);
    CHECK(carry_over(one, two, one).table == two);
    // The one that was renamed is the one that is: the second.
    const Table renamed{{"id"}, {{"A"}, {"mine"}}, ','};
    CHECK(carry_over(two, renamed, two).table == renamed);
}

TEST_CASE("whatever was changed, done on the table it began from it gives the table that was made") {
    const auto words = rc::gen::container<std::string>(rc::gen::elementOf(std::string("ab1.,\"; ")));
    const auto rows = rc::gen::container<std::vector<std::vector<std::string>>>(rc::gen::container<std::vector<std::string>>(2, words));
    REQUIRE(rc::check("laws of carrying over", [&] {
        Table before{{"id", "note"}, *rows, ','}, after{{"id", "note"}, *rows, ','};
        // Figures are compared as figures: here every word stands for itself.
        for (Table* table : {&before, &after})
            for (auto& row : table->rows)
                for (std::string& word : row) word = "w" + word;
        const CarriedOver own = carry_over(before, after, before);
        RC_ASSERT(own.clashes.empty());
        auto made = own.table.rows, wanted = after.rows;
        std::sort(made.begin(), made.end());
        std::sort(wanted.begin(), wanted.end());
        RC_ASSERT(made == wanted);
        RC_ASSERT(carry_over(before, before, after).table == after);
    }));
}

TEST_CASE("a cutter that another window put into the drawer's file is there after a cell is edited in this one") {
    const Folder folder;
    save_stock(folder.path, drawer(4, 2));
    // The other window, or an editor, meanwhile.
    save_text(folder / "bushes.csv", read_text(folder / "bushes.csv") + "B99,9.9,12,5,1\n");
    keep_changes(folder.path, drawer(4, 2), drawer(3, 2));
    const Stock now = load_stock(folder.path);
    REQUIRE(now.bushes.size() == 3);
    CHECK(now.bushes[0].quantity == 3);
    CHECK(now.bushes[2].id == "B99");
    CHECK_THROWS_AS(keep_changes(folder.path, drawer(4, 2), drawer(5, 2)), StockClash);
    CHECK(load_stock(folder.path) == now);
}

TEST_CASE("a drawer that was not there is begun with what stood before, and the others are left alone") {
    const Folder folder;
    save_text(folder / "reamers.csv", "id,diameter_mm,maker\nR1,1.5,ours\n");
    keep_changes(folder.path, drawer(4, 2), drawer(4, 1));
    CHECK(load_stock(folder.path).bushes == drawer(4, 1).bushes);
    CHECK(read_text(folder / "reamers.csv") == "id,diameter_mm,maker\nR1,1.5,ours\n");
}
