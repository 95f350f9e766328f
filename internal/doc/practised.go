package doc

import (
	"coldember/core/fact"
	"coldember/core/practice"
)

// Practised is an exercise as somebody did it: what was done, and what it came to.
type Practised struct {
	Who      string            `json:"who"`
	Exercise string            `json:"exercise" doc:"of an exercise, or of a piece of work"`
	Piece    string            `json:"piece,omitempty" doc:"name of the piece of work, as it was"`
	Seed     uint64            `json:"seed"`
	Undone   int               `json:"undone" doc:"actions taken back"`
	Actions  []practice.Action `json:"actions"`
	Came     practice.Result   `json:"came"`
}

// Validate reports everything that cannot be, as fact.FieldErrors.
func (d *Practised) Validate() error {
	c := fact.NewCheck()
	CheckName(c, "who", d.Who)
	CheckText(c, "piece", d.Piece)
	c.Range("undone", float64(d.Undone), 0, 1e6)
	c.Range("actions", float64(len(d.Actions)), 1, practice.MostActions)
	return c.Err()
}
