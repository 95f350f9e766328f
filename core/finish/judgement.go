package finish

// Judgement of grinding and fitting, in one place: what smiths take at the bench. A log of the shop
// puts the times right; each stands with the interval that is believed of it and why.
const (
	// A fresh grain cuts a scratch some eighth of its size deep, a worn one less than half of that:
	// scratches are far shallower than grains. .08–.16 and .03–.08.
	freshScratch = .12
	wornScratch  = .05
	// A worn belt takes off a third of what a sharp one does: .2–.5.
	wornShare = 1.0 / 3
	// Hardened steel comes off slower: .6–.85.
	hardShare = .7
	// To look, cool and turn goes on top of the time at the belt: 1.3–2.
	lookShare = 1.6
	// Each time is known to within so much, four times in five: 1.4–1.8.
	minutesDoubt = 1.6
	// On each face for after the quench: the skin of the soak. .05–.15 mm.
	leftAfterMm = .1
)

// belt is a belt by its grit.
type belt struct {
	mm3PerS float64 // of soft steel, sharp: hand-held on a 50 mm belt; good to a half
	lifeMm3 float64 // until it is used up; good to a half
}

var beltOf = map[int]belt{36: {45, 60_000}, 60: {28, 50_000}, 80: {18, 35_000}, 120: {9, 20_000}, 220: {3.5, 9_000}, 400: {1.2, 4_000}}

// bench is how long a piece of work takes: so long however large it is, to set up and to come true,
// and so much more for each square centimetre of both faces. What has to come off is time at the
// belt on top of it.
type bench struct{ min, minPerCm2 float64 }

// Times at the bench. They come to 3 to 5 hours for a utility knife in belt satin, from black blade
// to fitted handle, and to about twice that for a kitchen knife sanded to 800: each is good to a half.
var (
	profiling   = bench{6, .04} // to the template; by what lies inside of it
	flatting    = bench{4, .1}  // ricasso and tang, on the platen
	bevelling   = bench{12, .2} // both sides by turns: most passes are for symmetry, not for steel
	alongBelt   = bench{3, .05} // one direction, no shape to keep
	hardFirst   = bench{7, .12} // shape is kept by fewer, cooler passes
	gritBelt    = bench{4, .07} // until the scratches before are out
	brushed     = bench{5, .05} // wire brush and oil
	buffed      = bench{5, .25} // two compounds, both faces
	etchMin     = 45.0          // degrease, three baths of ten minutes, rub, neutralise, oil
	markMin     = 10.0          // stencil and etch, or engrave
	scribeMin   = 5.0           // two lines along the edge
	hiddenMin   = 10.0          // what guard and handle cover
	holeMin     = 4.0           // each: punch, drill, ease
	slotMin     = 40.0          // chain of holes, filed to a drive fit
	boreMin     = 20.0          // bored and opened
	notchesMin  = 5.0           // files and a vent
	scalesMin   = 35.0          // flat inside, clamped, drilled through with the tang
	frontsMin   = 10.0          // shaped and finished before glue
	trialMin    = 10.0          // all of it together, dry
	glueWorkMin = 15.0          // rough, degrease, glue, clamp, wipe
	shapeMin    = 50.0          // belts, rasps, paper to 220, oil
	sharpenMin  = 20.0          // two stones and a strop
	sheathMin   = 120.0         // cut, sewn or pressed, wet-formed
	inspectMin  = 10.0          // weight, balance, straight, light at the guard
)

// paper is how fast a grit is sanded by hand once the scratches before it are even, cm² of face a
// minute: the first after the belt takes longest, since a belt's scratches are not all alike.
var paper = map[int]float64{320: 4, 400: 6, 600: 6, 800: 7, 1000: 8}

// grainUm is the mean grain of FEPA's P grits, µm (43-1: macrogrits by sieve, microgrits by
// sedimentation).
var grainUm = map[int]float64{36: 538, 60: 269, 80: 201, 120: 125, 220: 68, 320: 46.2, 400: 35, 600: 25.8, 800: 21.8, 1000: 18.3}
