#include "arguments.hpp"

#include <CLI/CLI.hpp>

namespace jampot::bench {

struct Arguments::Parser {
  CLI::App app;
};

Arguments::Arguments(const std::string& about) : parser_(std::make_unique<Parser>()) {
  parser_->app.description(about);
}
Arguments::~Arguments() = default;

void Arguments::count(const std::string& name, int& value, const std::string& help) {
  parser_->app.add_option("--" + name, value, help)->check(CLI::PositiveNumber)->capture_default_str();
}

void Arguments::text(const std::string& name, std::string& value, const std::string& help) {
  parser_->app.add_option("--" + name, value, help)->capture_default_str();
}

std::optional<int> Arguments::read(int argc, char** argv) {
  try {
    parser_->app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return parser_->app.exit(error);
  }
  return std::nullopt;
}

}  // namespace jampot::bench
