// Package blade describes a finished blade and its forged shape: outline, thickness, grind,
// ricasso and tang, with volume, mass, balance and zones.
//
// x runs from the point (0) toward the handle, y from edge to spine; all lengths are mm. A
// Design is what a smith says; Blade is the geometry that comes of it; New makes a Body of
// a Blade, whose figures are within 0.05 % of the exact solid, or an *Error (or a
// *section.Error) that names the field to mend. Bodies do not change.
package blade
