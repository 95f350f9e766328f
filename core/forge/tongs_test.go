package forge_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
)

// TestTongsHoldWhatTheyAreMadeFor: flat jaws flats, box jaws bars near their width, vees what is
// nearly square.
func TestTongsHoldWhatTheyAreMadeFor(t *testing.T) {
	u := forge.UsualTongs()
	for _, c := range []struct {
		id          string
		wide, thick float64
		hold        bool
	}{
		{"thin", 25, 3, true},
		{"thin", 25, 6, false},
		{"thin", 4, 3, false},
		{"thick", 25, 6, true},
		{"box", 30, 5, true},
		{"box", 33, 5, false},
		{"box", 18, 5, false},
		{"vee", 10, 10, true},
		{"vee", 10, 12, true},
		{"vee", 25, 8, false},
		{"vee", 20, 20, false},
	} {
		assert.Equal(t, c.hold, u[c.id].Hold(c.wide, c.thick), "%s holds %v × %v", c.id, c.wide, c.thick)
		assert.Equal(t, c.hold, u[c.id].Hold(c.thick, c.wide), "turned, it is the same bar")
	}
}

// TestTongsAreKeptWhileTheyHold, and none is better than one that slips.
func TestTongsAreKeptWhileTheyHold(t *testing.T) {
	u := forge.UsualTongs()
	all := []forge.Tongs{u["thick"], u["box"], u["vee"]}
	assert.Equal(t, 1, forge.PickTongs(all, -1, 30, 6), "lips before faces")
	assert.Equal(t, 0, forge.PickTongs(all, 0, 30, 6), "those in hand stay")
	assert.Equal(t, 2, forge.PickTongs(all, 0, 12, 11), "drawn square, it is changed")
	assert.Equal(t, -1, forge.PickTongs(all, 0, 60, 30))
	assert.Equal(t, -1, forge.PickTongs(nil, 3, 30, 6))
}

func TestTongsThatCannotBe(t *testing.T) {
	for field, bad := range map[string]forge.Tongs{
		"jaw": {Jaw: "claw", LeastMm: 2, MostMm: 4}, "mostMm": {Jaw: forge.FlatJaw, LeastMm: 6, MostMm: 4}, "wideMm": {Jaw: forge.BoxJaw, LeastMm: 2, MostMm: 4},
	} {
		c := fact.NewCheck()
		bad.Validate(c)
		var wrong fact.FieldErrors
		assert.ErrorAs(t, c.Err(), &wrong)
		assert.Equal(t, field, wrong[0].Field)
	}
}
