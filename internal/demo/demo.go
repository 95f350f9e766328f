// Package demo makes the demonstration: the small yard smithy of Quillet Haven,
// built through the use cases as its smiths would.
package demo

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strconv"
	"time"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/quantity"
	"coldember/core/replan"
	"coldember/core/session"
	"coldember/core/simulate"
	"coldember/core/stock"
	"coldember/internal/device"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"
	"coldember/internal/work"
)

// ErrForeign is returned for a database that holds somebody's own work.
var ErrForeign = errors.New("demo: this file holds your own work; name another with --data")

// The names of the yard.
const (
	YardHand     = "Yard hand"
	SecondHand   = "Second hand"
	Rigging      = "Rigging knife"
	Samphire     = "Samphire hook-knife"
	Oyster       = "Oyster knife"
	SlicerNarrow = "Galley slicer, from the 32 mm bar"
	Slicer       = "Galley slicer"
	Reed         = "Reed slasher"
	Net          = "Net knife"
	Sedge        = "Sedge knife"
	Bailer       = "Bailer hollowing knife"
	Osier        = "Osier sickle"
	Withy        = "Withy chopper"
	Mooring      = "Mooring knife"
	Trimmer      = "Sail-loft trimmer"
)

// clock steps through the weeks before the demo is made, so that it never
// looks stale.
type clock struct{ at time.Time }

func (c *clock) now() time.Time {
	c.at = c.at.Add(time.Second) // so that what is made later also sorts later
	return c.at
}

func (c *clock) daysBefore(now time.Time, days int) { c.at = now.AddDate(0, 0, -days) }

// Build fills an empty database with the demonstration. It leaves one that is
// built already as it is, and refuses one with other work in it.
func Build(ctx context.Context, s *store.Store, now time.Time) error {
	c := &clock{at: now}
	w := work.New(s, c.now, work.RandomID)
	shop, err := w.Shop(ctx)
	if err != nil || shop.Doc.Demo {
		return err
	}
	pieces, aside, err := w.Pieces(ctx, false)
	if err != nil {
		return err
	}
	if len(pieces)+len(aside) > 0 || shop.Version > 0 {
		return ErrForeign
	}
	c.daysBefore(now, 58)
	y := &yard{ctx: ctx, work: w}
	y.shop()
	rack := y.rack()
	c.daysBefore(now, 40)
	y.library()
	c.daysBefore(now, 33)
	rigging := y.piece(work.NewPiece{Name: Rigging, PatternID: y.patterns[Rigging], StockID: rack["80CrV2"], Hand: YardHand, Edits: riggingHandle()})
	c.daysBefore(now, 31)
	y.forge(c, rigging, simulate.Wish{
		Hardens: true,
		Breaks:  map[int]int64{4: 2 * day.Milliseconds()}, Every: 2,
		Faults: map[int]simulate.Fault{6: {Fault: session.Fault{Kind: "bent"}, Text: text.Say("demo.bent", nil)}},
		Note:   text.Say("demo.riggingNote", nil),
	})
	c.daysBefore(now, 27)
	y.finished(rigging, work.FinalTyped{
		Texts: map[string]string{"massG": "109", "balanceMm": "107", "warpMm": "0.3", "behindMm": "0.5", "workMin": "190"}, File: "skates", Cuts: "passed", Flexes: "passed", Units: quantity.Metric, Text: text.Say("demo.riggingDone", nil),
	})
	c.daysBefore(now, 26)
	y.piece(work.NewPiece{Name: Samphire, PatternID: y.patterns[Samphire], StockID: rack["Lorry spring end"], Hand: YardHand, Edits: []edit.Edit{{Field: "choices.holding", Text: "tongs"}}})
	c.daysBefore(now, 21)
	y.piece(work.NewPiece{Name: Sedge, PatternID: y.patterns[Sedge], StockID: rack["Half a harrow disc"], Hand: YardHand, Edits: []edit.Edit{{Field: "origin.acknowledge", Text: "coating"}}})
	c.daysBefore(now, 19)
	y.piece(work.NewPiece{Name: Oyster, PatternID: y.patterns[Oyster], StockID: rack["Bearing rollers"], Hand: YardHand, Edits: largestOyster()})
	c.daysBefore(now, 15)
	y.trimmer()
	c.daysBefore(now, 12)
	y.piece(work.NewPiece{Name: SlicerNarrow, PatternID: y.patterns[Slicer], StockID: rack["1075"], Hand: YardHand})
	c.daysBefore(now, 11)
	y.piece(work.NewPiece{Name: Slicer, PatternID: y.patterns[Slicer], StockID: rack["1084"], Hand: YardHand})
	c.daysBefore(now, 6)
	y.lost(c, y.piece(work.NewPiece{Name: Net, PatternID: y.patterns[Net], StockID: rack["Old plane iron"], Hand: YardHand}))
	c.daysBefore(now, 4)
	reed := y.piece(work.NewPiece{Name: Reed, PatternID: y.patterns[Reed], StockID: rack["Hay-rake tines"], Hand: YardHand})
	c.daysBefore(now, 3)
	y.forge(c, reed, simulate.Wish{Heats: 9, Every: 1, Note: text.Say("demo.reedNote", nil)})
	y.older(c, now)
	if y.err == nil {
		y.practised(c, now)
	}
	return y.err
}

// riggingHandle is what the rigging knife is fitted with, and carried in.
func riggingHandle() []edit.Edit {
	set := func(field, text string) edit.Edit { return edit.Edit{Field: field, Text: text, Units: quantity.Metric} }
	return []edit.Edit{
		set("design.handle", "drawn"), set("design.handle.lengthMm", "112"), set("design.handle.frontHeightMm", "26"), set("design.handle.midHeightMm", "29"), set("design.handle.buttHeightMm", "28"),
		set("design.handle.guard.lengthMm", "6"), set("design.handle.guard.heightMm", "30"), set("design.handle.guard.widthMm", "16"),
		set("finish.cover", "leather"), set("finish.prices.beltPrice", "6"), set("finish.prices.blockPrice", "18"), set("finish.prices.sheathPrice", "9"), set("finish.prices.marginShare", "15"),
		set("prices.hourPrice", "32"), set("prices.steelPrice", "11"), set("prices.fuelPrice", "2.6"),
	}
}

// yard builds on; after the first error it does nothing more.
type yard struct {
	ctx      context.Context
	work     *work.Work
	patterns map[string]string
	err      error
}

func (y *yard) shop() {
	s := doc.NewShop()
	s.Walk = 0 // there is work to look at already
	s.Demo, s.HoursPerWeek = true, 14
	hand, second := forge.NewSmith(forge.Sure), forge.NewSmith(forge.Learning)
	hand.HammerKg, second.HammerKg = 1.3, 0.9
	s.Smiths = []doc.Hand{{Name: YardHand, Smith: hand}, {Name: SecondHand, Smith: second}}
	_, y.err = y.work.SaveShop(y.ctx, 0, s)
}

func (y *yard) rack() map[string]string {
	flat := func(w, t, l float64) stock.Item {
		return stock.Item{Form: stock.Flat, WidthMm: w, ThicknessMm: t, LengthMm: l}
	}
	ids := map[string]string{}
	for _, d := range []doc.Stock{
		{Name: "Yard bar", Piece: flat(25, 5, 1000), SteelID: "80CrV2"},
		{Name: "Wide bar", Piece: flat(40, 6, 610), SteelID: "1084"},
		{Name: "Thin bar", Piece: flat(32, 4, 500), SteelID: "1075"},
		{Name: "Nickel strip", Piece: flat(40, 1.6, 900), SteelID: "15N20"},
		{Name: "Drill rod", Piece: stock.Item{Form: stock.Round, DiameterMm: 12, LengthMm: 400}, SteelID: "W1"},
		{Name: "Practice bar", Piece: flat(20, 5, 1200), SteelID: "1018", Notes: "mild, for practice only"},
		{
			Name: "Lorry spring end", SteelID: "unknown-spring", Origin: "coilSpring", Believed: true, Place: "bin by the forge",
			Piece:   stock.Item{Form: stock.Coil, WireDiameterMm: 13, MeanDiameterMm: 112, PitchMm: 38, Turns: 2.5},
			Hazards: []string{"tension", "coating"}, Acknowledged: []string{"tension", "coating"}, Notes: "end of a coil, nothing left to spring",
			Findings: []stock.Finding{{Test: "spark", Result: "manyForks"}, {Test: "oilQuench", Result: "skates"}},
		},
		{
			Name: "Hay-rake tines", SteelID: "unknown-spring", Origin: "tine", Believed: true, Count: 4, Place: "rafters",
			Piece: stock.Item{
				Form: stock.TaperedFlat, StartWidthMm: 32, EndWidthMm: 32, StartThicknessMm: 10, EndThicknessMm: 10, LengthMm: 420, BendRadiusMm: 700,
				Dead: []stock.Dead{{FromMm: 0, ToMm: 45, Why: "hole"}},
			},
			Hazards: []string{"coating"}, Acknowledged: []string{"coating"},
		},
		{
			Name: "Bearing rollers", SteelID: "52100", Origin: "roller", Certificate: "stamped 100Cr6", Count: 8, Place: "tin on the bench", WeighedKg: .128,
			Piece: stock.Item{Form: stock.Roller, DiameterMm: 24, LengthMm: 36}, Hazards: []string{"shards"}, Acknowledged: []string{"shards"},
		},
		{
			Name: "Old plane iron", SteelID: "unknown-tool", Origin: "planeIron", Believed: true, Place: "drawer", Hazards: []string{"shards"}, Acknowledged: []string{"shards"},
			Piece: stock.Item{
				Form: stock.Flat, WidthMm: 50, ThicknessMm: 4, LengthMm: 180,
				Dead: []stock.Dead{{FromMm: 112, ToMm: 172, Why: "hole"}},
			},
		},
		{
			Name: "Half a harrow disc", SteelID: "1018", Origin: "disc", Believed: true, Place: "against the wall",
			Piece:   stock.Item{Form: stock.Disc, DiameterMm: 460, ThicknessMm: 5, InnerDiameterMm: 40, ShareFraction: .5, StripWidthMm: 45},
			Hazards: []string{"coating"},
		},
		{
			Name: "Mooring chain", SteelID: "1018", Origin: "chain", Believed: true, Place: "outside, not in the smithy",
			Piece:   stock.Item{Form: stock.Chain, WireDiameterMm: 12, LinkLengthMm: 72, LinkWidthMm: 44, Links: 9},
			Hazards: []string{"galvanised"},
		},
	} {
		if y.err != nil {
			return ids
		}
		var s work.Stock
		s, y.err = y.work.AddStock(y.ctx, d)
		ids[d.Name] = s.ID
		if _, first := ids[d.SteelID]; !first {
			ids[d.SteelID] = s.ID
		}
	}
	return ids
}

// library has the starters and the yard's own designs.
func (y *yard) library() {
	y.patterns = map[string]string{}
	if y.err == nil {
		y.err = y.work.Ensure(y.ctx)
	}
	if y.err != nil {
		return
	}
	for _, own := range designs() {
		own.design.SetTang(own.tang)
		if own.form != "" {
			own.design.TangForm(own.form)
		}
		if own.tang == blade.FullTang && own.form == "" { // as wide as the grip that goes on it
			r := own.design.Ricasso
			own.design.Tang.HeightAtShoulderMm, own.design.Tang.HeightAtEndMm = r.HeightMm, r.HeightMm*.85
		}
		p, err := y.work.AddPattern(y.ctx, doc.Pattern{Name: own.name, Tags: own.tags, Design: own.design, Allowances: own.school.AllowancesFor(&own.design)})
		if err != nil {
			y.err = err
			return
		}
		y.patterns[own.name] = p.ID
	}
	all, _, err := y.work.Patterns(y.ctx, false)
	if err != nil {
		y.err = err
		return
	}
	for _, p := range all {
		if p.Doc.Name == text.Say("starter.rigging", nil) {
			y.patterns[Rigging] = p.ID
		}
	}
}

func (y *yard) piece(in work.NewPiece) (made work.Piece) {
	if y.err != nil {
		return made
	}
	made, _, err := y.work.StartPiece(y.ctx, in)
	if err != nil {
		y.err = fmt.Errorf("demo: %s: %w", in.Name, err)
	}
	return made
}

// day is a day of work.
const day = 24 * time.Hour

// hands is the seed of the hands that the yard's pieces are forged by.
const hands = 11

// forge takes a piece to the fire and forges it as a hidden piece of steel goes, told as the
// screen on the shelf would.
func (y *yard) forge(c *clock, p work.Piece, w simulate.Wish) {
	if y.err != nil {
		return
	}
	w.Device, w.BeginMs = "shelf", c.at.UnixMilli()
	_, events, err := device.Forge(y.ctx, y.work, p.ID, hands, w)
	if y.err = err; err == nil {
		c.at = time.UnixMilli(events[len(events)-1].AtMs).In(c.at.Location())
	}
	if y.err != nil {
		y.err = fmt.Errorf("demo: %s at the fire: %w", p.Doc.Name, y.err)
	}
}

// lost forges a piece until its point was left in the fire too long, measures what is left of it, and goes on from there
// with a shorter blade.
func (y *yard) lost(c *clock, p work.Piece) {
	const burntMm, heats = 16, 4
	y.forge(c, p, simulate.Wish{
		Heats: heats, Every: 2, Note: text.Say("demo.netNote", nil),
		Faults: map[int]simulate.Fault{heats: {Fault: session.Fault{Kind: "burnt"}, Text: text.Say("demo.netBurnt", nil)}},
	})
	if y.err != nil {
		return
	}
	fire, err := y.work.FireOf(y.ctx, p.ID)
	if err != nil {
		y.err = err
		return
	}
	now, err := y.work.Moment(y.ctx, fire.ID)
	if err != nil {
		y.err = err
		return
	}
	m := replan.Measured{LengthMm: now.LongMm - burntMm}
	for _, s := range now.Offered {
		if s.AtMm -= burntMm; s.AtMm > 0 {
			m.Stations = append(m.Stations, s)
		}
	}
	left, err := y.work.Replan(y.ctx, fire.ID, m)
	if err != nil {
		y.err = err
		return
	}
	for _, way := range left.Ways {
		if way.What == "shorter" {
			next, err := y.work.TakeWay(y.ctx, fire.ID, m, work.Taken{What: way.What})
			if err == nil { // it is weighed before it goes on
				weight := session.Event{ID: session.StandIn + "shelf-1", Device: session.StandIn + "shelf", Seq: 1, AtMs: c.at.UnixMilli(), Kind: session.Read, Reading: &session.Reading{Quantity: session.Weight, MassG: math.Round(left.MassG)}}
				_, err = y.work.Tell(y.ctx, next.ID, 0, []session.Event{weight})
			}
			y.err = err
			return
		}
	}
	y.err = errors.New("demo: the net knife cannot be made shorter")
}

// older are pieces of the years before, off the list and in the book: enough to have learned from. The hands
// that made them are the yard hand's, a little stronger than the table has it.
func (y *yard) older(c *clock, now time.Time) {
	const pieces, everyDays, sinceDays, seed = 11, 14, 220, 7
	smith := simulate.NewSmith(seed, simulate.Within)
	set := func(field, text string) edit.Edit { return edit.Edit{Field: field, Text: text, Units: quantity.Metric} }
	for n := range pieces {
		if y.err != nil {
			return
		}
		c.daysBefore(now, sinceDays-n*everyDays)
		thick := "5"
		if n%2 == 1 {
			thick = "6"
		}
		p := y.piece(work.NewPiece{
			Name: text.Say("demo.older", map[string]string{"n": strconv.Itoa(n + 1)}), PatternID: y.patterns[Rigging], BarForm: stock.Flat, Hand: YardHand,
			Edits: []edit.Edit{set("bar.widthMm", "25"), set("bar.thicknessMm", thick), set("bar.lengthMm", "600"), set("steelId", "80CrV2")},
		})
		if y.err != nil {
			return
		}
		if _, _, y.err = device.ForgeBy(y.ctx, y.work, p.ID, smith, n, simulate.Wish{Device: "shelf", BeginMs: c.at.UnixMilli(), Every: 3}); y.err == nil {
			_, y.err = y.work.ArchivePiece(y.ctx, p.ID, true)
		}
	}
}

// trimmer is a knife of a twisted billet of 1084 and 15N20, thirty-odd layers of it.
func (y *yard) trimmer() {
	if y.err != nil {
		return
	}
	set := func(field, text string) edit.Edit { return edit.Edit{Field: field, Text: text, Units: quantity.Metric} }
	shop, err := y.work.Shop(y.ctx)
	if err != nil {
		y.err = err
		return
	}
	d, err := edit.NewStock(stock.Flat, []edit.Edit{
		set("name", text.Say("demo.billet", nil)), set("billet.lay", ""), set("billet.stack.0.thicknessMm", "3"), set("billet.repeats", "8"),
		set("billet.lengthMm", "110"), set("billet.widthMm", "38"), set("billet.turnsPer100Mm", "7"), set("billet.barWidthMm", "26"), set("billet.barThicknessMm", "5.5"), set("billet.made", "yes"),
		set("billet.log", "weld; ; "+text.Say("demo.billetWeld", nil)), set("billet.log", "split; 18; "+text.Say("demo.billetSplit", nil)),
	}, shop.Doc.Fire)
	if err != nil {
		y.err = err
		return
	}
	s, err := y.work.AddStock(y.ctx, d)
	if err != nil {
		y.err = err
		return
	}
	y.piece(work.NewPiece{Name: Trimmer, PatternID: y.patterns[Trimmer], StockID: s.ID, Hand: YardHand, Edits: []edit.Edit{set("design.handle", "drawn"), set("design.handle.bolster.lengthMm", "8")}})
}

// finished notes what a knife came to.
func (y *yard) finished(p work.Piece, t work.FinalTyped) {
	if y.err == nil {
		y.err = y.work.NoteFinished(y.ctx, p.ID, t)
	}
}
