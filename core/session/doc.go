// Package session is what happens at the fire. A plan that is taken there is frozen as a
// Course: its steps in order, one at a time inside each heat. What is done is told by Events,
// which are only ever added, each made on some device with a sequence of its own and the last
// event that it had seen. Everything that is shown is a fold of them: Order puts any set of
// events in the one order that they imply, Fold walks the course with them, View adds the
// clock, Book sums up what was against what was planned.
//
// All of it is pure and gives the same answer on every device: the order in which events
// arrive, repeats and gaps among them change nothing. Times are milliseconds of the device's
// own clock; clocks never order events, and how far one is off is taken from when its events
// were heard of. Errors are fact.FieldErrors.
package session
