package blade

// Presets that are drawn as nodes, after what smiths make: x along the blade from the point,
// y as shares of the height at the heel, whose spine is at 0. They stay the same few nodes
// when the outline is taken as one's own.
const (
	Clip         Shape = "clip"         // the spine cut away straight toward the point
	ClipCurved   Shape = "clipCurved"   // the same, hollow
	BrokenBack   Shape = "brokenBack"   // the spine breaks and falls to the line of the edge
	Angled       Shape = "angled"       // a straight edge, the spine cut down to it at an angle
	Recurve      Shape = "recurve"      // a belly ahead, a hollow edge behind
	Belly        Shape = "belly"        // deep and round, for skins
	Sweep        Shape = "sweep"        // swept up to the point
	Leaf         Shape = "leaf"         // widest ahead of the middle, one edge
	DoubleLeaf   Shape = "doubleLeaf"   // the same with two edges and a waist
	Sickle       Shape = "sickle"       // bent toward its edge
	Nosed        Shape = "nosed"        // a chopper, heavy at the nose
	Beaked       Shape = "beaked"       // a chopper whose point hangs before the edge
	StraightLong Shape = "straightLong" // a long two-edged blade
	CurvedLong   Shape = "curvedLong"   // a long blade that rises to its point
)

// drawnShapes are the presets drawn as nodes.
var drawnShapes = map[Shape]Outline{
	Clip: {
		Spine: []Node{{0, -.5}, {.4, 0}, {1, 0}}, SpineCorners: []int{1},
		Edge: []Node{{0, -.5}, {.006, -.56}, {.025, -.64}, {.06, -.735}, {.115, -.83}, {.19, -.915}, {.29, -.975}, {.42, -1}, {1, -1}},
	},
	ClipCurved: {
		Spine: []Node{{0, -.46}, {.1, -.4}, {.2, -.3}, {.3, -.165}, {.4, 0}, {1, 0}}, SpineCorners: []int{4},
		Edge: []Node{{0, -.46}, {.006, -.53}, {.025, -.62}, {.06, -.72}, {.115, -.825}, {.19, -.915}, {.29, -.975}, {.42, -1}, {1, -1}},
	},
	BrokenBack: {
		Spine: []Node{{0, -.95}, {.36, .08}, {1, 0}}, SpineCorners: []int{1},
		Edge: []Node{{0, -.95}, {.02, -.97}, {.06, -.985}, {.15, -1}, {1, -1}},
	},
	Angled: {
		Spine: []Node{{0, -.8}, {.14, 0}, {1, 0}}, SpineCorners: []int{1},
		Edge: []Node{{0, -.8}, {.01, -.845}, {.035, -.89}, {.09, -.935}, {.2, -.975}, {.45, -1}, {1, -1}},
	},
	Recurve: {
		Spine: []Node{{0, -.44}, {.09, -.3}, {.22, -.13}, {.4, -.03}, {.6, 0}, {1, 0}},
		Edge:  []Node{{0, -.44}, {.008, -.52}, {.03, -.64}, {.07, -.78}, {.13, -.92}, {.21, -1.03}, {.32, -1.08}, {.45, -1.03}, {.6, -.94}, {.76, -.9}, {.9, -.95}, {1, -1}},
	},
	Belly: {
		Spine: []Node{{0, .06}, {.18, .12}, {.4, .12}, {.7, .05}, {1, 0}},
		Edge:  []Node{{0, .06}, {.006, -.07}, {.025, -.24}, {.06, -.46}, {.115, -.69}, {.19, -.9}, {.29, -1.06}, {.41, -1.14}, {.55, -1.15}, {.75, -1.08}, {1, -1}},
	},
	Sweep: {
		Spine: []Node{{0, .46}, {.045, .4}, {.12, .31}, {.28, .155}, {.46, .055}, {.68, 0}, {1, 0}},
		Edge:  []Node{{0, .46}, {.012, .31}, {.045, .07}, {.1, -.24}, {.18, -.55}, {.28, -.79}, {.4, -.94}, {.56, -1}, {1, -1}},
	},
	Leaf: {
		Spine: []Node{{0, -.5}, {.05, -.37}, {.14, -.19}, {.28, -.04}, {.45, .03}, {.7, .02}, {1, 0}},
		Edge:  []Node{{0, -.5}, {.012, -.59}, {.045, -.74}, {.1, -.93}, {.18, -1.1}, {.3, -1.23}, {.43, -1.25}, {.6, -1.14}, {.8, -1.02}, {1, -1}},
	},
	DoubleLeaf: twoEdged([]Node{{0, 0}, {.012, .07}, {.045, .2}, {.1, .37}, {.19, .54}, {.3, .65}, {.41, .67}, {.58, .59}, {.8, .47}, {1, .5}}),
	Sickle: {
		Spine: []Node{{0, -2.1}, {.04, -1.72}, {.1, -1.27}, {.19, -.72}, {.3, -.2}, {.43, .18}, {.57, .35}, {.72, .33}, {.87, .16}, {1, 0}},
		Edge:  []Node{{0, -2.1}, {.04, -1.92}, {.1, -1.62}, {.19, -1.22}, {.3, -.85}, {.43, -.58}, {.57, -.48}, {.72, -.54}, {.87, -.76}, {1, -1}},
	},
	Nosed: {
		Spine: []Node{{0, -.7}, {.02, -.42}, {.06, -.2}, {.12, -.07}, {.22, 0}, {.6, .03}, {1, 0}},
		Edge:  []Node{{0, -.7}, {.008, -.95}, {.028, -1.18}, {.06, -1.33}, {.12, -1.43}, {.22, -1.42}, {.38, -1.28}, {.58, -1.11}, {.8, -1.01}, {1, -1}},
	},
	Beaked: {
		Spine: []Node{{0, -1.42}, {.025, -1.1}, {.065, -.73}, {.12, -.36}, {.2, -.06}, {.31, .1}, {.48, .13}, {.72, .06}, {1, 0}},
		Edge:  []Node{{0, -1.42}, {.025, -1.38}, {.065, -1.26}, {.12, -1.1}, {.2, -.98}, {.31, -.93}, {.48, -.95}, {.72, -1}, {1, -1}},
	},
	StraightLong: twoEdged([]Node{{0, 0}, {.006, .06}, {.018, .135}, {.04, .22}, {.075, .3}, {.12, .345}, {.3, .39}, {.65, .44}, {1, .5}}),
	CurvedLong: {
		Spine: []Node{{0, 1.5}, {.08, 1.29}, {.2, .98}, {.35, .64}, {.5, .37}, {.65, .18}, {.82, .045}, {1, 0}},
		Edge:  []Node{{0, 1.5}, {.005, 1.36}, {.018, 1.14}, {.04, .9}, {.08, .63}, {.13, .43}, {.2, .22}, {.35, -.14}, {.5, -.44}, {.65, -.67}, {.82, -.87}, {1, -1}},
	},
}

// twoEdged is the outline whose edge is its spine turned over, of half heights.
func twoEdged(half []Node) (o Outline) {
	for _, n := range half {
		o.Spine = append(o.Spine, Node{n[0], n[1] - .5})
		o.Edge = append(o.Edge, Node{n[0], -n[1] - .5})
	}
	return o
}

// drawn is a preset of nodes at a length and height.
func (s Shape) drawn(lengthMm, heightMm float64) (Outline, bool) {
	o, ok := drawnShapes[s]
	if !ok {
		return o, false
	}
	o.Join = Smooth
	return o.stretched(lengthMm, heightMm), true
}
