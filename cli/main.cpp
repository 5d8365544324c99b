#include <CLI/CLI.hpp>
#include <fstream>
#include <iostream>
#include <sstream>

#include "number/input_error.h"
#include "number/units.h"
#include "verbs.h"
#include "workings/record_json.h"

// echappe-cli: a table of verbs over the core. Exit 0 with JSON, or 2 with one line that names the field.

namespace {

using namespace echappe;

std::string kebab(std::string name) {
    std::replace(name.begin(), name.end(), '_', '-');
    return name;
}

void list() {
    for (const Calculation* verb : verbs())
        std::cout << verb->verb << std::string(18 - std::min<size_t>(17, verb->verb.size()), ' ') << verb->sentence << "\n";
}

const Calculation* find_verb(const std::string& name) {
    for (const Calculation* verb : verbs())
        if (verb->verb == name) return verb;
    return nullptr;
}

InputError unknown_verb(const std::string& name) {
    std::vector<Field> names;
    for (const Calculation* verb : verbs()) names.emplace_back().name = verb->verb;
    return InputError("verb", "\"" + name + "\"",
                      "\"" + Record(names).nearest(name) + "\" (the nearest known); all with: echappe-cli list");
}

std::string bracketed(const Field& field) {
    std::string text = field.unit.empty() ? "" : " [" + field.unit + "]";
    if (std::isfinite(field.range.min) || std::isfinite(field.range.max)) text += " (" + field.range.sentence() + ")";
    for (size_t i = 0; i < field.choices.size(); ++i)
        text += (i == 0 ? " (" : " | ") + field.choices[i] + (i + 1 == field.choices.size() ? ")" : "");
    return text + (field.required ? " (required)" : "");
}

void print_fields(const Record& record, void* example, const std::string& indent, bool defaults, int depth = 0);

void print_field(const Field& field, void* example, const std::string& indent, bool defaults, int depth) {
    std::cout << indent << field.name << bracketed(field);
    Slot slot = field.slot(example);
    if (const auto* other = std::get_if<OtherKindSlot>(&slot)) slot = other->field->slot(other->fresh);
    if (defaults && !field.required) {
        if (const auto* number = std::get_if<double*>(&slot)) std::cout << " default " << print_short(**number, 12);
        if (const auto* whole = std::get_if<long long*>(&slot)) std::cout << " default " << **whole;
        if (const auto* exact = std::get_if<Rational*>(&slot); exact && field.range.holds((**exact).to_double()))
            std::cout << " default " << print_short((**exact).to_double(), 12);
        if (const auto* kind = std::get_if<KindSlot>(&slot)) std::cout << " default " << field.choices[kind->kinds->now(kind->variant)];
        if (const auto* word = std::get_if<std::string*>(&slot)) std::cout << " default " << (**word).substr(0, 40);
    }
    std::cout << ": " << field.meaning;
    if (defaults && !field.because.empty()) std::cout << ". Why so: " << field.because;
    std::cout << "\n";
    if (depth > 3) return;
    if (const auto* nested = std::get_if<NestedSlot>(&slot))
        print_fields(*nested->record, nested->make(), indent + "  ", defaults, depth + 1);
    if (const auto* items = std::get_if<ListSlot>(&slot)) print_fields(*items->record, items->add(), indent + "  ", defaults, depth + 1);
}

void print_fields(const Record& record, void* example, const std::string& indent, bool defaults, int depth) {
    for (const Field& field : record.fields()) print_field(field, example, indent, defaults, depth);
}

void help(const std::string& name) {
    const Calculation* verb = find_verb(name);
    if (!verb) throw unknown_verb(name);
    std::cout << verb->verb << "\n  " << verb->sentence << "\n\ninputs\n";
    const auto input = verb->make_input();
    print_fields(*verb->input, input.get(), "  ", true);
    std::cout << "\noutputs\n";
    const auto output = verb->make_output();
    print_fields(*verb->output, output.get(), "  ", false);
    std::cout << "\nsource\n  " << verb->source << "\n";
}

std::string read_all(const std::string& file) {
    std::ostringstream text;
    if (file == "-") {
        text << std::cin.rdbuf();
        return text.str();
    }
    std::ifstream in(file, std::ios::binary);
    // An empty file leaves the stream failed and is no fault of reading.
    if (in && in.peek() != std::ifstream::traits_type::eof()) text << in.rdbuf();
    if (!in.is_open() || in.bad())
        throw InputError("input", "\"" + file + "\", which cannot be read", "a readable file, or - for standard input");
    return text.str();
}

/// The words after the verb.
struct Words {
    std::string input;
    std::string take;
    bool workings = false;
    std::vector<std::pair<const Field*, std::string>> flat;
};

Words parse_words(const Calculation& verb, std::vector<std::string> arguments) {
    Words words;
    CLI::App app;
    app.set_help_flag();
    app.allow_extras();
    std::string file;
    app.add_option("--input", words.input);
    app.add_option("--take", words.take);
    app.add_flag("--workings", words.workings);
    app.add_option("file", file);
    std::vector<std::string> values(verb.input->fields().size());
    std::vector<CLI::Option*> options;
    for (size_t i = 0; i < values.size(); ++i) options.push_back(app.add_option("--" + kebab(verb.input->fields()[i].name), values[i]));
    std::reverse(arguments.begin(), arguments.end());
    try {
        app.parse(arguments);
    } catch (const CLI::ParseError& error) {
        throw InputError("options", error.what(), "each option once with one value; see: echappe-cli help " + verb.verb);
    }
    for (const std::string& extra : app.remaining()) {
        std::string name = extra.substr(std::min(extra.find_first_not_of('-'), extra.size()));
        name = name.substr(0, name.find('='));
        std::replace(name.begin(), name.end(), '-', '_');
        if (!extra.starts_with("-"))
            throw InputError("options", "\"" + extra + "\" without an option before it",
                             "--" + kebab(verb.input->fields().front().name) + " and the like");
        throw InputError(name, "an option it does not know", "--" + kebab(verb.input->nearest(name)) + " (the nearest known)");
    }
    for (size_t i = 0; i < values.size(); ++i)
        if (options[i]->count() > 0) words.flat.emplace_back(&verb.input->fields()[i], values[i]);
    if (words.input.empty()) words.input = file;
    return words;
}

std::vector<InputError> fill(const Calculation& verb, const Words& words, void* input) {
    std::vector<InputError> faults;
    if (!words.input.empty()) faults = read_json(read_all(words.input), *verb.input, input);
    for (const auto& [field, word] : words.flat) {
        read_word(*field, word, input);
        std::erase_if(faults,
                      [&, name = field->name](const InputError& fault) { return fault.field() == name && fault.got() == "nothing"; });
    }
    if (words.input.empty())
        for (const Field& field : verb.input->fields())
            if (field.required &&
                std::none_of(words.flat.begin(), words.flat.end(), [&](const auto& given) { return given.first == &field; }))
                faults.emplace_back(field.name, "nothing", std::isfinite(field.range.min) ? field.range.sentence() : field.meaning);
    return faults;
}

/// One output field as it is: `--take dxf > wheel.dxf`.
std::string taken(const Calculation& verb, void* output, const std::string& name) {
    const Field* field = verb.output->find(name);
    if (!field) throw InputError("take", "\"" + name + "\"", "\"" + verb.output->nearest(name) + "\" (the nearest output)");
    const Slot slot = field->slot(output);
    if (const auto* text = std::get_if<std::optional<std::string>*>(&slot); text && **text)
        return (**text)->ends_with('\n') ? ***text : ***text + "\n";
    return write_json(Record({*field}), output, Empty::null);
}

int run_verb(const Calculation& verb, const std::vector<std::string>& arguments) {
    const Words words = parse_words(verb, arguments);
    const auto input = verb.make_input();
    const std::vector<InputError> faults = fill(verb, words, input.get());
    if (!faults.empty()) {
        for (const InputError& fault : faults) {
            std::cerr << fault.what() << "\n";
            if (!verb.every_fault) break;
        }
        return 2;
    }
    const auto output = verb.run(input.get());
    if (words.workings)
        for (const Working& working : verb.explain(input.get(), output.get())) std::cout << working.in_words() << "\n";
    else if (!words.take.empty()) std::cout << taken(verb, output.get(), words.take);
    else std::cout << write_json(*verb.output, output.get(), Empty::null);
    return 0;
}

bool asks_for_help(const std::string& word) { return word == "--help" || word == "-h"; }

int run(const std::vector<std::string>& arguments) {
    const std::string first = arguments.empty() ? "" : arguments.front();
    if (first == "list" || first.empty()) return list(), 0;
    if (first == "help" || asks_for_help(first)) {
        if (arguments.size() > 1) return help(arguments[1]), 0;
        std::cout
            << "echappe-cli list\nechappe-cli help VERB\nechappe-cli VERB --input FILE | --field value … [--workings] [--take OUTPUT]\n"
               "echappe-cli --version\n\n";
        return list(), 0;
    }
    if (first == "--version") return std::cout << "echappe " ECHAPPE_VERSION "\n", 0;
    const Calculation* verb = find_verb(first);
    if (!verb) throw unknown_verb(first);
    if (std::any_of(arguments.begin(), arguments.end(), asks_for_help)) return help(first), 0;
    return run_verb(*verb, {arguments.begin() + 1, arguments.end()});
}

}  // namespace

int main(int argc, char** argv) {
    try {
        const int done = run({argv + 1, argv + argc});
        if (!std::cout.flush()) throw InputError("output", "a place that cannot be written", "one with room");
        return done;
    } catch (const InputError& error) {
        std::cerr << error.what() << "\n";
    } catch (const std::exception& error) {
        std::cerr << "input: got something that could not be worked out (" << error.what() << "), takes values of ordinary size\n";
    }
    return 2;
}
