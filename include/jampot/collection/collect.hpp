#pragma once
// An archive of measured data made into a collection of pair parameters.
#include <filesystem>
#include <string>
#include <vector>

#include "jampot/basis/progress.hpp"
#include "jampot/collection/archive.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// What is to be collected.
struct CollectRequest {
  std::filesystem::path folder{};  ///< of measured data, read with all below it
  std::filesystem::path out{};     ///< the collection, made where it is not there
  std::vector<std::string> models{"wilson", "nrtl", "uniquac"};  ///< fitted and ranked
  int folds = 5;                                                 ///< of the cross validation
  double most_s = 300;           ///< for one group of substances; it is given up then, with the reason
  int threads = 0;               ///< cores used; 0: all
  int shard = 1,                 ///< only the groups of this part, from 1 ...
      shards = 1;                ///< ... of so many; several parts may run at the same time, on one disk
  bool merge = false;            ///< fit nothing: only write the tables from what all parts left
  const Bank* bank = nullptr;    ///< whose substances; null: the built-in ones
  Progress* progress = nullptr;  ///< counts groups; may be null
};

/// A group of substances in the collection.
struct CollectedGroup {
  std::string name{};                     ///< of its files
  std::vector<std::string> substances{};  ///< names of the bank
  bool fitted = false;                    ///< false: `verdict` says why not
  bool renewed = false;                   ///< worked out in this run; false: nothing had changed
  std::string record{};                   ///< all that is known, a JSON object
};

/// A collection as it stands.
struct CollectStudy {
  std::filesystem::path out{};            ///< where it is
  std::vector<CollectedGroup> groups{};   ///< by name; of a part, those of the part
  std::vector<PassedOver> passed_over{};  ///< files and sets that were not taken
  int files = 0,                          ///< read
      sets = 0,                           ///< taken
      renewed = 0;                        ///< groups worked out in this run
  bool whole = true;                      ///< false: of one part, the tables are still to be merged
  Notices notices{};                      ///< what the reader must know
};

/// Reads the archive, fits every group of substances whose data, models or program have changed since the
/// last run, and writes into the folder `out`:
///
///     pairs/NAME.pairs.toml     parameters of the best model with their statistics
///     others/NAME.MODEL.pairs.toml    those of the other models
///     reports/NAME.html         the page of the fit
///     records/NAME.json         what the tables say of it; written last, so that a run that was stopped goes
///     on collection.csv            all groups with their verdicts passed-over.csv           what was not
///     taken, with the reason index.html                both, with a link to every page
///
/// The same archive gives the same bytes, whether in one run, in several or in parts.
/// @throws RequestError for an archive without data, a part that there is not, or an unknown model;
/// CalculationError where parts are merged and groups are missing
CollectStudy study(const CollectRequest& request);

/// The table of all groups and what was passed over.
Answer answer(const CollectStudy& study, const AnswerOptions& options = {});

}  // namespace jampot
