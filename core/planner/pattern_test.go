package planner_test

import (
	"testing"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAWayTellsOfThePattern: a blade that is made thinner shows what lies deeper; what moves in the
// steel shows it where it then lies; of one steel nothing is told.
func TestAWayTellsOfThePattern(t *testing.T) {
	req := plantest.Sanity(30, 6)
	req.Forged, req.Design = nil, blade.Starters()[0].Design
	r := billet.NewRecipe("1084", "15N20")
	req.Billet = &r
	req.Finish = &finish.Choices{Pits: []finish.Pit{{XMm: 60, YMm: 18, Face: finish.Front, DepthMm: .9}}}
	p := plantest.Make(t, req)
	b, ok, err := planner.Etched(&req, p, 0, false)
	require.NoError(t, err)
	require.True(t, ok)
	planned, _ := b.Depth()
	thicker, _, err := planner.Etched(&req, p, -.2, false)
	require.NoError(t, err)
	more, _ := thicker.Depth()
	assert.Greater(t, more, planned, "less ground off lies nearer to the skin")
	assert.Positive(t, b.EatenLayers())

	ways, err := planner.Still(&req, p, nil)
	require.NoError(t, err)
	seen := map[string]float64{}
	for _, w := range ways {
		seen[w.What] = w.PatternShare
		if !w.Heat {
			assert.Positive(t, w.PatternShare, w.What)
			assert.Contains(t, []string{"", "stripes", "loops", "stars"}, w.PatternShows)
		}
	}
	require.Contains(t, seen, "thinner")
	assert.Less(t, seen["thinner"], planned, "thinner lies deeper")
	assert.NotContains(t, seen, "asPlanned")

	req.Billet = nil
	plain, err := planner.Still(&req, p, nil)
	require.NoError(t, err)
	for _, w := range plain {
		assert.Zero(t, w.PatternShare, w.What)
	}
}

// TestTheSeamStaysOutOfTheEdge: an edge bar that is too low for the blade is told, one that is high
// enough is not.
func TestTheSeamStaysOutOfTheEdge(t *testing.T) {
	req := plantest.Sanity(30, 6)
	req.Forged, req.Design = nil, blade.Starters()[0].Design
	for edgeMm, low := range map[float64]bool{0: false, 1.5: true, 12: false} {
		r := billet.NewRecipe("1084", "15N20")
		r.EdgeSteelID, r.EdgeMm = "80CrV2", edgeMm
		req.Billet = &r
		p := plantest.Make(t, req)
		f, err := planner.Finish(&req, p)
		require.NoError(t, err)
		told := false
		for _, x := range f.Findings {
			told = told || x.Code == "face.seamLow"
		}
		assert.Equal(t, low, told, "%v mm of edge bar", edgeMm)
	}
}
