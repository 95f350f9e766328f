// Package route is the way from a bar to the forged shape: which operations, in which order
// and why, by which tool, to which section of every cell; and whether the bar reaches the
// shape at all.
//
// New cuts the shape into cells; Operations lists what is done, in the order of the school
// or the smith's own, with targets that the scale still to come is not yet added to. An
// order that breaks a need is fact.FieldErrors (RefuseOrder) unless it is forced.
package route
