#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FindOptions {
  std::string text;
  std::vector<std::string> substance_files;
  PresentationOptions presentation;
};

Answer find(const FindOptions& options) {
  const std::shared_ptr<const Bank> bank = bank_with(options.substance_files);
  const auto matches = bank->search(options.text);
  if (matches.empty()) {
    throw CalculationError(
        fmt::format("nothing in the bank of {} substances is like '{}'. Try a shorter piece of the name, "
                    "another name, the formula or the CAS number.",
                    bank->all().size(), options.text));
  }
  Answer answer;
  answer.json = plain_header("find");
  Table table{
      "", {{"name"}, {"formula"}, {"CAS"}, {"boils", Dimension::temperature, 2}, {"also called"}}, {}};
  for (const Substance* match : matches) {
    answer.json["matches"].push_back({{"name", match->name},
                                      {"formula", match->formula},
                                      {"cas", match->cas},
                                      {"aliases", match->aliases},
                                      {"Tb_K", match->Tb_K ? Json(match->Tb_K->value) : Json(nullptr)}});
    table.rows.push_back({match->name, match->formula, match->cas,
                          match->Tb_K ? Cell(match->Tb_K->value) : Cell(), joined(match->aliases, ", ")});
  }
  answer.tables.push_back(std::move(table));
  return answer;
}

}  // namespace

void add_find(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<FindOptions>();
  CLI::App* command = tool.add_subcommand("find", "Search the bank by name, alias, formula or CAS number");
  command->add_option("TEXT", options->text, "A name, or what is remembered of it")
      ->required()
      ->type_name("");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, false);
  command->footer("Example:\n  jampot find etyl");
  command->callback(
      [options, &presenter] { presenter.present(find(*options), options->presentation.read()); });
}

}  // namespace jampot::tool
