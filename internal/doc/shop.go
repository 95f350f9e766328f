package doc

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"coldember/core/billet"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/forge"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/text"
)

// NewShop are the settings of a new database.
func NewShop() Shop {
	s := Shop{
		Units: quantity.Metric, Theme: "night", Paper: "a4", NewsSeen: NewestNews, Walk: 1,
		Smiths: []Hand{{Name: text.Say("shop.ownHand", nil), Smith: forge.NewSmith(forge.Steady)}}, Fire: forge.NewFire(), Copies: CopySettings{Keep: usualKeep},
	}
	s.UsualSets()
	return s
}

// UsualHammer is a usual hammer under its usual name; ok is false for an id that is
// none.
func UsualHammer(id string) (h NamedHammer, ok bool) {
	x, ok := forge.UsualHammers()[id]
	return NamedHammer{Name: text.Say("hammer."+id, nil), Hammer: x}, ok
}

// UsualHearth is a usual forge under its usual name.
func UsualHearth(id string) (h NamedHearth, ok bool) {
	x, ok := forge.UsualHearths()[id]
	return NamedHearth{Name: text.Say("hearth."+id, nil), Hearth: x}, ok
}

// UsualTongs are usual tongs under their usual name.
func UsualTongs(id string) (t NamedTongs, ok bool) {
	x, ok := forge.UsualTongs()[id]
	return NamedTongs{Name: text.Say("tongs."+id, nil), Tongs: x}, ok
}

// UsualSets gives a shop the hammers and the forge that most shops have.
func (s *Shop) UsualSets() {
	s.Hammers, s.Hearths = nil, nil
	for _, id := range []string{"light", "usual", "heavy"} {
		h, _ := UsualHammer(id)
		s.Hammers = append(s.Hammers, h)
	}
	h, _ := UsualHearth("gas")
	s.Hearths = []NamedHearth{h}
	s.usualTongs()
	s.usualTreating()
}

// UsualBath is a usual tank under its usual name.
func UsualBath(id string) (b NamedBath, ok bool) {
	x, ok := harden.UsualBaths()[id]
	return NamedBath{Name: text.Say("bath."+id, nil), Bath: x}, ok
}

// UsualOven is a usual oven under its usual name.
func UsualOven(id string) (o NamedOven, ok bool) {
	x, ok := harden.UsualOvens()[id]
	return NamedOven{Name: text.Say("oven."+id, nil), Oven: x}, ok
}

// UsualBlock is usual handle material under its usual name.
func UsualBlock(id string) (b NamedBlock, ok bool) {
	x, ok := finish.UsualBlocks()[id]
	return NamedBlock{Name: text.Say("block."+id, nil), Kept: x}, ok
}

// usualTreating gives a shop the tanks and the oven that most shops begin with.
func (s *Shop) usualTreating() {
	s.Baths, s.Ovens = nil, nil
	for _, id := range []string{"mediumOil", "fastOil"} {
		b, _ := UsualBath(id)
		s.Baths = append(s.Baths, b)
	}
	o, _ := UsualOven("kitchen")
	s.Ovens = []NamedOven{o}
	s.Blocks = []NamedBlock{}
}

// usualTongs gives a shop the tongs that most shops begin with.
func (s *Shop) usualTongs() {
	s.Tongs = nil
	for _, id := range []string{"thin", "thick", "box", "vee"} {
		t, _ := UsualTongs(id)
		s.Tongs = append(s.Tongs, t)
	}
}

// TongsList are the shop's tongs without their names.
func (s *Shop) TongsList() []forge.Tongs {
	out := make([]forge.Tongs, len(s.Tongs))
	for i := range s.Tongs {
		out[i] = s.Tongs[i].Tongs
	}
	return out
}

// The schools of words for the colours of hot steel: one calls 980 °C orange, the other 900.
const (
	UsualWords  = "usual"
	SoonerWords = "sooner"
)

// System is how the shop reads and writes.
func (s *Shop) System() quantity.System {
	return quantity.NewSystem(s.Units, s.Fraction, s.Temperature).WithDecimal(text.Decimal()).WithSooner(s.HeatWords == SoonerWords)
}

// Validate reports every setting that cannot be, as fact.FieldErrors.
func (s *Shop) Validate() error {
	c := fact.NewCheck()
	c.Range("learned", float64(len(s.Learned)), 0, MostLearned)
	for key, choice := range s.Learned {
		if len(choice.Answers) > MostAnswers {
			c.Within("learned").Fail(key, "field.range", fact.Figures{"lowest": 0, "highest": MostAnswers})
		}
	}
	for i := range s.Hours {
		s.Hours[i].Validate(c.Within("hours").Within(strconv.Itoa(i)))
	}
	fact.OneOf(c, "units", s.Units, quantity.Metric, quantity.Imperial)
	fact.OneOf(c, "temperature", s.Temperature, "", "C", "F")
	fact.OneOf(c, "heatWords", s.HeatWords, "", UsualWords, SoonerWords)
	if s.Fraction != 0 && s.Fraction != 32 && s.Fraction != 64 {
		c.Fail("fraction", "field.choice", nil)
	}
	fact.OneOf(c, "theme", s.Theme, "night", "day", "system")
	fact.OneOf(c, "language", s.Language, append(text.Languages(), "")...)
	c.Range("newsSeen", float64(s.NewsSeen), 0, 1e6)
	c.Range("walk", float64(s.Walk), 0, WalkSteps)
	fact.OneOf(c, "paper", s.Paper, "a4", "letter")
	copies := c.Within("copies")
	copies.Range("keep", float64(s.Copies.Keep), 1, 1000)
	CheckText(copies, "folder", s.Copies.Folder)
	if len(s.Smiths) == 0 {
		c.Fail("smiths", "field.smithMissing", nil)
	}
	seen := map[string]bool{}
	for i, h := range s.Smiths {
		at := c.Within("smiths." + strconv.Itoa(i))
		named(at, h.Name, seen)
		h.Validate(at)
	}
	seen = map[string]bool{}
	for i, h := range s.Hammers {
		at := c.Within("hammers." + strconv.Itoa(i))
		named(at, h.Name, seen)
		forge.NewSmith(forge.Steady).WithHammer(h.Hammer).Validate(at)
	}
	seen = map[string]bool{}
	for i, h := range s.Hearths {
		at := c.Within("hearths." + strconv.Itoa(i))
		named(at, h.Name, seen)
		forge.NewFire().WithHearth(h.Hearth).Validate(at)
	}
	seen = map[string]bool{}
	for i, t := range s.Tongs {
		at := c.Within("tongs." + strconv.Itoa(i))
		named(at, t.Name, seen)
		t.Validate(at)
	}
	s.validateTreating(c)
	c.Range("hoursPerWeek", s.HoursPerWeek, 0, 168)
	s.Fire.Validate(c.Within("fire"))
	s.Prices.Validate(c.Within("prices"))
	return c.Err()
}

// validateTreating reports every tank and oven that cannot be.
func (s *Shop) validateTreating(c fact.Check) {
	seen := map[string]bool{}
	for i, b := range s.Baths {
		at := c.Within("baths." + strconv.Itoa(i))
		named(at, b.Name, seen)
		b.Validate(at)
	}
	seen = map[string]bool{}
	for i, b := range s.Blocks {
		at := c.Within("blocks." + strconv.Itoa(i))
		named(at, b.Name, seen)
		b.Validate(at)
	}
	seen = map[string]bool{}
	for i, o := range s.Ovens {
		at := c.Within("ovens." + strconv.Itoa(i))
		named(at, o.Name, seen)
		o.Validate(at)
	}
}

// Longest texts, in characters.
const (
	MostName = 200
	MostText = 20_000
)

// named wants a name that none of the list has yet.
func named(c fact.Check, name string, seen map[string]bool) {
	if CheckName(c, "name", name); seen[name] {
		c.Fail("name", "field.nameTaken", nil)
	}
	seen[name] = true
}

// CheckName reports a name that is missing or far too long.
func CheckName(c fact.Check, field, name string) {
	if strings.TrimSpace(name) == "" {
		c.Fail(field, "field.nameMissing", nil)
	}
	if len([]rune(name)) > MostName {
		c.Fail(field, "field.tooLong", fact.Figures{"highest": MostName})
	}
}

// CheckText reports a text that is far too long.
func CheckText(c fact.Check, field, text string) {
	if len([]rune(text)) > MostText {
		c.Fail(field, "field.tooLong", fact.Figures{"highest": MostText})
	}
}

// Validate reports everything of a pattern that cannot be, as fact.FieldErrors.
func (p *Pattern) Validate() error {
	c := fact.NewCheck()
	CheckName(c, "name", p.Name)
	for _, t := range p.Tags {
		if len([]rune(t)) > MostName {
			c.Fail("tags", "field.tooLong", fact.Figures{"highest": MostName})
			break
		}
	}
	p.Design.Validate(c.Within("design"))
	p.Allowances.Validate(c.Within("allowances"))
	p.Picture.Validate(c)
	return c.Err()
}

// Validate reports what of a piece cannot be beside its request, as fact.FieldErrors.
func (p *Piece) Validate() error {
	c := fact.NewCheck()
	CheckName(c, "name", p.Name)
	CheckText(c, "notes", p.Notes)
	p.Picture.Validate(c)
	return c.Err()
}

// Validate reports everything of a piece of stock that cannot be, as
// fact.FieldErrors.
func (d *Stock) Validate() error {
	c := fact.NewCheck()
	CheckName(c, "name", d.Name)
	for field, v := range map[string]string{"notes": d.Notes, "certificate": d.Certificate, "place": d.Place} {
		CheckText(c, field, v)
	}
	d.Piece.Validate(c.Within("piece"))
	if _, err := d.Piece.Solid(); err != nil {
		code, name := "stock.dimension", "form"
		if se, ok := err.(*stock.Error); ok { //nolint:errorlint // returned unwrapped
			code, name = se.Code, se.Field
		}
		c.Fail("piece."+name, code, nil)
	}
	d.checkDead(c)
	d.Layout.Validate(c.Within("layout"))
	plan.ValidateAnalysis(c.Within("analysis"), d.Analysis)
	d.Billet.Validate(c.Within("billet"))
	c.Range("welded", float64(len(d.Welded)), 0, MostWelded)
	for i, w := range d.Welded {
		at := c.Within("welded").Within(strconv.Itoa(i))
		fact.OneOf(at, "kind", w.Kind, WeldedKinds()...)
		at.Range("mm", w.Mm, 0, 2000)
		at.Range("layers", float64(w.Layers), 0, billet.MostLayers)
		CheckText(at, "words", w.Words)
	}
	CheckText(c, "etchId", d.EtchID)
	if d.SteelID == "" {
		c.Fail("steelId", "field.steelMissing", nil)
	} else if _, err := steel.Find(d.SteelID); err != nil {
		c.Fail("steelId", "field.steel", nil)
	}
	c.Range("count", float64(d.Count), 1, 10000)
	c.Range("cost", d.Cost, 0, 1e6)
	c.Range("weighedKg", d.WeighedKg, 0, 1000)
	if d.Origin != "" {
		if _, err := stock.Believe(d.Origin, d.Findings, nil); err != nil {
			c.Fail("origin", "field.choice", nil)
		}
	}
	for _, h := range d.Hazards {
		if _, ok := stock.FindHazard(h); !ok {
			c.Fail("hazards", "field.choice", nil)
		}
	}
	return c.Err()
}

// deadSlackMm is how far a dead stretch may end behind a piece that was measured to the
// millimetre.
const deadSlackMm = 1

// checkDead finds dead stretches that no part of the piece lies in.
func (d *Stock) checkDead(c fact.Check) {
	whole, err := d.Piece.StraightenedMm()
	if err != nil {
		return // said elsewhere
	}
	for i, s := range d.Piece.Dead {
		if s.ToMm > whole+deadSlackMm {
			c.Fail(fmt.Sprintf("piece.dead.%d.toMm", i), "stock.deadBeyond", fact.Figures{"toMm": s.ToMm, "lengthMm": whole})
		}
	}
}

// Bar tells whether a piece of stock has one section along its length.
func (d *Stock) Bar() bool { return slices.Contains(stock.Bars(), d.Piece.Form) }
