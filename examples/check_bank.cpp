// The built-in bank held against physics: every check, and what falls short.
#include <cstdio>
#include <jampot/substance/bank.hpp>
#include <jampot/substance/bank_check.hpp>
#include <map>

int main() {
  struct Count {
    int passed = 0, short_of_it = 0, exempt = 0;
  };
  std::map<std::string, Count> counts;
  for (const jampot::Substance& substance : jampot::Bank::built_in().all()) {
    for (const jampot::BankFinding& finding : jampot::check_substance(substance)) {
      Count& count = counts[finding.check];
      if (finding.passed()) {
        ++count.passed;
      } else if (!finding.exempt.empty()) {
        ++count.exempt;
      } else {
        ++count.short_of_it;
        std::printf("%-28s %-26s %s\n", finding.substance.c_str(), finding.check.c_str(),
                    finding.says.c_str());
      }
    }
  }
  std::printf("\n%-28s %8s %8s %8s\n", "check", "passed", "short", "exempt");
  for (const auto& [check, count] : counts) {
    std::printf("%-28s %8d %8d %8d\n", check.c_str(), count.passed, count.short_of_it, count.exempt);
  }
}
