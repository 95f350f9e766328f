package blade

// Use is what a blade is for: it says which figures are usual.
type Use string

// The uses.
const (
	UseUtility Use = "utility"
	UseDeep    Use = "kitchenDeep"
	UseSlicer  Use = "kitchenSlicer"
	UseCamp    Use = "camp"
	UseFighter Use = "fighter"
	UseHook    Use = "hook"
	UseChisel  Use = "chisel"
	UseCleaver Use = "cleaver"
	UseScribe  Use = "scribe"
	UseFillet  Use = "fillet"
	UseChopper Use = "chopper"
	UseSickle  Use = "sickle"
	UseSword   Use = "sword"
	UseSpoon   Use = "spoon"
)

// Uses lists them.
func Uses() []Use {
	return []Use{UseUtility, UseDeep, UseSlicer, UseCamp, UseFighter, UseHook, UseChisel, UseCleaver, UseScribe, UseFillet, UseChopper, UseSickle, UseSword, UseSpoon}
}

// Range is lowest and highest of what is usual; Highest 0 has no upper end.
type Range struct {
	Lowest  float64 `json:"lowest"`
	Highest float64 `json:"highest"`
}

// Has tells whether v is usual.
func (r Range) Has(v float64) bool { return v >= r.Lowest && (r.Highest == 0 || v <= r.Highest) }

// Guide is what is usual for a use: judgement from common practice, not a rule.
// Weight is of the bare steel against the length of the blade, so that it holds
// for every size; balance is the distance ahead of the heel (negative: behind,
// in the handle), of the bare steel, as a share of the blade's length.
type Guide struct {
	WeightGPerMm Range `json:"weightGPerMm"`
	BalanceShare Range `json:"balanceShare"`
	Behind5Mm    Range `json:"behind5Mm" doc:"thickness 5 mm above the edge, two thirds of the way to the heel"`
	StiffMm4     Range `json:"stiffMm4" doc:"second moment flatwise there"`
}

// guides holds one row a use.
var guides = map[Use]Guide{
	UseUtility: {Range{0.5, 1.2}, Range{-0.5, 0.1}, Range{0.7, 1.6}, Range{12, 160}},
	UseDeep:    {Range{0.5, 1.2}, Range{-0.25, 0.35}, Range{0.4, 0.9}, Range{12, 120}},
	UseSlicer:  {Range{0.35, 0.9}, Range{-0.35, 0.25}, Range{0.4, 0.9}, Range{8, 70}},
	UseCamp:    {Range{1.0, 2.4}, Range{-0.2, 0.35}, Range{1.2, 3.0}, Range{150, 900}},
	UseFighter: {Range{0.7, 1.8}, Range{-0.35, 0.15}, Range{1.0, 2.6}, Range{35, 400}},
	UseHook:    {Range{0.4, 1.3}, Range{-0.9, 0.1}, Range{0.8, 2.2}, Range{8, 200}},
	UseChisel:  {Range{0.6, 2.0}, Range{-0.6, 0.2}, Range{0.9, 2.4}, Range{40, 400}},
	UseCleaver: {Range{1.4, 4.0}, Range{0.05, 0.6}, Range{0.6, 2.4}, Range{150, 2000}},
	UseScribe:  {Range{0.4, 1.4}, Range{-1.2, 0}, Range{0.9, 2.4}, Range{6, 150}},
	UseFillet:  {Range{0.25, 0.8}, Range{-0.5, 0.15}, Range{0.3, 0.9}, Range{4, 45}},
	UseChopper: {Range{1.0, 3.6}, Range{-0.1, 0.5}, Range{0.9, 3.4}, Range{100, 1800}},
	UseSickle:  {Range{0.35, 1.4}, Range{-0.2, 0.6}, Range{0.6, 2.4}, Range{10, 300}},
	UseSword:   {Range{0.7, 1.9}, Range{-0.05, 0.3}, Range{0.8, 3.2}, Range{60, 900}},
	UseSpoon:   {Range{0.3, 1.3}, Range{-1.2, 0.1}, Range{0.8, 2.6}, Range{6, 120}},
}

// Guide of a use; ok is false where nothing is known of it.
func (u Use) Guide() (g Guide, ok bool) {
	g, ok = guides[u]
	return g, ok
}

// Finding is one figure of a blade against what is usual for its use.
type Finding struct {
	What   string  `json:"what" enum:"weight,balance,behind,stiff"`
	Value  float64 `json:"value"`
	Lowest float64 `json:"lowest"`
	High   float64 `json:"highest"`
	Usual  bool    `json:"usual"`
}

// judgeShare is where along the blade thickness and stiffness are judged.
const judgeShare = 2.0 / 3

// Judge holds a body against its use: weight (g), balance (mm ahead of the
// heel), thickness 5 mm above the edge (mm) and stiffness (mm⁴). It is empty for
// a use that has no guide.
func (b *Body) Judge(u Use) []Finding {
	g, ok := u.Guide()
	if !ok {
		return []Finding{}
	}
	m := b.Measure()
	s := b.SectionAt(b.length * judgeShare)
	find := func(what string, v float64, r Range, unit float64) Finding {
		return Finding{what, v, r.Lowest * unit, r.Highest * unit, r.Has(v / unit)}
	}
	return []Finding{
		find("weight", m.MassG, g.WeightGPerMm, b.length),
		find("balance", b.length-m.BalanceFromPointMm, g.BalanceShare, b.length),
		find("behind", s.ThicknessAt(min(5, s.HeightMm)), g.Behind5Mm, 1),
		find("stiff", s.Properties().FlatwiseMm4, g.StiffMm4, 1),
	}
}
