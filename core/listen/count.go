package listen

// Sign is what a smith would have told by hand.
type Sign string

// Signs of blows.
const (
	FirstBlow Sign = "firstBlow"
	LastBlow  Sign = "lastBlow"
)

// PauseS is how long nothing is struck before it is a pause (judgement): a piece is turned, looked at and moved in less.
const PauseS = 3.0

// Count is what was heard since a piece came out of the fire.
type Count struct {
	Blows  int     `json:"blows"`
	FirstS float64 `json:"firstS" doc:"when the first fell, since the ear was opened"`
	LastS  float64 `json:"lastS"`
	Paused bool    `json:"paused" doc:"nothing was struck for a while"`
}

// Take counts what was heard until now, and answers what it means: the first blow once, the last one whenever a pause
// follows it.
func (c *Count) Take(hits []Hit, nowS float64) []Sign {
	var out []Sign
	for i := range hits {
		h := &hits[i]
		if h.Kind != Blow {
			continue
		}
		if c.Blows == 0 {
			c.FirstS = h.AtS
			out = append(out, FirstBlow)
		}
		c.Blows++
		c.LastS, c.Paused = h.AtS, false
	}
	if c.Blows > 0 && !c.Paused && nowS-c.LastS >= PauseS {
		c.Paused = true
		out = append(out, LastBlow)
	}
	return out
}
