#pragma once
// A folder of measured data, by the substances that they are about.
#include <cstdint>
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/measured/data_set.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// All measured data about the same substances.
struct ArchiveGroup {
  std::string name{};                     ///< of its files: "ethanol--water"
  std::vector<std::string> substances{};  ///< names of the bank, sorted
  std::vector<DataSet> sets{};            ///< by file and place in it; a name is the path below the folder
  std::uint64_t content = 0;              ///< checksum of the files and places that its data come from
};

/// A file, or one of its sets, that was not taken.
struct PassedOver {
  std::string file{};    ///< path below the folder, "#2" behind it for a set of several
  std::string reason{};  ///< why
};

/// What a folder holds.
struct Archive {
  std::vector<ArchiveGroup> groups{};     ///< by name
  std::vector<PassedOver> passed_over{};  ///< by file
  int files = 0,                          ///< read
      sets = 0;                           ///< taken
};

/// Reads every .csv and .xml (ThermoML) file of a folder and below; files that hold no measured data, sets of
/// one substance or of more than three are passed over with the reason. Hidden files and collections among
/// them are left out.
/// @throws RequestError where the folder cannot be read or holds no such file
Archive read_archive(const std::filesystem::path& folder, const Bank& bank = Bank::built_in());

/// FNV-1a, 64 bit: tells whether a text has changed. Source: G. Fowler, L. C. Noll, K.-P. Vo, D. Eastlake,
/// The FNV Non-Cryptographic Hash Algorithm, IETF draft.
std::uint64_t checksum(std::string_view text, std::uint64_t before = 0xcbf29ce484222325);

}  // namespace jampot
