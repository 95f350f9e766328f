package api

import (
	"time"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"
	"coldember/internal/work"
)

// Doc is the document of a piece of work: its own blade and everything the plan is
// made from.
type Doc struct {
	Name    string       `json:"name"`
	Notes   string       `json:"notes,omitempty"`
	StockID string       `json:"stockId,omitempty"`
	Hand    string       `json:"hand,omitempty" doc:"whose hammer it is planned for"`
	Request plan.Request `json:"request"`
	Picture *doc.Picture `json:"picture,omitempty" doc:"that the outline is traced over"`
	Owner   string       `json:"owner,omitempty" doc:"whose it is, of a class; the shop's where nobody is named"`
	Shared  bool         `json:"shared,omitempty" doc:"seen by the whole class"`
}

func docOf(d doc.Piece) Doc  { return Doc(d) }
func (d Doc) doc() doc.Piece { return doc.Piece(d) }

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

// Summary is what the list of pieces shows.
type Summary struct {
	CutLengthMm float64        `json:"cutLengthMm"`
	LowMm       float64        `json:"lowMm,omitempty" doc:"four of five cases take a length from here; 0: not known"`
	HighMm      float64        `json:"highMm,omitempty" doc:"to here"`
	Heats       int            `json:"heats"`
	Stops       int            `json:"stops"`
	BladeMm     float64        `json:"bladeMm"`
	MassG       float64        `json:"massG"`
	SteelID     string         `json:"steelId"`
	Shape       string         `json:"shape"`
	Sketch      []plan.Station `json:"sketch" doc:"the finished blade, to be drawn"`
}

func pieceOf(p work.Piece) Piece {
	s := Summary(p.Summary)
	if s.Sketch == nil {
		s.Sketch = []plan.Station{}
	}
	return Piece{
		ID: p.ID, Version: p.Version, Doc: docOf(p.Doc), Summary: s, CanUndo: p.CanUndo, CanRedo: p.CanRedo,
		Archived: p.Archived, CreatedAt: p.CreatedAt, UpdatedAt: p.UpdatedAt,
	}
}

// Unreadable is what is stored and cannot be read: it is set aside.
type Unreadable struct {
	ID    string `json:"id"`
	Newer bool   `json:"newer" doc:"written by a newer version of the program"`
}

// Listed is a list, with what of it cannot be read.
type Listed[T any] struct {
	Items      []T          `json:"items"`
	Unreadable []Unreadable `json:"unreadable"`
}

func listed[T, W any](in []T, aside []work.Unreadable, f func(T) W) Listed[W] {
	out := Listed[W]{Items: each(in, f), Unreadable: []Unreadable{}}
	for _, u := range aside {
		out.Unreadable = append(out.Unreadable, Unreadable(u))
	}
	return out
}

// each maps a list; it is never null.
func each[T, W any](in []T, f func(T) W) []W {
	out := make([]W, len(in))
	for i, v := range in {
		out[i] = f(v)
	}
	return out
}

// PatternDoc is a design to start from.
type PatternDoc struct {
	Name       string           `json:"name"`
	Tags       []string         `json:"tags"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
	Picture    *doc.Picture     `json:"picture,omitempty"`
}

// Pattern is a stored pattern; Revision counts its states.
type Pattern struct {
	ID       string `json:"id"`
	Version  int    `json:"version"`
	Revision int    `json:"revision"`
	PatternDoc
	Sketch   []plan.Station `json:"sketch" doc:"the finished blade, to be drawn"`
	Archived bool           `json:"archived"`
}

func patternOf(p work.Pattern) Pattern {
	return Pattern{ID: p.ID, Version: p.Version, Revision: p.Revision, PatternDoc: PatternDoc(p.Doc), Sketch: p.Sketch, Archived: p.Archived}
}

// Revision is one state of a pattern.
type Revision struct {
	N         int       `json:"n"`
	CreatedAt time.Time `json:"createdAt"`
	PatternDoc
	Sketch   []plan.Station      `json:"sketch"`
	Measures work.PatternFigures `json:"measures"`
}

func revisionOf(r work.Revision) Revision {
	return Revision{N: r.N, CreatedAt: r.CreatedAt, PatternDoc: PatternDoc(r.Doc), Sketch: r.Sketch, Measures: r.Measures}
}

// StockDoc is what is known about a piece on the rack.
type StockDoc struct {
	Name         string          `json:"name"`
	Piece        stock.Item      `json:"piece"`
	SteelID      string          `json:"steelId"`
	Count        int             `json:"count"`
	Believed     bool            `json:"believed,omitempty" doc:"the steel is presumed by what the piece was, not known"`
	Hazards      []string        `json:"hazards,omitempty"`
	Notes        string          `json:"notes,omitempty"`
	Origin       string          `json:"origin,omitempty" doc:"what it was before"`
	Certificate  string          `json:"certificate,omitempty" doc:"maker or certificate of a known steel"`
	Analysis     *steel.Analysis `json:"analysis,omitempty" doc:"what its certificate says, over the usual of its grade"`
	Billet       *billet.Recipe  `json:"billet,omitempty" doc:"how it was laid, of a bar that has layers"`
	Welded       []doc.Welded    `json:"welded,omitempty" doc:"what happened to a billet as it was welded"`
	EtchID       string          `json:"etchId,omitempty" doc:"picture of its test etch"`
	Findings     []stock.Finding `json:"findings,omitempty" doc:"tests made on it"`
	Coupon       []string        `json:"coupon,omitempty" doc:"steps of the coupon that are done"`
	Acknowledged []string        `json:"acknowledged,omitempty" doc:"hazards that have been seen to"`
	Place        string          `json:"place,omitempty" doc:"where it is kept"`
	Cost         float64         `json:"cost,omitempty" doc:"of one piece, in the shop's money"`
	WeighedKg    float64         `json:"weighedKg,omitempty" doc:"one piece on the scale: a check on its dimensions"`
	ParentID     string          `json:"parentId,omitempty" doc:"the piece it was cut from"`
	Layout       *doc.KeptLayout `json:"layout,omitempty" doc:"outlines that are laid on it, to be sawn out"`
}

// CutMade is what was cut from a piece of stock.
type CutMade struct {
	PieceID  string    `json:"pieceId"`
	Name     string    `json:"name"`
	LengthMm float64   `json:"lengthMm"`
	At       time.Time `json:"at"`
}

// Stock is a stored piece of stock with what follows from it.
type Stock struct {
	ID      string `json:"id"`
	Version int    `json:"version"`
	StockDoc
	History       []CutMade      `json:"history,omitempty" doc:"what was cut from it"`
	Bar           bool           `json:"bar" doc:"has one section along its length"`
	Usable        bool           `json:"usable" doc:"a blade can be planned from it"`
	Refused       bool           `json:"refused" doc:"a hazard forbids it for good"`
	Start         *stock.EvenBar `json:"start,omitempty" doc:"what it comes to, straightened and stripped"`
	Belief        *stock.Belief  `json:"belief,omitempty" doc:"of a steel that is presumed"`
	WeighedShare  float64        `json:"weighedShare" doc:"the weight on the scale over the computed one; 0 where it was not weighed"`
	WeightDiffers bool           `json:"weightDiffers" doc:"by more than its dimensions allow for"`
	BookedMm      float64        `json:"bookedMm" doc:"length that pieces have booked"`
	MassG         float64        `json:"massG"`
	FreeMm        float64        `json:"freeMm" doc:"length not yet asked for by pieces; for bars"`
	Archived      bool           `json:"archived"`
}

func stockOf(s work.Stock) Stock {
	out := Stock{
		ID: s.ID, Version: s.Version, StockDoc: StockDoc(s.Doc), Bar: s.Bar, Usable: s.Usable, Refused: s.Refused, Start: s.Start, Belief: s.Belief,
		WeighedShare: s.WeighedShare, WeightDiffers: s.WeightDiffers, BookedMm: s.BookedMm, MassG: s.MassG, FreeMm: s.FreeMm, Archived: s.Archived,
	}
	if len(s.History) > 0 {
		out.History = each(s.History, func(c doc.CutMade) CutMade { return CutMade(c) })
	}
	return out
}

// Settings are the shop's: units, looks, and the smith's usual set.
type Settings struct {
	Version     int                `json:"version"`
	Units       quantity.System    `json:"units" enum:"mm,in"`
	Fraction    int                `json:"fraction" enum:"32,64" doc:"finest fraction of an inch printed"`
	Temperature string             `json:"temperature" enum:"C,F"`
	HeatWords   string             `json:"heatWords" enum:"usual,sooner"`
	System      quantity.System    `json:"system" doc:"the three together, as figures are read and printed"`
	Theme       string             `json:"theme" enum:"night,day,system"`
	Language    string             `json:"language" doc:"two letters, as listed by /languages; empty until one is chosen"`
	Paper       string             `json:"paper" enum:"a4,letter"`
	Smiths      []doc.Hand         `json:"smiths" doc:"who works here, with whose hammer"`
	Hammers     []doc.NamedHammer  `json:"hammers" doc:"to take up for a piece"`
	Hearths     []doc.NamedHearth  `json:"hearths" doc:"forges to go to with a piece"`
	Fire        forge.Fire         `json:"fire"`
	Prices      plan.Prices        `json:"prices"`
	Likelihoods []stock.Likelihood `json:"likelihoods,omitempty" doc:"the shop's own, in place of the table's"`
	Demo        bool               `json:"demo,omitempty" doc:"this database holds the demonstration"`
	Copies      doc.CopySettings   `json:"copies"`
	Tongs       []doc.NamedTongs   `json:"tongs" doc:"to hold a piece with at the fire"`
	Baths       []doc.NamedBath    `json:"baths" doc:"tanks to quench in"`
	Ovens       []doc.NamedOven    `json:"ovens" doc:"to temper in"`
	Blocks      []doc.NamedBlock   `json:"blocks" doc:"handle material on the shelf"`

	News         []string `json:"news" doc:"codes of what is new since the shop was told last"`
	Walk         int      `json:"walk" doc:"which step of the first walk comes next; 0: none"`
	HoursPerWeek float64  `json:"hoursPerWeek" doc:"that the shop works; a day can then be promised"`
}

func settingsOf(s work.Settings) Settings {
	d := s.Doc
	return Settings{
		Version: s.Version, Units: d.Units, Fraction: d.System().Denominator(), Temperature: scaleOf(d.System()), HeatWords: heatWordsOf(d.System()), System: d.System(), Theme: d.Theme, Language: d.Language, Paper: d.Paper, Smiths: d.Smiths, Hammers: d.Hammers, Hearths: d.Hearths,
		Fire: d.Fire, Prices: d.Prices, Likelihoods: d.Likelihoods, Demo: d.Demo, Copies: d.Copies, Tongs: d.Tongs, Baths: d.Baths, Ovens: d.Ovens, Blocks: d.Blocks, HoursPerWeek: d.HoursPerWeek, News: d.News(), Walk: d.Walk,
	}
}

// RankedStock is a piece of the rack with what a blade would take of it.
type RankedStock struct {
	whatif.Ranked
	Stock Stock `json:"stock"`
}

func rankedOf(r work.RankedStock) RankedStock {
	return RankedStock{Ranked: r.Ranked, Stock: stockOf(r.Stock)}
}

// FittingPattern is a pattern that a piece of stock might become.
type FittingPattern struct {
	Pattern  Pattern `json:"pattern"`
	Feasible bool    `json:"feasible" doc:"as it is"`
	Why      string  `json:"why,omitempty" doc:"the obstacle as it is"`
	Used     float64 `json:"usedShare" doc:"of the piece"`
	Factor   float64 `json:"factor" doc:"uniform, of the largest blade of it; 0: none"`
	LengthMm float64 `json:"lengthMm" doc:"of that blade"`
	Looked   bool    `json:"looked" doc:"in full, not by volume and reach alone"`
}

func fittingOf(f work.FittingPattern) FittingPattern {
	return FittingPattern{Pattern: patternOf(f.Pattern), Feasible: f.Feasible, Why: f.Why, Used: f.Used, Factor: f.Factor, LengthMm: f.LengthMm, Looked: f.Looked}
}

// current is what is stored now, as it goes over the wire.
func current(v any) any {
	switch v := v.(type) {
	case work.Piece:
		return pieceOf(v)
	case work.Pattern:
		return patternOf(v)
	case work.Stock:
		return stockOf(v)
	case work.Settings:
		return settingsOf(v)
	}
	return nil
}

// scaleOf is how hot is told.
// heatWordsOf is the school that hot steel's colours are named by.
func heatWordsOf(s quantity.System) string {
	if s.Sooner() {
		return doc.SoonerWords
	}
	return doc.UsualWords
}

func scaleOf(s quantity.System) string {
	if s.Fahrenheit() {
		return "F"
	}
	return "C"
}
