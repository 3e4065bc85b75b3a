#pragma once
// A mixture in words, as a *.mixture.toml and the command line write it, and the values they stand for.
#include <memory>
#include <string>
#include <vector>

#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// The built-in substances with the user-defined components of these files.
/// @throws RequestError for a name that is already taken
std::shared_ptr<const Bank> bank_with(const std::vector<std::string>& substance_files);

/// Marks these among the substances as staying in the liquid.
/// @throws RequestError for a name that is not one of them
void mark_non_volatile(const std::vector<std::string>& names, std::vector<Substance>& substances);

/// What describes the vapour.
struct VapourWords {
  std::string model = "ideal",  ///< name of the vapour model
      interactions,             ///< file of binary interactions
      saturation_fugacity,      ///< yes, no, or empty for what suits the model
      poynting;                 ///< yes, no, or empty for what suits the model
  bool translated = false;      ///< true: volumes of the liquid translated
  /// @throws RequestError for an unknown model, a switch that is neither on nor off, or a faulty table
  VapourChoice choice(const Bank& bank) const;
};

/// Substances, models and parameter files of a mixture.
struct MixtureWords {
  std::vector<std::string> names;            ///< of the components
  std::vector<std::string> substance_files;  ///< files of further substances
  std::string liquid;                        ///< model of the liquid; empty: the best one at hand
  std::vector<std::string> parameter_files;  ///< files of pairs
  std::vector<std::string> labels;           ///< "ethyl acetate=EA"
  std::string first;                         ///< of a binary: the substance on the axis
  std::string doubtful_groups = "refuse";    ///< refuse or use
  std::string missing_pairs = "refuse",      ///< refuse, estimate, known or ideal
      estimate_from = "unifac",              ///< model that estimates are made from
      estimate_range;                        ///< temperatures of the estimate
  std::string compare;                       ///< further models or pair files
  VapourWords vapour;                        ///< the vapour
  std::vector<std::string> non_volatile;     ///< substances that stay in the liquid
  std::vector<std::string> henry;            ///< "carbon dioxide in water = 1640 bar"
  bool binary = false;                       ///< true where exactly two components are allowed

  /// Puts what a *.mixture.toml among the names says in the place of its name; what is given already wins.
  /// @throws RequestError for a fault in the file
  void expand();

  /// The bank, and the further substances.
  std::shared_ptr<const Bank> bank() const { return bank_with(substance_files); }
  /// @throws RequestError for whatever is not understood
  MixtureSpec spec() const;
  /// Those it is compared with.
  std::vector<MixtureSpec> compared() const;
};

/// What a *.mixture.toml describes. @throws RequestError for a fault in the file
MixtureSpec read_mixture_file(const std::string& file);

}  // namespace jampot
