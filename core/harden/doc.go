// Package harden is the heat treatment of a blade: whether and how deep a steel hardens in a
// bath, how long there is to straighten it, how its grain grows and is refined, how far heat
// runs from a hot spine into a quenched edge, and what tempering leaves of the hardness.
//
// The laws are free functions with their sources and ranges; Advise puts them together for a
// blade. Errors are *RangeError, for what a law is not for. Pure: no clock, no state.
package harden

import "fmt"

// RangeError says which figure a law cannot take, and what it could.
type RangeError struct {
	Field           string
	Lowest, Highest float64
}

func (e *RangeError) Error() string {
	return fmt.Sprintf("harden: %s outside %g–%g", e.Field, e.Lowest, e.Highest)
}

func within(field string, v, lowest, highest float64) error {
	if !(v >= lowest && v <= highest) {
		return &RangeError{field, lowest, highest}
	}
	return nil
}
