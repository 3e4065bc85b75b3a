#pragma once
// Measured data as commands are given them: files of either form, of which a ThermoML file may hold many
// sets.
#include <string>
#include <vector>

#include "jampot/files/measured.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot::tool {

/// All sets of all files.
std::vector<DataSet> read_measured_files(const std::vector<std::string>& files, const Bank& bank);

/// What is laid over a diagram of `mixture`: the sets about its substances, in its order; boiling liquids, or
/// two liquids in equilibrium. Of a file with several sets those about something else are left out, with a
/// notice in the first.
/// @throws RequestError where a file has none
std::vector<DataSet> read_overlays(const std::vector<std::string>& files, const Mixture& mixture,
                                   const Bank& bank, bool two_liquids = false);

}  // namespace jampot::tool
