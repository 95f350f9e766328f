package nest

import (
	"math"
	"strconv"

	"coldember/core/fact"
)

// Part is an outline that is to be cut out, and how often.
type Part struct {
	Outline Polygon `json:"outline"`
	Count   int     `json:"count"`
}

// Job is what is to be cut from what. GapMm lies between two parts (the kerf, and what the saw
// needs), MarginMm between a part and the rim of the sheet or a bad place. With MostTurnDeg the
// length of every part lies within so much of the rolling (90 and more: as it likes); parts may
// be turned over where Flip says so.
type Job struct {
	Sheet       Polygon   `json:"sheet"`
	Bad         []Polygon `json:"bad"`
	Parts       []Part    `json:"parts"`
	GapMm       float64   `json:"gapMm"`
	MarginMm    float64   `json:"marginMm"`
	MostTurnDeg float64   `json:"mostTurnDeg"`
	Flip        bool      `json:"flip"`
	// Held are parts that the smith has put where they are: they stay.
	Held []Placed `json:"held,omitempty"`
}

// Placed is a part on the sheet: its lowest corner, how far it is turned, and whether it is
// turned over.
type Placed struct {
	Part    int     `json:"part"`
	XMm     float64 `json:"xMm"`
	YMm     float64 `json:"yMm"`
	TurnDeg float64 `json:"turnDeg"`
	Flipped bool    `json:"flipped,omitempty"`
}

// Layout is the answer. The sheet is used up to UsedMm along, or across where Across says so:
// one straight cut there leaves the rest whole.
type Layout struct {
	Placed   []Placed `json:"placed"`
	Unplaced []int    `json:"unplaced"`
	UsedMm   float64  `json:"usedMm"`
	Across   bool     `json:"across,omitempty"`
	UsedMm2  float64  `json:"usedMm2" doc:"of the sheet, up to that cut"`
	PartsMm2 float64  `json:"partsMm2" doc:"of it in the parts that are placed"`
	CutMm    float64  `json:"cutMm" doc:"around all of them"`
}

// Limits of a job.
const (
	mostSideMm = 3000
	mostParts  = 60
	mostPoints = 2000
	mostBad    = 60
	leastGapMm = 0.1 // a saw takes something
)

// Validate reports every figure of the job that cannot be.
func (j *Job) Validate() error {
	c := fact.NewCheck()
	polygon := func(field string, p Polygon) {
		if len(p) < 3 || len(p) > mostPoints {
			c.Fail(field, "nest.outline", fact.Figures{"most": mostPoints})
			return
		}
		for _, q := range p {
			for _, v := range q {
				if !(math.Abs(v) <= 2*mostSideMm) {
					c.Range(field, v, -2*mostSideMm, 2*mostSideMm)
					return
				}
			}
		}
		low, high := p.Bounds()
		if high[0]-low[0] > mostSideMm || high[1]-low[1] > mostSideMm || p.AreaMm2() < 1 {
			c.Fail(field, "nest.size", fact.Figures{"mostMm": mostSideMm})
		}
	}
	polygon("sheet", j.Sheet)
	if len(j.Bad) > mostBad {
		c.Fail("bad", "field.tooMany", fact.Figures{"highest": mostBad})
	}
	for i, b := range j.Bad {
		polygon("bad."+strconv.Itoa(i), b)
	}
	n := 0
	for i, p := range j.Parts {
		f := "parts." + strconv.Itoa(i)
		polygon(f+".outline", p.Outline)
		c.Range(f+".count", float64(p.Count), 0, mostParts)
		n += max(0, p.Count)
	}
	if n == 0 || n > mostParts {
		c.Fail("parts", "nest.count", fact.Figures{"most": mostParts})
	}
	c.Range("gapMm", j.GapMm, leastGapMm, 50)
	c.Range("marginMm", j.MarginMm, 0, 100)
	c.Range("mostTurnDeg", j.MostTurnDeg, 0, 180)
	for i, h := range j.Held {
		f := "held." + strconv.Itoa(i)
		if h.Part < 0 || h.Part >= len(j.Parts) {
			c.Fail(f, "nest.held", nil)
		}
		c.Range(f+".xMm", h.XMm, -mostSideMm, mostSideMm)
		c.Range(f+".yMm", h.YMm, -mostSideMm, mostSideMm)
		c.Range(f+".turnDeg", h.TurnDeg, -360, 360)
	}
	return c.Err()
}

// Fault is what is wrong with a layout: a part that is too near another, or too near the rim
// or a bad place (Other −1).
type Fault struct {
	Placed int     `json:"placed"`
	Other  int     `json:"other" doc:"of the placed parts; −1: the rim of the sheet or a bad place"`
	NearMm float64 `json:"nearMm" doc:"how near; 0 where they cross"`
}

// exactMm is the rounding of exact distances.
const exactMm = 1e-6

// Check looks over a layout, distances exact.
func (j *Job) Check(placed []Placed) (faults []Fault) {
	at := make([]Polygon, len(placed))
	for i, p := range placed {
		at[i] = j.outline(p)
		if near := j.room(at[i]); near < j.MarginMm-exactMm {
			faults = append(faults, Fault{i, -1, near})
		}
		for k := range i {
			if near := Apart(at[i], at[k], j.GapMm+1); near < j.GapMm-exactMm {
				faults = append(faults, Fault{i, k, near})
			}
		}
	}
	return faults
}

// outline is a part where it is placed.
func (j *Job) outline(p Placed) Polygon {
	return j.Parts[p.Part].Outline.Put(Point{p.XMm, p.YMm}, p.TurnDeg, p.Flipped)
}

// Outlines are the parts of a layout where they lie.
func (j *Job) Outlines(placed []Placed) []Polygon {
	out := make([]Polygon, len(placed))
	for i, p := range placed {
		out[i] = j.outline(p)
	}
	return out
}

// room is how far a part lies from the rim of the sheet and from bad places; −1 where it lies
// across them.
func (j *Job) room(p Polygon) float64 {
	reach := j.MarginMm + 1
	if !j.Sheet.Has(p[0]) {
		return -1
	}
	least := rims(p, j.Sheet, reach)
	if least <= 0 {
		return -1
	}
	for _, b := range j.Bad {
		if near := Apart(p, b, reach); near <= 0 {
			return -1
		} else if near < least {
			least = near
		}
	}
	return least
}
