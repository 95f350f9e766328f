package doc

import (
	"strconv"

	"coldember/core/fact"
	"coldember/core/nest"
)

// SheetWay is what is cut out: the outline that is then forged (its bevels and taper are), or
// the finished one with what the grinder needs round it.
type SheetWay string

// The ways.
const (
	CutToForge SheetWay = "forge"
	CutToGrind SheetWay = "grind"
)

// SheetCut is what it is cut out with.
type SheetCut string

// Sawn cold, or with the hot chisel: no saw is needed and no dust made, but it leaves a burr and
// scale, and every stretch of it is a heat.
const (
	SawnCold SheetCut = "saw"
	CutHot   SheetCut = "hot"
)

// SheetWanted is a piece of work or a pattern, and how many of it.
type SheetWanted struct {
	PieceID   string `json:"pieceId,omitempty"`
	PatternID string `json:"patternId,omitempty"`
	Count     int    `json:"count" minimum:"1" maximum:"60"`
}

// Laying is what is laid on a sheet, and how.
type Laying struct {
	Parts       []SheetWanted `json:"parts" maxItems:"60"`
	Way         SheetWay      `json:"way" enum:"forge,grind"`
	Cut         SheetCut      `json:"cut,omitempty" enum:"saw,hot" doc:"sawn cold if not said"`
	KerfMm      float64       `json:"kerfMm"`
	GapMm       float64       `json:"gapMm" doc:"beside the kerf, between two parts"`
	MarginMm    float64       `json:"marginMm" doc:"from the rim and from bad places"`
	MostTurnDeg float64       `json:"mostTurnDeg" doc:"that a part lies off the rolling; 90: as it likes"`
	Flip        bool          `json:"flip" doc:"parts may be turned over"`
	Held        []nest.Placed `json:"held,omitempty" maxItems:"60" doc:"put where they are by hand: they stay"`
}

// mostLaid bounds the parts of a sheet.
const mostLaid = 60

// Validate reports every figure that cannot be.
func (l *Laying) Validate(c fact.Check) {
	c.Range("kerfMm", l.KerfMm, .1, 20)
	c.Range("gapMm", l.GapMm, 0, 30)
	c.Range("marginMm", l.MarginMm, 0, 100)
	c.Range("mostTurnDeg", l.MostTurnDeg, 0, 180)
	fact.OneOf(c, "way", l.Way, CutToForge, CutToGrind)
	fact.OneOf(c, "cut", l.Cut, SawnCold, CutHot, "")
	if len(l.Parts) == 0 {
		c.Fail("parts", "cutplan.nothing", nil)
	}
	if len(l.Parts) > mostLaid || len(l.Held) > mostLaid {
		c.Fail("parts", "field.tooMany", fact.Figures{"highest": mostLaid})
	}
	for i, p := range l.Parts {
		c.Range("parts."+strconv.Itoa(i)+".count", float64(p.Count), 1, mostLaid)
	}
}

// KeptLayout is how outlines are laid on a sheet until they are sawn: the sheet is taken up to
// UsedMm along, or across.
type KeptLayout struct {
	Laying
	Names  []string `json:"names" doc:"of the parts, as they were laid"`
	UsedMm float64  `json:"usedMm"`
	Across bool     `json:"across,omitempty"`
}

// Validate reports every figure that cannot be.
func (l *KeptLayout) Validate(c fact.Check) {
	if l == nil {
		return
	}
	l.Laying.Validate(c)
	c.Range("usedMm", l.UsedMm, 0, 10000)
	c.Range("held", float64(len(l.Held)), 1, mostLaid)
	for i, h := range l.Held {
		at := c.Within("held").Within(strconv.Itoa(i))
		at.Range("part", float64(h.Part), 0, float64(len(l.Parts)-1))
		at.Range("xMm", h.XMm, -10000, 10000)
		at.Range("yMm", h.YMm, -10000, 10000)
		at.Range("turnDeg", h.TurnDeg, -360, 360)
	}
	if len(l.Names) > mostLaid {
		c.Fail("names", "field.tooMany", fact.Figures{"highest": mostLaid})
	}
	for _, n := range l.Names {
		CheckText(c, "names", n)
	}
}
