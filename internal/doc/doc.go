// Package doc has the documents that are stored: pieces of work, patterns, stock,
// the shop and the requests of kept plans. They age well: each is stored with the
// version of its form, every older form is brought up to the present one by a chain
// of small steps, and a form that is newer than this program is refused and left
// alone.
//
// What is queried or appended (cuts, history, what happens at the fire) is no part of a
// document: it has rows of its own in the store.
package doc

import (
	"time"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/forge"
	"coldember/core/harden"
	"coldember/core/hour"
	"coldember/core/learn"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/steel"
	"coldember/core/stock"
)

// Piece is a piece of work: its own blade and everything that its plan is made
// from.
type Piece struct {
	Name    string       `json:"name"`
	Notes   string       `json:"notes,omitempty"`
	StockID string       `json:"stockId,omitempty"`
	Hand    string       `json:"hand,omitempty"`
	Request plan.Request `json:"request"`
	Picture *Picture     `json:"picture,omitempty"`
	Owner   string       `json:"owner,omitempty" doc:"whose it is, of a class; the shop's where nobody is named"`
	Shared  bool         `json:"shared,omitempty" doc:"seen by the whole class"`
}

// Pattern is a design to start from.
type Pattern struct {
	Name       string           `json:"name"`
	Tags       []string         `json:"tags"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
	Picture    *Picture         `json:"picture,omitempty"`
}

// Stock is what is known about a piece on the rack.
type Stock struct {
	Name         string          `json:"name"`
	Piece        stock.Item      `json:"piece"`
	SteelID      string          `json:"steelId"`
	Count        int             `json:"count"`
	Believed     bool            `json:"believed,omitempty"` // the steel is presumed by what the piece was, not known
	Hazards      []string        `json:"hazards,omitempty"`
	Notes        string          `json:"notes,omitempty"`
	Origin       string          `json:"origin,omitempty"`       // what it was before
	Certificate  string          `json:"certificate,omitempty"`  // maker or certificate of a known steel
	Analysis     *steel.Analysis `json:"analysis,omitempty"`     // what the certificate says of it
	Billet       *billet.Recipe  `json:"billet,omitempty"`       // how it was laid, of a bar that has layers
	Welded       []Welded        `json:"welded,omitempty"`       // what happened as it was welded
	EtchID       string          `json:"etchId,omitempty"`       // picture of its test etch
	Findings     []stock.Finding `json:"findings,omitempty"`     // tests made on it
	Coupon       []string        `json:"coupon,omitempty"`       // steps of the coupon that are done
	Acknowledged []string        `json:"acknowledged,omitempty"` // hazards that have been seen to
	Place        string          `json:"place,omitempty"`
	Cost         float64         `json:"cost,omitempty"`      // of one piece, in the shop's money
	WeighedKg    float64         `json:"weighedKg,omitempty"` // one piece on the scale: a check on its dimensions
	ParentID     string          `json:"parentId,omitempty"`  // the piece it was cut from
	Layout       *KeptLayout     `json:"layout,omitempty"`    // outlines that are laid on it, to be sawn out
}

// Welded is an entry of the log of a billet: a weld that was looked at, a split, layers that were
// lost, what was salvaged.
type Welded struct {
	Kind   string    `json:"kind" enum:"weld,split,layers,salvaged,note"`
	Mm     float64   `json:"mm,omitempty" doc:"of the bar: split off, or salvaged"`
	Layers int       `json:"layers,omitempty"`
	Words  string    `json:"words,omitempty"`
	At     time.Time `json:"at"`
}

// WeldedKinds lists what may happen to a billet.
func WeldedKinds() []string { return []string{"weld", "split", "layers", "salvaged", "note"} }

// MostWelded is how many entries a billet keeps.
const MostWelded = 200

// Shop is the settings: units, looks, and the usual set of those who work here.
type Shop struct {
	Units       quantity.System    `json:"units" enum:"mm,in"`
	Fraction    int                `json:"fraction,omitempty" doc:"finest fraction of an inch printed: 64, or else 32"`
	Temperature string             `json:"temperature,omitempty" enum:"C,F" doc:"where it is not as usual with the units"`
	HeatWords   string             `json:"heatWords,omitempty" enum:"usual,sooner" doc:"school of the words for hot steel; usual if not said"`
	Theme       string             `json:"theme" enum:"night,day,system"`
	Language    string             `json:"language,omitempty"` // two letters; none yet: as the browser speaks
	NewsSeen    int                `json:"newsSeen,omitempty"` // how much of what is new was told
	Walk        int                `json:"walk,omitempty"`     // which step of the first walk comes next; 0: none
	Paper       string             `json:"paper" enum:"a4,letter"`
	Smiths      []Hand             `json:"smiths"`
	Hammers     []NamedHammer      `json:"hammers"`
	Hearths     []NamedHearth      `json:"hearths"`
	Fire        forge.Fire         `json:"fire"`
	Prices      plan.Prices        `json:"prices"`
	Likelihoods []stock.Likelihood `json:"likelihoods,omitempty"` // the shop's own, in place of the table's
	Demo        bool               `json:"demo,omitempty"`        // this database holds the demonstration
	Copies      CopySettings       `json:"copies"`
	Tongs       []NamedTongs       `json:"tongs"`
	Baths       []NamedBath        `json:"baths"`
	Ovens       []NamedOven        `json:"ovens"`
	Blocks      []NamedBlock       `json:"blocks"`
	// Learned is what the shop says of factors that its book taught, by kind and whose.
	Learned map[string]learn.Choice `json:"learned,omitempty"`
	// Hours are what was measured of smiths and forge on purpose, an hour each.
	Hours []hour.Hour `json:"hours,omitempty"`
	// HoursPerWeek are those that the shop works; a day can then be promised.
	HoursPerWeek float64 `json:"hoursPerWeek,omitempty"`
}

// MostLearned bounds what a shop says of factors.
const MostLearned = 1000

// MostAnswers bounds what it says of single pieces, of each factor.
const MostAnswers = 200

// CopySettings are where copies of the whole file lie, and how many of those made by
// themselves are kept.
type CopySettings struct {
	Folder string `json:"folder" doc:"empty: beside the file itself"`
	Keep   int    `json:"keep"`
}

// Hand is one smith of the shop, with their hammer.
type Hand struct {
	Name string `json:"name"`
	forge.Smith
}

// NamedHammer is a hammer of the shop, to be taken up for a piece.
type NamedHammer struct {
	Name string `json:"name"`
	forge.Hammer
}

// NamedTongs are a pair of tongs of the shop.
type NamedTongs struct {
	Name string `json:"name"`
	forge.Tongs
}

// NamedBath is a tank of the shop, to quench in.
type NamedBath struct {
	Name string `json:"name"`
	harden.Bath
}

// NamedOven is what the shop tempers in.
type NamedOven struct {
	Name string `json:"name"`
	harden.Oven
}

// NamedBlock is handle material on the shelf.
type NamedBlock struct {
	Name string `json:"name"`
	finish.Kept
}

// NamedHearth is a forge of the shop, to be gone to with a piece.
type NamedHearth struct {
	Name string `json:"name"`
	forge.Hearth
}

// Picture lies behind an outline: its top left corner at (xMm, yMm) from the point
// and the spine of the heel, so many millimetres a pixel, turned about that corner.
type Picture struct {
	ID            string  `json:"id"`
	WidthPx       int     `json:"widthPx"`
	HeightPx      int     `json:"heightPx"`
	XMm           float64 `json:"xMm"`
	YMm           float64 `json:"yMm"`
	MmPerPx       float64 `json:"mmPerPx"`
	TurnDeg       float64 `json:"turnDeg" doc:"clockwise, as it is seen with the point to the left"`
	StrengthShare float64 `json:"strengthShare" doc:"how strongly it shows, 0–1"`
}

// Validate reports every figure that cannot be; no picture is fine.
func (p *Picture) Validate(c fact.Check) {
	if p == nil {
		return
	}
	w := c.Within("picture")
	w.Range("xMm", p.XMm, -3000, 3000)
	w.Range("yMm", p.YMm, -3000, 3000)
	w.Range("mmPerPx", p.MmPerPx, 1e-4, 100)
	w.Range("turnDeg", p.TurnDeg, -360, 360)
	w.Range("strengthShare", p.StrengthShare, .05, 1)
}

// CutMade is what was cut from a piece of stock.
type CutMade struct {
	PieceID  string
	Name     string
	LengthMm float64
	At       time.Time
}

// Summary is what the list of pieces shows. It is derived: one that cannot be read
// is made anew with the next save.
type Summary struct {
	CutLengthMm float64        `json:"cutLengthMm"`
	LowMm       float64        `json:"lowMm,omitempty"` // four of five cases take a length from here
	HighMm      float64        `json:"highMm,omitempty"`
	Heats       int            `json:"heats"`
	Stops       int            `json:"stops"`
	BladeMm     float64        `json:"bladeMm"`
	MassG       float64        `json:"massG"`
	SteelID     string         `json:"steelId"`
	Shape       string         `json:"shape"`
	Sketch      []plan.Station `json:"sketch"`
}

// Kept is a plan that was kept: the request that made it, and what it came to.
type Kept struct {
	Request plan.Request `json:"request"`
	Totals  plan.Totals  `json:"totals"`
}
