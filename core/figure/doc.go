// Package figure makes shapes: the forged shape of a blade, cut into zones and cells, and
// every drawing of it: flat, bent as it lies, across, and in the round.
//
// x runs from the point, y over the spine of the heel, mm. Drawings are rounded to a
// thousandth of a millimetre where a plan carries many. Errors are fact.FieldErrors.
package figure
