#pragma once
// Measured data as commands are given them: files of either form, of which a ThermoML file may hold many
// sets.
#include <string>
#include <vector>

#include "jampot/files/measured.hpp"

namespace jampot {

/// All sets of all files.
std::vector<DataSet> read_measured_files(const std::vector<std::string>& files, const Bank& bank);

/// Leaves points out: "12: bubble in the sample line", or "FILE:12: ..." where there are several sets.
/// @throws RequestError without a reason, or where there is no point on that line
void exclude_points(const std::vector<std::string>& wanted, std::vector<DataSet>& sets);

/// These substances stay in the liquid. @throws RequestError for one that is in no set
void mark_non_volatile(const std::vector<std::string>& names, const Bank& bank, std::vector<DataSet>& sets);

/// What may be laid over a diagram.
enum class Overlay {
  boiling,      ///< boiling liquids, with or without their vapour
  activity,     ///< boiling liquids with their vapour, or activity coefficients at a composition
  two_liquids,  ///< two liquids in equilibrium
  limits        ///< limiting activity coefficients
};

/// What is laid over a diagram of these substances: the sets about them, in their order. Of a file with
/// several sets those about something else are left out, with a notice in the first.
/// @throws RequestError where a file has none
std::vector<DataSet> read_overlays(const std::vector<std::string>& files,
                                   const std::vector<Substance>& substances, const Bank& bank,
                                   Overlay wanted = Overlay::boiling);

}  // namespace jampot
