#pragma once
// Measured boiling points that no liquid can have: a wrong unit, exchanged columns, mass taken for mole.
#include "jampot/basis/notice.hpp"
#include "jampot/measured/data_set.hpp"

namespace jampot {

/// The notice `data-implausible` where data of boiling liquids cannot be right as they are stated; nothing
/// where they can, or where no substance has a vapour pressure.
///
/// What is held against every point: the activity of a component of a stable liquid is at most one, so its
/// partial pressure is at most its vapour pressure (without a vapour analysis, the pressure is at most the
/// sum of them); and a nearly pure component boils nearly as if it were pure. Of binaries also: how well a
/// Redlich-Kister expansion of the excess Gibbs energy describes them, by Barker's method. Where either
/// fails, the data are read anew with other units of temperature and pressure, gauge for absolute pressure,
/// components exchanged, liquid and vapour exchanged, and mass for mole fractions; the reading that repairs
/// them is named as the likely cause.
///
/// Sources: O. Redlich, A. T. Kister, Ind. Eng. Chem. 40 (1948) 345-348; J. A. Barker, Aust. J. Chem. 6
/// (1953) 207-210.
Notices implausible(const DataSet& set);

}  // namespace jampot
