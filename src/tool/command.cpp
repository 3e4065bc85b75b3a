#include "command.hpp"

#include <algorithm>

#include "jampot/basis/text.hpp"

namespace jampot::tool {

Option& Option::needed() {
  is_needed = true;
  return *this;
}

Option& Option::repeated() {
  is_repeated = true;
  return *this;
}

Option& Option::between(int fewest, int highest) {
  least = fewest;
  most = highest;
  return *this;
}

Option& Command::added(Option option) {
  if (std::holds_alternative<std::vector<std::string>*>(option.into)) option.most = -1;
  option.aliases = split(option.name, ',');
  option.name = option.aliases.front();
  option.aliases.erase(option.aliases.begin());
  return options.emplace_back(std::move(option));
}

Option& Command::flag(std::string option_name, bool& into, std::string help) {
  return added({std::move(option_name), &into, "", std::move(help)});
}

const Option* Command::find(const std::string& option_name) const {
  const auto found = std::find_if(options.begin(), options.end(), [&](const Option& option) {
    return option.name == option_name ||
           std::count(option.aliases.begin(), option.aliases.end(), option_name) > 0;
  });
  return found == options.end() ? nullptr : &*found;
}

Command& Commands::add(std::string name, std::string command_about) {
  return list.emplace_back(std::move(name), std::move(command_about));
}

}  // namespace jampot::tool
