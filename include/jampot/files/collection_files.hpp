#pragma once
// The files of a collection of pair parameters, and the parameters of a mixture out of them.
#include <filesystem>
#include <string>
#include <vector>

#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

/// Whether a folder is a collection: it has the folders pairs and records.
bool is_collection(const std::filesystem::path& folder);

/// The name that the files of these substances have, in whatever order they are given: "ethanol--water".
std::string collection_name(std::vector<std::string> substances);

/// The best model's pairs of these substances.
std::filesystem::path collection_pairs(const std::filesystem::path& collection, const std::string& name);
/// Those of another model that was fitted to the same data.
std::filesystem::path collection_pairs(const std::filesystem::path& collection, const std::string& name,
                                       const std::string& model);

/// The parameters of every pair of a mixture that a collection has: of `model`, or, where that is empty, of
/// the model that has all pairs and is the best of most of them. Of three substances those fitted to data of
/// all three, where a pair by itself is missing.
/// @throws RequestError for a folder that is no collection or has none of the pairs
void read_collection(const std::filesystem::path& collection, const std::vector<Substance>& substances,
                     const std::string& model, ParameterCollection& parameters,
                     const Bank& bank = Bank::built_in());

}  // namespace jampot
