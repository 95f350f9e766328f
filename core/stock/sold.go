package stock

import "math"

// SoldWidthMm and SoldThicknessMm are the next width and thickness of flat bar, from these
// on, that one can ask a dealer for: whole millimetres, and half ones (judgement: the steps of
// the usual lists). Whatever tells of a bar that would do tells of such a one.
func SoldWidthMm(mm float64) float64 { return math.Ceil(mm - 1e-9) }

// SoldThicknessMm is explained with SoldWidthMm.
func SoldThicknessMm(mm float64) float64 { return math.Ceil(2*mm-1e-9) / 2 }
