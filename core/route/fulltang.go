package route

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
)

// stepMm is how much lower than the ricasso a full tang has to be, where it begins, for a
// shoulder to be set down (judgement).
const stepMm = 1.5

// reachMm is how far the hammer's face reaches beside the stretch it widens (judgement).
const reachMm = 12.0

// fullTang draws a tang that shows all round: set down only where there is a step to it, drawn
// where it is lower than the bar, widened where it is higher.
func (r *Route) fullTang(l *list, t0, t1 int) {
	from := t0
	if t0 > 0 && r.Cells[t0-1].Final.WidthMm-r.Cells[t0].Final.WidthMm > stepMm {
		l.add(forge.SetDown, forge.AnvilEdge, t0, t0, finished)
		from++
	}
	// what lies within reach of a stretch that is wider than the bar is widened with it
	wide := func(i int) bool {
		middle := (r.Cells[i].FromMm + r.Cells[i].ToMm) / 2
		for _, c := range r.Cells[t0 : t1+1] {
			if c.Bevelled.WidthMm > r.Bar.WidthMm+stepMm && c.FromMm < middle+reachMm && c.ToMm > middle-reachMm {
				return true
			}
		}
		return false
	}
	for from <= t1 {
		end := from
		for end < t1 && wide(end+1) == wide(from) {
			end++
		}
		if wide(from) {
			l.draw(forge.WidenTang, from, end, r.Bar.WidthMm, r.Bar.ThicknessMm, bevelled)
		} else {
			l.add(forge.DrawTang, forge.PeenAcross, from, end, bevelled)
		}
		from = end + 1
	}
}

// tangNotches drives notches into the drawn tang, once the ricasso is true.
func (r *Route) tangNotches(l *list) {
	t0, t1 := r.ofTheBar(plan.ZoneTang)
	if t0 < 0 || r.tang == nil || r.Req.Forged != nil || r.Req.SawnOut() {
		return
	}
	shoulder := r.Cells[t0].FromMm
	for _, c := range r.tang.Notches() {
		first, last := t0, t1
		for first < t1 && r.Cells[first].ToMm-shoulder <= c.FromMm {
			first++
		}
		for last > first && r.Cells[last].FromMm-shoulder >= c.ToMm {
			last--
		}
		op := l.add(forge.Notch, forge.RoundFace, first, last, finished)
		op.Support, op.Strokes = forge.BottomFuller, math.Ceil(notchStrokesAMm*c.DepthMm)
	}
}
