package heats

import (
	"context"
	"encoding/json"
	"fmt"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestWorkGoesOnFromAnyState as if it had never been left: stored after any heat, read
// again and continued, the same heats follow and the same piece comes of them, to the
// last bit.
func TestWorkGoesOnFromAnyState(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
		piece := stock.Item{Form: stock.Flat, WidthMm: rapid.Float64Range(22, 40).Draw(t, "w"), ThicknessMm: rapid.Float64Range(5, 9).Draw(t, "t"), LengthMm: 1000}
		req := plan.NewRequest(d, "80CrV2", piece, forge.Steady)
		req.CellCount = 16
		req.Fire.HotLengthMm = rapid.Float64Range(60, 140).Draw(t, "hot")
		bar, err := piece.Even()
		require.NoError(t, err)
		body, err := blade.New(figure.ForgedShape(req, d.Blade(), bar))
		require.NoError(t, err)
		r := route.New(&req, bar, body, figure.ZonesOf(body))
		r.Steel, err = steel.Find(req.SteelID)
		require.NoError(t, err)
		setup := forge.Setup{Smith: req.Smith, Fire: req.Fire, Steel: r.Steel}
		start := make([]float64, len(r.Cells))
		for i, c := range r.Cells {
			start[i] = c.VolumeMm3 * 1.09
		}
		whole, err := forge.NewRun(setup, startBar(r, start))
		require.NoError(t, err)
		whole.KeepStates, whole.Budget = true, forge.NewBudget(context.Background(), WorkBoundACell*len(r.Cells))
		ops := r.Operations()
		for _, op := range ops {
			if whole.Do(op) != nil {
				t.Skip("cannot be forged")
			}
		}
		at := rapid.IntRange(0, len(whole.Heats)-1).Draw(t, "left after heat")
		text, err := json.Marshal(whole.StateAfter(at))
		require.NoError(t, err)
		var st forge.State
		require.NoError(t, json.Unmarshal(text, &st))
		rest, err := Continue(nil, setup, ops, st)
		require.NoError(t, err)
		require.Equal(t, len(whole.Heats)-at-1, len(rest.Heats))
		is, err := json.Marshal(forge.State{Bar: rest.Bar})
		require.NoError(t, err)
		was, err := json.Marshal(forge.State{Bar: whole.Bar})
		require.NoError(t, err)
		require.JSONEq(t, string(was), string(is))
		for id, done := range rest.DoneAt {
			require.Equal(t, whole.DoneAt[id], done, id)
		}
	})
}

// TestAStateOfAnotherVersionIsRefused, and so are figures that no piece has.
func TestAStateOfAnotherVersionIsRefused(t *testing.T) {
	cell := `{"zone":"tang","volumeMm3":100,"widthMm":20,"thicknessMm":5,"edgeMm":5,"spineMm":5,"tempC":20%s}`
	for text, what := range map[string]string{
		`{"version":2,"cells":[]}`:                                                            "version 2",
		`{"version":1,"cells":[]}`:                                                            "number of cells",
		`{"version":1,"cells":[` + cell[:len(cell)-3] + `,"steel":1}]}`:                       "cell 0",
		`{"version":1,"share":1.5,"cells":[` + cell[:len(cell)-3] + `}]}`:                     "share",
		`{"version":1,"cells":[{"zone":"tang","volumeMm3":-1,"widthMm":20,"thicknessMm":5}]}`: "cell 0",
		`[]`: "cannot unmarshal",
	} {
		var st forge.State
		err := json.Unmarshal([]byte(text), &st)
		var se *forge.StateError
		require.ErrorAs(t, err, &se, text)
		assert.Contains(t, se.What, what)
	}
	with := func(more string) error {
		var st forge.State
		return json.Unmarshal([]byte(`{"version":1,"cells":[`+fmt.Sprintf(cell, more)+`]}`), &st)
	}
	require.NoError(t, with(`,"scaleMm":0.1,"decarbMm2":0.01,"curvePerMm":-0.02,"twistTurns":-3`))
	for _, never := range []string{`"scaleMm":-0.1`, `"decarbMm2":-1`, `"tempC":2100`, `"tempC":-200`, `"curvePerMm":-11`, `"twistTurns":1500`, `"edgeMm":0`, `"spineMm":-5`, `"steel":-1`} {
		require.ErrorContains(t, with(","+never), "cell 0", never)
	}
}

// TestABitOfAnotherSteelIsWorkedInTheWindowOfBoth, takes its own force, and the rest
// is as it was.
func TestABitOfAnotherSteelIsWorkedInTheWindowOfBoth(t *testing.T) {
	mild, err := steel.Find("1018")
	require.NoError(t, err)
	bit, err := steel.Find("O1")
	require.NoError(t, err)
	setup := forge.Setup{Smith: forge.NewSmith(forge.Steady), Fire: forge.NewFire(), Steel: mild}
	blows := func(bar forge.Bar) float64 {
		run, err := forge.NewRun(setup, bar.Clone())
		require.NoError(t, err)
		to := forge.Target{WidthMm: 22, ThicknessMm: 4, EdgeMm: 4, SpineMm: 4}
		require.NoError(t, run.Do(&forge.Operation{ID: "profile", Kind: forge.Profile, Face: forge.FlatFace, Last: 3, Targets: []forge.Target{to, to, to, to}}))
		sum := 0.0
		for _, h := range run.Heats {
			sum += h.Blows
		}
		return sum
	}
	bar := func(steels ...int) (b forge.Bar) {
		for _, s := range steels {
			b.Cells = append(b.Cells, forge.Cell{Zone: "blade", VolumeMm3: 1000, WidthMm: 20, ThicknessMm: 6, EdgeMm: 6, SpineMm: 6, TempC: 20, Steel: s})
		}
		b.Steels = []steel.Grade{bit}
		return b
	}
	alone := bar(0, 0, 0, 0)
	alone.Steels = nil
	soft, mixed, hard := blows(alone), blows(bar(1, 0, 0, 0)), blows(bar(1, 1, 1, 1))
	assert.Less(t, soft, mixed)
	assert.Less(t, mixed, hard)
	setup.Steel = bit
	assert.InEpsilon(t, blows(alone), hard, .02, "all of the bit's steel is as if the setup's were")
}
