//! Constants of nature.

/// Universal gas constant, J/mol K.
pub(super) const GAS: f64 = 8.314;
/// Stefan and Boltzmann's constant, W/m2K4.
pub(super) const SIGMA: f64 = 5.670e-8;
