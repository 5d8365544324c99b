#include "job/pictures.h"

#include "exchange/file_names.h"

namespace echappe {

std::vector<std::string> pictures_named(const Job& job) {
    std::vector<std::string> names = {job.photo};
    for (const ConditionRecord& condition : job.survey.conditions) names.push_back(condition.photo);
    for (const DiaryLine& line : job.bench.diary) names.push_back(line.photo);
    std::erase_if(names, [](const std::string& name) { return name.empty(); });
    return names;
}

std::filesystem::path pictures_folder_of(const std::filesystem::path& job_file) {
    const std::string name = job_file.filename().string();
    const std::filesystem::path own = job_file.parent_path() / pictures_beside(name);
    const std::filesystem::path shared = job_file.parent_path() / (name.substr(0, name.find('.')) + ".pictures");
    std::error_code none;
    return !std::filesystem::exists(own, none) && std::filesystem::is_directory(shared, none) ? shared : own;
}

}  // namespace echappe
