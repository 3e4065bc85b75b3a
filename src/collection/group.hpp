#pragma once
// One group of substances of an archive: fitted, held against what is known, written.
#include "jampot/collection/collect.hpp"

namespace jampot {

/// What decides whether the work on a group is to be done again.
std::string key_of(const ArchiveGroup& group, const CollectRequest& request);

/// The record of a group as it stands in the collection, a JSON text; empty where there is none with this
/// key.
std::string record_with(const std::filesystem::path& out, const std::string& name, const std::string& key);

/// Fits the group and writes its pairs, its page and, last, its record. @returns the record
std::string work_out(const ArchiveGroup& group, const CollectRequest& request);

/// Files of a group in a collection.
std::filesystem::path report_file(const std::filesystem::path& out, const std::string& name);
std::filesystem::path record_file(const std::filesystem::path& out, const std::string& name);

}  // namespace jampot
