package finish

import (
	"math"
	"slices"

	"coldember/core/blade"
)

// Sheath is a pouch folded over the spine and closed along the edge.
type Sheath struct {
	Cover       Cover        `json:"cover" enum:"none,leather,thermo"`
	ThicknessMm float64      `json:"thicknessMm"`
	WrapMm      float64      `json:"wrapMm" doc:"round the blade where it is widest, seams included"`
	LongMm      float64      `json:"longMm" doc:"mouth to end"`
	WeltMm      float64      `json:"weltMm" doc:"strip in the seam that the edge meets: so thick"`
	SeamMm      float64      `json:"seamMm"`
	Template    []blade.Node `json:"template" doc:"laid flat: x from its mouth, y from the fold"`
	Fold        [2]float64   `json:"foldMm" doc:"from y to y: the spine lies between"`
}

// How a sheath is cut (judgement).
const (
	seamLeatherMm = 9.0
	seamThermoMm  = 12.0
	endMm         = 6.0 // beyond the point
	mouthMm       = 12  // over the ricasso and the guard's back
)

// SheathOf is the sheath of a knife; of one that has none it is empty.
func SheathOf(w *Work) Sheath {
	c := &w.Choices
	s := Sheath{Cover: c.Cover, Template: []blade.Node{}}
	if c.Cover != Leather && c.Cover != Thermo {
		s.Cover = NoCover
		return s
	}
	b := w.Steel.Finished
	s.ThicknessMm, s.SeamMm = c.coverMm(), seamLeatherMm
	if c.Cover == Thermo {
		s.SeamMm = seamThermoMm
	} else {
		s.WeltMm = math.Ceil(b.ThickestMm()/s.ThicknessMm) * s.ThicknessMm
	}
	over := mouthMm + 0.0
	if r := b.Blade.Ricasso; r != nil {
		over = math.Max(over, r.LengthMm)
	}
	s.LongMm = b.LengthMm() + over + endMm
	// half of the spine and of the sheet's own turn, on either side of the fold
	fold := b.ThickestMm()/2 + s.ThicknessMm*math.Pi/4
	s.Fold = [2]float64{-fold, fold}
	top := b.SpineY(b.LengthMm())
	for x := range stations(b.LengthMm()) {
		top = math.Max(top, b.SpineY(x))
	}
	// one side, from the mouth to beyond the point: the edge's line, out by seam and thickness
	var side []blade.Node
	out := s.SeamMm + s.ThicknessMm
	low := b.EdgeY(b.LengthMm())
	side = append(side, blade.Node{0, fold + top - low + out})
	for x := range stations(b.LengthMm()) {
		side = append(side, blade.Node{over + b.LengthMm() - x, fold + top - b.EdgeY(x) + out})
	}
	side[1][0] = math.Max(side[1][0], over)
	slices.SortFunc(side, func(a, c blade.Node) int {
		switch {
		case a[0] < c[0]:
			return -1
		case a[0] > c[0]:
			return 1
		}
		return 0
	})
	last := side[len(side)-1]
	side = append(side, blade.Node{s.LongMm, math.Max(fold+s.SeamMm, last[1]-endMm)}, blade.Node{s.LongMm, 0})
	wide := 0.0
	for _, n := range side {
		wide = math.Max(wide, n[1])
	}
	s.WrapMm = 2 * wide
	s.Template = append(s.Template, side...)
	for i := len(side) - 2; i >= 0; i-- {
		s.Template = append(s.Template, blade.Node{side[i][0], -side[i][1]})
	}
	return s
}

// stations are places along a blade, from its heel to its point.
func stations(lengthMm float64) func(yield func(float64) bool) {
	return func(yield func(float64) bool) {
		const n = 60
		for i := range n + 1 {
			if !yield(lengthMm * float64(n-i) / n) {
				return
			}
		}
	}
}
