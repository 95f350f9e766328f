package session

import "coldember/core/forge"

// Grip is what a heat is held with.
type Grip struct {
	Heat   int  `json:"heat"`
	Tongs  int  `json:"tongs" doc:"place in the shop's list; −1: none of them holds"`
	Change bool `json:"change,omitempty" doc:"others than in the heat before"`
}

// Grips are the tongs of every heat, from the shop's own: none of them where the piece is held
// by its own bar.
func Grips(c *Course, all []forge.Tongs) []Grip {
	out := []Grip{}
	if !c.Tongs {
		return out
	}
	inHand := -1
	for i := range c.Heats {
		h := &c.Heats[i].Held
		g := Grip{Heat: i + 1, Tongs: forge.PickTongs(all, inHand, h.WidthMm, h.ThicknessMm)}
		if g.Change = i > 0 && g.Tongs != inHand; g.Tongs >= 0 {
			inHand = g.Tongs
		}
		out = append(out, g)
	}
	return out
}
