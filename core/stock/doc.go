// Package stock computes the solid volume, mass and straightened length of the pieces a
// blade starts from, and what steel a piece of salvage is likely to be.
//
// Solid measures a piece of any form; Even is the section that forging begins with,
// or an *Error where no bar comes of it, naming the dimension. Believe weighs origin and
// tests by Bayes' rule over a table of likelihoods that is judgement, and may be the shop's.
package stock
