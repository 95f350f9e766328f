package doc

import (
	"errors"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/replan"
	"coldember/core/session"
)

// Session is a piece at the fire: its plan as it was frozen, and the course it is walked as.
type Session struct {
	Name    string         `json:"name" doc:"of the piece"`
	Hand    string         `json:"hand,omitempty"`
	Request plan.Request   `json:"request"`
	Course  session.Course `json:"course"`
	// Shared is a session that came from another shop with its piece: it teaches nothing here.
	Shared bool `json:"shared,omitempty"`
	// FromID is the session that it goes on from, with the piece as it was measured then.
	FromID   string           `json:"fromId,omitempty"`
	Measured *replan.Measured `json:"measured,omitempty"`
}

// Validate reports what of a session cannot be, as fact.FieldErrors.
func (s *Session) Validate() error {
	c := fact.NewCheck()
	CheckName(c, "name", s.Name)
	return errors.Join(c.Err(), s.Course.Validate())
}

// Progress is how far a session is. It is derived: one that cannot be read is made anew.
type Progress struct {
	Phase     session.Phase `json:"phase" enum:"ready,fire,out,away,finished"`
	Step      int           `json:"step"`
	Steps     int           `json:"steps"`
	Trips     int           `json:"trips" doc:"heats taken"`
	Heats     int           `json:"heats" doc:"that it will come to"`
	Sittings  int           `json:"sittings"`
	StartedMs int64         `json:"startedMs,omitempty" doc:"since 1970"`
	LastMs    int64         `json:"lastMs,omitempty"`
	Hardened  bool          `json:"hardened,omitempty"`
	Completed bool          `json:"completed,omitempty"`
	Faults    []string      `json:"faults" doc:"their kinds"`
	Blows     int           `json:"blows"`
	LastsS    float64       `json:"lastsS"`
	WeightG   float64       `json:"weightG,omitempty"`
	SteelID   string        `json:"steelId"`
	Hand      string        `json:"hand,omitempty"`
	Name      string        `json:"name"`
}
