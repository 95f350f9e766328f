// Package work has the use cases: pieces with their history, patterns, the
// rack and the shop. It is the only caller of store.
package work

import (
	"time"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/text"
)

// Settings are the shop's: units, looks, and the smith's usual set.
type Settings struct {
	Units       quantity.System    `json:"units" enum:"mm,in"`
	Theme       string             `json:"theme" enum:"night,day,system"`
	Paper       string             `json:"paper" enum:"a4,letter"`
	Smiths      []Hand             `json:"smiths" doc:"who works here, with whose hammer"`
	Hammers     []NamedHammer      `json:"hammers" doc:"to take up for a piece"`
	Hearths     []NamedHearth      `json:"hearths" doc:"forges to go to with a piece"`
	Fire        forge.Fire         `json:"fire"`
	Prices      plan.Prices        `json:"prices"`
	Likelihoods []stock.Likelihood `json:"likelihoods,omitempty" doc:"the shop's own, in place of the table's"`
	Demo        bool               `json:"demo,omitempty" doc:"this database holds the demonstration"`
	Version     int                `json:"version"`
}

// Hand is one smith of the shop.
type Hand struct {
	Name string `json:"name"`
	forge.Smith
}

// DefaultSettings are those of a new database.
func DefaultSettings() Settings {
	s := Settings{
		Units: quantity.Metric, Theme: "night", Paper: "a4",
		Smiths: []Hand{{Name: text.Say("shop.ownHand", nil), Smith: forge.NewSmith(forge.Steady)}}, Fire: forge.NewFire(),
	}
	s.usualSets()
	return s
}

// StockDoc is what is known about a piece on the rack.
type StockDoc struct {
	Name     string      `json:"name"`
	Piece    stock.Piece `json:"piece"`
	SteelID  string      `json:"steelId"`
	Count    int         `json:"count"`
	Believed bool        `json:"believed,omitempty" doc:"the steel is presumed by what the piece was, not known"`
	Hazards  []string    `json:"hazards,omitempty"`
	Notes    string      `json:"notes,omitempty"`

	Origin       string          `json:"origin,omitempty" doc:"what it was before"`
	Certificate  string          `json:"certificate,omitempty" doc:"maker or certificate of a known steel"`
	Findings     []stock.Finding `json:"findings,omitempty" doc:"tests made on it"`
	Coupon       []string        `json:"coupon,omitempty" doc:"steps of the coupon that are done"`
	Acknowledged []string        `json:"acknowledged,omitempty" doc:"hazards that have been seen to"`
	Place        string          `json:"place,omitempty" doc:"where it is kept"`
	Cost         float64         `json:"cost,omitempty" doc:"of one piece, in the shop's money"`
	WeighedKg    float64         `json:"weighedKg,omitempty" doc:"one piece on the scale: a check on its dimensions"`
	History      []CutMade       `json:"history,omitempty" doc:"what was cut from it"`
	ParentID     string          `json:"parentId,omitempty" doc:"the piece it was cut from"`
}

// CutMade is what was cut from a piece of stock.
type CutMade struct {
	PieceID  string    `json:"pieceId"`
	Name     string    `json:"name"`
	LengthMm float64   `json:"lengthMm"`
	At       time.Time `json:"at"`
}

// Stock is a stored StockDoc.
type Stock struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	StockDoc
	Bar     bool          `json:"bar" doc:"has one section along its length"`
	Usable  bool          `json:"usable" doc:"a blade can be planned from it"`
	Refused bool          `json:"refused" doc:"a hazard forbids it for good"`
	Start   *stock.Start  `json:"start,omitempty" doc:"what it comes to, straightened and stripped"`
	Belief  *stock.Belief `json:"belief,omitempty" doc:"of a steel that is presumed"`
	// WeighedShare is the weight on the scale over the computed one; 0 where it
	// was not weighed.
	WeighedShare  float64 `json:"weighedShare"`
	WeightDiffers bool    `json:"weightDiffers" doc:"by more than its dimensions allow for"`
	BookedMm      float64 `json:"bookedMm" doc:"length that pieces have booked"`
	MassG         float64 `json:"massG"`
	FreeMm        float64 `json:"freeMm" doc:"length not yet asked for by pieces; for bars"`
	Archived      bool    `json:"archived"`
}

// PatternDoc is a design to start from.
type PatternDoc struct {
	Name       string           `json:"name"`
	Tags       []string         `json:"tags"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
	Picture    *Picture         `json:"picture,omitempty"`
}

// Pattern is a stored PatternDoc; Revision counts its states.
type Pattern struct {
	ID       string `json:"id"`
	Version  int    `json:"version"`
	Revision int    `json:"revision"`
	PatternDoc
	Sketch []plan.Station `json:"sketch" doc:"the finished blade, to be drawn"`
}

// Doc is the document of a piece of work: its own blade and everything the
// plan is made from.
type Doc struct {
	Name    string       `json:"name"`
	Notes   string       `json:"notes,omitempty"`
	StockID string       `json:"stockId,omitempty"`
	Hand    string       `json:"hand,omitempty" doc:"whose hammer it is planned for"`
	Request plan.Request `json:"request"`
	Picture *Picture     `json:"picture,omitempty" doc:"that the outline is traced over"`
}

// Start is what a new piece asks: what for, what bar, whose hammer and how sure
// a hand. Without StockID, BarForm and Edits (fields of bar and steelId) say
// what the bar is; Edits may change any other field too.
type Start struct {
	Name      string      `json:"name"`
	PatternID string      `json:"patternId"`
	StockID   string      `json:"stockId,omitempty"`
	BarForm   stock.Form  `json:"barForm,omitempty"`
	Hand      string      `json:"hand,omitempty" doc:"a smith of the shop; the first if empty"`
	Skill     forge.Skill `json:"skill,omitempty" doc:"the smith's own if empty"`
	Edits     []Edit      `json:"edits"`
}

// Summary is what the list of pieces shows.
type Summary struct {
	CutLengthMm float64 `json:"cutLengthMm"`
	Heats       int     `json:"heats"`
	Stops       int     `json:"stops"`
	BladeMm     float64 `json:"bladeMm"`
	MassG       float64 `json:"massG"`
	SteelID     string  `json:"steelId"`
	Shape       string  `json:"shape"`

	Sketch []plan.Station `json:"sketch" doc:"the finished blade, to be drawn"`
}

// Piece is a stored piece of work.
type Piece struct {
	ID        string    `json:"id"`
	Version   int       `json:"version"`
	Doc       Doc       `json:"doc"`
	Summary   Summary   `json:"summary"`
	CanUndo   bool      `json:"canUndo"`
	CanRedo   bool      `json:"canRedo"`
	Archived  bool      `json:"archived"`
	CreatedAt time.Time `json:"createdAt"`
	UpdatedAt time.Time `json:"updatedAt"`
}

// Edit changes one field. Text is what was typed and is read in Units; Value is
// a choice.
type Edit struct {
	Field string          `json:"field"`
	Text  string          `json:"text"`
	Units quantity.System `json:"units,omitempty" enum:"mm,in"`
}

// FieldProblem is what is wrong with one field, Offset pointing into the typed
// text where that is known (-1 elsewhere).
type FieldProblem struct {
	fact.FieldError
	Text   string `json:"text,omitempty"`
	Found  string `json:"found,omitempty"`
	Offset int    `json:"offset"`
}

// InvalidError carries every field problem.
type InvalidError struct{ Fields []FieldProblem }

func (e *InvalidError) Error() string {
	errs := make(fact.FieldErrors, len(e.Fields))
	for i, f := range e.Fields {
		errs[i] = f.FieldError
	}
	return errs.Error()
}

// StaleError is returned when somebody else saved first; Current is what they
// saved.
type StaleError struct{ Current any }

func (e *StaleError) Error() string { return "work: another save came first" }

// StateError refuses what the state does not allow, by a problem code.
type StateError struct{ Code string }

func (e *StateError) Error() string { return "work: " + e.Code }
