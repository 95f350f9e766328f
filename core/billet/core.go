package billet

import "math"

// Core is the middle layer of a bar laid about one: where it comes out along the bevels, and whether
// the edge stays in it.
type Core struct {
	SteelID string `json:"steelId"`
	// UpMm is how far above the edge it comes out, at stations along the blade; 0: nowhere.
	XMm  []float64 `json:"x"`
	UpMm []float64 `json:"upMm"`
	// EdgeIn: the edge is of it all along.
	EdgeIn bool `json:"edgeIn"`
	// OffMm is how far off the middle it may lie until the edge leaves it somewhere; negative: by so
	// much it is out already.
	OffMm float64 `json:"offMm"`
}

// coreStations are looked at along a blade.
const coreStations = 48

// CoreOf tells of the middle layer of a straight bar with an odd number of layers; ok is false for
// every other.
func (b *Blade) CoreOf() (c Core, ok bool) {
	n := len(b.Laid)
	if b.Bar.Pattern != Straight || b.Join.Bars > 1 || b.Join.EdgeMm > 0 || n < 3 || n%2 == 0 {
		return c, false
	}
	half := b.Laid[n/2].ThicknessMm / 2 // of the bar, as a share of its whole thickness
	c = Core{SteelID: b.Laid[n/2].SteelID, XMm: []float64{}, UpMm: []float64{}, EdgeIn: true, OffMm: math.Inf(1)}
	for i := range coreStations {
		x := b.Finished.LengthMm() * (float64(i) + .5) / coreStations
		xf := b.forgedX(x)
		if xf < 0 || xf > b.Forged.LengthMm() {
			continue
		}
		fin, forged := b.Finished.SectionAt(x), b.Forged.SectionAt(xf)
		whole := func(y float64) float64 { return b.whole(&forged, b.inForged(x, xf, y)) }
		out := func(y float64) float64 { // how far the face lies outside of the core, mm
			return (fin.ThicknessAt(y)-2*b.DeeperMm)/2 - half*whole(y)
		}
		left := half*whole(0) - fin.ThicknessAt(0)/2
		c.OffMm = math.Min(c.OffMm, left)
		c.EdgeIn = c.EdgeIn && left >= 0
		up := 0.0
		if out(0) < 0 {
			lo, hi := 0.0, fin.HeightMm
			if out(hi) > 0 {
				for range 40 {
					if mid := (lo + hi) / 2; out(mid) < 0 {
						lo = mid
					} else {
						hi = mid
					}
				}
				up = lo
			} else {
				up = hi
			}
		}
		c.XMm, c.UpMm = append(c.XMm, x), append(c.UpMm, up)
	}
	return c, true
}
