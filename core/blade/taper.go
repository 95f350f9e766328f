package blade

import (
	"math"
	"slices"
	"strconv"

	"coldember/core/fact"
)

// TaperNode is one node of the distal taper, seen from the spine.
type TaperNode struct {
	AtFraction  float64 `json:"atFraction" doc:"of the blade's length, from the point"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// Limits of a taper drawn by nodes.
const (
	maxTaperNodes = 12
	taperGap      = 0.01 // share of the length between two nodes, at least
)

// taper is the distal taper as chords: straight; the parabola through point,
// middle and heel; or monotone through the smith's nodes. Chords keep within a
// hundredth of a millimetre of the curve.
func (d Design) taper() []Node {
	switch {
	case len(d.TaperNodes) > 0:
		return d.taperThroughNodes()
	case d.MidMm == 0:
		return []Node{{0, d.TipMm}, {d.LengthMm, d.SpineMm}}
	}
	const n = 12
	out := make([]Node, n+1)
	bow := 4 * (d.MidMm - (d.TipMm+d.SpineMm)/2)
	for i := range out {
		u := float64(i) / n
		out[i] = Node{u * d.LengthMm, d.TipMm + (d.SpineMm-d.TipMm)*u + bow*u*(1-u)}
	}
	return out
}

func (d Design) taperThroughNodes() []Node {
	nodes := []Node{{0, d.TipMm}}
	for _, n := range d.TaperNodes {
		nodes = append(nodes, Node{n.AtFraction * d.LengthMm, n.ThicknessMm})
	}
	nodes = append(nodes, Node{d.LengthMm, d.SpineMm})
	c, err := fit(nodes, Smooth, nil, "taperNodes")
	if err != nil {
		return nodes // Validate names what is wrong; New refuses the same nodes
	}
	const chords = 6 // between two nodes
	out := []Node{nodes[0]}
	for i := 1; i < len(nodes); i++ {
		a, b := nodes[i-1][0], nodes[i][0]
		for k := 1; k <= chords; k++ {
			x := a + (b-a)*float64(k)/chords
			out = append(out, Node{x, c.Predict(x)})
		}
	}
	return out
}

// ThicknessAt is the spine's thickness x mm from the point, mm.
func (d Design) ThicknessAt(x float64) float64 {
	c, err := fit(d.taper(), Straight, nil, "")
	if err != nil {
		return d.SpineMm
	}
	return c.Predict(x)
}

// AddTaperNode adds a node where the taper runs now, x mm from the point; false
// outside the blade, on a node, or when there are too many.
func (d *Design) AddTaperNode(x float64) bool {
	u := x / d.LengthMm
	at := 0
	for at < len(d.TaperNodes) && d.TaperNodes[at].AtFraction < u {
		at++
	}
	node := TaperNode{AtFraction: u, ThicknessMm: math.Round(d.ThicknessAt(x)*100) / 100}
	nodes := slices.Insert(slices.Clone(d.TaperNodes), at, node)
	if len(nodes) > maxTaperNodes || badTaperNode(nodes) >= 0 {
		return false
	}
	d.TaperNodes = nodes
	return true
}

// MoveTaperNode puts a node x mm from the point with a thickness; false when
// there is no such node.
func (d *Design) MoveTaperNode(i int, x, thicknessMm float64) bool {
	if i < 0 || i >= len(d.TaperNodes) {
		return false
	}
	d.TaperNodes = slices.Clone(d.TaperNodes)
	d.TaperNodes[i] = TaperNode{AtFraction: x / d.LengthMm, ThicknessMm: thicknessMm}
	return true
}

// DeleteTaperNode takes a node out.
func (d *Design) DeleteTaperNode(i int) bool {
	if i < 0 || i >= len(d.TaperNodes) {
		return false
	}
	d.TaperNodes = slices.Delete(slices.Clone(d.TaperNodes), i, i+1)
	return true
}

// badTaperNode is the first node out of order, or -1.
func badTaperNode(nodes []TaperNode) int {
	last := 0.0
	for i, n := range nodes {
		if !(n.AtFraction >= last+taperGap && n.AtFraction <= 1-taperGap) {
			return i
		}
		last = n.AtFraction
	}
	return -1
}

func (d Design) validateTaper(c fact.Check) {
	if len(d.TaperNodes) > maxTaperNodes {
		c.Fail("taperNodes", "blade.manyTaperNodes", fact.Figures{"most": maxTaperNodes})
		return
	}
	t := c.Within("taperNodes")
	if i := badTaperNode(d.TaperNodes); i >= 0 {
		t.Fail(strconv.Itoa(i), "blade.nodesOrder", fact.Figures{"atMm": d.TaperNodes[i].AtFraction * d.LengthMm})
	}
	for i, n := range d.TaperNodes {
		t.Range(strconv.Itoa(i)+".thicknessMm", n.ThicknessMm, minThickMm, maxThickMm)
	}
}
