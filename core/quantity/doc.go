// Package quantity parses and prints the lengths, masses, temperatures and plain
// numbers a smith types: "6mm", "1 1/4", "3/8in", "110+15", "1.2 kg".
//
// Everything is held in millimetres, grams and degrees Celsius; units exist only at the
// edges. The package is the one parser of the application. A text that is no quantity
// gives a *ParseError that points at the place; signs and sizes are for the caller to
// judge. Names of figures carry their unit: KindOf is the one place that reads it.
package quantity
